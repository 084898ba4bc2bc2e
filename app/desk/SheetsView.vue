<script setup lang="ts">
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import CaretInput from './CaretInput.vue'
import FrameHandles from './FrameHandles.vue'
import PlainReading from './PlainReading.vue'
import SheetPage from './SheetPage.vue'
import { usePlacesShown } from './use-places-shown'
import { useSheetZoom } from './use-sheet-zoom'
import { useSheetsInView } from './use-sheets-in-view'

const desk = useDesk()
const words = useWords()
const input = ref<InstanceType<typeof CaretInput> | null>(null)
const inView = useSheetsInView()
const { scroller, live, observe, follow, goTo, drawnPage } = inView
const { margins, beside, zoomOf, fit, zoomHere, wheel, touch } = useSheetZoom(inView)
usePlacesShown(inView, zoomOf)

/** Sheets side by side: the first page of a text is a right-hand one. */
const rows = computed(() => {
  const all = desk.shown.map((_, index) => index)
  if (desk.arrangement === 'column') {
    const list: number[][] = []
    for (let at = 0; at < all.length; at += beside.value) list.push(all.slice(at, at + beside.value))
    return list
  }
  if (desk.arrangement !== 'spreads') return all.map(index => [index])
  const list: number[][] = all.length > 0 ? [[-1, 0]] : []
  for (let at = 1; at < all.length; at += 2) list.push(at + 1 < all.length ? [at, at + 1] : [at])
  return list
})

/** Enter puts the caret into the page that is shown; from there the keyboard writes. */
async function enter(): Promise<void> {
  if (desk.arrangement === 'contact') {
    desk.arrangement = 'column'
    desk.jump++
    return
  }
  // The keyboard is taken at once: what is typed next waits for the caret.
  input.value?.focus()
  if (words.spot) return
  await words.act(async () => {
    const drawn = await drawnPage(desk.page)
    const line = drawn?.page.lines.find(
      each => each.node >= 0 && (desk.view === 'masters' || each.part === 'content.xml'),
    )
    if (line) await words.place({ part: line.part, node: line.node, offset: line.start })
    else leave()
  })
}

function key(event: KeyboardEvent): void {
  if (event.target !== scroller.value) return
  if (event.key === 'Enter') {
    event.preventDefault()
    void enter()
  } else if (event.key === 'PageDown' || event.key === 'PageUp') {
    const next = desk.page + (event.key === 'PageDown' ? 1 : -1)
    if (next >= 0 && next < desk.shown.length) {
      event.preventDefault()
      goTo(next)
    }
  } else if (event.key === 'Home') {
    event.preventDefault()
    goTo(0)
  } else if (event.key === 'End') {
    event.preventDefault()
    goTo(desk.shown.length - 1)
  }
}

/** Escape goes from the words to the frame they stand in, and from there out to the sheets. */
async function leave(): Promise<void> {
  const { spot } = words
  const frame = spot && !words.frame ? await desk.engine?.ask('frameOf', { part: spot.part, node: spot.node }) : null
  if (spot && typeof frame === 'number') {
    words.frame = { part: spot.part, node: frame }
    return
  }
  words.frame = null
  scroller.value?.focus({ preventScroll: true })
}
watch(
  () => words.frame,
  (now, before) => {
    if (before && !now && (document.activeElement === document.body || document.activeElement === null))
      scroller.value?.focus({ preventScroll: true })
  },
  { flush: 'post' },
)

const extents = ref<Record<number, number>>({})
function open(index: number): void {
  if (desk.arrangement === 'contact') {
    desk.arrangement = 'column'
    desk.page = index
    desk.jump++
  }
}

watch(
  () => [desk.shown.length, desk.view, desk.arrangement],
  () =>
    nextTick(() => {
      live.value = new Set()
      observe()
    }),
  { immediate: true },
)
watch(
  () => [desk.arrangement, desk.view],
  () => {
    extents.value = {}
    void nextTick(() => goTo(desk.page))
  },
)
let fitted = false
watch(
  () => desk.generation,
  () => {
    if (!fitted && desk.shown.length > 0) {
      fitted = true
      fit()
    }
  },
  { flush: 'post', immediate: true },
)
onMounted(() => {
  observe()
  if (desk.generation === 1) fit()
  else
    void nextTick(() => {
      goTo(desk.page)
    })
})
defineExpose({ goTo, fit, focusInput: () => input.value?.focus(), zoomAt: zoomHere })
</script>

<template>
  <div class="relative flex min-h-0 flex-1 flex-col">
    <p
      v-if="words.message"
      role="alert"
      class="absolute inset-x-6 top-3 z-20 border border-rubric bg-sheet px-4 py-2 text-rubric"
    >
      {{ words.message }} <button type="button" class="link ml-2" @click="words.message = ''">Good</button>
    </p>
    <p v-if="words.said" role="status" class="absolute inset-x-6 top-3 z-10 border border-rule bg-sheet px-4 py-2">
      {{ words.said }} <button type="button" class="link ml-2" @click="words.said = ''">Good</button>
    </p>
    <p v-if="desk.after" class="border-b border-verdigris bg-wash px-5 py-1 text-[13px]" role="status">
      Shown as it would be. Nothing is stored yet.
    </p>
    <CaretInput ref="input" @leave="leave" />
    <PlainReading v-if="desk.arrangement === 'plain'" @write="input?.focus()" />
    <div
      v-else
      ref="scroller"
      data-scroller
      class="min-h-0 flex-1 overflow-auto bg-desk"
      tabindex="0"
      aria-label="Sheets: Enter puts the caret into the page, Escape takes it out"
      @scroll.passive="follow"
      @wheel="wheel"
      @keydown="key"
      @pointerdown.passive="touch"
      @pointermove.passive="touch"
      @pointerup.passive="touch"
      @pointercancel.passive="touch"
    >
      <div
        :class="
          desk.arrangement === 'contact'
            ? 'grid grid-cols-[repeat(auto-fill,minmax(168px,1fr))] gap-x-4 gap-y-5 p-6'
            : margins > 100
              ? 'flex min-w-fit flex-col gap-6 py-6 pr-[92px] pl-10'
              : 'flex min-w-fit flex-col gap-6 py-4 pr-[52px] pl-3'
        "
      >
        <div
          v-for="(row, at) in rows"
          :key="at"
          :class="{
            'flex gap-[2px]': desk.arrangement === 'spreads',
            'flex gap-[72px]': desk.arrangement === 'column' && beside > 1,
          }"
        >
          <template v-for="index in row" :key="index">
            <div
              v-if="index < 0"
              :style="{ width: `${((desk.shown[0]?.width ?? 0) * zoomOf * 96) / 72}px` }"
              aria-hidden="true"
            />
            <div
              v-else
              :data-page="index"
              :style="{ marginLeft: `${extents[index] ?? 0}px` }"
              :class="{ 'cursor-pointer': desk.arrangement === 'contact' }"
              @click="open(index)"
            >
              <SheetPage
                :side="desk.side"
                :view="desk.view"
                :index="index"
                :zoom="zoomOf"
                :width="desk.shown[index]!.width"
                :height="desk.shown[index]!.height"
                :number="desk.shown[index]!.number"
                :name="desk.shown[index]!.name"
                :live="live.has(index)"
                :generation="desk.generation"
                :plain="desk.arrangement === 'contact'"
                :marks-left="desk.arrangement === 'spreads' && row.length > 1 && index === row[0]"
                @pointed="input?.focus()"
                @beside="extents[index] = $event"
              >
                <template #frame="{ frame, scale }"
                  ><FrameHandles :frame="frame" :scale="scale" :page="index"
                /></template>
              </SheetPage>
              <p
                v-if="desk.arrangement === 'contact'"
                class="mt-1 truncate text-[12px] text-soft"
                :class="{ 'font-semibold text-ink': index === desk.page }"
              >
                <button type="button" class="hover:underline" @click.stop="open(index)">
                  {{ desk.shown[index]!.number }}
                </button>
                {{ desk.shown[index]!.name }}
              </p>
            </div>
          </template>
        </div>
      </div>
    </div>
  </div>
</template>
