import { spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { degrees, PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import { describe, expect, it } from 'vitest'
import { addText, type TextAt } from '../../../core/format/finished/add-text'
import { finishedCensus } from '../../../core/format/finished/census'
import { readOperators } from '../../../core/format/finished/content'
import { textOfGlyphName } from '../../../core/format/finished/glyph-names'
import { FinishedPdfError, openPdf } from '../../../core/format/finished/open'
import { correctionOf, planCorrection, putRight } from '../../../core/format/finished/put-right'
import { startSubsetter } from '../../../server/library/harfbuzz'
import { shippedLibrary } from '../../../server/library/shipped'
import { harbourNotice } from '../../../demo/harbour-notice'
import { typesetter } from '../../support/fixtures'
import { madePdf } from '../../support/made-pdf'
import { brokenPdf } from '../../support/broken-files'

const folder = mkdtempSync(join(tmpdir(), 'morphene-finished-'))
process.on('exit', () => {
  rmSync(folder, { recursive: true, force: true })
})
const tools = { typesetter, load: shippedLibrary().load, subsetter: startSubsetter() }
let count = 0
/** What programs that nobody here wrote say of a PDF. */
function told(bytes: Uint8Array) {
  const path = join(folder, `${count++}.pdf`)
  writeFileSync(path, bytes)
  const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 27 })
  return {
    check: run('qpdf', '--check', path).status,
    text: run('pdftotext', '-raw', path, '-').stdout,
    fonts: run('pdffonts', path).stdout,
    words: () =>
      [...run('pdftotext', '-bbox', path, '-').stdout.matchAll(/xMin="([\d.]+)" yMin="([\d.]+)".*?>([^<]+)</g)].map(
        ([, x, y, word]) => ({ x: Number(x), y: Number(y), word: word! }),
      ),
  }
}

/** A contract as an office program would finish it: a standard font, not embedded. */
async function contract(angle = 0): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  const page = pdf.addPage([400, 300])
  page.setRotation(degrees(angle))
  page.drawText('The berth is let untill spring', { x: 40, y: 200, size: 12, font })
  page.drawText('Saltmere Line', { x: 40, y: 170, size: 9, font })
  return pdf.save({ useObjectStreams: false })
}
const text: TextAt = {
  page: 1,
  x: 40,
  y: 20,
  text: 'Paid in full',
  family: 'Spectral',
  size: 11,
  leading: null,
  weight: 400,
  italic: false,
  color: '#1f6f6b',
  width: null,
  height: null,
  language: 'en-GB',
}

describe('a finished PDF', () => {
  it('is counted: its fonts, how much each sets, where, at which sizes and in which colours', async () => {
    const census = finishedCensus(await openPdf(await contract()))
    expect(census).toMatchObject({
      document: { kind: 'finished', pages: 1, signed: false, tagged: false },
      characters: 43,
    })
    expect(census.fonts).toEqual([
      {
        name: 'Helvetica',
        kind: 'Type1',
        embedded: false,
        subset: false,
        readable: true,
        characters: 43,
        pages: [1],
        sizes: [
          { size: 12, characters: 30 },
          { size: 9, characters: 13 },
        ],
        colors: [{ color: '#000000', characters: 43 }],
      },
    ])
  })

  it('made here is counted as pdffonts counts it', async () => {
    const made = await madePdf(harbourNotice(), { leaveOut: true })
    const census = finishedCensus(await openPdf(made.bytes))
    expect(census.document.tagged).toBe(true)
    expect(census.fonts.length).toBe(told(made.bytes).fonts.trim().split('\n').length - 2)
    expect(census.fonts.every(font => font.embedded && font.subset && font.readable)).toBe(true)
  })

  it('takes text in the face that is asked for; what was there stays byte for byte', async () => {
    const bytes = await contract()
    const { bytes: after, said } = await addText(await openPdf(bytes), text, tools)
    expect(Buffer.compare(after.subarray(0, bytes.length), bytes)).toBe(0)
    const seen = told(after)
    expect(seen.check).toBe(0)
    expect(seen.text).toContain('Paid in full')
    expect(seen.text).toContain('The berth is let untill spring')
    expect(seen.fonts).toMatch(/[A-Z]{6}\+Spectral-Regular/)
    expect(said).toEqual([])
    const first = seen.words().find(each => each.word === 'Paid')!
    expect(first.x).toBeCloseTo(40, 0)
    expect(first.y).toBeGreaterThan(15)
    expect(first.y).toBeLessThan(30)
    // A second text on top: fonts and streams of the first stay theirs.
    const twice = told((await addText(await openPdf(after), { ...text, text: 'and kept', y: 50 }, tools)).bytes)
    expect([twice.check, twice.text.includes('Paid in full'), twice.text.includes('and kept')]).toEqual([0, true, true])
  })

  it.each([0, 90, 180, 270])('takes text upright on a page that is shown turned by %d°', async angle => {
    const { bytes } = await addText(await openPdf(await contract(angle)), text, tools)
    const first = told(bytes)
      .words()
      .find(each => each.word === 'Paid')!
    expect(first.x).toBeCloseTo(40, 0)
    expect(Math.abs(first.y - 22)).toBeLessThan(8)
  })

  it('breaks added text at a width, and refuses what cannot be set', async () => {
    const long = 'The berth at the outer quay is let to the line until the first of May'
    const { bytes } = await addText(await openPdf(await contract()), { ...text, text: long, width: 100 }, tools)
    expect(
      new Set(
        told(bytes)
          .words()
          .filter(each => each.y < 100)
          .map(each => Math.round(each.y)),
      ).size,
    ).toBeGreaterThan(3)
    const trial = async (more: Partial<TextAt>) => addText(await openPdf(await contract()), { ...text, ...more }, tools)
    await expect(trial({ page: 7 })).rejects.toThrow('there is no page 7')
    await expect(trial({ family: 'Nowhere' })).rejects.toThrow('“Nowhere” is not in the library')
    await expect(trial({ color: 'red"' })).rejects.toThrow('is no colour')
    await expect(trial({ size: 0 })).rejects.toThrow('from 0 to')
    await expect(trial({ text: 'x'.repeat(20_001) })).rejects.toThrow('At most')
    await expect(trial({ text: '' })).rejects.toThrow('no words')
  })

  it('has a line put right in its own font where that has all letters, and tells the gain before', async () => {
    const bytes = await contract()
    const correction = correctionOf(await openPdf(bytes), 1, 'untill', 'until')
    const plan = await planCorrection(await openPdf(bytes), correction, tools)
    expect(plan).toMatchObject({
      becomes: 'The berth is let until spring',
      font: 'Helvetica',
      standIn: null,
      missing: '',
    })
    // Helvetica's l is 222 thousandths of its 12 points wide: the file does not say so, every reader knows.
    expect(plan.gain).toBeCloseTo(-0.222 * 12, 1)
    const made = await putRight(await openPdf(bytes), correction, tools)
    expect(Buffer.compare(made.bytes.subarray(0, bytes.length), bytes)).toBe(0)
    const seen = told(made.bytes)
    expect(seen.check).toBe(0)
    expect(seen.text).toContain('The berth is let until spring')
    expect(seen.text).not.toContain('untill')
    expect(seen.fonts.trim().split('\n')).toHaveLength(3)
  })

  it('has the whole line set in a stand-in where its font lacks a letter, and says so', async () => {
    const made = await madePdf(harbourNotice(), { leaveOut: true })
    const word = /\p{Lu}\p{Ll}{5,}/u.exec(told(made.bytes).text)![0]
    const finished = await openPdf(made.bytes)
    const done = await putRight(finished, correctionOf(finished, 1, word, `${word}ẑ`), tools)
    expect(done.plan.standIn).not.toBeNull()
    expect(done.plan.missing).toContain('ẑ')
    expect(done.said[0]).toMatch(/^put right the line in .+, since .+ has no “ẑ”/)
    expect(done.said.join(' ')).toContain('what was added is read at its end')
    const seen = told(done.bytes)
    expect(seen.check).toBe(0)
    expect(seen.text).toContain(`${word}ẑ`)
  })

  it('refuses words that are not there, and says why', async () => {
    const trial = async (find: string) => correctionOf(await openPdf(await contract()), 1, find, 'x')
    await expect(trial('nowhere')).rejects.toThrow('“nowhere” is on no line of page 1')
    await expect(trial(' ')).rejects.toThrow('There are no words to look for')
  })

  it('is refused with a sentence where it is none, or damaged', async () => {
    await expect(openPdf(new TextEncoder().encode('hello'))).rejects.toThrow('This is no PDF')
    await expect(openPdf(new TextEncoder().encode('%PDF-1.7\nnothing'))).rejects.toThrow(FinishedPdfError)
  })

  it('is refused where it is locked, whatever it asks for, and nothing is kept', async () => {
    const path = join(folder, 'open.pdf')
    writeFileSync(path, await contract())
    for (const password of ['secret', '']) {
      const locked = join(folder, 'locked.pdf')
      expect(spawnSync('qpdf', ['--encrypt', password, 'owner', '256', '--', path, locked]).status).toBe(0)
      await expect(openPdf(new Uint8Array(readFileSync(locked)))).rejects.toThrow('Ask for a copy without a password')
    }
  })

  it('mutated, gives a sentence or a result, and never anything else', async () => {
    const sources = [await contract(), (await madePdf(harbourNotice(), { leaveOut: true })).bytes]
    let results = 0
    for (let trial = 0; trial < 60; trial++) {
      const bytes = brokenPdf(sources[trial % 2]!, trial)
      try {
        const finished = await openPdf(bytes)
        finishedCensus(finished)
        await addText(finished, text, tools)
        results++
      } catch (error) {
        expect(error, `trial ${trial}`).toBeInstanceOf(FinishedPdfError)
        expect((error as Error).message).toMatch(/\.$/)
      }
    }
    expect(results).toBeGreaterThan(10)
  }, 60_000)
})

describe('the content of a page', () => {
  const read = (content: string) => readOperators(new TextEncoder().encode(content))

  it('is read operator by operator, with where each stands', () => {
    expect(read('q 1 0 0 -1.5 .25 +3 cm /F1 12 Tf').map(each => [each.name, each.start, each.end])).toEqual([
      ['q', 0, 1],
      ['cm', 2, 22],
      ['Tf', 23, 32],
    ])
  })

  it('has strings of all kinds, lists, dictionaries, remarks and pictures in it', () => {
    const bytes = (operator: ReturnType<typeof read>[number]) =>
      operator.operands.map(each => (each.kind === 'string' ? String.fromCharCode(...each.bytes) : each.kind))
    expect(bytes(read('(a\\(b\\)\\101(c)\\\n!) Tj')[0]!)).toEqual(['a(b)A(c)!'])
    expect(bytes(read('<48 656C6C 6F2> Tj')[0]!)).toEqual(['Hello '])
    expect(read('[(a) -20 <62>] TJ')[0]!.operands[0]).toMatchObject({ kind: 'array', items: { length: 3 } })
    expect(read('/Span <</ActualText (x)>> BDC % remark\nEMC').map(each => each.name)).toEqual(['BDC', 'EMC'])
    expect(read('BI /W 2 ID \u0001 EIx\u0002 EI Q').map(each => each.name)).toEqual(['BI', 'Q'])
    expect(read('(never ends').map(each => each.name)).toEqual([])
  })

  it('tells letters by the names of glyphs', () => {
    expect(
      ['A', 'eacute', 'Scaron', 'uni20AC', 'u1F600', 'fi', 'germandbls', 'g12', 'a.sc'].map(textOfGlyphName),
    ).toEqual(['A', 'é', 'Š', '€', '😀', 'fi', 'ß', '', 'a'])
  })
})
