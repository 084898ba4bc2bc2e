<script setup lang="ts">
import { familyOfFont, styleOfFont } from '~~/core/format/finished/font-name'
import { plainNumber } from '~~/core/style/describe'
import { counted, grouped, pageWords, percentage } from '../../desk/words'
import { useFinished } from '../../stores/finished'
import { useLibrary } from '../../stores/library'

/** What fonts are in the PDF: how much each sets, at which sizes, where, and whether it is in the file at all. */
const finished = useFinished()
const library = useLibrary()
const census = computed(() => finished.census!)
const missing = computed(() => census.value.fonts.filter(font => !font.embedded && font.characters > 0))
const chosen = computed(() => (finished.marked?.of === 'font' ? finished.marked.font : null))
const isHere = (name: string) => (library.library?.family(familyOfFont(name)).length ?? 0) > 0
const sizesOf = (sizes: readonly { size: number }[]) =>
  sizes.length === 0
    ? '–'
    : sizes.length > 4
      ? `${sizes.length} sizes`
      : sizes.map(each => plainNumber(each.size)).join(', ')
const inFile = (font: (typeof census.value.fonts)[number]) =>
  font.embedded ? (font.subset ? 'in the file in part' : 'in the file') : 'not in the file'
/** What kind a font is, as its outlines are known by (ISO 32000-2, 9.6 and 9.7). */
const kinds: Readonly<Record<string, string>> = {
  Type1: 'Type 1',
  MMType1: 'Type 1',
  Type3: 'drawn as pictures (Type 3)',
  CIDFontType0: 'PostScript outlines',
  CIDFontType2: 'TrueType',
}
const share = (characters: number) =>
  percentage(census.value.characters === 0 ? 0 : characters / census.value.characters)
</script>

<template>
  <h1>{{ counted(census.fonts.length, 'font') }}</h1>
  <p class="text-soft">
    A finished PDF: {{ counted(census.document.pages, 'page') }}, {{ counted(census.characters, 'character') }};
    {{ census.document.tagged ? 'tagged for reading aloud' : 'not tagged for reading aloud' }}. A font marks where it
    stands; N goes to the next place.
  </p>
  <p v-if="missing.length > 0" class="notice mt-3">
    <span aria-hidden="true" class="text-iris">◇ </span
    >{{ missing.length === 1 ? `${missing[0]!.name} is` : `${counted(missing.length, 'font')} are` }} not in the file:
    every reader shows another face. Here the drawing library’s own stand in.
  </p>
  <table class="mt-3 w-full table-fixed" aria-label="Fonts of this PDF">
    <colgroup>
      <col />
      <col class="w-[74px]" />
      <col class="w-[58px]" />
      <col class="w-[104px]" />
      <col class="w-[72px]" />
    </colgroup>
    <thead>
      <tr>
        <th scope="col">Font</th>
        <th scope="col" class="number">Characters</th>
        <th scope="col" class="number">Share</th>
        <th scope="col" class="!pl-4">Sizes, pt</th>
        <th scope="col">Pages</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="(font, index) in census.fonts" :key="index" :class="{ 'bg-wash': chosen === index }">
        <td>
          <button
            type="button"
            class="w-full text-left"
            :aria-pressed="chosen === index"
            @click="finished.choose(chosen === index ? null : index)"
          >
            <span v-if="!font.embedded" aria-hidden="true" class="text-iris">◇ </span
            ><strong class="break-words" :class="{ 'text-iris': !font.embedded }">{{ familyOfFont(font.name) }}</strong>
            {{ styleOfFont(font.name) }}
            <span class="block text-[13px] text-soft">
              {{ kinds[font.kind] ?? font.kind }}, {{ inFile(font)
              }}{{ font.readable ? '' : ', its letters cannot be told'
              }}{{ isHere(font.name) ? ', in the library' : '' }}
            </span>
          </button>
        </td>
        <td class="number">{{ grouped(font.characters) }}</td>
        <td class="number">{{ share(font.characters) }}</td>
        <td class="!pl-4 tabular-nums">{{ sizesOf(font.sizes) }}</td>
        <td>
          {{
            font.pages.length === 0
              ? 'none'
              : pageWords(
                  font.pages.map(each => each - 1),
                  census.document.pages,
                )
          }}
        </td>
      </tr>
    </tbody>
  </table>
</template>
