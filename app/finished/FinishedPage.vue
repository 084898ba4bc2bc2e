<script setup lang="ts">
import { useElementVisibility } from '@vueuse/core'
import type { PageBox } from '~~/core/format/finished/page-view'
import type { ShownLine } from '~~/core/format/finished/reader'
import { useFinished } from '../stores/finished'
import type { FinishedSheet } from '../workers/finished-messages'

/** One page of a finished PDF: drawn when it is near, with its words over it for screen readers, and marks. */
const props = defineProps<{
  index: number
  sheet: FinishedSheet
  zoom: number
  /** What a press on the page means: a place for text, or the line that lies there. */
  picks: 'place' | 'line' | null
  /** A frame that text is to be put in. */
  frame: PageBox | null
  picked: ShownLine | null
}>()
const emit = defineEmits<{ place: [box: PageBox]; line: [line: ShownLine] }>()
const finished = useFinished()
const root = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)
const near = useElementVisibility(root, { rootMargin: '600px' })
const lines = shallowRef<readonly ShownLine[]>([])
const width = computed(() => props.sheet.width * props.zoom)
const height = computed(() => props.sheet.height * props.zoom)
const marks = computed(() => {
  const list: { box: PageBox; now: boolean; key: string }[] = []
  finished.places.forEach((place, at) => {
    if (place.page !== props.index + 1) return
    place.boxes.forEach((box, part) => {
      list.push({ box, now: at === finished.at, key: `${at}-${part}` })
    })
  })
  return list
})
const over = shallowRef<ShownLine | null>(null)

watch(
  [near, () => finished.shownPages, width],
  async () => {
    if (!near.value || !canvas.value || !finished.shownPages) return
    await finished.shownPages.draw(props.index, canvas.value, width.value * (window.devicePixelRatio || 1))
  },
  { immediate: true, flush: 'post' },
)
watch(
  [near, () => finished.pages],
  async () => {
    if (near.value && finished.engine) lines.value = await finished.engine.ask('lines', { page: props.index + 1 })
  },
  { immediate: true },
)

const styleOf = ({ x, y, width: wide, height: high }: PageBox) => ({
  left: `${x * props.zoom}px`,
  top: `${y * props.zoom}px`,
  width: `${wide * props.zoom}px`,
  height: `${high * props.zoom}px`,
})
const pointOf = (event: PointerEvent) => {
  const box = root.value!.getBoundingClientRect()
  return { x: (event.clientX - box.left) / props.zoom, y: (event.clientY - box.top) / props.zoom }
}
const within = ({ x, y, width: wide, height: high }: PageBox, at: { x: number; y: number }) =>
  at.x >= x - 1 && at.x <= x + wide + 1 && at.y >= y && at.y <= y + high
const lineAt = (event: PointerEvent) => {
  const at = pointOf(event)
  return lines.value.find(line => line.boxes.some(box => within(box, at))) ?? null
}

const dragged = shallowRef<{ from: { x: number; y: number }; to: { x: number; y: number } } | null>(null)
const drawnBox = computed((): PageBox | null => {
  if (!dragged.value) return null
  const { from, to } = dragged.value
  return {
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width: Math.abs(to.x - from.x),
    height: Math.abs(to.y - from.y),
  }
})
function press(event: PointerEvent): void {
  if (event.button !== 0) return
  if (props.picks === 'line') {
    const line = lineAt(event)
    if (line) emit('line', line)
  } else if (props.picks === 'place') {
    const from = pointOf(event)
    dragged.value = { from, to: from }
    ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  }
}
function move(event: PointerEvent): void {
  if (dragged.value) dragged.value = { ...dragged.value, to: pointOf(event) }
  else if (props.picks === 'line') over.value = lineAt(event)
}
function release(): void {
  if (drawnBox.value) emit('place', drawnBox.value)
  dragged.value = null
}
</script>

<template>
  <div
    ref="root"
    role="group"
    :aria-label="`Page ${index + 1}`"
    class="relative mx-auto bg-sheet shadow-[0_1px_4px_rgba(27,36,48,0.25)]"
    :class="picks === 'place' ? 'cursor-crosshair' : picks === 'line' && over ? 'cursor-pointer' : ''"
    :style="{ width: `${width}px`, height: `${height}px` }"
    @pointerdown="press"
    @pointermove="move"
    @pointerup="release"
    @pointercancel="dragged = null"
    @pointerleave="over = null"
  >
    <canvas ref="canvas" class="absolute inset-0 size-full" aria-hidden="true" />
    <div class="absolute inset-0 overflow-hidden select-none">
      <span
        v-for="line in lines"
        :key="line.line"
        class="absolute origin-top-left overflow-hidden whitespace-pre text-transparent"
        :style="{ ...styleOf(line.boxes[0]!), fontSize: `${line.size * zoom}px`, lineHeight: 1 }"
        >{{ line.text }}</span
      >
    </div>
    <div
      v-for="mark in marks"
      :key="mark.key"
      aria-hidden="true"
      class="pointer-events-none absolute"
      :class="mark.now ? 'border-2 border-ink bg-ochre/25' : 'border-b-2 border-ochre bg-ochre/10'"
      :style="styleOf(mark.box)"
    />
    <div
      v-for="(box, at) in [...(picks === 'line' ? (over?.boxes ?? []) : []), ...(picked?.boxes ?? [])]"
      :key="at"
      aria-hidden="true"
      class="pointer-events-none absolute border border-verdigris"
      :style="styleOf(box)"
    />
    <div
      v-if="drawnBox ?? frame"
      aria-hidden="true"
      class="pointer-events-none absolute border border-dashed border-verdigris"
      :style="styleOf((drawnBox ?? frame)!)"
    />
  </div>
</template>
