import { PDFArray, PDFDict, PDFName, PDFNumber, PDFRef, PDFStream, type PDFPage } from '@cantoo/pdf-lib'
import { after, type Matrix } from '../../typeset/matrix'
import { readOperators, type Operator } from './content'
import { readFont, streamBytes, type FinishedFont, type ShownGlyph } from './fonts'

/** A stretch of text that one string of a page shows. Lengths in points of the page, y up. */
export interface TextPiece {
  /** The operator that shows it, among those of the page's own content; -1 in forms that the page draws. */
  readonly operator: number
  /** Which string of it: operators with lists show several. */
  readonly item: number
  readonly font: FinishedFont
  readonly glyphs: readonly ShownGlyph[]
  readonly text: string
  /** As it looks: the font's size as the page stretches it. */
  readonly size: number
  /** Where its baseline begins, and where it ends. */
  readonly from: { readonly x: number; readonly y: number }
  readonly to: { readonly x: number; readonly y: number }
  /** #rrggbb, or '' for a colour that is told in other ways. */
  readonly color: string
  /** Extra room in points of the text: behind every glyph, and behind every space. */
  readonly spacing: { readonly glyph: number; readonly word: number; readonly scale: number; readonly fontSize: number }
  /** It is drawn: text of mode 3 is there to be found alone. */
  readonly seen: boolean
}

/** A page's text, and the content that shows it. */
export interface PageText {
  readonly content: Uint8Array
  readonly operators: readonly Operator[]
  readonly pieces: readonly TextPiece[]
  /** The fonts that its resources name, used or not. */
  readonly fonts: ReadonlyMap<string, FinishedFont>
}

interface State {
  matrix: Matrix
  font: FinishedFont | null
  fontSize: number
  glyphSpacing: number
  wordSpacing: number
  scale: number
  leading: number
  rise: number
  mode: number
  color: string
}

const formDepth = 8
/** More pieces of one page are not read. */
const pieceLimit = 200_000
const identity: Matrix = [1, 0, 0, 1, 0, 0]
const newline = 10

/** All fonts of a document that were read, by their objects: pages share them. */
export type FontsRead = Map<PDFDict, FinishedFont>

/** The content of a page, its streams one behind the other (ISO 32000-2, 7.8.2). */
export function pageContent(page: PDFPage): Uint8Array {
  const contents = page.node.lookup(PDFName.of('Contents'))
  const streams =
    contents instanceof PDFArray ? Array.from({ length: contents.size() }, (_, at) => contents.lookup(at)) : [contents]
  const parts = streams.map(each => streamBytes(each))
  const whole = new Uint8Array(parts.reduce((sum, part) => sum + part.length + 1, 0))
  let at = 0
  for (const part of parts) {
    whole.set(part, at)
    at += part.length
    whole[at++] = newline
  }
  return whole
}

/** What a page's content refers to by name, its own or inherited; undefined where that is damaged. */
export function resourcesOf(page: PDFPage): PDFDict | undefined {
  try {
    return page.node.Resources()
  } catch {
    return undefined
  }
}

/** Reads a page's text: what stands where, in which font, and which operator shows it. */
export function readPageText(page: PDFPage, known: FontsRead): PageText {
  const content = pageContent(page)
  const operators = readOperators(content)
  const reader = new TextReader(known)
  const resources = resourcesOf(page)
  reader.run(operators, resources, identity, 0)
  return { content, operators, pieces: reader.pieces, fonts: reader.fontsOf(resources) }
}

class TextReader {
  readonly pieces: TextPiece[] = []
  private readonly forms = new Set<PDFStream>()

  constructor(private readonly known: FontsRead) {}

  fontsOf(resources: PDFDict | undefined): Map<string, FinishedFont> {
    const fonts = new Map<string, FinishedFont>()
    const dict = resources?.lookup(PDFName.of('Font'))
    if (dict instanceof PDFDict)
      for (const key of dict.keys()) {
        const font = dict.lookup(key)
        if (font instanceof PDFDict) fonts.set(key.decodeText(), this.font(font))
      }
    return fonts
  }

  private font(dict: PDFDict): FinishedFont {
    let font = this.known.get(dict)
    if (!font) this.known.set(dict, (font = readFont(dict)))
    return font
  }

  run(
    operators: readonly Operator[],
    resources: PDFDict | undefined,
    matrix: Matrix,
    depth: number,
    from?: State,
  ): void {
    const fonts = this.fontsOf(resources)
    let state: State = from
      ? { ...from, matrix }
      : {
          matrix,
          font: null,
          fontSize: 0,
          glyphSpacing: 0,
          wordSpacing: 0,
          scale: 1,
          leading: 0,
          rise: 0,
          mode: 0,
          color: '#000000',
        }
    const saved: State[] = []
    let text: Matrix = identity
    let line: Matrix = identity
    const move = (x: number, y: number) => (text = line = after(line, [1, 0, 0, 1, x, y]))
    operators.forEach(({ name, operands }, index) => {
      const n = (at: number) => {
        const operand = operands[at]
        return operand?.kind === 'number' ? operand.value : 0
      }
      const show = (items: Operator['operands']) => {
        text = this.show(items, state, text, depth > 0 ? -1 : index)
      }
      switch (name) {
        case 'q':
          if (saved.length < 1000) saved.push({ ...state })
          break
        case 'Q':
          state = saved.pop() ?? state
          break
        case 'cm':
          state.matrix = after(state.matrix, [n(0), n(1), n(2), n(3), n(4), n(5)])
          break
        case 'BT':
          text = line = identity
          break
        case 'Tf':
          state.font = operands[0]?.kind === 'name' ? (fonts.get(operands[0].value) ?? null) : null
          state.fontSize = n(1)
          break
        case 'Td':
          move(n(0), n(1))
          break
        case 'TD':
          state.leading = -n(1)
          move(n(0), n(1))
          break
        case 'Tm':
          text = line = [n(0), n(1), n(2), n(3), n(4), n(5)]
          break
        case 'T*':
          move(0, -state.leading)
          break
        case 'TL':
          state.leading = n(0)
          break
        case 'Tc':
          state.glyphSpacing = n(0)
          break
        case 'Tw':
          state.wordSpacing = n(0)
          break
        case 'Tz':
          state.scale = n(0) / 100
          break
        case 'Ts':
          state.rise = n(0)
          break
        case 'Tr':
          state.mode = n(0)
          break
        case 'Tj':
          show(operands.slice(0, 1))
          break
        case 'TJ':
          if (operands[0]?.kind === 'array') show(operands[0].items)
          break
        case "'":
          move(0, -state.leading)
          show(operands.slice(0, 1))
          break
        case '"':
          state.wordSpacing = n(0)
          state.glyphSpacing = n(1)
          move(0, -state.leading)
          show(operands.slice(2, 3))
          break
        case 'Do':
          if (operands[0]?.kind === 'name') this.form(operands[0].value, resources, state, depth)
          break
        default:
          this.colour(name, operands, state)
      }
    })
  }

  private colour(name: string, operands: Operator['operands'], state: State): void {
    const values = operands.flatMap(each => (each.kind === 'number' ? [each.value] : []))
    if (name === 'g') state.color = hex([values[0], values[0], values[0]])
    else if (name === 'rg') state.color = hex(values)
    else if (name === 'k') state.color = hex([0, 1, 2].map(at => (1 - (values[at] ?? 0)) * (1 - (values[3] ?? 0))))
    else if (name === 'cs') state.color = ''
    else if (name === 'sc' || name === 'scn')
      state.color =
        values.length === 3 ? hex(values) : values.length === 1 ? hex([values[0], values[0], values[0]]) : ''
  }

  /** Text in a form that is drawn (8.10). */
  private form(name: string, resources: PDFDict | undefined, state: State, depth: number): void {
    const objects = resources?.lookup(PDFName.of('XObject'))
    const stream = objects instanceof PDFDict ? objects.lookup(PDFName.of(name)) : undefined
    if (!(stream instanceof PDFStream) || depth >= formDepth || this.forms.has(stream)) return
    if (String(stream.dict.lookup(PDFName.of('Subtype'))) !== '/Form') return
    const list = stream.dict.lookup(PDFName.of('Matrix'))
    const own =
      list instanceof PDFArray && list.size() === 6
        ? (Array.from({ length: 6 }, (_, at) =>
            list.lookup(at) instanceof PDFNumber ? (list.lookup(at) as PDFNumber).asNumber() : 0,
          ) as unknown as Matrix)
        : identity
    const inner = stream.dict.lookup(PDFName.of('Resources'))
    this.forms.add(stream)
    this.run(
      readOperators(streamBytes(stream)),
      inner instanceof PDFDict ? inner : resources,
      after(state.matrix, own),
      depth + 1,
      state,
    )
    this.forms.delete(stream)
  }

  /** Shows strings one behind the other (9.4.4). @returns where the text goes on */
  private show(items: Operator['operands'], state: State, from: Matrix, operator: number): Matrix {
    const { font, fontSize, glyphSpacing, wordSpacing, scale, rise } = state
    let text = from
    items.forEach((item, index) => {
      if (item.kind === 'number') {
        text = after(text, [1, 0, 0, 1, (-item.value / 1000) * fontSize * scale, 0])
        return
      }
      if (item.kind !== 'string' || !font || this.pieces.length >= pieceLimit) return
      const glyphs = font.decode(item.bytes)
      const width = glyphs.reduce(
        (sum, { width: wide, code, length }) =>
          sum + ((wide / 1000) * fontSize + glyphSpacing + (length === 1 && code === 32 ? wordSpacing : 0)) * scale,
        0,
      )
      const whole = after(state.matrix, text)
      const at = (x: number) => ({
        x: whole[0] * x + whole[2] * rise + whole[4],
        y: whole[1] * x + whole[3] * rise + whole[5],
      })
      if (glyphs.length > 0)
        this.pieces.push({
          operator,
          item: index,
          font,
          glyphs,
          text: glyphs.map(glyph => glyph.text).join(''),
          size: Math.abs(fontSize) * Math.hypot(whole[2], whole[3]),
          from: at(0),
          to: at(width),
          color: state.color,
          spacing: { glyph: glyphSpacing, word: wordSpacing, scale, fontSize },
          seen: state.mode !== 3 && state.mode !== 7,
        })
      text = after(text, [1, 0, 0, 1, width, 0])
    })
    return text
  }
}

function hex(values: readonly (number | undefined)[]): string {
  return `#${[0, 1, 2]
    .map(at =>
      Math.round(Math.min(Math.max(values[at] ?? 0, 0), 1) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`
}

/** All font dictionaries that resources lead to: forms and patterns included, each once. */
export function fontDictionaries(resources: PDFDict | undefined, into: Set<PDFDict>, seen = new Set<PDFDict>()): void {
  if (!resources || seen.has(resources) || seen.size > 20_000) return
  seen.add(resources)
  const fonts = resources.lookup(PDFName.of('Font'))
  if (fonts instanceof PDFDict)
    for (const key of fonts.keys()) {
      const font = fonts.lookup(key)
      if (font instanceof PDFDict) into.add(font)
    }
  for (const kind of ['XObject', 'Pattern']) {
    const objects = resources.lookup(PDFName.of(kind))
    if (!(objects instanceof PDFDict)) continue
    for (const key of objects.keys()) {
      const value = objects.get(key)
      const stream = value instanceof PDFRef ? objects.lookup(key) : value
      if (!(stream instanceof PDFStream)) continue
      const inner = stream.dict.lookup(PDFName.of('Resources'))
      if (inner instanceof PDFDict) fontDictionaries(inner, into, seen)
    }
  }
}
