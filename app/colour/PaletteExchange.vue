<script setup lang="ts">
import { recastSchema } from '~~/core/change/recast/wish'
import { ownPalettes } from '~~/core/house/own-palettes'
import { nearestMatches, type Palette } from '~~/core/house/palette'
import type { ShelfCard } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import DocumentPicks from '../kit/DocumentPicks.vue'
import { counted } from '../desk/words'
import { sentenceOf } from '../stores/desk'
import { useAcross } from '../stores/across'
import { useColours } from '../stores/colours'
import { useKeptPalettes } from '../stores/kept'

/** This palette in place of another, over documents: for each colour the nearest that does the same, each changeable. */
const colours = useColours()
const kept = useKeptPalettes()
const across = useAcross()
const router = useRouter()
const from = ref('')
const to = ref<Record<string, string>>({})
const cards = ref<ShelfCard[]>([])
const busy = ref(false)
const said = ref('')
onMounted(() => void kept.load().catch(() => null))
const palettes = computed(() => [
  ...kept.list.map(each => ({ id: each.id, name: each.name, palette: each.data as Palette })),
  ...ownPalettes.map(each => ({ id: each.name, name: each.name, palette: each.palette })),
])
const matches = computed(() => {
  const old = palettes.value.find(each => each.id === from.value)?.palette
  if (!old || colours.colors.length === 0) return []
  return nearestMatches(old, { colors: colours.colors }).map(each => ({
    ...each,
    id: to.value[each.from.id] ?? each.to.id,
  }))
})
watch(from, () => (to.value = {}))
const colorOf = (id: string) => colours.colors.find(each => each.id === id)?.color ?? ''
const changes = computed(() =>
  matches.value.flatMap(({ from: old, id }) =>
    id !== 'stays' && colorOf(id) !== old.color ? [{ from: old.color, to: colorOf(id) }] : [],
  ),
)

async function plan(): Promise<void> {
  busy.value = true
  said.value = ''
  try {
    const wish = recastSchema.parse({
      type: 'recast',
      find: { look: {}, scope: { kind: 'document' } },
      change: {},
      colors: changes.value,
    })
    const { id } = await $fetch<{ id: string }>('/api/batches', {
      method: 'POST',
      body: { request: { wishes: [wish], leftOut: [] }, documents: cards.value.map(card => card.id) },
    })
    across.leftOut = []
    await across.watchBatch(id)
    await router.push('/across')
  } catch (error) {
    said.value = sentenceOf(error)
  }
  busy.value = false
}
</script>

<template>
  <section aria-label="This palette in place of another">
    <p class="text-soft">
      This palette takes the place of another over documents: text, fills, page grounds, lines and chart series. You see
      what it does to each before anything changes.
    </p>
    <label class="mt-2 flex items-center gap-2"
      ><span class="text-soft">In place of</span>
      <Choice v-model="from" aria-label="Palette that gives way">
        <option value="">choose a palette</option>
        <option v-for="each in palettes" :key="each.id" :value="each.id">{{ each.name }}</option>
      </Choice></label
    >
    <ul v-if="matches.length > 0" class="mt-2 border-t border-rule" aria-label="Colour by colour">
      <li
        v-for="each in matches"
        :key="each.from.id"
        class="grid grid-cols-[22px_minmax(0,1fr)_22px_minmax(0,1fr)] items-center gap-2 border-b border-rule py-1"
      >
        <span class="h-[20px] border border-rule" :style="{ background: each.from.color }" aria-hidden="true" />
        <span class="truncate">{{ each.from.title }}, {{ each.from.color }}</span>
        <span
          class="h-[20px] border border-rule"
          :style="{ background: each.id === 'stays' ? each.from.color : colorOf(each.id) }"
          aria-hidden="true"
        />
        <Choice
          :model-value="each.id"
          :aria-label="`What takes the place of ${each.from.title}`"
          @update:model-value="to = { ...to, [each.from.id]: String($event) }"
        >
          <option value="stays">it stays</option>
          <option v-for="color in colours.colors" :key="color.id" :value="color.id">
            {{ color.title }}, {{ color.color }}
          </option>
        </Choice>
      </li>
    </ul>
    <DocumentPicks v-model="cards" class="mt-3" label="Documents that it is done in" />
    <p v-if="said" role="alert" class="mt-1 text-rubric">{{ said }}</p>
    <button type="button" class="act mt-3" :disabled="busy || changes.length === 0 || cards.length === 0" @click="plan">
      {{ busy ? 'Planning …' : `Plan ${counted(changes.length, 'colour')} in ${counted(cards.length, 'document')}` }}
    </button>
  </section>
</template>
