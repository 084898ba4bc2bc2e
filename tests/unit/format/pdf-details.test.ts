import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { unzipSync, zipSync } from 'fflate'
import { PNG } from 'pngjs'
import { afterAll, describe, expect, it } from 'vitest'
import { writePdf } from '../../../core/format/pdf/write'
import { DocumentSession } from '../../../core/session'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { face, makeOdt, paragraphStyle, textStyle, typesetter, type Fixture } from '../../support/fixtures'

const folder = mkdtempSync(join(tmpdir(), 'morphene-pdf-details-'))
afterAll(() => {
  rmSync(folder, { recursive: true })
})
const { load } = shippedLibrary()
const subsetter = startSubsetter()
let count = 0

/** The PDF of a small document, as text that qpdf lays open, with what programs read from it. */
async function made(fixture: Fixture, packed: (bytes: Uint8Array) => Uint8Array = bytes => bytes) {
  const bytes = makeOdt({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="12pt"/></style:default-style>',
    ...fixture,
  })
  const { composition } = await DocumentSession.start(packed(bytes), typesetter)
  const pdf = await writePdf(composition, typesetter, load, subsetter, {
    bleed: 0,
    cropMarks: false,
    leaveOut: false,
    notes: false,
    made: 0,
  })
  const path = join(folder, `${count++}.pdf`)
  writeFileSync(path, pdf.bytes)
  const run = (program: string, ...args: string[]) =>
    spawnSync(program, args, { encoding: 'latin1', maxBuffer: 1 << 27 })
  expect(run('qpdf', '--check', path).status).toBe(0)
  return {
    ...pdf,
    path,
    source: run('qpdf', '--qdf', '--object-streams=disable', path, '-').stdout,
    text: spawnSync('pdftotext', ['-raw', path, '-'], { encoding: 'utf8' }).stdout,
  }
}

/** Titles of the outline as they nest, told from the objects. */
function outline(source: string): string[] {
  const objects = new Map(
    [...source.matchAll(/^(\d+) 0 obj\n([\s\S]*?)\nendobj/gm)].map(match => [match[1]!, match[2]!]),
  )
  const reference = (object: string, key: string) => new RegExp(`/${key} (\\d+) 0 R`).exec(object)?.[1]
  const title = (object: string) => {
    const hex = /\/Title <([0-9a-fA-F]+)>/.exec(object)?.[1]
    if (hex !== undefined) return Buffer.from(hex, 'hex').swap16().toString('utf16le').slice(1)
    return /\/Title \((.*?)\)/.exec(object)?.[1] ?? ''
  }
  const found: string[] = []
  const walk = (id: string | undefined, depth: number): void => {
    for (let at = id; at; at = reference(objects.get(at)!, 'Next')) {
      found.push('  '.repeat(depth) + title(objects.get(at)!))
      walk(reference(objects.get(at)!, 'First'), depth + 1)
    }
  }
  const root = [...objects.values()].find(object => object.includes('/Type /Outlines'))
  if (root) walk(reference(root, 'First'), 0)
  return found
}
function picture(width: number, height: number): Uint8Array {
  const png = new PNG({ width, height })
  png.data.fill(180)
  return new Uint8Array(PNG.sync.write(png))
}

describe('bookmarks', () => {
  const h = (level: number, text: string) => `<text:h text:outline-level="${level}">${text}</text:h>`

  it('nest as the headings do, levels that are left out included', async () => {
    const { source } = await made({
      body: h(1, 'Islands') + h(2, 'Tern Holm') + h(3, 'The pier') + h(2, 'Ossay') + h(1, 'Boats') + h(3, 'Small ones'),
    })
    expect(outline(source)).toEqual(['Islands', '  Tern Holm', '    The pier', '  Ossay', 'Boats', '  Small ones'])
  })

  it('bear the number that the heading bears, and any letters', async () => {
    const styles =
      '<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="1" ' +
      'style:num-suffix="."/></text:outline-style>'
    expect(outline((await made({ styles, body: h(1, 'Überfahrt 航路') })).source)).toEqual(['1. Überfahrt 航路'])
  })

  it('are left out where there is no heading, or an empty one', async () => {
    expect(outline((await made({ body: '<text:p>plain</text:p>' })).source)).toEqual([])
    expect(outline((await made({ body: h(1, '') })).source)).toEqual([])
  })
})

describe('pictures', () => {
  const image = (href: string) =>
    `<text:p>a <draw:frame text:anchor-type="as-char" svg:width="4cm" svg:height="2cm">` +
    `<draw:image xlink:href="${href}"/></draw:frame> b</text:p>`

  it('are drawn at their size and place, each kept once', async () => {
    const { source, pictures } = await made({
      body: image('Pictures/a.png').repeat(2),
      parts: [{ path: 'Pictures/a.png', type: 'image/png', content: picture(8, 4) }],
    })
    expect(pictures).toEqual([])
    expect(source.match(/\/Subtype \/Image/g)!.length).toBeLessThanOrEqual(2)
    const drawn = [...source.matchAll(/q ([\d.]+) 0 0 ([\d.]+) [\d.]+ [\d.]+ cm \/I\d+ Do Q/g)]
    expect(drawn).toHaveLength(2)
    expect([Number(drawn[0]![1]), Number(drawn[0]![2])].map(value => Math.round((value / 72) * 25.4))).toEqual([40, 20])
  })

  it('are drawn where they lie in the package as they are, not packed', async () => {
    const stored = (bytes: Uint8Array) =>
      zipSync(Object.fromEntries(Object.entries(unzipSync(bytes)).map(([path, part]) => [path, [part, { level: 0 }]])))
    const parts = [{ path: 'Pictures/a.png', type: 'image/png', content: picture(8, 4) }]
    const { source, pictures } = await made({ body: image('Pictures/a.png'), parts }, stored)
    expect(pictures).toEqual([])
    expect(source.match(/cm \/I\d+ Do Q/g)).toHaveLength(1)
  })

  it('that are missing, damaged or of other kinds are named, and a box stands for them', async () => {
    const { pictures, source } = await made({
      body: image('Pictures/none.png') + image('Pictures/bad.png') + image('Pictures/other.svm'),
      parts: [
        { path: 'Pictures/bad.png', type: 'image/png', content: picture(8, 4).slice(0, 30) },
        { path: 'Pictures/other.svm', type: '', content: 'VCLMTF' },
      ],
    })
    expect([...pictures].sort()).toEqual([
      expect.stringMatching(/^Pictures\/bad\.png \(.+\)$/),
      'Pictures/none.png',
      'Pictures/other.svm',
    ])
    expect(source.match(/0\.929 0\.922 0\.89 rg/g)).toHaveLength(3)
  })
})

describe('what fills shapes', () => {
  const shape = (fill: string, definition: string, parts: Fixture['parts'] = []) =>
    made({
      automatic: `<style:style style:name="g" style:family="graphic"><style:graphic-properties ${fill}/></style:style>`,
      styles: definition,
      body: '<text:p>a <draw:ellipse text:anchor-type="as-char" draw:style-name="g" svg:width="4cm" svg:height="2cm"/></text:p>',
      parts,
    })
  const gradient = (style: string) =>
    shape(
      'draw:fill="gradient" draw:fill-gradient-name="G" draw:opacity="50%"',
      `<draw:gradient draw:name="G" draw:style="${style}" draw:border="20%" draw:start-color="#ff0000" draw:end-color="#0000ff"/>`,
    )

  it('runs from colour to colour inside its outline, as opaque as it is said to be', async () => {
    const axial = await gradient('axial')
    expect(axial.source).toMatch(/\/ShadingType 2/)
    expect(axial.source.match(/\/FunctionType 2/g)).toHaveLength(4)
    expect(axial.source).toMatch(/W\* n\n\/G500_1000 gs\n1 0 0 -1 [\d.]+ [\d.]+ cm\n[-\d. ]+ cm \/S1 sh Q/)
    const round = await gradient('radial')
    expect(round.source).toMatch(/\/ShadingType 3/)
    expect((await gradient('square')).source.match(/W\* n/g)).toHaveLength(64)
  })

  it('is drawn tile by tile, and in lines, no further than its outline', async () => {
    const tiled = await shape(
      'draw:fill="bitmap" draw:fill-image-name="I" draw:fill-image-width="1cm" draw:fill-image-height="1cm" ' +
        'draw:fill-image-ref-point="top-left"',
      '<draw:fill-image draw:name="I" xlink:href="Pictures/a.png"/>',
      [{ path: 'Pictures/a.png', type: 'image/png', content: picture(8, 8) }],
    )
    expect(tiled.source.match(/cm \/I\d+ Do Q/g)).toHaveLength(8)
    expect(tiled.source.match(/W\* n/g)).toHaveLength(1)
    const hatched = await shape(
      'draw:fill="hatch" draw:fill-hatch-name="H"',
      '<draw:hatch draw:name="H" draw:color="#00ff00" draw:distance="0.5cm"/>',
    )
    expect(hatched.source).toMatch(/W\* n\nq\n0 1 0 RG/)
  })
})

describe('the look of text', () => {
  const styled = (properties: string, text = 'sea') =>
    made({
      automatic: textStyle('T', properties),
      body: `<text:p><text:span text:style-name="T">${text}</text:span></text:p>`,
    })

  it('has its colour, background, outline and lines', async () => {
    expect((await styled('fo:color="#ff0000"')).source).toContain('1 0 0 rg')
    expect((await styled('fo:background-color="#0000ff"')).source).toMatch(/0 0 1 rg [\d.]+ [\d.]+ [\d.]+ [\d.]+ re f/)
    expect((await styled('style:text-outline="true"')).source).toMatch(/1 Tr [\d.]+ w/)
    expect((await styled('style:text-underline-style="dash" style:text-underline-color="#00ff00"')).source).toMatch(
      /0 1 0 RG [\d.]+ w \[[\d.]+ [\d.]+\] 0 d [\d.]+ [\d.]+ m [\d.]+ [\d.]+ l S/,
    )
    const waves = /0 1 0 RG [\d.]+ w \[\] 0 d ([\d.]+) ([\d.]+) m ((?:[\d. ]+ c )+)S/.exec(
      (await styled('style:text-underline-style="wave" style:text-underline-color="#00ff00"')).source,
    )!
    const heights = waves[3]!
      .trim()
      .split(' c')
      .filter(Boolean)
      .map(curve => Number(curve.trim().split(' ')[1]) - Number(waves[2]))
    expect(heights.length).toBeGreaterThan(3)
    heights.forEach((height, index) => {
      expect(Math.sign(height)).toBe(index % 2 === 0 ? 1 : -1)
    })
    expect((await styled('style:text-scale="50%"')).source).toMatch(/0\.5 0 0 1 [\d.]+ [\d.]+ Tm/)
  })

  it('stands where marks do: glyphs that are moved up have places of their own', async () => {
    const heights = (source: string) =>
      [...source.matchAll(/1 0 0 1 [\d.]+ ([\d.]+) Tm/g)].map(match => Number(match[1]))
    const [base, mark] = heights((await styled('style:font-name="Inter"', 'x\u0302\u0301')).source)
    expect(mark! - base!).toBeGreaterThan(1)
    expect(heights((await styled('style:font-name="Inter"', 'xy')).source)).toEqual([base])
  })

  it('is read back where several glyphs or one stand for its letters', async () => {
    const { text } = await styled('style:font-name="Spectral"', 'office ﬁn affluent')
    expect(text.trim().normalize('NFKC')).toBe('office fin affluent')
  })

  it('that is no text of the document, such as a hyphen at a line’s end, is still there to be read', async () => {
    const { text } = await made({
      automatic: paragraphStyle('H', 'fo:hyphenate="true" fo:font-size="24pt" fo:language="en"'),
      body: '<text:p text:style-name="H">internationally considerable</text:p>',
    })
    expect(
      text
        .replace(/\u00AD\n/g, '')
        .replace(/\s+/g, ' ')
        .trim(),
    ).toBe('internationally considerable')
  })
})
