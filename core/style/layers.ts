import { findStyle, withParents, type Properties, type Style, type StyleScope } from '../document/styles'
import type { CellTemplate, Holder, Paragraph, Span } from '../document/story-model'
import type { ObjectKind } from '../document/open'

/** One voice in the cascade: a style that had a say about some text, outermost first in a list of them. */
export interface Layer {
  readonly from: 'default' | 'frame' | 'cell' | 'chart' | 'paragraph' | 'list' | 'text'
  readonly style: Style
  /**
   * The style is automatic: what it sets was set by hand on this text (local formatting). Charts know no other
   * styles: theirs are their own.
   */
  readonly local: boolean
  readonly text: Properties
  readonly paragraph: Properties
}

const layer = (from: Layer['from'], style: Style): Layer => ({
  from,
  style,
  local: style.origin === 'automatic' && style.family !== 'chart',
  text: style.text,
  paragraph: style.paragraph,
})

function chain(scope: StyleScope, from: Layer['from'], family: string, name: string | null): Layer[] {
  const style = name === null ? undefined : findStyle(scope, family, name)
  return style ? withParents(scope, style).map(each => layer(from, each)) : []
}

/**
 * Which default style applies (ODF 1.4 part 3, 16.4 with 16.29): a paragraph of a text document takes the paragraph
 * default, text inside a drawing shape the graphic one; presentations and drawings know only the graphic default;
 * a chart its own.
 */
function defaultFamily(kind: ObjectKind, holder: Holder | null, shape: boolean): string {
  if (holder?.kind === 'chart-text' || kind === 'chart') return 'chart'
  if (kind === 'text') return shape ? 'graphic' : 'paragraph'
  if (kind === 'spreadsheet') return 'table-cell'
  return 'graphic'
}

/**
 * Styles of a frame or shape, root parent first: of the presentation family where one has the name, else graphic. In an
 * outline placeholder the levels have styles of their own, told by name (ODF 1.4 part 3, 16.40.2: …-outline1 to
 * …-outline9): text of level n takes the nth in place of the first.
 */
export function frameStyles(scope: StyleScope, name: string | null, level = 1): Style[] {
  const style =
    name === null ? undefined : (findStyle(scope, 'presentation', name) ?? findStyle(scope, 'graphic', name))
  if (!style) return []
  const styles = withParents(scope, style)
  if (level < 2 || style.family !== 'presentation') return styles
  const at = styles.findIndex(each => each.name.endsWith('-outline1'))
  const deeper =
    at < 0 ? undefined : findStyle(scope, 'presentation', styles[at]!.name.replace(/1$/, String(Math.min(level, 9))))
  return deeper ? [...withParents(scope, deeper), ...styles.slice(at + 1)] : styles
}

function templateLayers(scope: StyleScope, template: CellTemplate | null): Layer[] {
  const styles = template ? scope.templates.get(template.name) : undefined
  return styles ? template!.parts.flatMap(part => chain(scope, 'cell', 'table-cell', styles[part] ?? null)) : []
}

function holderLayers(scope: StyleScope, holder: Holder, level: number): Layer[] {
  const outer = holder.parent ? holderLayers(scope, holder.parent, level) : []
  switch (holder.kind) {
    case 'frame':
      return [
        ...outer,
        ...frameStyles(scope, holder.graphicStyle, level).map(style => layer('frame', style)),
        ...chain(scope, 'frame', 'paragraph', holder.textStyle),
      ]
    case 'cell':
      return [
        ...outer,
        ...templateLayers(scope, holder.template),
        ...chain(scope, 'cell', 'table-cell', holder.styleName),
      ]
    case 'chart-text':
      return [...outer, ...holder.styleNames.flatMap(name => chain(scope, 'chart', 'chart', name))]
  }
}

/** Conditions of style:map (ODF 1.4 part 3, 16.3): where the paragraph stands decides which style it really takes. */
function holds(condition: string, paragraph: Paragraph, role: string): boolean {
  const call = /^\s*([a-z-]+)\(\)\s*(?:=\s*(\d+))?\s*$/.exec(condition)
  if (!call) return false
  const number = call[2] === undefined ? null : Number(call[2])
  const cell = paragraph.holder?.kind === 'cell' ? paragraph.holder : null
  switch (call[1]) {
    case 'list-level':
      return paragraph.list !== null && (number === null || paragraph.list.level === number)
    case 'outline-level':
      return paragraph.heading !== null && (number === null || paragraph.heading === number)
    case 'table':
      return cell !== null && !cell.heading
    case 'table-header':
      return cell?.heading === true
    case 'text-box':
      return paragraph.holder?.kind === 'frame'
    case 'footnote':
    case 'endnote':
      return paragraph.place === 'note'
    case 'header':
      return role.startsWith('header')
    case 'footer':
      return role.startsWith('footer')
    default:
      return false
  }
}

/** The layers under a paragraph's text, outermost first (design, section 4). `role` is the story's. */
export function paragraphLayers(scope: StyleScope, kind: ObjectKind, paragraph: Paragraph, role: string): Layer[] {
  const { holder } = paragraph
  const shape = holder?.kind === 'frame' && scope.part.element(holder.node).name !== 'draw:frame'
  const layers: Layer[] = []
  const fallback = scope.defaults.get(defaultFamily(kind, holder, shape))
  if (fallback) layers.push(layer('default', fallback))
  if (holder) layers.push(...holderLayers(scope, holder, paragraph.list?.level ?? 1))
  const own = paragraph.styleName === null ? undefined : findStyle(scope, 'paragraph', paragraph.styleName)
  if (own) {
    for (const style of withParents(scope, own)) {
      const map = style.maps.find(each => holds(each.condition, paragraph, role))
      const applied = map ? findStyle(scope, 'paragraph', map.applyName) : undefined
      if (applied) layers.push(...withParents(scope, applied).map(each => layer('paragraph', each)))
      else layers.push(layer('paragraph', style))
    }
  }
  // The style named by text:style-name is applied first, then those of text:class-names in order (19.770).
  for (const name of paragraph.classNames) layers.push(...chain(scope, 'paragraph', 'paragraph', name))
  return layers
}

/** The layers of a named style by itself: the default under it, its parents, the style. */
export function namedLayers(scope: StyleScope, kind: ObjectKind, family: string, name: string): Layer[] {
  const fallback = scope.defaults.get(
    family === 'graphic' || family === 'presentation' ? 'graphic' : defaultFamily(kind, null, false),
  )
  const from = family === 'text' || family === 'paragraph' ? family : family === 'table-cell' ? 'cell' : 'frame'
  const own = chain(scope, from, family, name)
  return fallback ? [layer('default', fallback), ...own] : own
}

/** The layers that spans and links add, outer ones first. */
export function spanLayers(scope: StyleScope, span: Span | null): Layer[] {
  if (!span) return []
  return [
    ...spanLayers(scope, span.parent),
    ...chain(scope, 'text', 'text', span.styleName),
    ...span.classNames.flatMap(name => chain(scope, 'text', 'text', name)),
  ]
}
