import { pairsIn } from '../../census/pairs'
import { openParagraph, type OpenParagraph } from '../../document/paragraph-spots'
import type { Rules } from '../../document/rules'
import { spansAround, spansBy, styleNameAt } from '../../document/span-places'
import { unwrapSpan, wrapRange } from '../../document/spans'
import { addStyle, dropStyle } from '../../document/style-verbs'
import { uniqueName } from '../../document/style-names'
import type { Paragraph, Story } from '../../document/story-model'
import type { Look } from '../../typeset/look'
import { pairSource } from '../../typeset/pair-source'
import type { PairSource } from '../../font/kerning/sides'
import type { Planner } from '../planner'

/*
 * Corrected pairs as spans: the left one of a pair stands in a span whose text style sets its spacing, so that every reader
 * shows it. Across the border of a span no reader kerns by the face, so what the face itself moves the two by is in the
 * spacing, too. Which styles are those of pairs the rules part says; spans of theirs are no local formatting.
 */

/** Spacing is written in hundredths of a point. */
export const rounded = (points: number) => Math.round(points * 100) / 100

/** What faces themselves move pairs by, in thousandths of an em. */
export class OwnKerning {
  private readonly sources = new Map<Look, PairSource | null>()

  constructor(private readonly planner: Planner) {}

  /** In points at the look's size; 0 where the file cannot be had, or the face ties the two. */
  of(look: Look, left: string, right: string): number {
    let source = this.sources.get(look)
    if (source === undefined) {
      source = pairSource(this.planner.session.typesetter.shaper, look.face, look.language, look.features)
      this.sources.set(look, source)
    }
    return (((source?.kern(left, right) ?? 0) * look.size) / 1000) * look.scale
  }
}

/** The name of the style that sets a spacing; made where there is none. */
export function pairStyle(planner: Planner, spacing: number, here: boolean): string {
  const rules = planner.currentRules
  const known = rules.pairStyles.find(each => each.spacing === spacing && each.here === here)
  if (known) return known.style
  const name = uniqueName(
    planner.common.part,
    'text',
    `Pair ${spacing > 0 ? '+' : ''}${spacing} pt${here ? ' here' : ''}`,
  )
  addStyle(planner.common, 'text', name, { text: { 'fo:letter-spacing': `${spacing}pt` } })
  planner.rules = { ...rules, pairStyles: [...rules.pairStyles, { style: name.name, spacing, here }] }
  return name.name
}

interface Piece {
  readonly from: number
  readonly to: number
  readonly spacing: number
}

const styleNames = (rules: Rules, here: boolean): ReadonlyMap<string, number> =>
  new Map(rules.pairStyles.filter(each => each.here === here).map(each => [each.style, each.spacing]))

/** Stretches of a paragraph in spans of some pair styles. */
function piecesBy(open: OpenParagraph, names: ReadonlyMap<string, number>): Piece[] {
  const found: Piece[] = []
  for (const piece of open.pieces) {
    if (piece.end === piece.start) continue
    for (const id of spansAround(open, piece)) {
      const spacing = names.get(styleNameAt(open.part, id) ?? '')
      if (spacing !== undefined) found.push({ from: piece.start, to: piece.end, spacing })
    }
  }
  return found
}

const same = (one: readonly Piece[], other: readonly Piece[]) =>
  one.length === other.length &&
  one.every((piece, at) => {
    const second = other[at]!
    return piece.from === second.from && piece.to === second.to && piece.spacing === second.spacing
  })

/** The pairs of a paragraph that the rules correct; where a place was corrected by itself, that holds. */
function wantedPieces(
  planner: Planner,
  own: OwnKerning,
  paragraph: Paragraph,
  role: Story['role'],
  here: readonly Piece[],
): Piece[] {
  const { kerning } = planner.currentRules
  const wanted: Piece[] = []
  for (const pair of pairsIn(paragraph, role, planner.reading.cascade, planner.session.typesetter)) {
    const { look, left, right, from, border } = pair
    if (look.status === 'absent') continue
    const rule = correctionOf(kerning, look, left, right)
    if (rule === undefined || here.some(each => each.from <= from && each.to > from)) continue
    const spacing = rounded(own.of(look, left, right) + ((rule.amount * look.size) / 1000) * look.scale)
    if (spacing !== 0) wanted.push({ from, to: border, spacing })
  }
  return wanted
}

/** What the rules say of a pair in a look: of the face before the family. */
export function correctionOf(
  kerning: Rules['kerning'],
  { face }: Pick<Look, 'face'>,
  left: string,
  right: string,
): Rules['kerning'][number] | undefined {
  const of = kerning.filter(each => each.left === left && each.right === right && each.family === face.family)
  return of.find(each => each.style === face.style) ?? of.find(each => each.style === undefined)
}

/**
 * Brings the spans of corrected pairs to what the rules say: after corrections, styles or text have changed. Styles that
 * no span goes by any more are dropped.
 */
export function syncPairs(planner: Planner): void {
  const { kerning, pairStyles } = planner.currentRules
  if (kerning.length === 0 && pairStyles.length === 0) return
  const own = new OwnKerning(planner)
  const [ruled, here] = [styleNames(planner.currentRules, false), styleNames(planner.currentRules, true)]
  const places: { part: string; node: number }[] = []
  let changed = 0
  for (const { paragraph, story } of planner.paragraphs()) {
    const draft = planner.change.on(paragraph.part)
    const open = openParagraph(draft.part, paragraph.node)
    const wanted = wantedPieces(planner, own, paragraph, story.role, piecesBy(open, here))
    if (same(piecesBy(open, ruled), wanted)) continue
    for (const span of spansBy(draft.part, name => ruled.has(name), paragraph.node)) unwrapSpan(draft, span)
    for (const piece of [...wanted].reverse())
      wrapRange(draft, paragraph.node, piece.from, piece.to, pairStyle(planner, piece.spacing, false))
    changed++
    if (places.length < 500) places.push({ part: paragraph.part, node: paragraph.node })
  }
  dropUnused(planner)
  if (changed > 0)
    planner.row({
      key: { what: 'spans of pairs' },
      stage: 'pair',
      title: 'Paragraphs in which pairs of letters are set anew',
      count: changed,
      before: 'pairs as they were',
      after: 'as the corrections say, for every reader',
      places,
    })
}

function dropUnused(planner: Planner): void {
  const { pairStyles } = planner.currentRules
  const used = new Set<string>()
  for (const path of planner.document.parts.keys()) {
    const part = planner.change.part(path)
    for (const span of spansBy(part, () => true)) used.add(styleNameAt(part, span) ?? '')
  }
  const gone = new Set(pairStyles.filter(each => !used.has(each.style)).map(each => each.style))
  if (gone.size === 0) return
  planner.rules = { ...planner.currentRules, pairStyles: pairStyles.filter(each => !gone.has(each.style)) }
  const draft = planner.common
  const holder = draft.part.first(draft.part.rootElement, 'office:styles')
  for (const element of holder ? [...draft.part.elements(holder, 'style:style')] : [])
    if (element.attributes['style:family'] === 'text' && gone.has(element.attributes['style:name'] ?? ''))
      dropStyle(draft, element.id)
}
