import { points } from '../document/lengths'
import type { Cascade, ParagraphStyle } from '../style/cascade'
import type { Layer } from '../style/layers'
import { percent } from '../style/properties'
import { dropCapOf, type DropCap } from './drop-cap'
import { borderColor, borderWidths, edges, type Edges } from './geometry'
import type { Alignment, Leading, Measure, TabStop } from './lines'
import type { Typesetter } from './look'

/** What a paragraph's style says of its lines. Styles that say the same share one: layouts are kept under it. */
export interface ParagraphLook {
  readonly properties: Readonly<Record<string, string>>
  /** The named style that it has or descends from. */
  readonly ownStyle: string
  readonly margin: Edges
  readonly padding: Edges
  readonly border: Edges
  readonly borderColor: string
  readonly background: string
  readonly indent: number
  readonly measure: Omit<Measure, 'width' | 'firstIndent' | 'shape' | 'tabOrigin' | 'justifyBroken'>
  readonly strict: boolean
  readonly autospace: boolean
  readonly hanging: boolean
  readonly drop: DropCap | null
  readonly orphans: number
  readonly widows: number
}

/** Looks of a typesetter: they hang on what styles say, not on faces. */
class Looks {
  readonly looks = new WeakMap<ParagraphStyle, ParagraphLook>()
  readonly known = new Map<string, ParagraphLook>()
}
const looksBy = new WeakMap<Typesetter, Looks>()
function looksOf(typesetter: Typesetter): Looks {
  let looks = looksBy.get(typesetter)
  if (!looks) looksBy.set(typesetter, (looks = new Looks()))
  return looks
}

function alignmentOf(value: string | undefined, rightToLeft: boolean, fallback: Alignment): Alignment {
  switch (value) {
    case 'start':
      return rightToLeft ? 'right' : 'left'
    case 'end':
      return rightToLeft ? 'left' : 'right'
    case 'left':
    case 'right':
    case 'center':
    case 'justify':
      return value
    default:
      return fallback
  }
}

function tabStops(cascade: Cascade, style: ParagraphStyle): TabStop[] {
  if (!style.tabsNode) return []
  const { part } = cascade.scope(style.tabsNode.part)
  const holder = part.first(part.element(style.tabsNode.node), 'style:tab-stops')
  if (!holder) return []
  const stops = [...part.elements(holder, 'style:tab-stop')].map(({ attributes }): TabStop => {
    const type = attributes['style:type']
    const leaderStyle = attributes['style:leader-style'] ?? 'none'
    return {
      position: points(attributes['style:position']) ?? 0,
      type: type === 'right' || type === 'center' || type === 'char' ? type : 'left',
      char: attributes['style:char'] || '.',
      leader: attributes['style:leader-text'] ?? (leaderStyle === 'none' ? '' : leaderStyle === 'solid' ? '_' : '.'),
    }
  })
  return stops.sort((a, b) => a.position - b.position)
}

/** The last value that a layer sets for a text property outside the cascade of looks. */
function textProperty(layers: readonly Layer[], name: string): string | undefined {
  return layers.findLast(layer => layer.text[name] !== undefined)?.text[name]
}

/** Padding above and below the text, and beside it where a border stands. */
const besideBorders = (padding: Edges, border: Edges): Edges => ({
  ...padding,
  right: border.right > 0 ? padding.right : 0,
  left: border.left > 0 ? padding.left : 0,
})

/** What of a workshop a look hangs on. */
interface LookWorkshop {
  readonly cascade: Cascade
  readonly typesetter: Typesetter
  readonly rightToLeft: boolean
}

/** What a style says of the lines of its paragraphs. */
export function paragraphLook(style: ParagraphStyle, workshop: LookWorkshop): ParagraphLook {
  const { cascade, typesetter } = workshop
  const kept = looksOf(typesetter)
  const known = kept.looks.get(style)
  if (known) return known
  const { properties } = style
  const { leading, layers, slots } = style.text.effective
  const mode = properties['style:writing-mode'] ?? 'page'
  const rightToLeft = mode === 'page' ? workshop.rightToLeft : /^rl/.test(mode)
  const plain = rightToLeft ? 'right' : 'left'
  const alignment = alignmentOf(properties['fo:text-align'], rightToLeft, plain)
  const height = leading['fo:line-height']
  const whole = (value: string | undefined, fallback: number) =>
    Math.max(0, Number.parseInt(value ?? '', 10) || fallback)
  const leads: Leading = {
    factor: height === undefined || height === 'normal' ? 1 : (percent(height) ?? 1),
    fixed: points(height),
    atLeast: points(leading['style:line-height-at-least']) ?? 0,
    extra: points(leading['style:line-spacing']) ?? 0,
  }
  const background = properties['fo:background-color'] ?? ''
  const border = borderWidths(properties)
  const padding = edges(properties, 'fo:padding')
  const made: ParagraphLook = {
    properties,
    ownStyle: style.named,
    margin: edges(properties, 'fo:margin'),
    padding: cascade.settings.AllowPaddingWithoutBorders ? padding : besideBorders(padding, border),
    border,
    borderColor: borderColor(properties),
    background: /^#[0-9a-f]{6}$/i.test(background) ? background : '',
    indent:
      properties['style:auto-text-indent'] === 'true'
        ? slots.western.size
        : (points(properties['fo:text-indent']) ?? 0),
    measure: {
      alignment,
      lastAlignment:
        alignment === 'justify' ? alignmentOf(properties['fo:text-align-last'], rightToLeft, plain) : alignment,
      justifySingle: properties['style:justify-single-word'] === 'true',
      rightToLeft,
      tabs: tabStops(cascade, style),
      tabDistance: points(properties['style:tab-stop-distance']) || 35.4,
      leading: leads,
      division: {
        remain: whole(textProperty(layers, 'fo:hyphenation-remain-char-count'), 2),
        push: whole(textProperty(layers, 'fo:hyphenation-push-char-count'), 2),
        ladder:
          properties['fo:hyphenation-ladder-count'] === 'no-limit'
            ? 0
            : whole(properties['fo:hyphenation-ladder-count'], 0),
      },
    },
    strict: properties['style:line-break'] !== 'normal',
    autospace: properties['style:text-autospace'] !== 'none',
    hanging: properties['style:punctuation-wrap'] === 'hanging',
    drop: dropCapOf(cascade, style),
    orphans: Math.max(1, whole(properties['fo:orphans'], 1)),
    widows: Math.max(1, whole(properties['fo:widows'], 1)),
  }
  const key = JSON.stringify(made)
  let look = kept.known.get(key)
  if (!look) kept.known.set(key, (look = made))
  kept.looks.set(style, look)
  return look
}
