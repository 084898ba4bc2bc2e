<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import type { PageBox } from '~~/core/format/finished/page-view'
import type { ShownLine } from '~~/core/format/finished/reader'
import type { DocumentInfo } from '~~/shared/api'
import DeskFrame from '../desk/DeskFrame.vue'
import FindField from '../desk/FindField.vue'
import HistoryButtons from '../desk/HistoryButtons.vue'
import RunningHead from '../desk/RunningHead.vue'
import ThumbIndex from '../desk/ThumbIndex.vue'
import WhoIsHere from '../desk/WhoIsHere.vue'
import { isTyping } from '../desk/typing'
import { useFinished } from '../stores/finished'
import { useMe } from '../stores/me'
import { useFinishedEdits } from '../stores/finished-edits'
import FinishedSheets from './FinishedSheets.vue'
import { finishedStages } from './stages'

/** The desk of a finished PDF: its pages as they are, and what can be told of them and done to them. */
const props = defineProps<{ info: DocumentInfo }>()
const route = useRoute()
const router = useRouter()
const finished = useFinished()
const me = useMe()
const edits = useFinishedEdits()
const title = computed(() => props.info.document.fileName.replace(/\.pdf$/i, ''))
const id = computed(() =>
  finishedStages.some(stage => stage.id === route.query.stage) ? String(route.query.stage) : 'census',
)
const stage = computed(() => finishedStages.find(each => each.id === id.value)!)
const find = ref<InstanceType<typeof FindField> | null>(null)
const sheets = ref<InstanceType<typeof FinishedSheets> | null>(null)
const found = computed(() =>
  finished.marked?.of === 'words'
    ? {
        text: finished.marked.text,
        matchCase: finished.marked.matchCase,
        at: finished.at,
        count: finished.places.length,
      }
    : null,
)
/** What a file may need to be told of before anything is done to it. */
const notices = computed(() => [
  ...(finished.census?.document.signed
    ? ['It is signed: a change leaves the signed bytes as they are, and readers say that something was added since.']
    : []),
])

function go(to: string): void {
  void router.replace({ query: { ...route.query, stage: to } })
}
function place(page: number, box: PageBox): void {
  edits.frame = { page, ...box }
}
function pickLine(page: number, line: ShownLine): void {
  edits.pick(page, line)
}

function key(event: KeyboardEvent): void {
  const act = (action: () => unknown) => {
    event.preventDefault()
    void action()
  }
  const typing = isTyping(event.target)
  if (event.ctrlKey || event.metaKey) {
    if (event.key === 'f') act(() => find.value?.focus())
    else if (!typing && event.key === 'z' && !event.shiftKey) act(() => finished.step('undo'))
    else if (!typing && (event.key === 'y' || (event.key.toLowerCase() === 'z' && event.shiftKey)))
      act(() => finished.step('redo'))
    else if (event.key === '+' || event.key === '=') act(() => sheets.value?.zoomAt(1.25))
    else if (event.key === '-') act(() => sheets.value?.zoomAt(0.8))
    else if (event.key === '0') act(() => sheets.value?.fit())
    return
  }
  if (typing || event.altKey) return
  if (event.key === 'n') finished.walk(event.shiftKey ? -1 : 1)
  else if (event.key === 'N') finished.walk(-1)
  else if (event.key === 'Escape') edits.leave()
}
useEventListener('keydown', key)
watch(id, () => {
  edits.leave()
  finished.done = ''
})
onMounted(() => void finished.open(props.info))
onBeforeUnmount(() => {
  edits.leave()
  finished.close()
})
useHead({ title: () => `${title.value}, Morphene` })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead :title="title">
      <template v-if="finished.info && finished.state === 'open'">
        <WhoIsHere v-if="me.isShared" :document="finished.info.document.id" />
        <FindField
          ref="find"
          :found="found"
          @look="(text, matchCase) => finished.find(text, matchCase)"
          @walk="finished.walk"
          @clear="finished.choose(null)"
        />
        <HistoryButtons :history="finished.info.history" @step="finished.step" />
      </template>
    </RunningHead>
    <main v-if="finished.state === 'failed'" class="p-10">
      <h1>This PDF could not be opened</h1>
      <p class="mt-2 text-rubric" role="alert">{{ finished.failure }}</p>
      <NuxtLink to="/" class="link mt-3 inline-block">Back to the shelf</NuxtLink>
    </main>
    <main v-else-if="finished.state === 'opening'" class="p-10 text-soft">
      <p role="status">Reading the PDF …</p>
    </main>
    <DeskFrame v-else left-name="pages">
      <template #left>
        <p v-if="finished.failure" role="alert" class="border-b border-rubric bg-sheet px-5 py-2 text-rubric">
          {{ finished.failure }}
        </p>
        <p v-for="notice in notices" :key="notice" role="status" class="border-b border-rule px-5 py-1.5 text-[13px]">
          <span aria-hidden="true" class="text-ochre">▲ </span>{{ notice }}
        </p>
        <FinishedSheets
          ref="sheets"
          :picks="stage.picks"
          :frame="id === 'add' && !finished.trial ? edits.frame : null"
          :picked="id === 'right' ? edits.picked : null"
          @place="place"
          @line="pickLine"
        />
      </template>
      <template #between><ThumbIndex :tabs="finishedStages" :open="id" controls="tray" @open="go" /></template>
      <template #right>
        <div
          id="tray"
          role="tabpanel"
          :aria-labelledby="`tab-${id}`"
          class="min-h-0 flex-1 overflow-y-auto px-[22px] pt-4 pb-8"
          tabindex="-1"
        >
          <component :is="stage.tray" :key="id" />
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
