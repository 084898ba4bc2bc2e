import { paragraphsOf } from '../document/stories'
import type { Reading } from '../style/reading'

/** Sixteen bytes in the form of a UUID, always the same for the same text: FNV-1a four times over. */
export function identifierOf(text: string): string {
  let digits = ''
  for (let round = 0; round < 4; round++) {
    let hash = 0x811c9dc5 ^ round
    for (let at = 0; at < text.length; at++) hash = Math.imul(hash ^ text.charCodeAt(at), 0x01000193) >>> 0
    digits += hash.toString(16).padStart(8, '0')
  }
  return digits.replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}

/** The language most text is in. */
export function mainLanguage(reading: Reading): string {
  const counts = new Map<string, number>()
  for (const story of reading.stories) {
    if (story.role !== 'body' && story.role !== 'page') continue
    for (const block of paragraphsOf(story.blocks)) {
      const { language } = reading.cascade.paragraph(block, story.role).text.effective.slots.western
      if (language)
        counts.set(
          language,
          (counts.get(language) ?? 0) +
            block.inlines.reduce((sum, inline) => sum + (inline.kind === 'text' ? inline.text.length : 0), 0),
        )
    }
  }
  return [...counts].sort((a, b) => b[1] - a[1])[0]?.[0] ?? ''
}
