<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { caretBox, rangeBoxes } from '~~/core/typeset/caret'
import { boundsOf } from '~~/core/typeset/matrix'
import { useDesk } from '../stores/desk'
import { useWords } from '../stores/words'
import CaretInput from './CaretInput.vue'
import FrameHandles from './FrameHandles.vue'
import PlainReading from './PlainReading.vue'
import SheetPage from './SheetPage.vue'

const desk = useDesk()
const words = useWords()
const scroller = ref<HTMLElement | null>(null)
const input = ref<InstanceType<typeof CaretInput> | null>(null)
/** Width of what shows the sheets, in pixels. */
const viewWidth = ref(800)
/** What the desk leaves beside a sheet: its padding, with room for marks on the right; less where all is narrow. Pixels. */
const margins = computed(() => (viewWidth.value < 480 ? 72 : 148))
/** Between sheets that stand side by side, with room for the marks of the left one. Pixels. */
const sheetGap = 72
/** At this zoom a sheet can be read: only then another one stands beside it. */
const goodZoom = 0.7
const widest = computed(() => Math.max(...desk.shown.map(sheet => sheet.width), 100))
/** How many sheets stand side by side in a column: as many as there is room for. */
const beside = computed(() =>
  Math.max(
    1,
    Math.floor((viewWidth.value - margins.value + sheetGap + 1) / (((widest.value * 96) / 72) * desk.zoom + sheetGap)),
  ),
)
const live = ref(new Set<number>())
let watcher: IntersectionObserver | null = null

/** Zoom goes from a tenth to sixteen times the size. */
const zooms = { least: 0.1, most: 16 } as const
const contactZoom = computed(() => {
  return 150 / ((widest.value * 96) / 72)
})
const zoomOf = computed(() => (desk.arrangement === 'contact' ? contactZoom.value : desk.zoom))

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

function observe(): void {
  watcher?.disconnect()
  if (!scroller.value) return
  watcher = new IntersectionObserver(
    entries => {
      const next = new Set(live.value)
      for (const entry of entries) {
        const index = Number((entry.target as HTMLElement).dataset.page)
        if (entry.isIntersecting) next.add(index)
        else next.delete(index)
      }
      live.value = next
    },
    { root: scroller.value, rootMargin: '500px 0px' },
  )
  for (const element of scroller.value.querySelectorAll('[data-page]')) watcher.observe(element)
}

const elementOf = (page: number) => scroller.value?.querySelector<HTMLElement>(`[data-page="${page}"]`) ?? null

/** The page that fills most of the view is the one the folio line names. */
let ticking = false
let holding = 0
function follow(): void {
  if (ticking) return
  ticking = true
  requestAnimationFrame(() => {
    ticking = false
    desk.scrolled++
    const view = scroller.value
    if (!view || performance.now() < holding) return
    const box = view.getBoundingClientRect()
    const middle = box.top + view.clientHeight / 2
    let best = desk.page
    let nearest = Infinity
    for (const index of live.value) {
      const own = elementOf(index)?.getBoundingClientRect()
      if (!own) continue
      const distance =
        (own.top <= middle && own.bottom >= middle
          ? 0
          : Math.min(Math.abs(own.top - middle), Math.abs(own.bottom - middle))) + (index === desk.page ? -1 : 0)
      if (distance < nearest) {
        nearest = distance
        best = index
      }
    }
    desk.page = best
  })
}

function goTo(page: number, at: 'top' | 'middle' = 'top'): void {
  const view = scroller.value
  const element = elementOf(page)
  desk.page = page
  holding = performance.now() + 250
  // Only the sheets scroll: scrollIntoView would move the desk around them too.
  if (view && element)
    view.scrollTop =
      at === 'top' ? element.offsetTop - 8 : element.offsetTop + element.offsetHeight / 2 - view.clientHeight / 2
}

/** What was walked to last: zooming goes towards it while it is in sight. */
let walkedTo: { page: number; box: { x: number; y: number; width: number; height: number } } | null = null

/** Brings a box of a page into view, with some room around it. */
function bring(page: number, box: { x: number; y: number; width: number; height: number }, centred: boolean): void {
  const view = scroller.value
  walkedTo = { page, box }
  const element = elementOf(page)?.querySelector('section')
  if (!view || !element) return
  const own = element.getBoundingClientRect()
  const frame = view.getBoundingClientRect()
  const s = (zoomOf.value * 96) / 72
  const top = own.top - frame.top + box.y * s
  const left = own.left - frame.left + box.x * s
  const [high, wide] = [box.height * s, box.width * s]
  if (centred && (top < 40 || top + high > view.clientHeight - 40)) view.scrollTop += top - view.clientHeight / 2
  else if (top < 24) view.scrollTop += top - 60
  else if (top + high > view.clientHeight - 24) view.scrollTop += top + high - view.clientHeight + 60
  if (left < 8 || left + wide > view.clientWidth - 8) view.scrollLeft += left - view.clientWidth / 3
}

async function drawnPage(index: number) {
  for (let tries = 0; tries < 20 && !live.value.has(index); tries++)
    await new Promise(resolve => setTimeout(resolve, 50))
  return desk.engine?.ask('page', { side: desk.side, view: desk.view, index }).catch(() => null) ?? null
}

// Walking goes to the place itself: the page first, then the spot on it, once it is drawn.
watch(
  () => desk.current,
  async place => {
    if (!place) return
    if (place.page < 0) {
      // No page shows it: it stands on a master, or on a handout.
      const found = await desk.engine?.ask('where', {
        spot: { part: place.part, node: place.node, offset: place.start },
        view: 'masters',
        near: 0,
      })
      if (!found) return
      desk.show(found.view, found.page)
      const drawn = await drawnPage(found.page)
      const run = drawn?.page.runs.find(each => each.part === place.part && each.node === place.node)
      if (run && desk.current === place)
        bring(found.page, { x: run.x, y: run.y - run.ascent, width: run.width, height: run.ascent + run.descent }, true)
      return
    }
    if (desk.arrangement === 'contact' || desk.arrangement === 'plain') desk.arrangement = 'column'
    const wanted = place.place === 'note' && desk.all.notes.length > 0 ? ('notes' as const) : ('pages' as const)
    if (desk.view !== wanted) desk.view = wanted
    await nextTick()
    goTo(
      wanted === 'pages'
        ? place.page
        : Math.max(
            desk.all.notes.findIndex(sheet => sheet.number.startsWith(`${place.page + 1},`)),
            0,
          ),
      'middle',
    )
    const drawn = await drawnPage(desk.page)
    if (!drawn || desk.current !== place) return
    const run = drawn.page.runs.find(
      each => each.part === place.part && each.node === place.node && each.start < place.end && each.end > place.start,
    )
    if (!run) {
      // An empty line has no letters: its caret shows where it is.
      const caret =
        place.end === place.start
          ? caretBox(drawn.page, { part: place.part, node: place.node, offset: place.start })
          : null
      if (caret) {
        if (desk.zoom < 1.4) {
          desk.zoom = 1.4
          await nextTick()
        }
        await words.place({ part: place.part, node: place.node, offset: place.start }, false)
        bring(desk.page, caret, true)
      }
      return
    }
    const own = { x: run.x, y: run.y - run.ascent, width: run.width, height: run.ascent + run.descent }
    const box = run.matrix ? boundsOf(run.matrix, own) : own
    // Even a lone space shall be seen: what is very small is shown larger.
    const least = 14 / (96 / 72) / Math.max(box.width, 1)
    if (desk.zoom < least && box.width < 8) {
      desk.zoom = Math.min(least, 4)
      await nextTick()
    }
    bring(desk.page, box, true)
  },
)

watch(
  () => desk.jump,
  async () => {
    await nextTick()
    goTo(desk.page)
  },
)
watch(
  () => desk.reveal,
  async () => {
    await nextTick()
    const drawn = await drawnPage(desk.page)
    if (!drawn) return
    const box = words.hasSelection
      ? rangeBoxes(drawn.page, words.ranges)[0]
      : words.spot
        ? caretBox(drawn.page, words.spot)
        : null
    if (box) bring(desk.page, box, false)
  },
)

/**
 * Makes the widest sheet and the marks in its margin fit the view; where there is room for more sheets at a good size,
 * they stand side by side. It stays so when the view gets wider or narrower, until somebody zooms.
 */
function fit(): void {
  if (!scroller.value || desk.shown.length === 0) return
  const wide = ((widest.value * 96) / 72) * (desk.arrangement === 'spreads' ? 2 : 1)
  const zoomFor = (count: number) =>
    (scroller.value!.clientWidth - margins.value - (count - 1) * sheetGap) / (wide * count)
  const most = desk.arrangement === 'column' ? Math.min(4, desk.shown.length) : 1
  let count = 1
  while (count < most && zoomFor(count + 1) >= goodZoom) count++
  desk.zoom = Math.max(zooms.least, Math.min(1.25, zoomFor(count)))
  desk.fitted = true
  void nextTick(() => {
    goTo(desk.page)
  })
}

/** Zooms so that the point under the pointer stays where it is. */
function zoomAt(factor: number, clientX: number, clientY: number): void {
  const view = scroller.value
  const before = desk.zoom
  const next = Math.max(zooms.least, Math.min(zooms.most, before * factor))
  const element = elementOf(desk.page)?.querySelector('section')
  if (!view || next === before || !element) return
  desk.fitted = false
  const box = element.getBoundingClientRect()
  const [x, y] = [(clientX - box.left) / before, (clientY - box.top) / before]
  desk.zoom = next
  holding = performance.now() + 250
  void nextTick(() => {
    const now = element.getBoundingClientRect()
    view.scrollLeft += now.left + x * next - clientX
    view.scrollTop += now.top + y * next - clientY
    desk.scrolled++
  })
}

/** Zooms by key or button: towards what was walked to, while it is in sight, else towards the middle. */
function zoomHere(factor: number): void {
  const view = scroller.value!.getBoundingClientRect()
  const sheet = walkedTo && elementOf(walkedTo.page)?.querySelector('section')?.getBoundingClientRect()
  const s = (desk.zoom * 96) / 72
  const at =
    sheet && walkedTo
      ? {
          x: sheet.left + (walkedTo.box.x + walkedTo.box.width / 2) * s,
          y: sheet.top + (walkedTo.box.y + walkedTo.box.height / 2) * s,
        }
      : null
  if (at && at.x > view.left && at.x < view.right && at.y > view.top && at.y < view.bottom) zoomAt(factor, at.x, at.y)
  else zoomAt(factor, view.left + view.width / 2, view.top + view.height / 2)
}

/** The wheel with Ctrl held, which is also what a pinch on a touchpad sends. */
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey && !event.metaKey) return
  event.preventDefault()
  zoomAt(Math.exp(-event.deltaY * (event.deltaMode === 1 ? 0.05 : 0.0022)), event.clientX, event.clientY)
}

/** Two fingers on a screen. */
const touches = new Map<number, { x: number; y: number }>()
let spread = 0
function touch(event: PointerEvent): void {
  if (event.pointerType !== 'touch') return
  if (event.type === 'pointerup' || event.type === 'pointercancel') {
    touches.delete(event.pointerId)
    spread = 0
    return
  }
  if (event.type === 'pointermove' && !touches.has(event.pointerId)) return
  touches.set(event.pointerId, { x: event.clientX, y: event.clientY })
  if (touches.size !== 2) return
  const [one, other] = [...touches.values()] as [{ x: number; y: number }, { x: number; y: number }]
  const distance = Math.hypot(one.x - other.x, one.y - other.y)
  if (spread > 0) zoomAt(distance / spread, (one.x + other.x) / 2, (one.y + other.y) / 2)
  spread = distance
}

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
useResizeObserver(scroller, ([entry]) => {
  if (!entry) return
  viewWidth.value = entry.contentRect.width
  if (desk.fitted && desk.arrangement !== 'contact') fit()
})
onBeforeUnmount(() => watcher?.disconnect())
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
