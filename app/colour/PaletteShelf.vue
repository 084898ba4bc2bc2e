<script setup lang="ts">
import { ownPalettes } from '~~/core/house/own-palettes'
import { dutyTitles, paletteFromTokens, paletteToCss, paletteToTokens, type Palette } from '~~/core/house/palette'
import type { HouseInfo, HouseRow, ShelfCensus } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import { saveFile } from '../kit/save-file'
import { counted } from '../desk/words'
import { sentenceOf } from '../stores/desk'
import { useColours } from '../stores/colours'
import { useKeptPalettes } from '../stores/kept'

/** Palettes that are kept or ship, colours that documents use, and where a palette goes: a file, or a house. */
const colours = useColours()
const kept = useKeptPalettes()
const query = ref('')
const said = ref('')
const done = ref('')
const used = shallowRef<ShelfCensus['colors']>([])
const houses = shallowRef<readonly HouseRow[]>([])
const house = ref('')
onMounted(async () => {
  void kept.load().catch(() => null)
  used.value = (await $fetch<ShelfCensus>('/api/census').catch(() => null))?.colors ?? []
  houses.value = await $fetch<HouseRow[]>('/api/houses').catch(() => [])
})
const wanted = computed(() => query.value.trim().toLowerCase())
const all = computed(() => [
  ...kept.list.map(each => ({ id: each.id, name: each.name, says: 'kept here', palette: each.data as Palette })),
  ...ownPalettes.map(each => ({ id: '', ...each })),
])
const found = computed(() =>
  all.value.filter(
    ({ name, says, palette }) =>
      wanted.value === '' ||
      `${name} ${says}`.toLowerCase().includes(wanted.value) ||
      palette.colors.some(
        each =>
          each.color.includes(wanted.value) ||
          each.title.toLowerCase().includes(wanted.value) ||
          dutyTitles[each.does] === wanted.value,
      ),
  ),
)
const foundUsed = computed(() =>
  used.value.filter(each => wanted.value === '' || each.value.includes(wanted.value)).slice(0, 60),
)
const data = computed((): Palette => ({ colors: JSON.parse(JSON.stringify(colours.colors)) as Palette['colors'] }))
const title = computed(() => colours.name.trim() || 'Palette')

async function keep(): Promise<void> {
  said.value = ''
  done.value = (await kept.keep(title.value, data.value)) ? `${title.value} is kept.` : ''
  if (kept.message) said.value = kept.message
}
function handOn(as: 'tokens' | 'css'): void {
  const text = as === 'tokens' ? paletteToTokens(title.value, data.value) : paletteToCss(title.value, data.value)
  saveFile(
    new Blob([text], { type: as === 'tokens' ? 'application/json' : 'text/css' }),
    `${title.value}.${as === 'tokens' ? 'tokens.json' : 'css'}`,
  )
}
async function readFile(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement
  const file = field.files?.[0]
  field.value = ''
  if (!file) return
  said.value = ''
  try {
    const read = paletteFromTokens(await file.text())
    colours.take(read.name, read.palette.colors)
  } catch (error) {
    said.value = error instanceof Error ? error.message : String(error)
  }
}
/** The palette takes the place of a working house's; colours that its roles have stay, whatever their name. */
async function putIntoHouse(): Promise<void> {
  said.value = ''
  done.value = ''
  try {
    const own = await $fetch<HouseInfo>(`/api/houses/${house.value}`)
    const inUse = new Set(
      own.working.roles.flatMap(role =>
        [role.text, role.deck, role.sheet, ...role.levels].flatMap(each => each.color ?? []),
      ),
    )
    const stays = own.working.palette.filter(
      each => inUse.has(each.id) && !data.value.colors.some(other => other.id === each.id),
    )
    const working = { ...own.working, palette: [...data.value.colors, ...stays] }
    await $fetch(`/api/houses/${own.id}`, {
      method: 'PUT',
      body: { house: working, trialUntil: own.trialUntil, revision: own.revision },
    })
    done.value = `${own.name} works with this palette now; documents follow when it is issued.`
  } catch (error) {
    said.value = sentenceOf(error)
  }
}
</script>

<template>
  <section aria-label="Palettes">
    <form class="flex flex-wrap items-end gap-2" @submit.prevent="keep">
      <label class="min-w-[150px] flex-1 text-[13px] text-soft"
        >This palette<br /><input
          v-model="colours.name"
          class="field w-full text-[14px] text-ink"
          maxlength="200"
          placeholder="Palette"
      /></label>
      <button type="submit" class="plain" :disabled="colours.colors.length === 0">Keep it</button>
      <button type="button" class="plain" :disabled="colours.colors.length === 0" @click="handOn('tokens')">
        As tokens
      </button>
      <button type="button" class="plain" :disabled="colours.colors.length === 0" @click="handOn('css')">As CSS</button>
    </form>
    <div v-if="houses.length > 0" class="mt-2 flex flex-wrap items-center gap-2">
      <Choice v-model="house" aria-label="House that takes this palette">
        <option value="">choose a house</option>
        <option v-for="each in houses" :key="each.id" :value="each.id">{{ each.name }}</option>
      </Choice>
      <button type="button" class="plain" :disabled="house === '' || colours.colors.length === 0" @click="putIntoHouse">
        Give it this palette
      </button>
    </div>
    <p v-if="done" role="status" class="mt-1">{{ done }}</p>
    <p v-if="said" role="alert" class="mt-1 text-rubric">{{ said }}</p>
    <div class="mt-4 flex flex-wrap items-center gap-3">
      <input
        v-model="query"
        class="field w-[180px]"
        placeholder="Search"
        aria-label="Search palettes and colours in use"
      />
      <label class="link cursor-pointer"
        >Read a file of tokens<input
          class="sr-only"
          type="file"
          accept=".json,application/json"
          aria-label="A file of colour tokens"
          @change="readFile"
      /></label>
    </div>
    <ul class="mt-2 border-t border-rule" aria-label="Palettes that are there">
      <li v-for="each in found" :key="each.id + each.name" class="flex items-center gap-3 border-b border-rule py-1.5">
        <button
          type="button"
          class="flex min-w-0 flex-1 items-center gap-3 text-left"
          @click="colours.take(each.name, each.palette.colors)"
        >
          <span class="flex shrink-0 border border-rule" aria-hidden="true"
            ><span
              v-for="color in each.palette.colors.slice(0, 9)"
              :key="color.id"
              class="h-[20px] w-[14px]"
              :style="{ background: color.color }"
          /></span>
          <span class="min-w-0 truncate"
            ><span class="link">{{ each.name }}</span> <span class="text-soft">{{ each.says }}</span></span
          >
        </button>
        <button
          v-if="each.id"
          type="button"
          class="link"
          :aria-label="`Let ${each.name} go`"
          @click="kept.drop(each.id)"
        >
          Let go
        </button>
      </li>
      <li v-if="found.length === 0" class="py-1.5 text-soft">No palette answers to that.</li>
    </ul>
    <h2 class="mt-4">In use over all documents</h2>
    <ul class="mt-1 flex flex-wrap gap-2" aria-label="Colours in use">
      <li v-for="each in foundUsed" :key="each.value">
        <button
          type="button"
          class="flex items-center gap-1.5 border border-rule bg-sheet px-1.5 py-[2px] text-[12px]"
          :title="`${counted(each.documents.length, 'document')}, named ${counted(each.count, 'time')}`"
          @click="colours.add(each.value)"
        >
          <span class="size-[14px] border border-rule" :style="{ background: each.value }" aria-hidden="true" />{{
            each.value
          }}
        </button>
      </li>
    </ul>
  </section>
</template>
