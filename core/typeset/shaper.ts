import { Blob, Buffer, Direction, Face, Feature, Font, shape } from 'harfbuzzjs'

/** Glyphs of a word, set at 1 pt: multiply by the size. Clusters are UTF-16 offsets into the word. */
export interface ShapedWord {
  readonly glyphs: Uint32Array
  readonly clusters: Uint32Array
  /** Advances and offsets in ems. */
  readonly advances: Float32Array
  readonly xOffsets: Float32Array
  readonly yOffsets: Float32Array
  readonly width: number
}

interface LoadedFace { readonly font: Font, readonly words: Map<string, Map<string, ShapedWord>>, readonly outlines: Map<number, string>, readonly unitsPerEm: number }

export interface ShapeOptions {
  readonly rightToLeft: boolean
  /** BCP 47. */
  readonly language: string
  readonly kerning: boolean
}

/**
 * Shapes words with HarfBuzz and keeps what it shaped: text repeats its words, and shaping is what costs.
 * Font files are loaded once, by hash, from what `load` gives.
 */
export class Shaper {
  private readonly faces = new Map<string, LoadedFace | null>()
  private readonly buffer = new Buffer()
  private readonly unkerned = [Feature.fromString('kern=0')!]

  constructor(private readonly load: (hash: string) => Uint8Array | undefined) {}

  /** Whether the face's file is there. Faces that are asked for and missing are tried again after `forget`. */
  has(hash: string): boolean { return this.loaded(hash) !== null }

  /** Lets go of faces that could not be loaded, so that they are asked for again. */
  forgetMissing(): void { for (const [hash, face] of this.faces) if (!face) this.faces.delete(hash) }

  private loaded(hash: string): LoadedFace | null {
    const known = this.faces.get(hash)
    if (known !== undefined) return known
    const bytes = this.load(hash)
    if (!bytes) { this.faces.set(hash, null); return null }
    const face = new Face(new Blob(bytes))
    const loaded: LoadedFace = { font: new Font(face), words: new Map(), outlines: new Map(), unitsPerEm: face.upem }
    this.faces.set(hash, loaded)
    return loaded
  }

  /** The words of one face under some options: look words up here, a map per option set. */
  words(hash: string, options: ShapeOptions): (word: string) => ShapedWord {
    const face = this.loaded(hash)
    if (!face) return word => missing(word)
    const key = `${options.rightToLeft ? 'r' : 'l'}${options.kerning ? 'k' : '-'}${options.language}`
    let words = face.words.get(key)
    if (!words) face.words.set(key, words = new Map())
    const cache = words
    return (word) => {
      let shaped = cache.get(word)
      if (!shaped) cache.set(word, shaped = this.shapeWord(face, word, options))
      return shaped
    }
  }

  private shapeWord(face: LoadedFace, word: string, options: ShapeOptions): ShapedWord {
    const { buffer } = this
    buffer.reset()
    buffer.addText(word)
    buffer.setDirection(options.rightToLeft ? Direction.RTL : Direction.LTR)
    if (options.language) buffer.setLanguage(options.language)
    buffer.guessSegmentProperties()
    buffer.setDirection(options.rightToLeft ? Direction.RTL : Direction.LTR)
    shape(face.font, buffer, options.kerning ? undefined : this.unkerned)
    const infos = buffer.getGlyphInfos()
    const positions = buffer.getGlyphPositions()
    const count = infos.length
    const shaped = { glyphs: new Uint32Array(count), clusters: new Uint32Array(count), advances: new Float32Array(count), xOffsets: new Float32Array(count), yOffsets: new Float32Array(count), width: 0 }
    const em = face.unitsPerEm
    for (let index = 0; index < count; index++) {
      const position = positions[index]!
      shaped.glyphs[index] = infos[index]!.codepoint
      shaped.clusters[index] = infos[index]!.cluster
      shaped.advances[index] = position.xAdvance / em
      shaped.xOffsets[index] = position.xOffset / em
      shaped.yOffsets[index] = position.yOffset / em
      shaped.width += position.xAdvance / em
    }
    return shaped
  }

  /** The outline of a glyph as SVG path data in ems of a thousand units, y up. */
  outline(hash: string, glyph: number): string {
    const face = this.loaded(hash)
    if (!face) return ''
    let path = face.outlines.get(glyph)
    if (path === undefined) {
      const scale = 1000 / face.unitsPerEm
      path = face.font.glyphToJson(glyph).map(command => command.type + command.values.map(value => Math.round(value * scale * 10) / 10).join(' ')).join('')
      face.outlines.set(glyph, path)
    }
    return path
  }
}

/** What a word takes where not even a stand-in could be loaded: half an em a sign, nothing drawn. */
function missing(word: string): ShapedWord {
  const count = word.length
  return {
    glyphs: new Uint32Array(count), clusters: Uint32Array.from({ length: count }, (_, index) => index), advances: new Float32Array(count).fill(0.5),
    xOffsets: new Float32Array(count), yOffsets: new Float32Array(count), width: count * 0.5,
  }
}
