import { takeCensus } from '../../census/census'
import type { Library } from '../../font/library'
import { plainNumber } from '../../style/describe'
import type { Reading } from '../../style/reading'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { carryOut } from './carry-out'
import { carryOutFrames } from './carry-out-frames'
import type { DrawnWords } from './draw-words'
import { lookWords, saidWords } from './look-words'
import type { DrawnStyle } from './model'
import type { DrawnFrame } from './gather-frames'
import type { Named } from './names'
import { proposeStyles, type Proposal, type ProposalOptions } from './propose'
import { proposeFrames, type FrameProposal } from './propose-frames'
import { roleOf, type Purpose } from './purposes'
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

/** Lists what is proposed for loose frames, one row for each style. */
function tellFrames(planner: Planner, { styles, taken }: FrameProposal): void {
  const row = (voice: string, frames: readonly DrawnFrame[], title: string, before: string) =>
    planner.row({
      key: keyOf(voice, 'graphic'),
      stage: 'style',
      optional: true,
      title,
      count: frames.length,
      characters: frames.reduce((sum, each) => sum + each.characters, 0),
      before,
      after: `graphic style ${title}`,
      places: frames
        .flatMap(frame => frame.members)
        .slice(0, 500)
        .map(({ paragraph: { part, node } }) => ({ part, node })),
    })
  for (const style of styles) row(style.voice, style.frames, style.displayName, lookWords(style))
  for (const { voice, frames, name } of taken)
    row(voice, frames, planner.titleOf(planner.scope, 'graphic', name), 'set by hand to look like it')
}

/** Keeps in the rules what text of the made styles is for. */
function keepRoles(
  planner: Planner,
  styles: readonly (DrawnStyle & Named & { readonly purpose: Purpose })[],
  family: 'paragraph' | 'graphic',
  wish: DrawUpWish,
  kept: (voice: string) => boolean,
): void {
  const named = new Map(planner.made.map(each => [each.displayName, each.name]))
  const added = styles.flatMap(style => {
    const choice = wish.choices.find(each => each.family === family && each.voice === style.voice)
    const role = choice?.role === undefined ? roleOf(style.purpose) : choice.role
    const name = named.get(style.displayName)
    return role && name !== undefined && kept(style.voice) ? [{ style: { family, name }, role }] : []
  })
  if (added.length === 0) return
  const rules = planner.currentRules
  planner.rules = { ...rules, styles: [...rules.styles, ...added] }
}

/** From so little settled text on a document is drawn up before its styles are asked for anything. */
const settledEnough = 0.9

/** Whether a document's styles say too little of how its text looks to be worked with. */
export const needsDrawingUp = (reading: Reading, library: Library): boolean =>
  takeCensus(reading, library, null).census.settled < settledEnough

/** Makes the styles that a document lacks, and tells how many; 0 where it lacks none. */
export function drawUp(planner: Planner, wish: DrawUpWish): number {
  const text = planner.document.kind === 'text'
  const families = text ? ['paragraph', 'text'] : ['graphic']
  const dropped = (voice: string) => families.some(family => planner.leaves(keyOf(voice, family)))
  const kept = (voice: string) => !dropped(voice)
  const options = { tolerance: wish.tolerance, choices: wish.choices, dropped }
  return text ? drawUpText(planner, wish, options, kept) : drawUpFrames(planner, wish, options, kept)
}

function drawUpText(
  planner: Planner,
  wish: DrawUpWish,
  options: ProposalOptions,
  kept: (voice: string) => boolean,
): number {
  const proposal = proposeStyles(planner.reading, options)
  for (const { name } of proposal.taken) planner.style('paragraph', name)
  tell(planner, proposal)
  if (proposal.left > 0) planner.note('paragraphs', 'what they stand on cannot be said by a style', proposal.left)
  carryOut(planner, proposal, wish, kept)
  keepRoles(planner, proposal.paragraphs, 'paragraph', wish, kept)
  const { paragraphs, words } = proposal
  return [...paragraphs, ...words].filter((each: DrawnStyle | DrawnWords) => kept(each.voice)).length
}

function drawUpFrames(
  planner: Planner,
  wish: DrawUpWish,
  options: ProposalOptions,
  kept: (voice: string) => boolean,
): number {
  const proposal = proposeFrames(planner.reading, options)
  for (const { name } of proposal.taken) planner.style('graphic', name)
  tellFrames(planner, proposal)
  if (proposal.left > 0) planner.note('frames', 'what they stand on cannot be said by a style', proposal.left)
  carryOutFrames(planner, proposal, kept)
  keepRoles(planner, proposal.styles, 'graphic', wish, kept)
  return proposal.styles.filter(each => kept(each.voice)).length
}

export const drawUpKind = oneByOne<DrawUpWish>({
  type: 'draw-up',
  schema: drawUpSchema,
  most: 1,
  act(planner, wish) {
    const own = planner.rows.length
    const made = drawUp(planner, wish)
    if (planner.rows.length === own && !wish.sweep)
      throw new NothingToPlan(
        planner.document.kind === 'text'
          ? 'Every text of this document looks as its named styles say: there is nothing to draw up. Nothing was changed.'
          : 'Text in loose frames looks as its graphic styles say: there is nothing to draw up. Nothing was changed.',
      )
    if (wish.sweep) sweepStyles(planner)
    return `Draw up ${counted(made, 'style')}`
  },
  sentence: ({ tolerance }) =>
    tolerance === 0
      ? 'Draw up the named styles that the document lacks, from how its text looks.'
      : `Draw up the named styles that the document lacks, voices within ${plainNumber(tolerance)} pt as one.`,
})
