import { quoteChanges, quotes } from '../../change/clean-up/clean-up'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* straight({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    const language = text.language || 'en'
    if (text.isCode || !/["']/.test(text.text) || !quotes[language.split('-')[0]!]) continue
    for (const { from, to, after } of quoteChanges(text.text, language)) {
      const run = text.runs.find(each => each.start <= from && each.end > from)
      if (!run || run.style.effective.slots[run.slot].font.pitch === 'fixed') continue
      const { part, node } = text.paragraph
      const before = text.text.slice(from, to)
      yield {
        says: `${before} for ${after.trim()}`,
        at: { text, from, to },
        repair: { mends: [{ kind: 'words', part, node, from, to, before, after }] },
      }
    }
  }
}

export const straightQuotes = check({
  id: 'straight-quote',
  group: 'words',
  title: 'Straight quotation mark or apostrophe',
  severity: 'warning',
  looksFor: 'The straight signs of a keyboard where the language has quotation marks and apostrophes of its own.',
  source: 'Unicode 16, chapter 6.2 (Quotation Marks), and national usage.',
  unseen:
    'Feet, inches, minutes and seconds are left; text in faces of one width is taken for code, other languages than known ones are left.',
  find: straight,
})
