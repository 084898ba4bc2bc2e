<script setup lang="ts">
import type { CatalogueEntry } from '~~/core/font/catalogue'
import { useWalkedList } from '../kit/use-walked-list'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'

/** Families drawn in themselves. Arrow keys go from one to the next; only those in sight are in the page. */
const props = defineProps<{
  entries: readonly CatalogueEntry[]
  /** With measures beside: where there is room. */
  wide?: boolean
}>()
const chosen = defineModel<string | null>({ required: true })
const emit = defineEmits<{ enter: []; point: [family: string | null] }>()
const library = useLibrary()
const type = useType()
const rowHeight = 60
const at = computed(() => props.entries.findIndex(entry => entry.family === chosen.value))
function go(index: number): void {
  const entry = props.entries[index]
  if (entry) chosen.value = entry.family
}
const { scroller, rows, height, walk } = useWalkedList({
  count: () => props.entries.length,
  rowHeight,
  at: () => at.value,
  go,
})
const items = computed(() =>
  rows.value.flatMap(item => {
    const entry = props.entries[item.index]
    return entry ? [{ ...item, entry }] : []
  }),
)
const idOf = (family: string) => `face-${family.replace(/\W+/g, '-')}`
function key(event: KeyboardEvent): void {
  if (walk(event)) return
  if (event.key === 'Enter') emit('enter')
  else if (event.key === ' ' && chosen.value !== null) type.keep(chosen.value)
  else return
  event.preventDefault()
  event.stopPropagation()
}
/** The longest bar is a large x-height, and a contrast of five. */
const share = (value: number, most: number) => `${Math.round(Math.min(value / most, 1) * 100)}%`
defineExpose({
  focus: () => {
    if (at.value < 0) go(0)
    scroller.value?.focus()
  },
})
</script>

<template>
  <div class="face-rows flex min-h-0 flex-1 flex-col">
    <div v-if="wide" aria-hidden="true" class="face-row border-b border-ink text-[13px] text-soft">
      <span>In itself</span><span>Class</span><span>Weights</span><span>x-height</span><span>Thick to thin</span>
    </div>
    <div
      ref="scroller"
      role="listbox"
      aria-label="Faces"
      tabindex="0"
      class="min-h-0 flex-1 overflow-y-auto"
      :aria-activedescendant="chosen !== null && at >= 0 ? idOf(chosen) : undefined"
      @keydown="key"
      @pointerleave="emit('point', null)"
    >
      <p v-if="entries.length === 0" class="py-4 text-soft">
        No family answers all of that. Take a part away, or look among all.
      </p>
      <div class="relative w-full" :style="{ height: `${height}px` }">
        <div
          v-for="{ entry, start, index } in items"
          :id="idOf(entry.family)"
          :key="entry.family"
          role="option"
          :aria-selected="entry.family === chosen"
          :aria-setsize="entries.length"
          :aria-posinset="index + 1"
          :aria-label="`${entry.family}, ${entry.classed.kind} ${entry.classed.class}, ${entry.weights.length} weights`"
          class="absolute inset-x-0 top-0 cursor-pointer border-b border-rule"
          :class="[
            wide ? 'face-row' : 'flex items-center px-1.5',
            entry.family === chosen ? 'bg-wash' : 'hover:bg-paper',
          ]"
          :style="{ height: `${rowHeight}px`, transform: `translateY(${start}px)` }"
          @click="chosen = entry.family"
          @dblclick="emit('enter')"
          @pointerenter="emit('point', entry.family)"
        >
          <span class="min-w-0 flex-1">
            <span
              class="block overflow-hidden pt-1 text-[20px] leading-[32px] whitespace-nowrap"
              :style="{ fontFamily: library.cssFamily(entry.plain.hash) }"
              >{{ type.shown }}</span
            >
            <span class="flex gap-2 text-[13px] leading-[18px] text-soft"
              ><span class="shrink-0">{{ entry.family }}</span
              ><span v-if="!wide" class="shrink-0">{{ entry.classed.kind }} {{ entry.classed.class }}</span
              ><span v-if="type.why(entry.family)" class="truncate" :title="type.why(entry.family)">{{
                type.why(entry.family)
              }}</span
              ><span v-if="type.lacking(entry).length > 0" class="shrink-0 text-ochre"
                >not licensed for {{ type.lacking(entry).join(', ') }}</span
              ><span v-if="type.shortlist.includes(entry.family)" class="shrink-0 text-verdigris"
                >on the shortlist</span
              ></span
            >
          </span>
          <template v-if="wide">
            <span class="text-[13px]"
              >{{ entry.classed.class }}<br /><span class="text-soft">{{ entry.classed.kind }}</span></span
            >
            <span class="text-[13px]">{{ entry.weights.length }}</span>
            <span class="text-[13px]"
              ><span class="bar"
                ><span class="bg-verdigris" :style="{ width: share(entry.plain.measures.xHeight, 700) }" /></span
              >{{ Math.round(entry.plain.measures.xHeight) }}</span
            >
            <span class="text-[13px]"
              ><template v-if="entry.plain.measures.contrast !== null"
                ><span class="bar"
                  ><span class="bg-[#8c8776]" :style="{ width: share(entry.plain.measures.contrast - 1, 4) }" /></span
                >{{ entry.plain.measures.contrast.toFixed(1) }}</template
              ><template v-else>–</template></span
            >
          </template>
        </div>
      </div>
    </div>
  </div>
</template>
