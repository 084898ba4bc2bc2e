import { describe, expect, it } from 'vitest'
import { face, paragraphStyle, sessionOf } from '../../support/fixtures'

describe('the census of a document without a letter', () => {
  it.each([
    '<text:p text:style-name="Body"/>',
    '<text:p text:style-name="Body"><draw:frame/></text:p>',
    '<text:p text:style-name="Body"><text:page-number/></text:p>',
  ])('has no face and no voice, and nothing to settle: %s', body => {
    const { census } = sessionOf({
      stylesFaces: face('Spectral'),
      styles: paragraphStyle('Body', 'style:font-name="Spectral" fo:font-size="10pt"'),
      body,
    }).detail
    expect(census).toMatchObject({ characters: 0, faces: [], voices: [], settled: 1 })
  })

  it('counts a space that is written, as the whole of the text', () => {
    const { census } = sessionOf({ stylesFaces: face('Spectral'), body: '<text:p><text:s/></text:p>' }).detail
    expect(census.faces.map(each => [each.characters, each.share])).toEqual([[1, 1]])
  })
})
