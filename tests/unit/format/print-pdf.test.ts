import { deflateSync } from 'node:zlib'
import { PNG } from 'pngjs'
import { describe, expect, it } from 'vitest'
import { PrintModel, readCharacterisation, type Inks, type Lab } from '../../../core/format/icc/characterisation'
import { outputProfile } from '../../../core/format/icc/output-profile'
import { inksFor } from '../../../core/format/icc/separation'
import { jpegProfile, pngProfile } from '../../../core/format/pdf/pictures'
import { PdfError, type PrintOptions } from '../../../core/format/pdf/write'
import { galleyMenu } from '../../../demo/galley-menu'
import { screenProfile } from '../../../server/library/printing'
import { face, makeOdt, textStyle, type Fixture } from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'
import { untagged } from '../../support/tagged-pdf'

/** Measurements of a made-up press: every mixture of some levels of inks that each take away their share of the light. */
function chart(levels = [0, 50, 100], blacks = [0, 100]): string {
  const rows: string[] = []
  const press = (c: number, m: number, y: number, k: number): Lab => [
    95 - 0.35 * c - 0.4 * m - 0.06 * y - 0.75 * k * (1 - (c + m + y) / 600),
    (m * 0.7 - c * 0.35) * (1 - k / 110),
    (y * 0.9 - c * 0.5) * (1 - k / 110),
  ]
  let id = 0
  for (const k of blacks)
    for (const c of levels)
      for (const m of levels) for (const y of levels) rows.push([++id, c, m, y, k, ...press(c, m, y, k)].join(' '))
  return [
    'CTI3',
    'DESCRIPTOR "Quay press"',
    'PRINT_CONDITIONS "sheets on the quay"',
    'BEGIN_DATA_FORMAT',
    'SAMPLE_ID CMYK_C CMYK_M CMYK_Y CMYK_K LAB_L LAB_A LAB_B',
    'END_DATA_FORMAT',
    'BEGIN_DATA',
    ...rows,
    'END_DATA',
  ].join('\n')
}
const model = new PrintModel(readCharacterisation(chart()))
const profile = outputProfile(model, 'Quay press')
const print = (more: Partial<PrintOptions> = {}): PrintOptions => ({
  intent: { condition: 'Quay press', description: 'sheets on the quay', profile },
  screen: screenProfile(),
  inks: [],
  ...more,
})
const small = (fixture: Fixture) =>
  makeOdt({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="12pt" ' +
      'fo:language="en" fo:country="GB"/></style:default-style>',
    ...fixture,
  })
const p = (style: string, text: string) => `<text:p><text:span text:style-name="${style}">${text}</text:span></text:p>`

describe('measurements of a printing condition', () => {
  it('are read with what they were made of, and give back every mixture that was measured', () => {
    const read = readCharacterisation(chart())
    expect([read.name, read.conditions, read.patches.length]).toEqual(['Quay press', 'sheets on the quay', 54])
    for (const { inks, lab } of read.patches)
      model.lab(inks).forEach((value, axis) => {
        expect(value).toBeCloseTo(lab[axis]!, 9)
      })
  })

  it('are straight between two mixtures', () => {
    const [none, full] = [model.lab([0, 0, 0, 0]), model.lab([0.5, 0, 0, 0])]
    expect(model.lab([0.25, 0, 0, 0])[0]).toBeCloseTo((none[0] + full[0]) / 2, 9)
    expect(model.lab([0, 0, 0, 0.5])[0]).toBeCloseTo((95 + 20) / 2, 9)
  })

  it('leave out levels that were not measured in every mixture', () => {
    const torn = chart([0, 50, 80, 100])
      .split('\n')
      .filter(line => !/^\d+ 80 (50|100) 0 /.test(line))
      .join('\n')
    expect(new PrintModel(readCharacterisation(torn)).lab([0.5, 1, 0, 0])[0]).toBeCloseTo(95 - 17.5 - 40, 9)
  })

  it('are refused without the columns, without rows, and without full black', () => {
    expect(() => readCharacterisation(chart().replace('LAB_B', 'LAB_X'))).toThrow('no column LAB_B')
    expect(() => readCharacterisation('BEGIN_DATA_FORMAT\nA\nEND_DATA_FORMAT')).toThrow('no column CMYK_C')
    expect(() => new PrintModel(readCharacterisation(chart([0, 100], [0, 50])))).toThrow('full black')
  })

  it('tell the inks for a colour: few where it is light, black where it is dark, the nearest where there are none', () => {
    for (const inks of [
      [0.2, 0.1, 0.3, 0],
      [0.7, 0.2, 0, 0],
      [0, 0.9, 0.9, 0],
    ] as const satisfies readonly Inks[]) {
      const found = inksFor(model, model.lab(inks), null)
      expect(found.distance).toBeLessThan(0.6)
    }
    expect(inksFor(model, [90, -2, 3], null).inks[3]).toBe(0)
    expect(inksFor(model, [25, 0, 0], null).inks[3]).toBeGreaterThan(0.4)
    const beyond = inksFor(model, [60, 120, 0], null)
    expect(beyond.distance).toBeGreaterThan(30)
    expect(beyond.inks[1]).toBeGreaterThan(0.8)
  })

  it('become a profile whose head, tags and tables are where they should be', () => {
    const view = new DataView(profile.buffer)
    const text = (from: number, to: number) => String.fromCharCode(...profile.subarray(from, to))
    expect(view.getUint32(0)).toBe(profile.length)
    expect([text(12, 16), text(16, 20), text(20, 24), text(36, 40)]).toEqual(['prtr', 'CMYK', 'Lab ', 'acsp'])
    const tags = Array.from({ length: view.getUint32(128) }, (_, at) => ({
      name: text(132 + at * 12, 136 + at * 12),
      from: view.getUint32(136 + at * 12),
      size: view.getUint32(140 + at * 12),
    }))
    expect(tags.map(tag => tag.name)).toEqual([
      'desc',
      'cprt',
      'wtpt',
      'A2B0',
      'A2B1',
      'A2B2',
      'B2A0',
      'B2A1',
      'B2A2',
      'gamt',
    ])
    for (const tag of tags) expect(tag.from + tag.size).toBeLessThanOrEqual(profile.length)
    // Paper is white beside itself: the first entry of the table of prints.
    const table = tags.find(tag => tag.name === 'A2B1')!.from + 52 + 4 * 4
    expect([
      view.getUint16(table) / 652.8,
      view.getUint16(table + 2) / 256 - 128,
      view.getUint16(table + 4) / 256 - 128,
    ]).toEqual([expect.closeTo(100, 1), expect.closeTo(0, 1), expect.closeTo(0, 1)])
  })
})

describe('a PDF for print', () => {
  it('has its boxes, the printing condition, and says that it is built to PDF/X-4', async () => {
    const pdf = await madePdf(galleyMenu(), { print: print(), bleed: 8.5, cropMarks: true, leaveOut: true })
    expect(pdf.check()).toBe(0)
    expect(pdf.lacks).toEqual([])
    const source = pdf.source()
    expect(source).toContain('/S /GTS_PDFX')
    expect(source).toContain('<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>')
    expect(source).toContain('/Trapped /False')
    expect(source).toMatch(/\/ID \[/)
    expect(source).toMatch(/\/N 4\b/)
    expect(source).not.toContain('/Subtype /Link')
    expect(pdf.info('-box')).toMatch(/TrimBox:\s+27\.50\s+27\.50/)
    expect(pdf.info('-box')).toMatch(/BleedBox:\s+19\.00\s+19\.00/)
    expect(source).toMatch(/\/Registration CS 1 SCN/)
    expect(untagged(pdf.path)).toEqual([])
  })

  it('prints black text with black alone, greys with black, and tells what all other colours mean', async () => {
    const pdf = await madePdf(
      small({
        automatic:
          textStyle('K', 'fo:color="#000000"') +
          textStyle('G', 'fo:color="#808080"') +
          textStyle('R', 'fo:color="#b4361e"'),
        body: p('K', 'black') + p('G', 'grey') + p('R', 'rubric') + '<text:p>automatic</text:p>',
      }),
      { print: print() },
    )
    const source = pdf.source()
    expect(source.match(/\n?BT \/F\d+ 12 Tf 0 0 0 1 k 0 Tr/g)).toHaveLength(2)
    expect(source).toContain('Tf 0.502 g 0 Tr')
    expect(source).toContain('Tf 0.706 0.212 0.118 rg 0 Tr')
    expect(source).not.toMatch(/\b0 0 0 rg/)
    expect(source).toMatch(/\/DefaultRGB \d+ 0 R/)
    expect(source).toMatch(/\/ICCBased/)
  })

  it('prints colours of a palette with their own inks', async () => {
    const pdf = await madePdf(
      small({
        automatic: textStyle('V', 'fo:color="#1f6f6b"') + textStyle('O', 'fo:color="#8a570c"'),
        body: p('V', 'spot') + p('O', 'process'),
      }),
      {
        print: print({
          inks: [
            { color: '#1F6F6B', ink: { spot: 'Saltmere Green' } },
            { color: '#8a570c', ink: { process: [10, 55, 100, 30] } },
          ],
        }),
      },
    )
    const source = pdf.source()
    expect(source).toContain('/Spot1 cs 1 scn')
    expect(source).toContain('0.1 0.55 1 0.3 k')
    expect(source).toMatch(/\/Separation\s+\/Saltmere#20Green/)
    expect(pdf.check()).toBe(0)
  })

  it('does not say what it is built to where a picture is missing, and refuses a profile of a screen', async () => {
    const body =
      '<text:p><draw:frame text:anchor-type="as-char" svg:width="2cm" svg:height="2cm"><draw:image xlink:href="Pictures/none.png"/>' +
      '</draw:frame></text:p>'
    const pdf = await madePdf(small({ body }), { print: print() })
    expect(pdf.lacks).toEqual(['pictures could not be written'])
    expect(pdf.source()).not.toContain('PDF/X-4')
    const intent = { condition: 'a screen', description: '', profile: screenProfile() }
    await expect(madePdf(small({ body }), { print: print({ intent }) })).rejects.toThrow(PdfError)
  })

  it('leaves pictures their own profiles', async () => {
    const png = new PNG({ width: 2, height: 2 })
    png.data.fill(255)
    const plain = new Uint8Array(PNG.sync.write(png))
    const content = withProfile(plain, screenProfile())
    expect(pngProfile(content)).toEqual(screenProfile())
    expect(pngProfile(plain)).toBeNull()
    const body =
      '<text:p><draw:frame text:anchor-type="as-char" svg:width="2cm" svg:height="2cm"><draw:image xlink:href="Pictures/a.png"/>' +
      '</draw:frame></text:p>'
    const source = (
      await madePdf(small({ body, parts: [{ path: 'Pictures/a.png', type: 'image/png', content }] }))
    ).source()
    expect(source).toMatch(/\/ColorSpace \[\s+\/ICCBased/)
  })

  it('finds the profile of a JPEG that is cut into pieces', () => {
    const piece = (index: number, data: readonly number[]) => {
      const inside = [...Buffer.from('ICC_PROFILE\0'), index, 2, ...data]
      return [0xff, 0xe2, (inside.length + 2) >> 8, (inside.length + 2) & 255, ...inside]
    }
    const bytes = Uint8Array.from([0xff, 0xd8, ...piece(2, [3, 4]), ...piece(1, [1, 2]), 0xff, 0xda, 0, 2])
    expect([...jpegProfile(bytes)!]).toEqual([1, 2, 3, 4])
    expect(jpegProfile(Uint8Array.from([0xff, 0xd8, 0xff, 0xda, 0, 2]))).toBeNull()
  })
})

/** A PNG with a profile put in front of its data. The sum of the chunk is not looked at. */
function withProfile(png: Uint8Array, own: Uint8Array): Uint8Array {
  const packed = deflateSync(own)
  const data = [...Buffer.from('sRGB\0\0'), ...packed]
  const length = [data.length >>> 24, (data.length >> 16) & 255, (data.length >> 8) & 255, data.length & 255]
  const chunk = [...length, ...Buffer.from('iCCP'), ...data, 0, 0, 0, 0]
  return Uint8Array.from([...png.subarray(0, 33), ...chunk, ...png.subarray(33)])
}
