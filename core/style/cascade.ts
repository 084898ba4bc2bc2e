import { readScopes, type Properties, type StyleScope } from '../document/styles'
import type { OdfDocument, Subdocument } from '../document/open'
import type { Paragraph, Span, Story } from '../document/stories'
import { faceLookup, looksSame, resolve, type Effective, type FaceLookup } from './effective'
import { paragraphLayers, spanLayers, type Layer } from './layers'
import type { Slot } from '../document/font-attributes'

/** How some text is styled. One object for all text that goes through the same layers: compare by identity. */
export class TextStyle {
  private without: Effective | null = null
  readonly effective: Effective

  constructor(readonly id: number, readonly scope: StyleScope, layers: readonly Layer[], private readonly find: FaceLookup) {
    this.effective = resolve(layers, find)
  }

  /** Whether the text looks as its named styles say: its values are what they would be without automatic styles. */
  settled(slot: Slot): boolean {
    const { layers } = this.effective
    if (!layers.some(layer => layer.local)) return true
    this.without ??= resolve(layers.filter(layer => !layer.local), this.find)
    return looksSame(this.effective, this.without, slot)
  }

  /** The named style that owns this text: the innermost that is not automatic; null where there is none. */
  get owner(): Layer | null {
    const { layers } = this.effective
    for (let index = layers.length - 1; index >= 0; index--) if (!layers[index]!.local && layers[index]!.from !== 'default') return layers[index]!
    return null
  }
}

/** Paragraph properties after the cascade, with the layers they came from. */
export interface ParagraphStyle {
  readonly text: TextStyle
  readonly properties: Properties
  readonly styleAttributes: Properties
  /** Lists and master pages may be named by any style of the chain; the innermost wins. */
  readonly listStyle: string | null
  readonly masterPage: string | null
  /** style:tab-stops and style:drop-cap hang on this properties element. */
  readonly tabsNode: { readonly part: string, readonly node: number } | null
}

/** The cascade of one document or embedded object. Results are kept: text styled alike is resolved once. */
export class Cascade {
  private readonly find: FaceLookup
  private readonly paragraphs = new Map<string, ParagraphStyle>()
  private readonly texts = new Map<string, TextStyle>()
  readonly scopes: ReadonlyMap<string, StyleScope>

  constructor(document: OdfDocument, readonly sub: Subdocument) {
    const { content, styles } = readScopes(document, sub)
    const scopes = [content, styles].filter(scope => scope !== null)
    this.scopes = new Map(scopes.map(scope => [scope.part.path, scope]))
    this.find = faceLookup(scopes)
  }

  scope(part: string): StyleScope {
    const scope = this.scopes.get(part)
    if (!scope) throw new RangeError(`“${part}” has no styles of its own`)
    return scope
  }

  /** All text styles that some text asked for so far. */
  get asked(): Iterable<TextStyle> { return this.texts.values() }

  paragraph(paragraph: Paragraph, role: Story['role'] = 'body'): ParagraphStyle {
    const key = paragraphKey(paragraph, role)
    const known = this.paragraphs.get(key)
    if (known) return known
    const scope = this.scope(paragraph.part)
    const layers = paragraphLayers(scope, this.sub.kind, paragraph, role)
    const properties: Record<string, string> = {}
    let styleAttributes: Properties = {}
    let listStyle: string | null = null
    let masterPage: string | null = null
    let tabsNode: ParagraphStyle['tabsNode'] = null
    for (const layer of layers) {
      Object.assign(properties, layer.paragraph)
      const { attributes, part, propertyNodes } = layer.style
      if (layer.from !== 'paragraph') continue
      styleAttributes = { ...styleAttributes, ...attributes }
      if (attributes['style:list-style-name'] !== undefined) listStyle = attributes['style:list-style-name'] || null
      // Only the style itself starts a page, not those it descends from (ODF 1.4 part 3, 19.503: not inherited).
      if (layer === layers.at(-1) && attributes['style:master-page-name']) masterPage = attributes['style:master-page-name']
      const node = propertyNodes['style:paragraph-properties']
      if (node !== undefined && this.scope(part).part.elements(this.scope(part).part.element(node), 'style:tab-stops').next().done === false) tabsNode = { part, node }
    }
    const style: ParagraphStyle = { text: this.intern(key, scope, layers), properties, styleAttributes, listStyle, masterPage, tabsNode }
    this.paragraphs.set(key, style)
    return style
  }

  text(paragraph: Paragraph, span: Span | null, role: Story['role'] = 'body'): TextStyle {
    if (!span) return this.paragraph(paragraph, role).text
    const key = `${paragraphKey(paragraph, role)}|${spanKey(span)}`
    const known = this.texts.get(key)
    if (known) return known
    const scope = this.scope(paragraph.part)
    const added = spanLayers(scope, span)
    const base = this.paragraph(paragraph, role).text
    // A span that says nothing leaves the paragraph's own style: bookmarks and references are full of them.
    if (added.length === 0) { this.texts.set(key, base); return base }
    return this.intern(key, scope, [...base.effective.layers, ...added])
  }

  /** The style of a list label: the text of the item with the label's own properties on top. */
  label(base: TextStyle, name: string, layers: readonly Layer[]): TextStyle {
    const key = `${base.id}|label|${name}`
    return this.texts.get(key) ?? this.intern(key, base.scope, [...base.effective.layers, ...layers])
  }

  private intern(key: string, scope: StyleScope, layers: readonly Layer[]): TextStyle {
    const style = new TextStyle(this.texts.size, scope, layers, this.find)
    this.texts.set(key, style)
    return style
  }
}

function paragraphKey(paragraph: Paragraph, role: string): string {
  const { holder, list } = paragraph
  let key = `${paragraph.part}|${role}|${paragraph.styleName ?? ''}|${paragraph.classNames.join(' ')}|${paragraph.heading ?? ''}|${list?.level ?? ''}|${paragraph.place}`
  for (let at = holder; at; at = at.parent) {
    key += at.kind === 'frame' ? `|f${at.node}` : at.kind === 'cell' ? `|c${at.styleName ?? ''}${at.heading ? 'h' : ''}` : `|t${at.styleNames.join(' ')}`
  }
  return key
}

function spanKey(span: Span): string {
  const own = `${span.styleName ?? ''} ${span.classNames.join(' ')}`
  return span.parent ? `${spanKey(span.parent)}>${own}` : own
}
