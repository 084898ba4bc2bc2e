<script setup lang="ts">
import type { SetPiece } from '~~/core/style/set-piece'
import type { Kept } from '~~/shared/kept'
import { useLinkedHouse } from '../../house/use-linked-house'
import { sentenceOf, useDesk } from '../../stores/desk'
import { useStyles } from '../../stores/styles'
import { useWays } from '../../stores/ways'
import { useWords } from '../../stores/words'
import Term from '../../kit/Term.vue'

/** Kept frames: frames kept with their columns, insets and styles, to be put into any document. */
const desk = useDesk()
const styles = useStyles()
const words = useWords()
const ways = useWays()
const pieces = ref<readonly Kept<'frame'>[]>([])
const heading = ref('Boxes')
const name = ref('')
const message = ref('')
const { house, load: loadHouse } = useLinkedHouse()
/** A frame that can be put in: of the desk with its id, by which it is removed; of the house without. */
interface Offered {
  readonly key: string
  readonly id: string | null
  readonly name: string
  readonly piece: SetPiece
}
const groups = computed((): { readonly title: string; readonly frames: readonly Offered[] }[] => [
  ...(house.value && house.value.frames.length > 0
    ? [
        {
          title: `Of the house ${house.value.name}`,
          frames: house.value.frames.map(({ name, piece }) => ({ key: `house ${name}`, id: null, name, piece })),
        },
      ]
    : []),
  ...headings.value.map(title => ({
    title,
    frames: pieces.value
      .filter(each => each.heading === title)
      .map(({ id, name, data }) => ({ key: id, id, name, piece: data })),
  })),
])
const headings = computed(() => [...new Set(pieces.value.map(piece => piece.heading))])

async function load(): Promise<void> {
  pieces.value = await $fetch<Kept<'frame'>[]>('/api/kept/frame').catch(() => [])
}
onMounted(() => Promise.all([load(), loadHouse().catch(() => null)]))

async function guarded(action: () => Promise<unknown>): Promise<void> {
  message.value = ''
  try {
    await action()
  } catch (error) {
    message.value = sentenceOf(error)
  }
  await load()
}
const keep = () =>
  guarded(async () => {
    const piece = await desk.engine!.ask('takePiece', { ...words.frame! })
    await $fetch('/api/kept/frame', {
      method: 'POST',
      body: { heading: heading.value.trim(), name: name.value.trim(), data: piece },
    })
    name.value = ''
  })
const remove = (id: string) => guarded(() => $fetch(`/api/kept/frame/${id}`, { method: 'DELETE' }))
const put = (piece: SetPiece, withText: boolean) =>
  guarded(async () => {
    const holder = await desk.engine!.ask('holder', { view: desk.view, page: desk.page })
    const sheet = desk.shown[desk.page]
    if (!holder || !sheet)
      throw new Error('There is nothing on this page that a kept frame could be put on. Nothing was changed.')
    const at = {
      x: Math.max((sheet.width - piece.width) / 2, 0),
      y: Math.max((sheet.height - piece.height) / 3, 0),
    }
    if (!(await styles.carryOut([{ type: 'piece', ...holder, ...at, withText, piece }])))
      throw new Error(styles.message)
  })
</script>

<template>
  <section class="mt-7" aria-labelledby="kept-frames">
    <h2 id="kept-frames"><Term word="keptFrame">Kept frames</Term></h2>
    <p v-if="message" role="alert" class="text-rubric">{{ message }}</p>
    <p v-if="groups.length === 0 && !words.frame" class="text-soft">
      None are kept yet. Choose a text frame on the sheets to keep it with its columns, insets and styles.
    </p>
    <template v-for="group in groups" :key="group.title">
      <h3 class="mt-2 font-medium">{{ group.title }}</h3>
      <p
        v-for="{ key, id, name: called, piece } in group.frames"
        :key="key"
        class="flex items-baseline gap-3 border-b border-rule py-1"
      >
        <span class="flex-1 truncate"
          >{{ called }}
          <span class="text-[13px] text-soft">{{ ways.said(piece.width) }} × {{ ways.said(piece.height) }}</span></span
        >
        <button
          type="button"
          class="link"
          :aria-label="`Put ${id === null ? 'the house’s ' : ''}${called} in with its text`"
          @click="put(piece, true)"
        >
          Put in
        </button>
        <button
          type="button"
          class="link"
          :aria-label="`Put ${id === null ? 'the house’s ' : ''}${called} in without text`"
          @click="put(piece, false)"
        >
          without text
        </button>
        <button
          v-if="id !== null"
          type="button"
          class="text-soft hover:text-ink"
          :aria-label="`Remove ${called}`"
          @click="remove(id)"
        >
          Remove
        </button>
      </p>
    </template>
    <form v-if="words.frame" class="mt-2 flex flex-wrap items-end gap-2" @submit.prevent="keep">
      <label class="text-[13px] text-soft"
        >Keep the chosen frame as<input
          v-model="name"
          class="field mt-[2px] block w-[180px] text-ink"
          maxlength="200"
          placeholder="its name"
      /></label>
      <label class="text-[13px] text-soft"
        >under<input v-model="heading" class="field mt-[2px] block w-[140px] text-ink" maxlength="120"
      /></label>
      <button type="submit" class="plain" :disabled="name.trim() === '' || heading.trim() === ''">Keep it</button>
    </form>
  </section>
</template>
