<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import type { DocumentInfo } from '~~/shared/api'
import { counted } from './words'
import DeskFind from './DeskFind.vue'
import DeskFrame from './DeskFrame.vue'
import FolioLine from './FolioLine.vue'
import HistoryButtons from './HistoryButtons.vue'
import RunningHead from './RunningHead.vue'
import SheetsView from './SheetsView.vue'
import ThumbIndex from './ThumbIndex.vue'
import WhoIsHere from './WhoIsHere.vue'
import { stages as tabs, useStages } from './stages'
import PlanWalk from '../change/PlanWalk.vue'
import { resetChanges } from '../change/use-change'
import PasteQuestion from './PasteQuestion.vue'
import { isTyping } from './typing'
import { useDesk } from '../stores/desk'
import { useMe } from '../stores/me'
import { useProof } from '../stores/proof'
import { useRemarks } from '../stores/remarks'
import { useSwap } from '../stores/swap'
import { useWords } from '../stores/words'

/** The desk of a document that is set here: its sheets, the thumb index, and the tray of the stage that is open. */
const props = defineProps<{
  id: string
  /** What its page has fetched of it. */
  info: DocumentInfo
}>()
const route = useRoute()
const desk = useDesk()
const me = useMe()
const swap = useSwap()
const words = useWords()
const proof = useProof()
const remarks = useRemarks()
const stages = useStages()
const find = ref<InstanceType<typeof DeskFind> | null>(null)
const sheets = ref<InstanceType<typeof SheetsView> | null>(null)
const title = computed(() => desk.info?.document.fileName.replace(/\.od[tpg]$/i, '') ?? '')
/** Whose plan is walked page by page in place of the sheets. */
const walked = computed(() => stages.open.walks?.() ?? null)
/** What a stage puts in place of the sheets. */
const aside = computed(() => stages.open.aside?.() ?? null)
watch(
  () => route.query.stage,
  asked => {
    if (typeof asked === 'string') stages.go(asked)
  },
)
// Other stages speak of what is stored: what was typed a moment ago goes there first.
watch(
  () => stages.id,
  () => {
    void words.flush()
  },
)

/** Families that text is set in and the library lacks: said in one calm line. */
const absentFamilies = computed(() => [
  ...new Set((desk.census?.faces ?? []).filter(face => face.status === 'absent').map(face => face.family)),
])
const silenced = ref(false)

async function toRemarks(): Promise<void> {
  stages.go('proof')
  await nextTick()
  proof.panel = 'remarks'
}

/** Text that was clicked goes into the swap with its face. */
function swapPointed(): void {
  const face = desk.census?.faces.find(each => each.key === desk.pointed?.face)
  if (!face) return
  swap.begin(face.family)
  stages.go('swap')
}

/** Keys act on the sheets only while no field is being typed in. */
function key(event: KeyboardEvent): void {
  const target = event.target as HTMLElement
  const act = (action: () => unknown) => {
    event.preventDefault()
    void action()
  }
  if (event.altKey) {
    if (!event.ctrlKey && !event.metaKey && tabs.some(stage => stage.altKey?.(event))) event.preventDefault()
    return
  }
  if (event.ctrlKey || event.metaKey) {
    const typing = /^(INPUT|SELECT)$/.test(target.tagName)
    if (event.key === 'f') act(() => find.value?.focus())
    else if (!typing && event.key === 'z' && !event.shiftKey) act(() => words.step('undo'))
    else if (!typing && (event.key === 'y' || (event.key.toLowerCase() === 'z' && event.shiftKey)))
      act(() => words.step('redo'))
    else if (event.key === '+' || event.key === '=') act(() => sheets.value?.zoomAt(1.25))
    else if (event.key === '-') act(() => sheets.value?.zoomAt(0.8))
    else if (event.key === '0') act(() => sheets.value?.fit())
    return
  }
  if (isTyping(target)) return
  if (event.key === 'm') desk.marks = !desk.marks
  else if (event.key === 'n') desk.walk(event.shiftKey ? -1 : 1)
  else if (event.key === 'N') desk.walk(-1)
  else if (event.key === 'w') desk.whiteSpace = !desk.whiteSpace
  else if (event.key === 'g') desk.grid = !desk.grid
  else if (event.key === 'Escape') void desk.choose('face', null)
}
useEventListener('keydown', key)
// What was typed a moment ago is on its way to the server.
useEventListener('beforeunload', event => {
  if (!words.unsaved) return
  void words.flush()
  event.preventDefault()
})

onMounted(() => {
  resetChanges()
  words.clear()
  stages.begin(route.query.stage)
  void desk.open(props.id, props.info)
  void remarks.load(props.id)
})
onBeforeUnmount(() => {
  const leaving = desk.engine
  stages.open.leave?.()
  void words.flush().finally(() => {
    if (desk.engine === leaving) desk.close()
  })
})
useHead({ title: () => (title.value ? `${title.value}, Morphene` : 'Morphene') })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead :title="title">
      <template v-if="desk.info">
        <span v-if="words.unsaved" class="shrink-0 text-[13px] text-soft" role="status">{{
          words.saving ? 'Storing …' : 'Typing …'
        }}</span>
        <WhoIsHere v-if="me.isShared" :document="id" />
        <button
          v-if="remarks.open.length > 0 && !(stages.id === 'proof' && proof.panel === 'remarks')"
          type="button"
          class="link shrink-0 text-[13px]"
          @click="toRemarks"
        >
          {{ counted(remarks.open.length, 'open remark') }}
        </button>
        <DeskFind ref="find" />
        <HistoryButtons :history="desk.info.history" :unsaved="words.unsaved" @step="words.step" />
      </template>
    </RunningHead>
    <PasteQuestion />
    <main v-if="desk.state === 'failed'" class="p-10">
      <h1>This document could not be opened</h1>
      <p class="mt-2 text-rubric" role="alert">{{ desk.failure }}</p>
      <NuxtLink to="/" class="link mt-3 inline-block">Back to the shelf</NuxtLink>
    </main>
    <main v-else-if="desk.state === 'opening' || !desk.info" class="p-10 text-soft">
      <p role="status">Reading the document and setting its pages …</p>
    </main>
    <DeskFrame v-else>
      <template #left>
        <p v-if="desk.failure" role="alert" class="border-b border-rubric bg-sheet px-5 py-2 text-rubric">
          {{ desk.failure }}
        </p>
        <p
          v-if="absentFamilies.length > 0 && !silenced && stages.id === 'census'"
          class="flex items-baseline gap-3 border-b border-rule bg-paper px-5 py-1.5 text-[13px]"
          role="status"
        >
          <span class="min-w-0 flex-1"
            ><span aria-hidden="true" class="text-iris">◇ </span
            >{{
              absentFamilies.length === 1
                ? `${absentFamilies[0]} is absent`
                : `${counted(absentFamilies.length, 'face')} are absent: ${absentFamilies.join(', ')}`
            }}. Others stand in; the file is as it was.</span
          >
          <button type="button" class="link shrink-0" @click="stages.go('absent')">See what can be done</button
          ><button type="button" class="text-soft" aria-label="Not now" @click="silenced = true">×</button>
        </p>
        <PlanWalk v-if="walked" :id="walked" :key="walked" />
        <component :is="aside" v-else-if="aside" />
        <template v-else>
          <SheetsView ref="sheets" />
          <FolioLine
            @go="sheets?.goTo($event)"
            @fit="sheets?.fit()"
            @swap="swapPointed"
            @zoom="sheets?.zoomAt($event)"
          />
        </template>
      </template>
      <template #between
        ><ThumbIndex :tabs="tabs" :open="stages.id" controls="tray" @open="stages.go($event)"
      /></template>
      <template #right>
        <p v-if="desk.state === 'setting'" role="status" class="h-full px-[22px] pt-5 text-soft">
          The first page is here; setting and counting the others …
        </p>
        <div
          v-else
          id="tray"
          role="tabpanel"
          :aria-labelledby="`tab-${stages.id}`"
          class="min-h-0 flex-1"
          :class="stages.open.ownScroll ? 'overflow-hidden' : 'overflow-y-auto'"
          tabindex="-1"
        >
          <component :is="stages.open.tray" :key="stages.id" />
        </div>
      </template>
    </DeskFrame>
  </div>
</template>
