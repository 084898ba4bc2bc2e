import { describe, expect, it } from 'vitest'
import { medianPolish, oddFrom, PairWhites } from '../../../core/font/kerning/oddness'
import { inkOf, sidesOf, whiteBetween, type PairSource } from '../../../core/font/kerning/sides'
import { usualPairs } from '../../../core/font/kerning/usual-pairs'
import { classify } from '../../../core/font/classify'
import type { FaceRecord } from '../../../core/font/face'
import { pairSource } from '../../../core/typeset/pair-source'
import { library, typesetter } from '../../support/fixtures'
import { numbersFrom, sampleOf } from '../../support/seeded'

const regular = (family: string): FaceRecord =>
  library.faces.find(each => each.family === family && each.weight === 400 && each.slant === 'upright')!
const sourceOf = (face: FaceRecord): PairSource => pairSource(typesetter.shaper, face)!
const small = [...'abcdefghijklmnopqrstuvwxyz']
const capitals = small.map(letter => letter.toUpperCase())
const lettersTogether = [
  ...small.flatMap(left => small.map(right => [left, right] as const)),
  ...capitals.flatMap(left => small.map(right => [left, right] as const)),
  ...capitals.flatMap(left => capitals.map(right => [left, right] as const)),
]
/** A face some of whose pairs are moved: all else as it is. */
const withWrong = (source: PairSource, wrong: ReadonlyMap<string, number>): PairSource => ({
  ...source,
  kern: (left, right) => {
    const own = source.kern(left, right)
    return own === null ? null : own + (wrong.get(left + right) ?? 0)
  },
})

describe('the white between two letters', () => {
  /** A bar from one x to another, as high as the band. */
  const bar = (from: number, to: number, top = 500): PairSource => ({
    outline: () => `M${from},0L${to},0L${to},${top}L${from},${top}Z`,
    advance: () => to + 40,
    kern: () => 0,
  })
  const sides = (source: PairSource) => sidesOf(inkOf(source, 'x')!, source.advance('x'), 0, 500)

  it('is how far straight sides are apart, and grows with what moves them apart', () => {
    const own = sides(bar(30, 100))
    expect([own.left[0], own.right[0]]).toEqual([30, 40])
    expect(whiteBetween(own, own, 0)).toBeCloseTo(70, 6)
    expect(whiteBetween(own, own, 25)).toBeCloseTo(95, 6)
    expect(whiteBetween(own, own, -25)).toBeCloseTo(45, 6)
  })

  it('counts what lies deep little, and heights without ink not at all', () => {
    const [high, half] = [sides(bar(30, 100)), sides(bar(30, 100, 250))]
    expect([...half.left].filter(value => value === Infinity)).toHaveLength(Math.round(half.left.length / 2))
    expect(whiteBetween(high, half, 0)).toBeCloseTo(70, 6)
    const deep = { left: high.left, right: high.right.map((value, at) => (at % 2 === 0 ? value : value + 1000)) }
    expect(whiteBetween(deep, high, 0)!).toBeLessThan(250)
    expect(whiteBetween(deep, high, 0, 150)!).toBeLessThan(whiteBetween(deep, high, 0)!)
  })

  it('is none where two never stand at one height', () => {
    const low = sides(bar(30, 100, 100))
    const above = {
      left: low.left.map(v => (v === Infinity ? 30 : Infinity)),
      right: low.right.map(v => (v === Infinity ? 40 : Infinity)),
    }
    expect(whiteBetween(low, above, 0)).toBeNull()
  })

  it('overlaps count as little as twenty: one height does not outweigh the rest', () => {
    const own = sides(bar(30, 100))
    expect(whiteBetween(own, own, -2000)).toBeCloseTo(-20, 6)
  })
})

describe('what rows and columns of a table have in common', () => {
  it('is found again in a table that was made of it, whatever single cells are', () => {
    const rows = [10, 20, 35, 5, 50]
    const columns = [0, 3, -8, 12, 40]
    const table = rows.map(row => columns.map(column => (row + column) as number | null))
    table[1]![2] = 900
    table[3]![0] = -900
    table[4]![4] = null
    const found = medianPolish(table)
    rows.forEach((row, at) =>
      columns.forEach((column, other) =>
        expect(found.rows[at]! + found.columns[other]!, `${at} ${other}`).toBeCloseTo(row + column, 6),
      ),
    )
  })
})

describe('odd pairs of a face', () => {
  const whites = new PairWhites(sourceOf(regular('Lora')), regular('Lora').measures)

  it('tells what the face moves by, the white, the usual one, and what brings it there', () => {
    const pair = whites.of('T', 'o')!
    expect(pair.kern).toBeLessThan(-20)
    expect(pair.oddness).toBeCloseTo(pair.white - pair.usual, 9)
    expect(Math.abs(pair.oddness)).toBeLessThan(oddFrom)
    const moved = new PairWhites(withWrong(sourceOf(regular('Lora')), new Map([['To', 120]])), regular('Lora').measures)
    const wrong = moved.of('T', 'o')!
    expect(wrong.oddness).toBeGreaterThan(oddFrom)
    // What would put it right is what was put in, but for what was odd before.
    expect(wrong.toUsual).toBeGreaterThanOrEqual(pair.toUsual - 122)
    expect(wrong.toUsual).toBeLessThanOrEqual(pair.toUsual - 118)
  })

  it('is silent about spaces, other scripts, letters of two scripts, tied letters and letters it lacks', () => {
    expect(whites.of('T', ' ')).toBeNull()
    expect(whites.of('T', 'ш')).toBeNull()
    expect(whites.of('あ', 'い')).toBeNull()
    const tied = sourceOf(regular('Lora'))
    const ties = new PairWhites(
      { ...tied, kern: (l, r) => (l + r === 'fi' ? null : tied.kern(l, r)) },
      regular('Lora').measures,
    )
    expect(ties.of('f', 'i')).toBeNull()
    expect(ties.of('f', 'a')).not.toBeNull()
    const latinOnly = new PairWhites(sourceOf(regular('Homemade Apple')), regular('Homemade Apple').measures)
    expect(latinOnly.of('Г', 'о')).toBeNull()
  })

  it('tells of letters with accents where a document has them, and of figures, marks, Greek and Cyrillic', () => {
    expect(whites.of('T', 'ö')).toBeNull()
    const more = new PairWhites(sourceOf(regular('Lora')), regular('Lora').measures, ['ö'])
    expect(Math.abs(more.of('o', 'ö')!.oddness)).toBeLessThan(oddFrom)
    expect(whites.of('1', '7')).not.toBeNull()
    expect(whites.of('P', '.')).not.toBeNull()
    expect(whites.of('Г', 'а')).not.toBeNull()
  })

  it('says which share of the usual pairs a face kerns, and how many of them are odd', () => {
    expect(new Set(usualPairs.map(pair => pair.join(''))).size).toBe(usualPairs.length)
    const lora = whites.usual()!
    expect(lora.kerned).toBeGreaterThan(0.9)
    expect(lora.odd).toBeLessThan(0.02)
    const mono = new PairWhites(sourceOf(regular('Roboto Mono')), regular('Roboto Mono').measures).usual()!
    expect(mono.kerned).toBe(0)
    expect(
      new PairWhites({ outline: () => '', advance: () => 0, kern: () => 0 }, { xHeight: 500, capHeight: 700 }).usual(),
    ).toBeNull()
  })
})

/** Faces for text that kern most of the usual pairs: what a user would call sound. */
const sound = library.faces.filter(
  face =>
    face.weight === 400 &&
    face.slant === 'upright' &&
    !face.monospaced &&
    ['serif', 'sans', 'slab'].includes(classify(face.measures).class) &&
    (new PairWhites(sourceOf(face), face.measures).usual()?.kerned ?? 0) >= 0.85,
)

describe('against pairs that were made wrong', () => {
  const trial = (face: FaceRecord, from: number, to: number, seed: number) => {
    const random = numbersFrom(seed)
    const wrong = new Map<string, number>()
    while (wrong.size < 40) {
      const [left, right] = lettersTogether[Math.floor(random() * lettersTogether.length)]!
      wrong.set(left + right, (random() < 0.5 ? -1 : 1) * (from + random() * (to - from)))
    }
    const whites = new PairWhites(withWrong(sourceOf(face), wrong), face.measures)
    return lettersTogether
      .map(([left, right]) => whites.of(left, right))
      .filter(pair => pair !== null)
      .sort((one, other) => Math.abs(other.oddness) - Math.abs(one.oddness))
      .slice(0, 60)
      .filter(pair => wrong.has(pair.left + pair.right)).length
  }
  const faces = sampleOf(sound, 10, 15)

  it('finds, of forty moved by 80 to 150 thousandths, at least 32 among the first sixty', () => {
    expect(sound.length).toBeGreaterThan(40)
    for (const [at, face] of faces.entries())
      expect(trial(face, 80, 150, at + 1), face.family).toBeGreaterThanOrEqual(32)
  })

  it('finds most of those moved by 40 to 80, too', () => {
    const shares = faces.map((face, at) => trial(face, 40, 80, at + 1) / 40)
    expect(shares.reduce((sum, share) => sum + share, 0) / shares.length).toBeGreaterThan(0.5)
  })

  it('calls at most one in fifty of the usual pairs of sound faces odd', () => {
    // Taken together: a single face may have a handful of its own, as a slab of geometric capitals has.
    for (const seed of [1, 2, 3]) {
      const shares = sampleOf(sound, 10, seed).map(face => new PairWhites(sourceOf(face), face.measures).usual()!.odd)
      expect(shares.reduce((sum, share) => sum + share, 0) / shares.length).toBeLessThanOrEqual(0.02)
      expect(shares.filter(share => share > 0.02).length).toBeLessThanOrEqual(1)
    }
  })
})
