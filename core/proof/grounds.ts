import type { Layer } from '../style/layers'
import { contrast } from '../colour/contrast'
import { displayPage, type DisplayPage } from '../typeset/display'
import type { GlyphRun } from '../typeset/glyph-runs'
import { Grounds, isDark, makesGround } from '../typeset/grounds'
import { mapped } from '../typeset/matrix'
import type { Page } from '../typeset/page'
import { seenRuns, type ProofText, type Subject } from './subject'

/** Text of one colour on what it stands on. */
export interface OnGround {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly color: string
  /** Where its contrast is least; null where that has no one colour. */
  readonly ground: string | null
  readonly size: number
  readonly weight: number
  /** What styles it. */
  readonly layers: readonly Layer[]
}

/** Places of a run that are looked at: its two ends and its middle, at the middle of small letters. */
const samples = [0.02, 0.5, 0.98] as const

/** How many shapes lie below a run. */
function shapesBelow({ layers }: DisplayPage, run: number): number {
  let shapes = 0
  for (const layer of layers) {
    if (layer.of === 'shapes') shapes = layer.to
    else if (run < layer.to) return shapes
  }
  return shapes
}

/** The ground of a run where its contrast is least. A picture counts where nothing plain is worse than enough. */
function worstGround(run: GlyphRun, grounds: Grounds, below: number): string | null {
  if (/^#[0-9a-f]{6}$/i.test(run.background)) return run.background
  const found = samples.map(share => {
    const place = { x: run.x + run.width * share, y: run.y - run.size / 4 }
    return grounds.colorAt(run.matrix ? mapped(run.matrix, place.x, place.y) : place, below)
  })
  const plain = found.filter(each => each !== null).sort((a, b) => contrast(run.color, a) - contrast(run.color, b))
  if (plain.length < found.length && (plain.length === 0 || contrast(run.color, plain[0]!) >= 4.5)) return null
  return plain[0]!
}

/** Text of a page on which nothing makes a ground: by its runs alone, wherever they stand. */
function* onThePage(subject: Subject, page: Page): Generator<OnGround> {
  for (const fragment of page.fragments) {
    if (fragment.kind !== 'lines') continue
    const { part, node } = fragment.layout.paragraph
    const text = subject.textAt(part, node)
    for (const { run, values, color } of text ? seenRuns(text) : []) {
      const own = run.style.effective.shared['fo:background-color']
      const background = /^#[0-9a-f]{6}$/i.test(own) ? own : page.geometry.background
      // Without a colour of its own it is white on what is dark.
      const automatic = !/^#/.test(run.style.effective.shared['fo:color'])
      const ground = background || '#ffffff'
      yield {
        text: text!,
        from: run.start,
        to: run.end,
        color: automatic && isDark(ground) ? '#ffffff' : color,
        ground,
        size: values.size,
        weight: values.weight,
        layers: run.style.effective.layers,
      }
    }
  }
}

/** Text of a page by what is drawn of it, and what lies below. */
function* onShapes(subject: Subject, page: Page): Generator<OnGround> {
  const display = displayPage(page)
  const grounds = new Grounds(display.shapes, display.background)
  for (const [index, run] of display.runs.entries()) {
    const text = run.own ? subject.textAt(run.part, run.node) : undefined
    const words = text?.text.slice(run.start, run.end) ?? ''
    if (!text || words.trim() === '' || !/^#[0-9a-f]{6}$/i.test(run.color)) continue
    const styled = text.runs.find(each => each.start <= run.start && each.end > run.start)?.style ?? text.own
    const { slots, layers } = styled.effective
    yield {
      text,
      from: run.start,
      to: run.end,
      color: run.color,
      ground: worstGround(run, grounds, shapesBelow(display, index)),
      size: run.size,
      weight: slots[run.slot].weight,
      layers,
    }
  }
}

const goOn = (one: OnGround, other: OnGround): boolean =>
  one.text === other.text && one.color === other.color && one.ground === other.ground && one.size === other.size

/** All text of the pages with the grounds it stands on; neighbours of one paragraph that share colour and ground as one. */
export function* groundsOf(subject: Subject): Generator<OnGround> {
  const seen = new Set<string>()
  for (const page of subject.session.composition.pages) {
    let last = null as OnGround | null
    for (const found of page.fragments.some(makesGround) ? onShapes(subject, page) : onThePage(subject, page)) {
      if (last && goOn(last, found))
        last = { ...last, from: Math.min(last.from, found.from), to: Math.max(last.to, found.to) }
      else {
        if (last) yield* once(last, seen)
        last = found
      }
    }
    if (last) yield* once(last, seen)
  }
}

/** Text of masters stands on many pages: it is told once. */
function* once(found: OnGround, seen: Set<string>): Generator<OnGround> {
  const { part, node } = found.text.paragraph
  const key = `${part}#${node}#${found.from}#${found.ground}`
  if (seen.has(key)) return
  seen.add(key)
  yield found
}
