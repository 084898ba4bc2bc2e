import { describe, expect, it } from 'vitest'
import { styleUses } from '../../../core/change/styles/style-uses'
import { face, paragraphStyle, sessionOf, smallPage, textStyle } from '../../support/fixtures'

const of = sessionOf({
  stylesFaces: face('Spectral'),
  styles:
    '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="10pt"/>' +
    '</style:default-style>' +
    paragraphStyle('Body') +
    paragraphStyle('Apart', '', 'fo:break-before="page"') +
    textStyle('Name', 'fo:font-style="italic"') +
    textStyle('Unused', 'fo:font-weight="bold"'),
  automatic:
    textStyle('T1', 'fo:color="#112233"') +
    paragraphStyle('P1', 'fo:font-size="9pt"', '', ' style:parent-style-name="Body"'),
  stylesAutomatic: smallPage,
  masters:
    '<style:master-page style:name="Standard" style:page-layout-name="pm"><style:header>' +
    '<text:p text:style-name="Body">above</text:p></style:header></style:master-page>',
  body:
    '<text:h text:style-name="Apart" text:outline-level="3">one</text:h>' +
    '<text:p text:style-name="Body">some <text:span text:style-name="Name">Cormorant</text:span> and ' +
    '<text:span text:style-name="T1">red</text:span></text:p>' +
    '<text:h text:style-name="Apart" text:outline-level="2">two</text:h>' +
    '<text:p text:style-name="P1">small <text:span text:style-name="Name">Puffin</text:span></text:p>' +
    '<text:p text:style-name="Apart"/>',
})
const uses = (composed: boolean) => {
  const all = styleUses(of.reading, composed ? of.composition : null)
  return Object.fromEntries(
    [...all].map(([style, { paragraphs, characters, settled, level, pages, place, places }]) => [
      style.name,
      { paragraphs, characters, settled, level, pages: [...pages].sort(), place, places: Object.fromEntries(places) },
    ]),
  )
}

describe('what named styles are used for', () => {
  it('is counted by paragraphs, letters and pages, for words by their stretches', () => {
    const { Body, Apart, Name, Unused } = uses(true)
    expect(Apart).toMatchObject({ paragraphs: 3, characters: 6, settled: 6, level: 2 })
    expect(Apart!.pages).toHaveLength(3)
    // The header on all pages, a paragraph with words by hand, and one that is by hand as a whole.
    expect(Body).toMatchObject({ paragraphs: 3, level: null, characters: 5 + 22 + 12 })
    expect(Body!.settled).toBe(5 + 22 - 3)
    expect(Name).toMatchObject({ paragraphs: 2, characters: 15, level: null })
    expect(Name!.pages).toHaveLength(2)
    expect(Unused).toBeUndefined()
  })

  it('has the place where most of its text stands', () => {
    const { Body, Apart } = uses(false)
    expect(Body!.places).toEqual({ body: 34, header: 5 })
    expect([Body!.place, Apart!.place]).toEqual(['body', 'body'])
    expect(Body!.pages).toEqual([])
  })
})
