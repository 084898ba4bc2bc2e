<script setup lang="ts">
import {
  finishedStartLevels,
  type FinishedStartLevel,
  type FinishedStarts,
} from '~~/core/change/defaults/finished-starts'
import { plainNumber } from '~~/core/style/describe'
import Choice from '../../kit/Choice.vue'
import Term from '../../kit/Term.vue'
import { familyOfFont } from '~~/core/format/finished/font-name'
import { useFinished } from '../../stores/finished'
import StandInsPanel from '../../type/StandInsPanel.vue'
import ChangeFoot from './ChangeFoot.vue'
import TypeFields from './TypeFields.vue'

/** What text begins with that is added to PDFs: for this one, for those of its folder, for all of the desk. */
const finished = useFinished()
const level = ref<FinishedStartLevel>('document')
const inFolder = computed(() => finished.info?.document.folder !== null)
const draft = ref({ ...finished.start })
const levels = { document: 'this PDF', folder: 'its folder', desk: 'all of the desk' } as const
const saidAt = (each: FinishedStartLevel) => Object.keys(finished.starts[each]).length > 0
const words = ({ family, size, leading, weight, italic, color }: FinishedStarts) =>
  [
    family,
    weight === undefined ? '' : `weight ${weight}`,
    italic ? 'italic' : '',
    size === undefined ? '' : `${plainNumber(size)} pt`,
    leading ? `leading ${plainNumber(leading)} pt` : '',
    color,
  ]
    .filter(Boolean)
    .join(', ')
onMounted(async () => {
  await finished.fetchStarts().catch(() => null)
  draft.value = { ...finished.start }
})
const missing = computed(() => [
  ...new Set((finished.census?.fonts ?? []).filter(font => !font.embedded).map(font => familyOfFont(font.name))),
])
const keep = () => finished.setStarts(level.value, { ...draft.value }, `Kept for ${levels[level.value]}.`)
async function takeAway(each: FinishedStartLevel): Promise<void> {
  if (await finished.setStarts(each, {}, `Nothing is said for ${levels[each]} any more.`))
    draft.value = { ...finished.start }
}
</script>

<template>
  <h1><Term word="defaults">Defaults</Term> for PDFs</h1>
  <p class="text-soft">
    What added text is set in. What this PDF says goes before its folder, and that before the desk; what is there stays
    as it is.
  </p>
  <table class="mt-3 w-full table-fixed" aria-label="Who says what">
    <colgroup>
      <col class="w-[110px]" />
      <col />
      <col class="w-[86px]" />
    </colgroup>
    <tbody>
      <tr v-for="each in finishedStartLevels" :key="each">
        <th scope="row" class="row-name">{{ levels[each] }}</th>
        <td>{{ saidAt(each) ? words(finished.starts[each]) : 'nothing said' }}</td>
        <td class="text-right">
          <button
            v-if="saidAt(each)"
            type="button"
            class="link"
            :aria-label="`Take away what ${levels[each]} says`"
            @click="takeAway(each)"
          >
            Take away
          </button>
        </td>
      </tr>
      <tr>
        <th scope="row" class="row-name">its house</th>
        <td>{{ words(finished.starts.house) || 'nothing said' }}</td>
        <td />
      </tr>
      <tr>
        <th scope="row" class="row-name">so that it is</th>
        <td>
          <strong>{{ words(finished.start) }}</strong>
        </td>
        <td />
      </tr>
    </tbody>
  </table>
  <form class="mt-4" @submit.prevent="keep">
    <TypeFields v-model="draft" />
    <div class="mt-3 flex flex-wrap items-end gap-3 text-[13px] text-soft">
      <label
        >For
        <Choice v-model="level" class="flex w-[150px] text-ink">
          <option value="document">this PDF</option>
          <option value="folder" :disabled="!inFolder">its folder</option>
          <option value="desk">all of the desk</option>
        </Choice></label
      >
      <button type="submit" class="act">Set it</button>
    </div>
  </form>
  <ChangeFoot />
  <StandInsPanel
    class="mt-6"
    says="Who sets letters that a face lacks, and lines whose own font cannot be written in."
    :stand-ins="finished.standIns"
    :absent="missing"
    :in-folder="inFolder"
    :busy="false"
    :set="finished.setStandIn"
  />
</template>
