import { paragraphExtents, type Composition } from '../../typeset/compose'
import type { DocumentSession } from '../../session'
import type { RepairOption, RepairTarget } from './target'
import type { Repair, RepairWish } from './wish'

function linesOf(composition: Composition, target: RepairTarget): number {
  if (target.of === 'frame')
    return composition.overset.find(frame => frame.part === target.part && frame.node === target.node)?.lines ?? 0
  return paragraphExtents(composition).get(target.node)?.lines ?? 0
}

/** Amounts of a way to mend, the gentlest first. */
function amounts(kind: Repair['kind'], limits: RepairTarget['limits']): number[] {
  const to = limits[kind]
  const share = (part: number) =>
    Math.round((kind === 'tracking' || kind === 'height' ? to * part : 100 + (to - 100) * part) * 10) / 10
  return [0.25, 0.5, 0.75, 1].map(share)
}

/**
 * Looks for the gentlest repair of each kind that makes a paragraph take its old number of lines, or a frame hold its
 * text; where none within the limits does, the furthest is told with what it comes to. `tryRepair` gives the document
 * after the plan with one more repair.
 */
export function findRepairs(
  before: DocumentSession,
  after: DocumentSession,
  target: RepairTarget,
  tryRepair: (wish: RepairWish) => DocumentSession,
): RepairOption[] {
  const wanted = target.of === 'frame' ? 0 : linesOf(before.composition, target)
  const now = linesOf(after.composition, target)
  const kinds: readonly Repair['kind'][] =
    target.of === 'frame' ? ['tracking', 'size', 'leading', 'height'] : ['tracking', 'size']
  return kinds.flatMap((kind): RepairOption[] => {
    let last: RepairOption | null = null
    for (const amount of amounts(kind, target.limits)) {
      const repair: Repair = { kind, part: target.part, node: target.node, amount }
      const { composition } = tryRepair({ type: 'repair', repair })
      const lines = linesOf(composition, target)
      last = { repair, linesBefore: now, lines, mends: lines <= wanted, pages: composition.pages.length }
      if (last.mends) break
    }
    return last && last.lines < now ? [last] : []
  })
}
