import { describe, expect, it } from 'vitest'
import { pagesOf } from '../../../core/census/text-pages'
import { listAbsent } from '../../../core/census/absent'
import { voiceOf } from '../../../core/census/voices'
import { paragraphsOf } from '../../../core/document/stories'
import { face, library, paragraphStyle, sessionOf } from '../../support/fixtures'

describe('the pages of a paragraph', () => {
  const of = sessionOf({ body: `<text:p>${'The launch goes out before the mail is sorted. '.repeat(40)}</text:p>` })
  const [paragraph] = paragraphsOf(of.reading.stories.find(each => each.role === 'body')!.blocks)
  const { part, node } = paragraph!
  const where = pagesOf(of.composition)

  it('are those that its stretches stand on, each by itself', () => {
    const pages = of.composition.pages.length
    expect(pages).toBeGreaterThan(1)
    expect(where(part, node, 0, 1)).toEqual([0])
    expect(where(part, node, 1_870, 1_875)).toEqual([pages - 1])
    expect(where(part, node, 0, 1_880)).toEqual(Array.from({ length: pages }, (_, at) => at))
    expect(where(part, 99_999, 0, 1)).toEqual([])
  })
})

describe('absent families', () => {
  it('that are only declared belong to nobody, and those of a style to it', () => {
    const of = sessionOf({
      body: '<text:p text:style-name="P">Quay</text:p>',
      faces: face('Gone') + face('Lost'),
      stylesFaces: face('Lost'),
      styles: paragraphStyle('P', 'style:font-name="Lost"'),
    })
    const { faces } = listAbsent(of.reading, library, of.composition)
    const owners = (family: string) => faces.find(each => each.family === family)!.layers.flatMap(each => each.owners)
    expect(owners('Gone')).toEqual([])
    expect(owners('Lost')).toEqual(['P'])
  })
})

describe('voices', () => {
  it('tell leading as it is set: of the face, solid, in points, at least', () => {
    const leading = (paragraph: string) => {
      const of = sessionOf({
        body: '<text:p text:style-name="P">Quay</text:p>',
        styles: paragraphStyle('P', '', paragraph),
      })
      return voiceOf(of.reading.cascade.named('content.xml', 'paragraph', 'P'), 'western').leading
    }
    expect(leading('')).toBe('normal')
    expect(leading('fo:line-height="normal"')).toBe('normal')
    expect(leading('fo:line-height="100%"')).toBe('normal')
    expect(leading('fo:line-height="14pt"')).toBe('14pt')
    expect(leading('style:line-height-at-least="13pt"')).toBe('at least 13pt')
  })
})
