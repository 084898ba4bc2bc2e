import { describe, expect, it } from 'vitest'
import { placedRemarks, quotedPlace } from '../../../core/desk/remark-places'
import { paragraphsOf } from '../../../core/document/stories'
import { sessionOf, standardMaster } from '../../support/fixtures'

const breaks =
  '<style:style style:name="B" style:family="paragraph"><style:paragraph-properties fo:break-before="page"/></style:style>'
const of = sessionOf({
  automatic: breaks,
  masters: standardMaster('<style:header><text:p>Saltmere</text:p></style:header>'),
  body: '<text:p>Two boats a day</text:p><text:p text:style-name="B">sail to every pier</text:p>',
})
const [first, second] = of.reading.stories
  .filter(story => story.role === 'body')
  .flatMap(story => paragraphsOf(story.blocks))
  .map(each => each.node) as [number, number]
const part = 'content.xml'

describe('places of remarks on the pages', () => {
  it('are marked on the page that shows their words, or told to be gone', () => {
    const boats = quotedPlace(of, { part, node: first, from: 4, to: 9 })!
    const pier = quotedPlace(of, { part, node: second, from: 14, to: 18 })!
    expect([boats.text, pier.text]).toEqual(['boats', 'pier'])
    expect(quotedPlace(of, { part, node: 90_000, from: 0, to: 1 })).toBeNull()
    const caret = quotedPlace(of, { part, node: second, from: 18, to: 18 })!
    const placed = placedRemarks(of, [
      boats,
      pier,
      null,
      { kind: 'page', page: 1, x: 0.5, y: 0.5 },
      { kind: 'page', page: 2, x: 0.5, y: 0.5 },
      { ...boats, node: 90_000 },
      caret,
    ])
    expect(placed.map(({ state, page }) => [state, page])).toEqual([
      ['there', 0],
      ['there', 1],
      ['there', -1],
      ['there', 1],
      ['gone', -1],
      ['gone', -1],
      ['there', 1],
    ])
    expect(placed[0]!.occurrence).toMatchObject({ part, node: first, start: 4, end: 9, page: 0 })
    expect(placed.slice(2, 6).map(each => each.occurrence)).toEqual([null, null, null, null])
  })

  it('are words of headers, too', () => {
    const header = of.reading.stories
      .flatMap(story => paragraphsOf(story.blocks))
      .find(each => each.part === 'styles.xml')!
    expect(quotedPlace(of, { part: 'styles.xml', node: header.node, from: 0, to: 4 })).toMatchObject({ text: 'Salt' })
  })
})
