<script setup lang="ts">
import type { FaceRecord } from '~~/core/font/face'
import { useLibrary } from '../stores/library'

/** Large letters of a face between the lines that they stand by, each line with its figure. */
const props = defineProps<{ face: FaceRecord; letters: string }>()
const library = useLibrary()
/** So large that the letters fit before the figures; capitals and round letters run about a quarter wider than text. */
const size = computed(() => Math.min(170, 440_000 / (props.letters.length * props.face.measures.averageWidth * 1.25)))
const [left, baseline] = [8, 176]
const lines = computed(() => {
  const { ascender, capHeight, xHeight, descender } = props.face.measures
  const all = [
    { name: 'ascender', value: ascender, y: baseline - (ascender * size.value) / 1000 },
    { name: 'cap height', value: capHeight, y: baseline - (capHeight * size.value) / 1000 },
    { name: 'x-height', value: xHeight, y: baseline - (xHeight * size.value) / 1000 },
    { name: 'baseline', value: null, y: baseline },
    { name: 'descender', value: descender, y: baseline + (descender * size.value) / 1000 },
  ]
  // Figures of lines that lie close are moved apart, so that each can be read.
  let before = -Infinity
  return all.map(line => {
    const at = Math.max(line.y, before + 13)
    before = at
    return { ...line, labelAt: at }
  })
})
</script>

<template>
  <svg
    viewBox="0 0 560 240"
    class="w-full border border-rule bg-sheet"
    role="img"
    :aria-label="`Anatomy of ${face.fullName}`"
  >
    <g v-for="line in lines" :key="line.name">
      <line
        x1="0"
        x2="462"
        :y1="line.y"
        :y2="line.y"
        :stroke="
          line.name === 'x-height' ? 'var(--color-verdigris)' : line.value === null ? 'var(--color-ink)' : '#8c8776'
        "
        :stroke-dasharray="line.value === null ? undefined : '3 3'"
      />
      <text
        x="468"
        :y="line.labelAt + 4"
        font-size="12"
        :fill="line.name === 'x-height' ? 'var(--color-verdigris)' : 'var(--color-soft)'"
      >
        {{ line.name }}{{ line.value === null ? '' : ` ${Math.round(line.value)}` }}
      </text>
    </g>
    <text
      :x="left"
      :y="baseline"
      :font-size="size"
      fill="var(--color-ink)"
      :style="{ fontFamily: library.cssFamily(face.hash) }"
    >
      {{ letters }}
    </text>
  </svg>
</template>
