import { pairsIn, type PairAt } from '../../census/pairs'
import { openParagraph } from '../../document/paragraph-spots'
import { spansAround, styleNameAt } from '../../document/span-places'
import { unwrapSpan, wrapRange } from '../../document/spans'
import { PlanError, type PlanPlace } from '../plan'
import type { Planner } from '../planner'
import { OwnKerning, pairStyle, rounded } from './pair-spans'
import { amountWords, pairTitle, type PairCorrection, type PlaceCorrection } from './wish'

const of = (one: Omit<PairCorrection, 'amount'>, other: Omit<PairCorrection, 'amount'>) =>
  one.family === other.family && one.style === other.style && one.left === other.left && one.right === other.right

/** As many corrections are kept in one document. */
const correctionLimit = 5000

/** Sets what pairs are corrected by in a face or family; 0 takes a correction away. Spans are brought to it at the end. */
export function correctPairs(planner: Planner, corrections: readonly PairCorrection[]): void {
  if (corrections.length === 0) return
  const found = placesOf(planner, corrections)
  corrections.forEach((correction, index) => {
    const rules = planner.currentRules
    const before = rules.kerning.find(each => of(each, correction))?.amount ?? 0
    const places = found[index]!
    const { amount: _amount, ...pair } = correction
    const included = planner.row({
      key: { what: 'pair', family: pair.family, style: pair.style ?? '', left: pair.left, right: pair.right },
      stage: 'pair',
      title: pairTitle(pair),
      count: Math.max(places.count, 1),
      characters: places.count * 2,
      before: amountWords(before),
      after: amountWords(correction.amount),
      optional: true,
      places: places.first,
      reason: before === correction.amount ? 'It is set like this already.' : null,
    })
    if (!included) return
    const others = rules.kerning.filter(each => !of(each, correction))
    if (others.length >= correctionLimit)
      throw new PlanError(`A document keeps ${correctionLimit} corrected pairs. This one was not added.`)
    planner.rules = { ...rules, kerning: correction.amount === 0 ? others : [...others, correction] }
  })
}

interface Found {
  count: number
  first: PlanPlace[]
}

/** Where pairs stand that are to be corrected. */
function placesOf(planner: Planner, corrections: readonly PairCorrection[]): Found[] {
  const found: Found[] = corrections.map(() => ({ count: 0, first: [] }))
  const wanted = new Map<string, number[]>()
  corrections.forEach(({ left, right }, index) => {
    const key = JSON.stringify([left, right])
    wanted.set(key, [...(wanted.get(key) ?? []), index])
  })
  for (const { paragraph, story } of planner.paragraphs()) {
    for (const { left, right, from, border, look } of pairsIn(
      paragraph,
      story.role,
      planner.reading.cascade,
      planner.session.typesetter,
    ))
      for (const index of wanted.get(JSON.stringify([left, right])) ?? []) {
        const { family, style } = corrections[index]!
        if (look.face.family !== family || (style !== undefined && look.face.style !== style)) continue
        const own = found[index]!
        own.count++
        if (own.first.length < 500)
          own.first.push({ part: paragraph.part, node: paragraph.node, from, to: border + right.length })
      }
  }
  return found
}

/** The pair whose left letter begins at a place. @throws PlanError where there is none any more */
function pairAt(planner: Planner, { part, node, from }: PlaceCorrection): PairAt {
  for (const { paragraph, story } of planner.paragraphs()) {
    if (paragraph.part !== part || paragraph.node !== node) continue
    for (const pair of pairsIn(paragraph, story.role, planner.reading.cascade, planner.session.typesetter))
      if (pair.from === from) return pair
  }
  throw new PlanError('The pair of letters is not at that place any more. Nothing was changed.')
}

/** Sets pairs at single places, whatever their face says; 0 leaves them to the face again. */
export function correctPlaces(planner: Planner, places: readonly PlaceCorrection[]): void {
  const own = new OwnKerning(planner)
  for (const place of places) {
    const { left, right, from, border, look } = pairAt(planner, place)
    const included = planner.row({
      key: { what: 'pair here', part: place.part, node: place.node, from },
      stage: 'pair',
      title: `“${left}${right}” at one place`,
      characters: 2,
      before: 'as elsewhere',
      after: amountWords(place.amount),
      optional: true,
      places: [{ part: place.part, node: place.node, from, to: border + right.length }],
    })
    if (!included) continue
    const draft = planner.change.on(place.part)
    const names = new Set(planner.currentRules.pairStyles.map(each => each.style))
    const open = openParagraph(draft.part, place.node)
    const piece = open.pieces.find(each => each.start <= from && each.end > from)
    for (const span of piece ? spansAround(open, piece) : [])
      if (names.has(styleNameAt(open.part, span) ?? '')) unwrapSpan(draft, span)
    if (place.amount !== 0) {
      const spacing = rounded(own.of(look, left, right) + ((place.amount * look.size) / 1000) * look.scale)
      wrapRange(draft, place.node, from, border, pairStyle(planner, spacing, true))
    }
    planner.reread()
  }
}
