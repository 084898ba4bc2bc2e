import { paragraphExtents } from '../../typeset/compose'
import type { Composition } from '../../typeset/compose'
import { planChange } from '../plan-change'
import type { DocumentSession } from '../../session'
import { setTypeKind } from './kind'
import type { SetTypeWish } from './wish'

/** What a document would come to in a face. */
export interface FaceTried {
  readonly family: string
  readonly pages: number
  readonly lines: number
  /** Lines that run out of their frames. */
  readonly overset: number
  /** Letters and spaces in a full line of the text that it would set; null where no paragraph has one. */
  readonly lettersInLine: number | null
}

/** Letters and spaces in a full line, at the median over the lines of paragraphs set in a family, their last lines left out. */
export function lettersInFullLines(composition: Composition, family: string): number | null {
  const counts: number[] = []
  for (const { layout } of paragraphExtents(composition).values()) {
    const { set, lines } = layout
    if (lines.length < 2 || layout.text === '' || set.lookAt(0).face.family !== family) continue
    for (const line of lines.slice(0, -1)) counts.push(line.contentEnd - line.start)
  }
  counts.sort((a, b) => a - b)
  return counts[counts.length >> 1] ?? null
}

/**
 * Sets a face as a wish asks, and tells what the document comes to; nothing is kept.
 * @throws PlanError where it cannot be set on that
 */
export function tryFace(session: DocumentSession, wish: SetTypeWish): FaceTried {
  const { plan, after } = planChange([setTypeKind], session, { wishes: [wish], leftOut: [] })
  const { composition } = after
  return {
    family: wish.to.family,
    pages: plan.effects!.pagesAfter,
    lines: plan.effects!.linesAfter,
    overset: plan.effects!.overset.reduce((sum, frame) => sum + frame.lines, 0),
    lettersInLine: lettersInFullLines(composition, wish.to.family),
  }
}
