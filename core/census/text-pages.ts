import type { Composition } from '../typeset/compose'

/** A stretch of a paragraph on a page. */
interface Placed {
  readonly page: number
  readonly start: number
  readonly end: number
}

/** On which pages stretches of paragraphs are, by the lines on them; none without a composition. */
export function pagesOf(
  composition: Composition | null,
): (part: string, node: number, start: number, end: number) => number[] {
  // By part and node rather than by a key of both: a long document has a hundred thousand of them.
  const parts = new Map<string, Map<number, Placed[]>>()
  // Text of speaker notes counts to the page that they belong to.
  for (const page of composition ? [...composition.pages, ...composition.notes] : []) {
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines') continue
      const { paragraph, lines } = fragment.layout
      let nodes = parts.get(paragraph.part)
      if (!nodes) parts.set(paragraph.part, (nodes = new Map()))
      const placed = {
        page: page.index,
        start: fragment.from === 0 ? 0 : lines[fragment.from]!.start,
        end: fragment.to >= lines.length ? Infinity : lines[fragment.to - 1]!.end,
      }
      const list = nodes.get(paragraph.node)
      if (list) list.push(placed)
      else nodes.set(paragraph.node, [placed])
    }
  }
  return (part, node, start, end) => {
    const list = parts.get(part)?.get(node)
    if (!list) return []
    if (list.length === 1 || list.every(each => each.page === list[0]!.page)) return [list[0]!.page]
    return [...new Set(list.filter(each => each.start < end && each.end > start).map(each => each.page))]
  }
}

/** On which pages an object is drawn, by the folder of its parts. */
export function objectPages(composition: Composition | null): (prefix: string) => number[] {
  const pages = new Map<string, Set<number>>()
  for (const page of composition ? [...composition.pages, ...composition.notes] : []) {
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'frame' || fragment.object === '') continue
      const prefix = `${fragment.object.replace(/^\.\//, '')}/`
      pages.set(prefix, (pages.get(prefix) ?? new Set()).add(page.index))
    }
  }
  return prefix => [...(pages.get(prefix) ?? [])]
}
