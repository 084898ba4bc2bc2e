<script setup lang="ts">
import type { Rehearsal } from '~~/core/compare/rehearse'
import { counted, grouped } from '../../desk/words'
import { useCompare } from '../../stores/compare'

/** What a desk with none but the systems' faces would make of the document, and what has to travel with it. */
defineProps<{ rehearsal: Rehearsal }>()
const compare = useCompare()
</script>

<template>
  <section class="mt-4" aria-label="Rehearsed without our faces">
    <h2>
      {{
        rehearsal.families.length === 0
          ? 'It looks the same everywhere'
          : `${counted(rehearsal.families.length, 'family', 'families')} would have to travel`
      }}
    </h2>
    <p class="text-soft">
      On a desk that has only the faces which systems bring: {{ counted(rehearsal.pagesThere, 'page') }} in place of
      {{ grouped(rehearsal.pagesHere) }}, {{ counted(rehearsal.linesThere, 'line') }} in place of
      {{ grouped(rehearsal.linesHere)
      }}{{
        rehearsal.overset.length > 0
          ? `; ${counted(rehearsal.overset.length, 'frame')} would run over that ${rehearsal.overset.length === 1 ? 'holds' : 'hold'} here`
          : ''
      }}.
    </p>
    <table v-if="rehearsal.families.length > 0" class="mt-2 table-fixed" aria-label="What would have to travel">
      <colgroup>
        <col />
        <col />
        <col class="w-[96px]" />
        <col class="w-[96px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Family</th>
          <th scope="col">Shown there by</th>
          <th scope="col" class="number">Characters</th>
          <th scope="col" class="number">Paragraphs</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in rehearsal.families" :key="each.family">
          <td>{{ each.family }}<span v-if="each.travels" class="text-soft">, in the file</span></td>
          <td>{{ each.shownBy }}<span v-if="each.sameWidths" class="text-soft">, of the same widths</span></td>
          <td class="number">{{ grouped(each.characters) }}</td>
          <td class="number" :class="each.paragraphs > 0 ? 'text-ochre' : 'text-soft'">
            {{ grouped(each.paragraphs) }}
          </td>
        </tr>
      </tbody>
    </table>
    <p v-if="rehearsal.families.length > 0" class="mt-1 text-soft">
      Paragraphs: those that would have another number of lines.
      <button v-if="!compare.walking" type="button" class="link" @click="compare.walking = true">
        Show the pages of both
      </button>
    </p>
  </section>
</template>
