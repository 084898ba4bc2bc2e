import { longestChain } from './flow'
import type { Item, Position } from './flow-items'
import type { OpenPage } from './open-page'

/**
 * What is the same as before: the pages up to the one where something may differ, and the items from `tail` on (by
 * the new count; `shift` more than before). A heading looks ahead to what it keeps with: so far back nothing is sure.
 */
export function keptPages(
  items: readonly Item[],
  old: readonly Item[],
  pages: readonly OpenPage[],
): { kept: number; shift: number; tail: number } {
  const same = (a: Item, b: Item) =>
    a === b ||
    (a.kind === b.kind &&
      a.kind !== 'section' &&
      b.kind !== 'section' &&
      a.block === b.block &&
      (a.kind !== 'paragraph' || (b.kind === 'paragraph' && a.citation === b.citation)))
  let first = 0
  while (first < items.length && first < old.length && same(items[first]!, old[first]!)) first++
  let tail = items.length
  const shift = items.length - old.length
  while (tail > first && tail - shift > first && same(items[tail - 1]!, old[tail - 1 - shift]!)) tail--
  const sure = Math.max(first - longestChain, 0)
  let kept = 0
  pages.forEach((page, index) => {
    const { position } = page.start
    // A blank page stands before the one that it was made for.
    if (
      index > 0 &&
      position.index <= sure &&
      position.rest === null &&
      position.inner === null &&
      (position.line === 0 || position.index < sure) &&
      page.geometry.usage !== 'blank'
    )
      kept = index
  })
  return { kept, shift, tail }
}

/** Whether a page begins where one of before began, by `shift` items more, and is laid out and numbered like it. */
export function beginsLike(
  old: OpenPage,
  page: Pick<OpenPage, 'geometry' | 'number'>,
  at: Position,
  shift: number,
): boolean {
  const { position } = old.start
  return (
    at.rest === null &&
    at.inner === null &&
    position.index === at.index - shift &&
    position.line === at.line &&
    position.rest === null &&
    position.inner === null &&
    old.number === page.number &&
    old.geometry.master === page.geometry.master &&
    old.geometry.usage === page.geometry.usage
  )
}
