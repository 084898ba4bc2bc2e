import { describe, expect, it } from 'vitest'
import { unsafeToBreak, type Feature, type HarfBuzz, type RunProperties } from '../../../core/typeset/harfbuzz'
import { Shaper } from '../../../core/typeset/shaper'
import { lacksGlyphs, reachesSpaces, type Shaping } from '../../../core/typeset/word-shapes'
import { startHarfBuzz, startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'

const { library, load } = shippedLibrary()
const engine = startHarfBuzz()
const shaper = new Shaper(engine, load)
const hashOf = (family: string, style = 'Regular') => library.named(family, style)!.hash
const run = (change: Partial<RunProperties> = {}): RunProperties => ({
  rightToLeft: false,
  script: 'Latn',
  language: 'en',
  features: [],
  ...change,
})
const shapes = (family: string, change: Partial<Shaping> = {}) =>
  shaper.wordShapes({ face: hashOf(family), axes: [], run: run(), transform: 'none', corrections: [], ...change })
const width = (of: ReturnType<typeof shapes>, word: string) => {
  const number = shaper.words.number(word)
  of.ensure(number)
  return of.widths[number]! / of.unitsPerEm
}
const glyphs = (of: ReturnType<typeof shapes>, word: string) => {
  const set = of.glyphs(shaper.words.number(word))
  return Array.from({ length: set.count }, (_, at) => set.ids[set.start + at]!)
}
const clusters = (of: ReturnType<typeof shapes>, word: string) => {
  const set = of.glyphs(shaper.words.number(word))
  return Array.from({ length: set.count }, (_, at) => set.clusters[set.start + at]!)
}

describe('the shaping engine', () => {
  it('reads a font, and refuses what is none', () => {
    expect(engine.load(load(hashOf('Jost'))!)).toMatchObject({ unitsPerEm: 1000 })
    expect(engine.load(new Uint8Array(200))!.features.size).toBe(0)
    expect(engine.load(load(hashOf('Spectral'))!)!.features.has('smcp')).toBe(true)
  })

  it('shapes what was put into its room, again and again, in memory that grows', () => {
    const font = engine.load(load(hashOf('Spectral'))!)!
    const long = 'harbour '.repeat(20_000)
    for (const text of ['sea', long, 'sea']) {
      const room = engine.room(text.length)
      for (let at = 0; at < text.length; at++) room[at] = text.charCodeAt(at)
      const { length, infos, positions } = engine.shape(font, text.length, run())
      expect(length).toBe(text.length)
      expect(infos[(length - 1) * 5 + 2]).toBe(text.length - 1)
      expect(positions[0]).toBeGreaterThan(100)
    }
    engine.unload(font)
  })

  it('gives outlines with the curves of the font, and advances', () => {
    const font = engine.load(load(hashOf('Jost'))!)!
    const { glyph, advance } = engine.nominal(font, 0x6f)!
    expect(engine.outline(font, glyph)).toMatch(/^M[-\d. ]+Q.*Z$/)
    expect(engine.glyphAdvance(font, glyph)).toBe(advance)
    expect(engine.nominal(font, 0x3042)).toBeNull()
    expect(engine.outline(font, engine.nominal(font, 0x20)!.glyph)).toBe('')
  })

  it('kerns by the old table where a face has no other kerning, unless told not to', () => {
    const marker = shapes('Permanent Marker')
    const without: readonly Feature[] = [{ tag: 'kern', value: 0 }]
    expect(width(marker, 'AVA')).toBeLessThan(
      width(shapes('Permanent Marker', { run: run({ features: without }) }), 'AVA'),
    )
    expect(engine.load(load(hashOf('Permanent Marker'))!)!.kerning!.size).toBeGreaterThan(100)
    expect(engine.load(load(hashOf('Literata'))!)!.kerning).toBeNull()
  })

  it('is one to itself: two of them share nothing', () => {
    const other: HarfBuzz = startHarfBuzz()
    const font = other.load(load(hashOf('Jost'))!)!
    expect(other.nominal(font, 0x41)).toEqual(engine.nominal(engine.load(load(hashOf('Jost'))!)!, 0x41))
  })
})

describe('shapes of words', () => {
  it('are the same alone, in a batch, and whatever stands beside them', () => {
    const words = ['sea', 'office', 'AVATAR', 'Type', 'l’eau', 'x', '1,234.50', 'e\u0301']
    const batch = new Shaper(engine, load, shaper.words).wordShapes({
      face: hashOf('Spectral'),
      axes: [],
      run: run(),
      transform: 'none',
      corrections: [],
    })
    batch.ensureAll(words.map(word => shaper.words.number(word)))
    const alone = new Shaper(engine, load, shaper.words).wordShapes({
      face: hashOf('Spectral'),
      axes: [],
      run: run(),
      transform: 'none',
      corrections: [],
    })
    for (const word of words) {
      expect(glyphs(batch, word)).toEqual(glyphs(alone, word))
      expect(width(batch, word)).toBe(width(alone, word))
      expect(clusters(batch, word)).toEqual(clusters(alone, word))
    }
  })

  it('ligate, and not where features say so', () => {
    expect(glyphs(shapes('Spectral'), 'office').length).toBeLessThan(6)
    expect(glyphs(shapes('Spectral', { run: run({ features: [{ tag: 'liga', value: 0 }] }) }), 'office')).toHaveLength(
      6,
    )
  })

  it('say where a sign is lacking, and where they hang on spaces or on other words', () => {
    const plain = shapes('Literata')
    const flag = (of: typeof plain, word: string) => {
      const number = shaper.words.number(word)
      of.ensure(number)
      return of.flags[number]!
    }
    expect(flag(plain, 'sea') & lacksGlyphs).toBe(0)
    expect(flag(plain, '日本') & lacksGlyphs).toBe(lacksGlyphs)
    expect(flag(shapes('Caveat', { run: run({ script: 'Cyrl' }) }), 'пароход') & reachesSpaces).toBe(reachesSpaces)
    expect(flag(plain, 'sea') & reachesSpaces).toBe(0)
  })

  it('keep their places in the text when their case changes, letters that would grow as they are', () => {
    const upper = shapes('Spectral', { transform: 'uppercase' })
    expect(glyphs(upper, 'sea')).toEqual(glyphs(shapes('Spectral'), 'SEA'))
    expect(clusters(upper, 'straße')).toEqual([0, 1, 2, 3, 4, 5])
    expect(glyphs(shapes('Spectral', { transform: 'capitalize' }), 'o’neill')).toEqual(
      glyphs(shapes('Spectral'), 'O’neill'),
    )
    expect(glyphs(shapes('Spectral', { transform: 'lowercase' }), 'SEA')).toEqual(glyphs(shapes('Spectral'), 'sea'))
  })

  it('take corrections of pairs, and only between them', () => {
    const corrected = shapes('Spectral', { corrections: [{ left: 'T', right: 'e', amount: -50 }] })
    expect(width(corrected, 'Tea') - width(shapes('Spectral'), 'Tea')).toBeCloseTo(-0.05, 3)
    expect(width(corrected, 'eaT')).toBe(width(shapes('Spectral'), 'eaT'))
  })

  it('join letters that run to the left, first glyph at the left', () => {
    const arabic = shapes('Noto Naskh Arabic', { run: run({ rightToLeft: true, script: 'Arab', language: 'ar' }) })
    const order = clusters(arabic, 'بحر')
    expect(order).toEqual([...order].sort((a, b) => b - a))
    expect(glyphs(arabic, 'بحر')).not.toEqual([...'بحر'].reverse().flatMap(letter => glyphs(arabic, letter)))
  })

  it('are let go with their fonts, and begin anew where a file came late', () => {
    let there = false
    const late = new Shaper(engine, hash => (there ? load(hash) : undefined))
    const ask = () =>
      late.wordShapes({ face: hashOf('Jost'), axes: [], run: run(), transform: 'none', corrections: [] })
    const number = late.words.number('sea')
    const missing = ask()
    missing.ensure(number)
    expect(missing.widths[number]! / missing.unitsPerEm).toBe(1.5)
    there = true
    expect(late.font(hashOf('Jost'))).toBeNull()
    late.forgetMissing()
    const found = ask()
    found.ensure(number)
    expect(found.widths[number]! / found.unitsPerEm).not.toBe(1.5)
    late.close()
  })

  it('of a whole run are what its words are, where nothing reaches over spaces', () => {
    const literata = shapes('Literata')
    const whole = literata.run('sea and pier')
    expect(Array.from({ length: whole.count }, (_, at) => whole.ids[at])).toEqual(
      ['sea', 'and', 'pier'].flatMap((word, at) => [
        ...(at > 0 ? [literata.spaceGlyph] : []),
        ...glyphs(literata, word),
      ]),
    )
    expect(unsafeToBreak).toBe(1)
  })
})

describe('subsets of fonts', () => {
  it('keep the glyphs that are used under their ids, and lose the rest', () => {
    const file = load(hashOf('Spectral'))!
    const font = engine.load(file)!
    const { glyph } = engine.nominal(font, 0x41)!
    const other = engine.nominal(font, 0x42)!.glyph
    const cut = startSubsetter().subset(file, [0, glyph])
    expect(cut.length).toBeLessThan(file.length / 5)
    const small = engine.load(cut)!
    expect(engine.outline(small, glyph)).toBe(engine.outline(font, glyph))
    expect(engine.outline(small, other)).toBe('')
  })

  it('of what is no font are the file as it is', () => {
    const nonsense = Uint8Array.from({ length: 64 }, (_, at) => at)
    expect(startSubsetter().subset(nonsense, [1]).length).toBeGreaterThan(0)
  })
})
