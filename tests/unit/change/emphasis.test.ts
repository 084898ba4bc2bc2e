import { describe, expect, it } from 'vitest'
import { emphasisName, emphasisOf } from '../../../core/change/styles/emphasis'
import { settleAll } from '../../../core/change/styles/wishes'
import { saveDocument } from '../../../core/document/open'
import { face, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

describe('what emphasis is called', () => {
  it.each([
    [{ 'fo:font-style': 'italic' }, 'Emphasis'],
    [{ 'fo:font-style': 'normal' }, 'Upright'],
    [{ 'fo:font-weight': 'bold' }, 'Strong'],
    [{ 'fo:font-weight': '600' }, 'Strong'],
    [{ 'fo:font-weight': 'normal' }, 'Regular weight'],
    [{ 'fo:font-weight': '300' }, 'Weight 300'],
    [{ 'fo:font-weight': 'bold', 'fo:font-style': 'italic' }, 'Strong emphasis'],
    [{ 'fo:font-weight': 'bold', 'fo:font-style': 'normal' }, 'Strong, Upright'],
    [{ 'fo:font-weight': '300', 'fo:font-style': 'italic' }, 'Weight 300, Emphasis'],
    [{ 'style:text-position': 'super 58%' }, 'Superior'],
    [{ 'style:text-position': '33% 58%' }, 'Superior'],
    [{ 'style:text-position': 'sub 58%' }, 'Inferior'],
    [{ 'style:text-position': '-20% 58%' }, 'Inferior'],
    [{ 'style:text-position': '0% 100%' }, 'On the baseline'],
    [{ 'fo:language': 'de' }, 'Language de'],
    [{ 'fo:language': 'de', 'fo:country': 'none' }, 'Language de'],
    [{ 'fo:language': 'de', 'fo:country': 'CH' }, 'Language de-CH'],
    [{ 'fo:language': 'none', 'fo:country': 'none' }, 'No language'],
    [{ 'style:language-asian': 'ja' }, 'Language ja'],
    [{ 'style:language-complex': 'he' }, 'Language he'],
    [{ 'style:font-name': 'Courier Prime' }, 'Code'],
    [{ 'fo:font-family': 'Courier', 'fo:font-weight': 'bold' }, 'Code, Strong'],
    [{}, 'Emphasis'],
  ])('%j: %s', (kept, name) => {
    expect(emphasisName(kept)).toBe(name)
  })
})

describe('what of a style is emphasis', () => {
  it('are the values of the groups that are meant, no others', () => {
    const text = { 'fo:font-weight': 'bold', 'fo:color': '#112233', 'style:text-position': 'super 58%' }
    expect(emphasisOf(text, ['position'])).toEqual({ 'style:text-position': 'super 58%' })
    expect(emphasisOf(text, [])).toEqual({})
  })

  it('weight and posture of one slot hold for all that say none', () => {
    expect(emphasisOf({ 'fo:font-style': 'italic', 'style:font-style-complex': 'normal' }, ['posture'])).toEqual({
      'fo:font-style': 'italic',
      'style:font-style-asian': 'italic',
      'style:font-style-complex': 'normal',
    })
    expect(emphasisOf({ 'style:font-weight-asian': 'bold' }, ['weight'])).toEqual({
      'fo:font-weight': 'bold',
      'style:font-weight-asian': 'bold',
      'style:font-weight-complex': 'bold',
    })
  })
})

describe('code that was set by hand', () => {
  const inFace = (name: string) => `style:font-name="${name}"`
  const of = (styles = inFace('Spectral')) =>
    sessionOf({
      faces: face('Courier Prime', 'Courier Prime', ' style:font-pitch="fixed"') + face('Jost'),
      stylesFaces: face('Spectral') + face('Roboto Mono', 'Roboto Mono', ' style:font-pitch="fixed"'),
      styles: paragraphStyle('Body', `${styles} fo:font-size="10pt"`),
      automatic:
        textStyle('T1', `${inFace('Courier Prime')} fo:font-size="9pt"`) +
        textStyle('T2', inFace('Jost')) +
        paragraphStyle('P1', inFace('Courier Prime'), '', ' style:parent-style-name="Body"'),
      body:
        '<text:p text:style-name="Body">Type <text:span text:style-name="T1">sail --north</text:span>, then ' +
        '<text:span text:style-name="T2">wait</text:span>.</text:p>' +
        '<text:p text:style-name="P1">moor --quay 2</text:p>',
    })
  const voices = (before: ReturnType<typeof of>, more: object = {}) => {
    const { after } = quickly(before, { ...settleAll, ...more })
    const { census } = session(saveDocument(after.document)).detail
    expect(census.settled).toBe(1)
    return census.voices.map(({ family, size, characters }) => [family, size, characters])
  }
  const rest = 'Type , then wait.'.length
  const code = 'sail --north'.length + 'moor --quay 2'.length

  it('keeps its face of one width as a character style, and nothing else; other faces go', () => {
    expect(voices(of())).toEqual([
      ['Courier Prime', 10, code],
      ['Spectral', 10, rest],
    ])
    const { plan } = quickly(of(), settleAll)
    expect(plan.rows.map(row => row.after)).toEqual([
      'character style Code',
      'as its styles say',
      'character style Code',
    ])
  })

  it('goes with the rest where nothing is kept, and where the text around it is code, too', () => {
    expect(voices(of(), { keep: [] })).toEqual([['Spectral', 10, rest + code]])
    expect(voices(of(inFace('Roboto Mono')))).toEqual([['Roboto Mono', 10, rest + code]])
  })
})
