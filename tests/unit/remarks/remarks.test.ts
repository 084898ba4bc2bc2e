import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { applyEdit } from '../../../core/document/edits'
import { openDocument, saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { annotationsOf } from '../../../core/remarks/annotations'
import { RemarkFinder, textPlace } from '../../../core/remarks/find-place'
import { remarkPlaceSchema } from '../../../core/remarks/remark'
import { readDocument } from '../../../core/style/reading'
import { paragraphText } from '../../../core/style/runs'
import { makeOdt, openOdt, standardMaster, textStyle } from '../../support/fixtures'

const part = 'content.xml'
const document = openOdt({
  body:
    '<text:p>Two boats a day sail to every pier of the outer islands.</text:p>' +
    '<text:p>In the dark weeks none sails, and none is paid.</text:p><text:p>None.</text:p>',
})
const paragraphs = (of: typeof document) => readDocument(of).stories.flatMap(story => paragraphsOf(story.blocks))
const [boats, dark] = paragraphs(document).map(each => each.node) as [number, number]
const finder = (of: typeof document) => new RemarkFinder(readDocument(of))
const edited = (edit: object) =>
  applyEdit(document, { part, ...edit } as Parameters<typeof applyEdit>[1], document.parts.get(part)!.nextId).document
const about = (node: number, from: number, to: number) =>
  textPlace(paragraphText(paragraphs(document).find(each => each.node === node)!), { part, node, from, to })

describe('the place of a remark', () => {
  it('keeps the words that stand there, and no more of them than is needed to find them', () => {
    expect(about(boats, 4, 9)).toEqual({ kind: 'text', part, node: boats, from: 4, to: 9, text: 'boats' })
    expect(textPlace('x'.repeat(900), { part, node: 1, from: 10, to: 890 }).text).toHaveLength(300)
    expect(remarkPlaceSchema.safeParse({ ...about(boats, 4, 9), text: 'x'.repeat(301) }).success).toBe(false)
  })

  it('is found where it was, and where its words moved to within their paragraph', () => {
    expect(finder(document).find(about(boats, 4, 9))).toEqual({ state: 'there', part, node: boats, from: 4, to: 9 })
    const longer = edited({ type: 'text', node: boats, from: 0, to: 0, text: 'As of May, ' })
    expect(finder(longer).find(about(boats, 4, 9))).toEqual({ state: 'moved', part, node: boats, from: 15, to: 20 })
    // Of words that stand there twice, those that are nearest.
    const none = about(dark, 34, 38)
    expect(none.text).toBe('none')
    const shifted = edited({ type: 'text', node: dark, from: 34, to: 34, text: 'so ' })
    expect(finder(shifted).find(none)).toMatchObject({ state: 'moved', from: 37 })
    const before = edited({ type: 'text', node: dark, from: 0, to: 3, text: '' })
    expect(finder(before).find(none)).toMatchObject({ state: 'moved', from: 31 })
  })

  it('goes with its words into another paragraph, but only where they say enough to know them by', () => {
    const divided = edited({ type: 'split', node: boats, at: 15 })
    const [, second] = paragraphs(divided)
    expect(finder(divided).find(about(boats, 24, 55))).toEqual({
      state: 'moved',
      part,
      node: second!.node,
      from: 9,
      to: 40,
    })
    expect(finder(divided).find(about(boats, 51, 54))).toMatchObject({ state: 'changed', node: boats, from: 0, to: 15 })
  })

  it('is all of its paragraph where the words were written anew, and gone with it', () => {
    const anew = edited({ type: 'text', node: boats, from: 0, to: 56, text: 'Nothing sails.' })
    expect(finder(anew).find(about(boats, 4, 9))).toEqual({ state: 'changed', part, node: boats, from: 0, to: 14 })
    expect(finder(edited({ type: 'remove', node: boats })).find(about(boats, 4, 9))).toEqual({ state: 'gone' })
    expect(finder(document).find({ kind: 'page', page: 2, x: 0.1, y: 0.2 })).toBeNull()
  })

  it('survives an undo: it is where it was', () => {
    const { document: after, inverse } = applyEdit(
      document,
      { type: 'text', part, node: boats, from: 0, to: 56, text: 'Nothing sails.' },
      document.parts.get(part)!.nextId,
    )
    const back = applyAll(after, inverse).document
    expect(finder(back).find(about(boats, 4, 9))).toMatchObject({ state: 'there', from: 4 })
  })
})

describe('annotations', () => {
  const bytes = makeOdt({
    automatic: textStyle('T', 'fo:font-weight="bold"'),
    body:
      '<text:p>Two <text:span text:style-name="T">boats<office:annotation><dc:creator xmlns:dc="http://purl.org/dc/elements/1.1/">' +
      'Wenna</dc:creator><text:p>How many?</text:p><text:p>And when?</text:p></office:annotation></text:span> a day.</text:p>' +
      '<text:p>Sail.</text:p>',
  })

  it('of a file are told with who wrote them, what, and where', () => {
    const found = annotationsOf(openDocument(bytes))
    expect(found).toMatchObject([
      { author: 'Wenna', date: '', text: 'How many?\nAnd when?', place: { from: 9, to: 9, text: '' } },
    ])
    const { document: written } = applyEdit(
      openDocument(bytes),
      {
        type: 'add-annotation',
        part,
        node: found[0]!.place!.node,
        at: 4,
        author: 'Aldous & Co',
        date: '2031-05-02T09:30:00Z',
        text: 'Say three:\n  one <each>',
      },
      openDocument(bytes).parts.get(part)!.nextId,
    )
    // It is in the file that is saved, for every reader, and the words are as they were.
    const again = openDocument(saveDocument(written))
    expect(annotationsOf(again).map(({ author, date, text, place }) => [author, date, text, place!.from])).toEqual([
      ['Aldous & Co', '2031-05-02T09:30:00Z', 'Say three:\none <each>', 4],
      ['Wenna', '', 'How many?\nAnd when?', 9],
    ])
    expect(paragraphText(paragraphs(again)[0]!)).toBe('Two boats a day.')
  })

  it('stand in headers, too', () => {
    const plain = openOdt({ masters: standardMaster('<style:header><text:p>Saltmere</text:p></style:header>') })
    const node = [...plain.parts.get('styles.xml')!.descendants()].find(each => each.name === 'text:p')!.id
    const { document: headed } = applyEdit(
      plain,
      {
        type: 'add-annotation',
        part: 'styles.xml',
        node,
        at: 8,
        author: 'A',
        date: '2031-05-02T09:30:00Z',
        text: 'Larger',
      },
      900,
    )
    expect(annotationsOf(headed)).toMatchObject([{ text: 'Larger', place: { part: 'styles.xml', from: 8 } }])
  })

  it('are written and undone to the byte, and refused where no text is', () => {
    const open = openDocument(bytes)
    const [first] = paragraphs(open)
    const edit = {
      type: 'add-annotation',
      part,
      node: first!.node,
      at: 16,
      author: '',
      date: '2031-05-02T09:30:00Z',
      text: 'x',
    } as const
    const { document: after, inverse } = applyEdit(open, edit, open.parts.get(part)!.nextId)
    expect(annotationsOf(after).map(each => each.place!.from)).toEqual([9, 16])
    expect(Buffer.compare(saveDocument(applyAll(after, inverse).document), saveDocument(open))).toBe(0)
    expect(() => applyEdit(open, { ...edit, at: 17 }, 1_000)).toThrow(/no longer in the text/)
  })
})
