import { addText, type SettingTools } from '../core/format/finished/add-text'
import { finishedCensus, type FinishedCensus } from '../core/format/finished/census'
import { changeFinished } from '../core/format/finished/change'
import { proofOfFinished, type FinishedFinding } from '../core/format/finished/proof'
import { FinishedReader } from '../core/format/finished/reader'
import type { WishedChange } from '../core/format/finished/wish'
import type { MadeFor } from '../core/font/held-licence'
import type { House } from '../core/house/house'
import type { Checklist } from '../core/proof/checklist'
import { FinishedPdfError, openPdf, type FinishedPdf } from '../core/format/finished/open'
import { correctionOf, putRight } from '../core/format/finished/put-right'
import { points } from '../core/document/lengths'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { CommandError, fine, single, type Call, type Outcome } from './call'
import { read, write } from './files'
import { padded } from './report'

/* What is done with finished PDFs: what is in them, text added, words put right. */

/** @throws CommandError */
async function opened(path: string | undefined): Promise<FinishedPdf> {
  try {
    return await openPdf(read(path))
  } catch (error) {
    if (error instanceof FinishedPdfError) throw new CommandError(error.message)
    throw error
  }
}

export const tools = (): SettingTools => {
  const { library, load } = shippedLibrary()
  return { typesetter: new Typesetter(library, new Shaper(startHarfBuzz(), load)), load, subsetter: startSubsetter() }
}

/** Whether a file is a PDF by its name. */
export const isPdf = (path: string | undefined): boolean => /\.pdf$/i.test(path ?? '')

/** The fonts of a finished PDF: how much each sets, and where. */
export async function pdfCensus(call: Call): Promise<Outcome> {
  const census = finishedCensus(await opened(call.files[0]))
  return fine(call.switches.has('--json') ? JSON.stringify(census, null, 2) : censusLines(census))
}

const pagesWords = (pages: readonly number[]) =>
  pages.length === 0 ? 'on no page' : pages.length > 8 ? `on ${pages.length} pages` : `page ${pages.join(', ')}`

function censusLines({ document: { pages, title, signed, tagged }, characters, fonts }: FinishedCensus): string {
  return [
    `${title || 'no title'}: ${pages} pages, ${characters} characters, ${fonts.length} fonts` +
      `${tagged ? ', tagged' : ''}${signed ? ', signed' : ''}`,
    ...padded(
      fonts.map(font => [
        font.name,
        font.kind,
        font.embedded ? (font.subset ? 'embedded in part' : 'embedded') : 'not embedded',
        `${font.characters} characters`,
        font.sizes
          .slice(0, 4)
          .map(({ size }) => `${size} pt`)
          .join(', '),
        pagesWords(font.pages),
        font.readable ? '' : 'its letters cannot be told',
      ]),
    ),
  ].join('\n')
}

/** What checks find on the pages of a finished PDF, with its pages. @throws CommandError */
export async function pdfFindings(
  path: string,
  house: House | null,
  checklist: Checklist | undefined,
  madeFor: MadeFor,
): Promise<{ readonly findings: FinishedFinding[]; readonly reader: FinishedReader }> {
  const reader = new FinishedReader(await opened(path))
  const { library } = shippedLibrary()
  return { reader, findings: proofOfFinished({ reader, library, house, madeFor }, checklist) }
}

/** Writes a PDF with changes behind its bytes, and tells what came of them. @throws CommandError */
export async function pdfMended(from: string, to: string, changes: readonly WishedChange[]): Promise<string> {
  try {
    const { bytes, title, refused } = await changeFinished(read(from), changes, tools())
    write(to, bytes)
    return [`${title}; written: ${to}`, ...refused.map(each => `left as it was: ${each}`)].join('\n')
  } catch (error) {
    if (error instanceof FinishedPdfError) throw new CommandError(error.message)
    throw error
  }
}

/** A number of a page. @throws CommandError */
function pageIn(call: Call): number {
  const page = Number(single(call, '--page') ?? '1')
  if (!Number.isInteger(page) || page < 1) throw new CommandError('--page needs a number from 1')
  return page
}

function lengthIn(word: string | undefined, what: string): number {
  const length = points(/^[\d.]+$/.test(word ?? '') ? `${word}pt` : word)
  if (length === null) throw new CommandError(`${what} needs lengths, for instance 20mm`)
  return length
}

/** Adds text to a page of a finished PDF. @throws CommandError */
export async function pdfAdd(call: Call): Promise<Outcome> {
  const [from, to] = call.files
  const text = single(call, '--text')
  const family = single(call, '--family')
  const at = (single(call, '--at') ?? '').split(',')
  if (to === undefined || text === undefined || family === undefined || at.length !== 2)
    throw new CommandError('pdf-add needs FILE.pdf OUT.pdf --at X,Y --text TEXT --family FAMILY')
  const size = lengthIn(single(call, '--size') ?? '11', '--size')
  const width = single(call, '--width')
  return changed(
    async finished => {
      const made = await addText(
        finished,
        {
          page: pageIn(call),
          x: lengthIn(at[0], '--at'),
          y: lengthIn(at[1], '--at'),
          text,
          family,
          size,
          leading: null,
          weight: 400,
          italic: false,
          color: single(call, '--color') ?? '#000000',
          height: null,
          width: width === undefined ? null : lengthIn(width, '--width'),
          language: single(call, '--language') ?? '',
        },
        tools(),
      )
      return { bytes: made.bytes, said: [`added “${text}” on page ${pageIn(call)}`, ...made.said] }
    },
    from,
    to,
  )
}

/** Puts words of a page right. @throws CommandError */
export async function pdfRight(call: Call): Promise<Outcome> {
  const [from, to] = call.files
  const find = single(call, '--find')
  const words = single(call, '--words')
  if (to === undefined || find === undefined || words === undefined)
    throw new CommandError('pdf-right needs FILE.pdf OUT.pdf --find TEXT --words TEXT')
  return changed(finished => putRight(finished, correctionOf(finished, pageIn(call), find, words), tools()), from, to)
}

async function changed(
  change: (finished: FinishedPdf) => Promise<{ readonly bytes: Uint8Array; readonly said: readonly string[] }>,
  from: string | undefined,
  to: string,
): Promise<Outcome> {
  try {
    const { bytes, said } = await change(await opened(from))
    write(to, bytes)
    return fine([`written: ${to}`, ...said].join('\n'))
  } catch (error) {
    if (error instanceof FinishedPdfError) throw new CommandError(error.message)
    throw error
  }
}
