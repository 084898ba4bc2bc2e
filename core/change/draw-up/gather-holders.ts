import { findStyle, type Properties, type Style } from '../../document/styles'
import type { Holder } from '../../document/story-model'
import { paragraphLayers } from '../../style/layers'
import type { TextStyle } from '../../style/cascade'
import { keyOfLayer, type DrawnParagraph, type Gathered } from './gather'
import { differing, lookOf, paragraphLookOf, voiceWord, type Look } from './look'

/** Families of the styles that frames and cells of a deck or drawing take. */
export const holderFamilies = ['graphic', 'table-cell'] as const
export type HolderFamily = (typeof holderFamilies)[number]

/**
 * A frame or shape of a deck or drawing that stands loose, following no placeholder, or a cell of a table there: what its
 * text looks like is said by hand, by a graphic or cell style, or by the table's template.
 */
export interface DrawnHolder {
  readonly family: HolderFamily
  readonly part: string
  readonly node: number
  /** The style that it has by hand; null where it has a named one, or none. */
  readonly local: Style | null
  /** The style that it has by hand for its paragraphs; null where it has none. Cells have none. */
  readonly localText: Style | null
  /** The named style that it has, or that its own goes back to. */
  readonly base: string | null
  readonly paragraphs: readonly DrawnParagraph[]
  /** Those whose text looks as most of it does. */
  readonly members: readonly DrawnParagraph[]
  /** How most of its text looks, and the text that it looks so in. */
  readonly look: Look
  readonly voice: TextStyle
  readonly characters: number
  readonly slots: DrawnParagraph['slots']
  /** A style has to be made for it: its named ones do not say how its text looks. */
  readonly needs: boolean
}

/** What stands under the text of a frame or cell before it says anything by hand. */
export interface HolderGround {
  readonly text: Look
  readonly paragraph: Look
}

const grounds = new WeakMap<Gathered, Map<string, HolderGround>>()

/**
 * What stands under the text of a frame or cell where it has a named style of its family, or none: the defaults, what it stands
 * in, its table's template, and the style with those it goes back to. Equal grounds are one object.
 */
export function groundOf(gathered: Gathered, of: DrawnHolder, name: string | null): HolderGround {
  const { paragraph, role } = of.paragraphs[0]!
  const holder = withStyle(paragraph.holder!, name)
  const layers = paragraphLayers(
    gathered.cascade.scope(of.part),
    gathered.cascade.sub.kind,
    { ...paragraph, holder, list: null, styleName: null, classNames: [] },
    role,
  )
  let known = grounds.get(gathered)
  if (!known) grounds.set(gathered, (known = new Map()))
  const key = layers.map(keyOfLayer).join()
  let ground = known.get(key)
  if (!ground) {
    ground = {
      text: lookOf(gathered.resolve(layers)),
      paragraph: paragraphLookOf(Object.assign({}, ...layers.map(each => each.paragraph)) as Properties),
    }
    known.set(key, ground)
  }
  return ground
}

/** The different grounds of some frames or cells. */
export const groundsOf = (
  gathered: Gathered,
  holders: readonly DrawnHolder[],
  name: string | null,
): ReadonlySet<HolderGround> => new Set(holders.map(each => groundOf(gathered, each, name)))

function withStyle(holder: Holder, name: string | null): Holder {
  switch (holder.kind) {
    case 'frame':
      return { ...holder, graphicStyle: name, textStyle: null }
    case 'cell':
      return { ...holder, styleName: name }
    case 'chart-text':
      return holder
  }
}

/** The look that most signs of some paragraphs have, and whose text that is; those with a named style of their own go by it. */
function mostOf(paragraphs: readonly DrawnParagraph[]) {
  const counts = new Map<string, { look: Look; voice: TextStyle; characters: number }>()
  for (const { runs, base } of paragraphs)
    for (const { style, characters, visible } of runs) {
      if (!visible || base !== null) continue
      const look = lookOf(style.effective)
      const key = voiceWord(look)
      const known = counts.get(key) ?? { look, voice: style, characters: 0 }
      known.characters += characters
      counts.set(key, known)
    }
  return [...counts.values()].sort((a, b) => b.characters - a.characters)[0] ?? null
}

/** How an empty cell looks, by its first line; null where it is none, or has a named style. */
function emptyCell(paragraphs: readonly DrawnParagraph[]) {
  const [first] = paragraphs
  return first?.paragraph.holder?.kind === 'cell' &&
    paragraphs.every(each => each.characters === 0 && each.base === null)
    ? { look: first.look, voice: first.voice, characters: 0 }
    : null
}

/** The loose frames of a deck or drawing that hold text, and its cells, empty ones too. */
export function gatherHolders(gathered: Gathered): DrawnHolder[] {
  const found = new Map<string, DrawnParagraph[]>()
  for (const each of gathered.paragraphs) {
    const { holder, part } = each.paragraph
    if (!holder || holder.kind === 'chart-text') continue
    const key = `${part}#${holder.node}`
    found.set(key, [...(found.get(key) ?? []), each])
  }
  return [...found.values()].flatMap(paragraphs => drawnHolder(gathered, paragraphs) ?? [])
}

/** Which style a frame or cell names, of which family; null where it follows a placeholder or is neither. */
function namedBy(gathered: Gathered, { holder, part }: DrawnParagraph['paragraph']) {
  const scope = gathered.cascade.scope(part)
  if (holder?.kind === 'cell') {
    const style = holder.styleName === null ? undefined : findStyle(scope, 'table-cell', holder.styleName)
    return { family: 'table-cell' as const, node: holder.node, style, ofText: undefined }
  }
  if (holder?.kind !== 'frame') return null
  const { node, graphicStyle: name, textStyle } = holder
  if (name !== null && findStyle(scope, 'presentation', name)) return null
  return {
    family: 'graphic' as const,
    node,
    style: name === null ? undefined : findStyle(scope, 'graphic', name),
    ofText: textStyle === null ? undefined : findStyle(scope, 'paragraph', textStyle),
  }
}

function drawnHolder(gathered: Gathered, paragraphs: readonly DrawnParagraph[]): DrawnHolder | null {
  const { paragraph } = paragraphs[0]!
  const named = namedBy(gathered, paragraph)
  const most = mostOf(paragraphs) ?? emptyCell(paragraphs)
  if (!named || !most) return null
  const { family, node, style, ofText } = named
  const local = style?.origin === 'automatic' ? style : null
  const { look, voice, characters } = most
  const word = voiceWord(look)
  return {
    family,
    part: paragraph.part,
    node,
    local,
    localText: ofText?.origin === 'automatic' ? ofText : null,
    base: local ? local.parentName : (style?.name ?? null),
    paragraphs,
    members: paragraphs.filter(each =>
      each.runs.some(run => run.visible && voiceWord(lookOf(run.style.effective)) === word),
    ),
    look,
    voice,
    characters,
    slots: new Set(paragraphs.flatMap(each => [...each.slots])),
    needs: differing(look, lookOf(gathered.resolve(voice.effective.layers.filter(layer => !layer.local)))).length > 0,
  }
}
