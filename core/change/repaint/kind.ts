import { namedColors, repaint, type NamedColor, type Painted } from '../../document/colours'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { repaintSchema, type Paint, type RepaintWish } from './wish'

/** What is painted, as a plan tells it. */
export const paintedWords: Readonly<Record<Painted, string>> = {
  text: 'Text',
  fill: 'Fills of shapes',
  line: 'Lines and borders',
  ground: 'Grounds',
  series: 'Series of charts',
}

/** As many places of a row are told. */
const toldPlaces = 1_000

/** Where a document names the colours of a wish, by colour and by what they are on, in the order of the wish. */
function placesOf(planner: Planner, paints: readonly Paint[]): Map<Paint, Map<Painted, NamedColor[]>> {
  const byColor = new Map<string, Paint[]>()
  for (const paint of paints) byColor.set(paint.from, [...(byColor.get(paint.from) ?? []), paint])
  const found = new Map<Paint, Map<Painted, NamedColor[]>>(paints.map(paint => [paint, new Map()]))
  for (const named of namedColors(planner.document)) {
    // The first that speaks of it has it: a colour is painted once.
    const paint = byColor.get(named.color)?.find(each => each.on.includes(named.on))
    if (!paint || paint.to === named.color) continue
    const places = found.get(paint)!
    places.set(named.on, [...(places.get(named.on) ?? []), named])
  }
  return found
}

/** Lists the places of one colour on one sort of thing; whether they are painted. */
function listed(planner: Planner, { from, to }: Paint, on: Painted, places: readonly NamedColor[]): boolean {
  return planner.row({
    key: { what: 'painted', from, on },
    stage: 'paint',
    optional: true,
    title: `${paintedWords[on]}, ${from}`,
    count: places.length,
    before: from,
    after: to,
    places: places.slice(0, toldPlaces).map(({ part, node, attribute }) => ({ part, node, attribute })),
  })
}

/** Paints what a document names, and says what it is called; null where none of the colours is named. */
export function paintAll(planner: Planner, paints: readonly Paint[]): string | null {
  const own = planner.rows.length
  let painted = 0
  for (const [paint, things] of placesOf(planner, paints))
    for (const [on, places] of things) {
      if (!listed(planner, paint, on, places)) continue
      painted += places.length
      for (const place of places) repaint(planner.change.on(place.part), place, paint.to)
    }
  if (planner.rows.length === own) return null
  // Automatic styles that were looked at before say other colours now.
  planner.forgetAutomatic()
  return `Paint ${counted(painted, 'place')} in ${counted(new Set(paints.map(each => each.to)).size, 'colour')}`
}

export const repaintKind = oneByOne<RepaintWish>({
  type: 'repaint',
  schema: repaintSchema,
  most: 20,
  act(planner, { paints }) {
    const title = paintAll(planner, paints)
    if (title === null)
      throw new NothingToPlan('None of these colours is named in this document, or they are as they shall be already.')
    return title
  },
  sentence: ({ paints }) => {
    const told = paints
      .slice(0, 5)
      .map(({ from, to, on }) => `${to} for ${from} (${on.map(each => paintedWords[each].toLowerCase()).join(', ')})`)
    return `Put ${told.join('; ')}${paints.length > 5 ? `; and ${counted(paints.length - 5, 'colour')} more` : ''}.`
  },
})
