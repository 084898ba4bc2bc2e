import type { Slot } from '../document/font-attributes'
import { openParagraph } from '../document/paragraph-spots'
import { assignStyle } from '../document/paragraph-verbs'
import { spansWithin, stretchesOutsideSpans, styleNameAt } from '../document/span-places'
import { splitSpansAt, wrapRange } from '../document/spans'
import type { Values } from '../document/automatic-styles'
import type { Paragraph } from '../document/story-model'
import { fontValues, type FontWish } from '../document/face-verbs'
import type { Planner } from './planner'

/**
 * Local formatting for a stretch of a paragraph. Attributes as OpenDocument names them; with null they are taken
 * away.
 */
export interface LocalLook {
  readonly paragraph: Pick<Paragraph, 'part' | 'node'>
  readonly from: number
  readonly to: number
  readonly text: Values
  readonly fonts: Partial<Readonly<Record<Slot, FontWish>>>
  /** Properties of the paragraph as a whole. */
  readonly setting: Values
}

/** The values of a look in a part: its fonts are declared there. */
function valuesIn(planner: Planner, path: string, look: LocalLook): Record<string, string | null> {
  const draft = planner.change.on(path)
  const values: Record<string, string | null> = {}
  for (const [slot, wish] of Object.entries(look.fonts)) Object.assign(values, fontValues(draft, slot as Slot, wish))
  return { ...values, ...look.text }
}

/** What comes to nothing need not be written: a new style has nothing that could be taken away. */
const stated = (values: Record<string, string | null>): Record<string, string> =>
  Object.fromEntries(Object.entries(values).filter((entry): entry is [string, string] => entry[1] !== null))

/**
 * Writes local formatting: on the paragraph's own automatic style where the whole of it is meant and nothing inside
 * says otherwise, else in spans around the text. Text, links, fields and notes stay as they are.
 */
export function setLocally(planner: Planner, looks: readonly LocalLook[]): void {
  // Later stretches of a paragraph first: offsets do not move, but the elements around them do.
  const order = [...looks].sort(
    (a, b) =>
      a.paragraph.part.localeCompare(b.paragraph.part) || a.paragraph.node - b.paragraph.node || b.from - a.from,
  )
  for (const look of order) {
    const { part, node } = look.paragraph
    const draft = planner.change.on(part)
    const automatic = planner.automatic(part)
    const { length } = openParagraph(draft.part, node).text
    const values = valuesIn(planner, part, look)
    const wholly = look.from <= 0 && look.to >= length
    if (Object.keys(look.setting).length > 0 || (wholly && Object.keys(values).length > 0)) {
      const own = styleNameAt(draft.part, node)
      assignStyle(
        draft,
        node,
        automatic.derive('paragraph', own, { paragraph: look.setting, ...(wholly ? { text: values } : {}) }),
      )
    }
    if (Object.keys(values).length === 0 || look.to <= look.from) continue
    splitSpansAt(draft, node, look.from)
    splitSpansAt(draft, node, look.to)
    for (const span of spansWithin(draft.part, node, Math.max(look.from, 0), Math.min(look.to, length))) {
      const own = styleNameAt(draft.part, span)
      // Spans inside say it themselves where they would otherwise win.
      if (own !== null) assignStyle(draft, span, automatic.derive('text', own, { text: values }))
    }
    if (wholly) continue
    const style = automatic.derive('text', null, { text: stated(values) })
    if (style === null) continue
    for (const stretch of stretchesOutsideSpans(draft.part, node, look.from, look.to))
      wrapRange(draft, node, stretch.from, stretch.to, style)
  }
  planner.sweep()
}
