import { spawnSync } from 'node:child_process'
import type { Element, Node } from '@xmldom/xmldom'
import { dom, parts } from './independent'

/*
 * A second reading of tagged PDFs by programs that nobody here wrote (pdfinfo, qpdf), and a second reading of what they were
 * made from that shares no code with core.
 */

/** An element of a structure tree, as pdfinfo tells it, with what stands in it: elements and text. */
export interface Tagged {
  readonly type: string
  readonly children: (Tagged | string)[]
}

/**
 * The structure tree of a PDF, text included.
 * @throws Error where pdfinfo, which draws a page anew for each element of it, takes longer than two minutes
 */
export function tagsOf(path: string): Tagged {
  const { stdout, error } = spawnSync('pdfinfo', ['-struct-text', path], {
    encoding: 'utf8',
    maxBuffer: 1 << 28,
    timeout: 120_000,
  })
  if (error) throw error
  const root: Tagged = { type: '', children: [] }
  const open: Tagged[] = [root]
  for (const line of stdout.split('\n')) {
    const depth = /^ */.exec(line)![0].length / 2
    const element = /^ *([A-Z][A-Za-z0-9]*)(?: \S+)?(?: "[^"]*")?(?: \((?:block|inline)\))?:?$/.exec(line)
    if (line.trim().startsWith('"')) open[depth]!.children.push(line.trim().slice(1).replace(/"$/, ''))
    else if (element && !line.trim().startsWith('Object')) {
      open.length = depth + 1
      const made: Tagged = { type: element[1]!, children: [] }
      open.at(-1)!.children.push(made)
      open.push(made)
    }
  }
  return root
}

/** Without marks: where several glyphs stand for a letter its text is told beside them, and pdfinfo passes that over. */
const plain = (text: string) =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/\p{M}/gu, '')
    .replace(/[-\u2010\u00AD\uFE00-\uFE0F\u200B-\u200F\u202A-\u202E\u2060-\u2069\uFEFF\uFFFC]/g, '')
    .replace(/\s+/g, '')
/**
 * Hyphens count for nothing: those that break words are there to be seen. Text that runs to the left is told by its letters:
 * programs put it in different orders.
 */
export const told = (text: string) =>
  /[\u0590-\u08FF\uFB1D-\uFEFC]/.test(text) ? [...plain(text)].sort().join('') : plain(text)

/** Headings and paragraphs with words, in order: what each is, what it stands in, and its text. */
export function outlineOf(root: Tagged): string[] {
  const lines: string[] = []
  const textIn = (element: Tagged): string =>
    element.children
      .map(child =>
        typeof child === 'string' ? child : /^(Note|Figure|Lbl|Reference)$/.test(child.type) ? '' : textIn(child),
      )
      .join('')
  const visit = (element: Tagged, path: string): void => {
    if (/^(P|H\d)$/.test(element.type)) {
      const text = told(textIn(element))
      if (text !== '') lines.push(`${path}${element.type} ${text}`)
      for (const child of element.children)
        if (typeof child !== 'string' && child.type === 'Note') visit(child, `${path}Note `)
      return
    }
    if (element.type === 'Figure') return
    const step = /^(L|TH|TD)$/.test(element.type) ? `${element.type} ` : ''
    for (const child of element.children) if (typeof child !== 'string') visit(child, path + step)
  }
  visit(root, '')
  return lines
}

const passedOver = new Set([
  'office:annotation',
  'text:tracked-changes',
  'text:sequence-decls',
  'text:variable-decls',
  'text:user-field-decls',
  'office:forms',
  'svg:title',
  'svg:desc',
  'draw:object',
  'draw:enhanced-geometry',
  'text:note-citation',
  'presentation:notes',
  'text:script',
])

/** The same of an OpenDocument text, read off its XML. */
export function outlineOfText(bytes: Uint8Array): string[] {
  const content = dom(parts(bytes)['content.xml']!)
  const body = content.getElementsByTagName('office:text')[0]!
  const lines: string[] = []
  const elements = (node: Node): Element[] => {
    const list: Element[] = []
    for (let at = node.firstChild; at; at = at.nextSibling) if (at.nodeType === 1) list.push(at as Element)
    return list
  }
  const textIn = (node: Node, later: { readonly element: Element; readonly path: string }[]): string => {
    let text = ''
    for (let at = node.firstChild; at; at = at.nextSibling) {
      if (at.nodeType === 3) text += at.nodeValue ?? ''
      if (at.nodeType !== 1) continue
      const element = at as Element
      if (passedOver.has(element.tagName)) continue
      if (element.tagName === 'text:note') later.push({ element, path: 'Note ' })
      else if (/^draw:(?!a$)/.test(element.tagName)) later.push({ element, path: '' })
      else text += textIn(element, later)
    }
    return text
  }
  const visit = (element: Element, path: string): void => {
    const name = element.tagName
    if (passedOver.has(name)) return
    if (name === 'text:p' || name === 'text:h') {
      const later: { element: Element; path: string }[] = []
      const text = told(textIn(element, later))
      // Levels begin at 1; some files say 0.
      const level = Math.min(Math.max(Number(element.getAttribute('text:outline-level') ?? '1'), 1), 6)
      const isItem = name === 'text:h' ? path.replace(/(L )+$/, '') : path
      if (text !== '') lines.push(`${isItem}${name === 'text:h' ? `H${level}` : 'P'} ${text}`)
      for (const each of later) if (each.path !== '') visit(each.element, isItem + each.path)
      for (const each of later) if (each.path === '') visit(each.element, isItem)
      return
    }
    const head = element.parentNode?.parentNode as Element | null
    const step =
      name === 'text:list'
        ? 'L '
        : name === 'table:table-cell'
          ? head?.tagName === 'table:table-header-rows'
            ? 'TH '
            : 'TD '
          : ''
    for (const child of elements(element)) visit(child, path + step)
  }
  visit(body, '')
  return lines
}

/** Operators that paint outside of everything that says what it is: of a PDF made here, nothing may. */
export function untagged(path: string): string[] {
  const { stdout } = spawnSync('qpdf', ['--qdf', '--object-streams=disable', path, '-'], {
    encoding: 'latin1',
    maxBuffer: 1 << 30,
  })
  const found: string[] = []
  for (const [, stream] of stdout.matchAll(/stream\n(.*?)\nendstream/gs)) {
    if (!/\bB[DM]C\b/.test(stream!)) continue
    const open: boolean[] = []
    for (const line of stream!.split('\n')) {
      if (/ B(DC|MC)$/.test(line)) open.push(/MCID|\/Artifact/.test(line))
      else if (line === 'EMC') open.pop()
      else if (/(^| )(TJ|Tj|f\*?|S|B\*?|Do|sh)( Q)?$/.test(line) && !open.includes(true)) found.push(line.slice(0, 80))
    }
    if (open.length > 0) found.push('a stretch is not ended')
  }
  return found
}
