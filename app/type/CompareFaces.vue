<script setup lang="ts">
import type { CatalogueEntry } from '~~/core/font/catalogue'
import { scriptsShared } from '~~/core/font/equal-size'
import { measuresIn } from '~~/core/font/face'
import type { CoveredScript } from '~~/core/font/measure/covered-scripts'
import Choice from '../kit/Choice.vue'
import Term from '../kit/Term.vue'
import { counted } from '../desk/words'
import SpecimenPdf from './SpecimenPdf.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import { useFaceLists } from '../stores/kept'
import { useLibrary } from '../stores/library'
import { useType } from '../stores/type'
import { comparedLetters } from './face-words'

/** The same letters of the shortlist's faces: at one point size or at one x-height, one above the other or laid over. */
const props = defineProps<{ entries: readonly CatalogueEntry[] }>()
const library = useLibrary()
const type = useType()
const lists = useFaceLists()
const listName = ref('')
const kept = ref('')
async function keepList(): Promise<void> {
  const name = listName.value.trim()
  const families = props.entries.map(entry => entry.family)
  kept.value = ''
  if (!(await lists.keep(name, families))) return
  kept.value = `Kept as the list “${name}”: ${counted(families.length, 'family', 'families')}.`
  listName.value = ''
}
/** Scripts that all of them have: equal sizes are found in each by its own letters. */
const scripts = computed(() => scriptsShared(props.entries.map(entry => entry.plain)))
const wanted = ref<CoveredScript>('Latin')
const script = computed(() => (scripts.value.includes(wanted.value) ? wanted.value : (scripts.value[0] ?? 'Latin')))
const letters = ref('')
const shownLetters = computed(() => letters.value || comparedLetters[script.value])
const measuresOf = (entry: CatalogueEntry) => measuresIn(entry.plain, script.value) ?? entry.plain.measures
const equal = ref<'size' | 'x-height'>('size')
const laidOver = ref(false)
const inks = ['#1B2430', '#B4361E', '#1F6F6B', '#564FA0', '#8A570C', '#5B6470', '#2E6DA8', '#8A2E6D']
const size = 96
const rows = computed(() =>
  props.entries.map((entry, index) => {
    const measures = measuresOf(entry)
    const { xHeight } = measures
    const first = measuresOf(props.entries[0]!).xHeight
    const own = equal.value === 'x-height' && xHeight > 0 ? (size * first) / xHeight : size
    return {
      entry,
      measures,
      own,
      ink: inks[index]!,
      y: laidOver.value ? 110 : 100 + index * 118,
      xHeight: (xHeight * own) / 1000,
    }
  }),
)
const height = computed(() => (laidOver.value ? 150 + rows.value.length * 20 : rows.value.length * 118 + 30))
</script>

<template>
  <section aria-label="Comparison of the shortlist">
    <div class="flex flex-wrap items-center gap-3">
      <h1 class="flex-1"><Term word="shortlist">Shortlist</Term>, compared</h1>
      <form v-if="entries.length > 0" class="flex items-center gap-2" @submit.prevent="keepList">
        <input
          v-model="listName"
          class="field w-[150px]"
          placeholder="Name of a list"
          maxlength="200"
          aria-label="Name of the list"
        />
        <button type="submit" class="plain" :disabled="listName.trim() === ''">Keep as a list</button>
      </form>
    </div>
    <NoticeLine v-if="lists.message || kept" :kind="lists.message ? 'failed' : 'done'">{{
      lists.message || kept
    }}</NoticeLine>
    <p v-if="entries.length < 2" class="mt-2 text-soft">
      Put two families or more on the shortlist (Space in the list, or the button beside a specimen) to lay them beside
      each other.
    </p>
    <template v-else>
      <div class="mt-2 flex flex-wrap items-center gap-x-5 gap-y-2">
        <label class="flex items-center gap-2 text-soft"
          >Letters
          <input
            v-model="letters"
            class="field w-[150px]"
            maxlength="24"
            :placeholder="comparedLetters[script]"
            aria-label="Letters to compare"
        /></label>
        <Choice v-if="scripts.length > 1" v-model="wanted" aria-label="Script to compare in">
          <option v-for="each in scripts" :key="each" :value="each">{{ each }}</option>
        </Choice>
        <div role="radiogroup" aria-label="Compared at" class="flex gap-3">
          <label class="flex items-center gap-1.5"
            ><input v-model="equal" type="radio" value="size" /> one point size</label
          >
          <label class="flex items-center gap-1.5"
            ><input v-model="equal" type="radio" value="x-height" /> one x-height</label
          >
        </div>
        <SpecimenPdf
          :faces="entries.map(entry => entry.plain)"
          :equal="equal"
          :script="script"
          :words="script === 'Latin' ? '' : shownLetters"
        />
        <label class="flex items-center gap-1.5"
          ><input v-model="laidOver" type="checkbox" /> laid over one another</label
        >
      </div>
      <svg
        :viewBox="`0 0 620 ${height}`"
        class="mt-3 w-full border border-rule bg-sheet"
        role="img"
        aria-label="The same letters of the shortlist's faces"
      >
        <g v-for="(row, index) in rows" :key="row.entry.family">
          <template v-if="!laidOver || index === 0">
            <line x1="0" x2="620" :y1="row.y" :y2="row.y" stroke="var(--color-ink)" stroke-width="0.6" />
            <line
              x1="0"
              x2="620"
              :y1="row.y - row.xHeight"
              :y2="row.y - row.xHeight"
              stroke="var(--color-verdigris)"
              stroke-dasharray="3 3"
            />
          </template>
          <text
            x="8"
            :y="row.y"
            :font-size="row.own"
            :fill="laidOver ? 'none' : 'var(--color-ink)'"
            :stroke="laidOver ? row.ink : 'none'"
            :stroke-width="laidOver ? 1.2 : 0"
            :style="{ fontFamily: library.cssFamily(row.entry.plain.hash) }"
          >
            {{ shownLetters }}
          </text>
          <template v-if="laidOver">
            <rect x="8" :y="146 + index * 20" width="22" height="3" :fill="row.ink" />
            <text x="38" :y="152 + index * 20" font-size="12" fill="var(--color-ink)">
              {{ row.entry.family }} at {{ row.own.toFixed(1) }}
            </text>
          </template>
          <text v-else x="612" :y="row.y - 4" font-size="12" text-anchor="end" fill="var(--color-soft)">
            {{ row.entry.family }} at {{ row.own.toFixed(1) }}, x-height {{ row.xHeight.toFixed(1) }}
          </text>
        </g>
      </svg>
      <table class="mt-4">
        <thead>
          <tr>
            <th scope="col">Family</th>
            <th scope="col">Class</th>
            <th scope="col" class="number">x-height</th>
            <th scope="col" class="number">Capitals</th>
            <th scope="col" class="number">Stem</th>
            <th scope="col" class="number">Thick to thin</th>
            <th scope="col" class="number">Average width</th>
            <th scope="col"><span class="sr-only">What to do</span></th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ entry, measures } in rows" :key="entry.family">
            <td>
              <button type="button" class="link" @click="type.chosen = entry.family">{{ entry.family }}</button>
            </td>
            <td>{{ entry.classed.kind }} {{ entry.classed.class }}</td>
            <td class="number">{{ Math.round(measures.xHeight) }}</td>
            <td class="number">{{ measures.capHeight > 0 ? Math.round(measures.capHeight) : '–' }}</td>
            <td class="number">{{ Math.round(measures.stem) }}</td>
            <td class="number">{{ measures.hairline > 0 ? (measures.stem / measures.hairline).toFixed(1) : '–' }}</td>
            <td class="number">{{ Math.round(measures.averageWidth) }}</td>
            <td class="number">
              <button
                type="button"
                class="text-soft hover:text-ink"
                :aria-label="`${entry.family} off the shortlist`"
                @click="type.keep(entry.family)"
              >
                Off
              </button>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </section>
</template>
