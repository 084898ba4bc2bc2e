import { changedLines } from '../core/change/effects'
import type { DrawUpChoice } from '../core/change/draw-up/wish'
import type { Plan } from '../core/change/plan'
import type { Registry } from '../core/change/registry'
import { saveDocument } from '../core/document/open'
import type { DocumentSession } from '../core/session'
import { CommandError, single, type Call, type Outcome } from './call'
import { write } from './files'
import { each, requestOf, type Open } from './plans'
import { planText } from './report'

/** The wish that a call asks for, but for what was chosen. @throws CommandError */
function wishOf(call: Call): object {
  const tolerance = single(call, '--tolerance')
  const headings = single(call, '--headings')
  if (tolerance !== undefined && !/^\d+(\.\d+)?$/.test(tolerance))
    throw new CommandError('--tolerance is a number of points, for instance 0.5')
  return {
    type: 'draw-up',
    ...(tolerance === undefined ? {} : { tolerance: Number(tolerance) }),
    ...(headings === undefined ? {} : { headings }),
    ...(call.switches.has('--sweep') ? { sweep: true } : {}),
  }
}

/** The styles that a plan makes or gives to text, with what their text is for. */
function stylesOf({ rows }: Plan, after: DocumentSession) {
  const { rules } = after.reading.cascade
  const [scope] = [...after.reading.cascade.scopes.values()]
  const named = new Map(
    [...(scope?.common.values() ?? [])].map(style => [`${style.family} ${style.displayName}`, style.name]),
  )
  return rows
    .filter(({ key, included }) => key.what === 'drawn style' && included)
    .map(({ key, title, count, characters }) => {
      const name = named.get(`${String(key.family)} ${title}`)
      const role = rules.styles.find(({ style }) => style.family === key.family && style.name === name)?.role ?? null
      const paragraphs = key.family === 'paragraph' ? count : 0
      const frames = key.family === 'graphic' ? { frames: count } : {}
      const cells = key.family === 'table-cell' ? { cells: count } : {}
      return { name: title, family: key.family, role, paragraphs, ...frames, ...cells, characters }
    })
}

/** Voices with the names they got, so that the next document gives the same ones. */
const namesOf = ({ rows }: Plan): DrawUpChoice[] =>
  rows
    .filter(({ key, included }) => key.what === 'drawn style' && included)
    .map(({ key, title }) => ({ voice: String(key.voice), family: key.family as DrawUpChoice['family'], name: title }))

/** Draws documents up: voices that several share get the same names in all of them. */
export function drawUp(call: Call, open: Open, kinds: Registry): Promise<Outcome> {
  const wish = wishOf(call)
  const choices = new Map<string, DrawUpChoice>()
  return each(call, open, (session, _, out) => {
    const request = requestOf(kinds, { wishes: [{ ...wish, choices: [...choices.values()] }] })
    const { plan, after } = kinds.plan(session, request)
    for (const choice of namesOf(plan)) choices.set(`${choice.family} ${choice.voice}`, choice)
    if (out !== null) write(out, saveDocument(after.document))
    const effects = plan.effects!
    return {
      text: planText(plan, out),
      changed: true,
      data: {
        settledBefore: session.detail.census.settled,
        settledAfter: after.detail.census.settled,
        styles: stylesOf(plan, after),
        linesChanged: changedLines(session.composition, after.composition),
        pagesBefore: effects.pagesBefore,
        pagesAfter: effects.pagesAfter,
        left: plan.left,
        written: out,
      },
    }
  })
}
