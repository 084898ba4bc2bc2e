import { describe, expect, it } from 'vitest'
import { matchBreaks } from '../../../core/typeset/saved-breaks'
import { paragraphStyle, sessionOf, type Fixture } from '../../support/fixtures'

/*
 * How our pages stand to those a file was saved with: marks of where pages ended, and how many of ours begin there.
 */

/** A page is 226.8 points high inside: it holds 5 lines of 40 points. */
const automatic =
  paragraphStyle('P', 'fo:font-size="10pt"', 'fo:line-height="40pt" fo:orphans="0" fo:widows="0"') +
  '<style:style style:name="G" style:family="graphic"><style:graphic-properties style:wrap="none" ' +
  'style:vertical-pos="from-top" style:vertical-rel="paragraph"/></style:style>'
const mark = '<text:soft-page-break/>'
const p = (inside: string) => `<text:p text:style-name="P">${inside}</text:p>`
const lines = (count: number) => p('x').repeat(count)
const statistics = (pages: number): Fixture['parts'] => [
  {
    path: 'meta.xml',
    type: 'text/xml',
    content:
      '<office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
      'xmlns:meta="urn:oasis:names:tc:opendocument:xmlns:meta:1.0"><office:meta>' +
      `<meta:document-statistic meta:page-count="${pages}"/></office:meta></office:document-meta>`,
  },
]
const matched = (body: string, pages = 2) =>
  matchBreaks(sessionOf({ automatic, body, parts: statistics(pages) }).composition)!

describe('marks of where pages ended', () => {
  it('are met where one of our pages begins there', () => {
    expect(matched(lines(5) + mark + lines(2))).toMatchObject({
      pagesSaved: 2,
      pages: 2,
      breaks: 1,
      met: 1,
      first: null,
    })
    expect(matched(lines(5) + p(`${mark}y`) + lines(1))).toMatchObject({ breaks: 1, met: 1 })
  })

  it('within a paragraph are met by its own line', () => {
    const broken = (at: number) =>
      p(
        ['a', 'b', 'c', 'd', 'e', 'f', 'g']
          .map((each, index) => (index === at ? mark : '') + each)
          .join('<text:line-break/>'),
      )
    expect(matched(broken(5))).toMatchObject({ breaks: 1, met: 1 })
    expect(matched(broken(3))).toMatchObject({ breaks: 1, met: 0, first: { page: 2, words: 'd e f g', lines: 2.7 } })
  })

  it('that are not met tell how far away, and pages that drift alike do so but once', () => {
    const { met, first, drift } = matched(lines(3) + mark + lines(5) + mark + lines(6), 3)
    expect(met).toBe(0)
    expect(first).toMatchObject({ page: 2, words: 'x', lines: 2.7 })
    expect(drift).toBeCloseTo(0, 1)
  })

  it('stand behind a paragraph of nothing but a figure, where a page begins with that', () => {
    const figure = (inside = '') =>
      p(
        '<draw:frame draw:style-name="G" text:anchor-type="paragraph" svg:width="3cm" svg:height="60pt">' +
          `<draw:image xlink:href="Pictures/a.png"/></draw:frame>${inside}`,
      )
    expect(matched(lines(5) + figure() + mark + lines(1))).toMatchObject({ breaks: 1, met: 1 })
    // With words it has a mark of its own; and in the middle of a page it begins nothing.
    expect(matched(lines(5) + figure('words') + mark + lines(1))).toMatchObject({ breaks: 1, met: 0 })
    expect(matched(lines(2) + figure() + mark + lines(5))).toMatchObject({ breaks: 1, met: 0 })
  })

  it('are not looked for where there are none', () => {
    expect(matchBreaks(sessionOf({ automatic, body: lines(7) }).composition)).toBeNull()
  })
})
