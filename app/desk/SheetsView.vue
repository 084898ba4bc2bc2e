<script setup lang="ts">
import { useDesk } from '../stores/desk'
import SheetPage from './SheetPage.vue'

const desk = useDesk()
const scroller = ref<HTMLElement | null>(null)
/** What the desk leaves beside a sheet: its padding, with room for marks on the right. Pixels. */
const margins = 148
const live = ref(new Set<number>())
let watcher: IntersectionObserver | null = null

function observe(): void {
  watcher?.disconnect()
  if (!scroller.value) return
  watcher = new IntersectionObserver((entries) => {
    const next = new Set(live.value)
    for (const entry of entries) {
      const index = Number((entry.target as HTMLElement).dataset.page)
      if (entry.isIntersecting) next.add(index)
      else next.delete(index)
    }
    live.value = next
  }, { root: scroller.value, rootMargin: '500px 0px' })
  for (const element of scroller.value.querySelectorAll('[data-page]')) watcher.observe(element)
}

/** The page that fills most of the view is the one the folio line names. */
function follow(): void {
  const view = scroller.value
  if (!view) return
  const middle = view.getBoundingClientRect().top + view.clientHeight / 2
  let best = 0
  let nearest = Infinity
  for (const element of view.querySelectorAll<HTMLElement>('[data-page]')) {
    const box = element.getBoundingClientRect()
    const distance = box.top <= middle && box.bottom >= middle ? 0 : Math.min(Math.abs(box.top - middle), Math.abs(box.bottom - middle))
    if (distance < nearest) { nearest = distance; best = Number(element.dataset.page) }
  }
  desk.page = best
}

function goTo(page: number, at: 'top' | 'middle' = 'top'): void {
  const view = scroller.value
  const element = view?.querySelector<HTMLElement>(`[data-page="${page}"]`)
  // Only the sheets scroll: scrollIntoView would move the desk around them too.
  if (view && element) view.scrollTop = at === 'top' ? element.offsetTop - 8 : element.offsetTop + element.offsetHeight / 2 - view.clientHeight / 2
}

// Walking goes to the place itself: the page first, then the spot on it, once it is drawn.
watch(() => desk.current, async (place) => {
  if (!place || place.page < 0) return
  goTo(place.page, 'middle')
  for (let tries = 0; tries < 20; tries++) {
    await new Promise(resolve => setTimeout(resolve, 60))
    const spot = scroller.value?.querySelector(`[data-page="${place.page}"] section`)
    if (spot && live.value.has(place.page)) break
  }
  const engine = desk.engine
  if (!engine || desk.current !== place) return
  const { page } = await engine.ask('page', { side: 'now', index: place.page })
  const run = page.runs.find(each => each.part === place.part && each.node === place.node && each.start < place.end && each.end > place.start)
  const element = scroller.value?.querySelector<HTMLElement>(`[data-page="${place.page}"]`)
  if (run && element && scroller.value) scroller.value.scrollTop = element.offsetTop + run.y * desk.zoom * 96 / 72 - scroller.value.clientHeight / 2
})

/** Makes the widest sheet and the marks in its margin fit the view. */
function fit(): void {
  const widest = Math.max(...desk.sheets.map(sheet => sheet.width), 100)
  if (scroller.value) desk.zoom = Math.max(0.25, Math.min(1.25, (scroller.value.clientWidth - margins) / (widest * 96 / 72)))
}

watch(() => [desk.sheets, desk.generation], () => nextTick(observe), { immediate: true })
onMounted(() => { observe(); if (desk.generation === 1) fit() })
onBeforeUnmount(() => watcher?.disconnect())
defineExpose({ goTo, fit })
</script>

<template>
  <div ref="scroller" class="relative min-h-0 flex-1 overflow-auto bg-desk" tabindex="0" aria-label="Sheets" @scroll.passive="follow">
    <div class="flex min-w-fit flex-col gap-6 py-6 pr-[92px] pl-10">
      <div v-for="(sheet, index) in desk.sheets" :key="index" :data-page="index">
        <SheetPage side="now" :index="index" :zoom="desk.zoom" :width="sheet.width" :height="sheet.height" :number="sheet.number" :live="live.has(index)" :generation="desk.generation" />
      </div>
    </div>
  </div>
</template>
