import { describe, expect, it } from 'vitest'
import { findText } from '../../../core/change/find'
import { paragraphText } from '../../../core/style/runs'
import { standingParagraphs } from '../../../core/document/stories'
import {
  drawingOf,
  drawnMaster,
  drawnPage,
  paragraphStyle,
  sessionOf,
  shapeAt,
  smallPage,
  textFrame,
} from '../../support/fixtures'

const styles =
  '<style:default-style style:family="paragraph">' +
  '<style:text-properties fo:font-family="Spectral" fo:font-size="12pt"/></style:default-style>' +
  paragraphStyle('Long', '', 'fo:line-height="2cm"')

describe('text that is looked for', () => {
  it('is found in reading order, each place once, and none in another', () => {
    const of = sessionOf({ body: '<text:p>kelp kelpkelp</text:p><text:p>no</text:p><text:p>a Kelp</text:p>' })
    const places = (words: string, matchCase: boolean) =>
      findText(of.composition, words, matchCase).map(({ node, from, to }) => {
        const text = [...standingParagraphs(of.reading)].find(each => each.paragraph.node === node)!.paragraph
        return `${paragraphText(text).slice(0, 2)} ${from}-${to}`
      })
    expect(places('kelp', true)).toEqual(['ke 0-4', 'ke 5-9', 'ke 9-13'])
    expect(places('KELP', false)).toEqual(['ke 0-4', 'ke 5-9', 'ke 9-13', 'a  2-6'])
    expect(places('KELP', true)).toEqual([])
    expect(places('', true)).toEqual([])
  })

  it('is found where it is, however letters fold', () => {
    // The small letters of the first are two: it stays one, and what stands behind it is where it is.
    const of = sessionOf({ body: '<text:p>İxANKER</text:p>' })
    expect(findText(of.composition, 'anker', false)).toMatchObject([{ from: 2, to: 7 }])
  })

  it('is on the page where it begins, of a paragraph that goes over several', () => {
    const line = 'a word or two of some text that fills a line '
    const of = sessionOf({ styles, body: `<text:p text:style-name="Long">first ${line.repeat(12)}last</text:p>` })
    expect(of.composition.pages.length).toBeGreaterThan(2)
    const page = (words: string) => findText(of.composition, words, true).map(each => each.page)
    expect(page('first')).toEqual([0])
    expect(page('last')).toEqual([of.composition.pages.length - 1])
    const all = page('fills')
    expect(all).toEqual([...all].sort((a, b) => a - b))
    expect(new Set(all).size).toBeGreaterThan(1)
  })

  it('is on the first page of those that a master has it on, or on its notes', () => {
    const box = (text: string) => textFrame(shapeAt(1, 1, 5, 2), `<text:p>${text}</text:p>`)
    const deck = drawingOf({
      pages: drawnPage(box('one')) + drawnPage(box('two') + `<presentation:notes>${box('aside')}</presentation:notes>`),
      masters: drawnMaster(box('always')),
    })
    const found = (words: string) => findText(deck.composition, words, true).map(({ page, view }) => [page, view])
    expect(found('two')).toEqual([[1, 'pages']])
    expect(found('always')).toEqual([[0, 'pages']])
    expect(found('aside')).toEqual([[1, 'notes']])
  })

  it('is on no page where none shows it, and nowhere where it is deleted', () => {
    const deleted =
      '<text:tracked-changes><text:changed-region text:id="c"><text:deletion><text:p>kelp</text:p></text:deletion>' +
      '</text:changed-region></text:tracked-changes>'
    const unused =
      '<style:master-page style:name="Standard" style:page-layout-name="pm"/>' +
      '<style:master-page style:name="Other" style:page-layout-name="pm">' +
      '<style:header><text:p>kelp above</text:p></style:header></style:master-page>'
    const of = sessionOf({ body: `${deleted}<text:p>none</text:p>`, masters: unused, stylesAutomatic: smallPage })
    expect(findText(of.composition, 'kelp', true)).toMatchObject([{ part: 'styles.xml', page: -1, view: 'pages' }])
  })

  it('is found five thousand times at most', () => {
    const of = sessionOf({ body: `<text:p>${'a '.repeat(4998)}</text:p><text:p>a a a a a</text:p>` })
    expect(findText(of.composition, 'a', true)).toHaveLength(5000)
  })
})
