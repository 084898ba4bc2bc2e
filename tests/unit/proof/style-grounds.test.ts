import { describe, expect, it } from 'vitest'
import { styleGrounds, worstGround } from '../../../core/proof/style-grounds'
import { paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'

const parent = ' style:parent-style-name="Body"'
const of = sessionOf({
  styles:
    paragraphStyle('Body', 'fo:font-size="10pt" fo:color="#333333"') +
    paragraphStyle('Note', 'fo:font-size="8pt"', 'fo:background-color="#224466"', parent) +
    paragraphStyle('Alert', 'fo:color="#aa0000"', '', parent) +
    textStyle('Term', 'fo:font-weight="bold"'),
  automatic: textStyle('T1', 'fo:color="#008800"') + textStyle('T2', 'fo:background-color="#ffee88"'),
  body:
    '<text:p text:style-name="Body">Ferries of the line<text:span text:style-name="T1"> in green</text:span></text:p>' +
    '<text:p text:style-name="Body">Marked: <text:span text:style-name="T2">quay</text:span></text:p>' +
    '<text:p text:style-name="Note">On dark, <text:span text:style-name="Term">term</text:span></text:p>' +
    '<text:p text:style-name="Alert">Red</text:p>',
})
const told = (name: string, family = 'paragraph') =>
  styleGrounds(of, family, name).map(({ grounds, size, characters }) => [grounds.join(), size, characters])

describe('what text of a style stands on', () => {
  it('is told for all that takes its colour from it, styles below it too, and for nothing that has its own', () => {
    expect(told('Body')).toEqual([
      ['#ffffff', 10, 'Ferries of the lineMarked: '.length],
      ['#224466', 8, 'On dark, term'.length],
      ['#ffee88', 10, 'quay'.length],
    ])
    expect(told('Note')).toEqual([['#224466', 8, 'On dark, term'.length]])
    expect(told('Alert')).toEqual([['#ffffff', 10, 3]])
  })

  it('is told for words of a character style, and nothing where no text has the style', () => {
    expect(told('Term', 'text')).toEqual([['#224466', 8, 4]])
    expect(told('Term')).toEqual([])
    expect(told('Gone')).toEqual([])
  })

  it('has one on which a colour is least seen', () => {
    const grounds = styleGrounds(of, 'paragraph', 'Body')
    expect(worstGround('#333333', grounds)).toMatchObject({ on: '#224466', ground: { size: 8, page: 0 } })
    expect(worstGround('#333333', grounds)!.ratio).toBeLessThan(1.5)
    expect(worstGround('#f8f8f8', grounds)!.on).toBe('#ffffff')
    expect(worstGround('#333333', [])).toBeNull()
  })
})
