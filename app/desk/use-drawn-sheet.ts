import type { Ref } from 'vue'
import type { DisplayPage } from '~~/core/typeset/display'
import type { PageView } from '~~/core/typeset/drawing-pages'
import { useDesk } from '../stores/desk'
import type { Drawn, Side } from '../workers/messages'
import { drawPage, keepOutlines, vectorPicture } from './drawing'

/** Which page is drawn, and how. */
export interface DrawnSheet {
  side: Side
  index: number
  /** It is near what is seen. */
  live: boolean
  /** Counts up when pages may be others. */
  generation: number
  /** Keys of faces whose text is picked out. */
  faces?: ReadonlySet<string>
  /** Nothing but the page. */
  plain?: boolean
}

/** What a page is drawn on, and what it is told by. */
interface SheetSurface {
  readonly sheet: Ref<HTMLElement | null>
  readonly canvas: Ref<HTMLCanvasElement | null>
  /** CSS pixels per point. */
  readonly scale: Readonly<Ref<number>>
  readonly view: Readonly<Ref<PageView>>
  /** What is chosen, strayed or walked to is marked. */
  readonly marked: Readonly<Ref<boolean>>
  readonly edits: Readonly<Ref<boolean>>
  /** What hangs over the left edge needs so much room beside the sheet. Pixels. */
  readonly beside: (pixels: number) => void
}

/** Larger canvases than this, in device pixels, are drawn only where they are looked at. */
const largest = 12_000_000

/** A page on its canvas: fetched when it comes near, and drawn anew whenever what it shows is another. */
export function useDrawnSheet(props: DrawnSheet, { sheet, canvas, scale, view, marked, edits, beside }: SheetSurface) {
  const desk = useDesk()
  const drawn = shallowRef<Drawn | null>(null)
  const pictures = shallowRef(new Map<string, CanvasImageSource | 'unshown'>())
  const failure = ref('')
  /** The piece of desk that the canvas covers, in points. */
  const covered = shallowRef({ x: 0, y: 0, width: 0, height: 0 })

  /** Fetches the pictures of a page. Returns those that are absent, by their names. */
  async function loadPictures({ page }: Drawn): Promise<string[]> {
    const absent: string[] = []
    for (const shape of page.shapes) {
      if (shape.kind !== 'image' || pictures.value.has(shape.href)) continue
      const picture = await desk.engine?.ask('picture', { href: shape.href })
      const shown = picture?.bitmap ?? (picture?.svg ? await vectorPicture(picture.svg) : null)
      if (shown || picture?.absent === false)
        pictures.value = new Map(pictures.value).set(shape.href, shown ?? 'unshown')
      else absent.push(shape.name || shape.href.split('/').at(-1) || 'a picture without a file')
    }
    return absent
  }

  let loading = 0
  async function load(): Promise<void> {
    if (!desk.engine) return
    const own = ++loading
    try {
      const next = await desk.engine.ask('page', { side: props.side, view: view.value, index: props.index })
      keepOutlines(next)
      if (own !== loading) return
      drawn.value = next
      failure.value = ''
      const absent = await loadPictures(next)
      if (props.plain) return
      const key = `${view.value}/${props.index}`
      desk.offPage = { ...desk.offPage, [key]: next.page.offPage }
      desk.absentPictures = { ...desk.absentPictures, [key]: absent }
    } catch (error) {
      if (own !== loading) return
      const said = error instanceof Error ? error.message : String(error)
      // A change that is only looked at may need fewer pages than there are now.
      const gone = props.side !== 'now' && said.includes('no such page')
      if (gone) drawn.value = null
      failure.value = gone ? 'This page would be gone.' : `This page cannot be drawn: ${said}`
    }
  }

  function isChosen(index: number): boolean {
    const chosen = desk.chosen
    if (props.faces) return props.faces.has(drawn.value?.faces[index] ?? '')
    if (!chosen || !drawn.value || props.side !== 'now') return false
    return (chosen.of === 'face' ? drawn.value.faces : drawn.value.voices)[index] === chosen.key
  }

  function isCurrent(index: number): boolean {
    const place = desk.current
    const run = drawn.value?.page.runs[index]
    return (
      place !== null &&
      run !== undefined &&
      props.side === 'now' &&
      (desk.chosen === null || isChosen(index)) &&
      run.part === place.part &&
      run.node === place.node &&
      run.start < place.end &&
      run.end > place.start
    )
  }

  /** What the canvas is to cover, in points: the page with what hangs over it, or what is in sight of it. */
  function piece(page: DisplayPage, ratio: number): { x: number; y: number; width: number; height: number } {
    const whole = page.extent
    if (whole.width * whole.height * (scale.value * ratio) ** 2 <= largest) return whole
    const holder = sheet.value?.closest('[data-scroller]')?.getBoundingClientRect()
    const own = sheet.value?.getBoundingClientRect()
    if (!holder || !own) return whole
    const around = 160
    const left = Math.max((holder.left - around - own.left) / scale.value, whole.x)
    const top = Math.max((holder.top - around - own.top) / scale.value, whole.y)
    return {
      x: left,
      y: top,
      width: Math.max(Math.min((holder.right + around - own.left) / scale.value, whole.x + whole.width) - left, 1),
      height: Math.max(Math.min((holder.bottom + around - own.top) / scale.value, whole.y + whole.height) - top, 1),
    }
  }

  function draw(): void {
    const context = canvas.value?.getContext('2d')
    if (!context || !drawn.value) return
    const ratio = window.devicePixelRatio || 1
    const { page, strays } = drawn.value
    const part = piece(page, ratio)
    covered.value = part
    if (!props.plain) beside(Math.min(Math.max(-page.extent.x * scale.value - 30, 0), 600))
    context.canvas.width = Math.max(Math.round(part.width * scale.value * ratio), 1)
    context.canvas.height = Math.max(Math.round(part.height * scale.value * ratio), 1)
    const grid = desk.grid && !props.plain ? (desk.census?.voices[0]?.leading ?? 0) : 0
    drawPage(
      context,
      page,
      { scale: scale.value * ratio, x: part.x, y: part.y },
      {
        shown: marked.value,
        chosen: isChosen,
        current: isCurrent,
        stray: index => edits.value && strays[index]!,
        whiteSpace: desk.whiteSpace && edits.value,
        grid: typeof grid === 'number' ? grid : 0,
      },
      pictures.value,
    )
  }

  watch(
    () => [props.live, props.generation, props.index, props.side, view.value] as const,
    ([live]) => {
      if (live) void load()
    },
    { immediate: true },
  )
  watch(
    [
      drawn,
      pictures,
      scale,
      canvas,
      () => props.faces,
      () => desk.chosen,
      () => desk.current,
      () => desk.marks,
      () => desk.whiteSpace,
      () => desk.grid,
    ],
    draw,
    { flush: 'post' },
  )
  watch(
    () => desk.scrolled,
    () => {
      // Only what is drawn in part needs to follow.
      const whole = drawn.value?.page.extent
      if (whole && props.live && (covered.value.width < whole.width - 0.5 || covered.value.height < whole.height - 0.5))
        draw()
    },
  )
  return { drawn, failure, covered }
}
