<script setup lang="ts">
import DeskFrame from '../desk/DeskFrame.vue'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import { sentenceOf } from '../stores/desk'
import { useType } from '../stores/type'
import AddFaces from '../type/AddFaces.vue'
import CompareFaces from '../type/CompareFaces.vue'
import FaceList from '../type/FaceList.vue'
import FaceSearch from '../type/FaceSearch.vue'
import FaceSpecimen from '../type/FaceSpecimen.vue'
import Chips from '../kit/Chips.vue'

const type = useType()
const list = ref<InstanceType<typeof FaceList> | null>(null)
const view = ref<'specimen' | 'compare'>('specimen')
const failure = ref('')
onMounted(async () => {
  if (type.group === 'document' || type.group === 'suits') type.group = 'all'
  type.ofDocument = []
  type.uses = []
  try {
    await type.load()
  } catch (error) {
    failure.value = sentenceOf(error)
  }
  if (type.entry === null) type.chosen = type.result.found[0]?.family ?? null
})
watch(
  () => type.chosen,
  () => {
    view.value = 'specimen'
  },
)
useHead({ title: 'Library, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Library" />
    <DeskFrame left-name="list" right-name="specimen">
      <template #left>
        <div class="flex min-h-0 flex-1 flex-col bg-desk px-6 pt-4">
          <NoticeLine v-if="failure" kind="failed">{{ failure }}</NoticeLine>
          <AddFaces class="mb-3" />
          <FaceSearch @down="list?.focus()" />
          <FaceList
            ref="list"
            v-model="type.chosen"
            class="mt-3"
            wide
            :entries="type.result.found"
            @enter="view = 'specimen'"
          />
        </div>
      </template>
      <template #between><ShelfIndex open="library" /></template>
      <template #right>
        <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4">
          <Chips
            v-model="view"
            class="mb-3"
            label="What is shown"
            :options="[
              { id: 'specimen', title: 'Specimen' },
              { id: 'compare', title: `Compare ${type.compared.length}` },
            ]"
          />
          <CompareFaces v-if="view === 'compare'" :entries="type.compared" />
          <FaceSpecimen v-else-if="type.entry" :entry="type.entry" />
          <p v-else class="text-soft">{{ type.entries.length === 0 ? 'Fetching the faces …' : 'Choose a family.' }}</p>
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
