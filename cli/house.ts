import { needsDrawingUp } from '../core/change/draw-up/kind'
import type { Registry } from '../core/change/registry'
import { paletteOf } from '../core/change/repaint/house-paint'
import { changedLines } from '../core/change/effects'
import { openDocument, saveDocument } from '../core/document/open'
import { houseToTemplate } from '../core/format/odf/house-template'
import type { House } from '../core/house/house'
import { houseFromDocuments, houseFromStyles } from '../core/house/make-house'
import { settingWords } from '../core/house/setting-words'
import { measureToStyle, type ToStyle } from '../core/house/to-style'
import { houseFromTokens, houseToTokens, HouseFileError } from '../core/house/tokens'
import { readDocument } from '../core/style/reading'
import { basename } from 'node:path'
import { CommandError, fine, single, type Call, type Outcome } from './call'
import { read, sources, write } from './files'
import { each, requestOf, type Open } from './plans'
import { planText } from './report'

/** Whether a file holds a house as named styles of a text. */
const isTemplate = (path: string): boolean => /\.o[dt]t$/i.test(path)

/** The house in a file: of tokens, or the named styles of a text or template. @throws CommandError, PackageError */
export function houseOf(call: Call): House {
  const path = single(call, '--house')
  if (path === undefined) throw new CommandError(`${call.command} needs --house TOKENS.json or a template`)
  try {
    if (isTemplate(path)) {
      const name = basename(path).replace(/\.\w+$/, '')
      return houseFromStyles(name, readDocument(openDocument(read(path))))
    }
    return houseFromTokens(new TextDecoder().decode(read(path)))
  } catch (error) {
    if (error instanceof HouseFileError) throw new CommandError(`${path}: ${error.message}`)
    throw error
  }
}

const shareOf = ({ characters, toStyle }: Pick<ToStyle, 'characters' | 'toStyle'>): number =>
  characters === 0 ? 1 : toStyle / characters
const percent = (share: number) => `${(share * 100).toFixed(1)} %`

/** Brings documents to a house. */
export function dress(call: Call, open: Open, kinds: Registry): Promise<Outcome> {
  const house = houseOf(call)
  const names = single(call, '--names')
  return each(call, open, (session, _, out) => {
    const before = measureToStyle(session.reading, house)
    const wishes = [
      // What colours did in the house before is known until the document is dressed.
      ...(call.switches.has('--paint') ? [{ type: 'house-paint', house: paletteOf(house) }] : []),
      { type: 'dress', house, drawUp: true, ...(names === undefined ? {} : { names }) },
    ]
    const { plan, after } = kinds.plan(session, requestOf(kinds, { wishes }), { partly: true })
    const now = measureToStyle(after.reading, house)
    if (out !== null) write(out, saveDocument(after.document))
    return {
      text: `${percent(shareOf(before))} to style before, ${percent(shareOf(now))} after\n${planText(plan, out)}`,
      changed: plan.operations.length > 0,
      data: {
        toStyleBefore: shareOf(before),
        toStyleAfter: shareOf(now),
        places: plan.places,
        linesChanged: changedLines(session.composition, after.composition),
        overset: plan.effects!.overset,
        left: [
          ...plan.left,
          ...plan.rows.flatMap(row =>
            row.reason === null ? [] : [{ what: row.title, reason: row.reason, count: row.count }],
          ),
        ],
        written: out,
      },
    }
  })
}

/** Draws a house up from documents: each role as most of its text is set. */
export async function house(call: Call, open: Open, kinds: Registry): Promise<Outcome> {
  const readings = []
  for (const { path } of sources(call.files)) {
    const session = await open(path)
    const drawn = needsDrawingUp(session.reading, session.typesetter.library)
      ? kinds.plan(session, requestOf(kinds, { wishes: [{ type: 'draw-up' }] }), { effects: false }).after
      : session
    readings.push(drawn.reading)
  }
  const made = houseFromDocuments(single(call, '--name') ?? 'House', readings)
  const out = single(call, '--out')
  const tokens = houseToTokens(made)
  if (out !== undefined && !call.switches.has('--dry-run'))
    write(out, isTemplate(out) ? houseToTemplate(made) : new TextEncoder().encode(tokens))
  if (call.switches.has('--json')) return fine(tokens)
  return fine(
    [
      ...made.roles.map(role => `${role.title}: ${settingWords(made, role.text) || 'open'}`),
      out === undefined || call.switches.has('--dry-run') ? 'nothing was written' : `written: ${out}`,
    ].join('\n'),
  )
}
