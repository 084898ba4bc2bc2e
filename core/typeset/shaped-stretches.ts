import { kinds, type Analysis } from './analysis'
import { mixes, type Look, type Typesetter } from './look'
import { cutGlyphs, type SetGlyphs } from './set-glyphs'
import { lacksGlyphs, type Glyphs, type WordShapes } from './word-shapes'

/** Text in segments with their looks, and how wide each is in points. */
export interface SegmentedText {
  readonly analysis: Analysis
  readonly looks: readonly Look[]
  readonly typesetter: Typesetter
  readonly widths: Float64Array
  shapesOf(segment: number, look: Look): WordShapes
}

/** A stretch of a text, in UTF-16 units. */
export interface Stretch {
  readonly start: number
  readonly end: number
}

/** Glyphs in one face of a stretch of text. */
interface Piece {
  readonly look: Look
  readonly glyphs: Glyphs
  readonly unitsPerEm: number
  /** Where it begins and ends in the whole text. */
  readonly from: number
  readonly to: number
}

/** Words of more letters are left in their pieces: nobody reads them. */
const longest = 10_000

/** Segments that could only be shaped together with their neighbours: their glyphs, cut to each segment. */
export class ShapedStretches {
  private readonly kept = new Map<number, readonly SetGlyphs[]>()
  /** Where letters of several segments are drawn as one: the text that has to be in one line for it, by segment. */
  private readonly joined = new Map<number, Stretch>()

  constructor(private readonly text: SegmentedText) {}

  has(segment: number): boolean {
    return this.kept.has(segment)
  }

  /**
   * What is drawn for a segment whose left is at x, in a line that shows some text: letters that are drawn as one all stand with
   * the first of them. Undefined where it is to be shaped by itself.
   */
  glyphsOf(segment: number, x: number, shown: Stretch): SetGlyphs[] | undefined {
    const joined = this.joined.get(segment)
    if (joined && (joined.start < shown.start || joined.end > shown.end)) return undefined
    const kept = this.kept.get(segment)
    return x === 0 ? kept && [...kept] : kept?.map(each => ({ ...each, x: each.x + x }))
  }

  /** Whether two segments are set as one text: in one look, script and direction. */
  private setAlike(one: number, other: number): boolean {
    const { looks } = this.text
    const { run, script, level } = this.text.analysis
    return looks[run[one]!]! === looks[run[other]!] && script[one] === script[other] && level[one] === level[other]
  }

  /** Shapes the run of words and spaces around a segment as one, where the face has all of it; returns its last segment. */
  shapeWhole(segment: number): number {
    const { text } = this
    const { kind, run, segments, starts } = text.analysis
    const same = (other: number) =>
      (kind[other] === kinds.word || kind[other] === kinds.space) && this.setAlike(other, segment)
    let from = segment
    let to = segment + 1
    while (from > 0 && same(from - 1)) from--
    while (to < segments && same(to)) to++
    const look = text.looks[run[segment]!]!
    const whole = this.piece(segment, look, text.analysis.text.slice(starts[from]!, starts[to]!), starts[from]!)
    for (let glyph = 0; glyph < whole.glyphs.count; glyph++) if (whole.glyphs.ids[glyph] === 0) return segment
    this.keep(from, to, [whole])
    return to - 1
  }

  /**
   * Shapes words as one that are in pieces because spans begin or end within them: where these look alike, letters are
   * joined, kerned and marked as they are without (CSS Text 3, shaping across element boundaries). Returns whether there were any.
   */
  shapeJoined(): boolean {
    const { looks } = this.text
    const { kind, run, segments, starts, first, units } = this.text.analysis
    let any = false
    for (let unit = 0; unit < units; unit++) {
      const end = Math.min(first[unit + 1]!, segments)
      for (let from = first[unit]!; from < end; from++) {
        if (kind[from] !== kinds.word || this.kept.has(from)) continue
        let to = from + 1
        while (to < end && kind[to] === kinds.word && run[to] !== run[to - 1] && this.setAlike(to, from)) to++
        if (to - from > 1 && starts[to]! - starts[from]! <= longest && !looks[run[from]!]!.hidden) {
          this.shapeWord(from, to)
          any = true
        }
        from = to - 1
      }
    }
    return any
  }

  /** Shapes a word that is in several segments, in all faces that it needs. */
  private shapeWord(from: number, to: number): void {
    const { analysis, looks, typesetter } = this.text
    const { starts, run } = analysis
    const look = looks[run[from]!]!
    const start = starts[from]!
    const word = typesetter.words.number(analysis.text.slice(start, starts[to]!))
    const shapes = this.text.shapesOf(from, look)
    shapes.ensure(word)
    const parts =
      mixes(look) || (shapes.flags[word]! & lacksGlyphs) !== 0
        ? typesetter.mixed(look, word)
        : [{ look, word, offset: 0 }]
    this.keep(
      from,
      to,
      parts.map(part => this.piece(from, part.look, typesetter.words.text(part.word), start + part.offset)),
    )
  }

  private piece(segment: number, look: Look, text: string, from: number): Piece {
    const shapes = this.text.shapesOf(segment, look)
    return { look, glyphs: shapes.run(text), unitsPerEm: shapes.unitsPerEm, from, to: from + text.length }
  }

  /** Where glyphs can be cut for borders of segments: behind letters that are drawn as one, which stay with the first. */
  private cutsOf({ glyphs, from, to }: Piece, segment: number, borders: readonly number[]): readonly number[] {
    const clusters = Array.from({ length: glyphs.count }, (_, at) => from + glyphs.clusters[at]!).sort((a, b) => a - b)
    let next = 0
    const cuts = borders.map(border => {
      while (next < clusters.length && clusters[next]! < border) next++
      return clusters[next] ?? to
    })
    for (let at = 1; at < borders.length; at++) {
      if (cuts[at] === borders[at]) continue
      const first = at - 1
      while (cuts[at + 1] !== borders[at + 1]) at++
      const stretch = { start: borders[first]!, end: cuts[at]! }
      for (let each = first; each <= at; each++) this.joined.set(segment + each, stretch)
    }
    return cuts
  }

  /** Keeps the glyphs of some segments, cut where segments begin, and what each is wide. */
  private keep(from: number, to: number, pieces: readonly Piece[]): void {
    const { starts, level } = this.text.analysis
    const bySegment = Array.from({ length: to - from }, (): Omit<SetGlyphs, 'x'>[] => [])
    let segment = from
    for (const piece of pieces) {
      while (starts[segment + 1]! <= piece.from) segment++
      const borders = [piece.from]
      for (let next = segment + 1; next < to && starts[next]! < piece.to; next++) borders.push(starts[next]!)
      borders.push(piece.to)
      const cuts = this.cutsOf(piece, segment, borders)
      for (const [at, glyphs] of cutGlyphs(
        piece.glyphs,
        cuts.map(cut => cut - piece.from),
      ).entries())
        if (glyphs.count > 0)
          bySegment[segment - from + at]!.push({
            look: piece.look,
            glyphs,
            unitsPerEm: piece.unitsPerEm,
            from: cuts[at]!,
            to: cuts[at + 1]!,
            width: widthOf(glyphs, piece),
          })
    }
    for (const [at, own] of bySegment.entries()) {
      let x = 0
      // What runs to the left stands the other way round.
      if (level[from + at]! % 2 === 1) own.reverse()
      this.kept.set(
        from + at,
        own.map(each => {
          const set = { ...each, x }
          x += each.width
          return set
        }),
      )
      this.text.widths[from + at] = x
    }
  }
}

/** Width of cut glyphs in points, letter spacing included. */
function widthOf(glyphs: Glyphs, { look, unitsPerEm }: Piece): number {
  const unit = (look.size * look.scale) / unitsPerEm
  let width = glyphs.count * look.letterSpacing
  for (let glyph = glyphs.start, end = glyph + glyphs.count; glyph < end; glyph++)
    width += glyphs.advances[glyph]! * unit
  return width
}
