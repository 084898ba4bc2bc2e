import type { Occurrence } from '../census/occurrence'
import { pagesOf } from '../census/text-pages'
import { standingParagraphs } from '../document/stories'
import { RemarkFinder, textPlace, type FoundPlace, type Stretch } from '../remarks/find-place'
import type { RemarkPlace, TextPlace } from '../remarks/remark'
import type { DocumentSession } from '../session'
import { paragraphText } from '../style/runs'

/** Where the words of a remark are now: what the sheets mark, null where there is nothing to mark. */
export interface PlacedRemark {
  readonly state: FoundPlace['state']
  readonly occurrence: Occurrence | null
  /** From 0; -1 where no page shows it. */
  readonly page: number
}

const marked = ({ part, node, from, to }: Stretch, page: number): Occurrence => ({
  part,
  node,
  start: from,
  end: to,
  page,
  face: '',
  voice: '',
  place: 'body',
})

/** The places of remarks in a document as it is set now, in their order; places on pages stay on theirs. */
export function placedRemarks(session: DocumentSession, places: readonly (RemarkPlace | null)[]): PlacedRemark[] {
  const finder = new RemarkFinder(session.reading)
  const pages = pagesOf(session.composition)
  return places.map((place): PlacedRemark => {
    if (place === null) return { state: 'there', occurrence: null, page: -1 }
    if (place.kind === 'page') {
      const isThere = place.page < session.composition.pages.length
      return { state: isThere ? 'there' : 'gone', occurrence: null, page: isThere ? place.page : -1 }
    }
    const found = finder.find(place)
    if (!found || found.state === 'gone') return { state: 'gone', occurrence: null, page: -1 }
    const page = pages(found.part, found.node, found.from, Math.max(found.to, found.from + 1))[0] ?? -1
    return { state: found.state, occurrence: marked(found, page), page }
  })
}

/** What a remark about selected text would be about: the words of its first paragraph. Null where that is not there. */
export function quotedPlace(session: DocumentSession, stretch: Stretch): TextPlace | null {
  for (const { paragraph } of standingParagraphs(session.reading))
    if (paragraph.node === stretch.node && paragraph.part === stretch.part)
      return textPlace(paragraphText(paragraph), stretch)
  return null
}
