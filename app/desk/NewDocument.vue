<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import { pageSizes } from '~~/core/format/odf/page-sizes'
import { mergedStarts, noStarts, type DeskStarts } from '~~/core/change/defaults/desk-starts'
import type { ShelfCard } from '~~/shared/api'
import Choice from '../kit/Choice.vue'
import ShelfPicker from '../kit/ShelfPicker.vue'
import { sentenceOf } from '../stores/desk'
import { useShelf } from '../stores/shelf'
import { useWays } from '../stores/ways'

/** A new document: from a page size with margins, or from one that lies on the shelf. */
const open = defineModel<boolean>({ required: true })
const shelf = useShelf()
const title = ref('')
const from = ref<'page' | 'template'>('page')
const kind = ref<'text' | 'presentation' | 'drawing'>('text')
const size = ref('A4')
const across = ref(false)
const ways = useWays()
const said = (millimetres: number) => ways.said((millimetres * 72) / 25.4)
const own = ref({ width: said(210), height: said(297) })
const margins = ref({ top: said(25), bottom: said(25), left: said(25), right: said(25) })
const pages = ref(1)
const template = shallowRef<ShelfCard | null>(null)
const message = ref('')
const making = ref(false)
const field = ref<HTMLInputElement | null>(null)

const kinds = [
  { id: 'text', title: 'Text' },
  { id: 'presentation', title: 'Presentation' },
  { id: 'drawing', title: 'Drawing' },
] as const
watch(kind, next => {
  if (next === 'presentation') {
    size.value = 'Screen 16 to 9'
    for (const side of ['top', 'bottom', 'left', 'right'] as const) margins.value[side] = said(12)
  }
})

// A new document begins with the page of its folder or of the desk.
watch(open, async now => {
  if (!now) return
  const [desk, folder] = await Promise.all(
    [null, shelf.folder].map(each =>
      $fetch<DeskStarts>('/api/starts', { query: { folder: each ?? undefined } }).catch(() => noStarts),
    ),
  )
  const { page } = mergedStarts(desk!, shelf.folder === null ? null : folder!)
  if (!page) return
  const known = pageSizes.find(
    each => Math.abs(each.width - page.width) < 0.1 && Math.abs(each.height - page.height) < 0.1,
  )
  size.value = known?.name ?? ''
  own.value = { width: said(page.width), height: said(page.height) }
  margins.value = Object.fromEntries(
    Object.entries(page.margins).map(([side, value]) => [side, said(value)]),
  ) as typeof margins.value
})

const millimetres = (text: string): number => {
  const length = ways.read(text)
  if (length === null)
    throw new RangeError(`“${text}” is no length. Write for instance 25 mm, 2.5 cm or 1 in. Nothing was made.`)
  return (length * 25.4) / 72
}

async function make(): Promise<void> {
  making.value = true
  message.value = ''
  try {
    const known = pageSizes.find(each => each.name === size.value)
    const [a, b] = known ? [known.width, known.height] : [millimetres(own.value.width), millimetres(own.value.height)]
    const page = known && across.value ? { width: b, height: a } : { width: a, height: b }
    const body =
      from.value === 'template'
        ? { template: template.value!.id, title: title.value, folder: shelf.folder }
        : {
            folder: shelf.folder,
            kind: kind.value,
            title: title.value,
            page,
            margins: Object.fromEntries(Object.entries(margins.value).map(([side, text]) => [side, millimetres(text)])),
            pages: kind.value === 'text' ? 1 : pages.value,
          }
    const { id } = await $fetch<{ id: string }>('/api/documents/new', { method: 'POST', body })
    open.value = false
    await navigateTo(`/documents/${id}?stage=pages`)
  } catch (error) {
    message.value = sentenceOf(error)
  }
  making.value = false
}
</script>

<template>
  <Dialog :open="open" class="relative z-50" :initial-focus="field" @close="open = false">
    <div class="fixed inset-0 bg-ink/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start overflow-y-auto p-8">
      <DialogPanel class="w-[620px] border border-ink bg-paper p-6">
        <form @submit.prevent="make">
          <DialogTitle as="h2">New document{{ shelf.openFolder ? ` in ${shelf.openFolder.name}` : '' }}</DialogTitle>
          <label class="mt-3 block text-soft"
            >Title<input ref="field" v-model="title" class="field mt-[2px] block w-full text-ink" maxlength="300"
          /></label>
          <div class="mt-3 flex gap-5" role="radiogroup" aria-label="Begin from">
            <label class="flex items-center gap-2"
              ><input v-model="from" type="radio" value="page" />From a page size</label
            >
            <label class="flex items-center gap-2"
              ><input v-model="from" type="radio" value="template" />From a template or document on the shelf</label
            >
          </div>
          <ShelfPicker v-if="from === 'template'" v-model="template" label="Begin with" class="mt-3" />
          <template v-else>
            <div class="mt-3 grid grid-cols-3 gap-3">
              <label class="text-[13px] text-soft"
                >Kind<Choice v-model="kind" class="mt-[2px] flex w-full text-ink">
                  <option v-for="each in kinds" :key="each.id" :value="each.id">{{ each.title }}</option>
                </Choice></label
              >
              <label class="text-[13px] text-soft"
                >Page<Choice v-model="size" class="mt-[2px] flex w-full text-ink">
                  <option v-for="each in pageSizes" :key="each.name" :value="each.name">
                    {{ each.name }}, {{ said(each.width) }} × {{ said(each.height) }}
                  </option>
                  <option value="">a size of its own</option>
                </Choice></label
              >
              <label v-if="size !== ''" class="flex items-center gap-2 self-end pb-[6px]"
                ><input v-model="across" type="checkbox" />Turned on its side</label
              >
              <template v-else>
                <label class="text-[13px] text-soft"
                  >Width<input v-model="own.width" class="field mt-[2px] block w-full text-ink"
                /></label>
                <label class="text-[13px] text-soft"
                  >Height<input v-model="own.height" class="field mt-[2px] block w-full text-ink"
                /></label>
              </template>
              <label v-if="kind !== 'text'" class="text-[13px] text-soft"
                >Pages<input
                  v-model.number="pages"
                  type="number"
                  min="1"
                  max="200"
                  class="field mt-[2px] block w-full text-ink"
              /></label>
            </div>
            <div class="mt-3 grid grid-cols-4 gap-3">
              <label
                v-for="side in ['top', 'bottom', 'left', 'right'] as const"
                :key="side"
                class="text-[13px] text-soft"
                >Margin {{ side
                }}<input v-model="margins[side]" class="field mt-[2px] block w-full text-ink tabular-nums"
              /></label>
            </div>
          </template>
          <p v-if="message" role="alert" class="mt-3 text-rubric">{{ message }}</p>
          <div class="mt-5 flex gap-3">
            <button type="submit" class="act" :disabled="making || (from === 'template' && template === null)">
              Make it</button
            ><button type="button" class="link" @click="open = false">Leave it</button>
          </div>
        </form>
      </DialogPanel>
    </div>
  </Dialog>
</template>
