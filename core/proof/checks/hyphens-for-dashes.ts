import { check, type Found } from '../check'
import type { Subject } from '../subject'

interface Dash {
  readonly from: number
  readonly to: number
  readonly after: string
  readonly says: string
}

/** Hyphens of a text that stand for dashes. */
export function* dashesOf(text: string): Generator<Dash> {
  // Between words with spaces around, or two together.
  for (const match of text.matchAll(/(?<=[\p{L}\p{N}.,;:!?)”’"'] )-{1,2}(?= [\p{L}\p{N}(“„«"'])/gu))
    yield { from: match.index, to: match.index + match[0].length, after: '–', says: 'A hyphen for a dash' }
  for (const match of text.matchAll(/(?<=\p{L})--(?=\p{L})/gu))
    yield { from: match.index, to: match.index + 2, after: '—', says: 'Two hyphens for a dash' }
  // Between figures: years, pages, hours; dates and numbers of telephones have more than one.
  for (const match of text.matchAll(/(?<![\p{L}\p{N}.\-/+])(\d{1,4})-(\d{1,4})(?![\p{L}\p{N}\-/])(?!\.\d)/gu)) {
    const [, first, second] = match as unknown as [string, string, string]
    if (Number(second) <= Number(first) || first.startsWith('0')) continue
    const at = match.index + first.length
    yield { from: at, to: at + 1, after: '–', says: 'A hyphen from one figure to another' }
  }
}

function* hyphens({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    if (text.isCode || !text.text.includes('-')) continue
    for (const { from, to, after, says } of dashesOf(text.text)) {
      const run = text.runs.find(each => each.start <= from && each.end > from)
      if (!run || run.style.effective.slots[run.slot].font.pitch === 'fixed') continue
      const { part, node } = text.paragraph
      yield {
        says,
        at: { text, from: Math.max(0, from - 1), to: Math.min(text.text.length, to + 1) },
        repair: { mends: [{ kind: 'words', part, node, from, to, before: text.text.slice(from, to), after }] },
      }
    }
  }
}

export const hyphensForDashes = check({
  id: 'hyphen-for-dash',
  group: 'words',
  title: 'Hyphen for a dash',
  severity: 'warning',
  looksFor: 'Hyphens with spaces around, two hyphens together, and hyphens from one figure to a larger one.',
  source: 'Bringhurst, The Elements of Typographic Style, 5.2.',
  unseen: 'Minus signs; scores and codes that look like ranges; languages that set their dashes closed up.',
  find: hyphens,
})
