<script setup lang="ts">
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import FindField from './FindField.vue'

/** Finds text of the document on the desk, white space as it is written, and walks through its places. */
const desk = useDesk()
const words = useWords()
const field = ref<InstanceType<typeof FindField> | null>(null)
const found = computed(() => desk.found && { ...desk.found, count: desk.found.places.length })

async function look(text: string, matchCase: boolean): Promise<void> {
  await words.flush()
  await desk.find(text, matchCase)
}
watch(
  () => desk.found,
  async now => {
    const place = now?.places[now.at]
    if (!place) return
    if (place.page >= 0) desk.show(place.view, place.page)
    await words.selectRange(
      { part: place.part, node: place.node, offset: place.from },
      { part: place.part, node: place.node, offset: place.to },
    )
    desk.reveal++
  },
)
defineExpose({ focus: () => field.value?.focus() })
</script>

<template>
  <FindField ref="field" :found="found" @look="look" @walk="desk.walkFound" @clear="desk.found = null" />
</template>
