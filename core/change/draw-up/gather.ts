import type { Slot } from '../../document/font-attributes'
import { paragraphsOf } from '../../document/stories'
import type { Paragraph, Story } from '../../document/story-model'
import { findStyle, withParents, type Style, type StyleScope } from '../../document/styles'
import type { Cascade, ParagraphStyle, TextStyle } from '../../style/cascade'
import { faceLookup, resolve, type Effective, type FaceLookup } from '../../style/effective'
import { paragraphLayers, type Layer } from '../../style/layers'
import type { Reading } from '../../style/reading'
import { objectSign, paragraphRuns } from '../../style/runs'
import { numberParagraphs } from '../../typeset/numbering'
import { writeElement } from '../../xml/write'
import { lookOf, neededOn, paragraphLookOf, type Look } from './look'

/** A stretch of a paragraph's text in one style. */
export interface DrawnRun {
  readonly from: number
  readonly to: number
  readonly style: TextStyle
  /** What named character styles around it say. */
  readonly named: readonly Layer[]
  /** Something in it was set by hand. */
  readonly local: boolean
  /** It has signs that are seen. */
  readonly visible: boolean
  /** It has text or the sign of a note, not frames alone. */
  readonly shown: boolean
  readonly characters: number
}

/** What stands under a paragraph's own styles: the default, and what holds it. */
export interface Ground {
  readonly key: string
  readonly layers: readonly Layer[]
}

/** A paragraph with all that draw-up asks of it. */
export interface DrawnParagraph {
  readonly paragraph: Paragraph
  readonly role: Story['role']
  readonly style: ParagraphStyle
  readonly text: string
  /** The style it has by hand; null where it has none. */
  readonly local: Style | null
  /** The named style it has, or that its own goes back to. */
  readonly base: string | null
  readonly ground: Ground
  /** How its text looks: what its style shall say. */
  readonly look: Look
  /** The text that it looks so in. */
  readonly voice: TextStyle
  readonly paragraphLook: Look
  /** Its look is that of a span around all of its words. */
  readonly absorbed: boolean
  /** A style has to be made for it: its named ones do not say how it looks. */
  readonly needs: boolean
  /** What its base brings along beside values: another base must bring the same. */
  readonly brings: string
  readonly runs: readonly DrawnRun[]
  readonly characters: number
  readonly labelled: boolean
  /** The scripts that its text is written in. */
  readonly slots: ReadonlySet<Slot>
}

/** A document's text, taken apart for draw-up. */
export class Gathered {
  readonly paragraphs: DrawnParagraph[] = []
  readonly find: FaceLookup
  /** Text that has styles of more classes than one, which is left. */
  left = 0
  private readonly chains = new Map<string, readonly Layer[]>()

  constructor(readonly reading: Reading) {
    const { cascade } = reading
    this.find = faceLookup(cascade.scopes.values())
    const stories = reading.stories.filter(story => story.role !== 'deletions')
    const labels = numberParagraphs(stories, cascade)
    for (const story of stories)
      for (const paragraph of paragraphsOf(story.blocks)) {
        if (paragraph.classNames.length > 0) this.left++
        else this.paragraphs.push(this.take(paragraph, story.role, labels.has(paragraph)))
      }
  }

  get cascade(): Cascade {
    return this.reading.cascade
  }

  resolve(layers: readonly Layer[]): Effective {
    return resolve(layers, this.find)
  }

  /** The layers of a named paragraph style where a paragraph stands: conditions decide which of them act. */
  chain(
    { paragraph, role, ground }: Pick<DrawnParagraph, 'paragraph' | 'role' | 'ground'>,
    base: string | null,
  ): readonly Layer[] {
    const place = `${ground.key}|${role}|${paragraph.place}|${paragraph.list?.level ?? ''}|${paragraph.heading ?? ''}`
    const key = `${place}|${paragraph.part}|${base ?? ''}`
    let chain = this.chains.get(key)
    if (!chain) {
      const scope = this.cascade.scope(paragraph.part)
      const all = paragraphLayers(scope, this.cascade.sub.kind, { ...paragraph, styleName: base }, role)
      this.chains.set(key, (chain = all.slice(ground.layers.length)))
    }
    return chain
  }

  private take(paragraph: Paragraph, role: Story['role'], labelled: boolean): DrawnParagraph {
    const { cascade } = this
    const scope = cascade.scope(paragraph.part)
    const style = cascade.paragraph(paragraph, role)
    const named = paragraph.styleName === null ? undefined : findStyle(scope, 'paragraph', paragraph.styleName)
    const local = named?.origin === 'automatic' ? named : null
    const under = paragraphLayers(scope, cascade.sub.kind, { ...paragraph, styleName: null }, role)
    const ground = { key: under.map(keyOfLayer).join(), layers: under }
    const { text, runs: all } = paragraphRuns(paragraph, cascade, role)
    const runs = mergedRuns(text, all, style.text.effective.layers.length)
    const absorbing = labelled ? null : absorbable(runs, style.text)
    // An empty line is as high as the span says that stands empty in it.
    const voice = absorbing ?? (all.length === 0 ? cascade.text(paragraph, paragraph.mark, role) : style.text)
    const look = lookOf(voice.effective)
    const plain = lookOf(this.resolve(style.text.effective.layers.filter(layer => !layer.local)))
    const needed = neededOn(look, [plain])
    return {
      paragraph,
      role,
      style,
      text,
      local,
      base: local ? local.parentName : (named?.name ?? null),
      ground,
      look,
      voice,
      paragraphLook: paragraphLookOf(style.properties),
      absorbed: absorbing !== null,
      needs: needed === null || Object.keys(needed).length > 0,
      brings: broughtBy(cascade, scope, local, local ? local.parentName : (named?.name ?? null)),
      runs,
      characters: runs.reduce((sum, run) => sum + run.characters, 0),
      labelled,
      slots: new Set(all.map(run => run.slot)),
    }
  }
}

/** A layer as a key: equal for the same style in the same place. */
export const keyOfLayer = ({ style }: Layer): string => `${style.part}#${style.node}`

/** Neighbouring runs of one style as one: which script their signs belong to does not matter here. */
function mergedRuns(text: string, runs: ReturnType<typeof paragraphRuns>['runs'], own: number): DrawnRun[] {
  const merged: DrawnRun[] = []
  for (const { start, end, style: found, inline } of runs) {
    const style = found.pair?.apart ?? found
    const last = merged.at(-1)
    const joins = last?.style === style && last.to === start
    if (joins) merged.pop()
    const from = joins ? last.from : start
    const added = style.effective.layers.slice(own)
    const shown = text.slice(from, end).replaceAll(objectSign, '')
    merged.push({
      from,
      to: end,
      style,
      named: added.filter(layer => !layer.local),
      local: added.some(layer => layer.local),
      visible: /\S/.test(shown),
      shown: shown !== '' || inline.kind === 'note' || (joins && last.shown),
      characters: [...shown].length,
    })
  }
  return merged
}

/**
 * The style of a span that all words of a paragraph stand in while the paragraph itself is never seen: what a person
 * made who marked a whole line and set it by hand. Null where there is none.
 */
function absorbable(runs: readonly DrawnRun[], own: TextStyle): TextStyle | null {
  const seen = runs.filter(run => run.visible)
  if (seen.length === 0 || seen.some(run => run.style === own)) return null
  const most = seen.reduce((best, run) => (run.characters > best.characters ? run : best))
  if (!most.local || most.named.length > 0) return null
  const look = lookOf(most.style.effective)
  // What the paragraph would then say must be such that all other words can say otherwise.
  return runs.every(run => neededOn(lookOf(run.style.effective), [look]) !== null) ? most.style : null
}

/** What a named style brings along beside values: list, level, tab stops, drop cap and conditions. */
function broughtBy(cascade: Cascade, scope: StyleScope, local: Style | null, base: string | null): string {
  const style = base === null ? undefined : findStyle(scope, 'paragraph', base)
  if (!style) return ''
  let list = ''
  let level = ''
  let maps = ''
  const inside: Record<string, string> = {}
  for (const each of withParents(scope, style)) {
    list = each.attributes['style:list-style-name'] ?? list
    level = each.attributes['style:default-outline-level'] ?? level
    if (each.maps.length > 0) maps = each.name
    for (const kind of hanging) inside[kind] = markupOf(cascade, each, kind) ?? inside[kind] ?? ''
  }
  if (local?.attributes['style:list-style-name'] !== undefined) list = ''
  for (const kind of hanging) if (local && markupOf(cascade, local, kind) !== null) inside[kind] = ''
  return [list, level, maps, ...Object.values(inside)].every(each => each === '')
    ? ''
    : JSON.stringify([list, level, maps, inside])
}

const hanging = ['style:tab-stops', 'style:drop-cap', 'style:background-image']

/** An element in a style's paragraph properties as it is written; null where there is none. */
function markupOf(cascade: Cascade, style: Style, name: string): string | null {
  const holder = style.propertyNodes['style:paragraph-properties']
  if (holder === undefined) return null
  const { part } = cascade.scope(style.part)
  const element = part.first(part.element(holder), name)
  return element ? writeElement(part, element.id) : null
}
