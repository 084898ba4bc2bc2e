<script setup lang="ts">
import { faceKey } from '~~/core/census/voices'
import type { Slot } from '~~/core/document/font-attributes'
import { repairTitle } from '~~/core/change/repair/repairs'
import type { RepairOption } from '~~/core/change/repair/target'
import SheetPage from '../desk/SheetPage.vue'
import { counted } from '../desk/words'
import { useDesk } from '../stores/desk'
import { useChange, type ChangeId } from './use-change'
import { walkOrder, walkRows, type WalkRow } from './walk-rows'
import RepairLimits from './RepairLimits.vue'
import { isTyping } from '../desk/typing'

/** The walk: what a plan does, page by page, before and after; accepted, left out or repaired as one goes. */
const desk = useDesk()
const props = defineProps<{ id: ChangeId }>()
const change = useChange(props.id)
const plan = computed(() => change.plan!)
const effects = computed(() => plan.value.effects!)
const at = ref(0)
const holder = ref<HTMLElement | null>(null)
const room = ref({ width: 600, height: 400 })
let watcher: ResizeObserver | null = null

const rows = computed(() => walkRows(effects.value))
const last = computed(() => Math.max(desk.sheets.length, change.sheetsAfter.length) - 1)
/** Where what stood on this page before stands afterwards: by the paragraphs that changed, else the same page. */
const afterPage = computed(() =>
  Math.min(
    rows.value.find(row => row.page === at.value && row.of === 'paragraph')?.pageAfter ?? at.value,
    change.sheetsAfter.length - 1,
  ),
)
const before = computed(() => desk.sheets[at.value])
const after = computed(() => change.sheetsAfter[afterPage.value])
const zoom = computed(() => {
  const sheet = before.value ?? after.value
  if (!sheet) return 0.4
  return Math.max(
    0.2,
    Math.min(
      (room.value.width - 72) / 2 / ((sheet.width * 96) / 72),
      Math.max(room.value.height - 250, 280) / ((sheet.height * 96) / 72),
    ),
  )
})
/** Faces that go, on the page now, and those that come, on the page after: both are marked. */
const goes = computed(() => new Set(plan.value.mappings.map(mapping => mapping.key)))
const comes = computed(
  () => new Set(plan.value.mappings.map(mapping => faceKey({ ...mapping.to, slot: mapping.from.slot as Slot }))),
)
const touched = computed(() =>
  (desk.census?.faces ?? []).filter(face => goes.value.has(face.key)).flatMap(face => face.pages),
)

const order = computed(() => walkOrder(rows.value, [...touched.value, ...plan.value.rows.map(row => row.page ?? -1)]))
const accepted = ref(new Set<number>())
const left = computed(() => order.value.all.filter(page => !accepted.value.has(page)))
const here = computed(() => rows.value.filter(row => row.page === at.value))
const chosen = ref(0)
const row = computed((): WalkRow | null => here.value[Math.min(chosen.value, here.value.length - 1)] ?? null)
const options = shallowRef<readonly RepairOption[] | null>(null)
const said = ref('')
const limiting = ref(false)

function go(page: number): void {
  at.value = Math.max(0, Math.min(page, last.value))
  chosen.value = 0
  options.value = null
}
function step(by: 1 | -1): void {
  const { all } = order.value
  const index = all.indexOf(at.value)
  const next = index < 0 ? all[0] : all[(index + by + all.length) % all.length]
  if (next !== undefined) go(next)
}
/** Accepts the page and goes on to the next one that is left. */
function accept(): void {
  accepted.value = new Set(accepted.value).add(at.value)
  const { all } = order.value
  const from = all.indexOf(at.value)
  const next = [...all.slice(from + 1), ...all.slice(0, from + 1)].find(page => !accepted.value.has(page))
  if (next !== undefined) go(next)
}
/** Whether a paragraph by itself can keep what it has: of a swap its old font, else the rows that are about it alone. */
const swaps = computed(() => change.wishes.some(wish => wish.type === 'swap'))
const rowsHere = computed(() => {
  const place = row.value?.place
  return plan.value.rows.filter(
    each => each.optional && place && each.places.some(other => other.part === place.part && other.node === place.node),
  )
})
const isOut = computed(() =>
  swaps.value
    ? row.value?.place != null && change.isSpared(row.value.place)
    : rowsHere.value.length > 0 && rowsHere.value.every(each => !each.included),
)
const canLeave = computed(() => row.value?.of === 'paragraph' && (swaps.value || rowsHere.value.length > 0))
/** Leaves the place of the row out of the plan, or takes it in again. */
async function leaveOut(): Promise<void> {
  if (!canLeave.value || !row.value?.place) return
  if (swaps.value) await change.spare(row.value.place)
  else
    await change.leave(
      rowsHere.value.map(each => each.key),
      !isOut.value,
    )
}
async function findRepairs(): Promise<void> {
  if (!row.value?.of || !row.value.place) return
  said.value = 'Trying …'
  options.value = await change.repairsOf({ ...row.value.place, of: row.value.of }).catch(() => [])
  said.value = options.value?.length === 0 ? 'Nothing within the limits helps here.' : ''
}
async function take(option: RepairOption): Promise<void> {
  options.value = null
  await change.repair(option)
}
async function mendAll(): Promise<void> {
  const count = await change.repairAll()
  said.value = count === 0 ? 'Nothing within the limits helps.' : `${counted(count, 'place')} repaired in the plan.`
}

function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target)) return
  const act = (action: () => unknown) => {
    event.preventDefault()
    event.stopPropagation()
    void action()
  }
  if (event.key === 'ArrowRight' || event.key === 'PageDown') act(() => step(1))
  else if (event.key === 'ArrowLeft' || event.key === 'PageUp') act(() => step(-1))
  else if (event.key === 'ArrowDown')
    act(() => {
      chosen.value = Math.min(chosen.value + 1, here.value.length - 1)
      options.value = null
    })
  else if (event.key === 'ArrowUp')
    act(() => {
      chosen.value = Math.max(chosen.value - 1, 0)
      options.value = null
    })
  else if (event.key === 'a') act(accept)
  else if (event.key === 'l') act(leaveOut)
  else if (event.key === 'r') act(findRepairs)
  else if (/^[1-4]$/.test(event.key) && options.value?.[Number(event.key) - 1])
    act(() => take(options.value![Number(event.key) - 1]!))
}

watch(
  () => change.generation,
  () => {
    options.value = null
    if (at.value > last.value || !order.value.all.includes(at.value))
      go(order.value.all[0] ?? Math.min(desk.page, last.value))
  },
  { immediate: true },
)
onMounted(() => {
  watcher = new ResizeObserver(([entry]) => {
    if (entry) room.value = { width: entry.contentRect.width, height: entry.contentRect.height }
  })
  watcher.observe(holder.value!)
})
onBeforeUnmount(() => watcher?.disconnect())
const outcome = (option: RepairOption) =>
  option.mends
    ? row.value?.of === 'frame'
      ? 'everything fits'
      : `${counted(option.lines, 'line')}, as before`
    : row.value?.of === 'frame'
      ? `${counted(option.lines, 'line')} still over`
      : `${counted(option.lines, 'line')} still`
</script>

<template>
  <div class="flex min-h-0 flex-1 flex-col bg-desk" @keydown="key">
    <div
      ref="holder"
      class="min-h-0 flex-1 overflow-auto px-6 pt-4 pb-6"
      tabindex="0"
      :aria-label="
        'The walk, pages before and after: left and right go from page to page, up and down from row to row, ' +
        'A accepts the page, L leaves the row out, R looks for repairs'
      "
    >
      <div class="flex gap-6">
        <div v-if="before">
          <p class="mb-1 text-[13px] font-medium text-soft">Page {{ at + 1 }} now</p>
          <SheetPage
            side="now"
            :index="at"
            :zoom="zoom"
            v-bind="before"
            :live="true"
            :generation="desk.generation"
            :faces="goes"
            plain
          />
        </div>
        <div v-if="after">
          <p class="mb-1 text-[13px] font-medium text-soft">Page {{ afterPage + 1 }} after</p>
          <SheetPage
            :side="id"
            :index="afterPage"
            :zoom="zoom"
            v-bind="after"
            :live="true"
            :generation="change.generation"
            :faces="comes"
            plain
          />
        </div>
      </div>
      <div class="mt-3 flex flex-wrap items-center gap-2 text-[13px]">
        <button type="button" class="plain" @click="accept">
          {{ accepted.has(at) ? 'Accepted' : 'Accept page' }} (A)
        </button>
        <button type="button" class="plain" :disabled="!canLeave" @click="leaveOut">
          {{ isOut ? 'Take it in again' : 'Leave this row out' }} (L)
        </button>
        <button type="button" class="plain" :disabled="!row?.of" @click="findRepairs">Repair it (R)</button>
        <button
          v-if="order.flagged.length > 0"
          type="button"
          class="plain"
          :disabled="change.busy !== ''"
          @click="mendAll"
        >
          Repair all that runs over or wraps
        </button>
        <button type="button" class="link" :aria-expanded="limiting" @click="limiting = !limiting">
          How far repairs may go
        </button>
        <span role="status" class="text-soft">{{ said }}</span>
      </div>
      <RepairLimits v-if="limiting" v-model="change.limits" class="mt-2" />
      <div
        v-if="options && options.length > 0"
        class="mt-2 border border-verdigris bg-sheet px-3 py-2"
        aria-label="Repairs"
      >
        <p v-for="(option, index) in options" :key="option.repair.kind" class="flex items-baseline gap-3">
          <span class="min-w-0 flex-1"
            ><strong>{{ repairTitle(option.repair) }}</strong
            ><span class="text-soft">: {{ outcome(option) }}</span></span
          ><button type="button" class="link" @click="take(option)">Take it ({{ index + 1 }})</button>
        </p>
      </div>
      <p v-if="change.repairs.length > 0" class="mt-2 text-[13px]">
        {{ counted(change.repairs.length, 'repair') }} in the plan.
        <button type="button" class="link" @click="change.dropRepairs()">Take them all out</button>
      </p>
      <p v-if="change.spared.length > 0" class="mt-1 text-[13px]">
        {{ change.spared.length === 1 ? 'One paragraph keeps' : `${change.spared.length} paragraphs keep` }} the old
        font.
        <button type="button" class="link" @click="change.leave(change.spared, false)">Take them along again</button>
      </p>
      <table class="mt-3 table-fixed">
        <colgroup>
          <col class="w-[56px]" />
          <col />
          <col class="w-[132px]" />
        </colgroup>
        <thead>
          <tr>
            <th scope="col">Page</th>
            <th scope="col">What happens</th>
            <th scope="col" class="number">Change</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="each in rows"
            :key="each.key"
            :class="{ 'bg-wash': each === row, 'bg-paper': each.page === at && each !== row }"
          >
            <td>
              <button
                type="button"
                class="link"
                :aria-label="`Show page ${each.page + 1}`"
                @click="
                  () => {
                    go(each.page)
                    chosen = here.indexOf(each)
                  }
                "
              >
                {{ each.page < 0 ? '–' : each.page + 1 }}
              </button>
            </td>
            <td class="truncate" :class="each.tone" :title="each.what">{{ each.what }}</td>
            <td class="number">{{ each.change }}</td>
          </tr>
          <tr v-if="rows.length === 0">
            <td colspan="3" class="text-soft">Every paragraph keeps its number of lines.</td>
          </tr>
        </tbody>
      </table>
      <p v-if="effects.paragraphsChanged > effects.paragraphs.length" class="mt-2 text-soft">
        {{ counted(effects.paragraphsChanged, 'paragraph') }} change in all; the largest changes are listed.
      </p>
    </div>
    <div
      class="flex h-[36px] shrink-0 items-center gap-3 border-t border-rule bg-paper px-4 text-[13px] whitespace-nowrap text-soft"
    >
      <button type="button" class="link" :disabled="at <= 0" @click="go(at - 1)">Before</button>
      <span class="tabular-nums"
        >Page <strong class="text-ink">{{ at + 1 }}</strong> of {{ last + 1 }}</span
      >
      <button type="button" class="link" :disabled="at >= last" @click="go(at + 1)">After</button>
      <button v-if="order.all.length > 0" type="button" class="link" @click="step(1)">Next change</button>
      <button v-if="change.walking" type="button" class="link" @click="change.walking = false">
        Back to the sheets
      </button>
      <span class="ml-auto tabular-nums" role="status">{{
        left.length === 0
          ? 'all looked at'
          : `${left.length} left, ${order.flagged.filter(page => !accepted.has(page)).length} flagged`
      }}</span>
      <span class="tabular-nums">{{ effects.pagesBefore }} → {{ counted(effects.pagesAfter, 'page') }}</span>
    </div>
  </div>
</template>
