<script setup lang="ts">
import type { Wish } from '~~/core/change/registry'
import { useDesk } from '../../stores/desk'
import { openWish, useSwap } from '../../stores/swap'
import { useAbsent } from '../../stores/absent'
import { useRecast } from '../../stores/recast'
import { counted } from '../../desk/words'
import FolioLine from '../../desk/FolioLine.vue'
import RunningHead from '../../desk/RunningHead.vue'
import SheetsView from '../../desk/SheetsView.vue'
import ThumbIndex from '../../desk/ThumbIndex.vue'
import AbsentTray from '../../stages/absent/AbsentTray.vue'
import RecastTray from '../../stages/recast/RecastTray.vue'
import CensusTray from '../../stages/census/CensusTray.vue'
import HandoffTray from '../../stages/handoff/HandoffTray.vue'
import PlanWalk from '../../change/PlanWalk.vue'
import { resetChanges, useChange, type ChangeId } from '../../change/use-change'
import PagesTray from '../../stages/pages/PagesTray.vue'
import StartsTray from '../../stages/starts/StartsTray.vue'
import StylesTray from '../../stages/styles/StylesTray.vue'
import SwapTray from '../../stages/swap/SwapTray.vue'
import PasteQuestion from '../../desk/PasteQuestion.vue'
import { usePasting } from '../../stores/pasting'
import { useStyles } from '../../stores/styles'
import { useWords } from '../../stores/words'

const route = useRoute()
const desk = useDesk()
const swap = useSwap()
const words = useWords()
const pasting = usePasting()
const styles = useStyles()
const absent = useAbsent()
const recast = useRecast()
const head = ref<InstanceType<typeof RunningHead> | null>(null)
const stylesTray = ref<InstanceType<typeof StylesTray> | null>(null)
const sheets = ref<InstanceType<typeof SheetsView> | null>(null)
const tabs = [
  { id: 'census', title: 'Census' },
  { id: 'absent', title: 'Absent' },
  { id: 'styles', title: 'Styles' },
  { id: 'pages', title: 'Pages' },
  { id: 'swap', title: 'Swap' },
  { id: 'recast', title: 'Recast' },
  { id: 'starts', title: 'Starts' },
  { id: 'handoff', title: 'Handoff' },
] as const
/** The open stage: at once, with the address following, so that quick keys are not lost on the way. */
const stage = ref<(typeof tabs)[number]['id']>(tabs.find(tab => tab.id === route.query.stage)?.id ?? 'census')
watch(
  () => route.query.stage,
  asked => {
    stage.value = tabs.find(tab => tab.id === asked)?.id ?? 'census'
  },
)
const router = useRouter()
const title = computed(() => desk.info?.document.fileName.replace(/\.od[tpg]$/i, '') ?? '')

function go(id: string): void {
  stage.value = tabs.find(tab => tab.id === id)?.id ?? 'census'
  void router.replace({ query: { ...route.query, stage: id } })
  // What led here may be gone, and the keyboard with it: it goes on in the tray.
  void nextTick(() => {
    if (document.activeElement === document.body || document.activeElement === null)
      document.getElementById('tray')?.focus()
  })
}

/** The other end to start from: a family, or text that was clicked, goes into the swap. */
function swapFamily(family: string, to = ''): void {
  swap.reset()
  swap.wishes = [openWish(family, null, to)]
  go('swap')
  if (to !== '') void swap.makePlan()
}

/** Families that text is set in and the library lacks: said in one calm line. */
const absentFamilies = computed(() => [
  ...new Set((desk.census?.faces ?? []).filter(face => face.status === 'absent').map(face => face.family)),
])
const silenced = ref(false)

/** From an absent face to the style that causes it. */
function mendStyle(title: string): void {
  const style = styles.list.find(each => each.displayName === title)
  if (style) styles.selected = { family: style.family, name: style.name }
  go('styles')
}
function swapPointed(): void {
  const face = desk.census?.faces.find(each => each.key === desk.pointed?.face)
  if (face) swapFamily(face.family)
}

/** From the census to a plan for styles. */
async function planStyles(wishes: Wish[]): Promise<void> {
  go('styles')
  await nextTick()
  await styles.propose(wishes)
}

/**
 * Alt with a figure gives the text that is meant the style on that key; Alt with S goes to the search of the
 * styles.
 */
async function styleKey(event: KeyboardEvent): Promise<boolean> {
  if (!event.altKey || event.ctrlKey || event.metaKey) return false
  const figure = /^Digit([1-9])$/.exec(event.code)?.[1]
  const pinned = figure === undefined ? undefined : styles.pins[figure]
  if (pinned) {
    event.preventDefault()
    await styles.applyStyle(pinned)
    return true
  }
  if (event.code !== 'KeyS') return false
  event.preventDefault()
  styles.leave()
  go('styles')
  await nextTick()
  stylesTray.value?.search()
  return true
}

/** Keys act on the sheets only while no field is being typed in. */
function key(event: KeyboardEvent): void {
  if (event.altKey) {
    void styleKey(event)
    return
  }
  const target = event.target as HTMLElement
  if (event.ctrlKey || event.metaKey) {
    const act = (action: () => unknown) => {
      event.preventDefault()
      void action()
    }
    const typing = /^(INPUT|SELECT)$/.test(target.tagName)
    if (event.key === 'f') act(() => head.value?.find())
    else if (!typing && event.key === 'z' && !event.shiftKey) act(() => words.step('undo'))
    else if (!typing && (event.key === 'y' || (event.key.toLowerCase() === 'z' && event.shiftKey)))
      act(() => words.step('redo'))
    else if (event.key === '+' || event.key === '=') act(() => sheets.value?.zoomAt(1.25))
    else if (event.key === '-') act(() => sheets.value?.zoomAt(0.8))
    else if (event.key === '0') act(() => sheets.value?.fit())
    return
  }
  if (event.ctrlKey || event.metaKey || event.altKey || /^(INPUT|SELECT|TEXTAREA)$/.test(target.tagName)) return
  if (event.key === 'm') desk.marks = !desk.marks
  else if (event.key === 'n') desk.walk(event.shiftKey ? -1 : 1)
  else if (event.key === 'N') desk.walk(-1)
  else if (event.key === 'w') desk.whiteSpace = !desk.whiteSpace
  else if (event.key === 'g') desk.grid = !desk.grid
  else if (event.key === 'Escape') void desk.choose('face', null)
}

/** Whose plan is walked page by page: a swap's at once, others when it is asked. */
const walked = computed((): ChangeId | null => {
  if (stage.value === 'swap') return swap.plan && swap.previewing === '' ? 'swap' : null
  const id = stage.value === 'recast' ? 'recast' : stage.value === 'pages' ? 'clean-up' : 'styles'
  const change = useChange(id)
  return change.walking && change.plan ? id : null
})

/** What was typed a moment ago is on its way to the server. */
function warn(event: BeforeUnloadEvent): void {
  if (words.unsaved) {
    void words.flush()
    event.preventDefault()
  }
}

// Other stages speak of what is stored: what was typed a moment ago goes there first.
watch(stage, () => {
  void words.flush()
  styles.leave()
  swap.endPreview()
  styles.done = ''
  styles.message = ''
})
watch(
  () => desk.info?.document.id,
  () => styles.recallPins(),
)

onMounted(() => {
  resetChanges()
  swap.reset()
  words.clear()
  styles.clear()
  absent.clear()
  recast.clear()
  pasting.recall()
  window.addEventListener('beforeunload', warn)
  void desk.open(String(route.params.id))
  window.addEventListener('keydown', key)
})
onBeforeUnmount(() => {
  window.removeEventListener('keydown', key)
  window.removeEventListener('beforeunload', warn)
  const leaving = desk.engine
  void words.flush().finally(() => {
    if (desk.engine === leaving) desk.close()
  })
})
useHead({ title: () => (title.value ? `${title.value}, Morphene` : 'Morphene') })
</script>

<template>
  <div class="flex h-full flex-col">
    <RunningHead ref="head" :title="title" />
    <PasteQuestion />
    <div v-if="desk.state === 'failed'" class="p-10" role="alert">
      <h1>This document could not be opened</h1>
      <p class="mt-2 text-rubric">{{ desk.failure }}</p>
      <NuxtLink to="/" class="link mt-3 inline-block">Back to the shelf</NuxtLink>
    </div>
    <div v-else-if="desk.state === 'opening' || !desk.info" class="p-10 text-soft" role="status">
      Reading the document and setting its pages …
    </div>
    <div v-else class="flex min-h-0 flex-1">
      <div class="flex min-w-0 flex-1 flex-col">
        <p v-if="desk.failure" role="alert" class="border-b border-rubric bg-sheet px-5 py-2 text-rubric">
          {{ desk.failure }}
        </p>
        <p
          v-if="absentFamilies.length > 0 && !silenced && stage === 'census'"
          class="flex items-baseline gap-3 border-b border-rule bg-paper px-5 py-1.5 text-[13px]"
          role="status"
        >
          <span class="min-w-0 flex-1 truncate"
            ><span aria-hidden="true" class="text-iris">◇ </span
            >{{
              absentFamilies.length === 1
                ? `${absentFamilies[0]} is absent`
                : `${counted(absentFamilies.length, 'face')} are absent: ${absentFamilies.join(', ')}`
            }}. Others stand in; the file is as it was.</span
          >
          <button type="button" class="link" @click="go('absent')">See what can be done</button
          ><button type="button" class="text-soft" aria-label="Not now" @click="silenced = true">×</button>
        </p>
        <PlanWalk v-if="walked" :id="walked" :key="walked" />
        <template v-else>
          <SheetsView ref="sheets" />
          <FolioLine
            @go="sheets?.goTo($event)"
            @fit="sheets?.fit()"
            @swap="swapPointed"
            @zoom="sheets?.zoomAt($event)"
          />
        </template>
      </div>
      <ThumbIndex :tabs="tabs" :open="stage" @open="go" />
      <p
        v-if="desk.state === 'setting'"
        role="status"
        class="h-full w-[min(630px,50vw)] shrink-0 px-[22px] pt-5 text-soft"
      >
        The first page is here; setting and counting the others …
      </p>
      <main
        v-else
        id="tray"
        role="tabpanel"
        :aria-labelledby="`tab-${stage}`"
        class="h-full w-[min(630px,50vw)] shrink-0"
        :class="stage === 'swap' || stage === 'recast' ? 'overflow-hidden' : 'overflow-y-auto'"
        tabindex="-1"
      >
        <CensusTray v-if="stage === 'census'" @plan="planStyles" @swap="swapFamily" @go="sheets?.goTo($event)" />
        <AbsentTray v-else-if="stage === 'absent'" @swap="swapFamily" @style="mendStyle" />
        <RecastTray v-else-if="stage === 'recast'" />
        <StylesTray v-else-if="stage === 'styles'" ref="stylesTray" />
        <PagesTray v-else-if="stage === 'pages'" />
        <SwapTray v-else-if="stage === 'swap'" @census="go('census')" />
        <StartsTray v-else-if="stage === 'starts'" />
        <HandoffTray v-else />
      </main>
    </div>
  </div>
</template>
