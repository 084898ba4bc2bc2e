import { kinds } from './analysis'
import type { Look } from './look'
import type { SetText } from './setting'
import { lacksGlyphs } from './word-shapes'

/** How far a stretch of text reaches from its baseline, in points; `object` and `hangs`: how far frames in it reach above and below. */
export interface Extent {
  readonly ascent: number
  readonly descent: number
  readonly object: number
  readonly hangs: number
}

/**
 * Highest and deepest of the looks in a stretch of text, in points from the baseline, and how far frames in it reach above
 * and below that.
 */
export function extentOf(text: SetText, from: number, to: number): Extent {
  const { analysis, looks } = text
  let ascent = 0
  let descent = 0
  let object = 0
  let hangs = 0
  let previous: Look | null = null
  // A break has no height: what stands before it makes its line's. It makes that of a line where nothing else stands.
  let alone: Look | null = null
  for (let at = text.segmentAt(from); at < analysis.segments && analysis.starts[at]! < to; at++) {
    const look = looks[analysis.run[at]!]!
    if (analysis.kind[at] === kinds.anchor || look.hidden) continue
    if (analysis.kind[at] === kinds.lineBreak) {
      alone = look
      continue
    }
    if (analysis.kind[at] === kinds.object) {
      const { inline } = analysis.runs[analysis.run[at]!]!
      if (inline.kind === 'frame') {
        const { height, below } = text.frameSize(inline.frame)
        const drop = below(look.ascent, look.descent)
        object = Math.max(object, height - drop)
        hangs = Math.max(hangs, drop)
        continue
      }
    }
    if (look !== previous) {
      ascent = Math.max(ascent, look.ascent)
      descent = Math.max(descent, look.descent)
      previous = look
    }
    if (
      analysis.kind[at] === kinds.word &&
      (look.scriptFaces.length > 0 || (text.shapesOf(at, look).flags[analysis.word[at]!]! & lacksGlyphs) !== 0)
    ) {
      for (const part of text.typesetter.mixed(look, analysis.word[at]!)) {
        ascent = Math.max(ascent, part.look.ascent)
        descent = Math.max(descent, part.look.descent)
      }
    }
  }
  if (alone !== null && previous === null && object === 0 && hangs === 0)
    return { ascent: alone.ascent, descent: alone.descent, object, hangs }
  return { ascent, descent, object, hangs }
}
