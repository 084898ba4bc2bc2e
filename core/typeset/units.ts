/// <reference path="./packages.d.ts" />
import bidiFactory from 'bidi-js'
import type { Frame, Inline } from '../document/stories'
import { objectSign, type ParagraphText, type TextRun } from '../style/runs'
import { breaksOf } from './breaks'
import type { Look, SetWord, Typesetter } from './look'
import type { ShapedWord } from './shaper'

/** Glyphs of one look in one direction; offsets into the paragraph's text. */
export interface Piece {
  readonly look: Look
  readonly shaped: ShapedWord
  readonly width: number
  readonly start: number
  readonly end: number
  /** Embedding level of UAX #9: odd runs from right to left. */
  readonly level: number
  readonly run: TextRun
}

/** What stands between two places where a line may end: a word with the spaces behind it, a tab, or an object. */
export interface Unit {
  readonly kind: 'word' | 'tab' | 'object'
  readonly start: number
  readonly end: number
  readonly pieces: readonly Piece[]
  readonly width: number
  /** Spaces at the end: they hang over the line's end and stretch in justified lines. */
  readonly spaces: readonly Piece[]
  readonly spaceWidth: number
  readonly spaceCount: number
  /** The line must end behind it. */
  readonly required: boolean
  /** For tabs and objects: whose style they stand in. */
  readonly look: Look
  readonly run: TextRun
  readonly frame: Frame | null
}

const bidi = bidiFactory()
const rightToLeftSign = /[\u0590-\u08FF\u202B\u202E\u2067\uFB1D-\uFDFF\uFE70-\uFEFC]/

/** Cuts a paragraph into units and sets their words. */
export function unitsOf({ text, runs }: ParagraphText, typesetter: Typesetter, rightToLeft: boolean): Unit[] {
  if (runs.length === 0) return []
  const levels = rightToLeft || rightToLeftSign.test(text) ? bidi.getEmbeddingLevels(text, rightToLeft ? 'rtl' : 'ltr').levels : null
  const units: Unit[] = []
  let runAt = 0

  const runFor = (offset: number): TextRun => {
    while (runs[runAt]!.end <= offset) runAt++
    return runs[runAt]!
  }

  // Pieces of text[from, to), which has no tab, break or object in it.
  const piecesOf = (from: number, to: number): Piece[] => {
    const pieces: Piece[] = []
    for (let at = from; at < to;) {
      const run = runFor(at)
      let end = Math.min(to, run.end)
      const level = levels ? levels[at]! : 0
      if (levels) for (let index = at + 1; index < end; index++) if (levels[index] !== level) { end = index; break }
      const own = typesetter.look(run.style, run.slot)
      const piece = text.slice(at, end)
      if (typesetter.hasAll(own, piece)) {
        const set = typesetter.setter(own, level % 2 === 1)(piece)
        pieces.push({ look: own, shaped: set.shaped, width: set.width, start: at, end, level, run })
        at = end
        continue
      }
      let start = at
      for (const part of typesetter.withGlyphs(own, piece)) {
        const set: SetWord = typesetter.setter(part.look, level % 2 === 1)(part.text)
        pieces.push({ look: part.look, shaped: set.shaped, width: set.width, start, end: start + part.text.length, level, run })
        start += part.text.length
      }
      at = end
    }
    return pieces
  }

  const push = (kind: Unit['kind'], start: number, wordEnd: number, end: number, required: boolean): void => {
    const run = runFor(start)
    const inline: Inline | null = kind === 'word' ? null : run.inline
    const pieces = kind === 'word' ? piecesOf(start, wordEnd) : inline?.kind === 'note' ? notePieces(start, run, inline.citation) : []
    const spaces = end > wordEnd ? piecesOf(wordEnd, end) : []
    units.push({
      kind, start, end, pieces, width: total(pieces), spaces, spaceWidth: total(spaces), spaceCount: end - wordEnd, required,
      look: pieces[0]?.look ?? spaces[0]?.look ?? typesetter.look(run.style, run.slot), run, frame: inline?.kind === 'frame' ? inline.frame : null,
    })
  }

  const notePieces = (start: number, run: TextRun, citation: string): Piece[] => {
    const base = typesetter.look(run.style, run.slot)
    const raised = typesetter.raised(base)
    const set = typesetter.setter(raised, false)(citation)
    return [{ look: raised, shaped: set.shaped, width: set.width, start, end: start + 1, level: 0, run }]
  }

  let from = 0
  for (const { position, required } of breaksOf(text)) {
    // Tabs and objects stand alone; UAX #14 keeps a tab with the word before it.
    let start = from
    for (let at = from; at < position; at++) {
      const sign = text[at]!
      if (sign !== '\t' && sign !== objectSign) continue
      if (at > start) pushWord(text, start, at, false, push)
      push(sign === '\t' ? 'tab' : 'object', at, at + 1, at + 1, required && at + 1 === position)
      start = at + 1
    }
    if (position > start) pushWord(text, start, position, required, push)
    from = position
  }
  return units
}

function pushWord(text: string, start: number, end: number, required: boolean, push: (kind: 'word', start: number, wordEnd: number, end: number, required: boolean) => void): void {
  let last = end
  if (required && text[last - 1] === '\n') last--
  let wordEnd = last
  while (wordEnd > start && (text.charCodeAt(wordEnd - 1) === 0x20 || text.charCodeAt(wordEnd - 1) === 0x3000)) wordEnd--
  push('word', start, wordEnd, last, required)
}

function total(pieces: readonly Piece[]): number {
  let width = 0
  for (const piece of pieces) width += piece.width
  return width
}

/** Puts the pieces of a line into visual order: rule L2 of UAX #9. */
export function visualOrder<T extends { readonly level: number }>(pieces: readonly T[]): readonly T[] {
  let highest = 0
  let lowestOdd = 255
  for (const { level } of pieces) {
    if (level > highest) highest = level
    if (level % 2 === 1 && level < lowestOdd) lowestOdd = level
  }
  if (highest === 0) return pieces
  const ordered = [...pieces]
  for (let level = highest; level >= lowestOdd; level--) {
    for (let start = 0; start < ordered.length; start++) {
      if (ordered[start]!.level < level) continue
      let end = start
      while (end < ordered.length && ordered[end]!.level >= level) end++
      ordered.splice(start, end - start, ...ordered.slice(start, end).reverse())
      start = end
    }
  }
  return ordered
}
