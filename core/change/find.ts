import { standingParagraphs } from '../document/stories'
import { paragraphText } from '../style/runs'
import type { PageView } from '../typeset/drawing-pages'
import type { Composition } from '../typeset/compose'

/** Where text was found: a paragraph, a range of its text, and the page that shows it; -1 for none. */
export interface FoundText {
  readonly part: string
  readonly node: number
  readonly from: number
  readonly to: number
  readonly page: number
  readonly view: PageView
}

const findLimit = 5000

/**
 * A string as it is compared: case folded, compatibility forms kept apart. Lengths must stay, so only single units
 * are folded.
 */
function folded(text: string): string {
  let result = ''
  for (const unit of text.split('')) {
    const low = unit.toLowerCase()
    result += low.length === 1 ? low : unit
  }
  return result
}

/**
 * Every place of some text, in reading order, at most 5000. White space must match as it is written: what looks for
 * two spaces finds two. The document's own text is searched, in notes and masters too; that of charts is not.
 */
export function findText(composition: Composition, wanted: string, matchCase: boolean): FoundText[] {
  if (wanted === '') return []
  const needle = matchCase ? wanted : folded(wanted)
  const pages = new Map<string, { view: PageView; page: number; start: number }[]>()
  for (const view of ['pages', 'notes', 'masters'] as const) {
    for (const page of composition[view]) {
      for (const fragment of page.fragments) {
        if (fragment.kind !== 'lines') continue
        const { paragraph, lines } = fragment.layout
        const key = `${paragraph.part}#${paragraph.node}`
        const list = pages.get(key) ?? []
        if (list.length === 0) pages.set(key, list)
        list.push({ view, page: page.index, start: fragment.from === 0 ? 0 : lines[fragment.from]!.start })
      }
    }
  }
  const found: FoundText[] = []
  for (const { paragraph } of standingParagraphs(composition.reading)) {
    const text = matchCase ? paragraphText(paragraph) : folded(paragraphText(paragraph))
    for (let at = text.indexOf(needle); at >= 0; at = text.indexOf(needle, at + needle.length)) {
      const places = pages.get(`${paragraph.part}#${paragraph.node}`) ?? []
      // Text of a master is on many pages: the first is as good as any.
      const place = places.reduce<(typeof places)[number] | undefined>(
        (best, each) => (each.start <= at && (!best || each.start > best.start) ? each : best),
        undefined,
      )
      found.push({
        part: paragraph.part,
        node: paragraph.node,
        from: at,
        to: at + needle.length,
        page: place?.page ?? -1,
        view: place?.view ?? 'pages',
      })
      if (found.length >= findLimit) return found
    }
  }
  return found
}
