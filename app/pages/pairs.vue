<script setup lang="ts">
import DeskFrame from '../desk/DeskFrame.vue'
import RunningHead from '../desk/RunningHead.vue'
import ShelfIndex from '../desk/ShelfIndex.vue'
import { counted } from '../desk/words'
import Chips from '../kit/Chips.vue'
import Choice from '../kit/Choice.vue'
import NoticeLine from '../kit/NoticeLine.vue'
import FamilyPicker from '../type/FamilyPicker.vue'
import Term from '../kit/Term.vue'
import ShelfPicker from '../kit/ShelfPicker.vue'
import { sentenceOf } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { usePairs } from '../stores/pairs'
import { useType } from '../stores/type'
import type { ShelfCard } from '~~/shared/api'
import KeptPairs from '../type/KeptPairs.vue'
import PairPlane from '../type/PairPlane.vue'
import PairSheet from '../type/PairSheet.vue'

const pairs = usePairs()
const type = useType()
const library = useLibrary()
const failure = ref('')
const asList = ref(false)
const sheet = ref<'page' | 'deck' | 'leaflet'>('page')
function print(): void {
  window.print()
}
const labelChoices = computed(() => [
  { family: '', note: 'set in the body’s face', hash: null, absent: false },
  ...type.choices,
])
/** The document that the pair is tried on. */
const document = shallowRef<ShelfCard | null>(null)
const router = useRouter()
function tryOn(): void {
  if (!pairs.pair || !document.value) return
  const { heading, body } = pairs.pair
  type.trying = {
    heading: heading.family,
    body: body.family,
    ...(pairs.label === null ? {} : { label: pairs.label }),
  }
  void router.push(`/documents/${document.value.id}?stage=type`)
}
onMounted(async () => {
  try {
    await type.load()
  } catch (error) {
    failure.value = sentenceOf(error)
  }
})
useHead({ title: 'Pairs, Morphene' })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead title="Pairs" />
    <DeskFrame left-name="plane" right-name="pair">
      <template #left>
        <div class="flex min-h-0 flex-1 flex-col bg-desk px-6 pt-4 pb-5">
          <h1><Term word="pair">Pairs</Term></h1>
          <NoticeLine v-if="failure" kind="failed">{{ failure }}</NoticeLine>
          <div class="mt-1 flex flex-wrap items-end gap-3">
            <FamilyPicker
              class="min-w-[190px] flex-1"
              label="To go with"
              placeholder="A family, or a look"
              :choices="type.choices"
              :model-value="pairs.entry?.family ?? ''"
              @update:model-value="pairs.give($event)"
            />
            <label class="text-[13px] text-soft"
              >A face for<br /><Choice
                v-model="pairs.role"
                class="text-[14px] text-ink"
                aria-label="What the second face is for"
              >
                <option value="heading">headings</option>
                <option value="body">body text</option>
              </Choice></label
            >
            <label class="text-[13px] text-soft"
              >in<br /><Choice v-model="pairs.script" class="text-[14px] text-ink" aria-label="Script">
                <option v-for="each in pairs.scripts" :key="each" :value="each">{{ each }}</option>
              </Choice></label
            >
          </div>
          <p class="mt-2 flex gap-3 text-soft">
            <span class="flex-1"
              >{{ counted(pairs.all.length, 'family', 'families') }} can take that role: fit for it, with the script,
              and licensed for print and PDF.</span
            >
            <button type="button" class="link shrink-0" :aria-pressed="asList" @click="asList = !asList">
              {{ asList ? 'As a plane' : 'As a list' }}
            </button>
          </p>
          <div v-if="asList" class="mt-2 min-h-0 flex-1 overflow-y-auto">
            <table>
              <thead>
                <tr>
                  <th scope="col">Family, nearest first</th>
                  <th scope="col">Class</th>
                  <th scope="col" class="number">Proportions</th>
                  <th scope="col" class="number">Detail</th>
                </tr>
              </thead>
              <tbody>
                <tr
                  v-for="each in pairs.ranked.slice(0, 200)"
                  :key="each.entry.family"
                  :class="{ 'bg-wash': each.entry.family === pairs.chosen?.entry.family }"
                >
                  <td>
                    <button
                      type="button"
                      class="text-[17px] hover:underline"
                      :aria-pressed="each.entry.family === pairs.chosen?.entry.family"
                      :style="{ fontFamily: library.cssFamily(each.entry.plain.hash) }"
                      @click="pairs.pick(each.entry.family)"
                    >
                      {{ each.entry.family }}
                    </button>
                    <span v-if="each.mistake" class="text-[13px] text-ochre"> too alike</span>
                  </td>
                  <td class="text-soft">{{ each.entry.classed.kind }} {{ each.entry.classed.class }}</td>
                  <td class="number">{{ Math.round(each.proportions * 100) }} %</td>
                  <td class="number">{{ Math.round(each.detail * 100) }} %</td>
                </tr>
              </tbody>
            </table>
          </div>
          <PairPlane v-else class="mt-2" />
        </div>
      </template>
      <template #between><ShelfIndex open="pairs" /></template>
      <template #right>
        <div class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-8">
          <template v-if="pairs.pair">
            <h1 aria-live="polite">{{ pairs.pair.heading.family }} over {{ pairs.pair.body.family }}</h1>
            <ul class="mt-1">
              <li v-for="each in pairs.reasons" :key="each.said" :class="{ 'text-ochre': each.kind === 'against' }">
                <span aria-hidden="true">{{ each.kind === 'for' ? '+' : '–' }}</span><span class="sr-only"
                  >{{ each.kind === 'for' ? 'for it' : 'against it' }}:
                </span>
                {{ each.said }}
              </li>
            </ul>
            <div class="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
              <label class="flex items-center gap-1.5 text-soft"
                >Body
                <input
                  v-model.number="pairs.body"
                  type="number"
                  min="5"
                  max="40"
                  step="0.5"
                  class="field w-[70px] text-ink"
                  aria-label="Size of the body in points"
                />
                pt</label
              >
              <label class="flex items-center gap-1.5 text-soft"
                >Type scale
                <Choice v-model="pairs.ratio" class="text-ink" aria-label="Ratio of the type scale">
                  <option v-for="each in pairs.ratios" :key="each.name" :value="each.ratio">
                    {{ each.name }}, {{ each.ratio.toFixed(2) }}
                  </option>
                </Choice></label
              >
              <label class="flex items-center gap-1.5"
                ><input v-model="pairs.equal" type="checkbox" /> headings as large as the body’s face would look</label
              >
            </div>
            <FamilyPicker
              class="mt-3 max-w-[340px]"
              label="A third face, for labels and figures"
              placeholder="set in the body’s face"
              :choices="labelChoices"
              :model-value="pairs.label ?? ''"
              @update:model-value="pairs.label = $event === '' ? null : $event"
            />
            <div class="mt-4 flex flex-wrap items-end gap-3">
              <ShelfPicker v-model="document" class="min-w-[220px] flex-1" label="Try it on" />
              <button type="button" class="act" :disabled="document === null" @click="tryOn">
                See it on its pages
              </button>
            </div>
            <div class="mt-4 flex flex-wrap items-center gap-3">
              <Chips
                v-model="sheet"
                label="Sheet of text"
                :options="[
                  { id: 'page', title: 'A page' },
                  { id: 'deck', title: 'A deck' },
                  { id: 'leaflet', title: 'A leaflet' },
                ]"
              />
              <button type="button" class="link" @click="print">Print this sheet</button>
            </div>
            <PairSheet class="mt-2" :kind="sheet" />
            <KeptPairs class="mt-6" />
          </template>
          <p v-else class="text-soft">
            {{ type.entries.length === 0 ? 'Fetching the faces …' : 'No family can take that role in that script.' }}
          </p>
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
