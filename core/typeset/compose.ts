import type { OdfDocument } from '../document/open'
import { paragraphsOf, readStories, type Paragraph, type Story } from '../document/stories'
import { Cascade } from '../style/cascade'
import { BoxComposer } from './boxes'
import type { Fragment, OversetFrame } from './fragments'
import { readGeometries } from './geometry'
import type { Typesetter } from './look'
import { Numbering } from './numbering'
import { PageFlow, type Page } from './pages'
import type { ParagraphLayout, Workshop } from './paragraph'

/** A text document, read: its stories and the cascade that styles them. */
export interface Reading {
  readonly document: OdfDocument
  readonly cascade: Cascade
  readonly stories: readonly Story[]
}

/** A document set in pages. */
export interface Composition {
  readonly reading: Reading
  readonly pages: readonly Page[]
  /** What the document uses and the pages do not show as asked, with how often: it goes with every figure about pages. */
  readonly unlaid: readonly { readonly feature: string, readonly count: number }[]
  readonly overset: readonly (OversetFrame & { readonly page: number })[]
}

/** Reads the stories of the document itself (objects not included). */
export function readDocument(document: OdfDocument): Reading {
  const sub = document.subdocuments[0]!
  const stories: Story[] = []
  for (const path of [sub.content, sub.styles]) if (path) stories.push(...readStories(document.parts.get(path)!))
  return { document, cascade: new Cascade(document, sub), stories }
}

/** Sets a text document in pages. */
export function compose(reading: Reading, typesetter: Typesetter): Composition {
  const { document, cascade, stories } = reading
  const counts = new Map<string, number>()
  const numbering = new Numbering()
  const workshop = (fields: Workshop['fields']): Workshop => ({
    cascade, typesetter, numbering, fields, spacingAdds: spacingAdds(document), unlaid: feature => { counts.set(feature, (counts.get(feature) ?? 0) + 1) },
  })
  const title = (href: string): string => {
    const prefix = `${href.replace(/^\.\//, '')}/`
    const kind = document.subdocuments.find(sub => sub.prefix === prefix)?.kind
    return kind === 'chart' ? 'Chart' : kind === 'formula' ? 'Formula' : 'Object'
  }
  const boxes = new BoxComposer(workshop(null), title)
  const body = stories.find(story => story.role === 'body')
  noteUnlaid(stories, workshop(null).unlaid)
  const flow = new PageFlow(boxes, readGeometries(document), stories.filter(story => story.master !== null), fields => new BoxComposer(workshop(fields), title))
  const pages = document.kind === 'text' ? flow.run(body?.blocks ?? []) : []
  const overset = pages.flatMap(page => page.fragments.flatMap(fragment => fragment.kind === 'overset' ? [{ ...fragment.frame, page: page.index }] : []))
  return { reading, pages, unlaid: [...counts].map(([feature, count]) => ({ feature, count })), overset }
}

function noteUnlaid(stories: readonly Story[], unlaid: (feature: string) => void): void {
  for (const story of stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      for (const inline of paragraph.inlines) if (inline.kind === 'note') unlaid(inline.endnote ? 'endnotes (counted, not set on pages)' : 'footnotes (counted, not set on pages)')
    }
  }
}

/** Whether spaces between paragraphs add up: a setting that files carry, since programs differ. */
function spacingAdds(document: OdfDocument): boolean {
  const path = document.subdocuments[0]!.settings
  const part = path ? document.parts.get(path) : undefined
  if (!part) return false
  for (const element of part.descendants()) if (element.attributes['config:name'] === 'AddParaTableSpacing') return part.textOf(element.id).trim() === 'true'
  return false
}

/** Calls back for every stretch of lines on the pages, those in tables and frames included. */
export function eachLines(page: Page, visit: (fragment: Extract<Fragment, { kind: 'lines' }>) => void): void {
  for (const fragment of page.fragments) if (fragment.kind === 'lines') visit(fragment)
}

/** Number of lines per paragraph and the pages it is on. */
export function paragraphExtents(composition: Composition): Map<string, { readonly paragraph: Paragraph, lines: number, pages: number[], layout: ParagraphLayout }> {
  const extents = new Map<string, { paragraph: Paragraph, lines: number, pages: number[], layout: ParagraphLayout }>()
  for (const page of composition.pages) {
    eachLines(page, ({ layout, from, to }) => {
      if (layout.role !== 'body') return
      const key = `${layout.paragraph.part}#${layout.paragraph.node}`
      const known = extents.get(key)
      if (known) { known.lines += to - from; if (known.pages.at(-1) !== page.index) known.pages.push(page.index) }
      else extents.set(key, { paragraph: layout.paragraph, lines: to - from, pages: [page.index], layout })
    })
  }
  return extents
}
