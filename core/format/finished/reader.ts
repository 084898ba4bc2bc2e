import { countFonts, type CountedFonts, type FinishedCensus } from './census'
import { boxesOf, linesOf, type PageLine } from './lines'
import type { FinishedPdf } from './open'
import { lookOf, type PageBox, type PageLook } from './page-view'
import { readPageText, type FontsRead } from './page-text'

/** A line of a page as it is looked at and pointed at. Lengths in points. */
export interface ShownLine {
  /** Its number on the page, from 0. */
  readonly line: number
  readonly text: string
  readonly boxes: readonly PageBox[]
  readonly font: string
  readonly size: number
  readonly color: string
  /** It stands in a form that the page draws: it can be read, and not be put right. */
  readonly inForm: boolean
}

/** Text somewhere in a finished PDF: pages count from 1. */
export interface FinishedPlace {
  readonly page: number
  readonly line: number
  readonly from: number
  readonly to: number
  readonly text: string
  readonly boxes: readonly PageBox[]
}

/** More places are not told. */
const placeLimit = 20_000

/** A finished PDF that is read page by page, as somebody looks at it; what was read is kept. */
export class FinishedReader {
  private readonly known: FontsRead = new Map()
  private readonly kept = new Map<number, readonly PageLine[]>()
  private counts: CountedFonts | null = null
  readonly looks: readonly PageLook[]

  constructor(readonly finished: FinishedPdf) {
    this.looks = finished.pages.map(lookOf)
  }

  private get counted(): CountedFonts {
    return (this.counts ??= countFonts(this.finished, this.known))
  }

  get census(): FinishedCensus {
    return this.counted.census
  }

  private linesAt(page: number): readonly PageLine[] {
    let lines = this.kept.get(page)
    const own = this.finished.pages[page - 1]
    if (!lines && own) this.kept.set(page, (lines = linesOf(readPageText(own, this.known))))
    return lines ?? []
  }

  /** The lines of a page (from 1) that say something; none where there is no such page. */
  lines(page: number): ShownLine[] {
    const look = this.looks[page - 1]
    return this.linesAt(page).flatMap((line, index) => {
      const [first] = line.pieces
      if (!look || !first || line.text.trim() === '') return []
      const { font, size, color } = first
      return [
        {
          line: index,
          text: line.text,
          boxes: boxesOf(line, look),
          font: font.name,
          size: Math.round(size * 100) / 100,
          color,
          inForm: line.inForm,
        },
      ]
    })
  }

  /** Where words stand, in the order of the pages. */
  find(words: string, matchCase: boolean): FinishedPlace[] {
    const folded = (text: string) => (matchCase ? text : text.toLowerCase())
    const wanted = folded(words.normalize('NFC'))
    const places: FinishedPlace[] = []
    if (wanted.trim() === '') return places
    this.looks.forEach((look, index) => {
      this.linesAt(index + 1).forEach((line, at) => {
        // Letters whose small form has another length would shift what is found: such lines are taken as they are.
        const small = folded(line.text)
        const text = small.length === line.text.length ? small : line.text
        for (let from = text.indexOf(wanted); from >= 0; from = text.indexOf(wanted, from + wanted.length)) {
          if (places.length >= placeLimit) return
          places.push(this.place(index + 1, at, line, look, from, from + wanted.length))
        }
      })
    })
    return places
  }

  /** Where a font of the census (by its place in the list) sets text: a stretch for each line. */
  placesOf(font: number): FinishedPlace[] {
    const own = this.counted.fonts[font]
    const places: FinishedPlace[] = []
    if (!own) return places
    this.looks.forEach((look, index) => {
      this.linesAt(index + 1).forEach((line, at) => {
        let from = -1
        let passed = 0
        const end = () => {
          if (from >= 0 && places.length < placeLimit) places.push(this.place(index + 1, at, line, look, from, passed))
          from = -1
        }
        for (const { piece, text } of line.characters) {
          if (line.pieces[piece]!.font !== own) end()
          else if (from < 0) from = passed
          passed += text.length
        }
        end()
      })
    })
    return places
  }

  /** A stretch of a line; undefined where there is no such line. */
  placeAt(page: number, line: number, from: number, to: number): FinishedPlace | undefined {
    const own = this.linesAt(page)[line]
    const look = this.looks[page - 1]
    return own && look && this.place(page, line, own, look, from, to)
  }

  /** The size of a line's first letters as they look, in points; 0 where there is no such line. */
  sizeAt(page: number, line: number): number {
    return this.linesAt(page)[line]?.pieces[0]?.size ?? 0
  }

  private place(page: number, at: number, line: PageLine, look: PageLook, from: number, to: number): FinishedPlace {
    return { page, line: at, from, to, text: line.text.slice(from, to), boxes: boxesOf(line, look, from, to) }
  }
}
