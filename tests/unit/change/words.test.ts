import { describe, expect, it } from 'vitest'
import { editTitle, type Edit, type Edits } from '../../../core/document/edits'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { findUntidy, type Untidiness } from '../../../core/change/clean-up/clean-up'
import { findText } from '../../../core/change/find'
import { makeEdits } from '../../../core/change/make-edits'
import { DocumentSession } from '../../../core/session'
import { paragraphText } from '../../../core/style/runs'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const none: Untidiness = {
  emptyParagraphs: false,
  doubleSpaces: false,
  edgeSpaces: false,
  tabIndents: false,
  straightQuotes: false,
}
const texts = (of: DocumentSession) =>
  of.reading.stories
    .filter(story => story.role === 'body')
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraphText)
function cleaned(
  body: string,
  wish: Partial<Untidiness>,
  more: { styles?: string; automatic?: string } = {},
): string[] {
  const open = sessionOf({ body, ...more })
  return texts(quickly(open, { type: 'clean-up', ...none, ...wish }).after)
}

describe('putting words in order', () => {
  it('takes double spaces and spaces at ends, and leaves single ones', () => {
    expect(cleaned('<text:p>a <text:s/>b c</text:p>', { doubleSpaces: true })).toEqual(['a b c'])
    expect(cleaned('<text:p><text:s text:c="2"/>a b<text:s/></text:p>', { edgeSpaces: true })).toEqual(['a b'])
    expect(cleaned('<text:p><text:s text:c="2"/>a <text:s/>b</text:p>', { doubleSpaces: true })).toEqual(['  a b'])
  })

  it('takes empty paragraphs, but none that breaks a page, holds something or is all there is', () => {
    const page = paragraphStyle('B', '', 'fo:break-before="page"')
    expect(
      cleaned(
        '<text:p>a</text:p><text:p/><text:p/><text:p text:style-name="B"/>' +
          '<text:p><text:bookmark text:name="x"/></text:p><text:p>b</text:p>',
        { emptyParagraphs: true },
        { automatic: page },
      ),
    ).toEqual(['a', '', '', 'b'])
    expect(
      cleaned(
        '<table:table><table:table-column/><table:table-row><table:table-cell>' +
          '<text:p/></table:table-cell></table:table-row></table:table>' +
          '<text:p>a</text:p>',
        { emptyParagraphs: true },
      ),
    ).toEqual(['', 'a'])
  })

  it('tells of empty paragraphs behind which words they stand', () => {
    const near = (body: string) => {
      const { document, reading } = sessionOf({ body })
      return findUntidy(document, reading, { ...none, emptyParagraphs: true }).places.map(each => each.near)
    }
    const long = `${'-'.repeat(40)} and the pier`
    expect(near(`<text:p>first</text:p><text:p>${long}</text:p><text:p/><text:p/>`)).toEqual([long.slice(-40), ''])
    expect(near('<text:p/><text:p>Kelda</text:p>')).toEqual([''])
  })

  it('takes tabs that indent, not those that part columns', () => {
    expect(cleaned('<text:p><text:tab/><text:tab/>a<text:tab/>b</text:p>', { tabIndents: true })).toEqual(['a\tb'])
  })

  it('sets quotation marks as the language has them, and leaves feet, inches and code', () => {
    const language = (name: string, code: string) => paragraphStyle(name, `fo:language="${code}" fo:country="none"`)
    const body =
      '<text:p text:style-name="E">"It\'s \'here\'," she said (\'90s), 6\' 2" tall.</text:p>' +
      '<text:p text:style-name="D">Er sagte "so".</text:p><text:p text:style-name="F">Il dit ' +
      '"oui".</text:p><text:p text:style-name="C">print("x")</text:p>'
    expect(
      cleaned(
        body,
        { straightQuotes: true },
        {
          automatic:
            language('E', 'en') +
            language('D', 'de') +
            language('F', 'fr') +
            paragraphStyle('C', 'fo:font-family="JetBrains Mono" style:font-pitch="fixed"'),
        },
      ),
    ).toEqual([
      '“It’s ‘here’,” she said (’90s), 6\' 2" tall.',
      'Er sagte „so“.',
      'Il dit «\u202Foui\u202F».',
      'print("x")',
    ])
  })

  it('leaves what the document protects, and says so', () => {
    const open = sessionOf({
      body: '<text:section text:name="S" text:protected="true"><text:p>a <text:s/>b</text:p></text:section><text:p>c</text:p>',
    })
    const { places, left } = findUntidy(open.document, open.reading, { ...none, doubleSpaces: true })
    expect(places).toEqual([])
    expect(left).toMatchObject([{ count: 1 }])
    expect(left[0]!.reason).toContain('protected')
  })

  it('takes as many places as one change takes, and says that there are more', () => {
    const open = sessionOf({ body: '<text:p>a <text:s/>b</text:p>'.repeat(5_003) })
    const found = findUntidy(open.document, open.reading, { ...none, doubleSpaces: true })
    expect([found.places.length, found.more]).toEqual([5_000, true])
    expect(findUntidy(open.document, open.reading, { ...none, edgeSpaces: true })).toMatchObject({
      places: [],
      more: false,
    })
  })

  it('keeps local formatting around what it changes', () => {
    const open = sessionOf({
      body: '<text:p>a<text:span text:style-name="T"> <text:s/>b</text:span></text:p>',
      automatic: textStyle('T', 'fo:font-weight="bold"'),
    })
    const { document } = quickly(open, { type: 'clean-up', ...none, doubleSpaces: true }).after
    const source = document.parts.get('content.xml')!
    const paragraph = [...source.descendants()].find(each => each.name === 'text:p')!
    expect([...source.elements(paragraph)].map(each => `${each.name}${source.textOf(each.id)}`)).toEqual([
      'text:span b',
    ])
  })
})

describe('finding', () => {
  it('finds text as it is written, with its page, white space and all', () => {
    const guide = session(sailingGuide())
    const found = findText(guide.composition, 'Skerrow light', true)
    expect(found.length).toBeGreaterThan(1)
    for (const place of found) {
      const story = guide.reading.stories
        .flatMap(each => paragraphsOf(each.blocks))
        .find(paragraph => paragraph.part === place.part && paragraph.node === place.node)!
      expect(paragraphText(story).slice(place.from, place.to)).toBe('Skerrow light')
      expect(
        guide.composition.pages[place.page]!.fragments.some(
          fragment => fragment.kind === 'lines' && fragment.layout.paragraph.node === place.node,
        ),
      ).toBe(true)
    }
    expect(findText(guide.composition, 'SKERROW LIGHT', false).length).toBe(found.length)
    expect(findText(guide.composition, 'SKERROW LIGHT', true)).toEqual([])
    expect(findText(guide.composition, '  ', true).length).toBe(1)
    expect(findText(guide.composition, '', true)).toEqual([])
  })

  it('looks into notes and masters', () => {
    const review = session(seasonReview())
    expect(findText(review.composition, 'show of hands', false)).toMatchObject([{ view: 'notes', page: 12 }])
    expect(findText(review.composition, 'not for the pier', false)).toMatchObject([{ view: 'masters' }])
  })
})

describe('the title of an edit', () => {
  const open = sessionOf({ body: '<text:p>one two  three</text:p><text:p>b</text:p>' })
  const [one, two] = paragraphsOf(open.reading.stories[0]!.blocks).map(paragraph => paragraph.node) as [number, number]
  const title = (...edits: Edit[]) =>
    editTitle(open.document, edits.map((edit, at) => ({ edit, firstId: 10_000 + at })) satisfies Edits)
  const text = (node: number, from: number, to: number, words: string): Edit => ({
    type: 'text',
    part: 'content.xml',
    node,
    from,
    to,
    text: words,
  })
  it('says what was written or deleted, and names a space', () => {
    expect(title(text(one, 0, 0, 'ab'), text(one, 2, 2, 'c'))).toBe('Wrote “abc”')
    expect(title(text(one, 3, 4, ''))).toBe('Deleted 1 space')
    expect(title(text(one, 0, 3, 'two'))).toBe('Replaced “one” by “two”')
    expect(title(text(one, 0, 1, ''), text(one, 0, 1, ''))).toBe('Deleted 2 characters')
    expect(title(text(one, 0, 0, 'x'), text(two, 0, 0, 'y'))).toBe('Edited text in 2 paragraphs')
    expect(title({ type: 'split', part: 'content.xml', node: one, at: 1 })).toBe('Divided a paragraph')
  })
})

describe('a session after an edit', () => {
  it('shows and counts what opening the written file shows and counts', () => {
    const open = session(sailingGuide())
    void open.composition
    const paragraph = paragraphsOf(open.reading.stories.find(story => story.role === 'body')!.blocks).find(
      each => paragraphText(each).length > 200,
    )!
    const edits: Edit[] = [
      {
        type: 'text',
        part: 'content.xml',
        node: paragraph.node,
        from: 10,
        to: 14,
        text: 'quite another lot of words, so that lines move',
      },
      { type: 'split', part: 'content.xml', node: paragraph.node, at: 60 },
    ]
    const { document } = makeEdits(
      open.document,
      edits.map((edit, at) => ({ edit, firstId: open.document.parts.get('content.xml')!.nextId + at * 100 })),
    )
    const after = new DocumentSession(document, open.typesetter, open)
    const again = session(saveDocument(document))
    expect(after.detail.census).toEqual(again.detail.census)
    expect(after.composition.pages.map(page => page.fragments.length)).toEqual(
      again.composition.pages.map(page => page.fragments.length),
    )
  })
})
