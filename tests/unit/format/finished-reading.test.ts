import { degrees, PDFDocument, StandardFonts, type PDFFont } from '@cantoo/pdf-lib'
import { describe, expect, it } from 'vitest'
import { changeFinished } from '../../../core/format/finished/change'
import { finishedChecks } from '../../../core/format/finished/checks'
import { openPdf } from '../../../core/format/finished/open'
import { finishedCounts, proofOfFinished } from '../../../core/format/finished/proof'
import { FinishedReader } from '../../../core/format/finished/reader'
import { finishedChangeSchema, type WishedChange } from '../../../core/format/finished/wish'
import { finishedStartOf, finishedStartOfHouse } from '../../../core/change/defaults/finished-starts'
import { Library } from '../../../core/font/library'
import { Shaper } from '../../../core/typeset/shaper'
import { Typesetter } from '../../../core/typeset/look'
import { usualChecklist } from '../../../core/proof/checklist'
import { starters } from '../../../core/house/starters'
import { startHarfBuzz, startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { harbourNotice } from '../../../demo/harbour-notice'
import { typesetter } from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'
import { familyOfFont } from '../../../core/format/finished/font-name'
import type { MadeFor } from '../../../core/font/held-licence'

const { library, load } = shippedLibrary()
const tools = { typesetter, load, subsetter: startSubsetter() }

interface Said {
  readonly text: string
  readonly x: number
  readonly y: number
  readonly size?: number
}

/** A page of 400 by 300 points with words at places of the page's own coordinates. */
async function pdfOf(words: readonly Said[], { angle = 0, language = '' } = {}): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font: PDFFont = await pdf.embedFont(StandardFonts.Helvetica)
  const page = pdf.addPage([400, 300])
  page.setRotation(degrees(angle))
  for (const { text, x, y, size = 12 } of words) page.drawText(text, { x, y, size, font })
  if (language) pdf.setLanguage(language)
  return pdf.save({ useObjectStreams: false })
}
const readerOf = async (words: readonly Said[], options?: { angle?: number; language?: string }) =>
  new FinishedReader(await openPdf(await pdfOf(words, options)))
const berth = { text: 'The berth is let untill spring', x: 40, y: 200 }

const addition: WishedChange = {
  type: 'add-text',
  page: 1,
  x: 40,
  y: 150,
  width: null,
  height: null,
  text: 'Paid in full',
  family: 'Spectral',
  size: 11,
  leading: null,
  weight: 400,
  italic: false,
  color: '#000000',
  language: 'en-GB',
}

describe('a finished PDF that is looked at', () => {
  it('gives its lines with where they stand, as the page is looked at', async () => {
    const reader = await readerOf([berth, { text: 'Saltmere Line', x: 40, y: 170, size: 9 }])
    expect(reader.looks.map(({ width, height }) => [width, height])).toEqual([[400, 300]])
    const lines = reader.lines(1)
    expect(lines.map(each => [each.line, each.text, each.font, each.size, each.inForm])).toEqual([
      [0, berth.text, 'Helvetica', 12, false],
      [1, 'Saltmere Line', 'Helvetica', 9, false],
    ])
    const [box] = lines[0]!.boxes
    expect(box!.x).toBeCloseTo(40, 5)
    // The baseline is 100 pt below the top; letters reach up from there.
    expect(box!.y).toBeLessThan(100)
    expect(box!.y + box!.height).toBeGreaterThan(100)
    expect(box!.height).toBeLessThan(14)
    expect(reader.lines(2)).toEqual([])
  })

  it.each([
    [90, [300, 400]],
    [180, [400, 300]],
    [270, [300, 400]],
  ] as const)('turned by %d°, has its places where they are seen', async (angle, size) => {
    const reader = await readerOf([berth], { angle })
    const [look] = reader.looks
    expect([look!.width, look!.height]).toEqual(size)
    const [box] = reader.lines(1)[0]!.boxes
    const seen = {
      90: { x: 200, y: 40, upright: true },
      180: { x: 400 - 40, y: 200, upright: false },
      270: { x: 300 - 200, y: 400 - 40, upright: true },
    }[angle]
    // Where the text begins is a corner of its box, with the letters to one side of it.
    expect([box!.x, box!.x + box!.width].some(x => Math.abs(x - seen.x) < 10)).toBe(true)
    expect([box!.y, box!.y + box!.height].some(y => Math.abs(y - seen.y) < 10)).toBe(true)
    expect(box!.height > box!.width).toBe(seen.upright)
  })

  it('has words found on all pages, whatever their case, each with its own box', async () => {
    const reader = await readerOf([berth, { text: 'Berth dues, berth by berth', x: 40, y: 150 }])
    const found = reader.find('berth', false)
    expect(found.map(each => [each.page, each.line, each.from, each.text])).toEqual([
      [1, 0, 4, 'berth'],
      [1, 1, 0, 'Berth'],
      [1, 1, 12, 'berth'],
      [1, 1, 21, 'berth'],
    ])
    expect(reader.find('berth', true)).toHaveLength(3)
    expect(reader.find(' ', false)).toEqual([])
    const [first, second] = [found[2]!.boxes[0]!, found[3]!.boxes[0]!]
    expect(second.x).toBeGreaterThan(first.x + first.width)
    expect(second.width).toBeCloseTo(first.width, 3)
  })

  it('tells where each font of the census sets text', async () => {
    const made = await madePdf(harbourNotice(), { leaveOut: true })
    const reader = new FinishedReader(await openPdf(made.bytes))
    reader.census.fonts.forEach((font, index) => {
      const places = reader.placesOf(index)
      expect(new Set(places.map(each => each.page))).toEqual(new Set(font.pages))
      const letters = (text: string) => text.replace(/\s/g, '').length
      expect(places.reduce((sum, each) => sum + letters(each.text), 0)).toBeLessThanOrEqual(font.characters + 60)
      expect(places.every(each => each.boxes.length > 0)).toBe(true)
    })
    expect(reader.placesOf(99)).toEqual([])
  })
})

describe('a change of a finished PDF', () => {
  const change = async (bytes: Uint8Array, wish: WishedChange, own = tools) =>
    changeFinished(bytes, [finishedChangeSchema.parse(wish)], own)

  it('puts the very place right that is pointed at, not the first of its words', async () => {
    const bytes = await pdfOf([berth, { ...berth, y: 150 }])
    const made = await change(bytes, { type: 'put-right', page: 1, line: 1, from: 17, to: 23, words: 'until' })
    expect(made.title).toBe('Put right “The berth is let untill spring” to “The berth is let until spring” on page 1')
    expect(made.corrected).toMatchObject([{ standIn: null, font: 'Helvetica' }])
    expect(new FinishedReader(await openPdf(made.bytes)).lines(1).map(each => each.text)).toEqual([
      berth.text,
      'The berth is let until spring',
    ])
  })

  it.each([
    ['in front of all', 0, 0, 'All ', 'All The berth is let untill spring'],
    ['within a word', 22, 23, '', 'The berth is let until spring'],
    ['behind all', 30, 30, ' tides', 'The berth is let untill spring tides'],
  ])('puts words in %s', async (_, from, to, words, becomes) => {
    const made = await change(await pdfOf([berth]), { type: 'put-right', page: 1, line: 0, from, to, words })
    expect(made.corrected[0]!.becomes).toBe(becomes)
    expect(new FinishedReader(await openPdf(made.bytes)).lines(1)[0]!.text).toBe(becomes)
  })

  it('refuses places that are not there, and what changes nothing', async () => {
    const bytes = await pdfOf([berth])
    const trial = (more: Partial<Extract<WishedChange, { type: 'put-right' }>>) =>
      change(bytes, { type: 'put-right', page: 1, line: 0, from: 0, to: 3, words: 'One', ...more })
    await expect(trial({ line: 4 })).rejects.toThrow('There is no such place on page 1')
    await expect(trial({ from: 9, to: 3 })).rejects.toThrow('no such place')
    await expect(trial({ to: 400 })).rejects.toThrow('no such place')
    await expect(trial({ page: 3 })).rejects.toThrow('there is no page 3')
    await expect(trial({ words: 'The' })).rejects.toThrow('says that already')
  })

  it('sets letters that the face lacks in the stand-in of their script, and in nothing else', async () => {
    const bytes = await pdfOf([berth])
    const greek = { ...addition, text: 'Pier Πέρας 4' }
    await expect(change(bytes, greek)).rejects.toThrow(
      'no stand-in that has them is chosen for Greek letters. Nothing was changed.',
    )
    const own = new Library(library.faces, [{ family: '', script: 'Greek', to: 'Alegreya' }])
    const set = { ...tools, typesetter: new Typesetter(own, new Shaper(startHarfBuzz(), load)) }
    const made = await change(bytes, greek, set)
    const reader = new FinishedReader(await openPdf(made.bytes))
    const of = (family: string) => reader.census.fonts.findIndex(each => each.name.startsWith(family))
    expect(reader.placesOf(of('Alegreya')).map(each => each.text.trim())).toEqual(['Πέρας'])
    expect(reader.placesOf(of('Spectral')).map(each => each.text.trim())).toEqual(['Pier', '4'])
  })

  it('says how added text came out, and what has no room', async () => {
    const bytes = await pdfOf([berth])
    const long = { ...addition, text: 'The berth at the outer quay is let to the line', width: 80, height: 36 }
    const made = await change(bytes, long)
    expect(made.added[0]!.lines).toBeGreaterThan(2)
    expect(made.added[0]!.over).toBe(made.added[0]!.lines - 2)
    expect(made.said[0]).toMatch(/below the room that it has$/)
    const wide = await change(bytes, { ...long, leading: 30, height: 300 })
    expect(wide.added[0]!.height).toBeGreaterThan(made.added[0]!.height * 1.5)
    expect(wide.said).toEqual([])
  })

  it('keeps line ends and spaces as they were typed', async () => {
    const made = await change(await pdfOf([berth]), { ...addition, text: 'Paid\n  in   full' })
    expect(made.added[0]!.lines).toBe(2)
    const lines = new FinishedReader(await openPdf(made.bytes)).lines(1).map(each => each.text)
    expect(lines.slice(1)).toEqual(['Paid', '  in   full'])
  })

  it('is made with others as one update; lines that a stand-in sets do not move those before them', async () => {
    const bytes = await pdfOf([berth, { ...berth, y: 170 }, { ...berth, y: 140 }])
    const right = (line: number, from: number, to: number, words: string): WishedChange => ({
      type: 'put-right',
      page: 1,
      line,
      from,
      to,
      words,
    })
    const made = await changeFinished(
      bytes,
      [right(0, 17, 23, 'ẑ'), right(2, 0, 3, 'A'), right(2, 17, 23, 'until'), addition, right(7, 0, 1, 'x')],
      tools,
    )
    expect(made.title).toBe('Put 2 lines right, added 1 text')
    expect(made.corrected.map(each => each.becomes)).toEqual([
      'The berth is let ẑ spring',
      'A berth is let until spring',
    ])
    expect(made.refused).toEqual(['There is no such place on page 1. Nothing was changed.'])
    const texts = new FinishedReader(await openPdf(made.bytes)).lines(1).map(each => each.text.trim())
    expect(texts).toEqual([berth.text, 'A berth is let until spring', 'The berth is let ẑ spring', 'Paid in full'])
    expect(new TextDecoder('latin1').decode(made.bytes).match(/%%EOF/g)).toHaveLength(2)
  })

  it('is nothing but what the schema says', () => {
    const refused = (more: object) => finishedChangeSchema.safeParse({ ...addition, ...more }).success
    expect([refused({ size: 0 }), refused({ text: '' }), refused({ color: 'red' }), refused({ other: 1 })]).toEqual([
      false,
      false,
      false,
      false,
    ])
  })
})

describe('what text in finished PDFs begins with', () => {
  it('is said by the document, else its folder, else the desk, else it is as usual', () => {
    expect(finishedStartOf({ document: {}, folder: {}, desk: {}, house: {} })).toMatchObject({
      size: 11,
      leading: null,
    })
    expect(
      finishedStartOf({
        document: { size: 8 },
        folder: { size: 9, family: 'Spectral' },
        desk: { family: 'Alegreya', color: '#1f6f6b', leading: 14 },
        house: { family: 'Jost', italic: true },
      }),
    ).toEqual({ family: 'Spectral', size: 8, leading: 14, weight: 400, italic: true, color: '#1f6f6b' })
  })
})

describe('what a house has added text begin with', () => {
  it('is its text for reading: leading in points, colours by their names', () => {
    const house = starters[0]!.house()
    const body = house.roles.find(each => each.id === 'body')!.text
    expect(finishedStartOfHouse(house)).toMatchObject({ family: body.family, size: body.size, color: '#1b1b1b' })
    const of = (text: object) =>
      finishedStartOfHouse({
        ...house,
        roles: house.roles.map(each => (each.id === 'body' ? { ...each, text: { ...each.text, ...text } } : each)),
      }).leading
    expect(of({ size: 10, leading: { value: 140, unit: 'percent' } })).toBe(14)
    expect(of({ leading: { value: 13, unit: 'points' } })).toBe(13)
    expect(of({ leading: { value: 110, unit: 'own' } })).toBeUndefined()
    expect(finishedStartOfHouse({ ...house, roles: [] })).toEqual({})
  })
})

describe('a proof of a finished PDF', () => {
  const proof = async (words: readonly Said[], { language = 'en-GB' } = {}) =>
    proofOfFinished({ reader: await readerOf(words, { language }), library, house: null })
  const saying = (findings: Awaited<ReturnType<typeof proof>>, check: string) =>
    findings.filter(each => each.check === check).map(each => each.says)

  it('tells fonts that are not in the file, and that nothing is tagged', async () => {
    const findings = await proof([berth])
    expect(saying(findings, 'absent-face')[0]).toContain('Helvetica sets 30 characters and is not in the file')
    expect(saying(findings, 'untagged-pdf')).toEqual([
      'The file has no structure: programs that read aloud guess the order',
    ])
    expect(finishedCounts(findings)).toEqual({ error: 1, warning: 1, note: 0 })
    expect(saying(await proof([berth], { language: '' }), 'untagged-pdf')).toHaveLength(2)
  })

  it('finds small and nearly equal sizes at their places', async () => {
    const findings = await proof([
      berth,
      { text: 'Dues are paid', x: 40, y: 150, size: 12.4 },
      { text: 'in advance', x: 40, y: 100, size: 5 },
    ])
    expect(saying(findings, 'near-sizes')).toEqual(['Helvetica in 12.4 pt (13 characters) beside 12 pt (30)'])
    expect(findings.find(each => each.check === 'near-sizes')!.place!.text).toBe('Dues are paid')
    expect(saying(findings, 'small-type')[0]).toMatch(/^5 pt of Helvetica at 40 cm, 10 characters/)
  })

  it('finds signs of a keyboard, and what puts them right does', async () => {
    const bytes = await pdfOf([{ text: `Pay "now" - or wait until 4-6`, x: 40, y: 200 }], { language: 'en-GB' })
    let now = bytes
    for (let count = 0; count < 10; count++) {
      const reader = new FinishedReader(await openPdf(now))
      const next = proofOfFinished({ reader, library, house: null }).find(each => each.repair)
      if (!next) break
      now = (await changeFinished(now, [next.repair!], tools)).bytes
    }
    expect(new FinishedReader(await openPdf(now)).lines(1)[0]!.text).toBe('Pay “now” – or wait until 4–6')
    expect(Buffer.compare(now.subarray(0, bytes.length), bytes)).toBe(0)
  })

  it('holds fonts and sizes against a house, and heeds the checklist', async () => {
    const quiet = starters[0]!.house()
    const house = { ...quiet, limits: { ...quiet.limits, smallest: { text: 13 } } }
    const subject = { reader: await readerOf([berth]), library, house }
    const findings = proofOfFinished(subject)
    expect(saying(findings, 'outside-house')).toEqual([`Helvetica is not of the house ${house.name}`])
    expect(saying(findings, 'small-type')).toEqual(['12 pt; the house has 13 pt at the least'])
    const listed = {
      ...usualChecklist,
      checks: {
        'absent-face': { runs: false, limits: {} },
        'outside-house': { runs: true, severity: 'note' as const, limits: {} },
      },
    }
    const less = proofOfFinished(subject, listed)
    expect(saying(less, 'absent-face')).toEqual([])
    expect(less.find(each => each.check === 'outside-house')!.severity).toBe('note')
  })

  it('tells fonts in the file whose licence has ended, or does not allow a PDF or what it is ticked for', async () => {
    const pdf = await madePdf(harbourNotice())
    const reader = new FinishedReader(await openPdf(pdf.bytes))
    const family = familyOfFont(reader.census.fonts.find(font => font.embedded && font.characters > 0)!.name)
    const guarded = new Library(
      library.faces.map(each =>
        each.family === family ? { ...each, licence: 'not stated', embedding: 'restricted' as const } : each,
      ),
    )
    const held = { name: 'Harbour set', families: [family], uses: ['print' as const], seats: null, holder: '' }
    const told = (madeFor?: MadeFor, own = guarded) =>
      proofOfFinished({ reader, library: own, house: null, ...(madeFor ? { madeFor } : {}) })
        .filter(each => each.check === 'unlicensed')
        .map(({ severity, says, place }) => [severity, says, place !== null])
    const forbidden = `${family} may not be used for: PDF (the embedding bits say restricted: not without the maker’s leave)`
    expect(told()).toEqual([['error', forbidden, true]])
    // Open ones are fine.
    expect(told(undefined, library)).toEqual([])
    const holding = (more: object, uses: MadeFor['uses'] = []) => ({
      uses,
      today: '2027-01-10',
      licences: [{ ...held, until: null, ...more }],
    })
    expect(told(holding({ until: '2026-12-31' }))[0]).toEqual([
      'error',
      `the licence of ${family} ended on 2026-12-31`,
      true,
    ])
    expect(told(holding({ uses: ['print', 'PDF'] }))).toEqual([])
    expect(told(holding({ uses: ['PDF'] }, ['print']))).toEqual([
      ['warning', `${family} is not said to be licensed for: print (the file says nothing)`, true],
    ])
  })

  it('says of every check what it looks for, where that comes from and what it cannot see', () => {
    for (const { description } of finishedChecks)
      expect([description.looksFor, description.source, description.unseen].every(each => each.length > 10)).toBe(true)
    expect(new Set(finishedChecks.map(each => each.description.id)).size).toBe(finishedChecks.length)
  })
})
