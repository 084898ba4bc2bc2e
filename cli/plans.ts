import type { DocumentSession } from '../core/session'
import { suggestFaces } from '../core/font/suggest'
import { leadingModes, sizeModes } from '../core/change/swap/optical-size'
import { NothingToPlan, PlanError, swapRequestSchema, type SwapRequest } from '../core/change/plan'
import { recastRequestSchema, type RecastRequest } from '../core/change/recast/wish'
import { saveDocument } from '../core/document/open'
import { remaining, wishesThatApply } from '../core/change/swap/plan-swap'
import { PackageError } from '../core/package/errors'
import { CommandError, single, type Call, type Outcome } from './call'
import { sources, target, write, type Source } from './files'
import { absentText, recastText, swapText } from './report'

/** What one document came to: a text for people, the same as data, and whether anything was done. */
interface Done {
  readonly text: string
  readonly data: object
  readonly changed: boolean
}

/** Works through documents, one after the other: what fails is told and the others go on. */
async function each(
  call: Call,
  open: (path: string) => Promise<DocumentSession>,
  work: (session: DocumentSession, source: Source, out: string | null) => Done,
): Promise<Outcome> {
  const list = sources(call.files)
  const out = single(call, '--out')
  const dry = call.switches.has('--dry-run')
  const several = list.length > 1
  if (list.length === 0) return { text: 'there is no text, presentation or drawing in this folder', code: 2 }
  const results: { file: string; text: string; data: object; changed: boolean; failed: boolean }[] = []
  for (const source of list) {
    try {
      const session = await open(source.path)
      results.push({
        file: source.path,
        failed: false,
        ...work(session, source, out === undefined || dry ? null : target(out, source, several)),
      })
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

/** The swap that a call asks for: several pairs act at once. @throws CommandError */
export function swapOf(call: Call): SwapRequest {
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
      from: { family, style: faces.from },
      to: { family: to[index], style: faces.to },
      ...(size === 'keep' ? {} : { size: { mode: size } }),
      ...(leading === undefined ? {} : { leading }),
    }
  })
  const request = swapRequestSchema.safeParse({ wishes })
  if (!request.success) throw new CommandError(`the wish cannot be read: ${request.error.issues[0]?.message ?? ''}`)
  return request.data
}

export function swap(call: Call, open: (path: string) => Promise<DocumentSession>): Promise<Outcome> {
  const asked = swapOf(call)
  const several = sources(call.files).length > 1
  return each(call, open, (session, _, out) => {
    const request = several ? wishesThatApply(session.document, asked) : asked
    const { plan, after } = session.plan(request)
    if (out !== null) write(out, saveDocument(after.document))
    const left = [
      ...plan.left,
      ...request.wishes
        .filter(
          wish =>
            wish.from.style === undefined &&
            !request.wishes.some(other => other.to.family.toLowerCase() === wish.from.family.toLowerCase()),
        )
        .flatMap(wish =>
          remaining(after.document, wish.from.family).map(place => ({
            what: `${place.owner} (${place.part})`,
            reason: 'still named',
            count: 1,
          })),
        ),
    ]
    const effects = plan.effects!
    return {
      text: swapText(plan, left, out),
      changed: plan.operations.length > 0,
      data: {
        items: plan.rows,
        places: plan.places,
        sizes: plan.sizes,
        missingGlyphs: plan.missingGlyphs,
        pagesBefore: effects.pagesBefore,
        pagesAfter: effects.pagesAfter,
        linesBefore: effects.linesBefore,
        linesAfter: effects.linesAfter,
        overset: effects.overset,
        unlaid: effects.unlaid,
        left,
        written: out,
      },
    }
  })
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
export function recastOf(call: Call): RecastRequest {
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
  const request = recastRequestSchema.safeParse({
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
  })
  if (!request.success)
    throw new CommandError(
      `the wish cannot be read: ${request.error.issues[0]?.path.join(' ') ?? ''} ${request.error.issues[0]?.message ?? ''}`,
    )
  return request.data
}

export function recast(call: Call, open: (path: string) => Promise<DocumentSession>): Promise<Outcome> {
  const request = recastOf(call)
  return each(call, open, (session, _, out) => {
    const { plan, after } = session.recast(request)
    if (out !== null && plan.operations.length > 0) write(out, saveDocument(after.document))
    const effects = plan.effects!
    return {
      text: recastText(plan, plan.operations.length > 0 ? out : null),
      changed: plan.operations.length > 0,
      data: {
        sentence: plan.sentence,
        matches: plan.matches,
        places: plan.places,
        items: plan.rows,
        pagesBefore: effects.pagesBefore,
        pagesAfter: effects.pagesAfter,
        linesBefore: effects.linesBefore,
        linesAfter: effects.linesAfter,
        left: plan.left,
        written: plan.operations.length > 0 ? out : null,
      },
    }
  })
}

/** Absent faces of documents. Ends with 2 where there are any, so that a script can tell. */
export async function absent(call: Call, open: (path: string) => Promise<DocumentSession>): Promise<Outcome> {
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
