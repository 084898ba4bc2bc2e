import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { unzipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { openDocument } from '../../../core/document/open'
import type { FaceRecord } from '../../../core/font/face'
import { Library } from '../../../core/font/library'
import { mayTravel, writeBundle } from '../../../core/format/handoff/bundle'
import { handOff, HandoffError, rightTo } from '../../../core/format/handoff/hand-off'
import { handoffSchema, type HandoffRequest } from '../../../core/format/handoff/request'
import { PdfError } from '../../../core/format/pdf/write'
import { houseSchema } from '../../../core/house/house'
import { houseFromTokens } from '../../../core/house/tokens'
import { DocumentSession } from '../../../core/session'
import { Typesetter } from '../../../core/typeset/look'
import { Shaper } from '../../../core/typeset/shaper'
import { galleyMenu } from '../../../demo/galley-menu'
import { sailingGuide } from '../../../demo/sailing-guide'
import { projectFolder } from '../../../server/library/files'
import { checkFontFile, faceAt } from '../../../server/library/font-file'
import { handoffWorks } from '../../../server/library/handoff-works'
import { startHarfBuzz, startSubsetter } from '../../../server/library/harfbuzz'
import { printingConditions, screenProfile } from '../../../server/library/printing'
import { shippedLibrary } from '../../../server/library/shipped'
import { makeOdt, paragraphStyle, session } from '../../support/fixtures'

const works = handoffWorks(shippedLibrary().load, startSubsetter())
const emptyHouse = (name: string) => houseSchema.parse({ name, roles: [] })
const context = { name: 'Galley', made: Date.UTC(2026, 0, 1), house: null, licences: [] }
const hand = (bytes: Uint8Array, request: HandoffRequest, more = {}) =>
  handOff(session(bytes), handoffSchema.parse(request), { ...context, ...more }, works)

describe('handing on', () => {
  it.each([
    ['pdf', 'pdf', 'application/pdf'],
    ['epub', 'epub', 'application/epub+zip'],
    ['html', 'zip', 'application/zip'],
    ['css', 'css', 'text/css'],
    ['tokens', 'tokens.json', 'application/json'],
    ['template', 'otg', 'application/vnd.oasis.opendocument.graphics-template'],
  ] as const)('as %s gives a file of its kind, and says what it is', async (as, ending, type) => {
    const made = await hand(galleyMenu(), { as, ...(as === 'pdf' ? { leaveOut: true } : {}) } as HandoffRequest)
    expect([made.ending, made.type]).toEqual([ending, type])
    expect(made.bytes.length).toBeGreaterThan(200)
    expect(made.said.join('')).not.toBe('')
  })

  it('to the printer: by a condition that is at hand, with the inks of the house', async () => {
    expect(printingConditions().map(each => each.id)).toContain('FOGRA39L')
    const house = {
      ...emptyHouse('Saltmere'),
      palette: [{ id: 'quay', title: 'Quay', does: 'accent' as const, color: '#1f6f6b', ink: { spot: 'Quay Green' } }],
    }
    const made = await hand(
      galleyMenu(),
      { as: 'pdf', bleed: 8.5, cropMarks: true, leaveOut: true, print: { condition: 'FOGRA39L' } },
      { house },
    )
    expect(made.said).toEqual(['2 pages', 'built to PDF/X-4', 'for Offset, coated paper (FOGRA39L)'])
    await expect(hand(galleyMenu(), { as: 'pdf', print: { condition: 'nowhere' } })).rejects.toThrow(HandoffError)
    const screen = Buffer.from(screenProfile()).toString('base64')
    await expect(
      hand(galleyMenu(), { as: 'pdf', leaveOut: true, print: { profile: screen, name: 'a screen' } }),
    ).rejects.toThrow(PdfError)
  })

  it('goes by the licences that are held: what ended is not put into a book', () => {
    const face = { family: 'Brannock', licence: 'not stated', embedding: 'installable' } as FaceRecord
    const held = {
      name: 'Harbour set',
      families: ['Brannock'],
      uses: ['e-book' as const],
      seats: null,
      until: '2026-06-30',
      holder: '',
    }
    const right = (day: string) => rightTo('e-book', { licences: [held], made: Date.parse(day) })(face)!.right
    expect(right('2026-05-01')).toBe('allowed')
    expect(right('2026-07-01')).toBe('not allowed')
    expect(rightTo('web page', { licences: [held], made: 0 })(face)!.right).toBe('not stated')
  })
})

describe('a bundle', () => {
  const bundled = (fileName: string, bytes: Uint8Array) => ({
    fileName,
    bytes,
    session: session(bytes),
    records: [{ name: `${fileName}, record of version 2`, text: 'what,where\n' }],
    uses: [],
  })

  it('holds the documents as they are, the faces that may travel, proofs, records, PDFs and the house', async () => {
    const [guide, menu] = [sailingGuide(), galleyMenu()]
    const house = emptyHouse('Saltmere Line')
    const made = await writeBundle(
      [bundled('Sailing guide.odt', guide), bundled('Galley menu.odg', menu)],
      { made: context.made, house, licences: [] },
      works,
    )
    const files = unzipSync(made.bytes)
    expect(files['Sailing guide.odt']).toEqual(guide)
    expect(files['Galley menu.odg']).toEqual(menu)
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining([
        'PDF/Sailing guide.pdf',
        'Proof/Galley menu.csv',
        'Records/Galley menu.odg, record of version 2.csv',
        'Fonts/Spectral Regular.ttf',
        'House/Saltmere Line.tokens.json',
        'Contents.txt',
      ]),
    )
    expect(houseFromTokens(new TextDecoder().decode(files['House/Saltmere Line.tokens.json']))).toEqual(house)
    const contents = new TextDecoder().decode(files['Contents.txt'])
    expect(contents).toContain('Brannock: it is absent here, too')
    expect(contents).toMatch(/Fonts\/Spectral Regular\.ttf: SIL Open Font License/)
    expect(made.said[0]).toBe('2 documents')
    // Whatever a document names and is here came along.
    const { census } = session(guide).detail
    const came = Object.keys(files).filter(path => path.startsWith('Fonts/'))
    for (const face of census.faces)
      if (face.status === 'present')
        expect(
          came.some(path => path.includes(face.family)),
          face.family,
        ).toBe(true)
  })

  it('holds a variable file once, in place of the faces it opens into, and places of one’s own as they are', async () => {
    const fonts = await checkFontFile(
      new Uint8Array(
        readFileSync(
          join(projectFolder(), 'node_modules/@fontsource-variable/fraunces/files/fraunces-latin-full-normal.woff2'),
        ),
      ),
    )
    const own = faceAt(fonts[0]!, '450', { wght: 450, opsz: 72 }, 'Fraunces 72pt')
    const all = new Map([...fonts, own].map(each => [each.face.hash, each.bytes]))
    const load = (hash: string) => all.get(hash) ?? shippedLibrary().load(hash)
    const setting = new Typesetter(
      new Library([...fonts, own].map(each => each.face)),
      new Shaper(startHarfBuzz(), load),
    )
    const styled = (name: string, family: string, weight: number) =>
      paragraphStyle(name, `fo:font-family="${family}" fo:font-weight="${weight}"`)
    const bytes = makeOdt({
      automatic: styled('A', 'Fraunces', 400) + styled('B', 'Fraunces', 700) + styled('C', 'Fraunces 72pt', 450),
      body: ['A', 'B', 'C'].map(name => `<text:p text:style-name="${name}">Quay</text:p>`).join(''),
    })
    const document = {
      fileName: 'Quay.odt',
      bytes,
      session: DocumentSession.open(bytes, setting),
      records: [],
      uses: [],
    }
    const bundle = await writeBundle(
      [document],
      { made: 0, house: null, licences: [] },
      handoffWorks(load, startSubsetter()),
    )
    const files = unzipSync(bundle.bytes)
    expect(Object.keys(files).filter(path => path.startsWith('Fonts/'))).toEqual([
      'Fonts/Fraunces 72pt 450.ttf',
      'Fonts/Fraunces, variable.ttf',
    ])
    expect(files['Fonts/Fraunces, variable.ttf']).toEqual(fonts[0]!.bytes)
    expect(files['Fonts/Fraunces 72pt 450.ttf']).toEqual(own.bytes)
  })

  it('gives two documents of one name names of their own', async () => {
    const menu = galleyMenu()
    const one = { ...bundled('Menu.odg', menu), records: [] }
    const files = unzipSync((await writeBundle([one, one], { made: 0, house: null, licences: [] }, works)).bytes)
    expect(Object.keys(files).filter(path => path.endsWith('.odg'))).toEqual(['Menu.odg', 'Menu 2.odg'])
    expect(openDocument(files['Menu 2.odg']!).kind).toBe('drawing')
  })

  it('leaves files behind whose licences do not let them travel', () => {
    const face = { licence: 'not stated', embedding: 'installable' } as FaceRecord
    expect(mayTravel(face).may).toBe(false)
    expect(mayTravel({ ...face, licence: 'This is the SIL Open Font License' }).may).toBe(true)
  })
})
