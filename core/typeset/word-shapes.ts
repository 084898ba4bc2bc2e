import { unsafeToBreak, type Axis, type FontHandle, type HarfBuzz, type RunProperties } from './harfbuzz'
import { transformed, type Transform } from './text-transform'
import { scriptTable } from './unicode-tables'
import type { Words } from './words'

/** A correction of the distance between two characters in one face, in thousandths of an em. */
export interface KerningPair {
  readonly left: string
  readonly right: string
  readonly amount: number
}

/** How words of a look are shaped; words shaped alike are kept once. */
export interface Shaping {
  readonly face: string
  readonly axes: readonly Axis[]
  readonly run: RunProperties
  readonly transform: Transform
  readonly corrections: readonly KerningPair[]
}

/** Set for a word: shapes change with the spaces beside it, so it is only ever measured in its line of text. */
export const reachesSpaces = 1
/** Set for a word: the face lacks a sign of it. */
export const lacksGlyphs = 2
/** Set for a word that is here. */
export const shaped = 4
const queued = 8
/** In place of where a word's glyphs begin: only its width is known. */
const notKept = 0xffffffff

/** Glyphs of a stretch of text. Clusters are UTF-16 offsets into it; lengths in font units. */
export interface Glyphs {
  readonly count: number
  /** Where they begin in the lists: those of a face's words lie in common ones. */
  readonly start: number
  readonly ids: ArrayLike<number>
  readonly clusters: ArrayLike<number>
  readonly advances: ArrayLike<number>
  readonly xOffsets: ArrayLike<number>
  readonly yOffsets: ArrayLike<number>
}

/** Words in one buffer, with spaces between: HarfBuzz marks where a space changes a shape. */
const batchUnits = 6000

/**
 * The words of one face under one way of shaping, by word number: how wide each is, and of those that were drawn the
 * glyphs, in common arrays of which a word is a range.
 */
export class WordShapes {
  /** Widths in font units, and glyph counts, by word number. */
  widths = new Float64Array(0)
  counts = new Uint16Array(0)
  flags = new Uint8Array(0)
  private starts = new Uint32Array(0)
  private used = 0
  private ids = new Uint16Array(1024)
  private clusters = new Uint16Array(1024)
  private advances = new Int32Array(1024)
  private xOffsets = new Int16Array(1024)
  private yOffsets = new Int16Array(1024)
  /** One space: its width in font units, and its glyph. */
  readonly space: number
  readonly spaceGlyph: number
  /** Shapes in one word hang on letters in another, however far apart: runs are only ever shaped whole. */
  private readonly reachesWords: boolean

  constructor(
    private readonly engine: HarfBuzz,
    readonly font: FontHandle | null,
    private readonly shaping: Shaping,
    private readonly words: Words,
  ) {
    const space = font ? engine.nominal(font, 0x20) : null
    this.space = space?.advance ?? this.unitsPerEm * 0.25
    this.spaceGlyph = space?.glyph ?? 0
    this.reachesWords = font !== null && this.mixesWords(font)
  }

  /**
   * Whether contextual forms reach over spaces: each letter of the script, repeated and beside others, is shaped in a
   * sentence and in words alone. Faces that imitate handwriting change letters that came up shortly before.
   */
  private mixesWords(font: FontHandle): boolean {
    if (!['calt', 'rclt', 'rand', 'clig'].some(tag => font.features.has(tag))) return false
    const letters = lettersOf(this.shaping.run.script).filter(
      letter => this.engine.nominal(font, letter.codePointAt(0)!) !== null,
    )
    const words = letters.flatMap((letter, at) => [
      letter + letters[(at + 1) % letters.length]!,
      letter,
      letters[(at + 5) % letters.length]! + letter + letter,
    ])
    const ids = (text: string): number[] => {
      const { infos, length } = this.shapeText(text)
      return Array.from({ length }, (_, glyph) => infos[glyph * 5]!)
    }
    const apart = words.map(word => ids(transformed(word, this.shaping.transform)))
    if (this.shaping.run.rightToLeft) apart.reverse()
    return (
      ids(transformed(words.join(' '), this.shaping.transform))
        .filter(id => id !== this.spaceGlyph)
        .join(' ') !==
      apart
        .flat()
        .filter(id => id !== this.spaceGlyph)
        .join(' ')
    )
  }

  get unitsPerEm(): number {
    return this.font?.unitsPerEm ?? 1000
  }

  /** Makes room for all words there are: call before reading by word number. */
  reserve(): void {
    const count = this.words.count
    if (this.widths.length >= count) return
    const length = Math.max(count, Math.min(this.widths.length * 2, count + 65536), 256)
    const grown = <T extends Float64Array | Uint16Array | Uint8Array | Uint32Array>(old: T, made: T): T => {
      made.set(old)
      return made
    }
    this.widths = grown(this.widths, new Float64Array(length))
    this.counts = grown(this.counts, new Uint16Array(length))
    this.flags = grown(this.flags, new Uint8Array(length))
    this.starts = grown(this.starts, new Uint32Array(length))
  }

  has(word: number): boolean {
    return word < this.flags.length && (this.flags[word]! & shaped) !== 0
  }

  /** Shapes one word, unless it is. */
  ensure(word: number): void {
    if (this.has(word)) return
    this.ensureAll([word])
  }

  /** Puts words among some segments (those of kind 0) that are not shaped yet on a list, each once. */
  queueSegments(words: Int32Array, kind: Uint8Array, from: number, to: number, list: number[]): void {
    this.reserve()
    const { flags } = this
    for (let at = from; at < to; at++) {
      const word = words[at]!
      if (kind[at] !== 0 || (flags[word]! & (shaped | queued)) !== 0) continue
      flags[word]! |= queued
      list.push(word)
    }
  }

  /** Shapes the words among some segments (those of kind 0) that are not shaped yet. */
  ensureSegments(words: Int32Array, kind: Uint8Array, count: number): void {
    const { flags } = this
    let wanted: number[] | null = null
    for (let at = 0; at < count; at++)
      if (kind[at] === 0 && (flags[words[at]!]! & shaped) === 0) (wanted ??= []).push(words[at]!)
    if (wanted !== null) this.ensureAll(wanted)
  }

  /** Shapes those of some words that are not shaped yet, many in one go. */
  ensureAll(list: ArrayLike<number>): void {
    this.reserve()
    const batch: number[] = []
    const inBatch = !this.shaping.run.rightToLeft && this.font !== null
    let units = 1
    for (let at = 0; at < list.length; at++) {
      const word = list[at]!
      if ((this.flags[word]! & shaped) !== 0) continue
      this.flags[word]! |= shaped
      if (!inBatch) {
        this.shapeAlone(word)
        continue
      }
      batch.push(word)
      units += this.words.text(word).length + 1
      if (units > batchUnits) {
        this.shapeBatch(batch)
        batch.length = 0
        units = 1
      }
    }
    if (batch.length > 0) this.shapeBatch(batch)
  }

  private shapeBatch(batch: readonly number[]): void {
    const texts = batch.map(word => transformed(this.words.text(word), this.shaping.transform))
    let length = 1
    for (const text of texts) length += text.length + 1
    const room = this.engine.room(length)
    let at = 0
    room[at++] = 0x20
    for (const text of texts) {
      for (let index = 0; index < text.length; index++) room[at++] = text.charCodeAt(index)
      room[at++] = 0x20
    }
    const { length: count, infos, positions } = this.engine.shape(this.font!, length, this.shaping.run)
    let glyph = 1
    let start = 1
    for (let index = 0; index < batch.length; index++) {
      const end = start + texts[index]!.length
      const first = glyph
      while (glyph < count && infos[glyph * 5 + 2]! < end) glyph++
      // A mark at a word's start joins the space before it: such words are shaped alone.
      const apart = first < count && glyph < count && infos[first * 5 + 2] === start && infos[glyph * 5 + 2] === end
      if (!apart) {
        // The machine's memory is used again by the next shaping: what is left of this batch follows one by one.
        for (let rest = index; rest < batch.length; rest++) this.shapeAlone(batch[rest]!)
        return
      }
      this.measure(batch[index]!, texts[index]!, infos, positions, first, glyph, start)
      if (((infos[first * 5 + 1]! | infos[glyph * 5 + 1]!) & unsafeToBreak) !== 0)
        this.flags[batch[index]!]! |= reachesSpaces
      glyph++
      start = end + 1
    }
  }

  private shapeAlone(word: number): void {
    const text = transformed(this.words.text(word), this.shaping.transform)
    if (!this.font) {
      this.keepMissing(word, text.length)
      return
    }
    const { length, infos, positions } = this.shapeText(text)
    this.keep(word, text, infos, positions, 0, length, 0)
  }

  private shapeText(text: string) {
    const room = this.engine.room(text.length)
    for (let index = 0; index < text.length; index++) room[index] = text.charCodeAt(index)
    return this.engine.shape(this.font!, text.length, this.shaping.run)
  }

  /** What a word takes where not even a stand-in could be loaded: half an em a sign, nothing drawn. */
  private keepMissing(word: number, length: number): void {
    this.starts[word] = this.used
    this.grow(length)
    for (let index = 0; index < length; index++) {
      this.clusters[this.used] = index
      this.advances[this.used++] = 500
    }
    this.counts[word] = length
    this.widths[word] = length * 500
  }

  private grow(by: number): void {
    if (this.used + by <= this.ids.length) return
    const length = Math.max(this.ids.length * 2, this.used + by)
    const grown = <T extends Uint16Array | Int32Array | Int16Array>(old: T, made: T): T => {
      made.set(old)
      return made
    }
    this.ids = grown(this.ids, new Uint16Array(length))
    this.clusters = grown(this.clusters, new Uint16Array(length))
    this.advances = grown(this.advances, new Int32Array(length))
    this.xOffsets = grown(this.xOffsets, new Int16Array(length))
    this.yOffsets = grown(this.yOffsets, new Int16Array(length))
  }

  /** Keeps how wide a word is, and nothing of its glyphs: most words are never drawn. */
  private measure(
    word: number,
    text: string,
    infos: Uint32Array,
    positions: Int32Array,
    from: number,
    to: number,
    start: number,
  ): void {
    const corrected = this.shaping.corrections.length > 0
    let width = 0
    let lacks = 0
    for (let at = from * 5, end = to * 5; at < end; at += 5) {
      if (infos[at] === 0) lacks = lacksGlyphs
      width += positions[at]!
      if (corrected)
        width += this.correction(text, infos[at + 2]! - start, at + 5 < end ? infos[at + 7]! - start : text.length)
    }
    this.starts[word] = notKept
    this.counts[word] = to - from
    this.widths[word] = width
    this.flags[word]! |= lacks | (this.reachesWords ? reachesSpaces : 0)
  }

  private keep(
    word: number,
    text: string,
    infos: Uint32Array,
    positions: Int32Array,
    from: number,
    to: number,
    start: number,
  ): void {
    this.grow(to - from)
    const { corrections } = this.shaping
    let width = 0
    this.starts[word] = this.used
    for (let glyph = from; glyph < to; glyph++) {
      const at = glyph * 5
      const id = infos[at]!
      if (id === 0) this.flags[word]! |= lacksGlyphs
      const cluster = infos[at + 2]! - start
      let advance = positions[at]!
      if (corrections.length > 0)
        advance += this.correction(text, cluster, glyph + 1 < to ? infos[at + 7]! - start : text.length)
      this.ids[this.used] = id
      this.clusters[this.used] = cluster
      this.advances[this.used] = advance
      this.xOffsets[this.used] = positions[at + 2]!
      this.yOffsets[this.used] = positions[at + 3]!
      this.used++
      width += advance
    }
    this.counts[word] = to - from
    this.widths[word] = width
    if (this.reachesWords) this.flags[word]! |= reachesSpaces
  }

  /** What pairs add behind the cluster that ends where the next one begins. */
  private correction(text: string, cluster: number, next: number): number {
    if (next <= cluster || next >= text.length) return 0
    for (const pair of this.shaping.corrections)
      if (text.startsWith(pair.right, next) && text.slice(cluster, next) === pair.left)
        return (pair.amount * this.unitsPerEm) / 1000
    return 0
  }

  /** A word's glyphs. */
  glyphs(word: number): Glyphs {
    this.ensure(word)
    if (this.starts[word] === notKept) this.shapeAlone(word)
    return {
      count: this.counts[word]!,
      start: this.starts[word]!,
      ids: this.ids,
      clusters: this.clusters,
      advances: this.advances,
      xOffsets: this.xOffsets,
      yOffsets: this.yOffsets,
    }
  }

  /** A whole stretch of text, spaces and all, shaped as it stands; nothing is kept. */
  run(text: string): Glyphs {
    const shown = transformed(text, this.shaping.transform)
    const {
      length: count,
      infos,
      positions,
    } = this.font ? this.shapeText(shown) : { length: 0, infos: new Uint32Array(0), positions: new Int32Array(0) }
    const glyphs = {
      count,
      start: 0,
      ids: new Uint16Array(count),
      clusters: new Uint16Array(count),
      advances: new Int32Array(count),
      xOffsets: new Int16Array(count),
      yOffsets: new Int16Array(count),
    }
    for (let glyph = 0; glyph < count; glyph++) {
      const at = glyph * 5
      glyphs.ids[glyph] = infos[at]!
      glyphs.clusters[glyph] = infos[at + 2]!
      glyphs.advances[glyph] =
        positions[at]! +
        (this.shaping.corrections.length > 0
          ? this.correction(shown, infos[at + 2]!, glyph + 1 < count ? infos[at + 7]! : shown.length)
          : 0)
      glyphs.xOffsets[glyph] = positions[at + 2]!
      glyphs.yOffsets[glyph] = positions[at + 3]!
    }
    return glyphs
  }
}

const letterLists = new Map<string, readonly string[]>()
/** Letters of a script (ISO 15924), at most sixty of them. */
function lettersOf(script: string): readonly string[] {
  let letters = letterLists.get(script)
  if (!letters) {
    const { names, of } = scriptTable()
    const wanted = names.indexOf(script)
    const found: string[] = []
    for (let code = 0x41; code < 0x3100 && found.length < 60; code++)
      if (of[code] === wanted && /\p{L}/u.test(String.fromCodePoint(code))) found.push(String.fromCodePoint(code))
    letterLists.set(script, (letters = found))
  }
  return letters
}
