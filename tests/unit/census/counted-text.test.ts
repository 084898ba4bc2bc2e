import { describe, expect, it } from 'vitest'
import { countedRuns } from '../../../core/census/counted-text'
import { WordDesk } from '../../../core/desk/word-desk'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import type { Edit } from '../../../core/document/edits'
import type { DocumentSession } from '../../../core/session'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, library, makeOdt, paragraphStyle, session } from '../../support/fixtures'
import { numbersFrom } from '../../support/seeded'

const bodyOf = ({ reading }: DocumentSession) => {
  const story = reading.stories.find(each => each.role === 'body')!
  return [...paragraphsOf(story.blocks)].map(paragraph => ({ paragraph, cascade: reading.cascade, role: story.role }))
}
const runsOf = (open: DocumentSession, of = library) =>
  bodyOf(open).map(each => countedRuns(each.paragraph, each.cascade, each.role, of))

describe('what is counted of a paragraph', () => {
  it('is kept while its text, its styles and the library are the same, and only what was typed in is counted anew', () => {
    const desk = new WordDesk(session(sailingGuide()), 1)
    const before = runsOf(desk.session)
    expect(runsOf(desk.session).every((runs, index) => runs === before[index])).toBe(true)
    const { paragraph } = bodyOf(desk.session)[6]!
    desk.edit([{ type: 'text', part: paragraph.part, node: paragraph.node, from: 0, to: 0, text: 'Then ' }])
    const after = runsOf(desk.session)
    expect(after.flatMap((runs, index) => (runs === before[index] ? [] : [index]))).toEqual([6])
    // With others standing in, fonts are found elsewhere: nothing of before holds.
    const others = library.withStandIns([])
    expect(others).not.toBe(library)
    expect(runsOf(desk.session, others).some((runs, index) => runs === after[index])).toBe(false)
  })

  it('counts characters as people do, a note by its citation, frames not at all', () => {
    const open = session(
      makeOdt({
        faces: face('Jost') + face('Nowhere'),
        automatic: paragraphStyle('P', 'style:font-name="Nowhere"'),
        body:
          '<text:p text:style-name="P">a𝒳b<text:s text:c="3"/><text:note text:id="n" text:note-class="footnote">' +
          '<text:note-citation>12</text:note-citation><text:note-body><text:p>note</text:p></text:note-body></text:note></text:p>' +
          '<text:p text:style-name="P"/>',
      }),
    )
    const [first, note, empty] = runsOf(open)
    expect(first!.reduce((sum, run) => sum + run.characters, 0)).toBe(8)
    expect(first!.filter(run => run.object).map(run => run.characters)).toEqual([2])
    expect(first!.filter(run => run.blank).map(run => run.characters)).toEqual([3])
    expect(first!.every(run => run.of.resolution.status === 'absent')).toBe(true)
    expect(note!.map(run => run.characters)).toEqual([4])
    expect(empty).toEqual([])
  })

  it('adds up after any edits to what counting from nothing gives, absent faces as well', () => {
    const random = numbersFrom(11)
    const desk = new WordDesk(session(sailingGuide()), 1)
    for (let round = 0; round < 12; round++) {
      const all = bodyOf(desk.session).filter(({ paragraph }) => paragraph.inlines.length > 0)
      const { part, node } = all[Math.floor(random() * all.length)]!.paragraph
      const edit: Edit =
        round % 3 === 2
          ? { type: 'split', part, node, at: 0 }
          : { type: 'text', part, node, from: 0, to: 0, text: round % 2 ? ' ' : 'Überfahrt ' }
      desk.edit([edit])
      const anew = session(saveDocument(desk.session.document))
      const { census } = desk.session.detail
      expect(census, `round ${round}`).toEqual(anew.detail.census)
      const told = ({ absent }: DocumentSession) =>
        absent.faces.map(each => [each.family, each.characters, each.emptyMarks, each.pages])
      expect(told(desk.session)).toEqual(told(anew))
    }
  })
})
