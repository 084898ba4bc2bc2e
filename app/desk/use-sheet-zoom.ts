import { useResizeObserver } from '@vueuse/core'
import { useDesk } from '../stores/desk'
import type { SheetsInView } from './use-sheets-in-view'

/** Zoom goes from a tenth to sixteen times the size. */
const zooms = { least: 0.1, most: 16 } as const
/** Between sheets that stand side by side, with room for the marks of the left one. Pixels. */
const sheetGap = 72
/** At this zoom a sheet can be read: only then another one stands beside it. */
const goodZoom = 0.7
/** How wide a sheet is on the contact sheet. Pixels. */
const contactWidth = 150
const pixels = (points: number) => (points * 96) / 72

/** How large sheets are shown: so that they fit, by keys and buttons, by wheel and by two fingers. */
export function useSheetZoom({ scroller, walkedTo, sheetOf, hold, goTo }: SheetsInView) {
  const desk = useDesk()
  /** Width of what shows the sheets, in pixels. */
  const viewWidth = ref(800)
  /** What the desk leaves beside a sheet: its padding, with room for marks on the right; less where all is narrow. Pixels. */
  const margins = computed(() => (viewWidth.value < 480 ? 72 : 148))
  const widest = computed(() => Math.max(...desk.shown.map(sheet => sheet.width), 100))
  /** How many sheets stand side by side in a column: as many as there is room for. */
  const beside = computed(() =>
    Math.max(
      1,
      Math.floor((viewWidth.value - margins.value + sheetGap + 1) / (pixels(widest.value) * desk.zoom + sheetGap)),
    ),
  )
  const zoomOf = computed(() => (desk.arrangement === 'contact' ? contactWidth / pixels(widest.value) : desk.zoom))

  /**
   * Makes the widest sheet and the marks in its margin fit the view; where there is room for more sheets at a good size,
   * they stand side by side. It stays so when the view gets wider or narrower, until somebody zooms.
   */
  function fit(): void {
    if (!scroller.value || desk.shown.length === 0) return
    const wide = pixels(widest.value) * (desk.arrangement === 'spreads' ? 2 : 1)
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
  useResizeObserver(scroller, ([entry]) => {
    if (!entry) return
    viewWidth.value = entry.contentRect.width
    if (desk.fitted && desk.arrangement !== 'contact') fit()
  })

  /** Zooms so that the point under the pointer stays where it is. */
  function zoomAt(factor: number, clientX: number, clientY: number): void {
    const view = scroller.value
    const before = desk.zoom
    const next = Math.max(zooms.least, Math.min(zooms.most, before * factor))
    const sheet = sheetOf(desk.page)
    if (!view || next === before || !sheet) return
    desk.fitted = false
    const box = sheet.getBoundingClientRect()
    const [x, y] = [(clientX - box.left) / before, (clientY - box.top) / before]
    desk.zoom = next
    hold()
    void nextTick(() => {
      const now = sheet.getBoundingClientRect()
      view.scrollLeft += now.left + x * next - clientX
      view.scrollTop += now.top + y * next - clientY
      desk.scrolled++
    })
  }

  /** Zooms by key or button: towards what was walked to, while it is in sight, else towards the middle. */
  function zoomHere(factor: number): void {
    const view = scroller.value!.getBoundingClientRect()
    const to = walkedTo.value
    const sheet = to && sheetOf(to.page)?.getBoundingClientRect()
    const s = pixels(desk.zoom)
    const at =
      sheet && to
        ? { x: sheet.left + (to.box.x + to.box.width / 2) * s, y: sheet.top + (to.box.y + to.box.height / 2) * s }
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

  return { margins, beside, zoomOf, fit, zoomHere, wheel, touch }
}
