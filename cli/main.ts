import { existsSync, readFileSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { PackageError } from '../core/package/errors'
import { DocumentSession } from '../core/plan/session'
import { PlanError, swapRequestSchema } from '../core/plan/plan'
import { saveDocument } from '../core/document/open'
import { remaining } from '../core/plan/swap'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { shippedLibrary } from '../server/library/shipped'
import { censusText, swapText } from './report'

const usage = `morphene: the typography of a document, from a terminal

  census FILE [--json]                      which faces and voices are in it, how much of each, where
  swap FILE --from FAMILY --to FAMILY       put one family in place of another, everywhere
       [--from-face STYLE --to-face STYLE]  one face of it only
       [--out FILE] [--json]                without --out nothing is written: the plan is printed
  copy FILE OUT                             open and save unchanged`

/** A mistake in the call, or a file that cannot be used. The message is one line. */
class CommandError extends Error {}

interface Call { readonly command: string, readonly files: readonly string[], readonly options: ReadonlyMap<string, string>, readonly json: boolean }
const withValue = new Set(['--from', '--to', '--from-face', '--to-face', '--out'])

function parseCall(words: readonly string[]): Call {
  const files: string[] = []
  const options = new Map<string, string>()
  let json = false
  for (let at = 1; at < words.length; at++) {
    const word = words[at]!
    if (word === '--json') json = true
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

function open(path: string | undefined): DocumentSession {
  const bytes = read(path)
  const { library, load } = shippedLibrary()
  const session = DocumentSession.open(bytes, new Typesetter(library, new Shaper(load)))
  if (session.document.kind !== 'text') throw new CommandError(`“${path}” is a ${session.document.kind}; the census and swaps take text documents (.odt) so far`)
  return session
}

function census(call: Call): string {
  const session = open(call.files[0])
  const { census: result } = session.detail
  if (!call.json) return censusText(result)
  const { document, characters, settled, faces, voices, unused, pictures } = result
  return JSON.stringify({ document, characters, settled, faces, voices, unused, pictures }, null, 2)
}

function swap(call: Call): string {
  const from = call.options.get('--from')
  const to = call.options.get('--to')
  if (from === undefined || to === undefined) throw new CommandError('swap needs --from FAMILY and --to FAMILY')
  const session = open(call.files[0])
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
  const { library, load } = shippedLibrary()
  write(to, saveDocument(DocumentSession.open(bytes, new Typesetter(library, new Shaper(load))).document))
  return ''
}

/** Runs one command; returns what it prints. */
export function run(words: readonly string[]): string {
  const call = parseCall(words)
  switch (call.command) {
    case 'census': return census(call)
    case 'swap': return swap(call)
    case 'copy': return copy(call)
    case '': case 'help': case '--help': return usage
    default: throw new CommandError(`there is no command “${call.command}”; there are census, swap and copy`)
  }
}

try {
  const text = run(process.argv.slice(2))
  if (text !== '') process.stdout.write(`${text}\n`)
}
catch (error) {
  const known = error instanceof CommandError || error instanceof PackageError || error instanceof PlanError
  process.stderr.write(`morphene: ${known ? error.message : `this went wrong: ${error instanceof Error ? error.message : String(error)}`}\n`)
  process.exitCode = 1
}
