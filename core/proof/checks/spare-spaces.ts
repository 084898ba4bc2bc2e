import { check, type Found } from '../check'
import type { Subject } from '../subject'

/** Spaces that say nothing: where, what is left of them, and what they are. */
function* spacesOf(text: string): Generator<{ from: number; to: number; after: string; says: string }> {
  for (const match of text.matchAll(/(?<=\S) {2}(?=\S)/g))
    yield { from: match.index, to: match.index + 2, after: ' ', says: 'Two spaces' }
  const lead = /^ +(?=\S)/.exec(text)
  if (lead && lead[0].length < 3)
    yield { from: 0, to: lead[0].length, after: '', says: 'A space before the first word' }
  const trail = /(?<=\S) +$/.exec(text)
  if (trail) yield { from: trail.index, to: text.length, after: '', says: 'A space behind the last word' }
  for (const match of text.matchAll(/(?<=[\p{L}\p{N})]) (?=[,.](?:\s|$))/gu))
    yield { from: match.index, to: match.index + 1, after: '', says: 'A space before a stop' }
}

function* spare({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    if (text.isCode || !/ {2}|^ | $| [,.]/.test(text.text)) continue
    for (const { from, to, after, says } of spacesOf(text.text)) {
      const run = text.runs.find(each => each.start <= from && each.end > from)
      if (!run || run.inline.kind === 'note' || run.style.effective.slots[run.slot].font.pitch === 'fixed') continue
      const { part, node } = text.paragraph
      yield {
        says,
        at: { text, from, to },
        repair: { mends: [{ kind: 'words', part, node, from, to, before: text.text.slice(from, to), after }] },
      }
    }
  }
}

export const spareSpaces = check({
  id: 'spare-space',
  group: 'words',
  title: 'Spare space',
  severity: 'warning',
  looksFor: 'Two spaces between words, spaces at the ends of paragraphs and before stops.',
  source: 'Bringhurst, The Elements of Typographic Style, 2.1.4.',
  unseen: 'Three and more are told as layout; text in faces of one width is taken for code.',
  find: spare,
})
