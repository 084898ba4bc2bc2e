import type { Occurrence } from '../census/occurrence'
import { holdingStyle, type StyleFamily } from '../style/families'
import { pagesOf } from '../census/text-pages'
import type { Paragraph, Story } from '../document/story-model'
import { standingParagraphs } from '../document/stories'
import type { DocumentSession } from '../session'
import { paragraphRuns } from '../style/runs'

/** As many places are walked through. */
const placeLimit = 5_000

const layersOf = (session: DocumentSession, paragraph: Paragraph, story: Story) =>
  session.cascadeOf(paragraph.part).paragraph(paragraph, story.role).text.effective.layers

/** The name of the named paragraph style that a paragraph goes by. */
export function namedStyleOf(session: DocumentSession, paragraph: Paragraph, story: Story): string | null {
  return holdingStyle(layersOf(session, paragraph, story), 'paragraph')?.name ?? null
}

/** Names of the document's paragraph styles, for pasted structure to be mapped to. */
export function paragraphStyleNames(session: DocumentSession): string[] {
  const scope = session.reading.cascade.scopes.values().next().value
  return scope ? [...scope.common.values()].filter(style => style.family === 'paragraph').map(style => style.name) : []
}

/** A paragraph that has text of a style, and where in it. */
interface StyledParagraph {
  readonly paragraph: Paragraph
  readonly text: string
  readonly ranges: readonly { readonly start: number; readonly end: number }[]
}

/** Paragraphs of a paragraph style, or in a frame or cell of a style, whole, or those with text of a text style, in reading order. */
function* styledParagraphs(session: DocumentSession, family: StyleFamily, name: string): Generator<StyledParagraph> {
  for (const { paragraph, story } of standingParagraphs(session.reading)) {
    if (family !== 'text' && holdingStyle(layersOf(session, paragraph, story), family)?.name !== name) continue
    const { text, runs } = paragraphRuns(paragraph, session.cascadeOf(paragraph.part), story.role)
    const ranges =
      family !== 'text'
        ? [{ start: 0, end: text.length }]
        : runs.filter(run =>
            run.style.effective.layers.some(layer => layer.from === 'text' && layer.style.name === name),
          )
    if (text.length > 0 && ranges.length > 0) yield { paragraph, text, ranges }
  }
}

/** Where text of a style stands, to walk through, in reading order: some 5,000 places at most. */
export function styledPlaces(session: DocumentSession, family: StyleFamily, name: string): Occurrence[] {
  const where = pagesOf(session.composition)
  const places: Occurrence[] = []
  for (const { paragraph, ranges } of styledParagraphs(session, family, name)) {
    const { part, node, place } = paragraph
    for (const { start, end } of ranges)
      places.push({ part, node, start, end, page: where(part, node, start, end)[0] ?? -1, face: '', voice: '', place })
    if (places.length >= placeLimit) break
  }
  return places
}

/** The longest beginning of a paragraph in a style, or its words in a text style, as a sample of it; '' for none. */
export function styledSample(session: DocumentSession, family: StyleFamily, name: string): string {
  let best = ''
  for (const { text, ranges } of styledParagraphs(session, family, name)) {
    const own = ranges.map(({ start, end }) => text.slice(start, end)).join(' ')
    if (own.length > best.length)
      best = own
        .replaceAll('\uFFFC', '')
        .slice(0, 160)
        .replace(/(?<=.{100})\s\S*$/, ' …')
    if (best.length >= 120) break
  }
  return best
}
