import type { Axis, FontHandle, HarfBuzz } from './harfbuzz'
import { WordShapes, type Shaping } from './word-shapes'
import { Words } from './words'

/** Faces by hash, and the shapes of their words. Font files are loaded once, when they are first set in. */
export class Shaper {
  /** What words are numbered by in all that is shaped here. */
  readonly words: Words
  private readonly fonts = new Map<string, FontHandle | null>()
  private readonly shapes = new Map<string, WordShapes>()
  private readonly outlines = new Map<string, string>()

  constructor(
    readonly engine: HarfBuzz,
    private readonly load: (hash: string) => Uint8Array | undefined,
    words: Words = new Words(),
  ) {
    this.words = words
  }

  /** A shaper with the same engine and numbers of words that has shaped nothing yet. */
  withoutShapes(): Shaper {
    return new Shaper(this.engine, this.load, this.words)
  }

  /** Frees the memory of its fonts: nothing that was shaped here may be asked for afterwards. */
  close(): void {
    for (const font of this.fonts.values()) if (font) this.engine.unload(font)
    this.fonts.clear()
    this.shapes.clear()
  }

  /** Null where the file cannot be had: asked for again after `forgetMissing`. */
  font(face: string, axes: readonly Axis[] = []): FontHandle | null {
    const key = face + axisKey(axes)
    const known = this.fonts.get(key)
    if (known !== undefined) return known
    const bytes = this.load(face)
    const font = bytes ? this.engine.load(bytes, axes) : null
    this.fonts.set(key, font)
    return font
  }

  /** Lets go of faces that could not be loaded, with what was made without them. */
  forgetMissing(): void {
    for (const [key, font] of this.fonts) if (!font) this.fonts.delete(key)
    for (const [key, shapes] of this.shapes) if (!shapes.font) this.shapes.delete(key)
  }

  /** The words of a face under a way of shaping. */
  wordShapes(shaping: Shaping): WordShapes {
    const { run } = shaping
    const key =
      `${shaping.face}${axisKey(shaping.axes)}|${run.rightToLeft ? 'r' : 'l'}|` +
      `${run.script}|${run.language}|${run.features.map(each => `${each.tag}=${each.value}`).join(',')}|` +
      `${shaping.transform}|${shaping.corrections.map(pair => `${pair.left}${pair.right}${pair.amount}`).join(' ')}`
    let shapes = this.shapes.get(key)
    if (!shapes)
      this.shapes.set(
        key,
        (shapes = new WordShapes(this.engine, this.font(shaping.face, shaping.axes), shaping, this.words)),
      )
    return shapes
  }

  /** The outline of a glyph as SVG path data in thousandths of an em, y up. */
  outline(face: string, glyph: number, axes: readonly Axis[] = []): string {
    const key = `${face}${axisKey(axes)}/${glyph}`
    let path = this.outlines.get(key)
    if (path === undefined) {
      const font = this.font(face, axes)
      path = font ? scaled(this.engine.outline(font, glyph), 1000 / font.unitsPerEm) : ''
      this.outlines.set(key, path)
    }
    return path
  }
}

const axisKey = (axes: readonly Axis[]): string => axes.map(axis => `@${axis.tag}=${axis.value}`).join('')

function scaled(path: string, factor: number): string {
  return factor === 1
    ? path
    : path.replace(/-?\d+(?:\.\d+)?/g, number => String(Math.round(Number(number) * factor * 10) / 10))
}
