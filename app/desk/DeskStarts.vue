<script setup lang="ts">
import { Dialog, DialogPanel, DialogTitle } from '@headlessui/vue'
import type { StartKind } from '~~/core/document/rules'
import { noStarts, type DeskStarts } from '~~/core/change/defaults/desk-starts'
import type { StartSummary } from '~~/core/change/defaults/start-list'
import type { StartWish } from '~~/core/change/defaults/wishes'
import Choice from '../kit/Choice.vue'
import { sentenceOf } from '../stores/desk'
import { useLibrary } from '../stores/library'
import { useShelf } from '../stores/shelf'
import { useWays } from '../stores/ways'
import StartForm from '../stages/defaults/StartForm.vue'

/** What new documents begin with: on the whole desk, or in the folder that is open. */
const open = defineModel<boolean>({ required: true })
const shelf = useShelf()
const library = useLibrary()
const scope = ref(shelf.folder)
const starts = ref<DeskStarts>(noStarts)
const kind = ref<StartKind | 'page' | null>(null)
const message = ref('')
const said = ref('')
const titles: Record<StartKind, string> = {
  body: 'Body text',
  frame: 'Text frames',
  shape: 'Shape labels',
  title: 'Titles',
  outline1: 'Outlines, level 1',
  outline2: 'Outlines, level 2',
  outline3: 'Outlines, level 3',
  outline4: 'Outlines, level 4',
  outline5: 'Outlines, level 5',
  cell: 'Table cells',
  note: 'Notes',
  header: 'Headers and footers',
}
const kinds = Object.keys(titles) as StartKind[]
const ways = useWays()
const lengthOf = (millimetres: number) => ways.said((millimetres * 72) / 25.4)
const page = ref({
  width: lengthOf(210),
  height: lengthOf(297),
  top: lengthOf(25),
  bottom: lengthOf(25),
  left: lengthOf(25),
  right: lengthOf(25),
})
const first = ref<{ element: HTMLElement | null } | null>(null)

async function load(): Promise<void> {
  await library.load()
  starts.value = await $fetch<DeskStarts>('/api/starts', { query: { folder: scope.value ?? undefined } }).catch(
    () => noStarts,
  )
  const own = starts.value.page
  if (own)
    page.value = {
      width: lengthOf(own.width),
      height: lengthOf(own.height),
      top: lengthOf(own.margins.top),
      bottom: lengthOf(own.margins.bottom),
      left: lengthOf(own.margins.left),
      right: lengthOf(own.margins.right),
    }
  said.value = ''
}
watch(scope, load, { immediate: true })

const summary = (of: StartKind): StartSummary => {
  const values = starts.value.kinds[of]
  const size = /^([\d.]+)pt$/.exec(values?.text?.['fo:font-size'] ?? '')
  return {
    kind: of,
    live: false,
    set: values !== undefined,
    style: null,
    family: values?.fonts?.western?.family ?? '',
    status: 'present',
    face: '',
    size: size ? Number(size[1]) : 10.5,
    leading: values?.paragraph?.['fo:line-height'] ?? 'normal',
    tracking: values?.text?.['fo:letter-spacing'] ?? 'normal',
    color: values?.text?.['fo:color'] ?? '',
    hyphenate: values?.text?.['fo:hyphenate'] === 'true',
    inset: values?.inset === undefined ? '' : `${values.inset}pt`,
    fill: values?.fill ?? '',
  }
}
function told(of: StartKind): string {
  const values = starts.value.kinds[of]
  if (!values) return scope.value === null ? 'as the document is made' : 'as the whole desk'
  return [
    values.fonts?.western?.family,
    values.text?.['fo:font-size']?.replace('pt', ' pt'),
    values.paragraph?.['fo:line-height'] ? `leading ${values.paragraph['fo:line-height'].replace('pt', ' pt')}` : '',
  ]
    .filter(Boolean)
    .join(', ')
}

async function store(next: DeskStarts): Promise<void> {
  message.value = ''
  try {
    starts.value = await $fetch<DeskStarts>('/api/starts', {
      method: 'PUT',
      body: { folder: scope.value, starts: next },
    })
    said.value = 'Kept. New documents begin so; those that are there stay as they are.'
    kind.value = null
  } catch (error) {
    message.value = sentenceOf(error)
  }
}
function keep(wish: StartWish): void {
  void store({ ...starts.value, kinds: { ...starts.value.kinds, [wish.kind]: wish.values } })
}
function letGo(of: StartKind): void {
  const { [of]: _, ...rest } = starts.value.kinds
  void store({ ...starts.value, kinds: rest })
}
function keepPage(): void {
  const read = (text: string) => {
    const length = ways.read(text)
    return length === null ? null : Math.round(((length * 25.4) / 72) * 100) / 100
  }
  const values = Object.fromEntries(Object.entries(page.value).map(([name, text]) => [name, read(text)]))
  const wrong = Object.entries(values).find(([, value]) => value === null)
  if (wrong) {
    message.value = `“${page.value[wrong[0] as keyof typeof page.value]}” is no length. Write for instance 25 mm, 2.5 cm or 1 in.`
    return
  }
  const { width, height, top, bottom, left, right } = values as Record<string, number>
  void store({
    ...starts.value,
    page: { width: width!, height: height!, margins: { top: top!, bottom: bottom!, left: left!, right: right! } },
  })
}
</script>

<template>
  <Dialog :open="open" class="relative z-50" :initial-focus="first?.element" @close="open = false">
    <div class="fixed inset-0 bg-ink/25" aria-hidden="true" />
    <div class="fixed inset-0 flex items-start overflow-y-auto p-8">
      <DialogPanel class="w-[640px] border border-ink bg-paper p-6">
        <DialogTitle as="h2">What new documents begin with</DialogTitle>
        <label class="mt-3 block text-soft"
          >For
          <Choice ref="first" v-model="scope" aria-label="For" class="mt-[2px] flex w-full text-ink">
            <option :value="null">the whole desk</option>
            <option v-for="folder in shelf.folders" :key="folder.id" :value="folder.id">
              the folder {{ folder.name }}
            </option>
          </Choice>
        </label>
        <p v-if="message" role="alert" class="mt-3 text-rubric">{{ message }}</p>
        <p v-if="said" role="status" class="mt-3">{{ said }}</p>
        <table class="mt-3 table-fixed">
          <colgroup>
            <col class="w-[160px]" />
            <col />
            <col class="w-[110px]" />
          </colgroup>
          <tbody>
            <template v-for="each in kinds" :key="each">
              <tr :class="{ 'bg-wash': kind === each }">
                <td>{{ titles[each] }}</td>
                <td class="truncate" :class="{ 'text-soft': !starts.kinds[each] }">{{ told(each) }}</td>
                <td>
                  <button
                    type="button"
                    class="link"
                    :aria-label="`Set ${titles[each]}`"
                    :aria-expanded="kind === each"
                    @click="kind = kind === each ? null : each"
                  >
                    Set</button
                  ><button
                    v-if="starts.kinds[each]"
                    type="button"
                    class="link ml-3"
                    :aria-label="`Let go of ${titles[each]}`"
                    @click="letGo(each)"
                  >
                    Let go
                  </button>
                </td>
              </tr>
              <tr v-if="kind === each">
                <td colspan="3" class="!py-2"><StartForm :start="summary(each)" label="Keep it" @plan="keep" /></td>
              </tr>
            </template>
            <tr :class="{ 'bg-wash': kind === 'page' }">
              <td>Page and margins</td>
              <td class="truncate" :class="{ 'text-soft': !starts.page }">
                {{
                  starts.page
                    ? `${lengthOf(starts.page.width)} × ${lengthOf(starts.page.height)}`
                    : `A4, ${lengthOf(25)}`
                }}
              </td>
              <td>
                <button
                  type="button"
                  class="link"
                  aria-label="Set page and margins"
                  :aria-expanded="kind === 'page'"
                  @click="kind = kind === 'page' ? null : 'page'"
                >
                  Set
                </button>
              </td>
            </tr>
            <tr v-if="kind === 'page'">
              <td colspan="3" class="!py-2">
                <form class="grid grid-cols-3 gap-3" @submit.prevent="keepPage">
                  <label v-for="(_, name) in page" :key="name" class="text-[13px] text-soft"
                    >{{ name === 'width' ? 'Width' : name === 'height' ? 'Height' : `Margin ${name}`
                    }}<input v-model="page[name]" class="field mt-[2px] w-full text-ink"
                  /></label>
                  <button type="submit" class="act justify-self-start">Keep it</button>
                </form>
              </td>
            </tr>
          </tbody>
        </table>
        <button type="button" class="plain mt-5" @click="open = false">Close</button>
      </DialogPanel>
    </div>
  </Dialog>
</template>
