import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import type { Paragraph, Span } from '../../../core/document/story-model'
import { trace } from '../../../core/style/effective'
import { points } from '../../../core/document/lengths'
import { percent, weightNumber } from '../../../core/style/properties'
import { slotRuns } from '../../../core/style/slots'
import { readDocument, type Reading } from '../../../core/style/reading'
import { face, openOdt, paragraphStyle, sessionOf, textStyle, type Fixture } from '../../support/fixtures'

const read = (fixture: Fixture): { reading: Reading; paragraphs: Paragraph[] } => {
  const reading = readDocument(openOdt(fixture))
  return { reading, paragraphs: reading.stories.flatMap(story => [...paragraphsOf(story.blocks)]) }
}
const spanOf = (paragraph: Paragraph, at = 0): Span | null => {
  const inline = paragraph.inlines[at]!
  return 'span' in inline ? inline.span : null
}

const styles =
  `<style:default-style style:family="paragraph"><style:text-properties fo:font-size="10pt" ` +
  `style:font-name="Base"/></style:default-style>` +
  (`<style:default-style style:family="graphic"><style:text-properties fo:font-size="18pt" ` +
    `fo:font-family="'Shape Face'"/></style:default-style>`) +
  paragraphStyle('Root', 'fo:font-size="12pt" fo:color="#111111"', 'fo:line-height="120%"') +
  paragraphStyle('Child', 'fo:font-size="150%"', '', ' style:parent-style-name="Root"') +
  textStyle('Strong', 'fo:font-weight="bold"')

describe('the cascade', () => {
  it('takes defaults, then parents root first, then the style; percentages multiply', () => {
    const { reading, paragraphs } = read({
      styles,
      stylesFaces: face('Base', 'Base Face'),
      body: '<text:p text:style-name="Child">a</text:p>',
    })
    const { effective } = reading.cascade.paragraph(paragraphs[0]!).text
    expect(effective.slots.western.size).toBe(18)
    expect(effective.slots.western.font.family).toBe('Base Face')
    expect(effective.leading['fo:line-height']).toBe('120%')
    expect(trace(effective, 'fo:font-size').map(step => [step.layer.style.displayName, step.value, step.wins])).toEqual(
      [
        ['', '10pt', false],
        ['Root', '12pt', false],
        ['Child', '150%', true],
      ],
    )
  })

  it('puts spans on top, outer ones first, each with its parents and its automatic part', () => {
    const { reading, paragraphs } = read({
      styles,
      automatic: textStyle('T1', 'fo:font-style="italic" fo:font-weight="normal"', ' style:parent-style-name="Strong"'),
      body:
        '<text:p text:style-name="Root">a<text:span text:style-name="Strong">b<text:span text:style-name="T1">c</text:span>' +
        '</text:span></text:p>',
    })
    const [paragraph] = paragraphs as [Paragraph]
    const weights = [0, 1, 2].map(at => reading.cascade.text(paragraph, spanOf(paragraph, at)).effective.slots.western)
    expect(weights.map(values => [values.weight, values.posture])).toEqual([
      [400, 'normal'],
      [700, 'normal'],
      [400, 'italic'],
    ])
  })

  it('scopes names: the same name in content and styles is two styles', () => {
    const { reading, paragraphs } = read({
      styles,
      automatic: paragraphStyle('P1', 'fo:font-size="7pt"'),
      stylesAutomatic: `<style:page-layout style:name="pm"/>${paragraphStyle('P1', 'fo:font-size="9pt"')}`,
      body: '<text:p text:style-name="P1">a</text:p>',
      masters:
        '<style:master-page style:name="Standard" style:page-layout-name="pm">' +
        '<style:header><text:p text:style-name="P1">h</text:p></style:header>' +
        '</style:master-page>',
    })
    expect(paragraphs.map(paragraph => reading.cascade.paragraph(paragraph).text.effective.slots.western.size)).toEqual(
      [7, 9],
    )
  })

  it('takes the graphic default inside shapes, with the shape’s own style and paragraph style', () => {
    const { reading, paragraphs } = read({
      styles,
      automatic:
        '<style:style style:name="gr1" style:family="graphic"><style:text-properties fo:font-weight="bold"/></style:style>',
      body:
        '<text:p><draw:custom-shape draw:style-name="gr1" draw:text-style-name="Root">' +
        '<text:p>in</text:p></draw:custom-shape><draw:frame><draw:text-box>' +
        '<text:p>box</text:p></draw:text-box></draw:frame></text:p>',
    })
    const [, shape, box] = paragraphs.map(paragraph => reading.cascade.paragraph(paragraph).text.effective)
    expect([shape!.slots.western.font.family, shape!.slots.western.size, shape!.slots.western.weight]).toEqual([
      'Shape Face',
      12,
      700,
    ])
    expect(box!.slots.western.size).toBe(10)
  })

  it('resolves conditional styles by where the paragraph stands', () => {
    const conditional =
      `<style:style style:name="Cond" style:family="paragraph"><style:text-properties ` +
      `fo:font-size="11pt"/><style:map style:condition="table-header()" style:apply-style-name="Root"/>` +
      `<style:map style:condition="table()" style:apply-style-name="Child"/></style:style>`
    const { reading, paragraphs } = read({
      styles: styles + conditional,
      body:
        '<text:p text:style-name="Cond">a</text:p><table:table><table:table-header-rows>' +
        '<table:table-row><table:table-cell><text:p text:style-name="Cond">b</text:p>' +
        '</table:table-cell></table:table-row></table:table-header-rows>' +
        '<table:table-row><table:table-cell><text:p text:style-name="Cond">c</text:p>' +
        '</table:table-cell></table:table-row></table:table>',
    })
    expect(paragraphs.map(paragraph => reading.cascade.paragraph(paragraph).text.effective.slots.western.size)).toEqual(
      [11, 12, 18],
    )
  })

  it('cuts a chain of parents that loops', () => {
    const { reading, paragraphs } = read({
      styles:
        paragraphStyle('A', 'fo:font-size="5pt"', '', ' style:parent-style-name="B"') +
        paragraphStyle('B', 'fo:font-size="6pt"', '', ' style:parent-style-name="A"'),
      body: '<text:p text:style-name="A">x</text:p>',
    })
    expect(reading.cascade.paragraph(paragraphs[0]!).text.effective.slots.western.size).toBe(5)
  })
})

describe('the list of a paragraph', () => {
  const of = sessionOf({
    styles:
      paragraphStyle('Item', '', '', ' style:list-style-name="L1"') +
      paragraphStyle('Child', '', '', ' style:parent-style-name="Item"') +
      paragraphStyle('Plain', '', '', ' style:parent-style-name="Item" style:list-style-name=""'),
    body: ['Item', 'Child', 'Plain'].map(name => `<text:p text:style-name="${name}">x</text:p>`).join(''),
  })
  it('is its style’s or that of a parent, until one says that there is none', () => {
    const lists = paragraphsOf(of.reading.stories[0]!.blocks).map(each => of.reading.cascade.paragraph(each).listStyle)
    expect(lists).toEqual(['L1', 'L1', null])
  })
})

describe('settled text', () => {
  it('is what looks the same without its local properties', () => {
    const { reading, paragraphs } = read({
      styles,
      automatic:
        paragraphStyle('P1', 'fo:font-size="12pt"', '', ' style:parent-style-name="Root"') +
        paragraphStyle('P2', 'fo:font-size="11pt"', '', ' style:parent-style-name="Root"') +
        paragraphStyle('P3', '', 'fo:break-before="page"', ' style:parent-style-name="Root"'),
      body: ['Root', 'P1', 'P2', 'P3'].map(name => `<text:p text:style-name="${name}">x</text:p>`).join(''),
    })
    // P1 repeats what Root says (an idle property), P2 departs from it, P3 sets nothing of type.
    expect(paragraphs.map(paragraph => reading.cascade.paragraph(paragraph).text.settled('western'))).toEqual([
      true,
      true,
      false,
      true,
    ])
  })
})

describe('slots', () => {
  it.each([
    ['plain words, 12!', [['western', 0, 16]]],
    [
      '日本 and',
      [
        ['asian', 0, 3],
        ['western', 3, 6],
      ],
    ],
    [' שלום ', [['complex', 0, 6]]],
    ['12 – 14', [['western', 0, 7]]],
    [
      'a אב 3',
      [
        ['western', 0, 2],
        ['complex', 2, 6],
      ],
    ],
    ['', []],
  ])('“%s”', (text, expected) => {
    expect(slotRuns(text as string).map(run => [run.slot, run.start, run.end])).toEqual(expected)
  })
})

describe('values', () => {
  it('reads lengths of every unit in points', () => {
    expect(
      ['1in', '2.54cm', '25.4mm', '6pc', '96px', '72pt'].map(value => Math.round(points(value)! * 1000) / 1000),
    ).toEqual([72, 72, 72, 72, 72, 72])
    expect([points('12'), points('large'), points(undefined), percent('120%'), percent('12pt')]).toEqual([
      null,
      null,
      null,
      1.2,
      null,
    ])
    expect([
      weightNumber('bold'),
      weightNumber('normal'),
      weightNumber('600'),
      weightNumber(undefined),
      weightNumber('heavy'),
      weightNumber('1000'),
      weightNumber('1001'),
      weightNumber('1'),
      weightNumber('0'),
    ]).toEqual([700, 400, 600, 400, 400, 1000, 400, 1, 400])
  })
})
