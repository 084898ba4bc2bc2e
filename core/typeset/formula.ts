import { points } from '../document/lengths'
import { percent } from '../style/properties'
import type { XmlElement, XmlPart } from '../xml/tree'
import { nothing, stretched, type Box } from './formula-box'
import { isInvisible, movesLimits, nameOf, operatorOf } from './formula-operators'
import { readFormulaFonts, type FormulaFonts, type TokenKind } from './formula-fonts'
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
        return this.root(this.row(element, setting), null, setting)
      case 'math:mroot':
        return first && second
          ? this.root(this.set(first, setting), this.set(second, this.smaller(this.smaller(setting))), setting)
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
    const box = how.large ? this.onAxis(own, setting) : own
    return {
      ...box,
      operator: { text, how: attributeOf(element, 'stretchy') === 'false' ? { ...how, stretches: false } : how },
    }
  }

  /** How high above the baseline bars and signs have their middle. */
  private axis(setting: Setting): number {
    return (this.look('operator', setting).face.measures.xHeight * setting.size) / 2000
  }

  /** Moved so that its middle is that of signs. */
  private onAxis(box: Box, setting: Setting): Box {
    const half = (box.ascent + box.descent) / 2
    const up = this.axis(setting) + half - box.ascent
    return {
      ...box,
      ascent: box.ascent + up,
      descent: box.descent - up,
      fragments: shifted(box.fragments, 0, -up),
    }
  }

  private thickness(setting: Setting): number {
    return Math.max((this.look('operator', setting).face.measures.underlineThickness * setting.size) / 1000, 0.35)
  }

  private rule(x: number, y: number, width: number, setting: Setting): Fragment {
    const high = this.thickness(setting)
    return {
      kind: 'path',
      data: `M0 0 L${width} 0 L${width} ${high} L0 ${high} Z`,
      fill: setting.color || '#000000',
      fillOpacity: 1,
      stroke: '',
      strokeWidth: 0,
      strokeOpacity: 1,
      dash: [],
      x,
      y: y - high / 2,
      width,
      height: high,
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
    const [upper, lower] = [this.set(above, inner), this.set(below, inner)]
    const gap = setting.size * (setting.display ? 0.18 : 0.1)
    const pad = setting.size * 0.12
    const width = Math.max(upper.width, lower.width) + pad * 2
    const axis = this.axis(setting)
    const half = this.thickness(setting) / 2
    const up = axis + half + gap + upper.descent
    const down = lower.ascent + gap + half - axis
    const ruled = !/^0/.test(attributeOf(element, 'linethickness') ?? '')
    return {
      width,
      ascent: up + upper.ascent,
      descent: down + lower.descent,
      fragments: [
        ...shifted(upper.fragments, (width - upper.width) / 2, -up),
        ...(ruled ? [this.rule(pad / 2, -axis, width - pad, setting)] : []),
        ...shifted(lower.fragments, (width - lower.width) / 2, down),
      ],
    }
  }

  /** A root: its sign is drawn around what it is of, whatever its height. */
  private root(inside: Box, degree: Box | null, setting: Setting): Box {
    const thick = this.thickness(setting)
    const gap = setting.size * 0.12
    const top = Math.max(inside.ascent, setting.size * 0.5) + gap + thick
    const bottom = inside.descent + setting.size * 0.06
    const sign = setting.size * 0.55
    const lead = degree ? Math.max(degree.width - sign * 0.3, 0) : 0
    const number = (value: number) => String(Math.round(value * 100) / 100)
    const height = top + bottom
    const width = sign + inside.width + gap
    const at = (x: number, y: number) => `${number(x)} ${number(y)}`
    const data =
      `M${at(0, height * 0.6)} L${at(sign * 0.2, height * 0.52)} L${at(sign * 0.5, height)} ` +
      `L${at(sign, thick / 2)} L${at(width, thick / 2)}`
    return {
      width: lead + width,
      ascent: Math.max(top, degree ? degree.ascent + degree.descent + height * 0.45 - bottom : 0),
      descent: bottom,
      fragments: [
        {
          kind: 'path',
          data,
          fill: '',
          fillOpacity: 1,
          stroke: setting.color || '#000000',
          strokeWidth: thick,
          strokeOpacity: 1,
          dash: [],
          x: lead,
          y: -top,
          width,
          height,
        },
        ...shifted(inside.fragments, lead + sign, 0),
        ...(degree
          ? shifted(degree.fragments, Math.max(sign * 0.3 - degree.width, 0), bottom - height * 0.5 - degree.descent)
          : []),
      ],
    }
  }

  private scripts(base: Box, below: XmlElement | null, above: XmlElement | null, setting: Setting): Box {
    const inner = this.smaller(setting)
    const lower = below && this.set(below, inner)
    const upper = above && this.set(above, inner)
    let up = upper
      ? Math.max(setting.size * 0.38, base.ascent - inner.size * 0.35, upper.descent + setting.size * 0.12)
      : 0
    const down = lower ? Math.max(setting.size * 0.18, base.descent + inner.size * 0.12) : 0
    // Both keep clear of one another.
    if (upper && lower) up = Math.max(up, lower.ascent - down + upper.descent + setting.size * 0.12)
    const x = base.width + setting.size * 0.04
    return {
      width: x + Math.max(lower?.width ?? 0, upper?.width ?? 0),
      ascent: Math.max(base.ascent, upper ? up + upper.ascent : 0),
      descent: Math.max(base.descent, lower ? down + lower.descent : 0),
      fragments: [
        ...base.fragments,
        ...(upper ? shifted(upper.fragments, x, -up) : []),
        ...(lower ? shifted(lower.fragments, x, down) : []),
      ],
      ...(base.operator ? { operator: base.operator } : {}),
    }
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
    const lower = below && this.set(below, inner)
    const upper = above && this.set(above, inner)
    const gap = setting.size * (accent ? 0.02 : 0.14)
    const width = Math.max(base.width, lower?.width ?? 0, upper?.width ?? 0)
    const up = upper ? base.ascent + gap + upper.descent : 0
    const down = lower ? base.descent + gap + lower.ascent : 0
    const middle = (box: Box) => (width - box.width) / 2
    return {
      width,
      ascent: upper ? up + upper.ascent : base.ascent,
      descent: lower ? down + lower.descent : base.descent,
      fragments: [
        ...shifted(base.fragments, middle(base), 0),
        ...(upper ? shifted(upper.fragments, middle(upper), -up) : []),
        ...(lower ? shifted(lower.fragments, middle(lower), down) : []),
      ],
      ...(base.operator ? { operator: base.operator } : {}),
    }
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
    const columns = Math.max(0, ...cells.map(row => row.length))
    const widths = Array.from({ length: columns }, (_, at) => Math.max(0, ...cells.map(row => row[at]?.width ?? 0)))
    const between = setting.size * 0.6
    const fragments: Fragment[] = []
    let y = 0
    for (const row of cells) {
      const ascent = Math.max(setting.size * 0.7, ...row.map(cell => cell.ascent))
      const descent = Math.max(setting.size * 0.2, ...row.map(cell => cell.descent))
      let x = 0
      row.forEach((cell, at) => {
        fragments.push(...shifted(cell.fragments, x + (widths[at]! - cell.width) / 2, y + ascent))
        x += widths[at]! + between
      })
      y += ascent + descent + setting.size * 0.3
    }
    const height = Math.max(y - setting.size * 0.3, 0)
    const ascent = height / 2 + this.axis(setting)
    return {
      width: widths.reduce((sum, each) => sum + each, 0) + between * Math.max(columns - 1, 0),
      ascent,
      descent: height - ascent,
      fragments: shifted(fragments, 0, -ascent),
    }
  }
}
