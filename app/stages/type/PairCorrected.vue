<script setup lang="ts">
import type { FaceKerning, KerningRow } from '~~/core/census/kerning'
import { shortAmount } from '~~/core/change/kerning/wish'
import { ChevronLeft, ChevronRight } from '../../kit/icons'
import PairWord from './PairWord.vue'
import type { useKerning } from './use-kerning'

/** A pair in one of its words, before and after its correction, which is typed, dragged or taken from what is usual. */
const props = defineProps<{ face: FaceKerning; row: KerningRow; kerning: ReturnType<typeof useKerning> }>()
/** Which of its places is looked at. */
const place = defineModel<number>({ required: true })
const shown = computed(() => props.row.places[place.value] ?? null)
const isPair = (left: string, right: string) => left === props.row.left && right === props.row.right
/** What stands between other letters of the word; the pair's own amount comes on top of what the face has. */
const before = (left: string, right: string) =>
  isPair(left, right) ? props.row.kern : props.kerning.before(left, right)
const after = (left: string, right: string) =>
  isPair(left, right) ? props.row.kern : props.kerning.between(left, right)
const states = computed(() => [
  { said: 'before', kern: before, amount: props.kerning.stored(props.row), moves: false },
  { said: 'after', kern: after, amount: props.kerning.amountOf(props.row), moves: true },
])
</script>

<template>
  <div class="mt-2 border border-rule bg-sheet px-3 py-1">
    <div v-for="each in states" :key="each.said" class="flex items-baseline gap-4 overflow-hidden">
      <span class="w-12 shrink-0 text-[13px] text-soft">{{ each.said }}</span>
      <PairWord
        :hash="face.hash"
        :word="shown?.word ?? row.left + row.right"
        :at="shown?.at ?? 0"
        :left="row.left"
        :right="row.right"
        :size="44"
        :kern="each.kern"
        :amount="each.amount"
        :moves="each.moves"
        @move="kerning.set(row, $event)"
      />
    </div>
    <div class="flex flex-wrap items-center gap-x-4 gap-y-1 border-t border-rule py-1.5 text-[13px]">
      <label class="flex items-center gap-2"
        >Apart by
        <input
          v-typed="kerning.amountOf(row)"
          class="field w-[72px]"
          type="number"
          min="-500"
          max="500"
          aria-label="Thousandths of an em that the pair is set apart by"
          @change="kerning.set(row, Number(($event.target as HTMLInputElement).value))"
      /></label>
      <button
        v-if="row.toUsual !== null && row.oddness !== null"
        type="button"
        class="link"
        @click="kerning.set(row, row.toUsual)"
      >
        As usual: {{ shortAmount(row.toUsual) }}
      </button>
      <button v-if="kerning.amountOf(row) !== 0" type="button" class="link" @click="kerning.set(row, 0)">
        As the face has it
      </button>
      <span v-if="row.places.length > 1" class="ml-auto flex items-center gap-2">
        <button type="button" class="plain" :disabled="place === 0" aria-label="Place before" @click="place--">
          <ChevronLeft :size="14" aria-hidden="true" />
        </button>
        place {{ place + 1 }} of
        {{ row.count > row.places.length ? `the first ${row.places.length}` : row.count }}
        <button
          type="button"
          class="plain"
          :disabled="place >= row.places.length - 1"
          aria-label="Place behind"
          @click="place++"
        >
          <ChevronRight :size="14" aria-hidden="true" />
        </button>
      </span>
    </div>
  </div>
</template>
