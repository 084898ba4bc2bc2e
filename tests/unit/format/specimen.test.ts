import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { inflateSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { makeSpecimen, scaleLength, specimenSchema } from '../../../core/format/odf/specimen'
import { writePdf } from '../../../core/format/pdf/write'
import { shownFeature, shownFeatures } from '../../../core/font/features'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { library, session, typesetter } from '../../support/fixtures'

const face = (family: string) =>
  library.faces.find(each => each.family === family && each.weight === 400 && each.slant === 'upright')!
const of = (more: object = {}) => specimenSchema.parse({ words: 'The morning boat is the Grey Plover', ...more })
async function pdfOf(families: readonly string[], more: object = {}): Promise<Uint8Array> {
  const { composition } = session(makeSpecimen(families.map(face), of(more)))
  expect(composition.unlaid).toEqual([])
  const options = { bleed: 0, cropMarks: false, leaveOut: false, notes: false, made: 0 }
  return (await writePdf(composition, typesetter, shippedLibrary().load, startSubsetter(), options)).bytes
}
/** What a PDF draws, its streams laid open: read here on its own, without what wrote it. */
function drawn(bytes: Uint8Array): string {
  const buffer = Buffer.from(bytes)
  const found: string[] = []
  for (let at = buffer.indexOf('stream\n'); at >= 0; at = buffer.indexOf('stream\n', at + 7)) {
    const end = buffer.indexOf('endstream', at)
    try {
      found.push(inflateSync(buffer.subarray(at + 7, end)).toString('latin1'))
    } catch {
      /* Fonts and object streams are none of what is looked for. */
    }
    at = end
  }
  return found.join('\n')
}

describe('a specimen as PDF', () => {
  let folder = ''
  beforeAll(() => {
    folder = mkdtempSync(join(tmpdir(), 'specimen-'))
  })
  afterAll(() => {
    rmSync(folder, { recursive: true })
  })
  const words = (bytes: Uint8Array) => {
    const path = join(folder, 'specimen.pdf')
    writeFileSync(path, bytes)
    const { stdout } = spawnSync('pdftotext', ['-bbox', path, '-'], { encoding: 'utf8' })
    return [...stdout.matchAll(/xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">([^<]+)</g)].map(
      ([, x1, y1, x2, y2, word]) => ({ x1: Number(x1), y1: Number(y1), x2: Number(x2), y2: Number(y2), word: word! }),
    )
  }

  it('has a scale that measures right in the page’s points', async () => {
    const content = drawn(await pdfOf(['Lora']))
    // The strokes of the scale: 101 upright ones, and one along them.
    const strokes = [...content.matchAll(/([\d.]+) ([\d.]+) m\s+([\d.]+) ([\d.]+) l/g)].map(each =>
      each.slice(1).map(Number),
    )
    const upright = strokes.filter(([x1, , x2]) => Math.abs(x1! - x2!) < 0.01).map(([x1]) => x1!)
    expect(upright.length).toBe(202)
    const places = upright.slice(0, 101).sort((a, b) => a - b)
    const point = 72 / 25.4
    expect(places.at(-1)! - places[0]!).toBeCloseTo(scaleLength * point, 1)
    places.forEach((place, at) => expect(place - places[0]!).toBeCloseTo(at * point, 1))
  })

  it('shows one face at steps of size, each as large as it says, and cut where the sheet ends', async () => {
    const all = words(await pdfOf(['Lora']))
    const starts = all.filter(each => each.word === 'The')
    const advance = (size: number) => {
      const shapes = typesetter.shaper.wordShapes({
        face: face('Lora').hash,
        axes: [],
        transform: 'none',
        corrections: [],
        run: { rightToLeft: false, script: 'Latn', language: 'en', features: [] },
      })
      const word = typesetter.words.number('The')
      shapes.ensure(word)
      return (shapes.widths[word]! * size) / shapes.unitsPerEm
    }
    ;[6, 7, 8, 9, 10, 12, 14, 18, 24, 36, 48, 72].forEach((size, at) => {
      const { x1, x2 } = starts[at]!
      expect(x2 - x1, `${size} pt`).toBeCloseTo(advance(size), 1)
    })
    const [width] = [(210 * 72) / 25.4]
    for (const each of all) expect(each.x2).toBeLessThan(width)
  })

  it('lays several at one x-height: as large as the first looks', () => {
    const families = ['Lora', 'Bodoni Moda', 'Inter']
    const source = session(makeSpecimen(families.map(face), of({ equal: 'x-height', size: 30 }))).document.parts.get(
      'content.xml',
    )!.source
    for (const family of families) {
      const { xHeight } = face(family).measures
      const size = Math.round((30 * face('Lora').measures.xHeight * 100) / xHeight) / 100
      expect(source).toContain(`${family} Regular, ${size} pt`)
      expect((size * xHeight) / (30 * face('Lora').measures.xHeight)).toBeCloseTo(1, 2)
    }
  })

  it('shows the very face that was asked for, whatever its family is called', () => {
    const heavy = library.faces.find(each => each.family === 'Spectral' && each.style === 'SemiBold Italic')!
    const opened = session(makeSpecimen([heavy], of()))
    const shown = opened.detail.census.faces.filter(each => each.family === 'Spectral')
    expect(shown.map(each => each.shownBy)).toEqual([heavy.hash])
    const odd = session(makeSpecimen([{ ...heavy, family: "Quay's Own", style: 'Regular' }], of()))
    expect(odd.detail.census.faces.map(each => each.family)).toContain("Quay's Own")
  })

  it('takes words that are markup as words, and a long first word in part', () => {
    const source = session(makeSpecimen([face('Lora')], of({ words: '<b>&'.repeat(40) }))).document.parts.get(
      'content.xml',
    )!.source
    expect(source).toContain('&lt;b&gt;&amp;')
    expect(source).not.toContain('<b>')
    expect(() => makeSpecimen([], of())).toThrow(RangeError)
    expect(specimenSchema.safeParse({ words: ' ' }).success).toBe(false)
  })
})

describe('features that people switch', () => {
  it('are named and shown in words; what works by itself is none', () => {
    expect(shownFeatures(['kern', 'ss02', 'onum', 'mark', 'liga', 'ss01', 'ccmp']).map(each => each.tag)).toEqual([
      'liga',
      'onum',
      'ss01',
      'ss02',
    ])
    expect(shownFeature('cv11')).toMatchObject({ title: 'character variant 11', usual: false })
    expect(shownFeature('liga')).toMatchObject({ usual: true })
    expect(shownFeature('kern')).toBeNull()
  })
})
