import { elementMarkup, escapeText } from '../xml/edit'
import type { Draft } from './draft'
import { openParagraph, rawOffset, type OpenParagraph, type TextPiece } from './paragraph-spots'
import { EditRefusal } from './refusals'
import { tokens, type Token } from './white-space'

function markup({ part }: Draft, parent: number, token: Token): string {
  const element = part.element(parent)
  switch (token.kind) {
    case 'text':
      return escapeText(token.text)
    case 'spaces':
      return elementMarkup(part, element, 'text:s', token.count === 1 ? {} : { 'text:c': String(token.count) })
    case 'tab':
      return elementMarkup(part, element, 'text:tab', {})
    case 'break':
      return elementMarkup(part, element, 'text:line-break', {})
  }
}

class ParagraphEdit {
  constructor(
    private readonly draft: Draft,
    private readonly node: number,
  ) {}

  private open(): OpenParagraph {
    return openParagraph(this.draft.part, this.node)
  }

  private insertTokens(parent: number, index: number, list: readonly Token[]): void {
    list.forEach((token, at) => {
      this.draft.insert(parent, index + at, markup(this.draft, parent, token), 1)
    })
    this.draft.mergeTexts(parent)
  }

  /** Replaces a stretch of a text node by tokens. */
  private spliceText(id: number, from: number, to: number, list: readonly Token[]): void {
    const { draft } = this
    const { parent, text } = draft.textNode(id)
    if (list.length === 0 && from === 0 && to === text.length) {
      draft.remove(id)
      return
    }
    if (list.every(token => token.kind === 'text')) {
      draft.splice(id, from, to, list.map(token => token.text).join(''))
      return
    }
    const index = draft.indexOf(id)
    if (to < text.length && from > 0) {
      const right = draft.slice(id, to, text.length)
      draft.splice(id, from, text.length, '')
      draft.insert(parent, index + 1, right, 1)
      this.insertTokens(parent, index + 1, list)
    } else if (to < text.length) {
      draft.splice(id, 0, to, '')
      this.insertTokens(parent, index, list)
    } else {
      if (from === 0) draft.remove(id)
      else draft.splice(id, from, to, '')
      this.insertTokens(parent, from === 0 ? index : index + 1, list)
    }
  }

  /** Where the text of a piece that is no own text stands: the element to go beside. */
  private outer(piece: TextPiece): number {
    return piece.field ?? piece.node
  }

  private removePiece(piece: TextPiece, from: number, to: number, list: readonly Token[]): void {
    const { draft } = this
    if (piece.kind === 'text' && piece.field === null) {
      // White space that collapses into what goes, goes with it.
      const { parent } = draft.textNode(piece.node)
      this.spliceText(
        piece.node,
        rawOffset(piece, from, 'after'),
        to === piece.end ? rawOffset(piece, to, 'before') : rawOffset(piece, to, 'after'),
        list,
      )
      draft.mergeTexts(parent)
      draft.dropEmpty(parent, this.node)
      return
    }
    const id = this.outer(piece)
    const { parent } = draft.part.node(id)
    const index = draft.indexOf(id)
    const rest = piece.kind === 'space' ? piece.end - piece.start - (to - from) : 0
    draft.remove(id)
    this.insertTokens(parent, index, [...(rest > 0 ? [{ kind: 'spaces', count: rest } as const] : []), ...list])
    draft.mergeTexts(parent)
    draft.dropEmpty(parent, this.node)
  }

  private insertAt(open: OpenParagraph, at: number, list: readonly Token[]): void {
    if (list.length === 0) return
    const { draft } = this
    const before = open.pieces.findLast(piece => piece.end === at && piece.end > piece.start)
    const inside = open.pieces.find(piece => piece.start < at && piece.end > at)
    const after = open.pieces.find(piece => piece.start === at)
    const piece = inside ?? before ?? after
    if (!piece) {
      this.insertTokens(this.node, draft.part.element(this.node).children.length, list)
      return
    }
    if (piece.kind === 'text' && piece.field === null) {
      this.spliceText(piece.node, rawOffset(piece, at), rawOffset(piece, at), list)
      return
    }
    if (inside) {
      // In the middle of several spaces.
      this.removePiece(piece, piece.start, piece.end, [
        { kind: 'spaces', count: at - piece.start },
        ...list,
        { kind: 'spaces', count: piece.end - at },
      ])
      return
    }
    const id = this.outer(piece)
    this.insertTokens(draft.part.node(id).parent, draft.indexOf(id) + (piece === before ? 1 : 0), list)
  }

  /** @throws EditRefusal */
  replace(from: number, to: number, text: string): void {
    const first = this.open()
    if (from < 0 || to < from || to > first.text.length)
      throw new EditRefusal('This place is no longer in the text. Nothing was changed.')
    const expected = first.text.slice(0, from) + text + first.text.slice(to)
    const parentOf = (piece: TextPiece | undefined) => (piece ? this.draft.part.node(piece.node).parent : -1)
    // Spaces that are elements become characters again when something is written beside them.
    const home =
      first.pieces.find(piece => piece.start <= from && piece.end > from && to > from) ??
      first.pieces.findLast(piece => piece.end === from && piece.end > piece.start) ??
      first.pieces.find(piece => piece.start === from)
    const spaceBefore = first.pieces.find(
      piece => piece.kind === 'space' && piece.end === from && parentOf(piece) === parentOf(home),
    )
    const spaceAfter = first.pieces.find(
      piece => piece.kind === 'space' && piece.start === to && parentOf(piece) === parentOf(home),
    )
    if (text !== '' && spaceBefore && !text.startsWith(' ')) {
      text = spaceBefore.text + text
      from = spaceBefore.start
    }
    if (text !== '' && spaceAfter && !text.endsWith(' ')) {
      text += spaceAfter.text
      to = spaceAfter.end
    }
    const covered = first.pieces.filter(piece => piece.start < to && piece.end > from && piece.end > piece.start)
    for (const piece of covered) {
      if (piece.field === null) continue
      const whole = first.pieces.filter(each => each.field === piece.field)
      if (whole[0]!.start < from || whole.at(-1)!.end > to)
        throw new EditRefusal(
          'This text is a field that the document works out by itself. It can be deleted as a whole. Nothing was changed.',
        )
    }
    const list = tokens(
      text,
      from === 0 || first.text[from - 1] === ' ',
      to === first.text.length || first.text[to] === ' ',
    )
    if (covered.length === 0) this.insertAt(first, from, list)
    else {
      const done = new Set<number>()
      for (const piece of [...covered].reverse()) {
        if (piece.field !== null && done.has(piece.field)) continue
        if (piece.field !== null) done.add(piece.field)
        const isFirst = piece === covered[0] || (piece.field !== null && piece.field === covered[0]!.field)
        this.removePiece(piece, Math.max(piece.start, from), Math.min(piece.end, to), isFirst ? list : [])
      }
    }
    this.settleSpaces(expected)
  }

  /** Hardens spaces that an edit made collapse, and takes away what it made show, until the text is as expected. */
  settleSpaces(expected: string): void {
    for (let tries = 0; tries < 8; tries++) {
      const now = this.open()
      if (now.text === expected) return
      let at = 0
      while (at < expected.length && now.text[at] === expected[at]) at++
      if (expected[at] === ' ') this.hardenSpace(now, at)
      else if (now.text[at] === ' ') {
        const piece = now.pieces.find(each => each.start <= at && each.end > at)!
        if (piece.kind !== 'text' || piece.field !== null) break
        this.removePiece(piece, at, at + 1, [])
      } else break
    }
    if (this.open().text !== expected)
      throw new EditRefusal(
        'The white space here is written in a way that this edit would not keep. Nothing was changed.',
      )
  }

  /** A space that collapses where text ends, or behind another one, becomes an element. */
  private hardenSpace(now: OpenParagraph, at: number): void {
    const { draft } = this
    // The character lies behind the text shown before it: at the end of that node, or at the start of a later one.
    const texts: number[] = []
    const collect = (id: number) => {
      const node = draft.part.node(id)
      if (node.kind === 'text') texts.push(id)
      else if (node.kind === 'element') node.children.forEach(collect)
    }
    collect(this.node)
    const before = now.pieces.findLast(piece => piece.start < at)
    const fromNode = before ? texts.indexOf(before.node) : -1
    const order =
      before && before.kind === 'text'
        ? texts.slice(fromNode)
        : before
          ? texts.filter(id => this.isAfter(id, before.node))
          : texts
    for (const id of order) {
      const { text } = draft.textNode(id)
      const start = before?.node === id ? before.raw![at - before.start - 1]! + 1 : 0
      // White space between here and what is shown next: one character of it is the space that was lost.
      const found = /[ \t\r\n]/.exec(text.slice(start))
      if (!found || found.index > 0) {
        if (text.slice(start).trim() !== '') return
        continue
      }
      this.spliceText(id, start, start + 1, [{ kind: 'spaces', count: 1 }])
      return
    }
  }

  private isAfter(id: number, other: number): boolean {
    const order: number[] = []
    const visit = (node: number) => {
      order.push(node)
      const at = this.draft.part.node(node)
      if (at.kind === 'element') at.children.forEach(visit)
    }
    visit(this.node)
    return order.indexOf(id) > order.indexOf(other)
  }
}

/**
 * Replaces a stretch of a paragraph's text: tabs and line breaks in `text` become their elements. What is written takes
 * the spans of the first character replaced, or of the one before the place. @throws EditRefusal
 */
export function replaceText(draft: Draft, paragraph: number, from: number, to: number, text: string): void {
  new ParagraphEdit(draft, paragraph).replace(from, to, text)
}

/** Writes text into an empty paragraph, in spans where it has a character style. */
export function writeRuns(
  draft: Draft,
  paragraph: number,
  runs: readonly { readonly text: string; readonly style: string | null }[],
): void {
  const whole = runs.map(run => run.text).join('')
  let at = 0
  for (const run of runs) {
    if (run.text === '') continue
    const list = tokens(
      run.text,
      at === 0 || whole[at - 1] === ' ',
      at + run.text.length === whole.length || whole[at + run.text.length] === ' ',
    )
    at += run.text.length
    let parent = paragraph
    if (run.style !== null)
      parent = draft.insert(
        paragraph,
        draft.part.element(paragraph).children.length,
        elementMarkup(draft.part, draft.part.element(paragraph), 'text:span', { 'text:style-name': run.style }),
        1,
      )
    for (const token of list)
      draft.insert(parent, draft.part.element(parent).children.length, markup(draft, parent, token), 1)
    draft.mergeTexts(parent)
  }
  settleSpaces(draft, paragraph, whole)
}

/** Makes a paragraph's white space show some text, after its nodes were moved. @throws EditRefusal */
export function settleSpaces(draft: Draft, paragraph: number, expected: string): void {
  new ParagraphEdit(draft, paragraph).settleSpaces(expected)
}
