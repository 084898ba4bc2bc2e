import type { DocumentSession } from '../core/session'
import { suggestFaces } from '../core/font/suggest'
import { leadingModes, sizeModes } from '../core/change/swap/optical-size'
import { NothingToPlan, PlanError, type Plan, type WishList } from '../core/change/plan'
import type { Registry } from '../core/change/registry'
import { remaining } from '../core/change/swap/references'
import { swapSchema, type SwapWish } from '../core/change/swap/wish'
import { saveDocument } from '../core/document/open'
import { PackageError } from '../core/package/errors'
import { CommandError, single, type Call, type Outcome } from './call'
import { read, sources, target, write, type Source } from './files'
import { absentText, planText } from './report'

/** Opens a document. @throws PackageError, CommandError */
export type Open = (path: string) => Promise<DocumentSession>

/** What one document came to: a text for people, the same as data, and whether anything was done. */
export interface Done {
  readonly text: string
  readonly data: object
  readonly changed: boolean
}

/** Works through documents, one after the other: what fails is told and the others go on. */
export const each = (
  call: Call,
  open: Open,
  work: (session: DocumentSession, source: Source, out: string | null) => Done,
): Promise<Outcome> => eachFile(call, async (source, out) => work(await open(source.path), source, out))

/** Works through files of any sort as through documents. `out` is where what becomes of one goes; null for nowhere. */
export async function eachFile(
  call: Call,
  work: (source: Source, out: string | null) => Promise<Done>,
): Promise<Outcome> {
  const list = sources(call.files)
  const out = single(call, '--out')
  const dry = call.switches.has('--dry-run')
  const several = list.length > 1
  if (list.length === 0) return { text: 'there is no text, presentation or drawing in this folder', code: 2 }
  const results: { file: string; text: string; data: object; changed: boolean; failed: boolean }[] = []
  for (const source of list) {
    try {
      const done = await work(source, out === undefined || dry ? null : target(out, source, several))
      results.push({ file: source.path, failed: false, ...done })
    } catch (error) {
      // Nothing to do is no failure; of a single file a failure ends the command.
      if (error instanceof NothingToPlan)
        results.push({
          file: source.path,
          text: error.message,
          data: { message: error.message },
          changed: false,
          failed: false,
        })
      else if (
        several &&
        (error instanceof PackageError || error instanceof PlanError || error instanceof CommandError)
      )
        results.push({
          file: source.path,
          text: `failed: ${error.message}`,
          data: { failed: error.message },
          changed: false,
          failed: true,
        })
      else throw error
    }
  }
  const text = call.switches.has('--json')
    ? JSON.stringify(several ? results.map(({ file, data }) => ({ file, ...data })) : results[0]!.data, null, 2)
    : results.map(result => (several ? `${result.file}\n${result.text}` : result.text)).join('\n\n')
  return { text, code: results.some(result => result.failed) ? 3 : results.some(result => result.changed) ? 0 : 2 }
}

/** A request that a call asks for, or one that a file holds. @throws CommandError where it cannot be read */
export function requestOf(kinds: Registry, value: object): WishList {
  const request = kinds.schema.safeParse(value)
  if (request.success) return request.data
  const [issue] = request.error.issues
  throw new CommandError(`the wish cannot be read: ${issue?.path.join(' ') ?? ''} ${issue?.message ?? ''}`)
}

/** Families that a request lets go everywhere, and gives to nothing else. */
function goneFamilies({ wishes }: WishList): string[] {
  const swaps = wishes.flatMap((wish): SwapWish[] => {
    const read = swapSchema.safeParse(wish)
    return read.success ? [read.data] : []
  })
  return swaps
    .filter(({ from, within }) => from.style === undefined && within === undefined)
    .map(({ from }) => from.family)
    .filter(family => !swaps.some(({ to }) => to.family.toLowerCase() === family.toLowerCase()))
}

const planData = (plan: Plan, written: string | null) => {
  const effects = plan.effects!
  return {
    sentences: plan.sentences,
    places: plan.places,
    items: plan.rows,
    sizes: plan.sizes,
    missingGlyphs: plan.missingGlyphs,
    made: plan.made,
    pagesBefore: effects.pagesBefore,
    pagesAfter: effects.pagesAfter,
    linesBefore: effects.linesBefore,
    linesAfter: effects.linesAfter,
    overset: effects.overset,
    unlaid: effects.unlaid,
    left: plan.left,
    written,
  }
}

/** Plans wishes of any kinds over the files of a call, and writes what comes of them where that is asked. */
export function plan(call: Call, open: Open, kinds: Registry, asked: object): Promise<Outcome> {
  const request = requestOf(kinds, asked)
  const partly = sources(call.files).length > 1
  return each(call, open, (session, _, out) => {
    const { plan: made, after } = kinds.plan(session, request, { partly })
    const changes = made.operations.length > 0
    const written = changes ? out : null
    if (written !== null) write(written, saveDocument(after.document))
    const still = goneFamilies(made.request).flatMap(family =>
      remaining(after.document, family).map(place => ({
        what: `${place.owner} (${place.part})`,
        reason: 'still named',
        count: 1,
      })),
    )
    const shown = { ...made, left: [...made.left, ...still] }
    return { text: planText(shown, written), changed: changes, data: planData(shown, written) }
  })
}

/** The wishes of a file: a request, as kept wishes and batches hold them, or one wish by itself. @throws CommandError */
export function wishesOf(call: Call): object {
  const path = single(call, '--wish')
  if (path === undefined) throw new CommandError('plan needs --wish FILE.json')
  let value: unknown
  try {
    value = JSON.parse(new TextDecoder().decode(read(path)))
  } catch (error) {
    if (error instanceof SyntaxError) throw new CommandError(`${path} is no JSON: ${error.message}`)
    throw error
  }
  if (typeof value !== 'object' || value === null) throw new CommandError(`${path} holds no wish`)
  return 'wishes' in value ? value : { wishes: [value] }
}

/** The swap that a call asks for: several pairs act at once. @throws CommandError */
export function swapOf(call: Call): object {
  const all = (name: string) => call.options.get(name) ?? []
  const [from, to] = [all('--from'), all('--to')]
  if (from.length === 0 || from.length !== to.length)
    throw new CommandError('swap needs --from FAMILY and --to FAMILY, as many of the one as of the other')
  for (const name of ['--from-face', '--to-face', '--size'])
    if (all(name).length > 1 && all(name).length !== from.length)
      throw new CommandError(`${name} is given ${all(name).length} times for ${from.length} swaps`)
  const at = (name: string, index: number) => all(name)[all(name).length === 1 ? 0 : index]
  const leading = single(call, '--leading')
  if (leading !== undefined && !(leadingModes as readonly string[]).includes(leading))
    throw new CommandError(`--leading is one of ${leadingModes.join(', ')}`)
  const wishes = from.map((family, index) => {
    const size = at('--size', index) ?? 'keep'
    if (!(sizeModes as readonly string[]).includes(size))
      throw new CommandError(`--size is one of ${sizeModes.join(', ')}`)
    const faces = { from: all('--from-face')[index], to: all('--to-face')[index] }
    return {
      type: 'swap',
      from: { family, style: faces.from },
      to: { family: to[index], style: faces.to },
      ...(size === 'keep' ? {} : { size: { mode: size } }),
      ...(leading === undefined ? {} : { leading }),
    }
  })
  return { wishes }
}

/** “9-10”, “9-”, “-10” or “10” as a range. @throws CommandError */
function rangeOf(value: string, name: string): { least?: number; most?: number } {
  const match = /^(\d+(?:\.\d+)?)?(-)?(\d+(?:\.\d+)?)?$/.exec(value)
  if (!match || (match[1] === undefined && match[3] === undefined))
    throw new CommandError(`${name} is a number or a range such as 9-10`)
  return match[2] === undefined
    ? { least: Number(match[1]), most: Number(match[1]) }
    : {
        ...(match[1] === undefined ? {} : { least: Number(match[1]) }),
        ...(match[3] === undefined ? {} : { most: Number(match[3]) }),
      }
}

/** The recast that a call asks for. @throws CommandError */
export function recastOf(call: Call): object {
  const value = (name: string) => single(call, name)
  const text = value('--find')
  const pages = value('--pages')
  const size = value('--at-size')
  const newSize = value('--set-size')
  const look = {
    family: value('--family'),
    face: value('--face'),
    status: value('--status'),
    paragraphStyle: value('--style'),
    role: value('--role'),
    language: value('--language'),
    color: value('--color'),
    ...(size === undefined ? {} : { size: rangeOf(size, '--at-size') }),
    ...(call.switches.has('--stray') ? { stray: true } : {}),
  }
  const range = pages === undefined ? null : rangeOf(pages, '--pages')
  const wish = {
    type: 'recast',
    find: {
      ...(text === undefined
        ? {}
        : {
            words: {
              text,
              expression: call.switches.has('--expression'),
              matchCase: call.switches.has('--match-case'),
              wholeWords: call.switches.has('--whole-words'),
            },
          }),
      look: Object.fromEntries(Object.entries(look).filter(([, each]) => each !== undefined)),
      scope: range
        ? { kind: 'pages', from: (range.least ?? 1) - 1, to: (range.most ?? 100_000) - 1 }
        : { kind: 'document' },
    },
    change: Object.fromEntries(
      Object.entries({
        words: value('--words'),
        family: value('--set-family'),
        face: value('--set-face'),
        color: value('--set-color'),
        paragraphStyle: value('--set-style'),
        characterStyle: value('--set-character-style'),
        settle: call.switches.has('--settle') ? true : undefined,
        size:
          newSize === undefined
            ? undefined
            : newSize.endsWith('%')
              ? { percent: Number.parseFloat(newSize) }
              : { points: Number.parseFloat(newSize) },
      }).filter(([, each]) => each !== undefined),
    ),
    colors: (call.options.get('--recolor') ?? []).map(each => {
      const [from, to] = each.split('=')
      return { from, to }
    }),
  }
  return { wishes: [wish] }
}

/** Absent faces of documents. Ends with 2 where there are any, so that a script can tell. */
export async function absent(call: Call, open: Open): Promise<Outcome> {
  let any = false
  const outcome = await each(call, open, session => {
    const { faces, places } = session.absent
    if (faces.some(face => face.status === 'absent')) any = true
    const suggested = faces.map(face => ({
      ...face,
      suggestions: face.symbols ? [] : suggestFaces(session.typesetter.library, face.name, face.codePoints),
    }))
    return {
      text: absentText(suggested, places),
      changed: true,
      data: { absent: suggested.map(({ codePoints: _codePoints, ...face }) => face), places },
    }
  })
  return outcome.code === 3 ? outcome : { ...outcome, code: any ? 2 : 0 }
}
