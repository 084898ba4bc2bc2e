<script setup lang="ts">
import { useVirtualizer } from '@tanstack/vue-virtual'
import { keyText, type PlanRow, type RowKey } from '~~/core/change/plan'
import { grouped } from '../desk/words'
import Tick from './Tick.vue'

/**
 * The rows of a plan: each is left out or taken in by its tick, and walked to where it has a place. However many there
 * are, only those in sight are in the page.
 */
const props = defineProps<{
  rows: readonly PlanRow[]
  /** A row that is walked to just now. */
  current?: RowKey | null
  /** Whether rows have a place to walk to. */
  walks?: boolean
  /** What stands where there are none. */
  nothing?: string
}>()
const emit = defineEmits<{ toggle: [key: RowKey]; walk: [row: PlanRow] }>()

const table = ref<HTMLTableElement | null>(null)
const scroller = shallowRef<HTMLElement | null>(null)
const margin = ref(0)
const hasPages = computed(() => props.walks || props.rows.some(row => row.page !== undefined))
const hasCounts = computed(() => props.rows.some(row => row.count !== 1))

/** Rows that are not in sight leave room above and below. */
const virtual = useVirtualizer(
  computed(() => ({
    count: props.rows.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => 33,
    overscan: 12,
    scrollMargin: margin.value,
    getItemKey: (index: number) => keyText(props.rows[index]!.key),
  })),
)
const items = computed(() => virtual.value.getVirtualItems())
const above = computed(() => (items.value[0]?.start ?? margin.value) - margin.value)
const below = computed(() => virtual.value.getTotalSize() - ((items.value.at(-1)?.end ?? margin.value) - margin.value))
const measure = (element: unknown) => {
  if (element instanceof HTMLElement) virtual.value.measureElement(element)
}
const columns = computed(() => 3 + (hasPages.value ? 1 : 0) + (hasCounts.value ? 1 : 0))
const isCurrent = (row: PlanRow) => props.current != null && keyText(row.key) === keyText(props.current)
const outcome = (row: PlanRow) =>
  row.reason !== null ? `left as it is: ${row.reason}` : row.included ? row.after : 'left out: stays'

onMounted(() => {
  scroller.value = table.value?.closest<HTMLElement>('.overflow-y-auto') ?? null
  const from = scroller.value?.getBoundingClientRect().top ?? 0
  margin.value = (table.value?.getBoundingClientRect().top ?? 0) - from + (scroller.value?.scrollTop ?? 0)
})
</script>

<template>
  <table ref="table" class="mt-1 table-fixed">
    <colgroup>
      <col class="w-[26px]" />
      <col v-if="hasPages" class="w-[48px]" />
      <col class="w-[34%]" />
      <col v-if="hasCounts" class="w-[58px]" />
      <col />
    </colgroup>
    <thead>
      <tr>
        <th scope="col"><span class="sr-only">In the plan</span></th>
        <th v-if="hasPages" scope="col">Page</th>
        <th scope="col">What</th>
        <th v-if="hasCounts" scope="col" class="number">Count</th>
        <th scope="col">Before → after</th>
      </tr>
    </thead>
    <tbody>
      <tr v-if="above > 0" aria-hidden="true">
        <td :colspan="columns" class="!h-0 !border-0 !p-0" :style="{ height: `${above}px` }" />
      </tr>
      <tr
        v-for="item in items"
        :key="String(item.key)"
        :ref="measure"
        :data-index="item.index"
        :class="{ 'text-soft': !rows[item.index]!.included, 'bg-wash': isCurrent(rows[item.index]!) }"
      >
        <td>
          <Tick
            v-if="rows[item.index]!.optional"
            class="mt-1"
            :checked="rows[item.index]!.included"
            :disabled="rows[item.index]!.reason !== null"
            :said="`${rows[item.index]!.title}, ${rows[item.index]!.before}: in the plan`"
            @change="emit('toggle', rows[item.index]!.key)"
          />
        </td>
        <td v-if="hasPages">
          <button
            v-if="walks && rows[item.index]!.places[0]?.from !== undefined"
            type="button"
            class="link"
            :aria-label="`Walk to ${rows[item.index]!.before}`"
            @click="emit('walk', rows[item.index]!)"
          >
            {{ (rows[item.index]!.page ?? -1) < 0 ? '–' : rows[item.index]!.page! + 1 }}</button><span v-else>{{
            (rows[item.index]!.page ?? -1) < 0 ? '–' : rows[item.index]!.page! + 1
          }}</span>
        </td>
        <td class="py-1">
          <span class="line-clamp-2" :title="rows[item.index]!.title">{{ rows[item.index]!.title }}</span>
        </td>
        <td v-if="hasCounts" class="number">{{ grouped(rows[item.index]!.count) }}</td>
        <td class="py-1" :title="`${rows[item.index]!.before} → ${outcome(rows[item.index]!)}`">
          <span class="line-clamp-2"
            ><span class="text-soft">{{ rows[item.index]!.before }}</span> → {{ outcome(rows[item.index]!) }}</span
          >
        </td>
      </tr>
      <tr v-if="below > 0" aria-hidden="true">
        <td :colspan="columns" class="!h-0 !border-0 !p-0" :style="{ height: `${below}px` }" />
      </tr>
      <tr v-if="rows.length === 0">
        <td :colspan="columns" class="text-soft">
          {{ nothing ?? 'There is nothing to do: everything is as you ask.' }}
        </td>
      </tr>
    </tbody>
  </table>
</template>
