import type { Slot } from '../document/font-attributes'
import { covers, needsNoGlyph, type FaceRecord } from '../font/face'
import { isPrivateUse, isSymbolFamily, symbolMeaning } from '../font/symbol-encodings'
import type { FaceRequest, Library, Resolution } from '../font/library'
import { ownLineHeights, type LineHeights } from '../font/line-heights'
import type { CoveredScript } from '../font/measure/covered-scripts'
import type { TextStyle } from '../style/cascade'
import { externalLeading } from '../document/composition-settings'
import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { Axis, Feature } from './harfbuzz'
import type { Shaper } from './shaper'
import { lineMark, textPosition, type TextLineMark } from './text-marks'
import type { Transform } from './text-transform'
import type { KerningPair, WordShapes } from './word-shapes'
import { scriptCodes } from './unicode-tables'
import type { Words } from './words'

/**
 * How characters are set: the face that shows them and all that shaping and drawing need. Looks with the same values
 * are one object, whatever styles they come from: what was set in one is set in all. Lengths in points.
 */
export interface Look {
  readonly id: number
  readonly status: Resolution['status']
  readonly face: FaceRecord
  readonly size: number
  /** Added after every glyph. */
  readonly letterSpacing: number
  /** Horizontal scale, 1 for none. */
  readonly scale: number
  /** How far above the baseline. */
  readonly rise: number
  readonly color: string
  /** No colour is said: black, or white on what is dark (style:use-window-font-color, ODF 1.4 part 3, 20.395). */
  readonly automatic: boolean
  readonly background: string
  readonly underline: TextLineMark | null
  readonly strike: TextLineMark | null
  readonly outline: boolean
  readonly shadow: boolean
  readonly hidden: boolean
  /** How high lines are of what the file names, or of the face that shows it. */
  readonly lines: LineHeights
  /** Its lines have the gap that the font asks for. */
  readonly lineGap: boolean
  /** Heights of its lines are rounded as wholes. */
  readonly wholeHeights: boolean
  readonly transform: Transform
  /** Lower-case letters are set as small capitals made from capitals, as the face has none of its own. */
  readonly madeSmallCaps: boolean
  /** Of an absent face: single scripts that stand-ins of their own show, by the faces' hashes. */
  readonly scriptFaces: readonly { readonly script: CoveredScript; readonly hash: string }[]
  /** The symbol family that the text was written in, where its face is absent: its codes mean other signs; '' for none. */
  readonly symbols: string
  readonly hyphenate: boolean
  readonly language: string
  readonly features: readonly Feature[]
  readonly axes: readonly Axis[]
  readonly corrections: readonly KerningPair[]
  /** Lines are built from these, of the face at its size, rise included. */
  readonly ascent: number
  readonly descent: number
  /** Shapes of its words by script and direction: filled by the typesetter. */
  readonly shapes: (WordShapes | undefined)[]
  /** Words that one face alone cannot set. */
  readonly mixed: Map<number, readonly MixedPart[]>
}

/** Whether words of a look must be looked at letter by letter: some may be set otherwise than the look says. */
export const mixes = (look: Look): boolean => look.madeSmallCaps || look.scriptFaces.length > 0 || look.symbols !== ''

const scriptPatterns = new Map<CoveredScript, RegExp>()
function scriptPattern(script: CoveredScript): RegExp {
  let pattern = scriptPatterns.get(script)
  if (!pattern) scriptPatterns.set(script, (pattern = new RegExp(`\\p{Script=${script}}`, 'u')))
  return pattern
}

/** Part of a word in a look of its own, and where in the word it starts. */
export interface MixedPart {
  readonly look: Look
  readonly word: number
  readonly offset: number
}

/**
 * Small capitals made from capitals are this much smaller (CSS Fonts 4 section 6.4 leaves it open; browsers use
 * about this).
 */
const smallCapitalScale = 0.8

/** Resolves styles to looks. One per library; keeps everything it has set, whatever document asked for it. */
export class Typesetter {
  private readonly styles = new WeakMap<TextStyle, Partial<Record<Slot, Look>>>()
  private readonly looks = new Map<string, Look>()
  private readonly derived = new Map<string, Look>()
  private count = 0

  constructor(
    readonly library: Library,
    readonly shaper: Shaper,
  ) {}

  get words(): Words {
    return this.shaper.words
  }

  /** A typesetter with the same library and fonts that has set nothing yet; words keep their numbers. */
  withoutShapes(): Typesetter {
    return new Typesetter(this.library, this.shaper.withoutShapes())
  }

  /** Lets go of faces whose files could not be had, so that they are asked for again. */
  forgetMissing(): void {
    this.shaper.forgetMissing()
    for (const look of [...this.looks.values(), ...this.derived.values()]) {
      look.shapes.length = 0
      look.mixed.clear()
    }
  }

  look(style: TextStyle, slot: Slot): Look {
    let looks = this.styles.get(style)
    if (!looks) this.styles.set(style, (looks = {}))
    return (looks[slot] ??= this.makeLook(style, slot))
  }

  private intern(values: Omit<Look, 'id' | 'shapes' | 'mixed' | 'ascent' | 'descent'>): Look {
    const { face, ...others } = values
    const key = `${face.hash}|${JSON.stringify(others)}`
    let look = this.looks.get(key)
    if (!look) {
      const { above, below, gap } = values.lines
      const ascent = rounded(((above + (values.lineGap ? gap : 0)) * values.size) / 1000)
      const whole = rounded(((above + below + (values.lineGap ? gap : 0)) * values.size) / 1000)
      const descent = values.wholeHeights ? whole - ascent : rounded((below * values.size) / 1000)
      // Written out, so that all looks are alike to the machine: they are read in its innermost loops.
      look = {
        id: this.count++,
        status: values.status,
        face,
        size: values.size,
        letterSpacing: values.letterSpacing,
        scale: values.scale,
        rise: values.rise,
        color: values.color,
        automatic: values.automatic,
        background: values.background,
        underline: values.underline,
        strike: values.strike,
        outline: values.outline,
        shadow: values.shadow,
        hidden: values.hidden,
        transform: values.transform,
        madeSmallCaps: values.madeSmallCaps,
        scriptFaces: values.scriptFaces,
        symbols: values.symbols,
        lines: values.lines,
        lineGap: values.lineGap,
        wholeHeights: values.wholeHeights,
        hyphenate: values.hyphenate,
        language: values.language,
        features: values.features,
        axes: values.axes,
        corrections: values.corrections,
        shapes: [],
        mixed: new Map(),
        ascent: ascent + values.rise,
        descent: descent - values.rise,
      }
      this.looks.set(key, look)
    }
    return look
  }

  /** A look for note citations where the file leaves their style to the reader: raised and smaller. */
  raised(look: Look): Look {
    return this.derive(look, 'raised', { size: look.size * 0.58, rise: look.rise + look.size * 0.33 })
  }

  /** A look for signs its own face lacks: the same in all but the face. */
  substitute(look: Look, face: FaceRecord): Look {
    return this.derive(look, face.hash, { face, lines: ownLineHeights(face.measures) })
  }

  /** The same look at another size, with what hangs on size: for drop caps. */
  enlarged(look: Look, size: number): Look {
    return this.derive(look, `size ${size}`, { size, rise: 0 })
  }

  /** The same look for text of another language. */
  inLanguage(look: Look, language: string): Look {
    return this.derive(look, `language ${language}`, { language })
  }

  /** The look of a sign that stands in a face, size and colour of its own, whatever else text has; '' is no colour. */
  inFace(look: Look, request: FaceRequest, size: number, color: string): Look {
    const { status, face, lines } = this.library.resolve(request)
    return this.derive(look, JSON.stringify(['in', face.hash, status, lines, size, color]), {
      status,
      face,
      lines,
      size,
      rise: 0,
      letterSpacing: 0,
      ...(color === '' ? {} : { color, automatic: false }),
    })
  }

  private smallCapitals(look: Look): Look {
    return this.derive(look, 'small', {
      size: look.size * smallCapitalScale,
      transform: 'uppercase',
      madeSmallCaps: false,
    })
  }

  private derive(look: Look, how: string, change: Partial<Look>): Look {
    const key = `${look.id}|${how}`
    let other = this.derived.get(key)
    if (!other) {
      const { id: _id, shapes: _shapes, mixed: _mixed, ascent: _ascent, descent: _descent, ...values } = look
      this.derived.set(key, (other = this.intern({ ...values, ...change })))
    }
    return other
  }

  private makeLook(style: TextStyle, slot: Slot): Look {
    const { slots, shared } = style.effective
    const values = slots[slot]
    const request: FaceRequest = {
      family: values.font.family,
      styleName: values.font.styleName,
      weight: values.weight,
      italic: values.posture !== 'normal',
      generic: values.font.generic,
      pitch: values.font.pitch,
      charset: values.font.charset,
      slot,
    }
    const resolution = this.library.resolve(request)
    const { face } = resolution
    const scriptFaces =
      resolution.status === 'absent'
        ? this.library.scriptStandIns(request).map(each => ({ script: each.script, hash: each.face.hash }))
        : []
    const position = textPosition(shared['style:text-position'], values.size, resolution.lines)
    const size = values.size * position.scale
    const automatic = !/^#[0-9a-f]{6}$/i.test(shared['fo:color']) || shared['style:use-window-font-color'] === 'true'
    const color = automatic ? '#000000' : shared['fo:color']
    const tracking = points(shared['fo:letter-spacing']) ?? 0
    const features = new Map(parseFeatures(values.font.features))
    for (const [tag, value] of Object.entries(style.ruled.features)) features.set(tag, value)
    if (shared['style:letter-kerning'] !== 'true') features.set('kern', 0)
    // Letters that are set apart are not tied together (CSS Text 3 section 8.2).
    if (tracking !== 0) for (const tag of ['liga', 'clig']) if (!features.has(tag)) features.set(tag, 0)
    const smallCaps = shared['fo:font-variant'] === 'small-caps'
    const ownSmallCaps = smallCaps && (this.shaper.font(face.hash)?.features.has('smcp') ?? false)
    if (ownSmallCaps) features.set('smcp', 1)
    const transform = shared['fo:text-transform']
    return this.intern({
      status: resolution.status,
      face,
      size,
      rise: position.rise,
      // The left one of a corrected pair moves what follows it.
      letterSpacing: tracking + (style.pair?.spacing ?? 0),
      scale: percent(shared['style:text-scale']) ?? 1,
      color,
      automatic,
      background: /^#[0-9a-f]{6}$/i.test(shared['fo:background-color']) ? shared['fo:background-color'] : '',
      transform:
        transform === 'uppercase' || transform === 'lowercase' || transform === 'capitalize' ? transform : 'none',
      madeSmallCaps: smallCaps && !ownSmallCaps,
      scriptFaces,
      symbols: resolution.status !== 'present' && isSymbolFamily(values.font.family) ? values.font.family : '',
      hyphenate: shared['fo:hyphenate'] === 'true',
      hidden: shared['text:display'] === 'none',
      lines: resolution.lines,
      lineGap: externalLeading(style.settings),
      wholeHeights: style.settings.PrinterIndependentLayout,
      language: values.language,
      underline: lineMark(
        shared['style:text-underline-style'],
        shared['style:text-underline-type'],
        shared['style:text-underline-color'],
        shared['style:text-underline-width'],
        color,
        face.measures.underlinePosition - face.measures.underlineThickness / 2,
        face.measures.underlineThickness,
        size,
      ),
      strike: lineMark(
        shared['style:text-line-through-style'],
        shared['style:text-line-through-type'],
        '',
        '',
        color,
        face.measures.strikePosition - face.measures.strikeThickness / 2,
        face.measures.strikeThickness,
        size,
      ),
      outline: shared['style:text-outline'] === 'true',
      shadow: shared['fo:text-shadow'] !== 'none' && shared['fo:text-shadow'] !== '',
      features: [...features].map(([tag, value]) => ({ tag, value })),
      axes: Object.entries(style.ruled.axes).map(([tag, value]) => ({ tag, value })),
      corrections: style.rules.kerning
        .filter(pair => pair.family === face.family && (pair.style === undefined || pair.style === face.style))
        // What is said of the face itself comes before what is said of its family: the first that fits is taken.
        .sort((one, other) => Number(one.style === undefined) - Number(other.style === undefined))
        .map(({ left, right, amount }) => ({ left, right, amount })),
    })
  }

  /** The shapes of a look's words in a script (an index of the script table) and direction. */
  shapes(look: Look, script: number, rightToLeft: boolean): WordShapes {
    const key = script * 2 + (rightToLeft ? 1 : 0)
    return (look.shapes[key] ??= this.shaper.wordShapes({
      face: look.face.hash,
      axes: look.axes,
      transform: look.transform,
      corrections: look.corrections,
      run: { rightToLeft, script: scriptCodes[script]!, language: look.language, features: look.features },
    }))
  }

  /** A word in the parts that different looks set: signs its face lacks, small capitals that are made. */
  mixed(look: Look, word: number): readonly MixedPart[] {
    let parts = look.mixed.get(word)
    if (!parts) look.mixed.set(word, (parts = this.split(look, this.words.text(word))))
    return parts
  }

  private split(look: Look, text: string): MixedPart[] {
    const parts: { look: Look; text: string; offset: number }[] = []
    let offset = 0
    for (const written of text) {
      const character = (look.symbols !== '' && symbolMeaning(look.symbols, written.codePointAt(0)!)) || written
      const code = character.codePointAt(0)!
      let own = look.madeSmallCaps
        ? character !== character.toUpperCase()
          ? this.smallCapitals(look)
          : this.derive(look, 'plain', { madeSmallCaps: false })
        : look
      const chosen =
        look.scriptFaces.length === 0
          ? undefined
          : look.scriptFaces.find(each => scriptPattern(each.script).test(character))
      const chosenFace = chosen && this.library.byHash(chosen.hash)
      if (chosenFace && covers(chosenFace, code)) own = this.substitute(own, chosenFace)
      else if (!needsNoGlyph(code) && !isPrivateUse(code) && !covers(own.face, code)) {
        const face = this.library.forGlyph(code, own.face)
        if (face) own = this.substitute(own, face)
      }
      const last = parts[parts.length - 1]
      // Marks stay with the letter before them, whichever face has it.
      if (last && (last.look === own || /^\p{M}$/u.test(character))) last.text += character
      else parts.push({ look: own, text: character, offset })
      offset += written.length
    }
    return parts.map(part => ({ look: part.look, word: this.words.number(part.text), offset: part.offset }))
  }
}

/**
 * Heights of lines, and what of them is above the baseline, come in twentieths of a point: so the pages of files that tell
 * where theirs ended come out best.
 */
const rounded = (length: number): number => Math.round(length * 20) / 20

/**
 * Features behind a colon in a font's name, as real files write them: tags joined by &, with “-” before for off and
 * “=” and a number behind.
 */
export function parseFeatures(text: string): (readonly [string, number])[] {
  return text.split(/[&,;]/).flatMap(piece => {
    const match = /^\s*([+-]?)([A-Za-z0-9]{4})(?:=(\d{1,3}))?\s*$/.exec(piece)
    return match ? [[match[2]!, match[1] === '-' ? 0 : Number(match[3] ?? 1)] as const] : []
  })
}
