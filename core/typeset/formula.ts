import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'
import { nothing, stretched, type Box } from './formula-box'
import { isInvisible, movesLimits, nameOf, operatorOf } from './formula-operators'
import { readFormulaFonts, type FormulaFonts, type TokenKind } from './formula-fonts'
import { fractionBox, limitsBox, onAxis, rootBox, scriptsBox, tableBox, type Measures } from './formula-arrangements'
import { shifted, type Fragment } from './fragments'
import type { Look, Typesetter } from './look'
import { setString } from './set-glyphs'

/** A formula cannot be set: it nests too deeply or has too many signs. */
export class FormulaError extends Error {}

/** How things are set at a place in the formula: what markup hands on from the outside in. */
interface Setting {
  readonly size: number
  readonly display: boolean
  readonly color: string
  readonly variant: string
  readonly family: string
}

const scriptScale = 0.71
/** Scripts are no smaller, in points, unless the formula is. */
const smallestScript = 5
const deepest = 60
const mostTokens = 4000

const attributeOf = (element: XmlElement, name: string) =>
  element.attributes[name] ?? element.attributes[`math:${name}`]

/** Sets presentation markup of MathML in the faces that the file names for it. */
export class FormulaSetter {
  private depth = 0
  private tokens = 0
  private readonly fonts: FormulaFonts

  /**
   * @param base how text looks that says nothing of itself
   * @param settings the formula's own settings, where its faces and its size stand
   */
  constructor(
    private readonly part: XmlPart,
    settings: XmlPart | null,
    base: Look,
    private readonly typesetter: Typesetter,
  ) {
    this.fonts = readFormulaFonts(settings, base)
  }

  /**
   * The formula in the middle of a box.
   * @throws FormulaError where it is too much
   */
  draw(width: number, height: number): readonly Fragment[] {
    const root = this.part.rootElement
    const display = attributeOf(root, 'display') !== 'inline'
    const box = this.row(root, { size: this.fonts.size, display, color: '', variant: '', family: '' })
    return shifted(box.fragments, (width - box.width) / 2, (height - box.ascent - box.descent) / 2 + box.ascent)
  }

  private children(element: XmlElement): XmlElement[] {
    return [...this.part.elements(element)].filter(each => !/^math:annotation(-xml)?$/.test(each.name))
  }

  private look(kind: TokenKind, setting: Setting): Look {
    return this.fonts.look(this.typesetter, kind, setting)
  }

  private set(element: XmlElement, given: Setting): Box {
    if (++this.depth > deepest) throw new FormulaError('formulas that nest too deeply')
    try {
      return this.element(element, this.said(element, given))
    } finally {
      this.depth--
    }
  }

  /** What an element says of itself and what stands in it. */
  private said(element: XmlElement, given: Setting): Setting {
    const size = attributeOf(element, 'mathsize') ?? attributeOf(element, 'fontsize')
    const display = attributeOf(element, 'displaystyle')
    const level = attributeOf(element, 'scriptlevel')
    const color = attributeOf(element, 'mathcolor') ?? attributeOf(element, 'color')
    const weight = attributeOf(element, 'fontweight')
    const stated = size === undefined ? null : (points(size) ?? (percent(size) ?? 1) * given.size)
    return {
      size: level === '+1' ? this.smaller(given).size : (stated ?? given.size),
      display: display === undefined ? given.display : display === 'true',
      color: color && /^#[0-9a-f]{6}$/i.test(color) ? color : given.color,
      variant: attributeOf(element, 'mathvariant') ?? (weight === 'bold' ? 'bold' : given.variant),
      family: attributeOf(element, 'fontfamily') ?? given.family,
    }
  }

  private smaller(setting: Setting): Setting {
    const size = setting.size * scriptScale
    return { ...setting, size: Math.max(size, Math.min(setting.size, smallestScript)), display: false }
  }

  private element(element: XmlElement, setting: Setting): Box {
    const inner = this.children(element)
    const [first, second, third] = inner
    switch (element.name) {
      case 'math:mi':
      case 'math:mn':
      case 'math:mtext':
      case 'math:ms':
        return this.token(element, setting)
      case 'math:mo':
        return this.operator(element, setting, 'infix')
      case 'math:mspace': {
        const width = attributeOf(element, 'width') ?? '0'
        const ems = /^(-?[\d.]+)em$/.exec(width)
        return { ...nothing, width: ems ? Number(ems[1]) * setting.size : (points(width) ?? 0) }
      }
      case 'math:mfrac':
        return first && second ? this.fraction(first, second, element, setting) : this.row(element, setting)
      case 'math:msqrt':
        return rootBox(this.row(element, setting), null, this.measures(setting))
      case 'math:mroot':
        return first && second
          ? rootBox(
              this.set(first, setting),
              this.set(second, this.smaller(this.smaller(setting))),
              this.measures(setting),
            )
          : this.row(element, setting)
      case 'math:msub':
        return first ? this.scripts(this.set(first, setting), second ?? null, null, setting) : nothing
      case 'math:msup':
        return first ? this.scripts(this.set(first, setting), null, second ?? null, setting) : nothing
      case 'math:msubsup':
        return first ? this.scripts(this.set(first, setting), second ?? null, third ?? null, setting) : nothing
      case 'math:munder':
        return first ? this.limits(first, second ?? null, null, element, setting) : nothing
      case 'math:mover':
        return first ? this.limits(first, null, second ?? null, element, setting) : nothing
      case 'math:munderover':
        return first ? this.limits(first, second ?? null, third ?? null, element, setting) : nothing
      case 'math:mfenced':
        return this.fenced(element, inner, setting)
      case 'math:mtable':
        return this.table(inner, setting)
      case 'math:mphantom':
        return { ...this.row(element, setting), fragments: [] }
      case 'math:semantics':
      case 'math:maction':
        return first ? this.set(first, setting) : nothing
      default:
        return this.row(element, setting)
    }
  }

  private textOf(element: XmlElement): string {
    return this.part.textOf(element.id).replace(/\s+/g, ' ').trim()
  }

  private signs(text: string, look: Look, element: XmlElement): Box {
    if (++this.tokens > mostTokens)
      throw new FormulaError(`formulas of more than ${mostTokens.toLocaleString('en')} signs`)
    const pieces = setString(this.typesetter, text, look)
    if (pieces.length === 0) return nothing
    return {
      width: pieces.reduce((sum, piece) => sum + piece.width, 0),
      // What letters reach, not what lines need: bars, roots and scripts stand by it.
      ascent: (look.face.measures.capHeight * look.size) / 1000,
      descent: /[gjpqy()[\]{}|∑∏∫,;Q]/.test(text) ? look.size * 0.22 : 0,
      fragments: [{ kind: 'glyphs', pieces, text, part: this.part.path, node: element.id, x: 0, y: 0 }],
    }
  }

  private token(element: XmlElement, setting: Setting): Box {
    const text = this.textOf(element)
    if (text === '' || isInvisible(text)) return nothing
    const kind: TokenKind =
      element.name === 'math:mn'
        ? 'number'
        : element.name === 'math:mi'
          ? [...text].length === 1
            ? 'variable'
            : 'function'
          : 'text'
    const box = this.signs(text, this.look(kind, setting), element)
    return kind === 'function' ? { ...box, operator: { text, how: nameOf } } : box
  }

  private operator(element: XmlElement, setting: Setting, form: 'prefix' | 'infix' | 'postfix'): Box {
    const text = this.textOf(element)
    if (text === '' || isInvisible(text)) return nothing
    const how = operatorOf(text, form)
    const large = how.large && setting.display
    const own = this.signs(
      text,
      this.look('operator', large ? { ...setting, size: setting.size * 1.4 } : setting),
      element,
    )
    const box = how.large ? onAxis(own, this.axis(setting)) : own
    return {
      ...box,
      operator: { text, how: attributeOf(element, 'stretchy') === 'false' ? { ...how, stretches: false } : how },
    }
  }

  /** How high above the baseline bars and signs have their middle. */
  private axis(setting: Setting): number {
    return (this.look('operator', setting).face.measures.xHeight * setting.size) / 2000
  }

  private measures(setting: Setting): Measures {
    const { underlineThickness } = this.look('operator', setting).face.measures
    return {
      ...setting,
      axis: this.axis(setting),
      thickness: Math.max((underlineThickness * setting.size) / 1000, 0.35),
    }
  }

  private row(element: XmlElement, setting: Setting): Box {
    const inner = this.children(element)
    const boxes = inner.map((each, index) => {
      if (each.name !== 'math:mo') return this.set(each, setting)
      const before = inner[index - 1]
      // In front of a term: first of all, or behind another operator that opens or stands between.
      const opens = !before || (before.name === 'math:mo' && !/^[)\]}|!′]$/.test(this.textOf(before)))
      const form =
        opens && inner.length > 1 ? 'prefix' : index === inner.length - 1 && inner.length > 1 ? 'postfix' : 'infix'
      return this.operator(each, this.said(each, setting), form)
    })
    return this.beside(stretched(boxes, this.axis(setting)), setting, inner.length > 1)
  }

  private beside(boxes: readonly Box[], setting: Setting, spaced: boolean): Box {
    let x = 0
    let [ascent, descent] = [0, 0]
    const fragments: Fragment[] = []
    for (const [index, box] of boxes.entries()) {
      // Scripts have no room for spaces between signs: printers set them solid.
      const room = spaced && box.operator && setting.size >= this.fonts.size * scriptScale * 1.01 ? setting.size : 0
      x += room * (box.operator?.how.before ?? 0)
      fragments.push(...shifted(box.fragments, x, 0))
      // A function stands apart from a term, and not from what fences one in.
      const close = box.operator?.how.named && boxes[index + 1]?.operator?.how.stretches
      x += box.width + (close ? 0 : room * (box.operator?.how.after ?? 0))
      ascent = Math.max(ascent, box.ascent)
      descent = Math.max(descent, box.descent)
    }
    const [only] = boxes
    return {
      width: x,
      ascent,
      descent,
      fragments,
      ...(boxes.length === 1 && only!.operator ? { operator: only!.operator } : {}),
    }
  }

  private fraction(above: XmlElement, below: XmlElement, element: XmlElement, setting: Setting): Box {
    const inner = setting.display ? { ...setting, display: false } : this.smaller(setting)
    const ruled = !/^0/.test(attributeOf(element, 'linethickness') ?? '')
    return fractionBox(this.set(above, inner), this.set(below, inner), ruled, this.measures(setting))
  }

  private scripts(base: Box, below: XmlElement | null, above: XmlElement | null, setting: Setting): Box {
    const inner = this.smaller(setting)
    return scriptsBox(base, below && this.set(below, inner), above && this.set(above, inner), setting.size, inner.size)
  }

  private limits(
    of: XmlElement,
    below: XmlElement | null,
    above: XmlElement | null,
    element: XmlElement,
    setting: Setting,
  ): Box {
    const base = this.set(of, setting)
    if (base.operator && movesLimits(base.operator.text) && !setting.display)
      return this.scripts(base, below, above, setting)
    const accent = attributeOf(element, 'accent') === 'true' || attributeOf(element, 'accentunder') === 'true'
    const inner = accent ? setting : this.smaller(setting)
    const gap = setting.size * (accent ? 0.02 : 0.14)
    return limitsBox(base, below && this.set(below, inner), above && this.set(above, inner), gap)
  }

  private fenced(element: XmlElement, inner: readonly XmlElement[], setting: Setting): Box {
    const separators = [...(attributeOf(element, 'separators') ?? ',').replace(/\s/g, '')]
    const sign = (text: string): Box => {
      const how = operatorOf(text, 'postfix')
      return text === ''
        ? nothing
        : { ...this.signs(text, this.look('operator', setting), element), operator: { text, how } }
    }
    const boxes = inner.flatMap((each, index) => [
      ...(index > 0 && separators.length > 0 ? [sign(separators[Math.min(index, separators.length) - 1]!)] : []),
      this.set(each, setting),
    ])
    const all = [sign(attributeOf(element, 'open') ?? '('), ...boxes, sign(attributeOf(element, 'close') ?? ')')]
    return { ...this.beside(stretched(all, this.axis(setting)), setting, true), operator: undefined }
  }

  private table(rows: readonly XmlElement[], setting: Setting): Box {
    const inner = { ...setting, display: false }
    const cells = rows.map(row => {
      const list = row.name === 'math:mtr' || row.name === 'math:mlabeledtr' ? this.children(row) : [row]
      return list.map(cell => this.row(cell, inner))
    })
    return tableBox(cells, this.measures(setting))
  }
}
