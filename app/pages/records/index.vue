<script setup lang="ts">
import type { RecordRow } from '~~/shared/api'
import RunningHead from '../../desk/RunningHead.vue'
import ShelfIndex from '../../desk/ShelfIndex.vue'
import { counted } from '../../desk/words'
import { sentenceOf } from '../../stores/desk'
import { useMe } from '../../stores/me'
import Term from '../../kit/Term.vue'

const records = shallowRef<readonly RecordRow[] | null>(null)
const me = useMe()
const query = ref('')
const failure = ref('')
const shown = computed(() =>
  (records.value ?? []).filter(record =>
    `${record.fileName} ${record.title}`.toLowerCase().includes(query.value.trim().toLowerCase()),
  ),
)
const kinds: Readonly<Record<string, string>> = { swap: 'swap', recast: 'recast', styles: 'styles' }
onMounted(async () => {
  try {
    records.value = await $fetch<RecordRow[]>('/api/records')
  } catch (error) {
    failure.value = sentenceOf(error)
  }
})
useHead({ title: 'Records, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Records" />
    <div class="flex min-h-0 flex-1">
      <main class="min-h-0 min-w-0 flex-1 overflow-y-auto bg-desk px-10 py-7">
        <h1><Term word="record">Records</Term></h1>
        <p class="text-soft">
          {{
            records === null
              ? 'Fetching …'
              : records.length === 0
                ? 'No plan was carried out yet.'
                : `What ${counted(records.length, 'plan')} did, newest first: wish, places, and the pages before and after.`
          }}
        </p>
        <p v-if="failure" role="alert" class="mt-2 text-rubric">{{ failure }}</p>
        <input
          v-if="records && records.length > 0"
          v-model="query"
          class="field mt-3 w-[220px]"
          placeholder="Search documents and changes"
          aria-label="Search the records"
        />
        <table v-if="shown.length > 0" class="mt-3 table-fixed">
          <colgroup>
            <col class="w-[140px]" />
            <col class="w-[220px]" />
            <col class="w-[80px]" />
            <col />
            <col class="w-[120px]" />
          </colgroup>
          <thead>
            <tr>
              <th scope="col">When</th>
              <th scope="col">Document</th>
              <th scope="col">Kind</th>
              <th scope="col">Change</th>
              <th scope="col">Files</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="record in shown" :key="`${record.document}${record.number}`">
              <td class="text-soft">
                {{
                  new Date(record.created).toLocaleString('en-GB', {
                    day: 'numeric',
                    month: 'short',
                    hour: '2-digit',
                    minute: '2-digit',
                  })
                }}
                <span v-if="me.isShared" class="block text-[13px]">{{ me.nameOf(record.author) }}</span>
              </td>
              <td class="truncate">
                <NuxtLink :to="`/documents/${record.document}`" class="inline-block py-1 hover:underline">{{
                  record.fileName
                }}</NuxtLink>
              </td>
              <td>{{ kinds[record.madeBy] ?? record.madeBy }}</td>
              <td class="truncate">
                <NuxtLink :to="`/records/${record.document}/${record.number}`" class="link inline-block py-1">{{
                  record.title
                }}</NuxtLink>
              </td>
              <td>
                <a
                  class="link"
                  :href="`/api/documents/${record.document}/record-pdf?version=${record.number}`"
                  :aria-label="`Record of ${record.fileName}, version ${record.number}, as PDF`"
                  >PDF</a
                >
                ·
                <a
                  class="link"
                  :href="`/api/documents/${record.document}/record-csv?version=${record.number}`"
                  :aria-label="`Record of ${record.fileName}, version ${record.number}, as CSV`"
                  >CSV</a
                >
              </td>
            </tr>
          </tbody>
        </table>
      </main>
      <ShelfIndex open="records" />
    </div>
  </div>
</template>
