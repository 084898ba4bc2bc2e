<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import type { DisplayPage } from '~~/core/typeset/display'
import { boundsOf } from '~~/core/typeset/matrix'
import { useWays } from '../stores/ways'
import { useWords } from '../stores/words'

/** A chosen frame: dragged by its middle it moves, by its corner it takes another size; arrow keys do the same. */
const props = defineProps<{ frame: DisplayPage['frames'][number]; scale: number; page: number }>()
const words = useWords()
const ways = useWays()
const moved = ref({ dx: 0, dy: 0, dw: 0, dh: 0 })
const box = ref<HTMLElement | null>(null)

const place = computed(() => {
  const { x, y, width, height, matrix } = props.frame
  const bounds = matrix ? boundsOf(matrix, { x, y, width, height }) : { x, y }
  return { x: bounds.x, y: bounds.y, width, height }
})

async function put(dx: number, dy: number, dw: number, dh: number): Promise<void> {
  const from = place.value
  const to = {
    x: from.x + dx,
    y: from.y + dy,
    width: Math.max(from.width + dw, 4),
    height: Math.max(from.height + dh, 4),
  }
  if (dx === 0 && dy === 0 && dw === 0 && dh === 0) return
  await words.edit([{ type: 'place-frame', part: props.frame.part, node: props.frame.node, from, to }], () => null)
}

/**
 * Follows the pointer until it is let go. It is listened to at the window: a page that is drawn anew meanwhile takes
 * nothing of the drag away.
 */
function start(event: PointerEvent, sizes: boolean): void {
  event.stopPropagation()
  event.preventDefault()
  box.value?.focus({ preventScroll: true })
  const [x, y] = [event.clientX, event.clientY]
  const move = (now: PointerEvent) => {
    const [dx, dy] = [(now.clientX - x) / props.scale, (now.clientY - y) / props.scale]
    moved.value = sizes ? { dx: 0, dy: 0, dw: dx, dh: dy } : { dx, dy, dw: 0, dh: 0 }
  }
  const stops = [
    useEventListener(window, 'pointermove', move),
    useEventListener(window, 'pointerup', now => {
      move(now)
      const { dx, dy, dw, dh } = moved.value
      done()
      void put(dx, dy, dw, dh)
    }),
    useEventListener(window, 'pointercancel', () => done()),
  ]
  function done(): void {
    for (const stop of stops) stop()
    moved.value = { dx: 0, dy: 0, dw: 0, dh: 0 }
  }
}

const steps: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
}
function key(event: KeyboardEvent): void {
  const step = steps[event.key]
  if (event.key === 'Escape') {
    words.frame = null
    return
  }
  if (event.key === 'Delete' || event.key === 'Backspace') {
    event.preventDefault()
    const { part, node } = props.frame
    words.frame = null
    void words.edit([{ type: 'remove-frame', part, node }], () => null)
    return
  }
  if (!step) return
  event.preventDefault()
  event.stopPropagation()
  // A millimetre, with Alt a tenth of a point; with Shift it is the size that changes.
  const size = event.altKey ? 0.1 : 72 / 25.4
  void (event.shiftKey ? put(0, 0, step[0] * size, step[1] * size) : put(step[0] * size, step[1] * size, 0, 0))
}
onMounted(() => box.value?.focus({ preventScroll: true }))
</script>

<template>
  <div
    ref="box"
    tabindex="0"
    role="group"
    class="pointer-events-auto absolute inset-0 cursor-move outline-none"
    :aria-label="
      `${frame.name || 'Frame'}: ${ways.said(place.width)} by ${ways.said(place.height)}. ` +
      'Arrow keys move it, with Shift they change its size, Delete takes it away.'
    "
    :style="{
      transform: `translate(${moved.dx * scale}px, ${moved.dy * scale}px)`,
      width: `${frame.width * scale + moved.dw * scale}px`,
      height: `${frame.height * scale + moved.dh * scale}px`,
    }"
    :class="{ 'border border-dashed border-verdigris bg-verdigris/10': moved.dx || moved.dy || moved.dw || moved.dh }"
    @pointerdown="start($event, false)"
    @keydown="key"
  >
    <span
      class="absolute -right-[6px] -bottom-[6px] size-[12px] cursor-nwse-resize border-2 border-verdigris bg-sheet"
      aria-hidden="true"
      @pointerdown="start($event, true)"
    />
  </div>
</template>
