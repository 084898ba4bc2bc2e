<script setup lang="ts">
import type { ProofCounts, ShelfCard } from '~~/shared/api'
import Chips from '../../kit/Chips.vue'
import Term from '../../kit/Term.vue'
import { counted, grouped } from '../../desk/words'
import { sentenceOf } from '../../stores/desk'

/** What a proof finds in every document: looked over a few at a time, and known from then on for each version. */
const props = defineProps<{ cards: readonly ShelfCard[] }>()
const found = shallowRef<ReadonlyMap<string, ProofCounts>>(new Map())
const failed = shallowRef<ReadonlyMap<string, string>>(new Map())
const by = ref<'document' | 'check'>('document')
let stopped = false

/** So many documents are looked over at once. */
const atOnce = 2
async function work(queue: ShelfCard[]): Promise<void> {
  for (let card = queue.shift(); card && !stopped; card = queue.shift()) {
    try {
      const counts = await $fetch<ProofCounts>(`/api/documents/${card.id}/proof`)
      found.value = new Map([...found.value, [card.id, counts]])
    } catch (error) {
      failed.value = new Map([...failed.value, [card.id, sentenceOf(error)]])
    }
  }
}
/** Looks over what was not looked over in the version that lies there now. */
function look(cards: readonly ShelfCard[]): void {
  const queue = cards.filter(card => !found.value.has(card.id) && !failed.value.has(card.id))
  for (let lane = 0; lane < atOnce; lane++) void work(queue)
}
onMounted(() => look(props.cards))
watch(
  () => props.cards.map(card => `${card.id} ${card.version}`).join(),
  () => {
    found.value = new Map()
    failed.value = new Map()
    look(props.cards)
  },
)
onBeforeUnmount(() => {
  stopped = true
})

const total = computed(() => {
  const all = [...found.value.values()]
  const sum = (pick: (counts: ProofCounts) => number) => all.reduce((count, each) => count + pick(each), 0)
  return { error: sum(each => each.error), warning: sum(each => each.warning), note: sum(each => each.note) }
})
/** Documents by how much was found in them. */
const rows = computed(() =>
  [...props.cards].sort((a, b) => {
    const [one, other] = [found.value.get(a.id), found.value.get(b.id)]
    return (other?.error ?? -1) - (one?.error ?? -1) || (other?.warning ?? -1) - (one?.warning ?? -1)
  }),
)
/** Checks by how much they found, and in how many documents. */
const checks = computed(() => {
  const sums = new Map<
    string,
    { title: string; severity: string; count: number; documents: number; mendable: number }
  >()
  for (const { checks: own } of found.value.values())
    for (const { check, title, severity, count, mendable } of own) {
      const known = sums.get(check) ?? { title, severity, count: 0, documents: 0, mendable: 0 }
      sums.set(check, {
        ...known,
        count: known.count + count,
        documents: known.documents + 1,
        mendable: known.mendable + mendable,
      })
    }
  const rank: Record<string, number> = { error: 0, warning: 1, note: 2 }
  return [...sums].sort(([, a], [, b]) => rank[a.severity]! - rank[b.severity]! || b.count - a.count)
})
</script>

<template>
  <section aria-label="Proof over all documents">
    <p class="mt-3" role="status">
      {{
        found.size + failed.size < cards.length
          ? `${grouped(found.size)} of ${counted(cards.length, 'document')} looked over …`
          : `${counted(cards.length, 'document')}: ${counted(total.error, 'error')}, ` +
            `${counted(total.warning, 'warning')}, ${counted(total.note, 'note')}`
      }}
    </p>
    <p class="text-soft">
      <Term word="finding">Findings</Term> by the checklist of the desk and the house of each document; a document’s
      Proof tab shows them at their places.
    </p>
    <Chips
      v-model="by"
      class="mt-2"
      label="How findings are told"
      :options="[
        { id: 'document', title: 'By document' },
        { id: 'check', title: 'By check' },
      ]"
    />
    <table v-if="by === 'document'" class="mt-2 table-fixed" aria-label="Findings by document">
      <colgroup>
        <col />
        <col class="w-[90px]" />
        <col class="w-[90px]" />
        <col class="w-[90px]" />
        <col class="w-[90px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Document</th>
          <th scope="col" class="number">Errors</th>
          <th scope="col" class="number">Warnings</th>
          <th scope="col" class="number">Notes</th>
          <th scope="col" class="number">Accepted</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="card in rows" :key="card.id">
          <td class="truncate">
            <NuxtLink :to="`/documents/${card.id}?stage=proof`" class="hover:underline">{{ card.fileName }}</NuxtLink>
          </td>
          <template v-if="found.get(card.id)">
            <td class="number" :class="found.get(card.id)!.error > 0 ? 'text-rubric' : 'text-soft'">
              {{ grouped(found.get(card.id)!.error) }}
            </td>
            <td class="number" :class="found.get(card.id)!.warning > 0 ? 'text-ochre' : 'text-soft'">
              {{ grouped(found.get(card.id)!.warning) }}
            </td>
            <td class="number text-soft">{{ grouped(found.get(card.id)!.note) }}</td>
            <td class="number text-soft">{{ grouped(found.get(card.id)!.accepted) }}</td>
          </template>
          <td v-else colspan="4" class="text-right text-soft">{{ failed.get(card.id) ?? 'waiting …' }}</td>
        </tr>
      </tbody>
    </table>
    <table v-else class="mt-2 table-fixed" aria-label="Findings by check">
      <colgroup>
        <col />
        <col class="w-[90px]" />
        <col class="w-[90px]" />
        <col class="w-[100px]" />
        <col class="w-[130px]" />
      </colgroup>
      <thead>
        <tr>
          <th scope="col">Check</th>
          <th scope="col">Severity</th>
          <th scope="col" class="number">Found</th>
          <th scope="col" class="number">Documents</th>
          <th scope="col" class="number">Can be put right</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="[check, sum] in checks" :key="check">
          <td class="truncate">{{ sum.title }}</td>
          <td class="text-soft">{{ sum.severity }}</td>
          <td class="number">{{ grouped(sum.count) }}</td>
          <td class="number">{{ grouped(sum.documents) }}</td>
          <td class="number text-soft">{{ grouped(sum.mendable) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
