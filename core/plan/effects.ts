import type { Composition } from '../typeset/compose'
import { paragraphExtents } from '../typeset/compose'
import type { OversetFrame } from '../typeset/fragments'

/** What happens to a paragraph. Pages count from 0, as they were before. */
export interface ParagraphEffect { readonly part: string, readonly node: number, readonly page: number, readonly pageAfter: number, readonly linesBefore: number, readonly linesAfter: number, readonly opening: string }

/** What a change does to the pages, by the engine's own composition before and after. */
export interface Effects {
  readonly pagesBefore: number
  readonly pagesAfter: number
  readonly linesBefore: number
  readonly linesAfter: number
  /** Paragraphs that gain or lose lines; at most 500, those that change most first. */
  readonly paragraphs: readonly ParagraphEffect[]
  readonly paragraphsChanged: number
  /** Frames that run over afterwards, with how many lines did before. */
  readonly overset: readonly (OversetFrame & { readonly page: number, readonly linesBefore: number })[]
  /** Pages on which anything is set differently: indexes before the change. */
  readonly pages: readonly { readonly page: number, readonly paragraphs: number, readonly lines: number }[]
  /** What the composition does not lay out yet: the figures above leave it aside. */
  readonly unlaid: Composition['unlaid']
}

/** Compares two compositions of one document. */
export function compareCompositions(before: Composition, after: Composition): Effects {
  const was = paragraphExtents(before)
  const is = paragraphExtents(after)
  const paragraphs: ParagraphEffect[] = []
  const pages = new Map<number, { paragraphs: number, lines: number }>()
  let linesBefore = 0
  let linesAfter = 0
  for (const [key, one] of was) {
    linesBefore += one.lines
    const other = is.get(key)
    if (!other || other.lines === one.lines) continue
    const page = one.pages[0]!
    paragraphs.push({ part: one.paragraph.part, node: one.paragraph.node, page, pageAfter: other.pages[0]!, linesBefore: one.lines, linesAfter: other.lines, opening: one.layout.text.slice(0, 60) })
    const sum = pages.get(page) ?? { paragraphs: 0, lines: 0 }
    pages.set(page, { paragraphs: sum.paragraphs + 1, lines: sum.lines + other.lines - one.lines })
  }
  for (const one of is.values()) linesAfter += one.lines
  paragraphs.sort((a, b) => Math.abs(b.linesAfter - b.linesBefore) - Math.abs(a.linesAfter - a.linesBefore) || a.page - b.page)
  return {
    pagesBefore: before.pages.length, pagesAfter: after.pages.length, linesBefore, linesAfter, paragraphs: paragraphs.slice(0, 500), paragraphsChanged: paragraphs.length,
    overset: after.overset.map(frame => ({ ...frame, linesBefore: before.overset.find(other => other.part === frame.part && other.node === frame.node)?.lines ?? 0 })),
    pages: [...pages].map(([page, sum]) => ({ page, ...sum })).sort((a, b) => a.page - b.page), unlaid: after.unlaid,
  }
}
