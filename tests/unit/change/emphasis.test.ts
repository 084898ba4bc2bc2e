import { describe, expect, it } from 'vitest'
import { emphasisName, emphasisOf } from '../../../core/change/styles/emphasis'

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
