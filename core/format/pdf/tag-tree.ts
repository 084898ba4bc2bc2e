import { PDFHexString, PDFString, type PDFContext, type PDFPage, type PDFRef } from '@cantoo/pdf-lib'

/** What stands on a page under one number (ISO 32000-2, 14.7.5.2). */
interface MarkedContent {
  readonly page: PDFPage
  readonly number: number
}

/** A structure element as it grows (ISO 32000-2, 14.7.2). */
export class TagElement {
  readonly children: { readonly at: number; readonly of: TagElement | MarkedContent | { readonly link: PDFRef } }[] = []
  /** Offsets in its text where figures or notes stand: a stretch of content ends there. */
  readonly stops: number[] = []
  language = ''
  alternative: string | null = null
  title = ''
  attributes: Record<string, unknown> | null = null
  identifier = ''
  reference: PDFRef | null = null
  /** Of a figure: the box around it, on the page where it was first drawn. */
  bounds: { readonly page: PDFPage; left: number; bottom: number; right: number; top: number } | null = null

  constructor(
    readonly type: string,
    readonly parent: TagElement | null,
    /** Its place among what its parent holds: an offset in the text of a paragraph. */
    at = 0,
  ) {
    parent?.children.push({ at, of: this })
  }

  /** Whether anything was drawn of it. */
  get hasContent(): boolean {
    return this.children.some(({ of }) => !(of instanceof TagElement) || of.hasContent)
  }
}

/** A table keeps its rows and cells, empty ones too: without them columns would shift. */
const kept: ReadonlySet<string> = new Set(['THead', 'TBody', 'TR', 'TH', 'TD'])

/** Writes elements as objects. */
export class StructureWriter {
  private readonly named: { readonly identifier: string; readonly reference: PDFRef }[] = []

  constructor(private readonly context: PDFContext) {}

  element(element: TagElement, parent: PDFRef): PDFRef {
    const { context } = this
    const reference = (element.reference ??= context.nextRef())
    const kids = element.children
      .filter(({ of }) => !(of instanceof TagElement) || of.hasContent || kept.has(of.type))
      .map((child, index) => ({ ...child, index }))
      .sort((a, b) => a.at - b.at || a.index - b.index)
    const first = kids.find(({ of }) => 'page' in of)?.of as MarkedContent | undefined
    const content = kids.map(({ of }) => {
      if (of instanceof TagElement) return this.element(of, reference)
      if ('link' in of) return context.obj({ Type: 'OBJR', Obj: of.link })
      return of.page === first!.page
        ? context.obj(of.number)
        : context.obj({ Type: 'MCR', Pg: of.page.ref, MCID: of.number })
    })
    const { bounds } = element
    const attributes =
      bounds && bounds.left < bounds.right && bounds.page === first?.page
        ? {
            O: 'Layout',
            Placement: 'Block',
            BBox: [bounds.left, bounds.bottom, bounds.right, bounds.top].map(value => Math.round(value * 100) / 100),
          }
        : element.attributes && Object.keys(element.attributes).length > 1
          ? element.attributes
          : null
    if (element.identifier) this.named.push({ identifier: element.identifier, reference })
    context.assign(
      reference,
      context.obj({
        Type: 'StructElem',
        S: element.type,
        P: parent,
        ...(first ? { Pg: first.page.ref } : {}),
        ...(element.language ? { Lang: PDFString.of(element.language) } : {}),
        ...(element.alternative !== null ? { Alt: PDFHexString.fromText(element.alternative) } : {}),
        ...(element.title ? { T: PDFHexString.fromText(element.title) } : {}),
        ...(element.identifier ? { ID: PDFHexString.fromText(element.identifier) } : {}),
        ...(attributes ? { A: context.obj(attributes as never) } : {}),
        ...(content.length > 0 ? { K: content.length === 1 ? content[0]! : content } : {}),
      }),
    )
    return reference
  }

  /** @param parents the parent tree's keys and values, one after the other (ISO 32000-2, 14.7.5.4) */
  finish(tree: PDFRef, root: PDFRef | null, parents: (number | PDFRef)[]): void {
    const { context } = this
    const names = this.named
      .sort((a, b) => (a.identifier < b.identifier ? -1 : 1))
      .flatMap(({ identifier, reference }) => [PDFHexString.fromText(identifier), reference])
    context.assign(
      tree,
      context.obj({
        Type: 'StructTreeRoot',
        ...(root ? { K: root } : {}),
        ParentTree: context.register(context.obj({ Nums: parents })),
        ParentTreeNextKey: parents.length / 2,
        ...(names.length > 0 ? { IDTree: context.register(context.obj({ Names: names })) } : {}),
      }),
    )
  }
}
