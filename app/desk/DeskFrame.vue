<script setup lang="ts">
import { useEventListener, useLocalStorage, useResizeObserver } from '@vueuse/core'
import { ChevronLeft, ChevronRight } from '../kit/icons'

/**
 * Two sides with a boundary that is dragged, or moved by keys; either side can be folded away. Where it stands is
 * remembered. What stands between the sides (the thumb index) goes with the boundary.
 */
const sides = withDefaults(
  defineProps<{
    /** What the sides are called. */
    leftName?: string
    rightName?: string
  }>(),
  { leftName: 'sheets', rightName: 'tray' },
)
const frame = ref<HTMLElement | null>(null)
const width = ref(1280)
/** The share of the width that the right side has. */
const share = useLocalStorage('desk boundary', 0.49)
const folded = useLocalStorage<'' | 'left' | 'right'>('desk folded', '')
/** Neither side gets narrower than its words need. Pixels. */
const least = { left: 300, right: 360 } as const
const right = computed(() =>
  folded.value === 'right'
    ? 0
    : folded.value === 'left'
      ? width.value
      : Math.round(Math.max(least.right, Math.min(share.value * width.value, width.value - least.left))),
)
const dragging = ref(false)
let from = { x: 0, right: 0 }

function to(pixels: number): void {
  share.value = Math.max(least.right, Math.min(pixels, width.value - least.left)) / width.value
}
function grab(event: PointerEvent): void {
  dragging.value = true
  folded.value = ''
  from = { x: event.clientX, right: right.value }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
}
useEventListener('pointermove', event => {
  if (dragging.value) to(from.right + from.x - event.clientX)
})
useEventListener(['pointerup', 'pointercancel'], () => {
  dragging.value = false
})
function key(event: KeyboardEvent): void {
  const step = event.shiftKey ? 96 : 24
  const act = (action: () => void) => {
    event.preventDefault()
    event.stopPropagation()
    action()
  }
  if (event.key === 'ArrowLeft')
    act(() => {
      folded.value = ''
      to(right.value + step)
    })
  else if (event.key === 'ArrowRight')
    act(() => {
      folded.value = ''
      to(right.value - step)
    })
  else if (event.key === 'Home') act(() => fold('left'))
  else if (event.key === 'End') act(() => fold('right'))
}
function fold(side: 'left' | 'right'): void {
  folded.value = folded.value === side ? '' : side
}
const foldTitle = (side: 'left' | 'right') =>
  `${folded.value === side ? 'Show' : 'Fold away'} the ${side === 'left' ? sides.leftName : sides.rightName}`
const boundaryWords = computed(
  () =>
    `Boundary between ${sides.leftName} and ${sides.rightName}: arrows move it, Home folds the ${sides.leftName} away, ` +
    `End the ${sides.rightName}`,
)
useResizeObserver(frame, ([entry]) => {
  if (entry) width.value = Math.max(entry.contentRect.width - 34 - 13, 1)
})
</script>

<template>
  <main ref="frame" class="flex min-h-0 flex-1">
    <div v-show="folded !== 'left'" class="flex min-w-0 flex-1 flex-col"><slot name="left" /></div>
    <slot name="between" />
    <div class="boundary" :class="{ 'bg-wash': dragging }">
      <div
        role="separator"
        aria-orientation="vertical"
        :aria-label="boundaryWords"
        tabindex="0"
        class="absolute inset-0"
        :aria-valuenow="Math.round((right / width) * 100)"
        aria-valuemin="0"
        aria-valuemax="100"
        @pointerdown="grab"
        @keydown="key"
      />
      <button
        v-for="side in ['left', 'right'] as const"
        :key="side"
        type="button"
        class="fold"
        tabindex="-1"
        :title="foldTitle(side)"
        :aria-label="foldTitle(side)"
        @click="fold(side)"
      >
        <component
          :is="(side === 'left') === (folded === side) ? ChevronRight : ChevronLeft"
          :size="13"
          aria-hidden="true"
        />
      </button>
    </div>
    <div
      v-show="folded !== 'right'"
      class="flex min-h-0 min-w-0 flex-col"
      :class="folded === 'left' ? 'flex-1' : 'shrink-0'"
      :style="folded === 'left' ? {} : { width: `${right}px` }"
    >
      <slot name="right" />
    </div>
  </main>
</template>
