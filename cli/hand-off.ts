import { unzipSync } from 'fflate'
import { mkdirSync } from 'node:fs'
import { basename, dirname, extname, join } from 'node:path'
import { points } from '../core/document/lengths'
import { writeBundle, type BundledDocument } from '../core/format/handoff/bundle'
import { handOff, HandoffError } from '../core/format/handoff/hand-off'
import { handoffSchema, type Handed, type HandoffRequest } from '../core/format/handoff/request'
import { handoffWorks } from '../server/library/handoff-works'
import { startSubsetter } from '../server/library/harfbuzz'
import { printingConditions } from '../server/library/printing'
import { shippedLibrary } from '../server/library/shipped'
import { CommandError, fine, single, type Call, type Outcome } from './call'
import { read, sources, write } from './files'
import { houseOf } from './house'
import type { Open } from './plans'

const told = (to: string, { said, left }: Handed) => [`written: ${to}, ${said.join(', ')}`, ...left].join('\n')

/** @throws CommandError */
function pdfRequest(call: Call): HandoffRequest {
  const bleed = call.options.has('--bleed') ? points(single(call, '--bleed')) : 0
  if (bleed === null || bleed < 0 || bleed > 72)
    throw new CommandError('--bleed needs a length of at most an inch, for instance 3mm')
  const condition = single(call, '--print')
  const profile = single(call, '--profile')
  if (condition !== undefined && profile !== undefined)
    throw new CommandError('--print and --profile are two ways to say the same: give one of them')
  if (condition !== undefined && !printingConditions().some(each => each.id === condition))
    throw new CommandError(
      `--print takes ${printingConditions()
        .map(each => each.id)
        .join(', ')}`,
    )
  return {
    as: 'pdf',
    bleed,
    cropMarks: call.switches.has('--marks'),
    leaveOut: call.switches.has('--leave-out'),
    notes: call.switches.has('--notes'),
    ...(condition === undefined ? {} : { print: { condition } }),
    ...(profile === undefined
      ? {}
      : {
          print: { profile: Buffer.from(read(profile)).toString('base64'), name: basename(profile, extname(profile)) },
        }),
  }
}

const requests: Readonly<Record<string, (call: Call) => HandoffRequest>> = {
  pdf: pdfRequest,
  epub: () => ({ as: 'epub' }),
  html: () => ({ as: 'html' }),
  css: () => ({ as: 'css' }),
  tokens: () => ({ as: 'tokens' }),
  template: () => ({ as: 'template' }),
}

/** Whether a command hands a document on. */
export const handsOn = (command: string): boolean => command in requests

/** Hands a document on as what the command is called. @throws CommandError, PdfError */
export async function handOn(call: Call, open: Open): Promise<Outcome> {
  const [from, to] = call.files
  read(from)
  if (to === undefined) throw new CommandError(`${call.command} needs a file to write: ${call.command} FILE OUT`)
  const session = await open(from!)
  const house = call.options.has('--house') ? houseOf(call) : null
  const name = basename(from!, extname(from!))
  const request = handoffSchema.safeParse(requests[call.command]!(call))
  if (!request.success) throw new CommandError('the profile is larger than 4 MB')
  try {
    const made = await handOff(session, request.data, { name, made: Date.now(), house, licences: [] }, works())
    if (request.data.as === 'html' && !/\.zip$/i.test(to)) unpack(made.bytes, to)
    else write(to, made.bytes)
    return fine(told(to, made))
  } catch (error) {
    if (error instanceof HandoffError) throw new CommandError(error.message)
    throw error
  }
}

const works = () => handoffWorks(shippedLibrary().load, startSubsetter())

/** A page for browsers is a folder, unless a zip is asked for. */
function unpack(zip: Uint8Array, folder: string): void {
  for (const [path, bytes] of Object.entries(unzipSync(zip))) {
    const target = join(folder, path)
    mkdirSync(dirname(target), { recursive: true })
    write(target, bytes)
  }
}

/** Documents with what they need elsewhere, in one zip: the last file is the one to write. @throws CommandError */
export async function bundle(call: Call, open: Open): Promise<Outcome> {
  const to = call.files.at(-1)
  if (call.files.length < 2 || !to || !/\.zip$/i.test(to))
    throw new CommandError('bundle needs documents and a zip to write: bundle FILES OUT.zip')
  const documents: BundledDocument[] = []
  for (const { path, below } of sources(call.files.slice(0, -1)))
    documents.push({ fileName: basename(below), bytes: read(path), session: await open(path), records: [], uses: [] })
  const house = call.options.has('--house') ? houseOf(call) : null
  const made = await writeBundle(documents, { made: Date.now(), house, licences: [] }, works())
  write(to, made.bytes)
  return fine(told(to, made))
}
