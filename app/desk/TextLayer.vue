<script setup lang="ts">
import type { DisplayPage } from '~~/core/typeset/display'
import type { GlyphRun } from '~~/core/typeset/glyph-runs'
import { stretchFor } from './drawing'

/** The words of a page over its picture, unseen: what screen readers read, and tests and helpers find. */
const props = defineProps<{ page: DisplayPage; scale: number }>()

/** Runs by their paragraphs, in the order of the page. */
const paragraphs = computed(() => {
  const list: { key: string; runs: { run: GlyphRun; at: number }[] }[] = []
  props.page.lines.forEach((line, index) => {
    const runs = line.runs.map(at => ({ run: props.page.runs[at]!, at })).filter(({ run }) => run.text !== '')
    if (runs.length === 0) return
    const last = list.at(-1)
    const before = props.page.lines[index - 1]
    if (last && before && before.part === line.part && before.node === line.node) last.runs.push(...runs)
    else list.push({ key: `${line.part}#${line.node}#${index}`, runs })
  })
  return list
})

function styleOf(run: GlyphRun): Record<string, string> {
  const s = props.scale
  const own = {
    fontSize: `${run.size * s}px`,
    lineHeight: `${(run.ascent + run.descent) * s}px`,
    direction: run.rightToLeft ? 'rtl' : 'ltr',
  }
  const [x, y] = [run.x * s, (run.y - run.ascent) * s]
  if (!run.matrix) return { ...own, left: `${x}px`, top: `${y}px`, transform: `scaleX(${stretchFor(run)})` }
  const [a, b, c, d, e, f] = run.matrix
  return {
    ...own,
    left: '0',
    top: '0',
    transform: `matrix(${a}, ${b}, ${c}, ${d}, ${e * s}, ${f * s}) translate(${x}px, ${y}px) scaleX(${stretchFor(run)})`,
  }
}
</script>

<template>
  <div class="absolute inset-0 overflow-hidden select-none">
    <div v-for="paragraph in paragraphs" :key="paragraph.key" role="paragraph">
      <span
        v-for="{ run, at } in paragraph.runs"
        :key="at"
        class="absolute origin-top-left whitespace-pre text-transparent"
        style="font-family: sans-serif"
        :style="styleOf(run)"
        >{{ run.text }}</span
      >
    </div>
  </div>
</template>
