<script setup lang="ts">
import { emptyHouse, type House } from '~~/core/house/house'
import { houseFromPair } from '~~/core/house/make-house'
import { starters } from '~~/core/house/starters'
import { houseFromTokens } from '~~/core/house/tokens'
import type { ShelfCard } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import DocumentPicks from '../kit/DocumentPicks.vue'
import { useHouses } from '../stores/houses'
import { useKeptPairs } from '../stores/kept'

/** A new house: from nothing, a starter, a pair, another house, a file of tokens, or drawn up from documents. */
const emit = defineEmits<{ made: [id: string] }>()
const houses = useHouses()
const pairs = useKeptPairs()
const from = ref(JSON.stringify(['documents', '']))
const name = ref('')
const trialDays = ref(30)
const cards = ref<ShelfCard[]>([])
const said = ref('')
onMounted(() => void pairs.load().catch(() => null))

/** What a house may be made of. */
const sources = computed(() =>
  [
    { kind: 'documents', id: '', says: 'drawn up from documents' },
    { kind: 'nothing', id: '', says: 'from nothing' },
    ...starters.map(each => ({ kind: 'starter', id: each.id, says: `from ${each.house().name}: ${each.says}` })),
    ...pairs.list.map(each => ({ kind: 'pair', id: each.id, says: `from the pair ${each.name}` })),
    ...houses.list.map(each => ({ kind: 'copy', id: each.id, says: `as a copy of ${each.name}` })),
    ...houses.list.map(each => ({ kind: 'trial', id: each.id, says: `as a trial of ${each.name}` })),
  ].map(each => ({ ...each, key: JSON.stringify([each.kind, each.id]) })),
)
const source = computed(() => sources.value.find(each => each.key === from.value) ?? sources.value[0]!)
const usualName = computed(() => {
  const { kind, id } = source.value
  if (kind === 'starter') return starters.find(each => each.id === id)!.house().name
  if (kind === 'pair') return pairs.list.find(each => each.id === id)?.name ?? ''
  if (kind === 'copy' || kind === 'trial')
    return `${houses.list.find(each => each.id === id)?.name ?? ''}, ${kind === 'trial' ? 'a trial' : 'a copy'}`
  return ''
})
const title = computed(() => name.value.trim() || usualName.value)
const ready = computed(() => title.value !== '' && (source.value.kind !== 'documents' || cards.value.length > 0))

/** The last day of a trial that begins today, ISO 8601. */
const lastDay = () => new Date(Date.now() + trialDays.value * 86_400_000).toISOString().slice(0, 10)

async function houseOf(): Promise<House | null> {
  const { kind, id } = source.value
  if (kind === 'starter') return { ...starters.find(each => each.id === id)!.house(), name: title.value }
  if (kind === 'pair') {
    const pair = pairs.list.find(each => each.id === id)
    return pair ? houseFromPair(title.value, pair.data) : null
  }
  if (kind === 'copy' || kind === 'trial') {
    const own = await $fetch<{ working: House }>(`/api/houses/${id}`).catch(() => null)
    return own ? { ...own.working, name: title.value } : null
  }
  return emptyHouse(title.value)
}
async function make(): Promise<void> {
  said.value = ''
  const { kind } = source.value
  if (kind === 'documents') {
    const id = await houses.drawUp(
      title.value,
      cards.value.map(card => card.id),
    )
    if (id) emit('made', id)
    return
  }
  const house = await houseOf()
  if (!house) {
    said.value = 'What this house was to be made of is not there any more. Nothing was made.'
    return
  }
  const id = await houses.add(house, kind === 'trial' ? lastDay() : null)
  if (id) emit('made', id)
}
/** The house in a file: design tokens, or the named styles of an OpenDocument text or template. */
async function houseIn(file: File): Promise<House> {
  if (!/\.o[dt][tpg]$/i.test(file.name)) return houseFromTokens(await file.text())
  const [{ openDocument }, { readDocument }, { houseFromStyles }] = await Promise.all([
    import('~~/core/document/open'),
    import('~~/core/style/reading'),
    import('~~/core/house/make-house'),
  ])
  const name = file.name.replace(/\.\w+$/, '').slice(0, 120)
  return houseFromStyles(name, readDocument(openDocument(new Uint8Array(await file.arrayBuffer()))))
}
async function readFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  said.value = ''
  try {
    const id = await houses.add(await houseIn(file))
    if (id) emit('made', id)
  } catch (error) {
    said.value = error instanceof Error ? error.message : String(error)
  }
}
</script>

<template>
  <form class="border border-rule bg-sheet p-3" aria-label="A new house" @submit.prevent="make">
    <div class="flex flex-wrap items-end gap-2">
      <label class="text-[13px] text-soft"
        >Made<br /><Choice v-model="from" class="text-[14px] text-ink" aria-label="What the house is made of">
          <option v-for="each in sources" :key="each.key" :value="each.key">{{ each.says }}</option>
        </Choice></label
      >
      <label class="min-w-[150px] flex-1 text-[13px] text-soft"
        >Called<br /><input
          v-model="name"
          class="field w-full text-[14px] text-ink"
          maxlength="120"
          :placeholder="usualName"
      /></label>
      <label v-if="source.kind === 'trial'" class="text-[13px] text-soft"
        >for days<br /><input
          v-model.number="trialDays"
          class="field w-[64px] text-[14px] text-ink"
          type="number"
          min="1"
          max="365"
      /></label>
      <button type="submit" class="act" :disabled="!ready || houses.busy">
        {{ houses.busy ? 'Working …' : 'Make the house' }}
      </button>
    </div>
    <template v-if="source.kind === 'documents'">
      <DocumentPicks v-model="cards" class="mt-2" label="Documents that it is drawn up from" />
    </template>
    <p class="mt-2 text-[13px] text-soft">
      Or
      <label class="link cursor-pointer"
        >read one from a file of design tokens or an OpenDocument template<input
          class="sr-only"
          type="file"
          accept=".json,.ott,.odt,.otp,.odp,application/json"
          aria-label="A file of design tokens or a template"
          @change="readFile" /></label
      >.
    </p>
    <p v-if="said" role="alert" class="mt-1 text-rubric">{{ said }}</p>
  </form>
</template>
