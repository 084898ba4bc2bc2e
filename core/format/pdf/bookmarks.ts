import { PDFHexString, PDFName, type PDFDocument, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import type { Composition } from '../../typeset/compose'

interface OutlineNode {
  readonly title: string
  readonly page: PDFPage
  readonly top: number
  readonly children: OutlineNode[]
}

/**
 * Headings, or the titles of drawn pages, as bookmarks, each at its place (ISO 32000-2, 12.3.3).
 * @param around how much wider than the trimmed page a sheet is on every side, in points
 */
export function writeBookmarks(
  pdf: PDFDocument,
  composition: Composition,
  pages: readonly PDFPage[],
  around: number,
): void {
  const roots: OutlineNode[] = []
  const path: { level: number; node: OutlineNode }[] = []
  composition.pages.forEach((page, index) => {
    // Drawn pages are the chapters themselves.
    if (page.name !== '')
      roots.push({ title: page.name, page: pages[index]!, top: around + page.geometry.height, children: [] })
    for (const fragment of page.fragments) {
      if (fragment.kind !== 'lines' || fragment.from > 0 || fragment.layout.role !== 'body') continue
      const level = fragment.layout.paragraph.heading
      const text = fragment.layout.text.replace(/[\s\uFFFC]+/g, ' ').trim()
      if (level === null || text === '') continue
      const label = fragment.layout.label?.text
      const node: OutlineNode = {
        title: label ? `${label} ${text}` : text,
        page: pages[index]!,
        top: around + page.geometry.height - fragment.y,
        children: [],
      }
      while (path.length > 0 && path[path.length - 1]!.level >= level) path.pop()
      ;(path[path.length - 1]?.node.children ?? roots).push(node)
      path.push({ level, node })
    }
  })
  if (roots.length === 0) return
  const { context } = pdf
  const write = (nodes: readonly OutlineNode[], parent: PDFRef): { first: PDFRef; last: PDFRef; count: number } => {
    const references = nodes.map(() => context.nextRef())
    let count = nodes.length
    nodes.forEach((node, index) => {
      const below = node.children.length > 0 ? write(node.children, references[index]!) : null
      if (below) count += below.count
      context.assign(
        references[index]!,
        context.obj({
          Title: PDFHexString.fromText(node.title),
          Parent: parent,
          Dest: [node.page.ref, 'XYZ', null, Math.round(node.top), null],
          ...(index > 0 ? { Prev: references[index - 1]! } : {}),
          ...(index + 1 < nodes.length ? { Next: references[index + 1]! } : {}),
          ...(below ? { First: below.first, Last: below.last, Count: -below.count } : {}),
        }),
      )
    })
    return { first: references[0]!, last: references[references.length - 1]!, count }
  }
  const root = context.nextRef()
  const { first, last } = write(roots, root)
  context.assign(root, context.obj({ Type: 'Outlines', First: first, Last: last, Count: roots.length }))
  pdf.catalog.set(PDFName.of('Outlines'), root)
  pdf.catalog.set(PDFName.of('PageMode'), PDFName.of('UseOutlines'))
}
