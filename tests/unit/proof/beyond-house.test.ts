import { describe, expect, it } from 'vitest'
import { emptyHouse, houseSchema } from '../../../core/house/house'
import { beyondHouse } from '../../../core/proof/beyond-house'
import {
  drawingOf,
  drawnPage,
  graphicStyle,
  paragraphStyle,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'

const house = (contrast?: number) =>
  houseSchema.parse({
    ...emptyHouse('Saltmere Line'),
    palette: [
      { id: 'stone', title: 'Stone', does: 'quiet', color: '#8a8f98' },
      { id: 'night', title: 'Night', does: 'ground', color: '#1b2430' },
    ],
    limits: { smallest: {}, ...(contrast === undefined ? {} : { contrast }) },
  })
const of = sessionOf({
  automatic:
    paragraphStyle('P1', 'fo:color="#8a8f98" fo:font-size="11pt"') +
    paragraphStyle('P2', 'fo:color="#000000" fo:font-size="11pt"') +
    textStyle('T1', 'fo:color="#cccccc"'),
  body:
    '<text:p text:style-name="P1">Dogs go free</text:p><text:p text:style-name="P2">Wait ' +
    '<text:span text:style-name="T1">here</text:span></text:p><text:p text:style-name="P1">All year</text:p>',
})
const told = (session: Parameters<typeof beyondHouse>[0], contrast?: number) =>
  beyondHouse(session, house(contrast))
    .filter(each => each.limit === 'contrast')
    .map(({ title, says, characters, places }) => [title, says, characters, places.length])

describe('contrast and a house', () => {
  it('is told by colours as the palette calls them, with all places, most text first', () => {
    expect(told(of, 4.5)).toEqual([
      ['Contrast below 4.5 : 1', 'Stone on #ffffff, 3.2 : 1', 17, 2],
      ['Contrast below 4.5 : 1', '#cccccc on #ffffff, 1.6 : 1', 4, 1],
    ])
    expect(told(of, 3)).toHaveLength(1)
    expect(told(of)).toEqual([])
    const [first] = beyondHouse(of, house(4.5)).filter(each => each.limit === 'contrast')
    expect(first!.places).toMatchObject([
      { start: 0, end: 12, page: 0 },
      { start: 0, end: 8, page: 0 },
    ])
  })

  it('goes by the shape that text really stands on', () => {
    const deck = drawingOf({
      pages: drawnPage(
        `<draw:rect draw:style-name="dark" ${shapeAt(0, 0, 9, 5)}/>` +
          textFrame(shapeAt(1, 1, 7, 2), '<text:p>Mind the gap</text:p>', 'draw:style-name="T"'),
      ),
      automatic:
        graphicStyle('dark', 'draw:fill="solid" draw:fill-color="#1b2430" draw:stroke="none"') +
        graphicStyle('T', 'draw:fill="none"', 'fo:font-size="30pt" fo:color="#5b6470"'),
    })
    expect(told(deck, 4.5)).toEqual([['Contrast below 4.5 : 1', '#5b6470 on Night, 2.6 : 1', 10, 1]])
    expect(told(deck, 2)).toEqual([])
  })
})
