<script setup lang="ts">
import type { FaceAlternates } from '~~/core/font/alternates'
import type { FaceRecord } from '~~/core/font/face'
import { shownFeature } from '~~/core/font/features'
import { counted, grouped } from '../desk/words'
import Tick from '../kit/Tick.vue'
import { useWalkedList } from '../kit/use-walked-list'
import { useLibrary } from '../stores/library'
import { useMe } from '../stores/me'

/** All characters of a face with their further forms, each drawn in it; one is found by itself or by its code point. */
const props = defineProps<{ face: FaceRecord }>()
const library = useLibrary()
const me = useMe()
const perRow = 12
const rowHeight = 46
const found = shallowRef<FaceAlternates | null>(null)
const failed = ref(false)
watch(
  [() => props.face.hash, () => me.may('fonts')] as const,
  async ([hash, may]) => {
    found.value = null
    failed.value = false
    // Whoever may not have whole fonts is not told what is in them, either.
    if (!may) return
    const own = await $fetch<FaceAlternates>(`/api/faces/${hash}/alternates`).catch(() => null)
    if (props.face.hash !== hash) return
    found.value = own
    failed.value = own === null
  },
  { immediate: true },
)
const formsOf = computed(() => new Map(found.value?.list.map(({ code, forms }) => [code, forms])))
const onlyAlternates = ref(false)
const codes = computed(() => (onlyAlternates.value ? all.value.filter(code => formsOf.value.has(code)) : all.value))
const all = computed(() => {
  const { ranges } = props.face
  const list: number[] = []
  for (let at = 0; at < ranges.length; at += 2)
    for (let code = ranges[at]!; code <= ranges[at + 1]!; code++) list.push(code)
  // Controls and spaces have nothing to show.
  return list.filter(code => !/^[\p{C}\p{Z}]$/u.test(String.fromCodePoint(code)))
})
const chosen = ref<number | null>(null)
const at = computed(() => (chosen.value === null ? -1 : codes.value.indexOf(chosen.value)))
const { scroller, ...list } = useWalkedList({
  count: () => codes.value.length,
  rowHeight,
  perRow,
  at: () => at.value,
  go: index => {
    chosen.value = codes.value[index] ?? null
  },
})
const rows = computed(() =>
  list.rows.value.map(item => ({ ...item, codes: codes.value.slice(item.index * perRow, (item.index + 1) * perRow) })),
)
const chosenForms = computed(() =>
  (chosen.value === null ? [] : (formsOf.value.get(chosen.value) ?? [])).map(({ tag, value }) => ({
    tag,
    said: `${shownFeature(tag)?.title ?? tag}${value > 1 ? `, ${value}` : ''}`,
    settings: `"${tag}" ${value}`,
  })),
)
watch(
  () => props.face.hash,
  () => {
    chosen.value = null
  },
)
const asked = ref('')
const missing = ref(false)
const codeWords = (code: number) => `U+${code.toString(16).toUpperCase().padStart(4, '0')}`
const furtherWords = (code: number) => {
  const forms = formsOf.value.get(code)
  return forms ? `, ${counted(forms.length, 'further form')}` : ''
}
function find(): void {
  const text = asked.value.trim()
  const written = /^(?:u\+|0x)?([0-9a-f]{2,6})$/i.exec(text)
  const code = [...text].length === 1 ? text.codePointAt(0)! : written ? parseInt(written[1]!, 16) : -1
  const known = codes.value.includes(code)
  missing.value = text !== '' && !known
  chosen.value = known ? code : null
}
</script>

<template>
  <div>
    <div class="flex flex-wrap items-center gap-3">
      <span class="flex-1 text-soft"
        >{{ counted(all.length, 'character')
        }}<template v-if="found && found.list.length > 0"
          >, {{ counted(found.list.length, 'of them', 'of them') }} with further forms</template
        ><template v-if="chosen !== null">; {{ codeWords(chosen) }} is chosen</template></span
      >
      <label v-if="found && found.list.length > 0" class="flex items-center gap-1.5"
        ><Tick :checked="onlyAlternates" @change="onlyAlternates = $event" /> only those</label
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
    <p v-if="missing" role="status" class="text-ochre">
      {{ onlyAlternates ? 'It is not among those with further forms.' : 'The face does not have it.' }}
    </p>
    <p v-if="failed" role="status" class="text-ochre">Further forms of characters cannot be told just now.</p>
    <p v-if="found && found.looked < found.characters" class="text-soft">
      Further forms were looked for among the first {{ grouped(found.looked) }} characters.
    </p>
    <div
      ref="scroller"
      tabindex="0"
      role="listbox"
      aria-label="Characters of the face"
      class="mt-2 max-h-[330px] overflow-y-auto border border-rule bg-sheet"
      :aria-activedescendant="chosen === null ? undefined : `glyph-${chosen}`"
      @keydown="list.walk($event)"
    >
      <div class="relative w-full" :style="{ height: `${list.height.value}px` }">
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
            :aria-label="`${String.fromCodePoint(code)}, ${codeWords(code)}${furtherWords(code)}`"
            class="relative cursor-pointer overflow-hidden border-r border-b border-rule text-center text-[24px] leading-[44px]"
            :class="code === chosen ? 'bg-wash' : ''"
            :style="{ fontFamily: library.cssFamily(face.hash) }"
            @click="chosen = code"
          >
            {{ String.fromCodePoint(code) }}
            <span
              v-if="formsOf.has(code)"
              aria-hidden="true"
              class="absolute right-[3px] bottom-[2px] font-sans text-[10px] leading-none text-verdigris"
              >+{{ formsOf.get(code)!.length }}</span
            >
          </div>
        </div>
      </div>
    </div>
    <ul
      v-if="chosenForms.length > 0"
      class="mt-2 flex flex-wrap gap-x-5 gap-y-2"
      :aria-label="`Further forms of ${String.fromCodePoint(chosen!)}`"
    >
      <li v-for="each in chosenForms" :key="each.settings" class="text-center">
        <span
          class="block text-[30px] leading-[46px]"
          :style="{ fontFamily: library.cssFamily(face.hash), fontFeatureSettings: each.settings }"
          >{{ String.fromCodePoint(chosen!) }}</span
        >
        <span class="text-[13px] text-soft">{{ each.said }}</span>
      </li>
    </ul>
  </div>
</template>
