import { openPdf } from '~~/core/format/finished/open'
import { FinishedReader } from '~~/core/format/finished/reader'
import { proofOfFinished } from '~~/core/format/finished/proof'
import { Library } from '~~/core/font/library'
import { answerAsks } from './answering'
import type { FinishedAsks } from './finished-messages'

/* Holds the finished PDF that is on the desk: reads its pages, finds words and fonts, looks it over. It changes nothing. */

let reader: FinishedReader | null = null
let library = new Library([])
function open(): FinishedReader {
  if (!reader) throw new Error('There is no PDF on the desk.')
  return reader
}

answerAsks<FinishedAsks>({
  async open({ bytes, faces }) {
    reader = new FinishedReader(await openPdf(bytes))
    library = new Library(faces)
    const { finished, looks } = reader
    return { looks: looks.map(({ width, height }) => ({ width, height })), language: finished.language }
  },
  census: () => open().census,
  lines: ({ page }) => open().lines(page),
  find: ({ words, matchCase }) => open().find(words, matchCase),
  placesOf: ({ font }) => open().placesOf(font),
  proof: ({ house, checklist, madeFor }) => proofOfFinished({ reader: open(), library, house, madeFor }, checklist),
})
