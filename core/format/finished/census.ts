import type { PDFDict, PDFPage } from '@cantoo/pdf-lib'
import { readFont, type FinishedFont } from './fonts'
import type { FinishedPdf } from './open'
import { fontDictionaries, readPageText, resourcesOf, type FontsRead } from './page-text'

/** A font of a finished PDF, and what is set in it. Pages count from 1. */
export interface FontUse {
  readonly name: string
  readonly kind: string
  readonly embedded: boolean
  readonly subset: boolean
  /** Whether its codes tell which characters they are. */
  readonly readable: boolean
  readonly characters: number
  readonly pages: readonly number[]
  /** Sizes as they look, in points, with how many characters. */
  readonly sizes: readonly { readonly size: number; readonly characters: number }[]
  readonly colors: readonly { readonly color: string; readonly characters: number }[]
}

/** What is in a finished PDF. */
export interface FinishedCensus {
  readonly document: {
    readonly kind: 'finished'
    readonly title: string
    readonly pages: number
    readonly signed: boolean
    readonly tagged: boolean
  }
  readonly characters: number
  readonly fonts: readonly FontUse[]
}

interface Counted {
  readonly font: FinishedFont
  characters: number
  readonly pages: Set<number>
  readonly sizes: Map<number, number>
  readonly colors: Map<string, number>
}

/** The census of a finished PDF, with the font that each of its lines is about. */
export interface CountedFonts {
  readonly census: FinishedCensus
  readonly fonts: readonly FinishedFont[]
}

/** Counts all fonts of a finished PDF: how much each sets, where, at which sizes and in which colours. */
export const finishedCensus = (finished: FinishedPdf): FinishedCensus => countFonts(finished).census

/**
 * The same, with the fonts themselves.
 * @param known fonts that were read already
 */
export function countFonts({ pages, title, signed, tagged }: FinishedPdf, known: FontsRead = new Map()): CountedFonts {
  const counted = new Map<FinishedFont, Counted>()
  const of = (font: FinishedFont): Counted => {
    let found = counted.get(font)
    if (!found)
      counted.set(font, (found = { font, characters: 0, pages: new Set(), sizes: new Map(), colors: new Map() }))
    return found
  }
  pages.forEach((page, index) => {
    for (const dict of dictionariesOf(page)) {
      if (!known.has(dict)) known.set(dict, readFont(dict))
      of(known.get(dict)!)
    }
    for (const { font, glyphs, size, color } of readPageText(page, known).pieces) {
      const use = of(font)
      use.characters += glyphs.length
      use.pages.add(index + 1)
      const shown = Math.round(size * 10) / 10
      use.sizes.set(shown, (use.sizes.get(shown) ?? 0) + glyphs.length)
      use.colors.set(color, (use.colors.get(color) ?? 0) + glyphs.length)
    }
  })
  const rows = [...counted.values()]
    .map(each => ({ font: each.font, use: use(each) }))
    .sort((a, b) => b.use.characters - a.use.characters || a.use.name.localeCompare(b.use.name, 'en'))
  return {
    fonts: rows.map(each => each.font),
    census: {
      document: { kind: 'finished', title, pages: pages.length, signed, tagged },
      characters: rows.reduce((sum, each) => sum + each.use.characters, 0),
      fonts: rows.map(each => each.use),
    },
  }
}

/** Fonts that a page leads to by its resources. */
function dictionariesOf(page: PDFPage): Set<PDFDict> {
  const found = new Set<PDFDict>()
  fontDictionaries(resourcesOf(page), found)
  return found
}

function use({ font, characters, pages, sizes, colors }: Counted): FontUse {
  const byCount = <T>(map: ReadonlyMap<T, number>) => [...map].sort((a, b) => b[1] - a[1])
  return {
    name: font.name,
    kind: font.kind,
    embedded: font.embedded,
    subset: font.subset,
    readable: font.readable,
    characters,
    pages: [...pages].sort((a, b) => a - b),
    sizes: byCount(sizes).map(([size, count]) => ({ size, characters: count })),
    colors: byCount(colors)
      .filter(([color]) => color !== '')
      .map(([color, count]) => ({ color, characters: count })),
  }
}
