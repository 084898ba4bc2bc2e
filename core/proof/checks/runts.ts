import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* short(subject: Subject, { letters }: Readonly<Record<'letters', number>>): Generator<Found> {
  for (const text of subject.texts) {
    if (text.isCode || text.paragraph.heading !== null) continue
    const layout = subject.linesOf(text)[0]?.layout
    const last = layout?.lines.at(-1)
    if (!layout || !last || layout.lines.length < 2 || layout.text !== text.text) continue
    const words = text.text.slice(last.start, last.contentEnd)
    if (words.trim() === '' || /\s/.test(words.trim()) || [...words.matchAll(/[\p{L}\p{N}]/gu)].length >= letters)
      continue
    const before = layout.lines.at(-2)!
    if (before.hyphen) continue
    // The space in front of it, which is bound: the word before comes along. A line that begins within a word, or at a tab,
    // would not be moved by that.
    const space = last.start - 1
    const canBind = text.text[space] === ' ' && !/^\s/.test(words)
    const { part, node } = text.paragraph
    yield {
      says: `“${words}” alone in the last line`,
      at: { text, from: last.start, to: last.contentEnd },
      ...(canBind
        ? {
            repair: {
              mends: [
                {
                  kind: 'words' as const,
                  part,
                  node,
                  from: space,
                  to: space + 1,
                  before: ' ',
                  after: '\u00A0',
                },
              ],
            },
          }
        : {}),
    }
  }
}

export const runts = check({
  id: 'runt',
  group: 'setting',
  title: 'Runt',
  severity: 'note',
  looksFor: 'A short word alone in the last line of a paragraph.',
  source:
    'Bringhurst, The Elements of Typographic Style, 2.4.3: at least four letters of a hyphenated end, better more.',
  unseen: 'Fields and paragraphs whose text changes with the page. Put right by binding the last two words.',
  limits: { letters: { title: 'Letters fewer than', usual: 4, least: 2, most: 20 } },
  find: short,
})
