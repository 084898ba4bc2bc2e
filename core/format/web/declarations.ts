import type { Effective } from '../../style/effective'
import type { ParagraphStyle } from '../../style/cascade'
import { percent } from '../../style/properties'
import { points } from '../../document/lengths'
import { borderColor, borderWidths, edges } from '../../typeset/geometry'
import type { Look } from '../../typeset/look'
import type { TextLineMark } from '../../typeset/text-marks'
import type { Slot } from '../../document/font-attributes'

/** What CSS says of something: property to value. */
export type Declarations = ReadonlyMap<string, string>

/** How lengths in points are written: as points, or as multiples of the size of the text around all. */
export type Unit = (points: number) => string

const short = (value: number) => String(Math.round(value * 1000) / 1000)
export const inPoints: Unit = value => `${short(value)}pt`
/** In rem of a size: readers of books enlarge and narrow their text. */
export const inRem =
  (size: number): Unit =>
  value =>
    value === 0 ? '0' : `${short(value / size)}rem`

/** A name as CSS takes it (CSS Values 4, 6.1). */
export const quoted = (name: string) => `"${name.replace(/["\\]/g, '\\$&').replace(/[\r\n]+/g, ' ')}"`

const lineStyles: Readonly<Record<TextLineMark['pattern'], string>> = {
  solid: 'solid',
  double: 'double',
  dotted: 'dotted',
  dashed: 'dashed',
  wave: 'wavy',
}

/**
 * How text looks, in terms of CSS: what it is effectively set as, whichever layer said it.
 * @param families the families that are tried, first to last, as CSS takes them
 */
export function textDeclarations(
  look: Look,
  effective: Effective,
  slot: Slot,
  families: string,
  unit: Unit,
): Map<string, string> {
  const { shared } = effective
  const { weight, posture, size } = effective.slots[slot]
  const said = new Map<string, string>([
    ['font-family', families],
    ['font-size', unit(look.size)],
    ['font-weight', String(weight)],
    ['font-style', posture],
    ['color', look.automatic ? 'inherit' : look.color.toLowerCase()],
    ['letter-spacing', look.letterSpacing === 0 ? 'normal' : unit(look.letterSpacing)],
    ['text-transform', look.transform],
    ['font-variant-caps', shared['fo:font-variant'] === 'small-caps' ? 'small-caps' : 'normal'],
    ['font-kerning', shared['style:letter-kerning'] === 'true' ? 'normal' : 'none'],
  ])
  const lines = [look.underline && 'underline', look.strike && 'line-through'].filter(Boolean)
  const mark = look.underline ?? look.strike
  if (mark)
    said.set(
      'text-decoration',
      [lines.join(' '), lineStyles[mark.pattern], mark.color === look.color ? '' : mark.color]
        .filter(Boolean)
        .join(' '),
    )
  if (look.background) said.set('background-color', look.background.toLowerCase())
  // Raised text does not move lines apart, here as on the page.
  if (look.rise !== 0 && look.size < size) {
    said.set('vertical-align', unit(look.rise))
    said.set('line-height', '0')
  }
  if (look.hidden) said.set('display', 'none')
  const features = look.features.filter(
    ({ tag }) => tag !== 'kern' && tag !== 'smcp' && tag !== 'liga' && tag !== 'clig',
  )
  if (features.length > 0)
    said.set('font-feature-settings', features.map(({ tag, value }) => `${quoted(tag)} ${value}`).join(', '))
  if (look.axes.length > 0)
    said.set('font-variation-settings', look.axes.map(({ tag, value }) => `${quoted(tag)} ${short(value)}`).join(', '))
  return said
}

const alignments: Readonly<Record<string, string>> = {
  start: 'start',
  left: 'left',
  center: 'center',
  end: 'end',
  right: 'right',
  justify: 'justify',
}

/** How a paragraph stands, in terms of CSS. In a list its left edge is the list's. */
export function paragraphDeclarations(
  style: Pick<ParagraphStyle, 'properties' | 'text'>,
  look: Look,
  unit: Unit,
  inList: boolean,
): Map<string, string> {
  const { properties } = style
  const { leading } = style.text.effective
  const margin = edges(properties, 'fo:margin')
  const padding = edges(properties, 'fo:padding')
  const border = borderWidths(properties)
  // Where a page begins, here it is room above.
  const begins = properties['fo:break-before'] === 'page'
  const top = begins ? Math.max(margin.top, look.size * 2) : margin.top
  const said = new Map<string, string>([
    ['margin', [top, margin.right, margin.bottom, inList ? 0 : margin.left].map(unit).join(' ')],
    ['text-align', alignments[properties['fo:text-align'] ?? 'start'] ?? 'start'],
    ['line-height', lineHeight(leading, look, unit)],
  ])
  if (begins) said.set('break-before', 'page')
  const indent = points(properties['fo:text-indent']) ?? 0
  if (indent !== 0 && !inList) said.set('text-indent', unit(indent))
  if (border.top + border.right + border.bottom + border.left > 0) {
    said.set('border-style', 'solid')
    said.set('border-color', borderColor(properties))
    said.set('border-width', [border.top, border.right, border.bottom, border.left].map(unit).join(' '))
  }
  if (padding.top + padding.right + padding.bottom + padding.left > 0)
    said.set('padding', [padding.top, padding.right, padding.bottom, padding.left].map(unit).join(' '))
  const ground = properties['fo:background-color'] ?? ''
  if (/^#[0-9a-f]{6}$/i.test(ground)) said.set('background-color', ground.toLowerCase())
  if (look.hyphenate) said.set('hyphens', 'auto')
  const lines = (name: string) => Number.parseInt(properties[name] ?? '', 10) || 0
  if (lines('fo:widows') > 1) said.set('widows', String(lines('fo:widows')))
  if (lines('fo:orphans') > 1) said.set('orphans', String(lines('fo:orphans')))
  if (properties['fo:keep-with-next'] === 'always') said.set('break-after', 'avoid')
  if (properties['fo:keep-together'] === 'always') said.set('break-inside', 'avoid')
  return said
}

/** Shares are of the face's own height of a line, not of its size (OpenDocument 1.4 part 3, 20.205). */
function lineHeight(leading: Effective['leading'], look: Look, unit: Unit): string {
  const height = leading['fo:line-height']
  const fixed = points(height)
  if (fixed !== null) return unit(fixed)
  const natural = look.ascent + look.descent
  const factor = percent(height) ?? 1
  const least = points(leading['style:line-height-at-least']) ?? 0
  const extra = points(leading['style:line-spacing']) ?? 0
  if (factor === 1 && least <= natural && extra === 0) return 'normal'
  return short(Math.max(natural * factor + extra, least) / look.size)
}
