import { applyEdit, type Edit } from '../../document/edits'
import { openParagraph } from '../../document/paragraph-spots'
import { assignStyle, isSpareParagraph, setOutlineLevel } from '../../document/paragraph-verbs'
import { EditRefusal, whyNotEdit } from '../../document/refusals'
import { oneByOne } from '../kind'
import type { NewRow, Planner } from '../planner'
import { counted, seenSpaces } from '../words'
import { mendWishSchema, type Mend, type MendWish } from './wish'

/** Words of a place with those around them. */
const around = 24

/** Whether the words of a place are still those that were found: nothing is written over others. */
const asFound = (planner: Planner, mend: Mend): boolean =>
  mend.kind !== 'words' ||
  openParagraph(planner.change.part(mend.part), mend.node).text.slice(mend.from, mend.to) === mend.before

/** Why a place cannot be put right; null where it can. */
function whyNot(planner: Planner, mend: Mend): string | null {
  const part = planner.document.parts.get(mend.part)
  if (!part?.find(mend.node)) return 'no longer in the document'
  const refused = whyNotEdit(planner.document, part, mend.node)
  if (refused !== null) return refused
  if (!asFound(planner, mend)) return 'its words have changed since'
  if (mend.kind === 'empty' && !isSpareParagraph(part, mend.node)) return 'it is no longer empty, or it is needed'
  return null
}

function rowFor(planner: Planner, mend: Mend): NewRow {
  const { kind, part, node } = mend
  const common = { stage: `mend ${kind}`, optional: true }
  if (kind === 'words') {
    const { text } = openParagraph(planner.change.part(part), node)
    const near = text.slice(Math.max(0, mend.from - around), mend.to + around)
    return {
      ...common,
      key: { what: 'mend', kind, part, node, from: mend.from },
      title: 'Words put right',
      characters: mend.to - mend.from,
      before: `“${seenSpaces(mend.before)}” in “${near}”`,
      after: mend.after === '' ? 'gone' : `“${seenSpaces(mend.after)}”`,
      places: [{ part, node, from: mend.from, to: mend.to }],
    }
  }
  return {
    ...common,
    key: { what: 'mend', kind, part, node },
    title: kind === 'empty' ? 'Empty paragraph' : 'Level of a heading',
    before:
      kind === 'empty' ? 'an empty paragraph' : `“${openParagraph(planner.change.part(part), node).text.slice(0, 60)}”`,
    after: kind === 'empty' ? 'gone' : mend.level === null ? 'no heading' : `heading of level ${mend.level}`,
    places: [{ part, node }],
  }
}

const editFor = (mend: Exclude<Mend, { kind: 'level' }>): Edit =>
  mend.kind === 'empty'
    ? { type: 'remove', part: mend.part, node: mend.node }
    : { type: 'text', part: mend.part, node: mend.node, from: mend.from, to: mend.to, text: mend.after }

function carryOut(planner: Planner, mend: Mend): void {
  if (mend.kind === 'level') {
    const draft = planner.change.on(mend.part)
    setOutlineLevel(draft, mend.node, mend.level)
    if (mend.style !== undefined) assignStyle(draft, mend.node, planner.style('paragraph', mend.style).name)
    return
  }
  const { operations } = applyEdit(planner.document, editFor(mend), planner.change.part(mend.part).nextId)
  for (const operation of operations) planner.change.do(operation)
}

/** Later places of a paragraph first, so that the others stay where they are; empty paragraphs at the very end. */
const order = (one: Mend, other: Mend): number =>
  Number(one.kind === 'empty') - Number(other.kind === 'empty') ||
  one.part.localeCompare(other.part) ||
  one.node - other.node ||
  fromOf(other) - fromOf(one)

const fromOf = (mend: Mend): number => (mend.kind === 'words' ? mend.from : 0)

/** Drops words that overlap with some before them in the same paragraph: they are found again when these are done. */
function apart(places: readonly Mend[]): { readonly kept: Mend[]; readonly dropped: number } {
  const ends = new Map<string, number>()
  const sorted = [...places].sort((a, b) => (a.kind === 'words' && b.kind === 'words' ? a.from - b.from : 0))
  const kept = sorted.filter(mend => {
    if (mend.kind !== 'words') return true
    const key = `${mend.part}#${mend.node}`
    if (mend.from < (ends.get(key) ?? 0)) return false
    ends.set(key, mend.to)
    return true
  })
  return { kept, dropped: places.length - kept.length }
}

/** Puts words, empty paragraphs and levels of headings right at the places that are named. */
export const mendKind = oneByOne<MendWish>({
  type: 'mend',
  schema: mendWishSchema,
  most: 5,
  act(planner, { places }) {
    const { kept, dropped } = apart(places)
    const able = kept.filter(mend => {
      const reason = whyNot(planner, mend)
      if (reason !== null) planner.note('a place that was to be put right', reason)
      return reason === null
    })
    const told = able.map(mend => ({ mend, row: rowFor(planner, mend) }))
    if (dropped > 0) planner.note('places that overlap', 'found again when these are done', dropped)
    const refused = new Set<Mend>()
    for (const { mend } of told.filter(({ row }) => !planner.leaves(row.key)).sort((a, b) => order(a.mend, b.mend)))
      try {
        if (!asFound(planner, mend)) throw new EditRefusal('its words have changed since')
        carryOut(planner, mend)
      } catch (error) {
        // Text that the document works out by itself, for one: the other places are put right all the same.
        if (!(error instanceof EditRefusal)) throw error
        planner.note('a place that was to be put right', error.message.replace(' Nothing was changed.', ''))
        refused.add(mend)
      }
    const included = told.filter(({ mend, row }) => !refused.has(mend) && planner.row(row))
    return `Put ${counted(included.length, 'place')} right`
  },
  sentence: ({ places }) => `Put ${counted(places.length, 'place')} right.`,
  whyNotMany: () => 'Places that are put right belong to one document. Plan them there. Nothing was changed.',
})
