import { describe, expect, it } from 'vitest'
import { PlanError } from '../../../core/change/plan'
import { scopeWords, stretchesOf, textScopeSchema, type TextScope } from '../../../core/change/scope'
import { allParagraphs } from '../../../core/document/stories'
import { paragraphText } from '../../../core/style/runs'
import type { DocumentSession } from '../../../core/session'
import { makeDrawing, paragraphStyle, session, sessionOf, shapeAt, textFrame, textStyle } from '../../support/fixtures'

const frame = (inside: string, more = '') => textFrame(shapeAt(1, 1, 4, 4), inside, more)
const text = sessionOf({
  styles:
    paragraphStyle('Body', 'fo:color="#000000"') +
    paragraphStyle('Lead', 'fo:color="#112233"', '', ' style:parent-style-name="Body"') +
    textStyle('Name', 'fo:font-style="italic"'),
  automatic: paragraphStyle('P1', 'fo:color="#445566"', '', ' style:parent-style-name="Lead"'),
  masters:
    '<style:master-page style:name="Standard" style:page-layout-name="pm">' +
    '<style:header><text:p text:style-name="Body">header</text:p></style:header></style:master-page>',
  body:
    '<text:tracked-changes><text:changed-region><text:deletion><text:p text:style-name="Body">gone</text:p>' +
    '</text:deletion></text:changed-region></text:tracked-changes>' +
    '<text:p text:style-name="Body">the ship <text:span text:style-name="Name">Cormorant</text:span> sails</text:p>' +
    '<text:p text:style-name="P1">lead by hand</text:p>' +
    '<text:p text:style-name="Lead">with a box' +
    `${frame('<text:p>one</text:p><text:p>two</text:p>', 'text:anchor-type="paragraph"')}</text:p>`,
})
const deck = session(
  makeDrawing({
    pages:
      '<draw:page draw:name="1" draw:master-page-name="M">' +
      frame('<text:p>loose</text:p>') +
      `<draw:g>${frame('<text:p>in a group</text:p>')}</draw:g>` +
      frame('<text:p>placeholder</text:p>', 'presentation:class="title"') +
      frame('<text:p>by its style</text:p>', 'presentation:style-name="pr1"') +
      `<presentation:notes>${frame('<text:p>spoken</text:p>', 'presentation:class="notes"')}</presentation:notes>` +
      '</draw:page>',
  }),
)

const words = (of: DocumentSession, scope: TextScope) =>
  stretchesOf(of.reading, scope).map(({ paragraph, from, to }) => paragraphText(paragraph).slice(from, to))
/** The paragraph that begins with some words. */
const at = (of: DocumentSession, begins: string) =>
  [...allParagraphs(of.reading)].map(each => each.paragraph).find(each => paragraphText(each).startsWith(begins))!

describe('which text is meant', () => {
  it('by a whole document: all but what was deleted', () => {
    const meant = words(text, { kind: 'document' })
    expect(meant).toContain('header')
    expect(meant).toContain('one')
    expect(meant).not.toContain('gone')
    expect(stretchesOf(text.reading, { kind: 'document' }).every(each => each.whole)).toBe(true)
  })

  it('by one of its texts: the body with its frames, and no header', () => {
    const { part, node } = at(text, 'lead')
    const meant = words(text, { kind: 'story', part, node })
    expect(meant).toEqual(expect.arrayContaining(['lead by hand', 'one', 'two']))
    expect(meant).not.toContain('header')
  })

  it('by a paragraph style: its own paragraphs, set by hand or not, and none of its children', () => {
    expect(words(text, { kind: 'style', family: 'paragraph', name: 'Lead' }).map(each => each.slice(0, 4))).toEqual([
      'lead',
      'with',
    ])
    expect(words(text, { kind: 'style', family: 'paragraph', name: 'Body' })).toEqual(
      expect.arrayContaining(['the ship Cormorant sails', 'header']),
    )
  })

  it('by a character style: its words, which are no whole paragraph', () => {
    const scope = { kind: 'style', family: 'text', name: 'Name' } as const
    expect(words(text, scope)).toEqual(['Cormorant'])
    expect(stretchesOf(text.reading, scope)[0]).toMatchObject({ from: 9, to: 18, whole: false })
  })

  it('by a frame: everything in it', () => {
    const { part, holder } = at(text, 'one')
    expect(words(text, { kind: 'frame', part, node: holder!.node })).toEqual(['one', 'two'])
  })

  it('by all loose frames: those of the pages that follow no placeholder, in groups too', () => {
    expect(words(deck, { kind: 'loose-frames' })).toEqual(['loose', 'in a group'])
    expect(words(text, { kind: 'loose-frames' })).toEqual(['one', 'two'])
  })

  it('by ranges: each as far as its text goes; whole where all of it is meant', () => {
    const { part, node } = at(text, 'the ship')
    const range = (from: number, to: number) => ({ kind: 'ranges' as const, ranges: [{ part, node, from, to }] })
    expect(words(text, range(4, 8))).toEqual(['ship'])
    expect(stretchesOf(text.reading, range(0, 24))[0]).toMatchObject({ from: 0, to: 24, whole: true })
    expect(stretchesOf(text.reading, range(0, 999))[0]).toMatchObject({ from: 0, to: 24, whole: true })
    expect(stretchesOf(text.reading, range(1, 24))[0]!.whole).toBe(false)
    expect(stretchesOf(text.reading, range(0, 23))[0]!.whole).toBe(false)
  })

  it('by nothing that is there is refused, and nothing changes', () => {
    const none = { kind: 'style', family: 'paragraph', name: 'Nobody' } as const
    expect(() => stretchesOf(text.reading, none)).toThrow(PlanError)
    expect(() => stretchesOf(text.reading, none)).toThrow('There is no text that this is about.')
    const gone = { kind: 'ranges', ranges: [{ part: 'content.xml', node: 999_999, from: 0, to: 1 }] } as const
    expect(() => stretchesOf(text.reading, textScopeSchema.parse(gone))).toThrow('no longer in the document')
    // An empty document is a document.
    expect(stretchesOf(sessionOf({ body: '' }).reading, { kind: 'document' })).toEqual([])
  })
})

describe('where text is, in words', () => {
  it.each<[TextScope, string]>([
    [{ kind: 'document' }, 'everywhere'],
    [{ kind: 'story', part: 'p', node: 1 }, 'in one text'],
    [{ kind: 'style', family: 'paragraph', name: 'Body' }, 'in The body'],
    [{ kind: 'voice', key: 'k' }, 'in one voice'],
    [{ kind: 'frame', part: 'p', node: 1 }, 'in one frame'],
    [{ kind: 'loose-frames' }, 'in all loose frames'],
    [{ kind: 'ranges', ranges: [{ part: 'p', node: 1, from: 0, to: 1 }] }, 'in the chosen text'],
  ])('%j: %s', (scope, said) => {
    expect(scopeWords(scope, name => `The ${name.toLowerCase()}`)).toBe(said)
  })
})
