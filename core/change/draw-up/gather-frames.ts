import { findStyle, type Properties, type Style } from '../../document/styles'
import { frameStyles, type Layer } from '../../style/layers'
import type { TextStyle } from '../../style/cascade'
import type { DrawnParagraph, Gathered } from './gather'
import { differing, lookOf, paragraphLookOf, voiceWord, type Look } from './look'

/**
 * A frame or shape of a deck or drawing that stands loose: it follows no placeholder, so that what its text looks like is said
 * by hand or by a graphic style.
 */
export interface DrawnFrame {
  readonly part: string
  readonly node: number
  /** The style that it has by hand; null where it has a named one, or none. */
  readonly local: Style | null
  /** The style that it has by hand for its paragraphs; null where it has none. */
  readonly localText: Style | null
  /** The named graphic style that it has, or that its own goes back to. */
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

/** What a named graphic style says of text, by itself. */
export interface FrameGround {
  readonly text: Look
  readonly paragraph: Look
}

/** What stands under frames of a named graphic style: the default of all shapes, and the style with those it goes back to. */
export function groundOf(gathered: Gathered, part: string, base: string | null): FrameGround {
  const scope = gathered.cascade.scope(part)
  const fallback = scope.defaults.get('graphic')
  const styles = [...(fallback ? [fallback] : []), ...frameStyles(scope, base)]
  const layers = styles.map((style): Layer => ({
    from: style === fallback ? 'default' : 'frame',
    style,
    local: false,
    text: style.text,
    paragraph: style.paragraph,
  }))
  return {
    text: lookOf(gathered.resolve(layers)),
    paragraph: paragraphLookOf(Object.assign({}, ...styles.map(style => style.paragraph)) as Properties),
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

/** The loose frames of a deck or drawing that hold text. */
export function gatherFrames(gathered: Gathered): DrawnFrame[] {
  const found = new Map<string, DrawnParagraph[]>()
  for (const each of gathered.paragraphs) {
    const { holder, part } = each.paragraph
    if (holder?.kind !== 'frame') continue
    const key = `${part}#${holder.node}`
    found.set(key, [...(found.get(key) ?? []), each])
  }
  return [...found.values()].flatMap(paragraphs => {
    const frame = drawnFrame(gathered, paragraphs)
    return frame ? [frame] : []
  })
}

function drawnFrame(gathered: Gathered, paragraphs: readonly DrawnParagraph[]): DrawnFrame | null {
  const { paragraph } = paragraphs[0]!
  const { holder, part } = paragraph
  if (holder?.kind !== 'frame') return null
  const scope = gathered.cascade.scope(part)
  const name = holder.graphicStyle
  if (name !== null && findStyle(scope, 'presentation', name)) return null
  const named = name === null ? undefined : findStyle(scope, 'graphic', name)
  const most = mostOf(paragraphs)
  if (!most) return null
  const local = named?.origin === 'automatic' ? named : null
  const ofText = holder.textStyle === null ? undefined : findStyle(scope, 'paragraph', holder.textStyle)
  const base = local ? local.parentName : (named?.name ?? null)
  const { look, voice, characters } = most
  const word = voiceWord(look)
  return {
    part,
    node: holder.node,
    local,
    localText: ofText?.origin === 'automatic' ? ofText : null,
    base,
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
