<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import type { PlacedRemark } from '~~/core/desk/remark-places'
import type { Annotation } from '~~/core/remarks/annotations'
import type { TextPlace } from '~~/core/remarks/remark'
import type { Remark } from '~~/shared/remarks'
import RemarkForm from '../../remarks/RemarkForm.vue'
import RemarkList from '../../remarks/RemarkList.vue'
import NoticeLine from '../../kit/NoticeLine.vue'
import Term from '../../kit/Term.vue'
import { counted, dayWords } from '../../desk/words'
import { useDesk } from '../../stores/desk'
import { useMe } from '../../stores/me'
import { useProof } from '../../stores/proof'
import { useRemarks } from '../../stores/remarks'
import { useWords } from '../../stores/words'

/** What people say of the document: written at what is selected, walked, answered, settled; and what came in the file. */
const desk = useDesk()
const me = useMe()
const proof = useProof()
const words = useWords()
const remarks = useRemarks()
const placed = shallowRef<ReadonlyMap<string, PlacedRemark>>(new Map())
const annotations = shallowRef<readonly (Annotation & { readonly at: PlacedRemark })[]>([])
const selected = shallowRef<TextPlace | null>(null)
const walked = shallowRef<readonly Remark[]>([])
const heading = ref<HTMLElement | null>(null)
const done = ref('')
const current = computed(() => walked.value[desk.at]?.id ?? null)
const id = computed(() => desk.info?.document.id ?? '')

/** So much is written into a file at one place: characters (editSchema). */
const longest = 4_000
/** How often is looked for what others say meanwhile. Milliseconds. */
const every = 15_000
const load = () => (id.value === '' ? Promise.resolve() : remarks.load(id.value))
useIntervalFn(() => void load(), every)
onMounted(() => {
  heading.value?.focus()
  void load()
})
onBeforeUnmount(() => desk.walkThrough([]))

/** Where everything is in the document as it stands; what was walked to stays walked to. */
async function place(): Promise<void> {
  const { engine } = desk
  if (!engine || desk.state !== 'open') return
  const { list } = remarks
  const inFile = await engine.ask('annotations', {})
  const places = [...list, ...inFile].map(each => each.place)
  const found = await engine.ask('remarkPlaces', { places: JSON.parse(JSON.stringify(places)) as typeof places })
  placed.value = new Map(list.map((each, at) => [each.id, found[at]!]))
  annotations.value = inFile.map((each, at) => ({ ...each, at: found[list.length + at]! }))
  const before = current.value
  walked.value = list.filter(each => each.settled === null && placed.value.get(each.id)?.occurrence)
  desk.walkThrough(walked.value.map(each => placed.value.get(each.id)!.occurrence!))
  desk.at = walked.value.findIndex(each => each.id === before)
}
watch(() => [remarks.list, desk.state, desk.census] as const, place, { immediate: true })

// What is selected, or the paragraph with the caret, is what the next remark is about.
watch(
  () => [words.ranges, words.spot] as const,
  async ([ranges, spot]) => {
    const [range] = ranges
    const stretch = range ?? (spot ? { part: spot.part, node: spot.node, from: spot.offset, to: spot.offset } : null)
    selected.value =
      stretch && desk.engine
        ? await desk.engine.ask('quote', {
            range: { part: stretch.part, node: stretch.node, from: stretch.from, to: stretch.to },
          })
        : null
  },
  { immediate: true },
)

function go(remark: Remark): void {
  const at = walked.value.indexOf(remark)
  if (at >= 0) {
    desk.at = at
    return
  }
  show(placed.value.get(remark.id) ?? null, [remark])
}
/** Goes to a place that is not among those that are walked through. */
function show(place: PlacedRemark | null, of: readonly Remark[] = []): void {
  if (place?.occurrence) {
    walked.value = of
    desk.walkThrough([place.occurrence])
  } else if (place && place.page >= 0) desk.page = place.page
}
/** Writes a remark into the file, for whoever opens it elsewhere; here it is settled by that. */
async function write(remark: Remark): Promise<void> {
  const occurrence = placed.value.get(remark.id)?.occurrence
  if (!occurrence) return
  const said = [remark, ...remark.answers]
  const text = said
    .map(each => (said.length > 1 && me.isShared ? `${me.nameOf(each.author)}: ${each.text}` : each.text))
    .join('\n')
  done.value = ''
  if (text.length > longest) {
    remarks.message =
      'This remark and its answers are longer than one that is written into a file. Nothing was written.'
    return
  }
  const isWritten = await words.edit(
    [
      {
        type: 'add-annotation',
        part: occurrence.part,
        node: occurrence.node,
        at: occurrence.start,
        author: me.nameOf(remark.author),
        date: new Date(remark.created).toISOString(),
        text,
      },
    ],
    () => null,
  )
  if (!isWritten) {
    remarks.message = words.message
    return
  }
  await words.flush()
  if (await remarks.act(remark.id, { act: 'settle' })) done.value = 'Written into the file, and settled here'
}
</script>

<template>
  <div>
    <h1 ref="heading" tabindex="-1">{{ counted(remarks.open.length, 'open remark') }}</h1>
    <p class="text-soft">
      A <Term word="remark">remark</Term> is kept beside the document and changes nothing in it. N goes to the next one.
    </p>
    <p class="mt-1">
      <button type="button" class="link" @click="proof.panel = 'findings'">Back to the findings</button>
    </p>
    <NoticeLine v-if="done" kind="done">{{ done }}.</NoticeLine>
    <NoticeLine v-if="remarks.message" kind="failed">{{ remarks.message }}</NoticeLine>
    <RemarkForm
      v-if="me.may('remark')"
      :version="desk.info?.document.version ?? 1"
      :place="selected"
      hint="Select words on the sheets to say something of them."
    />
    <RemarkList
      :placed="placed"
      :current="current"
      :writes="me.may('change')"
      :changes="me.may('change')"
      @go="go"
      @write="write"
    />
    <template v-if="annotations.length > 0">
      <h2 class="mt-4">{{ counted(annotations.length, 'remark') }} in the file</h2>
      <ul class="mt-1 border-t border-rule" aria-label="Remarks in the file">
        <li v-for="(each, at) in annotations" :key="at" class="border-b border-rule py-2">
          <p class="text-[13px] text-soft">
            {{ [each.author || 'somebody', each.date === '' ? '' : dayWords(each.date)].filter(Boolean).join(', ')
            }}{{ each.at.page < 0 ? '' : `, page ${each.at.page + 1}` }}
          </p>
          <p class="whitespace-pre-line">{{ each.text }}</p>
          <button v-if="each.place && each.at.page >= 0" type="button" class="link py-0.5" @click="show(each.at)">
            <span class="sr-only">{{ each.text.slice(0, 40) }}: </span>Go there
          </button>
        </li>
      </ul>
    </template>
  </div>
</template>
