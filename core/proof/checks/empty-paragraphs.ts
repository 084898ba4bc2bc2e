import { isSpareParagraph } from '../../document/paragraph-verbs'
import { check, type Found } from '../check'
import { wholeOf, type Subject } from '../subject'

function* empty({ texts, session }: Subject): Generator<Found> {
  for (const text of texts) {
    const { paragraph, story } = text
    if (paragraph.inlines.length > 0) continue
    const part = session.document.parts.get(paragraph.part)
    const { properties, masterPage } = session.reading.cascade.paragraph(paragraph, story.role)
    const breaks =
      properties['fo:break-before'] === 'page' || properties['fo:break-after'] === 'page' || masterPage !== null
    if (!part || breaks || !isSpareParagraph(part, paragraph.node)) continue
    yield {
      says: 'An empty paragraph as a space',
      at: wholeOf(text),
      repair: { mends: [{ kind: 'empty', part: paragraph.part, node: paragraph.node }] },
    }
  }
}

export const emptyParagraphs = check({
  id: 'empty-paragraph',
  group: 'words',
  title: 'Double return',
  severity: 'warning',
  looksFor: 'Empty paragraphs that stand for space before or after another.',
  source: 'Space belongs to the style of a paragraph (ODF 1.4 part 3, fo:margin-top and fo:margin-bottom).',
  unseen: 'Empty paragraphs that a table, a note or a page needs are left.',
  find: empty,
})
