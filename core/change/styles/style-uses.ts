import { pagesOf } from '../../census/text-pages'
import type { Place } from '../../document/story-model'
import { standingParagraphs } from '../../document/stories'
import type { Style } from '../../document/styles'
import type { Reading } from '../../style/reading'
import { paragraphRuns } from '../../style/runs'
import type { Composition } from '../../typeset/compose'
import { holdingStyles } from '../../style/families'
import { isRuleStyle } from '../rules/rule-spans'

/** What a named style is used for. */
export class StyleUse {
  /** Paragraphs that have it; of a character style, stretches of words. */
  paragraphs = 0
  characters = 0
  settled = 0
  /** The highest heading that has it, from 1; null where none does. */
  level: number | null = null
  readonly pages = new Set<number>()
  readonly places = new Map<Place, number>()

  /** Where most of its text stands. */
  get place(): Place {
    return [...this.places].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 'body'
  }
}

/** How much text of the document each named style has. Without a composition no pages are told. */
export function styleUses(reading: Reading, composition: Composition | null): ReadonlyMap<Style, StyleUse> {
  const { cascade } = reading
  const uses = new Map<Style, StyleUse>()
  const where = pagesOf(composition)
  const useOf = (style: Style): StyleUse => {
    let use = uses.get(style)
    if (!use) uses.set(style, (use = new StyleUse()))
    return use
  }
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const { part, node, heading, place } = paragraph
    const { text } = cascade.paragraph(paragraph, story.role)
    const holding = holdingStyles(text.effective.layers)
    for (const own of holding) {
      const use = useOf(own)
      use.paragraphs++
      if (heading !== null) use.level = Math.min(use.level ?? 10, heading)
      for (const page of where(part, node, 0, 1)) use.pages.add(page)
    }
    for (const { style, slot, start, end } of paragraphRuns(paragraph, cascade, story.role).runs) {
      const layers = style.effective.layers.filter(layer => !layer.local && layer.from === 'text')
      const inner = layers.findLast(layer => layer.style.family === 'text' && !isRuleStyle(layer.style.name))?.style
      for (const each of [...holding, inner]) {
        if (!each) continue
        const use = useOf(each)
        use.characters += end - start
        if (style.settled(slot)) use.settled += end - start
        use.places.set(place, (use.places.get(place) ?? 0) + end - start)
      }
      if (inner) {
        const use = useOf(inner)
        use.paragraphs++
        for (const page of where(part, node, start, end)) use.pages.add(page)
      }
    }
  }
  return uses
}
