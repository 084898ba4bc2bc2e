import { takeCensus } from '../../census/census'
import type { Library } from '../../font/library'
import { plainNumber } from '../../style/describe'
import { familyName } from '../../style/families'
import type { Reading } from '../../style/reading'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { carryOut } from './carry-out'
import { carryOutHolders } from './carry-out-holders'
import { lookWords, saidWords } from './look-words'
import type { DrawnStyle } from './model'
import type { HolderFamily } from './gather-holders'
import type { Named } from './names'
import { proposeStyles, type Dropped, type Proposal, type ProposalOptions } from './propose'
import { proposeHolders, withText, type HolderProposal } from './propose-holders'
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

/** Lists what is proposed for frames and cells, one row for each style. */
function tellHolders(planner: Planner, { styles, taken }: HolderProposal): void {
  const row = (
    { family, voice, holders }: Pick<HolderProposal['taken'][number], 'family' | 'voice' | 'holders'>,
    title: string,
    before: string,
  ) =>
    planner.row({
      key: keyOf(voice, family),
      stage: 'style',
      optional: true,
      title,
      count: withText(holders).length,
      characters: holders.reduce((sum, each) => sum + each.characters, 0),
      before,
      after: `${familyName(family)} ${title}`,
      places: holders
        .flatMap(each => each.members)
        .slice(0, 500)
        .map(({ paragraph: { part, node } }) => ({ part, node })),
    })
  for (const style of styles) row(style, style.displayName, lookWords(style))
  for (const each of taken)
    row(each, planner.titleOf(planner.scope, each.family, each.name), 'set by hand to look like it')
}

/** Keeps in the rules what text of the made styles is for. */
function keepRoles(
  planner: Planner,
  styles: readonly (DrawnStyle & Named & { readonly family: 'paragraph' | HolderFamily; readonly purpose: Purpose })[],
  wish: DrawUpWish,
  dropped: Dropped,
): void {
  const keyOfName = (family: string, displayName: string) => JSON.stringify([family, displayName])
  const named = new Map(planner.made.map(each => [keyOfName(each.family, each.displayName), each.name]))
  const added = styles.flatMap(style => {
    const { family } = style
    const choice = wish.choices.find(each => each.family === family && each.voice === style.voice)
    const role = choice?.role === undefined ? roleOf(style.purpose) : choice.role
    const name = named.get(keyOfName(family, style.displayName))
    return role && name !== undefined && !dropped(style.voice, family) ? [{ style: { family, name }, role }] : []
  })
  if (added.length === 0) return
  const rules = planner.currentRules
  planner.rules = { ...rules, styles: [...rules.styles, ...added] }
}

const cannotBeSaid = 'what they stand on cannot be said by a style'

/** From so little settled text on a document is drawn up before its styles are asked for anything. */
const settledEnough = 0.9

/** Whether a document's styles say too little of how its text looks to be worked with. */
export const needsDrawingUp = (reading: Reading, library: Library): boolean =>
  takeCensus(reading, library, null).census.settled < settledEnough

/** Makes the styles that a document lacks, and tells how many; 0 where it lacks none. */
export function drawUp(planner: Planner, wish: DrawUpWish): number {
  const dropped: Dropped = (voice, family) => planner.leaves(keyOf(voice, family))
  const options = { tolerance: wish.tolerance, choices: wish.choices, dropped }
  return planner.document.kind === 'text' ? drawUpText(planner, wish, options) : drawUpHolders(planner, wish, options)
}

function drawUpText(planner: Planner, wish: DrawUpWish, options: ProposalOptions): number {
  const { dropped } = options
  const proposal = proposeStyles(planner.reading, options)
  for (const { name } of proposal.taken) planner.style('paragraph', name)
  tell(planner, proposal)
  if (proposal.left > 0) planner.note('paragraphs', cannotBeSaid, proposal.left)
  carryOut(planner, proposal, wish, dropped)
  const paragraphs = proposal.paragraphs.map(style => ({ ...style, family: 'paragraph' as const }))
  keepRoles(planner, paragraphs, wish, dropped)
  const words = proposal.words.filter(each => !dropped(each.voice, 'text'))
  return paragraphs.filter(each => !dropped(each.voice, 'paragraph')).length + words.length
}

function drawUpHolders(planner: Planner, wish: DrawUpWish, options: ProposalOptions): number {
  const { dropped } = options
  const proposal = proposeHolders(planner.reading, options)
  for (const { family, name } of proposal.taken) planner.style(family, name)
  tellHolders(planner, proposal)
  if (proposal.left > 0) planner.note('frames and cells', cannotBeSaid, proposal.left)
  carryOutHolders(planner, proposal, dropped)
  keepRoles(planner, proposal.styles, wish, dropped)
  return proposal.styles.filter(each => !dropped(each.voice, each.family)).length
}

/** Why there is nothing to draw up. */
function nothingWords({ document, left }: Planner): string {
  if (left.some(each => each.reason === cannotBeSaid))
    return 'What text that is set by hand stands on cannot be taken back by a style: nothing can be drawn up.'
  return document.kind === 'text'
    ? 'Every text of this document looks as its named styles say: there is nothing to draw up.'
    : 'Text in loose frames and in tables looks as its styles say: there is nothing to draw up.'
}

export const drawUpKind = oneByOne<DrawUpWish>({
  type: 'draw-up',
  schema: drawUpSchema,
  most: 1,
  act(planner, wish) {
    const own = planner.rows.length
    const made = drawUp(planner, wish)
    if (planner.rows.length === own && !wish.sweep)
      throw new NothingToPlan(`${nothingWords(planner)} Nothing was changed.`)
    if (wish.sweep) sweepStyles(planner)
    return `Draw up ${counted(made, 'style')}`
  },
  sentence: ({ tolerance }) =>
    tolerance === 0
      ? 'Draw up the named styles that the document lacks, from how its text looks.'
      : `Draw up the named styles that the document lacks, voices within ${plainNumber(tolerance)} pt as one.`,
})
