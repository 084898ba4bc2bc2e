import { check, type Found } from '../check'
import { visibleCount, type Subject } from '../subject'

function* layout({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    if (text.isCode || !/ {3}|\t/.test(text.text) || visibleCount(text.text) === 0) continue
    const { part, node } = text.paragraph
    const mend = (from: number, to: number, after: string) => ({
      repair: { mends: [{ kind: 'words' as const, part, node, from, to, before: text.text.slice(from, to), after }] },
    })
    for (const match of text.text.matchAll(/ {3,}/g)) {
      const to = match.index + match[0].length
      if (to === text.text.length) continue
      const after = match.index === 0 ? '' : ' '
      yield {
        says: `${match[0].length} spaces as layout`,
        at: { text, from: match.index, to },
        ...mend(match.index, to, after),
      }
    }
    // With the spaces behind them, which would begin the paragraph in their place.
    const indent = /^\t[\t ]*/.exec(text.text)
    if (indent && !text.paragraph.list) {
      const tabs = indent[0].replaceAll(' ', '').length
      yield {
        says: `${tabs === 1 ? 'A tab' : `${tabs} tabs`} as an indent`,
        at: { text, from: 0, to: indent[0].length },
        ...mend(0, indent[0].length, ''),
      }
    }
    for (const match of text.text.matchAll(/(?<=[^\t])\t{2,}/g))
      yield {
        says: `${match[0].length} tabs in a row where one stop would do`,
        at: { text, from: match.index, to: match.index + match[0].length },
        severity: 'note',
      }
  }
}

export const layoutSpaces = check({
  id: 'layout-space',
  group: 'words',
  title: 'Spaces and tabs as layout',
  severity: 'warning',
  looksFor: 'Three or more spaces in a row, tabs at the beginning of a paragraph, several tabs in a row.',
  source: 'Bringhurst, The Elements of Typographic Style, 2.3; what is placed by spaces moves with every face.',
  unseen: 'Columns that several paragraphs make by spaces together. Rows of tabs are told and not put right.',
  find: layout,
})
