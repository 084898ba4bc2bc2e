<script setup lang="ts">
import { offThroughout, type KerningRow } from '~~/core/census/kerning'
import { oddFrom } from '~~/core/font/kerning/oddness'
import { amountWords, kernTitle, shortAmount } from '~~/core/change/kerning/wish'
import { useChange } from '../../change/use-change'
import { counted } from '../../desk/words'
import Choice from '../../kit/Choice.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import Tick from '../../kit/Tick.vue'
import { useWalkedList } from '../../kit/use-walked-list'
import { useDesk } from '../../stores/desk'
import { useKeptWishes } from '../../stores/kept'
import { useType } from '../../stores/type'
import PairCorrected from './PairCorrected.vue'
import PairWord from './PairWord.vue'
import { useKerning, type KerningReach } from './use-kerning'

/** Pairs of letters that stand out, corrected by keys or by dragging in words of the document, with the pages following. */
const emit = defineEmits<{ look: [] }>()
const desk = useDesk()
const type = useType()
const change = useChange('type')
const kerning = useKerning()
const { face, reach, place, wish } = kerning
const at = ref(0)
const oddOnly = ref(false)
const rowHeight = 48
const rows = computed(() =>
  (face.value?.rows ?? []).filter(
    row => !oddOnly.value || Math.abs(row.oddness ?? 0) >= oddFrom || kerning.amountOf(row) !== 0,
  ),
)
const row = computed((): KerningRow | null => rows.value[Math.min(at.value, rows.value.length - 1)] ?? null)
const shown = computed(() => row.value?.places[place.value] ?? null)
const list = useWalkedList({
  count: () => rows.value.length,
  rowHeight,
  at: () => at.value,
  go: index => {
    at.value = index
  },
})
const { scroller } = list
const items = computed(() =>
  list.rows.value.flatMap(item => {
    const each = rows.value[item.index]
    return each ? [{ ...item, row: each }] : []
  }),
)
const percent = (share: number) => `${Math.round(share * 100)} %`
/** How the face is kerned as a whole, in a sentence. */
const summary = computed(() => {
  const usual = face.value?.usual
  if (!usual) return 'It lacks letters of the usual pairs, so nothing is said of them.'
  if (usual.kerned === 0) return 'This face kerns none of the usual pairs: what stands out is many pairs, not one.'
  const odd = usual.odd === 0 ? 'none of them stands out' : `${percent(usual.odd)} of them stand out`
  const throughout =
    usual.odd > offThroughout ? '. So many are off that another face may serve better than corrections' : ''
  return `It kerns ${percent(usual.kerned)} of the usual pairs; ${odd}${throughout}.`
})
/** How a pair stands out with what it is corrected by: white grows with the distance, nearly evenly. */
function oddnessOf(each: KerningRow): number | null {
  const { oddness, toUsual } = each
  if (oddness === null || toUsual === null) return null
  const amount = kerning.amountOf(each)
  return toUsual === 0 ? oddness + amount : oddness * (1 - amount / toUsual)
}
/** The same in words. */
function oddWords(each: KerningRow): string {
  const oddness = oddnessOf(each)
  if (oddness === null) return 'not compared'
  if (Math.abs(oddness) < oddFrom) return 'as usual'
  return oddness > 0 ? `${Math.round(oddness)} too wide` : `${Math.round(-oddness)} too close`
}
/** A row as it is read aloud. */
const saidOf = (each: KerningRow) =>
  [each.left + each.right, counted(each.count, 'time'), oddWords(each), amountWords(kerning.amountOf(each))].join(', ')
const wordOf = (each: KerningRow) => each.places[0] ?? { word: each.left + each.right, at: 0 }

onMounted(async () => {
  await kerning.load()
  at.value = 0
})
watch(
  () => desk.census,
  () => void kerning.load(),
)
watch(
  () => face.value?.hash,
  () => {
    at.value = 0
    place.value = 0
  },
)
watch(at, () => {
  place.value = 0
})
/** The page with the place that is looked at comes to the eye. */
async function reveal(): Promise<void> {
  const where = shown.value
  if (!where || !desk.engine || desk.state !== 'open') return
  const spot = { part: where.part, node: where.node, offset: where.from }
  const found = await desk.engine.ask('where', { spot, view: 'pages', near: desk.page }).catch(() => null)
  if (found) desk.show(found.view, found.page)
}
watch([at, place], reveal)
watch(wish, list => {
  if (change.busy === 'applying') return
  if (list) void change.preview([list])
  else change.hide()
})

function key(event: KeyboardEvent): void {
  const own = row.value
  if (!own) return
  const step = event.shiftKey ? 1 : 5
  const now = kerning.amountOf(own)
  if (list.walk(event)) return
  if (event.key === 'ArrowLeft' || event.key === 'ArrowRight') {
    kerning.set(own, event.key === 'ArrowLeft' ? now - step : now + step)
    void reveal()
  } else if (event.key === 'Backspace' || event.key === 'Delete') kerning.set(own, 0)
  else if (event.key === 'Enter') void carryOut()
  else return
  event.preventDefault()
  event.stopPropagation()
}
async function carryOut(): Promise<void> {
  if (!wish.value) return
  const title = kernTitle(wish.value)
  const changed = await change.apply([wish.value])
  if (!changed) return
  type.done = `${title}: done, as version ${changed.version.number}.`
  kerning.forget()
}
async function look(): Promise<void> {
  if (wish.value && (await change.make([wish.value]))) emit('look')
}
/** What was corrected here goes to other documents as a kept wish: it is run over them under All documents. */
const keptName = ref('')
const kept = useKeptWishes()
async function keepCorrections(): Promise<void> {
  const name = keptName.value.trim()
  if (!kerning.made.value || !(await kept.keep(name, { wishes: [kerning.made.value], leftOut: [] }))) return
  type.done = `Kept as the wish “${name}”: run it over other documents under All documents.`
  keptName.value = ''
}
function leave(): void {
  kerning.forget()
  change.reset()
}
const reaches: readonly { readonly id: KerningReach; readonly title: string }[] = [
  { id: 'face', title: 'this face' },
  { id: 'family', title: 'the whole family' },
  { id: 'here', title: 'here only' },
]
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col">
    <div class="shrink-0 px-[22px]">
      <NoticeLine v-if="change.message" class="mb-2" kind="failed">{{ change.message }}</NoticeLine>
      <NoticeLine v-else-if="type.done" class="mb-2" kind="done">{{ type.done }}</NoticeLine>
      <p v-if="!face" class="text-soft">
        {{ kerning.loading.value ? 'Looking at the letters …' : 'No text of this document is in a face that is here.' }}
      </p>
      <template v-else>
        <Choice
          class="w-full"
          aria-label="Face whose pairs are looked at"
          :model-value="face.hash"
          @update:model-value="kerning.chosen.value = $event"
        >
          <option v-for="each in kerning.faces.value" :key="each.hash" :value="each.hash">
            {{ each.family }} {{ each.style }}, {{ counted(each.count, 'pair') }}
          </option>
        </Choice>
        <p class="mt-1 text-soft">{{ summary }}</p>
        <form
          v-if="kerning.made.value"
          class="mt-1 flex items-center gap-2 text-[13px]"
          @submit.prevent="keepCorrections"
        >
          <span class="text-soft"
            >For other documents, keep the {{ counted(kerning.made.value.pairs.length, 'correction') }} as</span
          >
          <input
            v-model="keptName"
            class="field min-w-0 flex-1"
            maxlength="200"
            aria-label="Name of the wish that keeps the corrections"
          />
          <button type="submit" class="plain" :disabled="keptName.trim() === ''">Keep</button>
        </form>
        <p v-if="kept.message" role="alert" class="text-rubric">{{ kept.message }}</p>
        <PairCorrected v-if="row" v-model="place" :face="face" :row="row" :kerning="kerning" />
        <div class="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
          <div role="radiogroup" aria-label="What a correction holds for" class="flex gap-3">
            <label v-for="each in reaches" :key="each.id" class="flex items-center gap-1.5"
              ><input
                type="radio"
                name="kerning-reach"
                :checked="reach === each.id"
                :disabled="each.id === 'here' && !shown"
                @change="kerning.reachFor(row, each.id)"
              />
              {{ each.title }}</label
            >
          </div>
          <label class="ml-auto flex items-center gap-1.5"
            ><Tick :checked="oddOnly" @change="oddOnly = $event" /> only what stands out</label
          >
        </div>
      </template>
    </div>
    <div
      v-if="face"
      ref="scroller"
      role="listbox"
      aria-label="Pairs of letters"
      tabindex="0"
      class="mx-[22px] mt-2 min-h-0 flex-1 overflow-y-auto border-t border-rule"
      :aria-activedescendant="row ? `pair-${at}` : undefined"
      @keydown="key"
    >
      <p v-if="rows.length === 0" class="py-4 text-soft">Nothing stands out in this face.</p>
      <div class="relative w-full" :style="{ height: `${list.height.value}px` }">
        <div
          v-for="item in items"
          :id="`pair-${item.index}`"
          :key="item.index"
          role="option"
          :aria-selected="item.index === at"
          :aria-setsize="rows.length"
          :aria-posinset="item.index + 1"
          :aria-label="saidOf(item.row)"
          class="absolute inset-x-0 top-0 flex cursor-pointer items-center gap-3 border-b border-rule px-1.5"
          :class="item.index === at ? 'bg-wash' : 'hover:bg-paper'"
          :style="{ height: `${rowHeight}px`, transform: `translateY(${item.start}px)` }"
          @click="at = item.index"
        >
          <span class="min-w-0 flex-1 overflow-hidden">
            <PairWord
              :hash="face.hash"
              :word="wordOf(item.row).word"
              :at="wordOf(item.row).at"
              :left="item.row.left"
              :right="item.row.right"
              :size="24"
              :kern="(l, r) => (l === item.row.left && r === item.row.right ? item.row.kern : kerning.between(l, r))"
              :amount="kerning.amountOf(item.row)"
            />
          </span>
          <span class="w-[70px] shrink-0 text-right text-[13px] text-soft">{{
            item.row.count > 0 ? counted(item.row.count, 'time') : 'not in text'
          }}</span>
          <span
            class="w-[96px] shrink-0 text-right text-[13px]"
            :class="Math.abs(oddnessOf(item.row) ?? 0) >= oddFrom ? 'text-ink' : 'text-soft'"
            >{{ oddWords(item.row) }}</span
          >
          <span class="w-[56px] shrink-0 text-right text-[13px]">{{ shortAmount(kerning.amountOf(item.row)) }}</span>
        </div>
      </div>
    </div>
    <div class="flex h-[50px] shrink-0 items-center gap-3 border-t border-ink px-[22px]">
      <button
        type="button"
        class="act max-w-[60%] truncate"
        :title="wish ? kernTitle(wish) : undefined"
        :disabled="!wish || change.busy !== ''"
        @click="carryOut"
      >
        {{ change.busy === 'applying' ? 'Working …' : wish ? kernTitle(wish) : 'Move a pair by ← and →' }}
      </button>
      <button type="button" class="plain shrink-0" :disabled="!wish || change.busy !== ''" @click="look">
        See every place
      </button>
      <button v-if="wish" type="button" class="plain shrink-0" @click="leave">Leave it</button>
    </div>
  </div>
</template>
