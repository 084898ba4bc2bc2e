import { useDesk } from '../stores/desk'

/** A box on a page, in points. */
export interface PageBox {
  readonly x: number
  readonly y: number
  readonly width: number
  readonly height: number
}

/** For so long after somebody went to a page the view does not say which page is looked at. Milliseconds. */
const held = 250

/** What shows the sheets: which are near what is seen, which one fills most of it, and the way to a page or a box on one. */
export function useSheetsInView() {
  const desk = useDesk()
  const scroller = ref<HTMLElement | null>(null)
  /** Pages near what is seen: only those are drawn. */
  const live = ref(new Set<number>())
  /** What was walked to last: zooming goes towards it while it is in sight. */
  const walkedTo = shallowRef<{ readonly page: number; readonly box: PageBox } | null>(null)
  let watcher: IntersectionObserver | null = null
  let ticking = false
  let holding = 0

  const elementOf = (page: number) => scroller.value?.querySelector<HTMLElement>(`[data-page="${page}"]`) ?? null
  const sheetOf = (page: number) => elementOf(page)?.querySelector('section') ?? null
  function hold(): void {
    holding = performance.now() + held
  }

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
  onBeforeUnmount(() => watcher?.disconnect())

  /** The page that fills most of the view is the one the folio line names. */
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
    hold()
    // Only the sheets scroll: scrollIntoView would move the desk around them too.
    if (view && element)
      view.scrollTop =
        at === 'top' ? element.offsetTop - 8 : element.offsetTop + element.offsetHeight / 2 - view.clientHeight / 2
  }

  /** Brings a box of a page into view, with some room around it. `zoom` is what the page is shown at. */
  function bring(page: number, box: PageBox, zoom: number, centred: boolean): void {
    const view = scroller.value
    walkedTo.value = { page, box }
    const sheet = sheetOf(page)
    if (!view || !sheet) return
    const own = sheet.getBoundingClientRect()
    const frame = view.getBoundingClientRect()
    const s = (zoom * 96) / 72
    const top = own.top - frame.top + box.y * s
    const left = own.left - frame.left + box.x * s
    const [high, wide] = [box.height * s, box.width * s]
    if (centred && (top < 40 || top + high > view.clientHeight - 40)) view.scrollTop += top - view.clientHeight / 2
    else if (top < 24) view.scrollTop += top - 60
    else if (top + high > view.clientHeight - 24) view.scrollTop += top + high - view.clientHeight + 60
    if (left < 8 || left + wide > view.clientWidth - 8) view.scrollLeft += left - view.clientWidth / 3
  }

  /** A page as it is drawn, once it is near what is seen; null where there is none. */
  async function drawnPage(index: number) {
    for (let tries = 0; tries < 20 && !live.value.has(index); tries++)
      await new Promise(resolve => setTimeout(resolve, 50))
    return desk.engine?.ask('page', { side: desk.side, view: desk.view, index }).catch(() => null) ?? null
  }

  return { scroller, live, walkedTo, sheetOf, hold, observe, follow, goTo, bring, drawnPage }
}
export type SheetsInView = ReturnType<typeof useSheetsInView>
