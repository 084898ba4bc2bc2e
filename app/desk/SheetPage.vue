<script setup lang="ts">
import { clickCount } from './click-count'
import { caretBox, rangeBoxes, spotAt, type PageBox, type Spot } from '~~/core/typeset/caret'
import type { PageView } from '~~/core/typeset/drawing-pages'
import { inverted, mapped } from '~~/core/typeset/matrix'
import { useDesk } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { useWords } from '../stores/words'
import RemarkPins from './RemarkPins.vue'
import TextLayer from './TextLayer.vue'
import { useDrawnSheet, type DrawnSheet } from './use-drawn-sheet'

const props = defineProps<
  DrawnSheet & {
    zoom: number
    width: number
    height: number
    number: string
    name?: string
    view?: PageView
    marksLeft?: boolean
  }
>()
const emit = defineEmits<{ pointed: [spot: Spot]; beside: [pixels: number] }>()
const desk = useDesk()
const library = useLibrary()
const words = useWords()
const sheet = ref<HTMLElement | null>(null)
const canvas = ref<HTMLCanvasElement | null>(null)

/** CSS pixels per point. */
const scale = computed(() => (props.zoom * 96) / 72)
const view = computed<PageView>(() => props.view ?? 'pages')
const edits = computed(() => props.side === 'now' && !props.plain)
const small = computed(() => props.zoom < 0.3)
const { drawn, failure, covered } = useDrawnSheet(props, {
  sheet,
  canvas,
  scale,
  view,
  marked: computed(() => desk.marks && !small.value),
  edits,
  beside: pixels => emit('beside', pixels),
})

/** Absent faces of this page, each once, at the height of its first text: the marks of the margin. */
const margin = computed(() => {
  if (!drawn.value || !desk.marks || props.plain) return []
  const seen = new Map<string, { key: string; top: number; sign: string; tone: string; words: string }>()
  drawn.value.page.runs.forEach((run, index) => {
    const family = drawn.value!.families[index]
    if (run.status !== 'absent' || run.text === '' || !family) return
    const face = library.library?.byHash(run.face)
    const key = `${family} ${face?.family ?? ''}`
    if (seen.has(key)) return
    const top = run.matrix ? mapped(run.matrix, run.x, run.y - run.ascent).y : run.y - run.ascent
    seen.set(key, {
      key,
      top: top * scale.value,
      sign: '◇',
      tone: 'text-iris',
      words: `${family} shown in ${face?.family ?? 'a stand-in'}`,
    })
  })
  const list = [...seen.values()]
  if (drawn.value.page.offPage > 0)
    list.push({
      key: 'off',
      top: 0,
      sign: '↔',
      tone: 'text-ochre',
      words: `${drawn.value.page.offPage} ${drawn.value.page.offPage === 1 ? 'thing lies' : 'things lie'} off the page`,
    })
  list.sort((a, b) => a.top - b.top)
  // Marks that would lie over one another are set apart.
  list.forEach((mark, at) => {
    if (at > 0) mark.top = Math.max(mark.top, list[at - 1]!.top + 68)
  })
  return list
})

/** A box of the page as a style; turned ones keep their turn. */
function boxStyle({ x, y, width, height, matrix }: PageBox, least = 0): Record<string, string> {
  const s = scale.value
  const size = { width: `${Math.max(width * s, least)}px`, height: `${height * s}px` }
  if (!matrix) return { left: `${x * s}px`, top: `${y * s}px`, ...size }
  const [a, b, c, d, e, f] = matrix
  return {
    left: '0',
    top: '0',
    ...size,
    transformOrigin: '0 0',
    transform: `matrix(${a}, ${b}, ${c}, ${d}, ${e * s}, ${f * s}) translate(${x * s}px, ${y * s}px)`,
  }
}

const onThisView = computed(() => edits.value && view.value === desk.view)
const caret = computed(() =>
  onThisView.value && drawn.value && words.spot && !words.frame ? caretBox(drawn.value.page, words.spot) : null,
)
const selection = computed(() =>
  onThisView.value && drawn.value && words.ranges.length > 0 ? rangeBoxes(drawn.value.page, words.ranges) : [],
)
/** What the rule that is being written takes. */
const lit = computed(() =>
  drawn.value && desk.lit.length > 0 && !props.plain && !small.value
    ? rangeBoxes(
        drawn.value.page,
        desk.lit.filter(range =>
          drawn.value!.page.lines.some(line => line.node === range.node && line.part === range.part),
        ),
      )
    : [],
)
const frames = computed(() => drawn.value?.page.frames ?? [])
const chosenFrame = computed(() =>
  onThisView.value && words.frame
    ? (frames.value.find(each => each.node === words.frame!.node && each.part === words.frame!.part) ?? null)
    : null,
)

function pagePoint(event: PointerEvent | MouseEvent): { x: number; y: number } {
  const box = sheet.value!.getBoundingClientRect()
  return { x: (event.clientX - box.left) / scale.value, y: (event.clientY - box.top) / scale.value }
}

/** The frame whose edge, or for things without text whose area, is under a point. */
function frameAt(x: number, y: number, whole: boolean): (typeof frames.value)[number] | null {
  const near = 4 / scale.value
  return (
    frames.value.findLast(each => {
      const back = each.matrix ? inverted(each.matrix) : null
      const at = back ? mapped(back, x, y) : { x, y }
      const dx = at.x - each.x
      const dy = at.y - each.y
      const inside = dx >= -near && dy >= -near && dx <= each.width + near && dy <= each.height + near
      if (!inside) return false
      return (
        whole || each.content !== 'text' || dx < near || dy < near || dx > each.width - near || dy > each.height - near
      )
    }) ?? null
  )
}

/** A frame that is being drawn, in points. */
const drawnFrame = shallowRef<{ x: number; y: number; width: number; height: number } | null>(null)
function drawFrame(event: PointerEvent): void {
  const element = event.currentTarget as HTMLElement
  element.setPointerCapture(event.pointerId)
  const start = pagePoint(event)
  const move = (now: PointerEvent) => {
    const { x, y } = pagePoint(now)
    drawnFrame.value = {
      x: Math.min(x, start.x),
      y: Math.min(y, start.y),
      width: Math.abs(x - start.x),
      height: Math.abs(y - start.y),
    }
  }
  const end = async () => {
    element.removeEventListener('pointermove', move)
    element.removeEventListener('pointerup', end)
    const place = drawnFrame.value
    const text = words.drawing
    drawnFrame.value = null
    words.drawing = null
    const holder =
      place && text && place.width > 8 && place.height > 8
        ? await desk.engine?.ask('holder', { view: view.value, page: props.index })
        : null
    if (!holder) return
    await words.edit(
      [{ type: 'add-frame', ...holder, place: place!, text: text!, ...(await words.newFrameStyle()) }],
      made => {
        if (made !== null) words.frame = { part: holder.part, node: made }
        return null
      },
    )
  }
  element.addEventListener('pointermove', move)
  element.addEventListener('pointerup', end)
}

let dragging = false
async function press(event: PointerEvent): Promise<void> {
  if (!edits.value || !drawn.value || event.button !== 0) return
  event.preventDefault()
  const { x, y } = pagePoint(event)
  const { page } = drawn.value
  desk.page = props.index
  if (words.drawing) {
    drawFrame(event)
    return
  }
  const presses = clickCount(event)
  const target = presses < 2 ? frameAt(x, y, event.altKey) : null
  if (
    target &&
    (event.altKey ||
      spotAt(
        page,
        x,
        y,
        line => line.y <= y && line.y + line.height >= y && line.x - 2 <= x && line.x + line.width + 2 >= x,
      ) === null)
  ) {
    words.clear()
    words.frame = { part: target.part, node: target.node }
    return
  }
  const spot = spotAt(page, x, y)
  if (!spot) {
    words.clear()
    return
  }
  emit('pointed', spot)
  if (presses === 2) {
    await words.selectWord(spot)
    point(spot)
    return
  }
  if (presses >= 3) {
    const length = page.lines
      .filter(line => line.node === spot.node && line.part === spot.part)
      .reduce((most, line) => Math.max(most, line.end), 0)
    await words.selectRange({ ...spot, offset: 0 }, { ...spot, offset: length })
    return
  }
  dragging = true
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  await words.place(spot, event.shiftKey && words.spot !== null)
  point(spot)
}

function drag(event: PointerEvent): void {
  if (!dragging || !drawn.value) return
  const { x, y } = pagePoint(event)
  const spot = spotAt(drawn.value.page, x, y)
  if (spot && (spot.node !== words.spot?.node || spot.offset !== words.spot.offset)) void words.place(spot, true)
}

/** What stands under a click goes to the tray: its face, its voice, its words. */
function point(spot: Spot): void {
  const { page, faces, voices } = drawn.value!
  const index = page.runs.findIndex(
    run =>
      run.part === spot.part && run.node === spot.node && run.own && run.start <= spot.offset && run.end >= spot.offset,
  )
  if (index >= 0)
    desk.pointed = { face: faces[index]!, voice: voices[index]!, text: page.runs[index]!.text.trim() || 'white space' }
}

defineExpose({ page: computed(() => drawn.value?.page ?? null) })
</script>

<template>
  <section
    ref="sheet"
    :aria-label="`Page ${number}${name ? `, ${name}` : ''}${side !== 'now' ? ' after the change' : ''}`"
    class="relative shrink-0"
    :style="{ width: `${width * scale}px`, height: `${height * scale}px` }"
  >
    <div class="absolute inset-0 bg-sheet shadow-[0_1px_5px_rgba(27,36,48,0.22)]" />
    <template v-if="live">
      <canvas
        ref="canvas"
        class="absolute max-w-none"
        :style="{
          left: `${covered.x * scale}px`,
          top: `${covered.y * scale}px`,
          width: `${covered.width * scale}px`,
          height: `${covered.height * scale}px`,
        }"
        aria-hidden="true"
      />
      <div
        class="absolute inset-0"
        :class="!edits ? 'pointer-events-none' : words.drawing ? 'cursor-crosshair' : 'cursor-text'"
        @pointerdown="press"
        @pointermove="drag"
        @pointerup="dragging = false"
      >
        <TextLayer v-if="drawn" :page="drawn.page" :scale="scale" />
        <div
          v-for="(box, at) in lit"
          :key="`lit${at}`"
          class="pointer-events-none absolute border-b-2 border-ochre bg-ochre/15"
          :style="boxStyle(box, 3)"
          data-lit
        />
        <div
          v-for="(box, at) in selection"
          :key="at"
          class="pointer-events-none absolute bg-verdigris/25"
          :style="boxStyle(box, 3)"
          data-selection
        />
        <div
          v-if="caret && !words.hasSelection"
          class="caret pointer-events-none absolute w-[2px] bg-ink"
          :style="boxStyle({ ...caret, x: caret.x - 1 / scale }, 2)"
          data-caret
        />
        <div
          v-if="drawnFrame"
          class="pointer-events-none absolute border border-dashed border-verdigris bg-verdigris/10"
          :style="boxStyle(drawnFrame)"
        />
        <div
          v-if="chosenFrame"
          class="pointer-events-none absolute outline-2 outline-verdigris"
          :style="boxStyle(chosenFrame)"
          data-frame
        >
          <slot name="frame" :frame="chosenFrame" :scale="scale" />
        </div>
      </div>
      <p v-if="failure" class="absolute inset-4 text-rubric">{{ failure }}</p>
      <RemarkPins v-if="desk.marks && !plain && view === 'pages' && side === 'now'" :page="index" />
    </template>
    <div
      v-for="mark in margin"
      :key="mark.key"
      class="absolute w-[76px] text-[12px] leading-[14px]"
      :class="[mark.tone, marksLeft ? 'right-full mr-2 w-[30px] overflow-hidden text-right' : 'left-full ml-2']"
      :title="mark.words"
      :style="{ top: `${mark.top}px` }"
    >
      <span aria-hidden="true" class="block text-[15px]">{{ mark.sign }}</span>{{ mark.words }}
    </div>
  </section>
</template>

<style scoped>
.caret {
  animation: beat 1.1s steps(2, start) infinite;
}
@keyframes beat {
  50% {
    opacity: 0;
  }
}
@media (prefers-reduced-motion: reduce) {
  .caret {
    animation: none;
  }
}
</style>
