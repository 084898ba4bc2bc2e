<script setup lang="ts">
import { Search } from '../kit/icons'

/** A field for words to be found on the pages, and the way through their places. */
const props = defineProps<{
  /** What was looked for last, and which of how many places is shown; null where nothing is. */
  found: { readonly text: string; readonly matchCase: boolean; readonly at: number; readonly count: number } | null
}>()
const emit = defineEmits<{ look: [text: string, matchCase: boolean]; walk: [step: 1 | -1]; clear: [] }>()
const text = ref('')
const matchCase = ref(false)
const field = ref<HTMLInputElement | null>(null)

const look = () => emit('look', text.value, matchCase.value)
function next(step: 1 | -1): void {
  const { found } = props
  if (!found || found.text !== text.value || found.matchCase !== matchCase.value) look()
  else emit('walk', step)
}
function clear(): void {
  text.value = ''
  emit('clear')
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
    <template v-if="found">
      <span class="whitespace-nowrap text-soft tabular-nums" role="status">{{
        found.count === 0 ? 'not found' : `${found.at + 1} of ${found.count}`
      }}</span>
      <button type="button" class="link" :disabled="found.count === 0" @click="next(-1)">Before</button>
      <button type="button" class="link" :disabled="found.count === 0" @click="next(1)">Next</button>
      <label class="flex items-center gap-1 whitespace-nowrap"
        ><input v-model="matchCase" type="checkbox" class="size-[14px]" @change="look" />Match case</label
      >
    </template>
  </form>
</template>
