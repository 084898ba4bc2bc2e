<script setup lang="ts">
import { comparisonCsv, differenceTitles } from '~~/core/compare/report'
import type { Difference, DifferenceKind } from '~~/core/compare/compare'
import type { ShelfCard } from '~~/shared/api'
import Chips from '../../kit/Chips.vue'
import Choice from '../../kit/Choice.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import RehearsalTable from './RehearsalTable.vue'
import ShelfPicker from '../../kit/ShelfPicker.vue'
import { saveFile } from '../../kit/save-file'
import { useReport } from '../../kit/use-report'
import { counted, grouped } from '../../desk/words'
import { useCompare } from '../../stores/compare'
import { useDesk } from '../../stores/desk'
import { useProof } from '../../stores/proof'

/** What differs between the document and an earlier version of it, or another document. */
const desk = useDesk()
const proof = useProof()
const compare = useCompare()
const card = shallowRef<ShelfCard | null>(null)
const versions = computed(() =>
  [...(desk.info?.versions ?? [])].filter(each => each.number !== desk.info?.document.version).reverse(),
)
const chosen = ref(versions.value[0] ? String(versions.value[0].number) : '')
const listed = ref(80)
const heading = ref<HTMLElement | null>(null)
onMounted(() => heading.value?.focus())

const ofVersion = () => compare.compare(desk.info!.document.id, Number(chosen.value), `Version ${chosen.value}`)
watch(card, picked => {
  if (picked) void compare.compare(picked.id, picked.version, picked.fileName.replace(/\.\w+$/, ''))
})
const chips = computed(() => {
  const list = compare.comparison?.differences ?? []
  const kinds = Object.keys(differenceTitles) as DifferenceKind[]
  return [
    { id: 'all' as const, title: 'All', count: list.length },
    ...kinds
      .map(id => ({ id, title: differenceTitles[id], count: list.filter(each => each.kind === id).length }))
      .filter(each => each.count > 0),
  ]
})
/** What each document has there: a paragraph may be empty, and still have come or gone. */
const worded = (kind: DifferenceKind, text: string) =>
  short(text) || (kind === 'words' ? 'nothing' : 'an empty paragraph')
const before = ({ kind, one }: Difference) => (kind === 'came' ? 'not there' : worded(kind, one))
const after = ({ kind, other }: Difference) => (kind === 'went' ? 'gone' : worded(kind, other))
const short = (text: string) => (text.length > 90 ? `${text.slice(0, 87)}…` : text)
const pdf = useReport()
const name = computed(() => desk.info!.document.fileName.replace(/\.\w+$/, ''))
const reportPdf = () => {
  const { document, version } = compare.held!
  return pdf.make(`comparison-pdf?against=${document}&version=${version}`)
}
function report(): void {
  const csv = comparisonCsv(compare.comparison!, compare.against, name.value)
  saveFile(new Blob([csv], { type: 'text/csv' }), `${name.value}, compared with ${compare.against}.csv`)
}
function back(): void {
  compare.walking = false
  proof.panel = 'findings'
}
</script>

<template>
  <div>
    <button type="button" class="link" @click="back">All findings</button>
    <h1 ref="heading" tabindex="-1" class="mt-1 outline-none">
      {{
        compare.comparison
          ? compare.comparison.differences.length + compare.comparison.styles.length === 0
            ? 'Nothing differs'
            : counted(compare.comparison.differences.length + compare.comparison.more, 'difference')
          : compare.rehearsal
            ? 'Rehearsed'
            : 'Compare'
      }}
    </h1>
    <p class="text-soft">
      {{
        compare.comparison
          ? `Between ${compare.against} and what is on the desk now; ${counted(compare.comparison.pagesBefore, 'page')} ` +
            `and ${compare.comparison.pagesAfter}.`
          : 'Hold the document against an earlier version of it, or against another document of the shelf.'
      }}
    </p>
    <NoticeLine v-if="compare.message" kind="failed">{{ compare.message }}</NoticeLine>
    <NoticeLine v-if="pdf.failed.value" kind="failed">{{ pdf.failed.value }}</NoticeLine>
    <div class="mt-3 flex flex-wrap items-end gap-3">
      <label v-if="versions.length > 0" class="text-[13px] text-soft"
        >A version of this document
        <span class="flex gap-2"
          ><Choice v-model="chosen" class="max-w-[300px] text-[14px] text-ink" aria-label="A version of this document">
            <option v-for="each in versions" :key="each.number" :value="String(each.number)">
              {{ each.number }}: {{ short(each.title) }}
            </option>
          </Choice>
          <button type="button" class="act" :disabled="compare.busy" @click="ofVersion">
            {{ compare.busy ? 'Comparing …' : 'Compare' }}
          </button></span
        ></label
      >
      <button type="button" class="plain" :disabled="compare.busy" @click="compare.rehearse()">
        Rehearse without our faces
      </button>
      <ShelfPicker v-model="card" label="Another document" :without="desk.info?.document.id" />
    </div>
    <RehearsalTable v-if="compare.rehearsal" :rehearsal="compare.rehearsal" />
    <template v-if="compare.comparison">
      <div class="mt-3 flex flex-wrap gap-2">
        <button type="button" class="plain" :disabled="compare.shown.length === 0" @click="compare.go(compare.at - 1)">
          Difference before
        </button>
        <button type="button" class="plain" :disabled="compare.shown.length === 0" @click="compare.go(compare.at + 1)">
          Next difference
        </button>
        <button v-if="!compare.walking" type="button" class="plain" @click="compare.walking = true">
          Show the pages of both
        </button>
        <button v-if="compare.held" type="button" class="plain" :disabled="pdf.busy.value" @click="reportPdf">
          {{ pdf.busy.value ? 'Writing …' : 'Report as PDF' }}
        </button>
        <button type="button" class="plain" @click="report">Report as CSV</button>
      </div>
      <details v-if="compare.comparison.styles.length > 0" class="mt-3" open>
        <summary class="cursor-pointer font-medium">
          {{ counted(compare.comparison.styles.length, 'style') }} changed
        </summary>
        <table class="table-fixed" aria-label="Styles that differ">
          <tbody>
            <tr v-for="each in compare.comparison.styles" :key="each.key">
              <td class="w-[150px]">{{ each.what }}</td>
              <td>
                <span class="text-soft">{{ each.one ?? 'not there' }}</span> → {{ each.other ?? 'gone' }}
              </td>
            </tr>
          </tbody>
        </table>
      </details>
      <details v-if="compare.comparison.voices.length > 0" class="mt-3">
        <summary class="cursor-pointer font-medium">
          {{ counted(compare.comparison.voices.length, 'voice') }} changed
        </summary>
        <table class="table-fixed" aria-label="Voices that differ">
          <tbody>
            <tr v-for="each in compare.comparison.voices" :key="each.key">
              <td>{{ each.what }}</td>
              <td class="w-[230px]">
                <span class="text-soft">{{ each.one ?? 'none' }}</span> → {{ each.other ?? 'none' }}
              </td>
            </tr>
          </tbody>
        </table>
      </details>
      <Chips v-model="compare.kind" class="mt-4" label="Which differences are shown" :options="chips" />
      <table class="mt-2 table-fixed" aria-label="Places that differ">
        <colgroup>
          <col class="w-[54px]" />
          <col class="w-[92px]" />
          <col />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Page</th>
            <th scope="col">What</th>
            <th scope="col">Before → now</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="(each, index) in compare.shown.slice(0, listed)"
            :key="index"
            :class="{ 'bg-wash': compare.walking && index === compare.at }"
          >
            <td class="tabular-nums">
              <button
                type="button"
                class="link"
                :aria-label="`Show difference ${index + 1}: ${differenceTitles[each.kind]}, ${short(each.near)}`"
                @click="compare.go(index)"
              >
                {{ (each.after ?? each.before)!.page < 0 ? '–' : (each.after ?? each.before)!.page + 1 }}
              </button>
            </td>
            <td>{{ differenceTitles[each.kind] }}</td>
            <td class="py-1">
              <span class="text-soft">{{ before(each) }}</span> → {{ after(each)
              }}<span v-if="each.kind !== 'came' && each.kind !== 'went'" class="block truncate text-[13px] text-soft"
                >in “{{ each.near }}”</span
              >
            </td>
          </tr>
          <tr v-if="compare.shown.length === 0">
            <td colspan="3" class="text-soft">No difference of this sort.</td>
          </tr>
        </tbody>
      </table>
      <button v-if="compare.shown.length > listed" type="button" class="link mt-1" @click="listed += 300">
        Show {{ grouped(Math.min(300, compare.shown.length - listed)) }} more
      </button>
      <p v-if="compare.comparison.more > 0" class="text-soft">
        {{ counted(compare.comparison.more, 'more difference') }}, not listed.
      </p>
    </template>
  </div>
</template>
