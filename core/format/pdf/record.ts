import { PDFDocument } from '@cantoo/pdf-lib'
import { DocumentSession } from '../../session'
import type { Composition } from '../../typeset/compose'
import { displayPage } from '../../typeset/display'
import type { Typesetter } from '../../typeset/look'
import type { Page } from '../../typeset/page'
import { plainRun, type ReadBlock } from '../blocks'
import { writeReadText } from '../odf/new-document'
import type { Subsetter } from './subset'
import { writePdf, type PdfOptions } from './write'

/** What a record tells: of any plan, be it a swap or a change of styles. */
export interface Recorded {
  readonly title: string
  readonly rows: readonly {
    readonly title: string
    readonly count: number
    readonly before: string
    readonly after: string
    readonly included: boolean
  }[]
  readonly left: readonly { readonly what: string; readonly reason: string; readonly count: number }[]
}

/** Where the change was made: the document's name, the version it gave, and when, in milliseconds since 1970. */
export interface RecordOf {
  readonly fileName: string
  readonly version: number
  readonly made: number
}

/** As many pages are shown before and after: those that changed first. */
const shownPages = 12
/** A4 lying, in points. */
const sheet = { width: 841.89, height: 595.28, margin: 36, gap: 24 } as const

const drawn = (page: Page): string => {
  const { runs, shapes } = displayPage(page)
  return JSON.stringify([
    runs.map(({ face, size, glyphs, xs, x, y, color }) => [face, size, glyphs, xs, x, y, color]),
    shapes,
  ])
}

/** Pages that look different before and after, by index, at most as many as are shown. */
export function changedPages(
  before: Composition,
  after: Composition,
): { readonly shown: number[]; readonly all: number } {
  const shown: number[] = []
  let all = 0
  for (let index = 0; index < Math.max(before.pages.length, after.pages.length); index++) {
    const [one, other] = [before.pages[index], after.pages[index]]
    if (one && other && drawn(one) === drawn(other)) continue
    all++
    if (shown.length < shownPages) shown.push(index)
  }
  return { shown, all }
}

/**
 * The record of a change as a PDF: what was asked, every row with its values before and after, and the pages as
 * they were and are.
 */
export async function recordPdf(
  recorded: Recorded,
  of: RecordOf,
  before: Composition,
  after: Composition,
  typesetter: Typesetter,
  load: (hash: string) => Uint8Array | undefined,
  subsetter: Subsetter,
): Promise<Uint8Array> {
  const { shown, all } = changedPages(before, after)
  const when = new Date(of.made).toISOString().replace('T', ', ').slice(0, 17)
  const text = (words: string): ReadBlock => ({ kind: 'paragraph', runs: [plainRun(words)], style: null })
  const cell = (words: string) => [plainRun(words)]
  const included = recorded.rows.filter(row => row.included)
  const blocks: ReadBlock[] = [
    { kind: 'heading', level: 1, runs: [plainRun(recorded.title)], style: null },
    text(
      `${of.fileName}, version ${of.version}, ${when} UTC. ${before.pages.length} pages before, ${after.pages.length} after.`,
    ),
    {
      kind: 'table',
      head: 1,
      rows: [
        [cell('What'), cell('Count'), cell('Before'), cell('After')],
        ...included
          .slice(0, 500)
          .map(row => [cell(row.title), cell(String(row.count)), cell(row.before), cell(row.after)]),
      ],
    },
    ...(included.length > 500 ? [text(`And ${included.length - 500} rows more.`)] : []),
    ...(recorded.left.length > 0
      ? [
          { kind: 'heading' as const, level: 2, runs: [plainRun('What stays')], style: null },
          ...recorded.left.slice(0, 100).map(each => text(`${each.what}: ${each.reason}.`)),
        ]
      : []),
    text(
      all === 0
        ? 'No page looks different.'
        : `Pages that look different: ${all}. ${
            shown.length < all ? `The first ${shown.length} follow` : all === 1 ? 'It follows' : 'They follow'
          }, ` + `on the left before and on the right after: ${shown.map(index => index + 1).join(', ')}.`,
    ),
  ]
  const session = await DocumentSession.start(
    writeReadText({ title: recorded.title, language: 'en-GB', blocks, left: [] }, 'Record'),
    typesetter,
  )
  const options: PdfOptions = { bleed: 0, cropMarks: false, leaveOut: true, notes: false, made: of.made, goesOn: true }
  const record = await PDFDocument.load(
    (await writePdf(session.composition, typesetter, load, subsetter, options)).bytes,
    { updateMetadata: false },
  )
  const pictures = async (composition: Composition) => {
    const indexes = shown.filter(index => composition.pages[index] !== undefined)
    if (indexes.length === 0) return new Map<number, never>()
    const { bytes } = await writePdf(
      { ...composition, pages: indexes.map(index => composition.pages[index]!), notes: [] },
      typesetter,
      load,
      subsetter,
      options,
    )
    const embedded = await record.embedPdf(
      bytes,
      indexes.map((_, at) => at),
    )
    return new Map(indexes.map((index, at) => [index, embedded[at]!]))
  }
  const [was, is] = [await pictures(before), await pictures(after)]
  for (const index of shown) {
    const page = record.addPage([sheet.width, sheet.height])
    const half = (sheet.width - 2 * sheet.margin - sheet.gap) / 2
    ;[was.get(index), is.get(index)].forEach((picture, side) => {
      if (!picture) return
      const scale = Math.min(half / picture.width, (sheet.height - 2 * sheet.margin) / picture.height)
      const x = sheet.margin + side * (half + sheet.gap)
      const y = sheet.height - sheet.margin - picture.height * scale
      page.drawPage(picture, { x, y, xScale: scale, yScale: scale })
      page.drawRectangle({ x, y, width: picture.width * scale, height: picture.height * scale, borderWidth: 0.5 })
    })
  }
  return record.save()
}
