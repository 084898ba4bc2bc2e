import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { displayPage } from '../../../core/typeset/display'
import type { Composition } from '../../../core/typeset/compose'
import { face, paragraphStyle, sessionOf, standardMaster, type Fixture } from '../../support/fixtures'
import { processorTime } from '../../support/processor-time'

/*
 * Files that nobody would write, and some do: pages smaller than their margins, columns without width, frames beyond
 * the paper, rows higher than a page, words without end. Pages come out of them in finite time, and the text is on them.
 */

const compose = (fixture: Fixture): Composition =>
  sessionOf({
    faces: face('Spectral'),
    stylesFaces: face('Spectral'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
      'fo:font-size="12pt"/></style:default-style>',
    ...fixture,
  }).composition
const shown = (composition: Composition) =>
  composition.pages
    .flatMap(page => {
      const drawn = displayPage(page)
      return drawn.runs.filter(run => run.own).map(run => run.text)
    })
    .join(' ')
const layout = (properties: string, inside = '') =>
  `<style:page-layout style:name="pm"><style:page-layout-properties ${properties}>${inside}</style:page-layout-properties>` +
  `</style:page-layout>`
const words = (count: number) => Array.from({ length: count }, (_, at) => `w${at}`)
const p = (text: string, style = '') => `<text:p${style && ` text:style-name="${style}"`}>${text}</text:p>`
const length = fc.constantFrom('0cm', '0.1cm', '1cm', '3cm', '9cm', '40cm', '-2cm', 'nonsense', '1e9cm')

describe('pages', () => {
  it('of any size and margins hold the text, in order: a property', () => {
    fc.assert(
      fc.property(
        length,
        length,
        length,
        fc.integer({ min: 0, max: 9 }),
        fc.constantFrom('0cm', '0.5cm', '30cm'),
        (width, height, margin, count, gap) => {
          const columns = count > 0 ? `<style:columns fo:column-count="${count}" fo:column-gap="${gap}"/>` : ''
          const composition = compose({
            stylesAutomatic: layout(
              `fo:page-width="${width}" fo:page-height="${height}" fo:margin="${margin}"`,
              columns,
            ),
            body: words(40)
              .map(word => p(word))
              .join(''),
          })
          // Where there is no room, words are cut between their letters, and every letter has a line.
          expect(shown(composition).replace(/\s/g, '')).toBe(words(40).join(''))
          expect(composition.pages.length).toBeLessThanOrEqual(words(40).join('').length)
        },
      ),
      { numRuns: 60 },
    )
  })

  it('with headers higher than the paper go on', () => {
    const composition = compose({
      stylesAutomatic: layout('fo:page-width="10cm" fo:page-height="5cm" fo:margin="1cm"'),
      masters: standardMaster(`<style:header>${p('head').repeat(40)}</style:header>`),
      body: words(10)
        .map(word => p(word))
        .join(''),
    })
    expect(shown(composition)).toContain('w9')
  })

  it('whose masters follow one another in a ring, or name nothing, go on', () => {
    const masters =
      '<style:master-page style:name="Standard" style:page-layout-name="pm" style:next-style-name="Other"/>' +
      '<style:master-page style:name="Other" style:page-layout-name="none" style:next-style-name="Nowhere"/>'
    const composition = compose({
      stylesAutomatic: layout('fo:page-width="10cm" fo:page-height="4cm" fo:margin="1cm"'),
      masters,
      body: words(30)
        .map(word => p(word))
        .join(''),
    })
    expect(shown(composition).split(' ').filter(Boolean)).toEqual(words(30))
  })

  it('that are for the left alone, and all asked to be right ones, end', () => {
    const one =
      '<style:page-layout style:name="pm" style:page-usage="left"><style:page-layout-properties ' +
      'fo:page-width="10cm" fo:page-height="4cm" fo:margin="1cm"/></style:page-layout>'
    const composition = compose({
      stylesAutomatic: one,
      automatic: paragraphStyle('R', '', 'style:page-number="1"', ' style:master-page-name="Standard"'),
      body: p('a', 'R') + p('b', 'R') + p('c'),
    })
    expect(shown(composition)).toBe('a b c')
  })
})

describe('frames', () => {
  const frame = (graphic: string, attributes: string, inside = p('box')) => ({
    automatic: `<style:style style:name="fr" style:family="graphic"><style:graphic-properties ${graphic}/></style:style>`,
    stylesAutomatic: layout('fo:page-width="10cm" fo:page-height="10cm" fo:margin="1cm"'),
    body:
      p(
        `<draw:frame draw:style-name="fr" draw:name="F" ${attributes}><draw:text-box>${inside}</draw:text-box>` +
          `</draw:frame>${words(60).join(' ')}`,
      ) + p('after'),
  })
  const wrap = fc.constantFrom('none', 'left', 'right', 'parallel', 'dynamic', 'run-through', 'biggest')
  const rel = fc.constantFrom('page', 'page-content', 'paragraph', 'char', 'line', 'frame', 'nonsense')

  it('anywhere, of any size, with any wrap, leave the text whole: a property', () => {
    fc.assert(
      fc.property(
        wrap,
        rel,
        rel,
        length,
        length,
        length,
        length,
        fc.constantFrom('paragraph', 'char', 'as-char', 'page', 'frame'),
        (how, across, down, x, y, width, height, anchor) => {
          const composition = compose(
            frame(
              `style:wrap="${how}" style:horizontal-rel="${across}" style:vertical-rel="${down}" ` +
                `style:horizontal-pos="from-left" style:vertical-pos="from-top"`,
              `text:anchor-type="${anchor}" svg:x="${x}" svg:y="${y}" svg:width="${width}" svg:height="${height}"`,
            ),
          )
          const text = shown(composition)
          for (const word of ['w0', 'w30', 'w59', 'after']) expect(text).toContain(word)
          expect(composition.pages.length).toBeLessThan(80)
        },
      ),
      { numRuns: 80 },
    )
  })

  it('inside one another without end are cut off, and said to be', () => {
    const nest = (depth: number): string =>
      depth === 0
        ? 'deep'
        : `<draw:frame text:anchor-type="as-char" svg:width="5cm"><draw:text-box ` +
          `fo:min-height="0.1cm">${p(nest(depth - 1))}</draw:text-box>` +
          `</draw:frame>`
    const composition = compose({ body: p(nest(40)) + p('after') })
    expect(composition.unlaid.some(each => each.feature.includes('nested very deeply'))).toBe(true)
    expect(shown(composition)).toContain('after')
  })

  it('chained in a ring are set as if they stood alone', () => {
    const ring = (name: string, next: string) =>
      p(
        `<draw:frame draw:name="${name}" text:anchor-type="paragraph" svg:width="3cm" ` +
          `svg:height="1cm"><draw:text-box draw:chain-next-name="${next}">${p(`in ${name}`)}</draw:text-box>` +
          `</draw:frame>after ${name}`,
      )
    const text = shown(compose({ body: ring('A', 'B') + ring('B', 'A') }))
    for (const words of ['in A', 'in B', 'after A', 'after B']) expect(text).toContain(words)
  })
})

describe('tables', () => {
  it('with any spans and widths hold their text: a property', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 5 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 9 }),
        fc.integer({ min: 1, max: 9 }),
        length,
        (columns, rows, columnSpan, rowSpan, width) => {
          const cells = Array.from(
            { length: rows },
            (_, row) =>
              `<table:table-row>${Array.from(
                { length: columns },
                (_, column) =>
                  `<table:table-cell${
                    row === 0 && column === 0
                      ? ` table:number-columns-spanned="${columnSpan}" table:number-rows-spanned="${rowSpan}"`
                      : ''
                  }>` + `${p(`c${row}x${column}`)}</table:table-cell>`,
              ).join('')}</table:table-row>`,
          ).join('')
          const composition = compose({
            automatic:
              `<style:style style:name="C" style:family="table-column"><style:table-column-properties ` +
              `style:column-width="${width}"/></style:style>`,
            body:
              `<table:table><table:table-column table:style-name="C" table:number-columns-repeated="` +
              `${columns}"/>${cells}</table:table>${p('after')}`,
          })
          const text = shown(composition).replace(/\s/g, '')
          for (let row = 0; row < rows; row++)
            for (let column = 0; column < columns; column++) expect(text).toContain(`c${row}x${column}`.slice(0, 4))
          expect(text).toContain('after')
        },
      ),
      { numRuns: 60 },
    )
  })

  it('with a head higher than the page do not repeat it for ever', () => {
    const row = (text: string) => `<table:table-row><table:table-cell>${text}</table:table-cell></table:table-row>`
    const composition = compose({
      stylesAutomatic: layout('fo:page-width="10cm" fo:page-height="6cm" fo:margin="1cm"'),
      body: `<table:table><table:table-column/><table:table-header-rows>${row(p('head').repeat(20))}</table:table-header-rows>${words(
        20,
      )
        .map(word => row(p(word)))
        .join('')}</table:table>`,
    })
    expect(shown(composition)).toContain('w19')
    expect(composition.pages.length).toBeLessThan(60)
  })
})

describe('sections', () => {
  it('of many columns, one in another, end: a property', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 2, max: 12 }),
        fc.integer({ min: 2, max: 5 }),
        fc.integer({ min: 1, max: 40 }),
        fc.boolean(),
        (outer, inner, count, balanced) => {
          const style = (name: string, columns: number) =>
            `<style:style style:name="${name}" style:family="section"><style:section-properties ` +
            `text:dont-balance-text-columns="${!balanced}"><style:columns fo:column-count="${columns}" ` +
            `fo:column-gap="0.2cm"/></style:section-properties></style:style>`
          const composition = compose({
            automatic: style('A', outer) + style('B', inner),
            body: `<text:section text:style-name="A" text:name="a">${p('first')}<text:section text:style-name="B" text:name="b">${words(
              count,
            )
              .map(word => p(word))
              .join('')}</text:section>${p('last')}</text:section>${p('after')}`,
          })
          const text = shown(composition).replace(/\s/g, '')
          for (const word of ['first', `w${count - 1}`, 'last', 'after']) expect(text).toContain(word)
          expect(composition.pages.length).toBeLessThan(60)
        },
      ),
      { numRuns: 30 },
    )
  })

  const nested = (depth: number, inside: string): string =>
    depth === 0
      ? inside
      : `<text:section text:style-name="Two" text:name="s${depth}">${nested(depth - 1, inside)}</text:section>`
  const two =
    '<style:style style:name="Two" style:family="section"><style:section-properties>' +
    '<style:columns fo:column-count="2" fo:column-gap="0cm"/></style:section-properties></style:style>'

  it(
    'balanced in one another are set in a time that grows with their depth, not to its power',
    { timeout: 20_000 },
    () => {
      const lines = words(16)
      for (const depth of [1, 2, 14]) {
        const composition = compose({
          automatic: two,
          body: nested(depth, lines.map(word => p(word)).join('')) + p('after'),
        })
        const text = shown(composition).replace(/\s/g, '')
        expect(text).toContain('w15')
        expect(text.indexOf('after')).toBeGreaterThan(text.indexOf('w0'))
        // Columns of no width hold a word a line; those of the first two depths hold all on one page.
        expect(composition.pages.length).toBeLessThanOrEqual(depth < 3 ? 1 : 3)
      }
    },
  )

  it('balanced in one another have columns of the same height, as one section of four has', () => {
    const four =
      '<style:style style:name="Four" style:family="section"><style:section-properties>' +
      '<style:columns fo:column-count="4" fo:column-gap="0cm"/></style:section-properties></style:style>'
    const inside = words(40)
      .map(word => p(word))
      .join('')
    const heightOf = (fixture: Fixture) => {
      const [page] = compose(fixture).pages
      return displayPage(page!).runs.find(run => run.text === 'after')!.y
    }
    const inner = heightOf({ automatic: two, body: nested(2, inside) + p('after') })
    const flat = heightOf({
      automatic: four,
      body: `<text:section text:style-name="Four" text:name="f">${inside}</text:section>${p('after')}`,
    })
    expect(Math.abs(inner - flat)).toBeLessThan(2)
  })
})

describe('text', () => {
  it('of one word as long as a book is set in a time that grows with its length', { timeout: 25_000 }, () => {
    for (const paragraph of ['', 'fo:text-align="justify"']) {
      const composition = compose({
        automatic: paragraphStyle('P', 'fo:hyphenate="true" fo:language="en" fo:country="GB"', paragraph),
        body: p('typography'.repeat(15_000), 'P'),
      })
      const text = shown(composition).replace(/[\s‐-]/g, '')
      expect(text).toHaveLength(150_000)
      expect(text.startsWith('typographytypo') && text.endsWith('graphy')).toBe(true)
    }
  })

  it('without a place to break, or at sizes that nobody sees, is set in moments', () => {
    const taken = processorTime()
    for (const [text, size] of [
      ['m'.repeat(40_000), '12pt'],
      ['word '.repeat(8000), '1pt'],
      ['a', '999pt'],
      ['\u0301'.repeat(3000), '12pt'],
      ['日'.repeat(20_000), '10pt'],
    ] as const) {
      const composition = compose({
        automatic: paragraphStyle(
          'P',
          `fo:font-size="${size}" style:font-size-asian="${size}"`,
          'fo:text-align="justify"',
        ),
        body: p(text, 'P'),
      })
      expect(composition.pages.length).toBeGreaterThan(0)
    }
    expect(taken()).toBeLessThan(30_000)
  })

  it('with indents beyond the measure still has a line for every word', () => {
    for (const indent of [
      'fo:margin-left="40cm"',
      'fo:text-indent="-30cm"',
      'fo:margin-left="-5cm" fo:margin-right="-5cm"',
      'fo:padding="12cm" fo:border="9cm solid #000000"',
      'fo:line-height="0pt"',
      'fo:line-height="-5pt"',
      'fo:margin-top="90cm"',
      'fo:orphans="99" fo:widows="99"',
    ]) {
      const composition = compose({
        automatic: paragraphStyle('I', '', indent),
        body: p(words(12).join(' '), 'I') + p('after'),
      })
      expect(shown(composition).replace(/\s/g, '')).toBe(`${words(12).join('')}after`)
    }
  })

  it('with notes that hold notes and frames, everywhere, is all there', () => {
    const note = (inside: string) =>
      `<text:note text:note-class="footnote"><text:note-citation>*</text:note-citation>` +
      `<text:note-body>${p(inside)}</text:note-body></text:note>`
    const composition = compose({
      body:
        p(`a${note(`b${note('c')}`)} d`) +
        (`<table:table><table:table-column/><table:table-row><table:table-cell>${p(`e${note('f')}`)}</table:table-cell>` +
          `</table:table-row></table:table>`),
    })
    const text = shown(composition).replace(/\s/g, '')
    for (const word of ['a', 'b', 'd', 'e', 'f']) expect(text).toContain(word)
  })
})

describe('words whose letters have a span each', () => {
  const alike = (count: number) => ({
    automatic: Array.from(
      { length: 7 },
      (_, at) =>
        `<style:style style:name="T${at}" style:family="text"><style:text-properties fo:font-size="12pt"/></style:style>`,
    ).join(''),
    body: `<text:p>${Array.from(
      { length: count },
      (_, at) => `<text:span text:style-name="T${at % 7}">${'office'[at % 6]}</text:span>`,
    ).join('')}</text:p>`,
  })

  it('lose none where lines part them anywhere, in the midst of letters that are joined, too', () => {
    const whole = 'office'.repeat(20)
    for (const width of ['1.1cm', '1.5cm', '2.2cm', '3.7cm']) {
      const composition = compose({
        stylesAutomatic: layout(`fo:page-width="${width}" fo:page-height="90cm" fo:margin="0cm"`),
        ...alike(whole.length),
      })
      expect([width, shown(composition).replace(/\s/g, '')]).toEqual([width, whole])
    }
  })

  it('take a time that grows with them', () => {
    const took = (count: number) => {
      const began = processorTime()
      const composition = compose(alike(count))
      expect(shown(composition).replace(/\s/g, '')).toHaveLength(count)
      return began()
    }
    took(2_400)
    const one = Math.max(took(2_400), 50)
    // Four times as many; what grew with their square took sixteen times as long.
    expect(took(9_600)).toBeLessThan(one * 10)
  })
})
