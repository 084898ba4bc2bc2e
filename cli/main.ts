import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { basename, dirname, join, resolve } from 'node:path'
import { PackageError } from '../core/package/errors'
import { DocumentSession } from '../core/plan/session'
import { PlanError, swapRequestSchema } from '../core/plan/plan'
import { openDocument, saveDocument } from '../core/document/open'
import { remaining } from '../core/plan/swap'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { writeReadText } from '../core/format/odf/new-document'
import { readForeign } from '../core/format/read'
import { PdfError, writePdf } from '../core/format/pdf/write'
import { points } from '../core/style/properties'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { censusText, swapText, unlaidLines } from './report'

const usage = `morphene: the typography of a document, from a terminal

  census FILE [--json]                      which faces and voices are in it, how much of each, where
  swap FILE --from FAMILY --to FAMILY       put one family in place of another, everywhere
       [--from-face STYLE --to-face STYLE]  one face of it only
       [--out FILE] [--json]                without --out nothing is written: the plan is printed
  copy FILE OUT                             open and save unchanged
  text FILE OUT                             make an OpenDocument text of a plain text, Markdown or HTML
  pdf FILE OUT [--bleed LENGTH] [--marks]   the pages as PDF, at true size; LENGTH for instance 3mm
       [--leave-out]                        do not embed faces whose licence forbids it
       [--notes]                            the pages of speaker notes too, after the pages`

/** A mistake in the call, or a file that cannot be used. The message is one line. */
class CommandError extends Error {}

interface Call { readonly command: string, readonly files: readonly string[], readonly options: ReadonlyMap<string, string>, readonly json: boolean }
const withValue = new Set(['--from', '--to', '--from-face', '--to-face', '--out', '--bleed'])
const switches = new Set(['--marks', '--leave-out', '--notes'])

function parseCall(words: readonly string[]): Call {
  const files: string[] = []
  const options = new Map<string, string>()
  let json = false
  for (let at = 1; at < words.length; at++) {
    const word = words[at]!
    if (word === '--json') json = true
    else if (switches.has(word)) options.set(word, 'yes')
    else if (withValue.has(word)) {
      const value = words[++at]
      if (value === undefined || value.startsWith('--')) throw new CommandError(`${word} needs a value`)
      options.set(word, value)
    }
    else if (word.startsWith('--')) throw new CommandError(`there is no option ${word}`)
    else files.push(word)
  }
  return { command: words[0] ?? '', files, options, json }
}

function read(path: string | undefined): Uint8Array {
  if (path === undefined) throw new CommandError('which file? Name one after the command')
  if (!existsSync(path)) throw new CommandError(`there is no file “${path}”`)
  return new Uint8Array(readFileSync(path))
}

/** Written beside and renamed: a failure leaves no half file, and the file that was there before stays. */
function write(path: string, bytes: Uint8Array): void {
  const target = resolve(path)
  if (!existsSync(dirname(target))) throw new CommandError(`there is no folder “${dirname(target)}”`)
  const beside = join(dirname(target), `.morphene-${process.pid}`)
  try {
    writeFileSync(beside, bytes)
    renameSync(beside, target)
  }
  finally {
    rmSync(beside, { force: true })
  }
}

async function open(path: string | undefined): Promise<DocumentSession> {
  const bytes = read(path)
  const { library, load } = shippedLibrary()
  return DocumentSession.start(bytes, new Typesetter(library, new Shaper(startHarfBuzz(), load)))
}

async function census(call: Call): Promise<string> {
  const session = await open(call.files[0])
  const { census: result } = session.detail
  if (!call.json) return censusText(result)
  const { document, characters, settled, faces, voices, unused, frames, pictures } = result
  return JSON.stringify({ document, characters, settled, faces, voices, unused, frames, pictures }, null, 2)
}

async function swap(call: Call): Promise<string> {
  const from = call.options.get('--from')
  const to = call.options.get('--to')
  if (from === undefined || to === undefined) throw new CommandError('swap needs --from FAMILY and --to FAMILY')
  const session = await open(call.files[0])
  const wish = { from: { family: from, style: call.options.get('--from-face') }, to: { family: to, style: call.options.get('--to-face') } }
  const request = swapRequestSchema.safeParse({ wishes: [wish] })
  if (!request.success) throw new CommandError(`the wish cannot be read: ${request.error.issues[0]?.message ?? ''}`)
  const { plan, after } = session.plan(request.data)
  const out = call.options.get('--out')
  if (out !== undefined) write(out, saveDocument(after.document))
  const left = [...plan.left, ...wish.from.style === undefined ? remaining(after.document, from).map(each => ({ what: `${each.owner} (${each.part})`, reason: 'still named', count: 1 })) : []]
  if (!call.json) return swapText(plan, left, out ?? null)
  const effects = plan.effects!
  return JSON.stringify({
    items: plan.rows, places: plan.places, missingGlyphs: plan.missingGlyphs, pagesBefore: effects.pagesBefore, pagesAfter: effects.pagesAfter,
    overset: effects.overset, unlaid: effects.unlaid, left,
  }, null, 2)
}

function copy(call: Call): string {
  const [from, to] = call.files
  const bytes = read(from)
  if (to === undefined) throw new CommandError('copy needs a file to write: copy FILE OUT')
  write(to, saveDocument(openDocument(bytes)))
  return ''
}

function text(call: Call): string {
  const [from, to] = call.files
  const bytes = read(from)
  if (to === undefined) throw new CommandError('text needs a file to write: text FILE OUT')
  const converted = readForeign(basename(from!), bytes)
  write(to, writeReadText(converted, basename(from!).replace(/\.\w+$/, '')))
  return [`written: ${to}, ${converted.blocks.length} blocks`, ...converted.left.map(each => `left out or guessed: ${each.what}${each.count > 1 ? ` (${each.count})` : ''}`)].join('\n')
}

async function pdf(call: Call): Promise<string> {
  const [from, to] = call.files
  const bleed = call.options.has('--bleed') ? points(call.options.get('--bleed')) : 0
  if (bleed === null || bleed < 0 || bleed > 72) throw new CommandError('--bleed needs a length of at most an inch, for instance 3mm')
  if (to === undefined) throw new CommandError('pdf needs a file to write: pdf FILE OUT')
  const session = await open(from)
  const made = await writePdf(session.composition, session.typesetter, shippedLibrary().load, startSubsetter(), { bleed, cropMarks: call.options.has('--marks'), leaveOut: call.options.has('--leave-out'), notes: call.options.has('--notes'), made: Date.now() })
  write(to, made.bytes)
  return [
    `written: ${to}, ${made.pages} ${made.pages === 1 ? 'page' : 'pages'}`, ...unlaidLines(session.composition.unlaid),
    ...made.notEmbedded.length > 0 ? [`named, not embedded: ${made.notEmbedded.join(', ')}`] : [], ...made.pictures.length > 0 ? [`pictures shown as grey boxes: ${made.pictures.join(', ')}`] : [],
  ].join('\n')
}

/** Runs one command; returns what it prints. */
export async function run(words: readonly string[]): Promise<string> {
  const call = parseCall(words)
  switch (call.command) {
    case 'census': return census(call)
    case 'swap': return swap(call)
    case 'copy': return copy(call)
    case 'text': return text(call)
    case 'pdf': return pdf(call)
    case '': case 'help': case '--help': return usage
    default: throw new CommandError(`there is no command “${call.command}”; there are census, swap, copy, text and pdf`)
  }
}

try {
  const text = await run(process.argv.slice(2))
  if (text !== '') process.stdout.write(`${text}\n`)
}
catch (error) {
  const known = error instanceof CommandError || error instanceof PackageError || error instanceof PlanError || error instanceof PdfError
  process.stderr.write(`morphene: ${known ? error.message : `this went wrong: ${error instanceof Error ? error.message : String(error)}`}\n`)
  process.exitCode = 1
}
