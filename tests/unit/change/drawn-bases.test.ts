import { describe, expect, it } from 'vitest'
import type { DocumentSession } from '../../../core/session'
import { withParents } from '../../../core/document/styles'
import { paragraphsOf } from '../../../core/document/stories'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

const long =
  'Two boats a day sail to every pier of the outer islands while the thaw lasts, and none in the dark weeks. '
const base = ' style:parent-style-name="Standard"'
const named = (name: string, inside = '', more = '') =>
  `<style:style style:name="${name}" style:family="paragraph"${base}${more}>${inside}</style:style>`
/** Text by hand on a named style, and the same look on Standard. */
const make = (own: string, local = '') =>
  sessionOf({
    stylesFaces: face('Spectral'),
    faces: face('Spectral'),
    styles:
      paragraphStyle('Standard', 'style:font-name="Spectral" fo:font-size="10pt"') +
      own +
      '<text:list-style style:name="L"><text:list-level-style-bullet text:level="1" text:bullet-char="•"/></text:list-style>',
    automatic:
      paragraphStyle('P0', 'fo:font-size="11pt"', '', base) +
      `<style:style style:name="P1" style:family="paragraph" style:parent-style-name="Named"${local}>` +
      '<style:text-properties fo:font-size="11pt"/></style:style>',
    body: `<text:p text:style-name="P0">${long}</text:p><text:p text:style-name="P1">${long}</text:p>`.repeat(3),
  })
/** For each paragraph the named styles that it goes by, nearest first. */
const lines = (of: DocumentSession) =>
  of.reading.stories.flatMap(story =>
    paragraphsOf(story.blocks).map(paragraph => {
      const scope = of.reading.cascade.scope(paragraph.part)
      const own = of.reading.cascade.paragraph(paragraph, story.role).text.owner!.style
      return withParents(scope, own).map(style => style.name)
    }),
  )

describe('a named style that brings more than values', () => {
  it.each([
    ['a list', named('Named', '', ' style:list-style-name="L"')],
    ['a level', named('Named', '', ' style:default-outline-level="2"')],
    [
      'tab stops',
      named(
        'Named',
        '<style:paragraph-properties><style:tab-stops><style:tab-stop style:position="3cm"/></style:tab-stops>' +
          '</style:paragraph-properties>',
      ),
    ],
    [
      'a drop cap',
      named('Named', '<style:paragraph-properties><style:drop-cap style:lines="3"/></style:paragraph-properties>'),
    ],
    ['conditions', named('Named', '<style:map style:condition="list-level()=1" style:apply-style-name="Standard"/>')],
  ])('keeps its text: %s', (_, own) => {
    const { after } = quickly(make(own), { type: 'draw-up' })
    const [plain, bringing] = lines(after)
    expect(bringing).toContain('Named')
    expect(plain).not.toContain('Named')
  })

  it('that brings nothing gives its text to one style with other text of that look', () => {
    const { after } = quickly(make(named('Named')), { type: 'draw-up' })
    expect(new Set(lines(after).map(each => each[0])).size).toBe(1)
  })

  it('does not keep text that says another list itself', () => {
    const own = named('Named', '', ' style:list-style-name="L"')
    const { after } = quickly(make(own, ' style:list-style-name=""'), { type: 'draw-up' })
    expect(new Set(lines(after).map(each => each[0])).size).toBe(1)
  })
})

describe('a line that was marked as a whole and set by hand', () => {
  const marked = (inside: string) => {
    const of = sessionOf({
      stylesFaces: face('Spectral'),
      faces: face('Spectral'),
      styles:
        paragraphStyle('Standard', 'style:font-name="Spectral" fo:font-size="10pt"') +
        textStyle('Named', 'fo:font-size="16pt"'),
      automatic:
        textStyle('T1', 'fo:font-size="16pt" fo:font-weight="bold"') +
        textStyle('T2', 'fo:font-style="italic"') +
        paragraphStyle('P9', 'fo:font-size="11pt"', '', base),
      body: `<text:p text:style-name="Standard">${inside}</text:p><text:p text:style-name="P9">${long}</text:p>`.repeat(
        3,
      ),
    })
    const { after, plan } = quickly(of, { type: 'draw-up' })
    const [first] = paragraphsOf(after.reading.stories[0]!.blocks)
    const { text } = after.reading.cascade.paragraph(first!, 'body')
    return { size: text.effective.slots.western.size, made: plan.made.filter(each => each.family === 'text').length }
  }
  const span = (style: string, text: string) => `<text:span text:style-name="${style}">${text}</text:span>`

  it.each<[string, string, number]>([
    ['becomes the look of its paragraph', span('T1', 'A line that heads'), 16],
    ['with space outside of it, too', `${span('T1', 'A line')} ${span('T1', 'that heads')}`, 16],
    ['with some words set apart, too', `${span('T1', 'A line that heads')}${span('T2', ' it')}`, 16],
    ['and not where words beside it are seen as the paragraph is', `${span('T1', 'A line that heads')} it`, 10],
    ['nor where most of it has a named style', span('Named', 'A line that heads'), 10],
    ['nor where there is nothing to see', span('T1', ' '), 10],
  ])('%s', (_, inside, size) => {
    expect(marked(inside).size).toBe(size)
  })
})
