import { describe, expect, it } from 'vitest'
import { proposeStyles } from '../../../core/change/draw-up/propose'
import type { DocumentSession } from '../../../core/session'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'

const long =
  'Two boats a day sail to every pier of the outer islands while the thaw lasts, and none in the dark weeks. '
const faces = face('Spectral') + face('Jost') + face('JetBrains Mono')
const proposed = (of: DocumentSession) => proposeStyles(of.reading, { tolerance: 0, choices: [], dropped: () => false })

/** The name of the style that words set apart so get, in a document of one language. */
const wordsNamed = (properties: string, language = 'fo:language="en" fo:country="GB"'): string => {
  const of = sessionOf({
    faces,
    stylesFaces: faces,
    styles: paragraphStyle('Standard', `style:font-name="Spectral" fo:font-size="10pt" ${language}`),
    automatic: textStyle('T1', properties),
    body: Array.from(
      { length: 6 },
      () =>
        `<text:p text:style-name="Standard">${long}<text:span text:style-name="T1">the words</text:span> ${long}</text:p>`,
    ).join(''),
  })
  const { words } = proposed(of)
  expect(words).toHaveLength(1)
  return words[0]!.displayName
}

describe('what words set apart are called', () => {
  it.each([
    ['fo:font-style="italic"', 'Emphasis'],
    ['fo:font-weight="bold"', 'Strong'],
    ['fo:font-weight="600"', 'Strong'],
    ['fo:font-weight="500"', 'Regular weight'],
    ['fo:font-weight="bold" fo:font-style="italic"', 'Strong emphasis'],
    ['fo:font-weight="bold" fo:font-style="normal" fo:color="#1f6f6b"', 'Strong, Highlight'],
    ['fo:font-weight="500" fo:font-style="italic"', 'Regular weight, Emphasis'],
    ['style:text-position="super 58%"', 'Superior'],
    ['style:text-position="33% 58%"', 'Superior'],
    ['style:text-position="sub 58%"', 'Inferior'],
    ['style:text-position="-20% 58%"', 'Inferior'],
    ['style:font-name="JetBrains Mono"', 'Code in text'],
    ['style:font-name="Jost"', 'Other face'],
    ['fo:text-transform="uppercase"', 'Capitals'],
    ['fo:text-transform="lowercase"', 'Words'],
    ['fo:font-variant="small-caps"', 'Small capitals'],
    ['style:text-underline-style="solid"', 'Underlined'],
    ['style:text-line-through-style="solid"', 'Struck out'],
    ['fo:color="#1f6f6b"', 'Highlight'],
    ['fo:background-color="#ffdd00"', 'On a ground'],
    ['fo:font-size="8pt"', 'Fine'],
    ['fo:letter-spacing="1pt"', 'Words'],
    ['fo:font-style="italic" fo:font-size="8pt"', 'Emphasis'],
    ['style:font-name="Jost" fo:font-variant="small-caps" fo:color="#1f6f6b"', 'Other face, Small capitals'],
  ])('%s: %s', (properties, name) => {
    expect(wordsNamed(properties)).toBe(name)
  })
})

/** Names of the paragraph styles of a document whose paragraphs are set by hand so: text style, paragraph style, how many. */
function namesOf(looks: readonly (readonly [string, string, number])[], standard = ''): string[] {
  const of = sessionOf({
    faces,
    stylesFaces: faces,
    styles: paragraphStyle(
      'Standard',
      `style:font-name="Spectral" fo:font-size="10pt" fo:language="en" fo:country="GB" ${standard}`,
    ),
    automatic: looks
      .map(([text, paragraph], at) =>
        paragraphStyle(`P${at}`, text || 'fo:color="#000000"', paragraph, ' style:parent-style-name="Standard"'),
      )
      .join(''),
    body: looks
      .map(([, , count], at) => `<text:p text:style-name="P${at}">${long}${long}</text:p>`.repeat(count))
      .join(''),
  })
  return proposed(of).paragraphs.map(each => each.displayName)
}

describe('what paragraphs of one purpose are told apart by', () => {
  it.each([
    ['fo:font-size="10.2pt"', '', 'Body, large'],
    ['fo:font-size="9.8pt"', '', 'Body, small'],
    ['fo:font-weight="500"', '', 'Body, strong'],
    ['fo:font-weight="300"', '', 'Body, light'],
    ['fo:font-style="italic"', '', 'Body, slanted'],
    ['fo:color="#1f6f6b"', '', 'Body, coloured'],
    ['style:font-name="Jost"', '', 'Body, other face'],
    ['fo:color="#1f6f6b"', 'fo:text-align="center"', 'Body, centred'],
    ['fo:color="#1f6f6b"', 'fo:text-align="end"', 'Body, set right'],
    ['fo:color="#1f6f6b"', 'fo:text-align="right"', 'Body, set right'],
    ['fo:color="#1f6f6b"', 'fo:text-align="justify"', 'Body, justified'],
  ])('%s %s: %s', (text, paragraph, name) => {
    const names = namesOf([
      ['', 'fo:margin-bottom="2mm"', 12],
      [text, `${paragraph} fo:margin-bottom="2mm"`, 4],
    ])
    expect(names).toEqual(expect.arrayContaining(['Body', name]))
  })

  it('is a number, where nothing has a word', () => {
    const tracked = (space: number): readonly [string, string, number] => [`fo:letter-spacing="${space}pt"`, '', 4]
    expect(namesOf([['', '', 12], tracked(1), tracked(2)])).toEqual(['Body', 'Body 2', 'Body 3'])
  })

  it('is as much as it takes, the plainest first', () => {
    expect(
      namesOf([
        ['', 'fo:margin-bottom="2mm"', 12],
        ['fo:color="#1f6f6b"', 'fo:text-align="center" fo:margin-bottom="2mm"', 4],
        ['fo:color="#b4361e"', 'fo:text-align="center" fo:margin-bottom="2mm"', 3],
      ]).filter(name => name.startsWith('Body')),
    ).toEqual(['Body', 'Body, centred', 'Body, centred, coloured'])
  })
})
