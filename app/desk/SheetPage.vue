<script setup lang="ts">
import type { GlyphRun } from '~~/core/typeset/display'
import type { Drawn, Side } from '../workers/messages'
import { useDesk } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { drawPage, keepOutlines, stretchFor } from './drawing'

const props = defineProps<{ side: Side, index: number, zoom: number, width: number, height: number, number: string, live: boolean, generation: number, faces?: ReadonlySet<string>, plain?: boolean }>()
const desk = useDesk()
const library = useLibrary()
const canvas = ref<HTMLCanvasElement | null>(null)
const drawn = shallowRef<Drawn | null>(null)
const pictures = shallowRef(new Map<string, ImageBitmap>())
const failure = ref('')

/** CSS pixels per point. */
const scale = computed(() => props.zoom * 96 / 72)

async function load(): Promise<void> {
  if (!desk.engine) return
  try {
    const next = await desk.engine.ask('page', { side: props.side, index: props.index })
    keepOutlines(next)
    drawn.value = next
    failure.value = ''
    for (const shape of next.page.shapes) {
      if (shape.kind !== 'image' || pictures.value.has(shape.href)) continue
      const picture = await desk.engine?.ask('picture', { href: shape.href })
      if (picture) pictures.value = new Map(pictures.value).set(shape.href, picture)
    }
  }
  catch (error) { failure.value = error instanceof Error ? error.message : String(error) }
}

function isChosen(index: number): boolean {
  const chosen = desk.chosen
  if (props.faces) return props.faces.has(drawn.value?.faces[index] ?? '')
  if (!chosen || !drawn.value || props.side === 'after') return false
  return (chosen.of === 'face' ? drawn.value.faces : drawn.value.voices)[index] === chosen.key
}

function isCurrent(index: number): boolean {
  const place = desk.current
  const run = drawn.value?.page.runs[index]
  return place !== null && run !== undefined && isChosen(index) && run.part === place.part && run.node === place.node && run.start < place.end && run.end > place.start
}

function draw(): void {
  const context = canvas.value?.getContext('2d')
  if (!context || !drawn.value) return
  const ratio = window.devicePixelRatio || 1
  context.canvas.width = Math.round(props.width * scale.value * ratio)
  context.canvas.height = Math.round(props.height * scale.value * ratio)
  drawPage(context, drawn.value.page, scale.value * ratio, { shown: desk.marks, chosen: isChosen, current: isCurrent }, pictures.value)
}

watch(() => [props.live, props.generation, props.index, props.side] as const, ([live]) => { if (live) void load() }, { immediate: true })
watch([drawn, pictures, scale, canvas, () => props.faces, () => desk.chosen, () => desk.current, () => desk.marks], draw, { flush: 'post' })

/** Absent faces of this page, each once, at the height of its first text: the marks of the margin. */
const margin = computed(() => {
  if (!drawn.value || !desk.marks || props.plain) return []
  const seen = new Map<string, { top: number, family: string, standIn: string }>()
  drawn.value.page.runs.forEach((run, index) => {
    const key = drawn.value!.faces[index]!
    if (run.status !== 'absent' || run.text === '' || seen.has(key)) return
    const face = library.library?.byHash(run.face)
    seen.set(key, { top: (run.y - run.ascent) * scale.value, family: key.split('|')[0]!, standIn: face?.family ?? 'a stand-in' })
  })
  const list = [...seen.values()].sort((a, b) => a.top - b.top)
  // Marks that would lie over one another are set apart.
  list.forEach((mark, at) => { if (at > 0) mark.top = Math.max(mark.top, list[at - 1]!.top + 68) })
  return list
})

const textRuns = computed(() => (drawn.value?.page.runs ?? []).map((run, at) => ({ run, at })).filter(({ run }) => run.text !== ''))

function styleOf(run: GlyphRun): Record<string, string> {
  return {
    left: `${run.x * scale.value}px`, top: `${(run.y - run.ascent) * scale.value}px`, fontSize: `${run.size * scale.value}px`, lineHeight: `${(run.ascent + run.descent) * scale.value}px`,
    transform: `scaleX(${stretchFor(run)})`, direction: run.rightToLeft ? 'rtl' : 'ltr',
  }
}

function point(index: number): void {
  if (!drawn.value || props.side === 'after') return
  const run = drawn.value.page.runs[index]!
  const selected = window.getSelection()?.toString().trim() ?? ''
  desk.pointed = { face: drawn.value.faces[index]!, voice: drawn.value.voices[index]!, text: selected || run.text.trim() || 'white space' }
}
</script>

<template>
  <section :aria-label="`Page ${number}${side === 'after' ? ' after the change' : ''}`" class="relative shrink-0" :style="{ width: `${width * scale}px`, height: `${height * scale}px` }">
    <div class="absolute inset-0 bg-sheet shadow-[0_1px_5px_rgba(27,36,48,0.22)]">
      <template v-if="live">
        <canvas ref="canvas" class="absolute inset-0 size-full" aria-hidden="true" />
        <div class="absolute inset-0 overflow-hidden">
          <span v-for="{ run, at } in textRuns" :key="at" class="absolute origin-left whitespace-pre text-transparent selection:bg-verdigris/30" style="font-family: sans-serif" :style="styleOf(run)" @pointerup="point(at)">{{ run.text }}</span>
        </div>
        <p v-if="failure" class="absolute inset-4 text-rubric">This page cannot be drawn: {{ failure }}</p>
      </template>
    </div>
    <div v-for="mark in margin" :key="mark.family" class="absolute left-full ml-2 w-[76px] text-[12px] leading-[14px] text-iris" :style="{ top: `${mark.top}px` }">
      <span aria-hidden="true" class="block text-[15px]">◇</span>{{ mark.family }} shown in {{ mark.standIn }}
    </div>
  </section>
</template>
