<script setup lang="ts">
import type { Kept } from '~~/shared/kept'
import { readPairs, toCss, toTokens } from '~~/core/pairing/kept-pair'
import { counted } from '../desk/words'
import { saveFile } from '../kit/save-file'
import NoticeLine from '../kit/NoticeLine.vue'
import { sentenceOf } from '../stores/desk'
import { useKeptPairs } from '../stores/kept'
import { useLibrary } from '../stores/library'
import { usePairs } from '../stores/pairs'
import { useType } from '../stores/type'

/** Pairs that are kept, in folders: kept, renamed, moved, sent out and read in as design tokens or CSS. */
const kept = useKeptPairs()
const pairs = usePairs()
const type = useType()
const library = useLibrary()
const name = ref('')
const folder = ref('')
const editing = ref<{ id: string; name: string; heading: string } | null>(null)
const said = ref('')
onMounted(() => void kept.load().catch(() => null))

const hashOf = (family: string) => type.all.find(each => each.family === family)?.plain.hash
const faceStyle = (family: string) => {
  const hash = hashOf(family)
  return hash === undefined ? {} : { fontFamily: library.cssFamily(hash) }
}
const absentOf = ({ data }: Kept<'pair'>) =>
  [data.heading, data.body, ...(data.label ? [data.label] : [])].filter(family => hashOf(family) === undefined)

async function keep(): Promise<void> {
  said.value = ''
  const { data } = pairs
  if (!data || !(await kept.keep(name.value.trim(), data, folder.value.trim()))) return
  said.value = `Kept as “${name.value.trim()}”.`
  name.value = ''
}
async function save(): Promise<void> {
  const own = editing.value
  if (own && (await kept.change(own.id, { name: own.name.trim(), heading: own.heading.trim() }))) editing.value = null
}
const named = (list: readonly Kept<'pair'>[]) => list.map(each => ({ name: each.name, pair: each.data }))
const tokens = (list: readonly Kept<'pair'>[], fileName: string) => {
  saveFile(new Blob([toTokens(named(list))], { type: 'application/json' }), `${fileName}.tokens.json`)
}
const css = (list: readonly Kept<'pair'>[], fileName: string) => {
  saveFile(new Blob([named(list).map(toCss).join('\n')], { type: 'text/css' }), `${fileName}.css`)
}
async function read(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement
  said.value = ''
  kept.message = ''
  try {
    let count = 0
    for (const file of input.files ?? []) {
      if (file.size > 4 * 1024 * 1024) throw new Error(`${file.name} is larger than 4 MB. Nothing of it was kept.`)
      for (const pair of readPairs(await file.text())) {
        if (!(await kept.keep(pair.name, pair.pair, folder.value.trim()))) return
        count++
      }
    }
    said.value = `${counted(count, 'pair')} read in.`
  } catch (error) {
    kept.message = sentenceOf(error)
  }
  input.value = ''
}
</script>

<template>
  <section aria-label="Kept pairs">
    <h2>Kept pairs</h2>
    <NoticeLine v-if="kept.message" kind="failed">{{ kept.message }}</NoticeLine>
    <NoticeLine v-else-if="said" kind="done">{{ said }}</NoticeLine>
    <form class="mt-1 flex flex-wrap items-end gap-2" @submit.prevent="keep">
      <label class="min-w-[120px] flex-1 text-[13px] text-soft"
        >Keep this pair as<input v-model="name" class="field block w-full text-ink" maxlength="200"
      /></label>
      <label class="w-[120px] text-[13px] text-soft"
        >in the folder<input v-model="folder" class="field block w-full text-ink" maxlength="120" list="pair-folders"
      /></label>
      <datalist id="pair-folders">
        <option v-for="each in kept.headings" :key="each" :value="each" />
      </datalist>
      <button type="submit" class="plain" :disabled="name.trim() === '' || !pairs.pair">Keep it</button>
      <label class="link cursor-pointer text-[13px]"
        >Read pairs in<input
          type="file"
          class="sr-only"
          accept=".json,.css,application/json,text/css"
          multiple
          aria-label="Files of pairs to read in"
          @change="read"
      /></label>
    </form>
    <div v-for="heading in kept.headings" :key="heading" class="mt-3">
      <p class="flex items-baseline gap-3 border-b border-ink text-[13px]">
        <strong class="flex-1">{{ heading || 'In no folder' }}</strong><button
          type="button"
          class="link"
          @click="
            tokens(
              kept.list.filter(each => each.heading === heading),
              heading || 'pairs',
            )
          "
        >
          Send out as tokens</button
        ><button
          type="button"
          class="link"
          @click="
            css(
              kept.list.filter(each => each.heading === heading),
              heading || 'pairs',
            )
          "
        >
          as CSS
        </button>
      </p>
      <div
        v-for="each in kept.list.filter(one => one.heading === heading)"
        :key="each.id"
        class="flex items-center gap-3 border-b border-rule py-1"
      >
        <form v-if="editing?.id === each.id" class="flex flex-1 flex-wrap gap-2" @submit.prevent="save">
          <input v-model="editing.name" class="field min-w-0 flex-1" maxlength="200" aria-label="New name" />
          <input
            v-model="editing.heading"
            class="field w-[110px]"
            maxlength="120"
            list="pair-folders"
            aria-label="New folder"
          />
          <button type="submit" class="plain" :disabled="editing.name.trim() === ''">Save</button>
          <button type="button" class="link" @click="editing = null">Leave it</button>
        </form>
        <template v-else>
          <button
            type="button"
            class="min-w-0 flex-1 overflow-hidden text-left whitespace-nowrap"
            :aria-label="`Look at the pair ${each.name}`"
            @click="pairs.take(each.data)"
          >
            <span class="text-[20px]" :style="faceStyle(each.data.heading)">{{ each.name }}</span>{{ ' '
            }}<span class="text-[15px] text-soft" :style="faceStyle(each.data.body)"
              >{{ each.data.heading }} over {{ each.data.body }}</span
            ><span v-if="absentOf(each).length > 0" class="text-[13px] text-ochre">
              {{ absentOf(each).join(', ') }} not here</span
            >
          </button>
          <button
            type="button"
            class="link shrink-0 text-[13px]"
            :aria-label="`Rename or move ${each.name}`"
            @click="editing = { id: each.id, name: each.name, heading: each.heading }"
          >
            Rename, move</button
          ><button
            type="button"
            class="link shrink-0 text-[13px]"
            :aria-label="`Let go of ${each.name}`"
            @click="kept.drop(each.id)"
          >
            Let go
          </button>
        </template>
      </div>
    </div>
  </section>
</template>
