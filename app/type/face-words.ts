import type { StandIn } from '~~/core/font/library'
import type { CatalogueEntry } from '~~/core/font/catalogue'
import type { FaceMeasures } from '~~/core/font/face'
import type { CoveredScript } from '~~/core/font/measure/covered-scripts'
import type { ScriptMeasures } from '~~/core/font/measure/scripts'
import { readingUses, smallestSize, type ReadingUse } from '~~/core/font/smallest-size'

/** A figure of a face's drawing, for people. */
export interface Figure {
  readonly name: string
  readonly value: string
}

const shown = (value: number | null, places = 0, unit = '') =>
  value === null ? 'not to be measured' : `${value.toFixed(places)}${unit}`
const storeys = (value: 1 | 2 | null) => (value === null ? '–' : value === 2 ? 'two' : 'one')

/** Letters that are laid beside each other to compare faces in a script, until somebody asks for others. */
export const comparedLetters: Readonly<Record<CoveredScript, string>> = {
  Latin: 'Hagenor',
  Greek: 'Ηαγενορ',
  Cyrillic: 'Насугор',
  Hebrew: 'אבגלםש',
  Arabic: 'صباح الخير',
  Devanagari: 'नमकीय',
  Thai: 'กนบปญ',
  Han: '国永東',
  Hiragana: 'あのはり',
  Katakana: 'アノロト',
  Hangul: '한글배',
}

/** What was measured on a script's letters, as a row of a table. */
export function scriptFigures(m: ScriptMeasures): readonly string[] {
  const plain = (value: number) => (value > 0 ? String(Math.round(value)) : '–')
  return [m.xHeight, m.capHeight, m.ascender, m.descender, m.averageWidth, m.stem, m.hairline].map(plain)
}

/** Serifs in words. */
function serifWords(m: FaceMeasures): string {
  if (m.serif === null) return 'none'
  const bracket =
    m.bracket === null ? '' : m.bracket > 0.5 ? ', wedges' : m.bracket > 0.1 ? ', bracketed' : ', at a corner'
  return `${Math.round(m.serif)} high${bracket}`
}

/** What was measured of a face, in the order in which a reader meets it. Lengths in thousandths of an em. */
export function figuresOfFace(m: FaceMeasures): Figure[] {
  return [
    { name: 'stem, hairline', value: m.stem > 0 ? `${shown(m.stem)}, ${shown(m.hairline)}` : 'not to be measured' },
    { name: 'thick to thin', value: shown(m.contrast, 1) },
    { name: 'stress', value: m.stress === null ? 'an even stroke' : `${shown(m.stress)}°` },
    { name: 'serifs', value: serifWords(m) },
    { name: 'aperture', value: shown(m.aperture, 2) },
    { name: 'eye of e', value: shown(m.eye) },
    { name: 'widths of M, n, o', value: [m.widthM, m.widthN, m.widthO].map(each => shown(each)).join(', ') },
    { name: 'average width', value: shown(m.averageWidth) },
    { name: 'storeys of a, g', value: `${storeys(m.storeysA)}, ${storeys(m.storeysG)}` },
    { name: 'slant', value: shown(m.slant, 0, '°') },
    { name: 'grey', value: m.grey === null ? 'not to be measured' : `${Math.round(m.grey * 100)} %` },
    {
      name: 'figures',
      value:
        m.figures === null ? 'none' : `${m.figures.style}, ${m.figures.tabular ? 'of one width' : 'of own widths'}`,
    },
  ]
}

const useWords: Readonly<Record<ReadingUse, string>> = {
  print: 'In print',
  screen: 'On a screen',
  poster: 'On a poster',
  slide: 'On a slide',
}

/** The smallest useful sizes of a family, by use. */
export function smallestSizes(
  entry: CatalogueEntry,
): { readonly use: string; readonly size: string; readonly reason: string }[] {
  return readingUses.flatMap(use => {
    const found = smallestSize(entry.plain.measures, entry.classed, use)
    return found ? [{ use: useWords[use], size: `${found.size} pt`, reason: found.reason }] : []
  })
}

/** How sure a class is, in words: how far the next one lies behind. */
export function marginWords(margin: number): string {
  if (margin >= 0.9) return 'plainly'
  return margin >= 0.4 ? 'by its measures' : 'narrowly'
}

/** In which text a stand-in stands in, in words. */
export const scriptWords = (each: StandIn['script']): string =>
  each === 'any'
    ? 'any script'
    : each === 'western'
      ? 'western scripts'
      : each === 'asian'
        ? 'East Asian scripts'
        : each === 'complex'
          ? 'complex scripts'
          : `${each} letters`
