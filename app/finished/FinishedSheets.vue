<script setup lang="ts">
import { useEventListener, useResizeObserver, useThrottleFn } from '@vueuse/core'
import type { PageBox } from '~~/core/format/finished/page-view'
import type { ShownLine } from '~~/core/format/finished/reader'
import PageFolio from '../desk/PageFolio.vue'
import PlaceWalk from '../desk/PlaceWalk.vue'
import { useFinished } from '../stores/finished'
import FinishedPage from './FinishedPage.vue'

/** The pages of a finished PDF one below the other, with what is marked on them. */
defineProps<{
  picks: 'place' | 'line' | null
  frame: (PageBox & { readonly page: number }) | null
  /** The line that is being put right. */
  picked: { readonly page: number; readonly line: ShownLine } | null
}>()
const emit = defineEmits<{ place: [page: number, box: PageBox]; line: [page: number, line: ShownLine] }>()
const finished = useFinished()
const scroll = ref<HTMLElement | null>(null)
const zoom = ref(1)
const fitted = ref(true)
const [margin, gap] = [20, 18]

function fit(): void {
  fitted.value = true
  const widest = Math.max(1, ...finished.sheets.map(sheet => sheet.width))
  if (scroll.value) zoom.value = Math.max(0.1, Math.min(4, (scroll.value.clientWidth - 2 * margin) / widest))
}
function zoomAt(factor: number): void {
  fitted.value = false
  zoom.value = Math.max(0.1, Math.min(16, zoom.value * factor))
  void nextTick(() => goTo(finished.page))
}
/** Where each page begins, in pixels from the top of all. */
const tops = computed(() => {
  let top: number = margin
  return finished.sheets.map(sheet => {
    const own = top
    top += sheet.height * zoom.value + gap
    return own
  })
})

function goTo(index: number): void {
  const box = finished.current?.page === index + 1 ? finished.current.boxes[0] : undefined
  const top = tops.value[index]! + (box ? box.y * zoom.value - scroll.value!.clientHeight / 3 : -margin)
  scroll.value?.scrollTo({ top: Math.max(0, top) })
}
/** The page that has most of what is in sight. */
const follow = useThrottleFn(() => {
  if (!scroll.value) return
  const middle = scroll.value.scrollTop + scroll.value.clientHeight / 2
  let at = 0
  while (at < tops.value.length - 1 && tops.value[at + 1]! <= middle) at++
  finished.page = at
}, 80)
useEventListener(scroll, 'scroll', () => void follow())
useResizeObserver(scroll, () => {
  if (fitted.value) fit()
})
watch(
  () => finished.jump,
  () => goTo(finished.page),
)
onMounted(fit)
defineExpose({ zoomAt, fit })
</script>

<template>
  <div
    ref="scroll"
    role="region"
    aria-label="Pages"
    tabindex="0"
    class="min-h-0 flex-1 overflow-auto bg-desk"
    :style="{ padding: `${margin}px` }"
  >
    <FinishedPage
      v-for="(sheet, index) in finished.sheets"
      :key="index"
      :index="index"
      :sheet="sheet"
      :zoom="zoom"
      :picks="picks"
      :frame="frame && frame.page === index + 1 ? frame : null"
      :picked="picked?.page === index + 1 ? picked.line : null"
      :style="{ marginBottom: `${gap}px` }"
      @place="emit('place', index + 1, $event)"
      @line="emit('line', index + 1, $event)"
    />
  </div>
  <PageFolio
    :page="finished.page"
    :pages="finished.sheets.length"
    :zoom="zoom"
    @go="finished.show($event)"
    @fit="fit"
    @zoom="zoomAt"
  >
    <span v-if="finished.trial" class="text-verdigris" role="status">The pages as they would be</span>
    <PlaceWalk
      v-else-if="finished.places.length > 0"
      :at="finished.at"
      :count="finished.places.length"
      @walk="finished.walk($event)"
    />
  </PageFolio>
</template>
