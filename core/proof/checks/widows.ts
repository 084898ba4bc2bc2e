import { styleWish } from '../style-wish'
import { check, type Found } from '../check'
import type { Subject } from '../subject'

function* lonely(subject: Subject): Generator<Found> {
  for (const text of subject.texts) {
    const stretches = subject.linesOf(text)
    if (stretches.length < 2) continue
    for (const [index, { from, to, page, layout }] of stretches.entries()) {
      const lines = layout.lines
      if (to - from !== 1 || lines.length < 2) continue
      const widow = to === lines.length && from > 0 && stretches[index - 1]?.layout === layout
      const orphan = from === 0 && to < lines.length
      if (!widow && !orphan) continue
      const line = lines[from]!
      // Where two lines are kept together already, the page has no room for both.
      const repair =
        layout.look.widows >= 2 && layout.look.orphans >= 2
          ? undefined
          : styleWish(text, { paragraph: { 'fo:widows': '2', 'fo:orphans': '2' } })
      yield {
        says: widow
          ? `A last line alone at the top of page ${page + 1}`
          : `A first line alone at the foot of page ${page + 1}`,
        at: { text, from: line.start, to: line.contentEnd },
        page,
        ...(repair ? { repair } : {}),
      }
    }
  }
}

export const widows = check({
  id: 'widow',
  group: 'setting',
  title: 'Widow or orphan',
  severity: 'warning',
  looksFor: 'The last line of a paragraph alone on a page or column, or its first.',
  source: 'Bringhurst, The Elements of Typographic Style, 2.4.8; ODF 1.4 part 3, fo:widows and fo:orphans.',
  unseen: 'How other programs break the page. Put right in the style: two lines stay together.',
  find: lonely,
})
