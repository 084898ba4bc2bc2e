<script setup lang="ts">
import { ListboxOption, ListboxOptions } from '@headlessui/vue'
import { useElementBounding, useWindowSize } from '@vueuse/core'
import { Check } from './icons'
import type { ChoiceOption } from './choice-options'

/**
 * The open list of a choice: under its button, or over it where there is more room. A click on it is none on the label
 * that may stand around it.
 */
const props = defineProps<{ anchor: HTMLElement; options: readonly ChoiceOption[] }>()
const { left, top, bottom, width } = useElementBounding(() => props.anchor)
const { height: windowHeight, width: windowWidth } = useWindowSize()
const place = computed(() => {
  const below = windowHeight.value - bottom.value - 8
  const above = top.value - 8
  const up = below < 180 && above > below
  return {
    left: `${Math.max(4, Math.min(left.value, windowWidth.value - Math.max(width.value, 180) - 4))}px`,
    minWidth: `${width.value}px`,
    maxHeight: `${Math.min(320, up ? above : below)}px`,
    ...(up ? { bottom: `${windowHeight.value - top.value + 1}px` } : { top: `${bottom.value + 1}px` }),
  }
})
</script>

<template>
  <ListboxOptions
    class="fixed z-[60] max-w-[420px] overflow-y-auto border border-ink bg-sheet py-1 text-[14px] text-ink outline-none"
    :style="place"
    @click.prevent
  >
    <ListboxOption
      v-for="(option, index) in options"
      :key="index"
      v-slot="{ active, selected }"
      :value="option.value"
      :disabled="option.disabled"
      as="template"
    >
      <li
        class="flex min-h-[28px] cursor-pointer items-center gap-2 py-[3px] pr-4 pl-2"
        :class="{ 'bg-wash': active, 'font-semibold': selected, 'cursor-default text-soft': option.disabled }"
      >
        <Check :size="14" class="shrink-0" :class="{ invisible: !selected }" aria-hidden="true" />{{ option.title }}
      </li>
    </ListboxOption>
  </ListboxOptions>
</template>
