import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import { lettersInFullLines, tryFace } from '../../../core/change/set-type/try-face'
import { setTypeSchema } from '../../../core/change/set-type/wish'
import { pairWishes } from '../../../core/change/set-type/pair-wishes'
import { registry } from '../../../core/change/registry'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { seasonReview } from '../../../demo/season-review'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, library, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { planned, request } from '../../support/planning'

/** Family and size of every piece of text, by its words. */
const looks = (of: DocumentSession): Record<string, string> =>
  Object.fromEntries(
    of.reading.stories.flatMap(story =>
      paragraphsOf(story.blocks).flatMap(paragraph => {
        const { text, runs } = paragraphRuns(paragraph, of.reading.cascade, story.role)
        return runs.map((run): [string, string] => {
          const { font, size, weight } = run.style.effective.slots[run.slot]
          return [text.slice(run.start, run.end), `${font.family} ${size}${weight === 400 ? '' : ` ${weight}`}`]
        })
      }),
    ),
  )
const p = (style: string, inside: string) => `<text:p text:style-name="${style}">${inside}</text:p>`
const span = (style: string, inside: string) => `<text:span text:style-name="${style}">${inside}</text:span>`
const make = () =>
  sessionOf({
    stylesFaces: face('Spectral') + face('Jost'),
    faces: face('Spectral') + face('Jost'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="10pt" fo:language="en" fo:country="GB"/></style:default-style>' +
      paragraphStyle('Body') +
      paragraphStyle('Narrow', 'fo:font-size="9pt"', '', ' style:parent-style-name="Body"') +
      paragraphStyle('Heading', 'style:font-name="Jost" fo:font-size="20pt"') +
      textStyle('Strong', 'fo:font-weight="bold"'),
    automatic: textStyle('T1', 'style:font-name="Jost"'),
    body:
      p('Heading', 'Harbours') +
      p('Body', `By the ${span('T1', 'quay')} we ${span('Strong', 'wait')} for the boat and its people to come in`) +
      p('Narrow', 'Bring what the morning asks of you, and a coat') +
      p('Body', 'Nothing else'),
  })
const wish = (on: object, to: object = { family: 'Inter' }, more: object = {}) => ({
  type: 'set-type',
  to,
  on,
  ...more,
})
const paragraphAt = (of: DocumentSession, text: string) => {
  for (const story of of.reading.stories)
    for (const paragraph of paragraphsOf(story.blocks))
      if (paragraphRuns(paragraph, of.reading.cascade, story.role).text.includes(text)) return paragraph
  throw new Error(`no paragraph has ${text}`)
}

describe('setting a face on a style', () => {
  it('says it in the style, so that all that goes by it follows, and tells what was set by hand', () => {
    const of = make()
    const { after, plan } = planned(of, [wish({ kind: 'style', family: 'paragraph', name: 'Body' })])
    expect(looks(after)).toMatchObject({
      Harbours: 'Jost 20',
      'By the ': 'Inter 10',
      quay: 'Jost 10',
      wait: 'Inter 10 700',
      'Bring what the morning asks of you, and a coat': 'Inter 9',
      'Nothing else': 'Inter 10',
    })
    expect(plan.title).toBe('Set Inter on the paragraph style Body')
    expect(plan.left).toEqual([
      expect.objectContaining({ what: '4 characters of Body that were set by hand', count: 4 }) as unknown,
    ])
    expect(plan.rows.map(row => row.title)).toEqual(['Paragraph style Body'])
    expect(plan.effects!.pagesAfter).toBeGreaterThan(0)
  })

  it('of one weight says the weight; of a character style reaches its words alone', () => {
    const { after } = planned(make(), [
      wish({ kind: 'style', family: 'text', name: 'Strong' }, { family: 'Inter', face: 'SemiBold' }),
    ])
    expect(looks(after)).toMatchObject({ wait: 'Inter 10 600', 'By the ': 'Spectral 10' })
  })

  it('as large as before gives the size at which small letters are as high', () => {
    const of = make()
    const { after, plan } = planned(of, [
      wish({ kind: 'style', family: 'paragraph', name: 'Body' }, { family: 'Inter' }, { size: 'equal' }),
    ])
    const [one, other] = ['Spectral', 'Inter'].map(
      family => library.family(family).find(each => each.style === 'Regular')!.measures.xHeight,
    )
    const expected = Math.round(((10 * one!) / other!) * 10) / 10
    expect(looks(after)['Nothing else']).toBe(`Inter ${expected}`)
    expect(expected).toBeLessThan(9)
    expect(plan.sentences).toContain('Set Inter on the paragraph style Body, as large as before.')
  })

  it('of another script is set for that script, where text of it is', () => {
    const of = make()
    const { plan } = planned(of, [
      wish({ kind: 'style', family: 'paragraph', name: 'Body' }, { family: 'Frank Ruhl Libre' }),
    ])
    expect(plan.rows[0]!.after).toContain('Frank Ruhl Libre')
  })
})

describe('setting a face on words', () => {
  it('is local formatting, and the style that would say it for all is told', () => {
    const of = make()
    const { part, node } = paragraphAt(of, 'Nothing else')
    const { after, plan } = planned(of, [
      wish({ kind: 'ranges', ranges: [{ part, node, from: 0, to: 7 }] }, { family: 'Literata', face: 'Bold' }),
    ])
    expect(looks(after)).toMatchObject({ Nothing: 'Literata 10 700', ' else': 'Spectral 10' })
    expect(plan.left).toEqual([
      { what: 'set by hand', reason: 'the style Body would say it for all 2 paragraphs that go by it', count: 1 },
    ])
    expect(plan.title).toBe('Set Literata Bold on the selected text')
  })

  it('can be left out in part, and of two wishes each knows its own', () => {
    const of = make()
    const one = paragraphAt(of, 'Nothing else')
    const other = paragraphAt(of, 'Bring what')
    const wishes = [one, other].map(({ part, node }) =>
      wish({ kind: 'ranges', ranges: [{ part, node, from: 0, to: 5 }] }),
    )
    const { plan } = planned(of, wishes)
    expect(plan.places).toBe(2)
    const { after } = planned(of, wishes, [plan.rows[0]!.key])
    expect(looks(after)).toMatchObject({ 'Nothing else': 'Spectral 10', Bring: 'Inter 9' })
  })

  it('as large as before goes by the face that shows most of them', () => {
    const of = make()
    const { part, node } = paragraphAt(of, 'Nothing else')
    const { after } = planned(of, [
      wish({ kind: 'ranges', ranges: [{ part, node, from: 0, to: 12 }] }, { family: 'Inter' }, { size: 'equal' }),
    ])
    expect(looks(after)['Nothing else']).toMatch(/^Inter 8\.\d/)
  })
})

describe('setting a face on more', () => {
  it('on a role reaches its styles, and text that shares the font goes its own way', () => {
    const { after, plan } = planned(make(), [wish({ kind: 'role', role: 'heading' }, { family: 'Anton' })])
    expect(looks(after)).toMatchObject({ Harbours: 'Anton 20', quay: 'Jost 10' })
    expect(plan.title).toBe('Set Anton on all heading styles')
  })

  it('on all text in a family is a swap with everything that belongs to one', () => {
    const { after, plan } = planned(make(), [wish({ kind: 'family', family: 'Jost' })])
    expect(looks(after)).toMatchObject({ Harbours: 'Inter 20', quay: 'Inter 10', 'By the ': 'Spectral 10' })
    expect(plan.mappings.map(each => each.to.family)).toContain('Inter')
    expect(plan.title).toBe('Set Inter on all text in Jost')
  })

  it('on a default is what new text begins with; what is there stays', () => {
    const of = make()
    const { after, plan } = planned(of, [wish({ kind: 'default', start: 'body' })])
    expect(looks(after)).toEqual(looks(of))
    expect(plan.title).toBe('Set Inter on what body text begins with')
  })

  it('on a frame reaches what is in it and nothing else', () => {
    const of = session(seasonReview())
    const story = of.reading.stories.find(each => paragraphsOf(each.blocks).some(one => one.holder?.kind === 'frame'))!
    const paragraph = paragraphsOf(story.blocks).find(one => one.holder?.kind === 'frame')!
    const before = looks(of)
    const { after } = planned(of, [
      wish({ kind: 'frame', part: paragraph.part, node: paragraph.holder!.node }, { family: 'Literata' }),
    ])
    const changed = Object.entries(looks(after)).filter(([words, look]) => before[words] !== look)
    expect(changed.length).toBeGreaterThan(0)
    for (const [, look] of changed) expect(look).toMatch(/^Literata /)
    expect(changed.length).toBeLessThan(Object.keys(before).length / 2)
  })

  it('on the demo’s body text changes that role alone, with its pages', { timeout: 60_000 }, () => {
    const of = session(sailingGuide())
    const { plan, after } = planned(of, [
      wish({ kind: 'role', role: 'body' }, { family: 'Literata' }, { size: 'equal' }),
    ])
    expect(plan.places).toBeGreaterThan(0)
    expect(plan.effects!.paragraphsChanged).toBeGreaterThan(0)
    expect(after.detail.census.faces.some(each => each.family === 'Literata')).toBe(true)
    // Headings keep theirs.
    const heads = (from: DocumentSession) => from.detail.census.faces.filter(each => each.family === 'Skerrow').length
    expect(heads(after)).toBe(heads(of))
  })
})

describe('a pair on a document', () => {
  it('goes by role: headings take one face, running text the other, labels and tables neither', () => {
    const styles = [
      { name: 'Body', role: 'body', depth: 0 },
      { name: 'Narrow', role: 'note', depth: 1 },
      { name: 'Heading', role: 'heading', depth: 0 },
      { name: 'Table', role: 'data', depth: 0 },
      { name: 'Other', role: null, depth: 0 },
    ] as const
    const wishes = pairWishes({ heading: 'Anton', body: 'Literata' }, styles)
    expect(wishes.map(each => [each.on.kind === 'style' ? each.on.name : '', each.to.family])).toEqual([
      ['Narrow', 'Literata'],
      ['Body', 'Literata'],
      ['Heading', 'Anton'],
    ])
    // A third face takes labels and figures.
    const three = pairWishes({ heading: 'Anton', body: 'Literata', label: 'Inter' }, styles)
    expect(three.map(each => each.to.family)).toEqual(['Literata', 'Literata', 'Anton', 'Inter'])
    const { after, plan } = planned(make(), wishes)
    expect(looks(after)).toMatchObject({
      Harbours: expect.stringMatching(/^Anton /) as string,
      quay: expect.stringMatching(/^Jost /) as string,
      'Nothing else': expect.stringMatching(/^Literata [89]\.\d$/) as string,
      // Its own size goes with its face, too, though it goes back to a style that is set as well.
      'Bring what the morning asks of you, and a coat': expect.stringMatching(/^Literata [78](\.\d)?$/) as string,
    })
    expect(plan.sentences).toHaveLength(3)
  })

  it('is nothing where no role takes part', () => {
    expect(pairWishes({ heading: 'Anton', body: 'Literata' }, [{ name: 'Table', role: 'data', depth: 0 }])).toEqual([])
  })
})

describe('such a wish', () => {
  it('is refused with a sentence where it asks for what is not there', () => {
    const of = make()
    const refused = (...args: Parameters<typeof wish>) => expect(() => planned(of, [wish(...args)]))
    refused({ kind: 'style', family: 'paragraph', name: 'Body' }, { family: 'No Such' }).toThrow(/not in the library/)
    refused({ kind: 'style', family: 'paragraph', name: 'Body' }, { family: 'Inter', face: 'Ultra' }).toThrow(
      /has no face “Ultra”/,
    )
    refused({ kind: 'style', family: 'paragraph', name: 'Gone' }).toThrow(/no paragraph style “Gone” any more/)
    refused({ kind: 'role', role: 'caption' }).toThrow(/No paragraph style of this document is caption text/)
    refused({ kind: 'family', family: 'Absent One' }).toThrow(/not named anywhere/)
  })

  it('can be asked of many documents unless it is about places of one', () => {
    const why = (on: object) => registry.whyNotMany(request([wish(on)]))
    expect(why({ kind: 'role', role: 'body' })).toBeNull()
    expect(why({ kind: 'family', family: 'Jost' })).toBeNull()
    expect(why({ kind: 'ranges', ranges: [{ part: 'content.xml', node: 4, from: 0, to: 2 }] })).toMatch(
      /belongs to one document/,
    )
    expect(why({ kind: 'frame', part: 'content.xml', node: 4 })).toMatch(/belongs to one document/)
    const { document } = make()
    const applies = (on: object) =>
      registry.kinds.find(kind => kind.type === 'set-type')!.applies!(document, request([wish(on)]).wishes[0]!)
    expect(applies({ kind: 'family', family: 'Jost' })).toBe(true)
    expect(applies({ kind: 'family', family: 'Lora' })).toBe(false)
    expect(applies({ kind: 'style', family: 'paragraph', name: 'Body' })).toBe(true)
    expect(applies({ kind: 'style', family: 'paragraph', name: 'Gone' })).toBe(false)
    expect(applies({ kind: 'role', role: 'body' })).toBe(true)
  })
})

describe('what a document would come to in a face', () => {
  it('is its pages, lines and letters in a full line, and nothing of the document changes', () => {
    const of = session(sailingGuide())
    const tried = (family: string, size: 'keep' | 'equal' = 'keep') =>
      tryFace(of, setTypeSchema.parse(wish({ kind: 'style', family: 'paragraph', name: 'Body' }, { family }, { size })))
    const before = of.composition.pages.length
    const [narrow, wide] = [tried('Barlow Condensed'), tried('Courier Prime')]
    expect(narrow.lettersInLine!).toBeGreaterThan(wide.lettersInLine! * 1.3)
    expect(narrow.lines).toBeLessThan(wide.lines)
    expect(wide.pages).toBeGreaterThanOrEqual(before)
    // What was told is what comes of it.
    const { plan, after } = planned(of, [
      wish({ kind: 'style', family: 'paragraph', name: 'Body' }, { family: 'Courier Prime' }),
    ])
    expect([wide.pages, wide.lines]).toEqual([after.composition.pages.length, plan.effects!.linesAfter])
    expect(of.composition.pages).toHaveLength(before)
    // A face that nothing is set in has no full line.
    expect(lettersInFullLines(of.composition, 'Courier Prime')).toBeNull()
  })
})
