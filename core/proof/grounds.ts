import type { Layer } from '../style/layers'
import { contrast } from '../colour/contrast'
import { displayPage, type DisplayPage } from '../typeset/display'
import type { GlyphRun } from '../typeset/glyph-runs'
import { Grounds, isDark, makesGround, type GroundAt, type GroundKind, type Rasters } from '../typeset/grounds'
import { mapped } from '../typeset/matrix'
import type { Page } from '../typeset/page'
import { rasterOf } from '../typeset/raster'
import { seenRuns, type ProofText, type Subject } from './subject'

/** Text of one colour on what it stands on. */
export interface OnGround {
  readonly text: ProofText
  readonly from: number
  readonly to: number
  readonly color: string
  /** What it stands on, for the most part of one colour or not. */
  readonly on: GroundKind
  /**
   * Where its contrast is least; of pictures and gradients what a tenth of it is worse than, so that a speck does not count.
   * Null for a picture that cannot be looked into.
   */
  readonly ground: string | null
  /** The darkest and the lightest that it stands on; of one colour both are that. */
  readonly extremes: readonly [string, string] | null
  readonly size: number
  readonly weight: number
  /** What styles it. */
  readonly layers: readonly Layer[]
}

/** Places of a run that are looked at: its two ends and its middle, at the middle of small letters. */
const samples = [0.02, 0.5, 0.98] as const
/** Where colours vary, so many places along a run are looked at, and at these heights over its baseline, in its size. */
const columns = 24
const heights = [0, 0.24, 0.48, 0.7] as const
/** The share of what varies that may be worse than what is told. */
const specks = 0.1

/** How many shapes lie below a run. */
function shapesBelow({ layers }: DisplayPage, run: number): number {
  let shapes = 0
  for (const layer of layers) {
    if (layer.of === 'shapes') shapes = layer.to
    else if (run < layer.to) return shapes
  }
  return shapes
}

type Ground = Pick<OnGround, 'on' | 'ground' | 'extremes'>

/** What places of a run lie on, in the order of contrast, the least first. */
function groundsUnder(run: GlyphRun, at: (place: { x: number; y: number }) => GroundAt, closely: boolean): GroundAt[] {
  const along = closely ? Array.from({ length: columns }, (_, column) => (column + 0.5) / columns) : samples
  const found = along.flatMap(share =>
    (closely ? heights : [0.25]).map(height => {
      const place = { x: run.x + run.width * share, y: run.y - run.size * height }
      return at(run.matrix ? mapped(run.matrix, place.x, place.y) : place)
    }),
  )
  const ratio = ({ color }: GroundAt) => (color === null ? 0 : contrast(run.color, color))
  return found.sort((a, b) => ratio(a) - ratio(b))
}

/** The ground of a run where its contrast is least. A picture that is not known counts where nothing is worse than enough. */
function worstGround(run: GlyphRun, at: (place: { x: number; y: number }) => GroundAt): Ground {
  const only = (ground: string): Ground => ({ on: 'plain', ground, extremes: [ground, ground] })
  if (/^#[0-9a-f]{6}$/i.test(run.background)) return only(run.background)
  const few = groundsUnder(run, at, false)
  const isPlain = few.every(each => each.kind === 'plain')
  const all = isPlain ? few : groundsUnder(run, at, true)
  const seen = all.flatMap(({ color }) => color ?? [])
  const plain = all.find(each => each.kind === 'plain')?.color
  if (isPlain || (plain && contrast(run.color, plain) < 3)) return only(plain!)
  const on = all.some(each => each.kind === 'picture') ? 'picture' : 'gradient'
  if (seen.length < all.length) return { on, ground: null, extremes: null }
  const byLight = seen.toSorted((a, b) => contrast(a, '#000000') - contrast(b, '#000000'))
  return { on, ground: seen[Math.floor(seen.length * specks)]!, extremes: [byLight[0]!, byLight.at(-1)!] }
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
        on: 'plain',
        ground,
        extremes: [ground, ground],
        size: values.size,
        weight: values.weight,
        layers: run.style.effective.layers,
      }
    }
  }
}

/** Text of a page by what is drawn of it, and what lies below. */
function* onShapes(subject: Subject, page: Page, rasters: Rasters): Generator<OnGround> {
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
      ...worstGround(run, place => grounds.at(place, rasters, shapesBelow(display, index))),
      size: run.size,
      weight: slots[run.slot].weight,
      layers,
    }
  }
}

/** Neighbours of one paragraph that look alike and stand on the same, or on one picture, as one, by its worst place. */
function joined(one: OnGround, other: OnGround): OnGround | null {
  if (one.text !== other.text || one.color !== other.color || one.size !== other.size || one.on !== other.on)
    return null
  if (one.on === 'plain' && one.ground !== other.ground) return null
  const [from, to] = [Math.min(one.from, other.from), Math.max(one.to, other.to)]
  if (one.on === 'plain') return { ...one, from, to }
  if (!one.extremes || !other.extremes || !one.ground || !other.ground)
    return { ...one, from, to, ground: null, extremes: null }
  const byLight = [...one.extremes, ...other.extremes].sort((a, b) => contrast(a, '#000000') - contrast(b, '#000000'))
  const worse = contrast(one.color, one.ground) <= contrast(other.color, other.ground) ? one : other
  return { ...worse, from, to, extremes: [byLight[0]!, byLight.at(-1)!] }
}

/** Run by run, whatever styles it. */
const onPage = (subject: Subject, page: Page): Generator<OnGround> =>
  page.fragments.some(makesGround)
    ? onShapes(subject, page, href => rasterOf(subject.session.document, href))
    : onThePage(subject, page)

/** All text of the pages with the grounds it stands on, run by run: each is of one style. */
export function* groundsByRun(subject: Subject): Generator<OnGround> {
  const seen = new Map<ProofText, OnGround[]>()
  for (const page of subject.session.composition.pages)
    for (const each of onPage(subject, page)) yield* once(each, seen)
}

/** All text of the pages with the grounds it stands on; neighbours of one paragraph that share colour and ground as one. */
export function* groundsOf(subject: Subject): Generator<OnGround> {
  const seen = new Map<ProofText, OnGround[]>()
  for (const page of subject.session.composition.pages) {
    let last = null as OnGround | null
    for (const each of onPage(subject, page)) {
      const both: OnGround | null = last && joined(last, each)
      if (last && !both) yield* once(last, seen)
      last = both ?? each
    }
    if (last) yield* once(last, seen)
  }
}

/** Text of masters stands on many pages: it is told once. */
function* once(found: OnGround, seen: Map<ProofText, OnGround[]>): Generator<OnGround> {
  const known = seen.get(found.text)
  if (known?.some(each => each.from === found.from && each.ground === found.ground)) return
  if (known) known.push(found)
  else seen.set(found.text, [found])
  yield found
}
