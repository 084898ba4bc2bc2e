import { DOMParser, type Element as XmlElement, type Node as XmlNode } from '@xmldom/xmldom'
import type { Page } from '@playwright/test'
import type { DocumentSession } from '../../core/session'
import { paragraphText } from '../../core/style/runs'
import { paragraphsIn } from '../../core/format/structure/anchors'
import { readStructure } from '../../core/format/structure/read'
import { told } from './tagged-pdf'

/* A second reading of what is written for browsers and for readers of books. */

const isBlock = /^(p|h[1-6])$/
const classes = (element: XmlElement) => (element.getAttribute('class') ?? '').split(' ')

/** The text of every paragraph of a page, in whatever order it has them: calls of notes and numbers of headings left out. */
export function paragraphsOfXhtml(xhtml: string): string[] {
  const document = new DOMParser({ onError: () => {} }).parseFromString(xhtml, 'text/xml')
  const found: string[] = []
  const textIn = (node: XmlNode): string => {
    let text = ''
    for (let at = node.firstChild; at; at = at.nextSibling) {
      if (at.nodeType === 3) text += at.nodeValue ?? ''
      else if (
        at.nodeType === 1 &&
        !classes(at as XmlElement).some(name => name === 'call' || name === 'label' || name === 'missing')
      )
        text += textIn(at)
    }
    return text
  }
  const visit = (node: XmlNode): void => {
    for (let at = node.firstChild; at; at = at.nextSibling) {
      if (at.nodeType !== 1) continue
      const element = at as XmlElement
      if (isBlock.test(element.tagName)) {
        const text = told(textIn(element))
        if (text !== '') found.push(text)
      } else visit(element)
    }
  }
  visit(document)
  return found
}

/** A paragraph whose text stands nowhere else, and what it effectively looks like, in the terms of a browser. */
export interface ExpectedLook {
  readonly text: string
  readonly family: string
  /** Pixels: four for three points. */
  readonly size: number
  readonly weight: string
  readonly posture: string
  readonly align: string
  readonly color: string
}

/** Some paragraphs of a document, spread over it. */
export function expectedLooks(session: DocumentSession, count: number): ExpectedLook[] {
  const { reading } = session
  const all = [...paragraphsIn(readStructure(reading))]
    .filter(({ paragraph }) => paragraph.inlines.every(inline => inline.kind === 'text'))
    .map(({ paragraph, role }) => ({ paragraph, role, text: paragraphText(paragraph).trim() }))
    .filter(({ text }) => text.length > 12)
  const single = all.filter(({ text }) => all.filter(each => each.text === text).length === 1)
  const step = Math.max(single.length / count, 1)
  return Array.from({ length: Math.min(count, single.length) }, (_, at) => single[Math.floor(at * step)]!).map(
    ({ paragraph, role, text }) => {
      const { properties, text: style } = reading.cascade.paragraph(paragraph, role)
      const { slots, shared } = style.effective
      const color = shared['style:use-window-font-color'] === 'true' ? '' : shared['fo:color']
      const [red, green, blue] = [1, 3, 5].map(from => Number.parseInt((color || '#000000').slice(from, from + 2), 16))
      return {
        text,
        family: slots.western.font.family,
        size: (slots.western.size * 4) / 3,
        weight: String(slots.western.weight),
        posture: slots.western.posture,
        align: properties['fo:text-align'] ?? 'start',
        color: `rgb(${red}, ${green}, ${blue})`,
      }
    },
  )
}

/** What a browser computes for those paragraphs; null for one that it does not have. */
export async function computedLooks(page: Page, texts: readonly string[]): Promise<(ExpectedLook | null)[]> {
  return page.evaluate(wanted => {
    const blocks = [...document.querySelectorAll('p, h1, h2, h3, h4, h5, h6')].map(element => {
      const copy = element.cloneNode(true) as Element
      for (const label of copy.querySelectorAll('.label, .call')) label.remove()
      return { element, text: (copy.textContent ?? '').trim() }
    })
    return wanted.map(text => {
      const element = blocks.find(each => each.text === text)?.element
      if (!element) return null
      const said = getComputedStyle(element)
      return {
        text,
        family: said.fontFamily.split(',')[0]!.replace(/"/g, ''),
        size: Number.parseFloat(said.fontSize),
        weight: said.fontWeight,
        posture: said.fontStyle,
        align: said.textAlign,
        color: said.color,
      }
    })
  }, texts as string[])
}

/** How many lines all paragraphs of a page take together. */
export async function linesOnPage(page: Page): Promise<number> {
  return page.evaluate(async () => {
    await document.fonts.ready
    let lines = 0
    for (const element of document.querySelectorAll('p, h1, h2, h3, h4, h5, h6')) {
      const range = document.createRange()
      range.selectNodeContents(element)
      const feet: number[] = []
      for (const rect of range.getClientRects())
        if (rect.width > 0 && !feet.some(foot => Math.abs(foot - rect.bottom) < rect.height / 2)) feet.push(rect.bottom)
      lines += feet.length
    }
    return lines
  })
}
