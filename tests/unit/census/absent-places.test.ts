import { describe, expect, it } from 'vitest'
import { drawingOf, drawnPage, paragraphStyle, sessionOf, shapeAt, textFrame, textStyle } from '../../support/fixtures'

const word = (style: string, text: string) => `<text:span text:style-name="${style}">${text}</text:span>`
const open = (body: string) =>
  sessionOf({
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" ' +
      'fo:font-size="10pt"/></style:default-style>' +
      paragraphStyle('Gone', 'fo:font-family="Brannock"') +
      paragraphStyle('Fine', 'fo:font-family="Jost"'),
    automatic:
      textStyle('B', 'fo:font-family="Brannock" fo:font-weight="bold"') +
      textStyle('S', 'fo:font-family="Skerrow"') +
      textStyle('J', 'fo:font-family="Jost"') +
      textStyle('I', 'fo:font-style="italic"'),
    body,
  })
const placesOf = (body: string) =>
  open(body).absent.places.map(({ family, start, end, text, empty, layer }) => [family, start, end, text, empty, layer])

describe('the places of absent faces', () => {
  it('are one where text of one family goes on, whatever its weight and posture', () => {
    expect(
      placesOf(`<text:p text:style-name="Gone">by style ${word('I', 'slanted')} ${word('B', 'bold')}</text:p>`),
    ).toEqual([['Brannock', 0, 21, 'by style slanted bold', false, 'style']])
  })

  it('are two where another face stands between, where another family comes, and in each paragraph', () => {
    expect(placesOf(`<text:p text:style-name="Gone">one${word('J', '-')}two${word('S', 'three')}</text:p>`)).toEqual([
      ['Brannock', 0, 3, 'one', false, 'style'],
      ['Brannock', 4, 7, 'two', false, 'style'],
      ['Skerrow', 7, 12, 'three', false, 'stray'],
    ])
    expect(
      placesOf('<text:p text:style-name="Gone">one</text:p><text:p text:style-name="Gone">two</text:p>'),
    ).toHaveLength(2)
  })

  it('are never joined with the mark of an empty paragraph', () => {
    expect(
      placesOf(
        '<text:p text:style-name="Gone"/><text:p text:style-name="Gone"/><text:p text:style-name="Gone">x</text:p>',
      ),
    ).toEqual([
      ['Brannock', 0, 0, '', true, 'style'],
      ['Brannock', 0, 0, '', true, 'style'],
      ['Brannock', 0, 1, 'x', false, 'style'],
    ])
  })
})

describe('an absent face', () => {
  const only = (body: string) => open(body).absent.faces.find(each => each.family === 'Brannock')!

  it('has only spaces where no letter is set in it, and marks alone are no spaces', () => {
    expect(only(`<text:p>a${word('B', ' ')}b</text:p>`)).toMatchObject({
      characters: 1,
      onlySpaces: true,
      emptyMarks: 0,
    })
    expect(only(`<text:p>a${word('B', ' ')}b${word('B', 'c')}</text:p>`)).toMatchObject({
      characters: 2,
      onlySpaces: false,
    })
    expect(only('<text:p text:style-name="Gone"/>')).toMatchObject({ characters: 0, onlySpaces: false, emptyMarks: 1 })
  })

  it('counts characters, not units of their code, and knows which they are', () => {
    const face = only(`<text:p>${word('B', 'a😀a')}</text:p>`)
    expect(face.characters).toBe(3)
    expect([...face.codePoints].sort((a, b) => a - b)).toEqual([0x61, 0x1f600])
  })

  it('comes in the order of how much there is of it, then of its empty lines, then of its name', () => {
    const order = (body: string) =>
      open(body)
        .absent.faces.filter(each => each.characters + each.emptyMarks > 0)
        .map(each => each.family)
    expect(order(`<text:p>${word('B', 'ab')}${word('S', 'abc')}</text:p>`)).toEqual(['Skerrow', 'Brannock'])
    expect(order(`<text:p>${word('S', 'ab')}${word('B', 'ab')}</text:p>`)).toEqual(['Brannock', 'Skerrow'])
    expect(order(`<text:p>${word('B', 'ab')}${word('S', 'ab')}</text:p><text:p text:style-name="Gone"/>`)).toEqual([
      'Brannock',
      'Skerrow',
    ])
  })

  it('is named with what says so: its styles by hand or by name', () => {
    const { layers, pages } = only(`<text:p text:style-name="Gone">x</text:p><text:p>y${word('B', 'z')}</text:p>`)
    const owners = Object.fromEntries(layers.map(each => [each.layer, each.owners]))
    expect(owners.style).toContain('Gone')
    expect(layers.find(each => each.layer === 'stray')).toMatchObject({ characters: 1 })
    expect(layers.find(each => each.layer === 'style')).toMatchObject({ characters: 1 })
    expect(pages).toEqual([0])
  })

  it('is looked for in the view that shows it: masters and notes of decks have their own', () => {
    const deck = drawingOf({
      automatic: textStyle('B', 'fo:font-family="Brannock"'),
      pages: drawnPage(
        textFrame(shapeAt(1, 1, 5, 2), `<text:p>${word('B', 'slide')}</text:p>`) +
          `<presentation:notes>${textFrame(shapeAt(1, 1, 5, 2), `<text:p>${word('B', 'said')}</text:p>`)}</presentation:notes>`,
      ),
    })
    expect(deck.absent.places.map(({ text, view }) => [text, view])).toEqual([
      ['slide', 'pages'],
      ['said', 'notes'],
    ])
  })
})
