import { describe, expect, it } from 'vitest'
import { voiceWord } from '../../../core/change/draw-up/look'
import { proposeStyles } from '../../../core/change/draw-up/propose'
import { partOf } from '../../../core/document/open'
import { writeXml } from '../../../core/xml/write'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const long = 'Two boats a day sail to every pier of the outer islands while the thaw lasts. '
const of = (inside: string) =>
  sessionOf({
    stylesFaces: face('Spectral'),
    faces: face('Spectral'),
    styles: paragraphStyle('Standard', 'style:font-name="Spectral" fo:font-size="10pt"'),
    automatic:
      paragraphStyle('P1', 'fo:font-size="11pt"', '', ' style:parent-style-name="Standard"') +
      textStyle('T1', 'fo:font-size="11pt"') +
      textStyle('T2', 'fo:font-style="italic"'),
    body: `<text:p text:style-name="P1">${long}${inside}</text:p>`.repeat(4),
  })
const drawn = (inside: string, more: object = {}) => {
  const { after } = quickly(of(inside), { type: 'draw-up', ...more })
  return /<text:p [^>]*>(.*?)<\/text:p>/.exec(writeXml(partOf(after.document, 'content.xml')))![1]!.replace(long, '')
}

describe('spans of text that is drawn up', () => {
  it.each([
    // A span that only said what its paragraph says goes.
    ['<text:span text:style-name="T1">word</text:span>', 'word'],
    // One by which something else finds its words stays, and so does a link.
    ['<text:span text:style-name="T1" xml:id="k">word</text:span>', '<text:span xml:id="k">word</text:span>'],
    ['<text:a text:style-name="T1" xlink:href="#k">word</text:a>', '<text:a xlink:href="#k">word</text:a>'],
    ['<text:a text:style-name="T1">word</text:a>', '<text:a>word</text:a>'],
    ['<text:span text:style-name="T2">word</text:span>', '<text:span text:style-name="Emphasis">word</text:span>'],
    [
      '<text:span text:style-name="T2" xml:id="k">word</text:span>',
      '<text:span text:style-name="Emphasis" xml:id="k">word</text:span>',
    ],
    [
      '<text:span text:style-name="T2">word <text:span text:style-name="T1">in</text:span></text:span>',
      '<text:span text:style-name="Emphasis">word in</text:span>',
    ],
  ])('%s: %s', (inside, expected) => {
    expect(drawn(inside)).toBe(expected)
  })

  it('at the end of a paragraph are none where they hold space alone, within a tolerance', () => {
    const words = (inside: string, tolerance: number) =>
      proposeStyles(of(inside).reading, { tolerance, choices: [], dropped: () => false }).words.flatMap(each =>
        each.stretches.map(({ run }) => run.characters),
      )
    const italic = (text: string) => `<text:span text:style-name="T2">${text}</text:span>`
    // Emphasis, and the space behind the last word, which nobody sees.
    const both = `${italic('so')} and${italic('<text:s text:c="2"/>')}`
    expect(words(both, 0)).toHaveLength(8)
    expect(words(both, 0.5)).toHaveLength(4)
  })
})

describe('the key of a look', () => {
  it('is the same tomorrow: choices that were kept name styles by it', () => {
    expect(voiceWord({ 'fo:font-size': '11pt', 'fo:font-style': 'italic' })).toBe('474bd13b9a785dc2')
    expect(voiceWord({ 'fo:font-style': 'italic', 'fo:font-size': '11pt' })).toBe('474bd13b9a785dc2')
    expect(voiceWord({ 'fo:font-size': '12pt' }, ['paragraph'])).toBe('fb1b2c9c56fbfc48')
  })
})
