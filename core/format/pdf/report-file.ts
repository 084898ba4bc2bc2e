import { PDFDocument, rgb, type PDFEmbeddedPage, type PDFPage, type TransformationMatrix } from '@cantoo/pdf-lib'
import type { PageLook } from '../finished/page-view'
import { DocumentSession } from '../../session'
import type { Composition } from '../../typeset/compose'
import { displayPage } from '../../typeset/display'
import type { Typesetter } from '../../typeset/look'
import type { Page } from '../../typeset/page'
import { plainRun, type ReadBlock } from '../blocks'
import { writeReadText } from '../odf/new-document'
import type { Subsetter } from './subset'
import { writePdf, type PdfOptions } from './write'

/*
 * Reports as PDF: words and tables that are set by the engine itself, then sheets with pages of documents as they are.
 */

/** What reports are made with. */
export interface ReportWorks {
  readonly typesetter: Typesetter
  readonly load: (hash: string) => Uint8Array | undefined
  readonly subsetter: Subsetter
  /** When it was made, in milliseconds since 1970. */
  readonly made: number
}

/** A document as a report sees it: its pages, and what sets and draws them. */
export interface ReportedPages {
  readonly composition: Composition
  readonly typesetter: Typesetter
}

/** A4 lying, in points. */
const sheet = { width: 841.89, height: 595.28, margin: 36, gap: 24 } as const
/** The edge of a page on a sheet. */
const edge = rgb(0.45, 0.45, 0.45)
const half = (sheet.width - 2 * sheet.margin - sheet.gap) / 2

/** A moment as reports tell it: “2026-03-01, 09:30 UTC”. */
export const momentWords = (made: number): string =>
  `${new Date(made).toISOString().replace('T', ', ').slice(0, 17)} UTC`

export const reportText = (words: string): ReadBlock => ({ kind: 'paragraph', runs: [plainRun(words)], style: null })
export const reportHeading = (level: number, words: string): ReadBlock => ({
  kind: 'heading',
  level,
  runs: [plainRun(words)],
  style: null,
})

/** As many rows of a table are told. */
const mostRows = 500

/** A table with a line of headings, each with its column's share of the width; a sentence where there is more than is told. */
export function reportTable(
  headings: readonly (readonly [string, number])[],
  rows: readonly (readonly string[])[],
): ReadBlock[] {
  const cells = (words: readonly string[]) => words.map(each => [plainRun(each)])
  return [
    {
      kind: 'table',
      head: 1,
      rows: [headings.map(([words]) => words), ...rows.slice(0, mostRows)].map(cells),
      widths: headings.map(([, share]) => share),
    },
    ...(rows.length > mostRows ? [reportText(`And ${rows.length - mostRows} rows more.`)] : []),
  ]
}

/** A page as it can be laid on a sheet, and how large it is when it is looked at. */
export interface PagePicture {
  readonly page: PDFEmbeddedPage
  readonly width: number
  readonly height: number
}

/** Where a page lies on a sheet of a report. */
export interface PlacedPage {
  readonly on: PDFPage
  /** Its lower left corner, and how many points one of its own is. */
  readonly x: number
  readonly y: number
  readonly scale: number
  readonly height: number
}

/** A report while it is made. */
export class ReportFile {
  private constructor(
    private readonly pdf: PDFDocument,
    private readonly works: ReportWorks,
  ) {}

  /** Begins a report with its words. */
  static async begin(title: string, blocks: readonly ReadBlock[], works: ReportWorks): Promise<ReportFile> {
    const session = await DocumentSession.start(
      writeReadText({ title, language: 'en-GB', blocks: [...blocks], left: [] }, 'Report'),
      works.typesetter,
    )
    const { bytes } = await writePdf(
      session.composition,
      works.typesetter,
      works.load,
      works.subsetter,
      optionsOf(works.made),
    )
    return new ReportFile(await PDFDocument.load(bytes, { updateMetadata: false }), works)
  }

  /** Pages of a document as they can be laid on sheets, by their indexes; those that it has not are left out. */
  async pagesOf(of: ReportedPages, indexes: readonly number[]): Promise<ReadonlyMap<number, PagePicture>> {
    const { composition, typesetter } = of
    const there = indexes.filter(index => composition.pages[index] !== undefined)
    if (there.length === 0) return new Map()
    const { bytes } = await writePdf(
      { ...composition, pages: there.map(index => composition.pages[index]!), notes: [] },
      typesetter,
      this.works.load,
      this.works.subsetter,
      optionsOf(this.works.made),
    )
    const embedded = await this.pdf.embedPdf(
      bytes,
      there.map((_, at) => at),
    )
    return new Map(
      there.map((index, at) => {
        const page = embedded[at]!
        return [index, { page, width: page.width, height: page.height }]
      }),
    )
  }

  /** The same of a finished PDF: cut to what is looked at, and turned as its pages say. */
  async pagesOfPdf(
    pdf: PDFDocument,
    looks: readonly PageLook[],
    indexes: readonly number[],
  ): Promise<ReadonlyMap<number, PagePicture>> {
    const pages = indexes.map(index => pdf.getPage(index))
    const boxes = pages.map(page => {
      const { x, y, width, height } = page.getCropBox()
      return { left: x, bottom: y, right: x + width, top: y + height }
    })
    // What is looked at goes downwards, sheets go up.
    const turns = indexes.map((index): TransformationMatrix => {
      const { toLook, height } = looks[index]!
      const [a, b, c, d, e, f] = toLook
      return [a, -b, c, -d, e, height - f]
    })
    const embedded = await this.pdf.embedPages(pages, boxes, turns)
    return new Map(
      indexes.map((index, at) => [
        index,
        { page: embedded[at]!, width: looks[index]!.width, height: looks[index]!.height },
      ]),
    )
  }

  /** A sheet with one or two pages on it, each as large as its half allows. */
  sheetOf(pictures: readonly (PagePicture | undefined)[]): (PlacedPage | null)[] {
    const on = this.pdf.addPage([sheet.width, sheet.height])
    return pictures.map((picture, side) => {
      if (!picture) return null
      const scale = Math.min(half / picture.width, (sheet.height - 2 * sheet.margin) / picture.height)
      const x = sheet.margin + side * (half + sheet.gap)
      const y = sheet.height - sheet.margin - picture.height * scale
      on.drawPage(picture.page, { x, y, xScale: scale, yScale: scale })
      on.drawRectangle({
        x,
        y,
        width: picture.width * scale,
        height: picture.height * scale,
        borderWidth: 0.5,
        borderColor: edge,
      })
      return { on, x, y, scale, height: picture.height }
    })
  }

  /** Pages of two documents side by side, those of the first on the left. */
  async sideBySide(before: ReportedPages, after: ReportedPages, indexes: readonly number[]): Promise<void> {
    const [was, is] = [await this.pagesOf(before, indexes), await this.pagesOf(after, indexes)]
    for (const index of indexes) this.sheetOf([was.get(index), is.get(index)])
  }

  save(): Promise<Uint8Array> {
    return this.pdf.save()
  }
}

const optionsOf = (made: number): PdfOptions => ({
  bleed: 0,
  cropMarks: false,
  leaveOut: true,
  notes: false,
  made,
  goesOn: true,
})

const drawn = (page: Page): string => {
  const { runs, shapes } = displayPage(page)
  return JSON.stringify([
    runs.map(({ face, size, glyphs, xs, x, y, color }) => [face, size, glyphs, xs, x, y, color]),
    shapes,
  ])
}

/** As many pages are shown before and after: those that changed first. */
const shownPages = 12

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

/** What is said of pages that look different, before they are shown. */
export function changedWords({ shown, all }: ReturnType<typeof changedPages>): string {
  if (all === 0) return 'No page looks different.'
  const follow = shown.length < all ? `The first ${shown.length} follow` : all === 1 ? 'It follows' : 'They follow'
  return (
    `Pages that look different: ${all}. ${follow}, on the left before and on the right after: ` +
    `${shown.map(index => index + 1).join(', ')}.`
  )
}

/** Draws numbers on sheets: digits are outlines of the face that reports are set in. */
export class Numberer {
  private readonly digits: readonly { readonly path: string; readonly width: number }[]

  /** @param session a text of the ten digits, in order */
  private constructor(session: DocumentSession) {
    const { shaper } = session.typesetter
    const run = displayPage(session.composition.pages[0]!).runs[0]!
    this.digits = run.glyphs.map((glyph, at) => ({
      path: shaper.outline(run.face, glyph, run.axes),
      width: ((run.xs[at + 1] ?? run.width) - run.xs[at]!) / run.size,
    }))
  }

  static async begin(works: ReportWorks): Promise<Numberer> {
    const digits = writeReadText(
      { title: '', language: 'en-GB', blocks: [reportText('0123456789')], left: [] },
      'Digits',
    )
    return new Numberer(await DocumentSession.start(digits, works.typesetter))
  }

  /** A number in a disc whose middle is at a place of a sheet, in points from its lower left. */
  draw(page: PDFPage, value: number, x: number, y: number): void {
    const size = 6
    const digits = [...String(value)].map(digit => this.digits[Number(digit)]!)
    const width = digits.reduce((sum, each) => sum + each.width * size, 0)
    page.drawCircle({ x, y, size: Math.max(5, width / 2 + 2), color: rgb(0.604, 0.392, 0.071) })
    let left = x - width / 2
    for (const { path, width: own } of digits) {
      // Outlines are in thousandths of an em and go up; paths are drawn downwards.
      page.drawSvgPath(upsideDown(path), {
        x: left,
        y: y - size * 0.34,
        scale: size / 1000,
        color: rgb(1, 1, 1),
      })
      left += own * size
    }
  }
}

/** A path with its second coordinates the other way: outlines have commands with pairs of absolute coordinates alone. */
function upsideDown(path: string): string {
  let second = false
  return path.replace(/[A-Za-z]|-?\d+(?:\.\d+)?/g, token => {
    if (/[A-Za-z]/.test(token)) {
      second = false
      return token
    }
    second = !second
    return second ? token : String(-Number(token))
  })
}
