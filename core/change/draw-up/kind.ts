import { takeCensus } from '../../census/census'
import type { Library } from '../../font/library'
import { plainNumber } from '../../style/describe'
import type { Reading } from '../../style/reading'
import { oneByOne } from '../kind'
import { PlanError, NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { carryOut } from './carry-out'
import type { DrawnWords } from './draw-words'
import { lookWords, saidWords } from './look-words'
import type { DrawnStyle } from './model'
import { proposeStyles, type Proposal } from './propose'
import { roleOf } from './purposes'
import { sweepStyles } from './sweep'
import { drawUpSchema, type DrawUpWish } from './wish'

const keyOf = (voice: string, family: string) => ({ what: 'drawn style', family, voice })

/** Lists what is proposed, one row for each style. */
function tell(planner: Planner, proposal: Proposal): void {
  const { scope } = planner
  for (const style of proposal.paragraphs) {
    planner.row({
      key: keyOf(style.voice, 'paragraph'),
      stage: 'style',
      optional: true,
      title: style.displayName,
      count: style.members.length,
      characters: style.characters,
      before: lookWords(style),
      after: `paragraph style ${style.displayName}`,
      places: style.members.slice(0, 500).map(({ paragraph: each }) => ({ part: each.part, node: each.node })),
    })
  }
  for (const { voice, name, members } of proposal.taken)
    planner.row({
      key: keyOf(voice, 'paragraph'),
      stage: 'style',
      optional: true,
      title: planner.titleOf(scope, 'paragraph', name),
      count: members.length,
      characters: members.reduce((sum, each) => sum + each.characters, 0),
      before: 'set by hand to look like it',
      after: `paragraph style ${planner.titleOf(scope, 'paragraph', name)}`,
      places: members.slice(0, 500).map(({ paragraph: each }) => ({ part: each.part, node: each.node })),
    })
  for (const words of proposal.words) tellWords(planner, words)
}

function tellWords(
  planner: Planner,
  { voice, displayName, says, stretches, characters }: Proposal['words'][number],
): void {
  planner.row({
    key: keyOf(voice, 'text'),
    stage: 'words',
    optional: true,
    title: displayName,
    count: stretches.length,
    characters,
    before: saidWords(says) || 'set by hand',
    after: `character style ${displayName}`,
    places: stretches.slice(0, 500).map(({ member: { paragraph }, run }) => ({
      part: paragraph.part,
      node: paragraph.node,
      from: run.from,
      to: run.to,
    })),
  })
}

/** Keeps in the rules what text of the made styles is for. */
function keepRoles(planner: Planner, proposal: Proposal, wish: DrawUpWish, kept: (voice: string) => boolean): void {
  const named = new Map(planner.made.map(each => [each.displayName, each.name]))
  const added = proposal.paragraphs.flatMap(style => {
    const choice = wish.choices.find(each => each.family === 'paragraph' && each.voice === style.voice)
    const role = choice?.role === undefined ? roleOf(style.purpose) : choice.role
    const name = named.get(style.displayName)
    return role && name !== undefined && kept(style.voice)
      ? [{ style: { family: 'paragraph' as const, name }, role }]
      : []
  })
  if (added.length === 0) return
  const rules = planner.currentRules
  planner.rules = { ...rules, styles: [...rules.styles, ...added] }
}

/** From so little settled text on a document is drawn up before its styles are asked for anything. */
const settledEnough = 0.9

/** Whether a document's styles say too little of how its text looks to be worked with. */
export const needsDrawingUp = (reading: Reading, library: Library): boolean =>
  reading.document.kind === 'text' && takeCensus(reading, library, null).census.settled < settledEnough

/** Makes the styles that a document lacks, and tells how many; 0 where it lacks none. */
export function drawUp(planner: Planner, wish: DrawUpWish): number {
  const dropped = (voice: string) => ['paragraph', 'text'].some(family => planner.leaves(keyOf(voice, family)))
  const proposal = proposeStyles(planner.reading, { tolerance: wish.tolerance, choices: wish.choices, dropped })
  tell(planner, proposal)
  if (proposal.left > 0) planner.note('paragraphs', 'what they stand on cannot be said by a style', proposal.left)
  const kept = (voice: string) => !dropped(voice)
  carryOut(planner, proposal, wish, kept)
  keepRoles(planner, proposal, wish, kept)
  const { paragraphs, words } = proposal
  return [...paragraphs, ...words].filter((each: DrawnStyle | DrawnWords) => kept(each.voice)).length
}

export const drawUpKind = oneByOne<DrawUpWish>({
  type: 'draw-up',
  schema: drawUpSchema,
  most: 1,
  act(planner, wish) {
    if (planner.document.kind !== 'text')
      throw new PlanError(
        'Only texts are drawn up so far: in a deck or drawing, styles belong to placeholders and shapes. Nothing was changed.',
      )
    const own = planner.rows.length
    const made = drawUp(planner, wish)
    if (planner.rows.length === own && !wish.sweep)
      throw new NothingToPlan(
        'Every text of this document looks as its named styles say: there is nothing to draw up. Nothing was changed.',
      )
    if (wish.sweep) sweepStyles(planner)
    return `Draw up ${counted(made, 'style')}`
  },
  sentence: ({ tolerance }) =>
    tolerance === 0
      ? 'Draw up the named styles that the document lacks, from how its text looks.'
      : `Draw up the named styles that the document lacks, voices within ${plainNumber(tolerance)} pt as one.`,
  applies: document => document.kind === 'text',
})
