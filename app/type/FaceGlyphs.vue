<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import type { FaceRecord } from '~~/core/font/face'
import { counted } from '../desk/words'
import { useLibrary } from '../stores/library'

/** All characters of a face, each drawn in it; one is found by itself or by its code point. */
const props = defineProps<{ face: FaceRecord }>()
const library = useLibrary()
const perRow = 12
const rowHeight = 46
const codes = computed(() => {
  const { ranges } = props.face
  const list: number[] = []
  for (let at = 0; at < ranges.length; at += 2)
    for (let code = ranges[at]!; code <= ranges[at + 1]!; code++) list.push(code)
  // Controls and spaces have nothing to show.
  return list.filter(code => !/^[\p{C}\p{Z}]$/u.test(String.fromCodePoint(code)))
})
const scroller = ref<HTMLElement | null>(null)
const virtual = useVirtualizer(
  computed(() => ({
    count: Math.ceil(codes.value.length / perRow),
    getScrollElement: () => scroller.value,
    estimateSize: () => rowHeight,
    overscan: 3,
  })),
)
const rows = computed(() =>
  virtual.value.getVirtualItems().map(item => ({
    ...item,
    codes: codes.value.slice(item.index * perRow, (item.index + 1) * perRow),
  })),
)
const chosen = ref<number | null>(null)
watch(
  () => props.face.hash,
  () => {
    chosen.value = null
  },
)
const asked = ref('')
const missing = ref(false)
const codeWords = (code: number) => `U+${code.toString(16).toUpperCase().padStart(4, '0')}`
function find(): void {
  const text = asked.value.trim()
  const written = /^(?:u\+|0x)?([0-9a-f]{2,6})$/i.exec(text)
  const code = [...text].length === 1 ? text.codePointAt(0)! : written ? parseInt(written[1]!, 16) : -1
  const at = codes.value.indexOf(code)
  missing.value = text !== '' && at < 0
  chosen.value = at < 0 ? null : code
  if (at >= 0) virtual.value.scrollToIndex(Math.floor(at / perRow), { align: 'center' })
}
function key(event: KeyboardEvent): void {
  const at = chosen.value === null ? -1 : codes.value.indexOf(chosen.value)
  const step = { ArrowRight: 1, ArrowLeft: -1, ArrowDown: perRow, ArrowUp: -perRow }[event.key]
  if (step === undefined) return
  event.preventDefault()
  const to = Math.max(0, Math.min(at < 0 ? 0 : at + step, codes.value.length - 1))
  chosen.value = codes.value[to] ?? null
  virtual.value.scrollToIndex(Math.floor(to / perRow))
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-3">
      <span class="flex-1 text-soft"
        >{{ counted(codes.length, 'character')
        }}<template v-if="chosen !== null">; {{ codeWords(chosen) }} is chosen</template></span
      >
      <form class="flex gap-2" @submit.prevent="find">
        <input
          v-model="asked"
          class="field w-[140px]"
          placeholder="ß or U+00DF"
          maxlength="10"
          aria-label="Character or code point"
        />
        <button type="submit" class="plain">Find</button>
      </form>
    </div>
    <p v-if="missing" role="status" class="text-ochre">The face does not have it.</p>
    <div
      ref="scroller"
      tabindex="0"
      role="listbox"
      aria-label="Characters of the face"
      class="mt-2 max-h-[330px] overflow-y-auto border border-rule bg-sheet"
      :aria-activedescendant="chosen === null ? undefined : `glyph-${chosen}`"
      @keydown="key"
    >
      <div class="relative w-full" :style="{ height: `${virtual.getTotalSize()}px` }">
        <div
          v-for="row in rows"
          :key="row.index"
          role="presentation"
          class="absolute inset-x-0 top-0 grid grid-cols-12"
          :style="{ height: `${rowHeight}px`, transform: `translateY(${row.start}px)` }"
        >
          <div
            v-for="code in row.codes"
            :id="`glyph-${code}`"
            :key="code"
            role="option"
            :aria-selected="code === chosen"
            :aria-label="`${String.fromCodePoint(code)}, ${codeWords(code)}`"
            class="cursor-pointer overflow-hidden border-r border-b border-rule text-center text-[24px] leading-[44px]"
            :class="code === chosen ? 'bg-wash' : ''"
            :style="{ fontFamily: library.cssFamily(face.hash) }"
            @click="chosen = code"
          >
            {{ String.fromCodePoint(code) }}
          </div>
        </div>
      </div>
    </div>
  </div>
</template>
