import { assignParagraph, assignStyle } from '../../document/paragraph-verbs'
import { extentOf, isSpan, isWithin, saysOnly, styledWithin } from '../../document/span-places'
import { unwrapSpan } from '../../document/spans'
import type { Paragraph, Story } from '../../document/story-model'
import { findStyle, type Style } from '../../document/styles'
import type { TextStyle } from '../../style/cascade'
import { slots } from '../../document/font-attributes'
import { looksSame } from '../../style/effective'
import type { Layer } from '../../style/layers'
import { paragraphRuns } from '../../style/runs'
import type { Planner } from '../planner'
import { isForeign } from './look'

/** Values of an automatic style that are not said any more over a stretch of a paragraph. */
interface Dropped {
  readonly from: number
  readonly to: number
  readonly style: Style
  readonly names: ReadonlySet<string>
}

const without = (layer: Layer, dropped: readonly Dropped[]): Layer => {
  // A frame may name the same style for its paragraphs as one of them does: that one stays.
  const names = dropped
    .filter(({ style }) => style === layer.style && style.family === layer.from)
    .flatMap(each => [...each.names])
  if (names.length === 0) return layer
  const gone = new Set(names)
  const drop = (values: Layer['text']) => Object.fromEntries(Object.entries(values).filter(([name]) => !gone.has(name)))
  return { ...layer, text: drop(layer.text), paragraph: drop(layer.paragraph) }
}

/**
 * Takes from one paragraph what was set by hand on it or its words and says only what its styles say: first from the paragraph
 * itself, whose words may all say otherwise, then from words. Other text that goes by the same automatic styles keeps them.
 */
export function sweepParagraph(planner: Planner, paragraph: Paragraph, role: Story['role']): void {
  const { cascade } = planner.reading
  const draft = planner.change.on(paragraph.part)
  const automatic = planner.automatic(paragraph.part)
  const scope = cascade.scope(paragraph.part)
  const { text, runs } = paragraphRuns(paragraph, cascade, role)
  const own = cascade.paragraph(paragraph, role).text
  const dropped: Dropped[] = []
  /** The values of a style that change nothing of some text where they go, each by itself and all together. */
  const idle = (style: Style, values: readonly string[], from: number, to: number, seen: readonly TextStyle[]) => {
    const shown = runs.filter(run => run.start < to && run.end > from)
    const same = (names: readonly string[]) => {
      const all = [...dropped, { from, to, style, names: new Set(names) }]
      const unchanged = (each: TextStyle, at: readonly Dropped[]) => {
        const after = each.resolvedWith(layer => without(layer, at))
        return slots.every(slot => looksSame(each.effective, after, slot))
      }
      return (
        shown.every(run =>
          unchanged(
            run.style,
            all.filter(each => each.from < run.end && each.to > run.start),
          ),
        ) && seen.every(each => unchanged(each, [{ from, to, style, names: new Set(names) }]))
      )
    }
    const found = values.filter(name => !isForeign(name) && same([name]))
    return found.length > 0 && same(found) ? found : []
  }
  const nothing = (names: readonly string[]) => Object.fromEntries(names.map(name => [name, null]))
  const local = paragraph.styleName === null ? undefined : findStyle(scope, 'paragraph', paragraph.styleName)
  if (local?.origin === 'automatic') {
    // Where no words are, and where a label stands before them, the paragraph's own look is seen.
    const seen = runs.length === 0 || paragraph.list !== null ? [own] : []
    const to = Math.max(text.length, 1)
    const names = idle(local, Object.keys(local.text), 0, to, seen)
    if (names.length > 0) {
      dropped.push({ from: 0, to, style: local, names: new Set(names) })
      const rest = automatic.derive('paragraph', local.name, { text: nothing(names) })
      assignParagraph(draft, paragraph.node, rest)
    }
  }
  const bearers = styledWithin(draft.part, paragraph.node, 0, text.length)
  for (const { node, name } of bearers) {
    const style = findStyle(scope, 'text', name)
    const extent = style?.origin === 'automatic' ? extentOf(draft.part, node) : null
    // Words in words: a style that stands around another would be told apart from itself.
    const nested = bearers.some(each => each.node !== node && isWithin(draft.part, node, each.node))
    if (!style || !extent || nested) continue
    const names = idle(style, Object.keys(style.text), extent.from, extent.to, [])
    if (names.length === 0) continue
    dropped.push({ from: extent.from, to: extent.to, style, names: new Set(names) })
    automatic.release('text', name)
    const rest = automatic.derive('text', name, { text: nothing(names) })
    if (rest === null && isSpan(draft.part, node) && saysOnly(draft.part, node, 'text:style-name'))
      unwrapSpan(draft, node)
    else assignStyle(draft, node, rest)
  }
}
