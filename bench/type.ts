import { Blob, Face, Font } from 'harfbuzzjs'
import { catalogueOf } from '../core/font/catalogue'
import { classify } from '../core/font/classify'
import type { FaceRecord } from '../core/font/face'
import { PairWhites } from '../core/font/kerning/oddness'
import { Library } from '../core/font/library'
import { readFace } from '../core/font/read'
import { search } from '../core/font/search/search'
import { candidates, nearestTo, usualPlace } from '../core/pairing/candidates'
import { pairSource } from '../core/typeset/pair-source'
import { Shaper } from '../core/typeset/shaper'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedFaces, shippedLibrary } from '../server/library/shipped'

type Row = readonly [row: string, measured: string, target?: string]

const median = (values: readonly number[]) => [...values].sort((a, b) => a - b)[values.length >> 1]!
function timed(work: () => unknown): number {
  const start = performance.now()
  work()
  return performance.now() - start
}

/** So many faces: those that ship, over and over, with measures that differ a little, under names of their own. */
function manyFaces(count: number): FaceRecord[] {
  const base = shippedFaces().map(each => each.face)
  return Array.from({ length: count }, (_, at) => {
    const face = base[at % base.length]!
    const copy = Math.floor(at / base.length)
    const change = 1 + (((at * 37) % 41) - 20) / 1000
    const { measures } = face
    return {
      ...face,
      hash: `${copy.toString(16).padStart(4, '0')}${face.hash.slice(4)}`,
      family: copy === 0 ? face.family : `${face.family} No ${copy}`,
      measures: { ...measures, xHeight: measures.xHeight * change, stem: measures.stem * change },
    }
  })
}

/** What looking for faces, pairing and kerning take, in milliseconds or beside plain reading. */
export function typeRows(rounds: number): Row[] {
  const { library, load } = shippedLibrary()
  const all = catalogueOf(new Library(manyFaces(10_000)))
  const words = ['rough condensed', 'humanist sans x-height over 520', 'two-storey a, old-style figures, Cyrillic']
  const searches = Array.from({ length: rounds }, (_, at) => timed(() => search(all, words[at % words.length]!)))
  const plain = manyFaces(20_000).filter(face => face.weight === 400 && face.slant === 'upright')
  const families = catalogueOf(new Library(plain)).slice(0, 2000)
  const given = families.find(each => each.family === 'Spectral') ?? families[0]!
  const needs = { role: 'heading', scripts: ['Latin'], uses: ['print', 'PDF'] } as const
  const planes = Array.from({ length: rounds }, () =>
    timed(() => nearestTo(candidates(families, given, needs), usualPlace)),
  )
  const face = library.named('Lora', 'Regular')!
  const bytes = load(face.hash)!
  const reading = Array.from({ length: rounds }, () =>
    timed(() => {
      const font = new Font(new Face(new Blob(bytes)))
      for (let code = 0x20; code < 0x17f; code++) font.glyphToPath(font.nominalGlyph(code) ?? 0)
    }),
  )
  const measuring = Array.from({ length: rounds }, () =>
    timed(() => classify(readFace(bytes, face.hash, 'shipped').measures)),
  )
  const shaper = new Shaper(startHarfBuzz(), load)
  const kerning = Array.from({ length: rounds }, () =>
    timed(() => new PairWhites(pairSource(shaper, face)!, face.measures).usual()),
  )
  return [
    ['10,000 faces: a search by look', `${median(searches).toFixed(0)} ms`, '100 ms with the screen drawn'],
    [`the plane of ${families.length} families around a face`, `${median(planes).toFixed(0)} ms`, '100 ms'],
    [
      'a face measured and classified, beside reading its outlines',
      `${(median(measuring) / median(reading)).toFixed(1)} times`,
    ],
    ['the usual pairs of a face held against the rest', `${median(kerning).toFixed(0)} ms`],
  ]
}
