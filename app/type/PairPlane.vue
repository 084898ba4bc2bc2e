<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { mistakeWithin } from '~~/core/pairing/candidates'
import { useLibrary } from '../stores/library'
import { planeStep, usePairs } from '../stores/pairs'

/**
 * The plane around a face: alike in proportions at the left, alike in detail at the foot. Candidates stand drawn in
 * themselves where they measure; the place that is pointed at, or walked to by arrow keys, chooses the nearest.
 */
const pairs = usePairs()
const library = useLibrary()
const holder = ref<HTMLElement | null>(null)
const { width, height } = useElementSize(holder)
/** Room for the letters of those at the edges, in pixels. */
const edge = 26
const x = (proportions: number) => edge + proportions * Math.max(width.value - 2 * edge, 1)
const y = (detail: number) => height.value - edge - detail * Math.max(height.value - 2 * edge, 1)

/** Drawn in themselves as long as they do not lie over one another; the others are dots. The nearest come first. */
const drawn = computed(() => {
  const taken: { x: number; y: number }[] = []
  return pairs.ranked.map(candidate => {
    const place = { x: x(candidate.proportions), y: y(candidate.detail) }
    const free =
      taken.length < 60 && taken.every(each => Math.abs(each.x - place.x) > 34 || Math.abs(each.y - place.y) > 26)
    if (free) taken.push(place)
    return { ...candidate, ...place, free }
  })
})
function point(event: PointerEvent): void {
  const box = holder.value!.getBoundingClientRect()
  pairs.go(
    (event.clientX - box.left - edge) / Math.max(width.value - 2 * edge, 1),
    (box.bottom - edge - event.clientY) / Math.max(height.value - 2 * edge, 1),
  )
}
function drag(event: PointerEvent): void {
  if (event.buttons === 1) point(event)
}
function key(event: KeyboardEvent): void {
  const step = event.shiftKey ? planeStep * 4 : planeStep
  const { proportions, detail } = pairs.at
  if (event.key === 'ArrowRight') pairs.go(proportions + step, detail)
  else if (event.key === 'ArrowLeft') pairs.go(proportions - step, detail)
  else if (event.key === 'ArrowUp') pairs.go(proportions, detail + step)
  else if (event.key === 'ArrowDown') pairs.go(proportions, detail - step)
  else return
  event.preventDefault()
  event.stopPropagation()
}
const said = computed(
  () =>
    `${Math.round(pairs.at.proportions * 100)} % apart in proportions, ${Math.round(pairs.at.detail * 100)} % in detail: ` +
    (pairs.chosen?.entry.family ?? 'nothing there'),
)
</script>

<template>
  <div
    ref="holder"
    class="relative min-h-[240px] flex-1 touch-none overflow-hidden border border-rule bg-sheet select-none"
    role="slider"
    tabindex="0"
    aria-label="The plane around the given face: arrow keys walk it"
    :aria-valuenow="Math.round(pairs.at.proportions * 100)"
    aria-valuemin="0"
    aria-valuemax="100"
    :aria-valuetext="said"
    @pointerdown="point"
    @pointermove="drag"
    @keydown="key"
  >
    <div
      class="absolute left-0 bg-[repeating-linear-gradient(45deg,#f0e3d2_0_4px,transparent_4px_9px)]"
      :style="{
        bottom: '0',
        width: `${x(mistakeWithin.proportions)}px`,
        height: `${height - y(mistakeWithin.detail)}px`,
      }"
    />
    <span class="absolute right-2 bottom-1 text-[12px] text-soft">other proportions →</span>
    <span class="absolute top-1 left-2 text-[12px] text-soft">↑ other detail</span>
    <span class="absolute bottom-1 left-2 text-[12px] text-ochre">too alike: reads as a mistake</span>
    <span
      v-for="each in drawn"
      :key="each.entry.family"
      class="absolute -translate-x-1/2 -translate-y-1/2 leading-none"
      :class="each.free ? 'text-[20px]' : 'size-[4px] rounded-full bg-[#8c8776]'"
      :style="{
        left: `${each.x}px`,
        top: `${each.y}px`,
        fontFamily: each.free ? library.cssFamily(each.entry.plain.hash) : undefined,
        color: each.entry.family === pairs.chosen?.entry.family ? 'var(--color-verdigris)' : undefined,
      }"
      :title="each.entry.family"
      @pointerdown.stop="pairs.pick(each.entry.family)"
      >{{ each.free ? 'ag' : '' }}</span
    >
    <span
      class="pointer-events-none absolute size-[22px] -translate-x-1/2 -translate-y-1/2 rounded-full border-2 border-verdigris"
      :style="{ left: `${x(pairs.at.proportions)}px`, top: `${y(pairs.at.detail)}px` }"
    />
  </div>
</template>
