import { ownListName, readScopes, type Properties, type StyleScope } from '../document/styles'
import type { OdfDocument, Subdocument } from '../document/open'
import type { Paragraph, Span, Story } from '../document/story-model'
import { faceLookup, looksSame, resolve, type Effective, type FaceLookup } from './effective'
import { readRules, type Rules } from '../document/rules'
import { readCompositionSettings, type CompositionSettings } from '../document/composition-settings'
import { namedLayers, paragraphLayers, spanLayers, type Layer } from './layers'
import type { Slot } from '../document/font-attributes'

/** How some text is styled. One object for all text that goes through the same layers: compare by identity. */
export class TextStyle {
  private without: Effective | null = null
  readonly effective: Effective

  constructor(
    readonly id: number,
    readonly scope: StyleScope,
    layers: readonly Layer[],
    private readonly find: FaceLookup,
    readonly rules: Rules,
    /** How its document is composed. */
    readonly settings: CompositionSettings,
    /** Where it is the left one of a pair that is corrected: by how many points, and how it is styled but for that. */
    readonly pair: { readonly spacing: number; readonly apart: TextStyle } | null = null,
  ) {
    this.effective = resolve(layers, find)
  }

  /** OpenType features and axes that the document's own rules set for its styles; the innermost style wins. */
  get ruled(): {
    readonly features: Readonly<Record<string, number>>
    readonly axes: Readonly<Record<string, number>>
  } {
    const features: Record<string, number> = {}
    const axes: Record<string, number> = {}
    if (this.rules.features.length + this.rules.axes.length > 0) {
      for (const { style } of this.effective.layers) {
        const applies = (rule: { readonly style: { readonly family: string; readonly name: string } }) =>
          rule.style.family === style.family && rule.style.name === style.name
        for (const rule of this.rules.features) if (applies(rule)) Object.assign(features, rule.features)
        for (const rule of this.rules.axes) if (applies(rule)) Object.assign(axes, rule.axes)
      }
    }
    return { features, axes }
  }

  /** Whether the text looks as its named styles say: its values are what they would be without automatic styles. */
  settled(slot: Slot): boolean {
    const { layers } = this.effective
    if (!layers.some(layer => layer.local)) return true
    this.without ??= resolve(
      layers.filter(layer => !layer.local),
      this.find,
    )
    return looksSame(this.effective, this.without, slot)
  }

  /** The values that the text would have with other layers: what a change of a style would come to. */
  resolvedWith(change: (layer: Layer) => Layer): Effective {
    return resolve(this.effective.layers.map(change), this.find)
  }

  /** The named style that owns this text: the innermost that is not automatic; null where there is none. */
  get owner(): Layer | null {
    const { layers } = this.effective
    for (let index = layers.length - 1; index >= 0; index--)
      if (!layers[index]!.local && layers[index]!.from !== 'default') return layers[index]!
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
  /** The named style that it has or descends from; '' for none. */
  readonly named: string
  /** The properties elements that style:tab-stops and style:drop-cap hang on. */
  readonly tabsNode: { readonly part: string; readonly node: number } | null
  readonly dropCapNode: { readonly part: string; readonly node: number } | null
}

/** The cascade of one document or embedded object. Results are kept: text styled alike is resolved once. */
export class Cascade {
  private readonly find: FaceLookup
  private readonly paragraphs: Map<string, ParagraphStyle>
  private readonly texts: Map<string, TextStyle>
  /** All text styles by their ids. */
  private readonly styles: TextStyle[]
  /** What was asked for a paragraph before: a paragraph stands in one story, and so has one role. */
  private readonly asked: WeakMap<Paragraph, { readonly style: ParagraphStyle; readonly key: string }>
  private readonly plain: Map<string, { readonly style: ParagraphStyle; readonly key: string }>
  readonly scopes: ReadonlyMap<string, StyleScope>
  readonly rules: Rules
  /** Text styles of corrected pairs by name, with what they set in points. */
  private readonly pairStyles: ReadonlyMap<string, number>
  /** What the document says of how it is composed. */
  readonly settings: CompositionSettings

  /** @param earlier the cascade of the same document before a change that touched no style: all it knows still holds */
  constructor(
    document: OdfDocument,
    readonly sub: Subdocument,
    earlier?: Cascade,
  ) {
    this.paragraphs = earlier?.paragraphs ?? new Map()
    this.texts = earlier?.texts ?? new Map()
    this.styles = earlier?.styles ?? []
    this.plain = earlier?.plain ?? new Map()
    this.asked = earlier?.asked ?? new WeakMap()
    if (earlier) {
      this.scopes = new Map(
        [...earlier.scopes].map(([path, scope]) => [path, { ...scope, part: document.parts.get(path)! }]),
      )
      this.find = earlier.find
      this.rules = earlier.rules
      this.pairStyles = earlier.pairStyles
      this.settings = earlier.settings
      return
    }
    const { content, styles } = readScopes(document, sub)
    const scopes = [content, styles].filter(scope => scope !== null)
    this.scopes = new Map(scopes.map(scope => [scope.part.path, scope]))
    this.find = faceLookup(scopes)
    this.rules = readRules(document)
    this.pairStyles = new Map(this.rules.pairStyles.map(each => [each.style, each.spacing]))
    this.settings = readCompositionSettings(document)
  }

  /** One object for all cascades that know the same styles: what hangs on styles is kept by it, and it holds no document. */
  get known(): object {
    return this.texts
  }

  /** Whether both know the same styles: one was made from the other, with no style touched since. */
  sharesStyles(other: Cascade): boolean {
    return this.known === other.known
  }

  scope(part: string): StyleScope {
    const scope = this.scopes.get(part)
    if (!scope) throw new RangeError(`“${part}” has no styles of its own`)
    return scope
  }

  paragraph(paragraph: Paragraph, role: Story['role'] = 'body'): ParagraphStyle {
    return this.keyed(paragraph, role).style
  }

  private keyed(paragraph: Paragraph, role: Story['role']): { readonly style: ParagraphStyle; readonly key: string } {
    let keyed = this.asked.get(paragraph)
    if (keyed) return keyed
    // Most paragraphs stand in the body and in nothing else: their style's name says it all.
    const plain =
      paragraph.holder === null &&
      paragraph.list === null &&
      paragraph.heading === null &&
      paragraph.classNames.length === 0 &&
      paragraph.place === 'body' &&
      role === 'body' &&
      paragraph.part === 'content.xml'
    if (plain) keyed = this.plain.get(paragraph.styleName ?? '')
    if (keyed) this.asked.set(paragraph, keyed)
    else {
      const key = paragraphKey(paragraph, role)
      this.asked.set(
        paragraph,
        (keyed = { key, style: this.paragraphs.get(key) ?? this.makeParagraph(key, paragraph, role) }),
      )
      if (plain) this.plain.set(paragraph.styleName ?? '', keyed)
    }
    return keyed
  }

  private makeParagraph(key: string, paragraph: Paragraph, role: Story['role']): ParagraphStyle {
    const scope = this.scope(paragraph.part)
    const layers = paragraphLayers(scope, this.sub.kind, paragraph, role)
    const properties: Record<string, string> = {}
    let styleAttributes: Properties = {}
    let listStyle: string | null = null
    let masterPage: string | null = null
    let tabsNode: ParagraphStyle['tabsNode'] = null
    let dropCapNode: ParagraphStyle['dropCapNode'] = null
    for (const layer of layers) {
      Object.assign(properties, layer.paragraph)
      const { attributes, part, propertyNodes } = layer.style
      if (layer.from === 'frame' && scope.lists.has(ownListName(layer.style))) listStyle = ownListName(layer.style)
      if (layer.from !== 'paragraph') continue
      styleAttributes = { ...styleAttributes, ...attributes }
      if (attributes['style:list-style-name'] !== undefined) listStyle = attributes['style:list-style-name'] || null
      // Only the style itself starts a page, not those it descends from (ODF 1.4 part 3, 19.503: not inherited).
      if (layer === layers.at(-1) && attributes['style:master-page-name'])
        masterPage = attributes['style:master-page-name']
      const node = propertyNodes['style:paragraph-properties']
      if (node === undefined) continue
      const holder = this.scope(part).part
      if (holder.first(holder.element(node), 'style:tab-stops')) tabsNode = { part, node }
      if (holder.first(holder.element(node), 'style:drop-cap')) dropCapNode = { part, node }
    }
    const style: ParagraphStyle = {
      text: this.intern(key, scope, layers),
      properties,
      styleAttributes,
      listStyle,
      masterPage,
      named: layers.findLast(layer => layer.from === 'paragraph' && !layer.local)?.style.name ?? '',
      tabsNode,
      dropCapNode,
    }
    this.paragraphs.set(key, style)
    return style
  }

  text(paragraph: Paragraph, span: Span | null, role: Story['role'] = 'body'): TextStyle {
    if (!span) return this.paragraph(paragraph, role).text
    const { key: paragraphsKey, style } = this.keyed(paragraph, role)
    const key = `${paragraphsKey}|${spanKey(span)}`
    const known = this.texts.get(key)
    if (known) return known
    const scope = this.scope(paragraph.part)
    const pair = this.pairOf(span)
    if (pair !== null) {
      const apart = this.text(paragraph, this.withoutPairs(span), role)
      return this.intern(key, scope, apart.effective.layers, { spacing: pair, apart })
    }
    const added = spanLayers(scope, span)
    const base = style.text
    // A span that says nothing leaves the paragraph's own style: bookmarks and references are full of them.
    if (added.length === 0) {
      this.texts.set(key, base)
      return base
    }
    return this.intern(key, scope, [...base.effective.layers, ...added])
  }

  /** What text of a named style looks like where nothing else has a say. */
  named(part: string, family: string, name: string): TextStyle {
    const key = `named|${part}|${family}|${name}`
    return (
      this.texts.get(key) ??
      this.intern(key, this.scope(part), namedLayers(this.scope(part), this.sub.kind, family, name))
    )
  }

  /** The style of a list label: the text of the item with the label's own properties on top. */
  label(base: TextStyle, name: string, layers: readonly Layer[]): TextStyle {
    const key = `${base.id}|label|${name}`
    return this.texts.get(key) ?? this.intern(key, base.scope, [...base.effective.layers, ...layers])
  }

  /** What the spans of corrected pairs around some text set, in points; the innermost wins. Null where there are none. */
  private pairOf(span: Span): number | null {
    if (this.pairStyles.size === 0) return null
    for (let at: Span | null = span; at; at = at.parent) {
      const spacing = at.styleName === null ? undefined : this.pairStyles.get(at.styleName)
      if (spacing !== undefined) return spacing
    }
    return null
  }

  /** The same spans without those of corrected pairs, which say nothing of how text is styled. */
  private withoutPairs(span: Span | null): Span | null {
    if (span === null) return null
    const parent = this.withoutPairs(span.parent)
    if (span.styleName !== null && this.pairStyles.has(span.styleName)) return parent
    return parent === span.parent ? span : { ...span, parent }
  }

  private intern(key: string, scope: StyleScope, layers: readonly Layer[], pair: TextStyle['pair'] = null): TextStyle {
    const style = new TextStyle(this.styles.length, scope, layers, this.find, this.rules, this.settings, pair)
    this.styles.push(style)
    this.texts.set(key, style)
    return style
  }

  /** A text style by its id; undefined for labels, which have none. */
  styleOf(id: number): TextStyle | undefined {
    return this.styles[id]
  }
}

function paragraphKey(paragraph: Paragraph, role: string): string {
  const { holder, list } = paragraph
  let key =
    `${paragraph.part}|${role}|${paragraph.styleName ?? ''}|${paragraph.classNames.join(' ')}|` +
    `${paragraph.heading ?? ''}|${list?.level ?? ''}|${paragraph.place}`
  for (let at = holder; at; at = at.parent) {
    key +=
      at.kind === 'frame'
        ? `|f${at.node}`
        : at.kind === 'cell'
          ? `|c${at.styleName ?? ''}${at.heading ? 'h' : ''}${at.template ? `${at.template.name}:${at.template.parts.join()}` : ''}`
          : `|t${at.styleNames.join(' ')}`
  }
  return key
}

function spanKey(span: Span): string {
  const own = `${span.styleName ?? ''} ${span.classNames.join(' ')}`
  return span.parent ? `${spanKey(span.parent)}>${own}` : own
}
