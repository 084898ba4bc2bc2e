import type { Composition } from '../typeset/compose'

/** On which pages stretches of paragraphs are, by the lines on them; none without a composition. */
export function pagesOf(
  composition: Composition | null,
): (part: string, node: number, start: number, end: number) => number[] {
  const placed = new Map<string, { page: number; start: number; end: number }[]>()
  // Text of speaker notes counts to the page that they belong to.
  for (const page of composition ? [...composition.pages, ...composition.notes] : []) {
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines') continue
      const { paragraph, lines } = fragment.layout
      const key = `${paragraph.part}#${paragraph.node}`
      const list = placed.get(key) ?? []
      placed.set(key, list)
      list.push({
        page: page.index,
        start: fragment.from === 0 ? 0 : lines[fragment.from]!.start,
        end: fragment.to >= lines.length ? Infinity : lines[fragment.to - 1]!.end,
      })
    }
  }
  return (part, node, start, end) => {
    const list = placed.get(`${part}#${node}`)
    if (!list) return []
    if (list.every(each => each.page === list[0]!.page)) return [list[0]!.page]
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
