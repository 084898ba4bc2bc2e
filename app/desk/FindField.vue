<script setup lang="ts">
import { Search } from '../kit/icons'
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'

/** Finds text on the pages, white space as it is written, and walks through its places. */
const desk = useDesk()
const words = useWords()
const text = ref('')
const matchCase = ref(false)
const field = ref<HTMLInputElement | null>(null)
const count = computed(() => desk.found?.places.length ?? 0)

async function look(): Promise<void> {
  await words.flush()
  await desk.find(text.value, matchCase.value)
}

async function next(step: 1 | -1): Promise<void> {
  if (!desk.found || desk.found.text !== text.value || desk.found.matchCase !== matchCase.value) await look()
  else desk.walkFound(step)
}

watch(
  () => desk.found,
  async found => {
    const place = found?.places[found.at]
    if (!place) return
    if (place.page >= 0) desk.show(place.view, place.page)
    await words.selectRange(
      { part: place.part, node: place.node, offset: place.from },
      { part: place.part, node: place.node, offset: place.to },
    )
    desk.reveal++
  },
)
function clear(): void {
  text.value = ''
  desk.found = null
  field.value?.blur()
}
defineExpose({ focus: () => field.value?.select() })
</script>

<template>
  <form role="search" class="flex shrink-0 items-center gap-2 text-[13px]" @submit.prevent="next(1)">
    <span class="relative">
      <Search :size="14" class="absolute top-[7px] left-2 text-soft" aria-hidden="true" />
      <input
        ref="field"
        v-model="text"
        class="field !min-h-[28px] !py-[2px] !pl-7 focus:w-[230px]"
        :class="text === '' ? 'w-[150px]' : 'w-[230px]'"
        aria-label="Find text on the pages"
        placeholder="Find text"
        @keydown.esc.stop="clear"
        @keydown.shift.enter.prevent="next(-1)"
      />
    </span>
    <template v-if="desk.found">
      <span class="whitespace-nowrap text-soft tabular-nums" role="status">{{
        count === 0 ? 'not found' : `${desk.found.at + 1} of ${count}`
      }}</span>
      <button type="button" class="link" :disabled="count === 0" @click="next(-1)">Before</button>
      <button type="button" class="link" :disabled="count === 0" @click="next(1)">Next</button>
      <label class="flex items-center gap-1 whitespace-nowrap"
        ><input v-model="matchCase" type="checkbox" class="size-[14px]" @change="look" />Match case</label
      >
    </template>
  </form>
</template>
