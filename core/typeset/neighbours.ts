import type { Edges } from './geometry'
import type { ParagraphLook } from './paragraph-look'
import type { ParagraphLayout } from './paragraph-model'

/*
 * Paragraphs that stand one below the other: whether their borders are one, and what space lies between them.
 */

/** Files of before the standard had contextual spacing carry it in a namespace of their own. */
const olderName = '{urn:org:documentfoundation:names:experimental:office:xmlns:loext:1.0}contextual-spacing'

const sameEdges = (one: Edges, other: Edges): boolean =>
  one.top === other.top && one.right === other.right && one.bottom === other.bottom && one.left === other.left

/** A paragraph has something around it that a neighbour's could be joined with. */
export const isFramed = ({ border, background }: ParagraphLook): boolean =>
  background !== '' || border.top + border.right + border.bottom + border.left > 0

/**
 * Whether two neighbours stand in one border: both have the same borders, paddings, shadow and indents, and neither says
 * otherwise (style:join-border, OpenDocument 1.4 part 3, 20.316).
 */
export function joined(above: ParagraphLook, below: ParagraphLook): boolean {
  const asks = (look: ParagraphLook) => look.properties['style:join-border'] !== 'false'
  return (
    isFramed(above) &&
    isFramed(below) &&
    asks(above) &&
    asks(below) &&
    above.border.top + above.border.right + above.border.bottom + above.border.left > 0 &&
    sameEdges(above.border, below.border) &&
    above.borderColor === below.borderColor &&
    sameEdges(above.padding, below.padding) &&
    above.margin.left === below.margin.left &&
    above.margin.right === below.margin.right &&
    above.indent === below.indent &&
    above.properties['style:shadow'] === below.properties['style:shadow']
  )
}

/**
 * The space that a paragraph leaves below and one that follows asks above: neither counts for whoever says so where both
 * are of one style (style:contextual-spacing, OpenDocument 1.4 part 3, 20.269).
 */
export function between(
  above: ParagraphLayout | null,
  after: number,
  below: ParagraphLayout,
): { readonly after: number; readonly before: number } {
  const alike = above !== null && above.look.ownStyle !== '' && above.look.ownStyle === below.look.ownStyle
  const ignores = ({ look: { properties } }: ParagraphLayout) =>
    (properties['style:contextual-spacing'] ?? properties[olderName]) === 'true'
  return {
    after: alike && ignores(above) ? 0 : after,
    before: alike && ignores(below) ? 0 : below.spaceBefore,
  }
}
