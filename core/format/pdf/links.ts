import { PDFHexString, PDFName, PDFString, type PDFContext, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'
import type { Paragraph } from '../../document/story-model'
import type { Page } from '../../typeset/page'
import type { Anchors } from '../structure/anchors'
import type { Tagging } from './tags'

/** Only these lead out of a document: what a reader opens must be something to read. */
const outward = /^(https?|mailto|ftp):/i

/**
 * Links as annotations on their words (ISO 32000-2, 12.5.6.5), each known to the structure: those that lead to the web, by
 * mail, or to a place of the document. Links to files beside the document are left.
 * @param around how much wider than the trimmed page a sheet is on every side, in points
 * @returns the annotations; none for a place that is left
 */
export function writeLinks(
  context: PDFContext,
  tagging: Tagging,
  sheets: readonly PDFPage[],
  pages: readonly Page[],
  anchors: Anchors,
  around: number,
): (PDFRef | null)[] {
  const places = new PlacesOnPages(pages)
  let key = sheets.length
  return tagging.links.map(({ href, page, box, text }) => {
    const target = anchors.find(href)
    const place = target && places.of(target)
    if (!place && !outward.test(href)) return null
    const annotation = context.register(
      context.obj({
        Type: 'Annot',
        Subtype: 'Link',
        Rect: box.map(value => Math.round(value * 100) / 100),
        Border: [0, 0, 0],
        F: 4,
        Contents: PDFHexString.fromText(text.trim() || href),
        StructParent: key++,
        ...(place
          ? { Dest: [sheets[place.page]!.ref, 'XYZ', null, Math.round(place.fromFoot + around), null] }
          : { A: { S: 'URI', URI: PDFString.of(encodeURI(decodeSafely(href))) } }),
      }),
    )
    page.node.addAnnot(annotation)
    // Keys go from link to link in the order of the structure (ISO 14289-1, 7.18.3).
    page.node.set(PDFName.of('Tabs'), PDFName.of('S'))
    return annotation
  })
}

/** A reference that is written as bytes of ASCII, whatever it was written in. */
function decodeSafely(href: string): string {
  try {
    return decodeURI(href)
  } catch {
    return href
  }
}

/** On which page, and how far up, a paragraph begins. */
class PlacesOnPages {
  private known: Map<string, { readonly page: number; readonly fromFoot: number }> | null = null

  constructor(private readonly pages: readonly Page[]) {}

  of({ part, node }: Paragraph): { readonly page: number; readonly fromFoot: number } | null {
    if (!this.known) {
      this.known = new Map()
      for (const [page, { fragments, geometry }] of this.pages.entries())
        for (const fragment of fragments) {
          if (fragment.kind !== 'lines' || fragment.from > 0) continue
          const { paragraph } = fragment.layout
          const key = `${paragraph.part}#${paragraph.node}`
          const y = fragment.matrix ? fragment.matrix[3] * fragment.y + fragment.matrix[5] : fragment.y
          if (!this.known.has(key)) this.known.set(key, { page, fromFoot: geometry.height - y })
        }
    }
    return this.known.get(`${part}#${node}`) ?? null
  }
}
