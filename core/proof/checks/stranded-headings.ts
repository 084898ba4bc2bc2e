import { styleWish } from '../style-wish'
import { check, type Found } from '../check'
import { wholeOf, type Subject } from '../subject'

function* stranded(subject: Subject): Generator<Found> {
  const { texts } = subject
  for (const [index, text] of texts.entries()) {
    const { paragraph, story } = text
    if (paragraph.heading === null || story.role !== 'body' || paragraph.place !== 'body') continue
    const own = subject.linesOf(text).at(-1)
    const next = texts[index + 1]
    if (!own || !next || next.story !== story || next.paragraph.heading !== null) continue
    const after = subject.linesOf(next)[0]
    if (!after || after.page <= own.page) continue
    const { cascade } = subject.session.reading
    if (cascade.paragraph(next.paragraph, story.role).properties['fo:break-before'] === 'page') continue
    const isKept = cascade.paragraph(paragraph, story.role).properties['fo:keep-with-next'] === 'always'
    const repair = isKept ? undefined : styleWish(text, { paragraph: { 'fo:keep-with-next': 'always' } })
    yield { says: `A heading at the foot of page ${own.page + 1}`, at: wholeOf(text), ...(repair ? { repair } : {}) }
  }
}

export const strandedHeadings = check({
  id: 'stranded-heading',
  group: 'setting',
  title: 'Heading at the foot of a page',
  severity: 'error',
  looksFor: 'A heading on one page whose text begins on the next.',
  source: 'ODF 1.4 part 3, fo:keep-with-next.',
  unseen: 'How other programs break the page. Put right in the style of the heading.',
  find: stranded,
})
