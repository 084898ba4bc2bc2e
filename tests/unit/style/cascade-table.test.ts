import { describe, expect, it } from 'vitest'
import { fontAttributes, slots, type Slot } from '../../../core/document/font-attributes'
import { paragraphsOf } from '../../../core/document/stories'
import type { Paragraph, Story } from '../../../core/document/story-model'
import type { TextStyle } from '../../../core/style/cascade'
import { trace } from '../../../core/style/effective'
import { points } from '../../../core/document/lengths'
import { slotAttributes } from '../../../core/style/properties'
import { paragraphRuns } from '../../../core/style/runs'
import {
  drawingOf,
  drawnMaster,
  drawnPage,
  graphicStyle,
  paragraphStyle,
  sessionOf,
  shapeAt,
  smallPage,
  textFrame,
  textStyle,
  type Fixture,
} from '../../support/fixtures'
import type { DocumentSession } from '../../../core/session'

/*
 * What the standard says of how layers of styles come together, as a table: kind of document by container by property by
 * layer. Every case cites its place in OpenDocument 1.4 part 3; attributes stand in its section 20 under their names.
 */
interface Case {
  readonly name: string
  readonly cites: string
  readonly run: () => void
}
const cases: Case[] = []
const put = (name: string, cites: string, run: () => void) => {
  cases.push({ name, cites, run })
}

/** The style of the text that reads “x”, wherever it stands. */
function styleOf(
  session: DocumentSession,
  wanted = 'x',
): { readonly style: TextStyle; readonly slot: Slot; readonly paragraph: Paragraph; readonly story: Story } {
  for (const story of session.reading.stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { text, runs } = paragraphRuns(paragraph, session.reading.cascade, story.role)
      for (const run of runs)
        if (text.slice(run.start, run.end).includes(wanted))
          return { style: run.style, slot: run.slot, paragraph, story }
    }
  }
  throw new Error('the text is not there')
}
const parent = (name: string) => ` style:parent-style-name="${name}"`
const defaults = (family: string, text: string, paragraph = '') =>
  `<style:default-style style:family="${family}">${
    paragraph && `<style:paragraph-properties ${paragraph}/>`
  }<style:text-properties ${text}/>` + `</style:default-style>`
const sizeAt = (of: DocumentSession, wanted = 'x') => {
  const { style, slot } = styleOf(of, wanted)
  return style.effective.slots[slot].size
}

// 1. One property in two layers of a text's body: the later one has it, and the trace tells both.
interface Property {
  readonly attribute: string
  readonly low: string
  readonly high: string
  readonly read: (style: TextStyle) => unknown
  readonly lowRead: unknown
  readonly highRead: unknown
  readonly on?: 'paragraph'
}
const shared = (
  attribute:
    | 'fo:color'
    | 'fo:letter-spacing'
    | 'fo:text-transform'
    | 'fo:font-variant'
    | 'style:text-position'
    | 'style:text-scale'
    | 'style:letter-kerning'
    | 'fo:background-color'
    | 'fo:hyphenate'
    | 'style:text-underline-style'
    | 'fo:text-shadow',
  low: string,
  high: string,
): Property => ({
  attribute,
  low,
  high,
  read: style => style.effective.shared[attribute],
  lowRead: low,
  highRead: high,
})
const properties: readonly Property[] = [
  {
    attribute: 'fo:font-size',
    low: '11pt',
    high: '17pt',
    read: style => style.effective.slots.western.size,
    lowRead: 11,
    highRead: 17,
  },
  {
    attribute: 'fo:font-weight',
    low: 'bold',
    high: '300',
    read: style => style.effective.slots.western.weight,
    lowRead: 700,
    highRead: 300,
  },
  {
    attribute: 'fo:font-style',
    low: 'italic',
    high: 'normal',
    read: style => style.effective.slots.western.posture,
    lowRead: 'italic',
    highRead: 'normal',
  },
  {
    attribute: 'fo:language',
    low: 'de',
    high: 'fr',
    read: style => style.effective.slots.western.language,
    lowRead: 'de',
    highRead: 'fr',
  },
  {
    attribute: 'fo:font-family',
    low: 'Jost',
    high: 'Inter',
    read: style => style.effective.slots.western.font.family,
    lowRead: 'Jost',
    highRead: 'Inter',
  },
  shared('fo:color', '#111111', '#222222'),
  shared('fo:letter-spacing', '1pt', '2pt'),
  shared('fo:text-transform', 'uppercase', 'none'),
  shared('fo:font-variant', 'small-caps', 'normal'),
  shared('style:text-position', 'super 58%', '0% 100%'),
  shared('style:text-scale', '90%', '100%'),
  shared('style:letter-kerning', 'true', 'false'),
  shared('fo:background-color', '#eeeeee', 'transparent'),
  shared('fo:hyphenate', 'true', 'false'),
  shared('style:text-underline-style', 'solid', 'none'),
  shared('fo:text-shadow', '1pt 1pt', 'none'),
]
/** The layers of a text's body, outermost first: what each needs to say something, by its index. */
const layerNames = [
  'the default style (16.4)',
  'the parent of the paragraph style (19.510)',
  'the paragraph style (16.2)',
  'the paragraph’s automatic style (16.2)',
  'the parent of a character style (19.510)',
  'the character style of a span (6.1.7)',
  'the automatic style of an inner span (6.1.7)',
]
function layered(at: ReadonlyMap<number, string>): DocumentSession {
  const text = (index: number) => at.get(index) ?? ''
  return sessionOf({
    styles:
      `${at.has(0) ? defaults('paragraph', text(0)) : ''}${paragraphStyle('Above', text(1))}` +
      `${paragraphStyle('Own', text(2), '', parent('Above'))}${textStyle('CharAbove', text(4))}` +
      `${textStyle('Char', text(5), parent('CharAbove'))}`,
    automatic: paragraphStyle('P1', text(3), '', parent('Own')) + textStyle('T1', text(6)),
    body:
      '<text:p text:style-name="P1"><text:span text:style-name="Char">' +
      '<text:span text:style-name="T1">x</text:span></text:span></text:p>',
  })
}
for (const property of properties) {
  for (let upper = 1; upper < layerNames.length; upper++) {
    put(
      `${property.attribute} in ${layerNames[upper]} over ${layerNames[upper - 1]}`,
      `16.2, 19.510; 20 “${property.attribute}”`,
      () => {
        const { style } = styleOf(
          layered(
            new Map([
              [upper - 1, `${property.attribute}="${property.low}"`],
              [upper, `${property.attribute}="${property.high}"`],
            ]),
          ),
        )
        expect(property.read(style)).toEqual(property.highRead)
        expect(trace(style.effective, property.attribute).map(step => [step.value, step.wins])).toEqual(
          property.attribute === 'fo:font-family'
            ? [
                [property.low, false],
                [property.high, false],
              ]
            : [
                [property.low, false],
                [property.high, true],
              ],
        )
      },
    )
  }
  put(
    `${property.attribute} said by the default alone reaches the innermost span`,
    `16.4; 20 “${property.attribute}”`,
    () => {
      expect(property.read(styleOf(layered(new Map([[0, `${property.attribute}="${property.low}"`]]))).style)).toEqual(
        property.lowRead,
      )
    },
  )
}

// 2. Each slot has its own properties, in every layer: the other slots say nothing about it.
const samples: Readonly<Record<Slot, string>> = { western: 'x', asian: '港', complex: 'א' }
for (const slot of slots) {
  const names = slotAttributes[slot]
  const others = slots.filter(each => each !== slot)
  for (const [what, at] of [
    ['the default style', 0],
    ['the paragraph style', 2],
    ['a span', 5],
  ] as const) {
    const of = (own: string, other: (slot: Slot) => string) =>
      styleOf(
        sessionOf({
          styles:
            `${at === 0 ? defaults('paragraph', `${own} ${others.map(other).join(' ')}`) : ''}` +
            `${paragraphStyle('Own', at === 2 ? `${own} ${others.map(other).join(' ')}` : '')}` +
            `${textStyle('Char', at === 5 ? `${own} ${others.map(other).join(' ')}` : '')}`,
          body: `<text:p text:style-name="Own"><text:span text:style-name="Char">${samples[slot]}</text:span></text:p>`,
        }),
        samples[slot],
      )
    put(`the ${slot} size in ${what}`, `16.29.29; 20 “${names.size}”`, () => {
      const { style, slot: found } = of(`${names.size}="13pt"`, each => `${slotAttributes[each].size}="21pt"`)
      expect([found, style.effective.slots[found].size]).toEqual([slot, 13])
    })
    put(`the ${slot} weight in ${what}`, `16.29.29; 20 “${names.weight}”`, () => {
      expect(
        of(`${names.weight}="bold"`, each => `${slotAttributes[each].weight}="200"`).style.effective.slots[slot].weight,
      ).toBe(700)
    })
    put(`the ${slot} posture in ${what}`, `16.29.29; 20 “${names.style}”`, () => {
      expect(
        of(`${names.style}="italic"`, each => `${slotAttributes[each].style}="normal"`).style.effective.slots[slot]
          .posture,
      ).toBe('italic')
    })
    put(`the ${slot} language in ${what}`, `16.29.29; 20 “${names.language}”`, () => {
      expect(
        of(`${names.language}="sv" ${names.country}="FI"`, each => `${slotAttributes[each].language}="it"`).style
          .effective.slots[slot].language,
      ).toBe('sv-FI')
    })
    put(`the ${slot} font in ${what}`, `16.29.29; 20 “${fontAttributes[slot].family}”`, () => {
      expect(
        of(`${fontAttributes[slot].family}="Jost"`, each => `${fontAttributes[each].family}="Inter"`).style.effective
          .slots[slot].font.family,
      ).toBe('Jost')
    })
  }
}

// 3. Which default style applies, by kind of document and container.
const bothDefaults = defaults('paragraph', 'fo:font-size="7pt"') + defaults('graphic', 'fo:font-size="19pt"')
const note = (kind: string, inside: string) =>
  `<text:note text:note-class="${kind}"><text:note-citation>1</text:note-citation><text:note-body>${inside}</text:note-body></text:note>`
const containers: readonly (readonly [string, string, number])[] = [
  ['the body', '<text:p>x</text:p>', 7],
  ['a heading', '<text:h text:outline-level="1">x</text:h>', 7],
  ['a list', '<text:list><text:list-item><text:p>x</text:p></text:list-item></text:list>', 7],
  [
    'a table cell',
    '<table:table><table:table-column/><table:table-row><table:table-cell>' +
      '<text:p>x</text:p></table:table-cell></table:table-row></table:table>',
    7,
  ],
  ['a text frame', '<text:p><draw:frame><draw:text-box><text:p>x</text:p></draw:text-box></draw:frame></text:p>', 7],
  ['a footnote', `<text:p>${note('footnote', '<text:p>x</text:p>')}</text:p>`, 7],
  ['an endnote', `<text:p>${note('endnote', '<text:p>x</text:p>')}</text:p>`, 7],
  ['a section', '<text:section text:name="s"><text:p>x</text:p></text:section>', 7],
  ['a custom shape', '<text:p><draw:custom-shape><text:p>x</text:p></draw:custom-shape></text:p>', 19],
  ['a rectangle', '<text:p><draw:rect><text:p>x</text:p></draw:rect></text:p>', 19],
  ['an ellipse', '<text:p><draw:ellipse><text:p>x</text:p></draw:ellipse></text:p>', 19],
]
for (const [what, body, size] of containers)
  put(`the default in ${what} of a text`, size === 7 ? '16.4, 16.29 (paragraph)' : '16.4, 16.28 (graphic)', () => {
    expect(sizeAt(sessionOf({ styles: bothDefaults, body }))).toBe(size)
  })
for (const part of ['header', 'footer', 'header-left', 'footer-left'])
  put(`the default in a ${part} of a text`, '16.4, 16.29 (paragraph)', () => {
    const stories = (['header', 'header-left', 'footer', 'footer-left'] as const)
      .map(each => `<style:${each}><text:p>${each === part ? 'x' : 'o'}</text:p></style:${each}>`)
      .join('')
    expect(
      sizeAt(
        sessionOf({
          styles: bothDefaults,
          masters: `<style:master-page style:name="Standard" style:page-layout-name="pm">${stories}</style:master-page>`,
        }),
      ),
    ).toBe(7)
  })
for (const kind of ['presentation', 'drawing'] as const) {
  const shapes: readonly (readonly [string, string])[] = [
    ['a text frame', textFrame(shapeAt(0, 0, 5, 2), '<text:p>x</text:p>')],
    ['a rectangle', `<draw:rect ${shapeAt(0, 0, 5, 2)}><text:p>x</text:p></draw:rect>`],
    ['a custom shape', `<draw:custom-shape ${shapeAt(0, 0, 5, 2)}><text:p>x</text:p></draw:custom-shape>`],
    ['a grouped shape', `<draw:g><draw:ellipse ${shapeAt(0, 0, 5, 2)}><text:p>x</text:p></draw:ellipse></draw:g>`],
  ]
  for (const [what, inside] of shapes) {
    put(`the default in ${what} of a ${kind}: graphic alone`, '16.4, 16.28 (graphic)', () => {
      expect(
        sizeAt(drawingOf({ kind, styles: defaults('paragraph', 'fo:font-size="7pt"'), pages: drawnPage(inside) })),
      ).toBe(10)
    })
    put(`a graphic style over the default in ${what} of a ${kind}`, '16.28, 19.219 (draw:style-name)', () => {
      expect(
        sizeAt(
          drawingOf({
            kind,
            automatic: graphicStyle('g', 'draw:fill="none"', 'fo:font-size="14pt"'),
            pages: drawnPage(inside.replace(/<draw:(frame|rect|custom-shape|ellipse)/, '<draw:$1 draw:style-name="g"')),
          }),
        ),
      ).toBe(14)
    })
    put(`a parent of the graphic style in ${what} of a ${kind}`, '19.510', () => {
      expect(
        sizeAt(
          drawingOf({
            kind,
            styles: graphicStyle('G', 'draw:fill="none"', 'fo:font-size="15pt"'),
            automatic: graphicStyle('g', 'draw:fill="none"', '', '', parent('G')),
            pages: drawnPage(inside.replace(/<draw:(frame|rect|custom-shape|ellipse)/, '<draw:$1 draw:style-name="g"')),
          }),
        ),
      ).toBe(15)
    })
    put(`draw:text-style-name over the graphic style in ${what} of a ${kind}`, '19.225 (draw:text-style-name)', () => {
      expect(
        sizeAt(
          drawingOf({
            kind,
            styles: paragraphStyle('L', 'fo:font-size="8pt"'),
            automatic: graphicStyle('g', 'draw:fill="none"', 'fo:font-size="14pt"'),
            pages: drawnPage(
              inside.replace(
                /<draw:(frame|rect|custom-shape|ellipse)/,
                '<draw:$1 draw:style-name="g" draw:text-style-name="L"',
              ),
            ),
          }),
        ),
      ).toBe(8)
    })
    put(`the paragraph style over the frame in ${what} of a ${kind}`, '16.2, 19.876 (text:style-name)', () => {
      expect(
        sizeAt(
          drawingOf({
            kind,
            styles: paragraphStyle('L', 'fo:font-size="8pt"') + paragraphStyle('P', 'fo:font-size="6pt"'),
            pages: drawnPage(
              inside
                .replace(/<draw:(frame|rect|custom-shape|ellipse)/, '<draw:$1 draw:text-style-name="L"')
                .replace('<text:p>', '<text:p text:style-name="P">'),
            ),
          }),
        ),
      ).toBe(6)
    })
    put(`a span over all in ${what} of a ${kind}`, '6.1.7', () => {
      expect(
        sizeAt(
          drawingOf({
            kind,
            styles: paragraphStyle('P', 'fo:font-size="6pt"') + textStyle('C', 'fo:font-size="5pt"'),
            pages: drawnPage(
              inside.replace(
                '<text:p>x</text:p>',
                '<text:p text:style-name="P"><text:span text:style-name="C">x</text:span></text:p>',
              ),
            ),
          }),
        ),
      ).toBe(5)
    })
  }
}

// 4. Placeholders: a style for each level of an outline.
for (let level = 1; level <= 9; level++) {
  put(`level ${level} of an outline placeholder`, '16.40.2 (presentation styles of a master page)', () => {
    const style = (number: number) =>
      graphicStyle(
        `M-outline${number}`,
        'draw:fill="none"',
        `fo:font-size="${30 - number}pt"`,
        '',
        number === 1 ? '' : parent(`M-outline${number - 1}`),
        'presentation',
      )
    let inside = '<text:p>x</text:p>'
    for (let at = 0; at < level; at++) inside = `<text:list><text:list-item>${inside}</text:list-item></text:list>`
    expect(
      sizeAt(
        drawingOf({
          styles: Array.from({ length: 9 }, (_, at) => style(at + 1)).join(''),
          masters: drawnMaster(),
          automatic: graphicStyle('pr1', 'draw:fill="none"', '', '', parent('M-outline1'), 'presentation'),
          pages: drawnPage(
            textFrame(shapeAt(0, 0, 5, 2), inside, 'presentation:style-name="pr1" presentation:class="outline"'),
          ),
        }),
      ),
    ).toBe(30 - level)
  })
}

// 5. Percentages: of what is below, layer by layer.
const percents: readonly (readonly [string, Fixture, number])[] = [
  [
    'of the parent style',
    {
      styles: paragraphStyle('A', 'fo:font-size="20pt"') + paragraphStyle('B', 'fo:font-size="50%"', '', parent('A')),
      body: '<text:p text:style-name="B">x</text:p>',
    },
    10,
  ],
  [
    'of the default',
    {
      styles: defaults('paragraph', 'fo:font-size="20pt"') + paragraphStyle('B', 'fo:font-size="150%"'),
      body: '<text:p text:style-name="B">x</text:p>',
    },
    30,
  ],
  [
    'of a percentage',
    {
      styles:
        paragraphStyle('A', 'fo:font-size="20pt"') +
        paragraphStyle('B', 'fo:font-size="50%"', '', parent('A')) +
        paragraphStyle('C', 'fo:font-size="50%"', '', parent('B')),
      body: '<text:p text:style-name="C">x</text:p>',
    },
    5,
  ],
  [
    'in an automatic style, of its parent',
    {
      styles: paragraphStyle('A', 'fo:font-size="20pt"'),
      automatic: paragraphStyle('P', 'fo:font-size="80%"', '', parent('A')),
      body: '<text:p text:style-name="P">x</text:p>',
    },
    16,
  ],
  [
    'in a span, of its paragraph',
    {
      styles: paragraphStyle('A', 'fo:font-size="20pt"') + textStyle('T', 'fo:font-size="75%"'),
      body: '<text:p text:style-name="A"><text:span text:style-name="T">x</text:span></text:p>',
    },
    15,
  ],
  [
    'in a span, of the span around it',
    {
      styles: textStyle('S', 'fo:font-size="40pt"') + textStyle('T', 'fo:font-size="75%"'),
      body: '<text:p><text:span text:style-name="S"><text:span text:style-name="T">x</text:span></text:span></text:p>',
    },
    30,
  ],
  [
    'in a character style, of its own parent',
    {
      styles: textStyle('S', 'fo:font-size="40pt"') + textStyle('T', 'fo:font-size="50%"', parent('S')),
      body: '<text:p><text:span text:style-name="T">x</text:span></text:p>',
    },
    20,
  ],
  [
    'in a link',
    {
      styles: paragraphStyle('A', 'fo:font-size="20pt"') + textStyle('T', 'fo:font-size="90%"'),
      body: '<text:p text:style-name="A"><text:a xlink:href="u" text:style-name="T">x</text:a></text:p>',
    },
    18,
  ],
  [
    'with an absolute size over it',
    {
      styles: paragraphStyle('A', 'fo:font-size="50%"') + paragraphStyle('B', 'fo:font-size="9pt"', '', parent('A')),
      body: '<text:p text:style-name="B">x</text:p>',
    },
    9,
  ],
  [
    'of 100 %',
    {
      styles: paragraphStyle('A', 'fo:font-size="20pt"') + paragraphStyle('B', 'fo:font-size="100%"', '', parent('A')),
      body: '<text:p text:style-name="B">x</text:p>',
    },
    20,
  ],
  [
    'with nothing below: of 12 pt',
    { styles: paragraphStyle('A', 'fo:font-size="200%"'), body: '<text:p text:style-name="A">x</text:p>' },
    24,
  ],
]
for (const [what, fixture, size] of percents)
  put(`a size in percent ${what}`, '20 “fo:font-size”', () => {
    expect(sizeAt(sessionOf(fixture))).toBe(size)
  })
for (const slot of slots) {
  put(`a relative ${slot} size adds to what is below`, `20 “${slotAttributes[slot].sizeRelative}”`, () => {
    expect(
      sizeAt(
        sessionOf({
          styles:
            paragraphStyle('A', `${slotAttributes[slot].size}="20pt"`) +
            paragraphStyle('B', `${slotAttributes[slot].sizeRelative}="-3pt"`, '', parent('A')),
          body: `<text:p text:style-name="B">${samples[slot]}</text:p>`,
        }),
        samples[slot],
      ),
    ).toBe(17)
  })
  put(`a ${slot} percentage is of the ${slot} size`, `20 “${slotAttributes[slot].size}”`, () => {
    expect(
      sizeAt(
        sessionOf({
          styles:
            paragraphStyle(
              'A',
              slots.map((each, at) => `${slotAttributes[each].size}="${(at + 1) * 10}pt"`).join(' '),
            ) + paragraphStyle('B', `${slotAttributes[slot].size}="50%"`, '', parent('A')),
          body: `<text:p text:style-name="B">${samples[slot]}</text:p>`,
        }),
        samples[slot],
      ),
    ).toBe((slots.indexOf(slot) + 1) * 5)
  })
}
for (const [what, value] of [
  ['in percent', '120%'],
  ['in points', '14pt'],
  ['of the face', 'normal'],
] as const)
  put(`leading ${what} in the style over its parent’s`, '20 “fo:line-height”', () => {
    expect(
      styleOf(
        sessionOf({
          styles:
            paragraphStyle('A', '', 'fo:line-height="99pt"') +
            paragraphStyle('B', '', `fo:line-height="${value}"`, parent('A')),
          body: '<text:p text:style-name="B">x</text:p>',
        }),
      ).style.effective.leading['fo:line-height'],
    ).toBe(value)
  })

// 6. Spans, links and classes, one inside the other.
const inline: readonly (readonly [string, string, string, number])[] = [
  [
    'an inner span over an outer one',
    '6.1.7',
    '<text:span text:style-name="S20"><text:span text:style-name="S30">x</text:span></text:span>',
    30,
  ],
  [
    'three spans deep',
    '6.1.7',
    '<text:span text:style-name="S10"><text:span text:style-name="S20">' +
      '<text:span text:style-name="S30">x</text:span></text:span></text:span>',
    30,
  ],
  [
    'an inner span that says nothing',
    '6.1.7',
    '<text:span text:style-name="S20"><text:span text:style-name="S0">x</text:span></text:span>',
    20,
  ],
  ['a span without a style', '6.1.7', '<text:span text:style-name="S20"><text:span>x</text:span></text:span>', 20],
  [
    'a span whose style is not there',
    '19.876',
    '<text:span text:style-name="S20"><text:span text:style-name="Gone">x</text:span></text:span>',
    20,
  ],
  [
    'a link in a span',
    '6.1.8',
    '<text:span text:style-name="S20"><text:a xlink:href="u" text:style-name="S30">x</text:a></text:span>',
    30,
  ],
  [
    'a span in a link',
    '6.1.8',
    '<text:a xlink:href="u" text:style-name="S20"><text:span text:style-name="S30">x</text:span></text:a>',
    30,
  ],
  [
    'classes after the style, in order',
    '19.770 (text:class-names)',
    '<text:span text:style-name="S10" text:class-names="S20 S30">x</text:span>',
    30,
  ],
  [
    'classes in the other order',
    '19.770 (text:class-names)',
    '<text:span text:style-name="S10" text:class-names="S30 S20">x</text:span>',
    20,
  ],
  [
    'an outer class under an inner style',
    '19.770, 6.1.7',
    '<text:span text:class-names="S30"><text:span text:style-name="S20">x</text:span></text:span>',
    20,
  ],
  [
    'the base of ruby',
    '6.4 (text:ruby)',
    '<text:ruby><text:ruby-base><text:span text:style-name="S20">x</text:span>' +
      '</text:ruby-base><text:ruby-text>r</text:ruby-text></text:ruby>',
    20,
  ],
  ['a field in a span', '7.1', '<text:span text:style-name="S20"><text:title>x</text:title></text:span>', 20],
]
for (const [what, cites, inside, size] of inline)
  put(what, cites, () => {
    expect(
      sizeAt(
        sessionOf({
          styles: [0, 10, 20, 30]
            .map(each => textStyle(`S${each}`, each === 0 ? '' : `fo:font-size="${each}pt"`))
            .join(''),
          body: `<text:p>${inside}</text:p>`,
        }),
      ),
    ).toBe(size)
  })
put('classes of a paragraph after its style, in order', '19.770 (text:class-names)', () => {
  expect(
    sizeAt(
      sessionOf({
        styles:
          paragraphStyle('A', 'fo:font-size="8pt"') +
          paragraphStyle('B', 'fo:font-size="9pt"') +
          paragraphStyle('C', 'fo:font-size="10pt"'),
        body: '<text:p text:style-name="A" text:class-names="C B">x</text:p>',
      }),
    ),
  ).toBe(9)
})

// 7. Conditional styles: where the paragraph stands decides.
const conditions: readonly (readonly [string, string, boolean])[] = [
  ['table()', containers[3]![1], true],
  ['table()', containers[0]![1], false],
  [
    'table-header()',
    '<table:table><table:table-column/><table:table-header-rows><table:table-row>' +
      '<table:table-cell><text:p>x</text:p></table:table-cell></table:table-row>' +
      '</table:table-header-rows></table:table>',
    true,
  ],
  ['table-header()', containers[3]![1], false],
  ['text-box()', containers[4]![1], true],
  ['text-box()', containers[0]![1], false],
  ['footnote()', containers[5]![1], true],
  ['endnote()', containers[6]![1], true],
  ['footnote()', containers[0]![1], false],
  ['list-level() = 1', containers[2]![1], true],
  ['list-level() = 2', containers[2]![1], false],
  [
    'list-level()=2',
    '<text:list><text:list-item><text:list><text:list-item><text:p>x</text:p></text:list-item></text:list></text:list-item></text:list>',
    true,
  ],
  ['outline-level() = 1', containers[1]![1], true],
  ['outline-level() = 2', containers[1]![1], false],
  ['unknown()', containers[0]![1], false],
]
for (const [condition, body, holds] of conditions)
  put(
    `the condition ${condition} ${holds ? 'holds' : 'does not hold'} for ${body
      .replace(/<[/]?|\s.*?>|>/g, ' ')
      .trim()
      .slice(0, 40)}`,
    '16.3 (style:map)',
    () => {
      const conditional =
        `<style:style style:name="C" style:family="paragraph"><style:text-properties fo:font-size="8pt"/>` +
        `<style:map style:condition="${condition}" style:apply-style-name="Other"/></style:style>`
      expect(
        sizeAt(
          sessionOf({
            styles: conditional + paragraphStyle('Other', 'fo:font-size="16pt"'),
            body: body.replace(/<text:(p|h)( text:outline-level="1")?>x/, '<text:$1 text:style-name="C"$2>x'),
          }),
        ),
      ).toBe(holds ? 16 : 8)
    },
  )
for (const part of ['header', 'footer'] as const)
  put(`the condition ${part}()`, '16.3 (style:map)', () => {
    const conditional =
      `<style:style style:name="C" style:family="paragraph"><style:text-properties fo:font-size="8pt"/>` +
      `<style:map style:condition="${part}()" style:apply-style-name="Other"/></style:style>`
    expect(
      sizeAt(
        sessionOf({
          styles: conditional + paragraphStyle('Other', 'fo:font-size="16pt"'),
          stylesAutomatic: smallPage,
          masters:
            `<style:master-page style:name="Standard" style:page-layout-name="pm">` +
            `${part === 'footer' ? '<style:header><text:p/></style:header>' : ''}<style:${part}>` +
            `<text:p text:style-name="C">x</text:p></style:${part}></style:master-page>`,
        }),
      ),
    ).toBe(16)
  })

// 8. Table templates and cell styles.
const template =
  '<table:table-template table:name="T">' +
  ['first-row', 'last-row', 'first-column', 'last-column', 'body', 'odd-rows', 'even-rows']
    .map((each, at) => `<table:${each} table:style-name="c${at}"/>`)
    .join('') +
  '</table:table-template>' +
  Array.from(
    { length: 7 },
    (_, at) =>
      `<style:style style:name="c${at}" style:family="table-cell"><style:text-properties fo:font-size="${20 + at}pt"/></style:style>`,
  ).join('')
const tableOf = (uses: string, row: number, column: number, cell = '', inner = '') =>
  `<table:table table:template-name="T" ${uses}><table:table-column ` +
  `table:number-columns-repeated="3"/>${Array.from(
    { length: 4 },
    (_, r) =>
      `<table:table-row>${Array.from(
        { length: 3 },
        (_, c) =>
          `<table:table-cell${r === row && c === column ? ` ${cell}` : ''}>` +
          `<text:p${r === row && c === column ? ` ${inner}` : ''}>${r === row && c === column ? 'x' : 'o'}</text:p>` +
          `</table:table-cell>`,
      ).join('')}</table:table-row>`,
  ).join('')}</table:table>`
const use = (...what: string[]) => what.map(each => `table:use-${each}-styles="true"`).join(' ')
const tables: readonly (readonly [string, string, number])[] = [
  ['the body of a template', tableOf('', 1, 1), 24],
  ['its first row', tableOf(use('first-row'), 0, 1), 20],
  ['its last row', tableOf(use('last-row'), 3, 1), 21],
  ['its first column', tableOf(use('first-column'), 1, 0), 22],
  ['its last column', tableOf(use('last-column'), 1, 2), 23],
  ['its first row, where it is not used', tableOf('', 0, 1), 24],
  ['banded rows, the first, which is odd', tableOf(use('banding-rows'), 0, 1), 25],
  ['banded rows, the second, which is even', tableOf(use('banding-rows'), 1, 1), 26],
  ['a corner: the row over the column', tableOf(use('first-row', 'first-column'), 0, 0), 20],
  ['a cell’s own style over the template', tableOf('', 1, 1, 'table:style-name="own"'), 9],
  ['a paragraph’s style over the cell’s', tableOf('', 1, 1, 'table:style-name="own"', 'text:style-name="P"'), 5],
]
for (const [what, body, size] of tables)
  put(what, '16.18 (table:table-template), 19.750 ff.', () => {
    expect(
      sizeAt(
        sessionOf({
          styles: `${template}${paragraphStyle('P', 'fo:font-size="5pt"')}`,
          automatic:
            '<style:style style:name="own" style:family="table-cell"><style:text-properties fo:font-size="9pt"/></style:style>',
          body,
        }),
      ),
    ).toBe(size)
  })

// What programs call a template by: a table goes by its name, whichever attribute holds it.
for (const attribute of ['table:name', 'text:name', 'text:style-name'])
  put(`a template that is called so by ${attribute}`, '16.18 (table:table-template)', () => {
    const styles = template.replace('table:name="T"', `${attribute}="T"`)
    expect(sizeAt(sessionOf({ styles, body: tableOf('', 1, 1) }))).toBe(24)
    expect(sizeAt(sessionOf({ styles: template.replace('table:name="T"', ''), body: tableOf('', 1, 1) }))).not.toBe(24)
  })

// 9. One name in two parts is two styles.
for (const [what, family] of [
  ['paragraph', 'paragraph'],
  ['character', 'text'],
  ['graphic', 'graphic'],
] as const) {
  const own = (size: number) =>
    family === 'paragraph'
      ? paragraphStyle('N', `fo:font-size="${size}pt"`)
      : family === 'text'
        ? textStyle('N', `fo:font-size="${size}pt"`)
        : graphicStyle('N', 'draw:fill="none"', `fo:font-size="${size}pt"`)
  const inside = (word: string) =>
    family === 'paragraph'
      ? `<text:p text:style-name="N">${word}</text:p>`
      : family === 'text'
        ? `<text:p><text:span text:style-name="N">${word}</text:span></text:p>`
        : `<text:p><draw:rect draw:style-name="N"><text:p>${word}</text:p></draw:rect></text:p>`
  const fixture: Fixture = {
    automatic: own(9),
    stylesAutomatic: smallPage + own(11),
    body: inside('x'),
    masters:
      `<style:master-page style:name="Standard" style:page-layout-name="pm"><style:header>${inside('y')}</style:header>` +
      `</style:master-page>`,
  }
  put(`a ${what} style N of the content`, '3.1.3.2, 16.2 (scope of automatic styles)', () => {
    expect(sizeAt(sessionOf(fixture))).toBe(9)
  })
  put(`a ${what} style N of the masters`, '3.1.3.2, 16.2 (scope of automatic styles)', () => {
    expect(sizeAt(sessionOf(fixture), 'y')).toBe(11)
  })
  put(`an automatic ${what} style before a common one of the same name`, '16.2', () => {
    expect(sizeAt(sessionOf({ ...fixture, styles: own(30) }))).toBe(9)
  })
}
put('a name is looked up in its own family', '19.480 (style:family)', () => {
  expect(
    sizeAt(
      sessionOf({
        styles: textStyle('N', 'fo:font-size="30pt"') + paragraphStyle('N', 'fo:font-size="8pt"'),
        body: '<text:p text:style-name="N">x</text:p>',
      }),
    ),
  ).toBe(8)
})
put('parents that go round in a ring are cut', '19.510', () => {
  expect(
    sizeAt(
      sessionOf({
        styles:
          paragraphStyle('A', 'fo:font-size="8pt"', '', parent('B')) +
          paragraphStyle('B', 'fo:font-size="9pt"', '', parent('A')),
        body: '<text:p text:style-name="A">x</text:p>',
      }),
    ),
  ).toBe(8)
})
put('a parent that is not there says nothing', '19.510', () => {
  expect(
    sizeAt(
      sessionOf({
        styles: paragraphStyle('A', 'fo:font-size="8pt"', '', parent('Gone')),
        body: '<text:p text:style-name="A">x</text:p>',
      }),
    ),
  ).toBe(8)
})
put('a declared font before a loose family of the same layer', '20 “style:font-name”', () => {
  expect(
    styleOf(
      sessionOf({
        styles: paragraphStyle('A', 'style:font-name="F" fo:font-family="Inter"'),
        stylesFaces: '<style:font-face style:name="F" svg:font-family="Jost"/>',
        body: '<text:p text:style-name="A">x</text:p>',
      }),
    ).style.effective.slots.western.font.family,
  ).toBe('Jost')
})
put('a font’s style name goes with the font', '20 “style:font-style-name”', () => {
  expect(
    styleOf(
      sessionOf({
        styles:
          paragraphStyle('A', 'fo:font-family="Jost" style:font-style-name="Medium"') +
          paragraphStyle('B', 'fo:font-family="Inter"', '', parent('A')),
        body: '<text:p text:style-name="B">x</text:p>',
      }),
    ).style.effective.slots.western.font.styleName,
  ).toBe('')
})
for (const [value, inPoints] of [
  ['1in', 72],
  ['2.54cm', 72],
  ['25.4mm', 72],
  ['6pc', 72],
  ['96px', 72],
] as const)
  put(`a size of ${value}`, '18.3.18 (length)', () => {
    expect(points(value)).toBeCloseTo(inPoints, 6)
    expect(
      sizeAt(
        sessionOf({
          styles: paragraphStyle('A', `fo:font-size="${value}"`),
          body: '<text:p text:style-name="A">x</text:p>',
        }),
      ),
    ).toBeCloseTo(inPoints, 6)
  })

describe('the cascade, case by case', () => {
  it('has at least 250 cases, and each cites its place', () => {
    expect(cases.length).toBeGreaterThanOrEqual(250)
    expect(new Set(cases.map(each => each.name)).size).toBe(cases.length)
    expect(cases.every(each => /\d/.test(each.cites))).toBe(true)
  })
  for (const each of cases)
    it(`${each.name} [${each.cites}]`, () => {
      each.run()
    })
})
