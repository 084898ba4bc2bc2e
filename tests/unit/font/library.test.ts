import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { aliasGroups } from '../../../core/font/family-alias'
import { covers, faceName, parseStyleName, styleName } from '../../../core/font/face'
import { missingGlyphs, nearest } from '../../../core/font/library'
import { readFace } from '../../../core/font/read'
import { PackageError } from '../../../core/package/errors'
import { fontFiles } from '../../../server/library/files'
import { library } from '../../support/fixtures'

const request = (family: string, more: Partial<Parameters<typeof library.resolve>[0]> = {}) =>
  library.resolve({
    family,
    styleName: '',
    weight: 400,
    italic: false,
    generic: '',
    pitch: '',
    charset: '',
    slot: 'western',
    ...more,
  })

describe('the shipped faces', () => {
  it('are all there', () => {
    for (const family of [
      'Literata',
      'Newsreader',
      'Spectral',
      'Jost',
      'Hanken Grotesk',
      'BIZ UDPGothic',
      'Noto Naskh Arabic',
      'Frank Ruhl Libre',
      'Noto Sans Devanagari',
      'Liberation Serif',
      'DejaVu Sans',
      'Carlito',
      'Caladea',
    ])
      expect(library.family(family).length, family).toBeGreaterThan(0)
    expect(library.familyNames.length).toBeGreaterThanOrEqual(54)
  })

  it('are measured in thousandths of an em, near what their designers state', () => {
    const spectral = library.named('Spectral', 'Regular')!
    expect(spectral.measures).toMatchObject({ xHeight: 450, capHeight: 660, ascender: 750 })
    expect(library.named('Liberation Sans', 'Regular')!.measures.averageWidth).toBeGreaterThan(
      library.named('Barlow Condensed', 'Regular')!.measures.averageWidth,
    )
    expect(spectral.embedding).toBe('installable')
    expect(spectral.licence).toContain('Open Font License')
  })

  it('tell their weights apart, even where old files blur them', () => {
    expect(library.named('Inter', 'Thin')!.weight).toBe(100)
    expect(library.named('Inter', 'ExtraLight')!.weight).toBe(200)
    expect(library.named('Space Mono', 'Bold Italic')).toMatchObject({ weight: 700, slant: 'italic', monospaced: true })
  })

  it('cover scripts', () => {
    const biz = library.named('BIZ UDPGothic', 'Regular')!
    expect(biz.coverage.Han).toBeGreaterThan(5000)
    expect([
      covers(biz, 0x65e5),
      covers(biz, 0x0627),
      covers(library.named('Noto Naskh Arabic', 'Regular')!, 0x0627),
    ]).toEqual([true, false, true])
    expect(missingGlyphs(library.named('Jost', 'Regular')!, 'a日b日\u200B')).toEqual(new Map([[0x65e5, 2]]))
  })
})

describe('a font file is untrusted', () => {
  const [file] = fontFiles()
  it('is refused when it is no font, cut off, or has no letters', () => {
    expect(() => readFace(new TextEncoder().encode('<html>'.repeat(50)), 'x', 'added')).toThrow(PackageError)
    expect(() => readFace(new Uint8Array(20), 'x', 'added')).toThrow(PackageError)
    const whole = new Uint8Array(readFileSync(file!.path))
    expect(() => readFace(whole.slice(0, 300), 'x', 'added')).toThrow(PackageError)
  })
})

describe('names', () => {
  it('resolve to present, also in another spelling or as a face of a family', () => {
    expect(request('Work Sans').status).toBe('present')
    expect(request('work-sans')).toMatchObject({ status: 'present', reason: expect.stringContaining('written') })
    expect(request('Spectral SemiBold')).toMatchObject({ status: 'present', face: { style: 'SemiBold', weight: 600 } })
    // Italics are meant where the name says so, and where the style does.
    expect(request('Spectral Italic').face.slant).toBe('italic')
    expect(request('Spectral SemiBold', { italic: true }).face).toMatchObject({ slant: 'italic', weight: 600 })
  })

  it('resolve to a metric-compatible alias, and say so', () => {
    expect(request('Times New Roman', { weight: 700 })).toMatchObject({
      status: 'alias',
      face: { family: 'Liberation Serif', weight: 700 },
      reason: expect.stringMatching(/same widths as .+; its lines may be higher or lower$/),
    })
    // Of some it is known how high their lines are, and they are set so.
    expect(request('Courier')).toMatchObject({
      reason: 'Liberation Mono has the same widths as Courier; lines are as high as there',
      lines: { above: 603, below: 397, gap: 200 },
    })
    expect(request('Courier New').lines).toEqual(request('Liberation Mono').lines)
    for (const group of aliasGroups)
      for (const name of group.names)
        expect(request(name), name).toMatchObject({ status: 'alias', face: { family: group.family } })
  })

  it.each([
    [{ generic: 'roman' }, 'Liberation Serif'],
    [{ generic: 'swiss' }, 'Liberation Sans'],
    [{ pitch: 'fixed' }, 'Liberation Mono'],
    [{ slot: 'asian' as const }, 'Zen Kaku Gothic New'],
    [{ charset: 'x-symbol' }, 'DejaVu Sans'],
  ])('an absent one gets a stand-in by %j', (hints, family) => {
    expect(request('Skerrow', hints)).toMatchObject({ status: 'absent', face: { family } })
  })

  it('no font named is not an absent font', () => {
    expect(request('').status).toBe('unnamed')
  })

  it('never invents a weight or a slant', () => {
    expect(request('Abril Fatface', { weight: 700, italic: true })).toMatchObject({
      exact: false,
      face: { weight: 400, slant: 'upright' },
    })
    const spectral = library.family('Spectral')
    expect([450, 500, 550, 900, 100].map(weight => nearest(spectral, weight, false).weight)).toEqual([
      500, 500, 600, 800, 200,
    ])
  })

  it('read and say styles', () => {
    expect(parseStyleName('Spectral Semi Bold Italic')).toEqual({ weight: 600, italic: true, rest: 'Spectral' })
    expect(parseStyleName('Archivo')).toBeNull()
    expect([styleName(400, true), styleName(800, false), styleName(275, true)]).toEqual([
      'Italic',
      'ExtraBold',
      'Light Italic',
    ])
    expect([faceName('Jost Medium', 'Regular'), faceName('Jost', 'Bold')]).toEqual(['Jost Medium', 'Jost Bold'])
  })
})
