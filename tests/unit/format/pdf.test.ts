import { describe, expect, it } from 'vitest'
import { PdfError } from '../../../core/format/pdf/write'
import { Library } from '../../../core/font/library'
import { Typesetter } from '../../../core/typeset/look'
import { Shaper } from '../../../core/typeset/shaper'
import { crewHandbook } from '../../../demo/crew-handbook'
import { sailingGuide } from '../../../demo/sailing-guide'
import { startHarfBuzz } from '../../../server/library/harfbuzz'
import { shippedFaces, shippedLibrary } from '../../../server/library/shipped'
import { face, makeOdt, paragraphStyle, type Fixture } from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'

const { load } = shippedLibrary()
const small = (fixture: Fixture) =>
  makeOdt({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="12pt" fo:language="en" fo:country="GB"/></style:default-style>',
    ...fixture,
  })

describe('a PDF', () => {
  it('is sound, has every font subset and embedded, and its text in order', async () => {
    const pdf = await madePdf(sailingGuide())
    expect(pdf.check()).toBe(0)
    expect(pdf.pages).toBe(24)
    for (const line of pdf.fonts()) expect(line).toMatch(/^[A-Z]{6}\+\S+ .*\byes\s+yes\s+yes\b/)
    const text = pdf.text().replace(/\s+/g, ' ')
    const order = [
      'Crossing to the outer islands',
      'The morning boat is the Grey Plover',
      'Before you board',
      'When the sea is up',
      'Welcome aboard',
      'ソルトミア航路へようこそ',
    ]
    const at = order.map(each => text.indexOf(each))
    expect(at.every((position, index) => position >= 0 && (index === 0 || position > at[index - 1]!))).toBe(true)
  })

  it('has true size, title, language, and the headings as bookmarks', async () => {
    const pdf = await madePdf(sailingGuide())
    expect(pdf.info('-box')).toMatch(/Title:\s+Sailing guide/)
    expect(pdf.info('-box')).toMatch(/MediaBox:\s+0\.00\s+0\.00\s+345\.83\s+487\.56/)
    const source = pdf.source()
    expect(source).toContain('/Lang (en-GB)')
    expect(source.match(/\/Title </g)!.length).toBeGreaterThan(30)
    expect(source).toContain('/PageMode /UseOutlines')
  })

  it('is the same file every time', async () => {
    const [one, other] = [await madePdf(sailingGuide()), await madePdf(sailingGuide())]
    expect(Buffer.compare(one.bytes, other.bytes)).toBe(0)
  })

  it('has bleed and crop marks where asked, and the same page inside', async () => {
    const pdf = await madePdf(small({ body: '<text:p>a page</text:p>' }), { bleed: 8.5, cropMarks: true })
    expect(pdf.check()).toBe(0)
    const box = (name: string) =>
      new RegExp(`${name}:\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)\\s+([\\d.]+)`)
        .exec(pdf.info('-box'))!
        .slice(1)
        .map(Number)
    const [left, , right] = box('TrimBox') as [number, number, number, number]
    expect(right - left).toBeCloseTo(283.46, 1)
    expect(box('BleedBox')[0]).toBeCloseTo(left - 8.5, 1)
    expect(pdf.source().match(/ l S/g)!.length).toBeGreaterThanOrEqual(8)
  })

  it('gives back words whatever shows them: ligatures, capitals by style, leaders, right to left', async () => {
    const pdf = await madePdf(
      small({
        automatic:
          `${paragraphStyle('U', 'fo:text-transform="uppercase"')}<style:style style:name="L" ` +
          `style:family="paragraph"><style:paragraph-properties><style:tab-stops><style:tab-stop ` +
          `style:position="7cm" style:type="right" style:leader-style="dotted"/></style:tab-stops>` +
          `</style:paragraph-properties></style:style>${paragraphStyle('H', 'fo:hyphenate="true" fo:font-size="20pt"')}`,
        body:
          '<text:p>office affine flow</text:p><text:p text:style-name="U">loud</text:p>' +
          '<text:p text:style-name="L">Piers<text:tab/>12</text:p><text:p>שלום עולם</text:p>' +
          '<text:p text:style-name="H">considerations notwithstanding</text:p>',
      }),
    )
    const text = pdf.text('-raw')
    expect(text).toContain('office affine flow')
    expect(text.toLowerCase()).toContain('loud')
    expect(text).toMatch(/Piers\s+12/)
    expect(text).not.toContain('...')
    expect(text.replace(/[\u200E\u200F\u202A-\u202E]/g, '')).toMatch(/שלום/)
    expect(pdf.check()).toBe(0)
  })

  it('places glyphs where the composition does', async () => {
    const pdf = await madePdf(
      small({
        automatic: paragraphStyle('J', '', 'fo:text-align="justify"'),
        body: `<text:p text:style-name="J">${'sea harbour light morning '.repeat(8)}</text:p>`,
      }),
    )
    const words = [...pdf.text('-bbox').matchAll(/xMin="([\d.]+)" yMin="[\d.]+" xMax="([\d.]+)"/g)].map(
      match => [Number(match[1]), Number(match[2])] as const,
    )
    const right = Math.max(...words.map(([, end]) => end))
    // Lines end at the measure, 8 cm from the margin of one.
    expect(right).toBeCloseTo((9 / 2.54) * 72, 0)
    expect(Math.min(...words.map(([start]) => start))).toBeCloseTo(72 / 2.54, 0)
  })

  it('refuses faces that may not be embedded by name, and leaves them out when told to', async () => {
    const faces = shippedFaces().map(({ face: each }) =>
      each.family === 'Spectral' ? { ...each, embedding: 'restricted' as const } : each,
    )
    const strict = new Typesetter(new Library(faces), new Shaper(startHarfBuzz(), load))
    const bytes = small({ body: '<text:p>kept</text:p>' })
    await expect(madePdf(bytes, {}, strict)).rejects.toThrow(PdfError)
    await expect(madePdf(bytes, {}, strict)).rejects.toThrow(/Spectral Regular/)
    const left = await madePdf(bytes, { leaveOut: true }, strict)
    expect(left.notEmbedded).toEqual(['Spectral Regular'])
    expect(left.fonts().join()).toMatch(/Spectral-Regular .*\bno\s+no\b/)
    expect(left.check()).toBe(0)
  })

  it('holds for two hundred pages with notes, columns and chained frames', async () => {
    const pdf = await madePdf(crewHandbook())
    expect(pdf.check()).toBe(0)
    expect(pdf.pages).toBeGreaterThan(190)
    expect(pdf.session.composition.overset).toMatchObject([{ name: 'Fleet 2' }])
    expect(pdf.session.composition.unlaid).toEqual([])
    expect(pdf.text('-f', '1', '-l', '1')).toContain('About this book')
  }, 60_000)
})
