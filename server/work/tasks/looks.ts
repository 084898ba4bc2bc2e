import { needsDrawingUp } from '../../../core/change/draw-up/kind'
import { drawUpSchema } from '../../../core/change/draw-up/wish'
import type { Registry } from '../../../core/change/registry'
import { layOpen } from '../../../core/change/styles/style-list'
import { finishedCensus } from '../../../core/format/finished/census'
import { openPdf } from '../../../core/format/finished/open'
import { isPdf } from '../../../core/format/finished/sections'
import { houseFromDocuments } from '../../../core/house/make-house'
import { measureToStyle } from '../../../core/house/to-style'
import type { DocumentSession } from '../../../core/session'
import { displayPage } from '../../../core/typeset/display'
import { pageSvg } from '../../../core/typeset/svg'
import { pdfPicture } from '../../library/pdf-pictures'
import { begin, beginPlain } from './begin'
import type { Carriers, Results } from './task'

/** How wide pictures of finished pages are: on a card of the shelf, and to be read. Pixels. */
const cardWidth = 252
const readableWidth = 1_200

/** A page as it is set, or nothing where there is none. */
function pagePicture({ composition, typesetter }: DocumentSession, index: number): string {
  const page = composition.pages[index]
  return page ? pageSvg(displayPage(page), typesetter.shaper) : ''
}

/** Counts a finished PDF; a first page that cannot be drawn leaves its card without a picture. */
async function surveyFinished(bytes: Uint8Array): Promise<Results['survey']> {
  const census = finishedCensus(await openPdf(bytes))
  const firstPage = await pdfPicture(bytes, 0, cardWidth).then(
    ({ svg }) => svg,
    () => '',
  )
  return { census, firstPage }
}

/** A document as it would be drawn up, where its own styles say too little. */
function drawnUp(session: DocumentSession, kinds: Registry): DocumentSession {
  if (!needsDrawingUp(session.reading, session.typesetter.library)) return session
  const wishes = [drawUpSchema.parse({ type: 'draw-up' })]
  return kinds.plan(session, { wishes, leftOut: [] }, { effects: false }).after
}

/** What is in a document, how it looks, and how far from a house it is. */
export const lookTasks: Carriers<'survey' | 'pagePicture' | 'styleList' | 'toStyle' | 'houseFrom'> = {
  async survey(task) {
    if (isPdf(task.bytes)) return surveyFinished(task.bytes)
    const session = await begin(task)
    return { census: session.detail.census, firstPage: pagePicture(session, 0) }
  },
  async pagePicture(task) {
    if (isPdf(task.bytes)) return pdfPicture(task.bytes, task.page, readableWidth)
    const session = await begin(task)
    return { svg: pagePicture(session, task.page), pages: session.composition.pages.length }
  },
  styleList(task) {
    const { reading, typesetter } = beginPlain(task)
    return layOpen(reading, typesetter.library)
  },
  toStyle(task) {
    const { reading } = beginPlain(task)
    const { characters, toStyle, roles } = measureToStyle(reading, task.house)
    const { house: dressed } = reading.cascade.rules
    return { characters, toStyle, roles, dressed: dressed?.id === task.of ? dressed.version : null }
  },
  houseFrom({ name, documents }, kinds) {
    return houseFromDocuments(
      name,
      documents.map(each => drawnUp(beginPlain(each), kinds).reading),
    )
  },
}
