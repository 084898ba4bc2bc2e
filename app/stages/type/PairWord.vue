<script setup lang="ts">
import { useLibrary } from '../../stores/library'

/**
 * A word drawn in a face with each letter where the face and the corrections have it. The letters behind the pair are
 * taken by the pointer and moved.
 */
const props = defineProps<{
  hash: string
  word: string
  /** Where the left one of the pair stands in the word, and how many units it and the right one take. */
  at: number
  left: string
  right: string
  /** Height of the letters, in CSS pixels. */
  size: number
  /** What stands between two letters, in thousandths of an em; the pair's own amount is `amount`. */
  kern: (left: string, right: string) => number
  amount: number
  moves?: boolean
}>()
const emit = defineEmits<{ move: [amount: number]; done: [] }>()
const library = useLibrary()
const letters = computed(() => {
  const all = [...props.word]
  let place = 0
  return all.map((letter, index) => {
    const from = place
    place += letter.length
    const next = all[index + 1]
    const own = from === props.at
    return {
      letter,
      pair: own || from === props.at + props.left.length,
      behind: from > props.at,
      space: next === undefined ? 0 : props.kern(letter, next) + (own ? props.amount : 0),
    }
  })
})
let start: { x: number; amount: number } | null = null
function down(event: PointerEvent, behind: boolean): void {
  if (!props.moves || !behind) return
  start = { x: event.clientX, amount: props.amount }
  ;(event.currentTarget as HTMLElement).setPointerCapture(event.pointerId)
  event.preventDefault()
}
function over(event: PointerEvent): void {
  if (!start) return
  const amount = start.amount + ((event.clientX - start.x) * 1000) / props.size
  emit('move', Math.round(Math.max(-500, Math.min(amount, 500))))
}
function up(): void {
  if (!start) return
  start = null
  emit('done')
}
</script>

<template>
  <span
    class="pair-word whitespace-pre"
    :style="{ fontFamily: library.cssFamily(hash), fontSize: `${size}px`, lineHeight: 1.25 }"
    aria-hidden="true"
    @pointermove="over"
    @pointerup="up"
    @pointercancel="up"
    ><span
      v-for="(each, index) in letters"
      :key="index"
      :class="[each.pair ? 'text-ink' : 'text-soft', moves && each.behind ? 'cursor-ew-resize touch-none' : '']"
      :style="{ letterSpacing: `${each.space / 1000}em` }"
      @pointerdown="down($event, each.behind)"
      >{{ each.letter }}</span
    ></span
  >
</template>
