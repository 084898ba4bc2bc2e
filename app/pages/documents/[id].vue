<script setup lang="ts">
import type { DocumentInfo } from '~~/shared/api'
import DocumentDesk from '../../desk/DocumentDesk.vue'
import RunningHead from '../../desk/RunningHead.vue'
import { sentenceOf } from '../../stores/desk'

// Each desk brings its own engine: nobody waits for that of another.
const FinishedDesk = defineAsyncComponent(() => import('../../finished/FinishedDesk.vue'))
const ReaderDesk = defineAsyncComponent(() => import('../../desk/ReaderDesk.vue'))

/** A document on the desk: one that is set here, or a PDF that somebody else finished. */
const id = String(useRoute().params.id)
const info = shallowRef<DocumentInfo | null>(null)
const failure = ref('')
onMounted(async () => {
  try {
    info.value = await $fetch<DocumentInfo>(`/api/documents/${id}`)
  } catch (error) {
    failure.value = sentenceOf(error)
  }
})
</script>

<template>
  <div v-if="info === null" class="flex h-full flex-col">
    <RunningHead />
    <main v-if="failure" class="p-10">
      <h1>This document could not be opened</h1>
      <p class="mt-2 text-rubric" role="alert">{{ failure }}</p>
      <NuxtLink to="/" class="link mt-3 inline-block">Back to the shelf</NuxtLink>
    </main>
    <main v-else class="p-10 text-soft"><p role="status">Fetching the document …</p></main>
  </div>
  <ReaderDesk v-else-if="!info.rights.includes('fonts')" :info="info" />
  <FinishedDesk v-else-if="info.document.kind === 'finished'" :info="info" />
  <DocumentDesk v-else :id="id" :info="info" />
</template>
