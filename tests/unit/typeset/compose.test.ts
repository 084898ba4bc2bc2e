import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { breaksOf } from '../../../core/typeset/breaks'
import type { Composition } from '../../../core/typeset/compose'
import { displayPage } from '../../../core/typeset/display'
import { hyphenPoints, prepareHyphenation } from '../../../core/typeset/hyphenate'
import { formatNumber } from '../../../core/typeset/numbering'
import { visualOrder } from '../../../core/typeset/bidi'
import { escapeXml } from '../../../core/package/new-package'
import {
  face,
  paragraphStyle,
  sessionOf,
  smallPage,
  standardMaster,
  textStyle,
  type Fixture,
} from '../../support/fixtures'

const spectral = face('Spectral')
const base =
  `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
  `fo:font-size="12pt" fo:language="en" fo:country="GB"/></style:default-style>`
const compose = (fixture: Fixture): Composition =>
  sessionOf({ stylesFaces: spectral, faces: spectral, styles: base, ...fixture }).composition
/** The lines of the pages as text, page by page. */
const lines = (composition: Composition): string[][] =>
  composition.pages.map(each => {
    const page = displayPage(each)
    return page.lines.map(line =>
      line.runs
        .filter(run => page.runs[run]!.own)
        .map(run => page.runs[run]!.text)
        .join(''),
    )
  })
const paragraphs = (...texts: string[]) => texts.map(text => `<text:p text:style-name="B">${text}</text:p>`).join('')
const words = (count: number) =>
  Array.from({ length: count }, (_, at) => ['sea', 'harbour', 'light', 'morning', 'a'][at % 5]).join(' ')
const body = (paragraph = '', text = '') => paragraphStyle('B', text, paragraph)
// The text column of the small page: 8 cm.
const column = (8 / 2.54) * 72

describe('lines', () => {
  it('fit their column and keep every character in order', () => {
    const text = words(60)
    const [page] = lines(compose({ automatic: body(), body: paragraphs(text) }))
    expect(page!.length).toBeGreaterThan(3)
    expect(page!.join(' ').replace(/\s+/g, ' ')).toBe(text)
  })

  it('lose nothing and never hang, whatever the text: a property', () => {
    const sign = fc.constantFrom(
      'a',
      'é',
      'W',
      ' ',
      '  ',
      '-',
      '日',
      '本',
      'א',
      'ش',
      'क्ष',
      '\u00A0',
      '\u00AD',
      '😀',
      '.',
      '(',
      'mmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmm',
    )
    fc.assert(
      fc.property(
        fc.array(sign, { maxLength: 80 }).map(signs => signs.join('')),
        fc.constantFrom('start', 'justify', 'center', 'end'),
        fc.constantFrom('6pt', '12pt', '40pt'),
        (text, align, size) => {
          const composition = compose({
            automatic: body(`fo:text-align="${align}"`, `fo:font-size="${size}" fo:hyphenate="true"`),
            body: paragraphs(escapeXml(text)),
          })
          const covered: number[] = []
          for (const page of composition.pages)
            for (const fragment of page.fragments)
              if (fragment.kind === 'lines')
                for (let at = fragment.from; at < fragment.to; at++) {
                  const line = fragment.layout.lines[at]!
                  for (let index = line.start; index < line.end; index++) covered.push(index)
                }
          const collapsed = text.replace(/[ \t\n]+/g, ' ').replace(/^ | $/g, '')
          expect(covered).toEqual(Array.from({ length: collapsed.length }, (_, index) => index))
        },
      ),
      { numRuns: 60 },
    )
  })

  it('justify to the full measure but for the last', () => {
    const composition = compose({ automatic: body('fo:text-align="justify"'), body: paragraphs(words(40)) })
    const page = displayPage(composition.pages[0]!)
    expect(page.lines.slice(0, -1).every(line => Math.abs(line.width - column) < 0.5)).toBe(true)
    expect(page.lines.at(-1)!.width).toBeLessThan(column - 1)
  })

  it('align, indent, and take leading as points, percent and at least', () => {
    const composition = compose({
      automatic:
        paragraphStyle('R', '', 'fo:text-align="end"') +
        paragraphStyle('C', '', 'fo:text-align="center" fo:line-height="30pt"') +
        paragraphStyle('I', '', 'fo:margin-left="2cm" fo:text-indent="1cm" style:line-height-at-least="50pt"') +
        paragraphStyle('P', '', 'fo:line-height="200%"'),
      body: ['R', 'C', 'I', 'P'].map(name => `<text:p text:style-name="${name}">sea</text:p>`).join(''),
    })
    const page = displayPage(composition.pages[0]!)
    const [right, center, indented, double] = page.lines as [
      (typeof page.lines)[0],
      (typeof page.lines)[0],
      (typeof page.lines)[0],
      (typeof page.lines)[0],
    ]
    const left = 72 / 2.54
    expect(right.x + right.width).toBeCloseTo(left + column, 1)
    expect(center.x - left).toBeCloseTo((column - center.width) / 2, 1)
    expect(indented.x - left).toBeCloseTo((3 * 72) / 2.54, 1)
    expect([center.height, indented.height]).toEqual([30, 50])
    expect(double.height / right.height).toBeCloseTo(2, 2)
  })

  it('stop at tabs: left, right with leaders, and the default distance', () => {
    const tabs =
      '<style:style style:name="B" style:family="paragraph"><style:paragraph-properties style:tab-stop-distance="1cm">' +
      '<style:tab-stops><style:tab-stop style:position="3cm"/><style:tab-stop style:position="6cm" ' +
      'style:type="right" style:leader-style="dotted" style:leader-text="."/>' +
      '</style:tab-stops></style:paragraph-properties></style:style>'
    const composition = compose({ automatic: tabs, body: paragraphs('a<text:tab/>b<text:tab/>cc<text:tab/>d') })
    const runs = displayPage(composition.pages[0]!).runs
    const left = 72 / 2.54
    const find = (text: string) => runs.find(run => run.text === text)!
    expect(find('b').x - left).toBeCloseTo(3 * left, 1)
    expect(find('cc').x + find('cc').width - left).toBeCloseTo(6 * left, 1)
    expect(find('d').x - left).toBeCloseTo(7 * left, 1)
    expect(runs.filter(run => !run.own && run.glyphs.length > 0).length > 5).toBe(true)
  })

  it('divide words where the style asks, and only then', async () => {
    await prepareHyphenation(['de-DE', 'xx'])
    const long = 'extraordinarily international considerations notwithstanding'
    const divided = displayPage(
      compose({ automatic: body('', 'fo:hyphenate="true" fo:font-size="20pt"'), body: paragraphs(long) }).pages[0]!,
    )
    const whole = displayPage(compose({ automatic: body('', 'fo:font-size="20pt"'), body: paragraphs(long) }).pages[0]!)
    const made = (page: typeof divided) => page.runs.filter(run => !run.own).length
    expect(made(divided)).toBeGreaterThan(0)
    expect(made(whole)).toBe(0)
    expect(hyphenPoints('considerations', 'en-GB').length).toBeGreaterThan(1)
    expect(hyphenPoints('considerations', 'xx')).toEqual([])
    expect(hyphenPoints('Versicherung', 'de-DE')).toContain(3)
  })

  it('break after spaces and hyphens, not inside words: plain text as UAX #14 says', () => {
    const positions = (text: string) => [...breaksOf(text)].flatMap((may, at) => (may > 0 ? [at] : []))
    expect(positions('one two  three')).toEqual([4, 9, 14])
    expect(positions('well-known fact')).toEqual([5, 11, 15])
    expect(positions('日本語')).toEqual([1, 2, 3])
    expect([...breaksOf('a\nb')]).toEqual([0, 0, 2, 1])
  })

  it('order right-to-left runs as they are read', () => {
    expect(
      visualOrder([
        { level: 0, id: 'a' },
        { level: 1, id: 'b' },
        { level: 1, id: 'c' },
        { level: 2, id: '1' },
        { level: 0, id: 'd' },
      ])
        .map(each => each.id)
        .join(''),
    ).toBe('a1cbd')
    const page = displayPage(compose({ automatic: body(), body: paragraphs('one שלום two') }).pages[0]!)
    const hebrew = page.runs.find(run => run.text.includes('ש'))!
    expect(hebrew.rightToLeft).toBe(true)
    expect(hebrew.x).toBeGreaterThan(page.runs.find(run => run.text.includes('one'))!.x)
  })

  it('take missing glyphs from a face that has them', () => {
    const page = displayPage(compose({ automatic: body(), body: paragraphs('sea 日本 ☃') }).pages[0]!)
    expect(page.runs.every(run => run.glyphs.every(glyph => glyph !== 0))).toBe(true)
    expect(new Set(page.runs.map(run => run.face)).size).toBeGreaterThan(1)
  })
})

describe('pages', () => {
  it('turn when they are full, number themselves and repeat headers', () => {
    const masters = standardMaster(
      '<style:header><text:p>head</text:p></style:header><style:footer>' +
        '<text:p>page <text:page-number>9</text:page-number> of <text:page-count>9</text:page-count>' +
        '</text:p></style:footer>',
    )
    const composition = compose({ automatic: body(), masters, body: paragraphs(words(50), words(50), words(50)) })
    expect(composition.pages.length).toBeGreaterThan(1)
    const texts = lines(composition).map(page => page.join('|'))
    texts.forEach((text, at) => {
      expect(text).toContain('head')
      expect(text).toContain(`page ${at + 1} of ${composition.pages.length}`)
    })
  })

  it('break where a style asks, and change master pages', () => {
    const composition = compose({
      automatic:
        paragraphStyle('New', '', 'fo:break-before="page"') +
        paragraphStyle('Wide', '', '', ' style:master-page-name="Wide"'),
      stylesAutomatic:
        `${smallPage}<style:page-layout style:name="pw"><style:page-layout-properties ` +
        `fo:page-width="20cm" fo:page-height="10cm" fo:margin="1cm"/></style:page-layout>`,
      masters: `${standardMaster()}<style:master-page style:name="Wide" style:page-layout-name="pw"/>`,
      body: '<text:p>a</text:p><text:p text:style-name="New">b</text:p><text:p text:style-name="Wide">c</text:p>',
    })
    expect(lines(composition)).toEqual([['a'], ['b'], ['c']])
    expect(composition.pages.map(page => Math.round((page.geometry.width / 72) * 2.54))).toEqual([10, 10, 20])
  })

  it('keep a heading with what follows it', () => {
    const filler = paragraphs(words(75))
    const keep = (value: string) =>
      lines(
        compose({
          automatic: body() + paragraphStyle('H', '', `fo:keep-with-next="${value}"`),
          body: `${filler}<text:h text:style-name="H">Heading</text:h>${paragraphs('after '.repeat(30))}`,
        }),
      )
    const pageOf = (pages: string[][], text: string) => pages.findIndex(page => page.some(line => line.includes(text)))
    const loose = keep('auto')
    const kept = keep('always')
    expect(pageOf(kept, 'Heading')).toBe(pageOf(kept, 'after'))
    expect(pageOf(loose, 'Heading')).toBeLessThanOrEqual(pageOf(loose, 'after'))
  })

  it('show frames on the page they are anchored to; on page 0 there are none, and it is said', () => {
    const frame = (name: string, page: string) =>
      `<draw:frame draw:name="${name}" text:anchor-type="page"${page} svg:x="1cm" svg:y="1cm" svg:width="1cm" ` +
      'svg:height="1cm"><draw:image xlink:href="Pictures/a.png"/></draw:frame>'
    const anchored = compose({
      body:
        frame('Nowhere', ' text:anchor-page-number="0"') +
        frame('Second', ' text:anchor-page-number="2"') +
        frame('First', '') +
        paragraphs(words(400)),
    })
    const shown = anchored.pages.map(page =>
      page.fragments.flatMap(fragment => (fragment.kind === 'image' ? [fragment.name] : [])),
    )
    expect(shown.slice(0, 3)).toEqual([['First'], ['Second'], []])
    expect(anchored.unlaid).toEqual([
      { feature: 'frames anchored to page 0, which there is not (they are not shown)', count: 1 },
    ])
  })

  it('set tables with repeated headings, and frames with what runs over', () => {
    const row = (text: string) =>
      `<table:table-row><table:table-cell><text:p>${text}</text:p></table:table-cell>` +
      `<table:table-cell><text:p>${text}2</text:p></table:table-cell></table:table-row>`
    const table = compose({
      body:
        `<table:table><table:table-column table:number-columns-repeated="2"/>` +
        (`<table:table-header-rows>${row('Top')}</table:table-header-rows>` +
          `${Array.from({ length: 30 }, (_, at) => row(`r${at}`)).join('')}</table:table>`),
    })
    expect(table.pages.length).toBeGreaterThan(1)
    expect(lines(table).every(page => page.includes('Top'))).toBe(true)
    const frame = (height: string, box: string) =>
      compose({
        body:
          `<text:p><draw:frame draw:name="Box" text:anchor-type="paragraph" svg:width="3cm" ${height}>` +
          `<draw:text-box ${box}><text:p>${words(30)}</text:p></draw:text-box></draw:frame>x</text:p>`,
      })
    const over = frame('svg:height="2cm"', '')
    expect(over.overset).toMatchObject([{ name: 'Box', page: 0 }])
    expect(over.overset[0]!.lines).toBeGreaterThan(2)
    expect(frame('', 'fo:min-height="2cm"').overset).toEqual([])
  })

  it('label lists and headings', () => {
    const style =
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="1" ' +
      'style:num-suffix="."><style:list-level-properties text:space-before="0.5cm" text:min-label-width="0.5cm"/>' +
      '</text:list-level-style-number><text:list-level-style-number text:level="2" style:num-format="a" ' +
      'style:num-prefix="(" style:num-suffix=")" text:display-levels="2">' +
      '<style:list-level-properties text:space-before="1cm" text:min-label-width="0.5cm"/>' +
      '</text:list-level-style-number></text:list-style>'
    const composition = compose({
      styles: base + style,
      body:
        '<text:list text:style-name="L"><text:list-item><text:p>a</text:p>' +
        '<text:list><text:list-item><text:p>b</text:p></text:list-item>' +
        '<text:list-item><text:p>c</text:p></text:list-item></text:list>' +
        '</text:list-item><text:list-item><text:p>d</text:p><text:p>e</text:p>' +
        '</text:list-item></text:list>',
    })
    const labels = composition.pages[0]!.fragments.flatMap(fragment =>
      fragment.kind === 'lines' ? [fragment.layout.label?.text ?? '–'] : [],
    )
    expect(labels).toEqual(['1.', '(1.a)', '(1.b)', '2.', '–'])
    expect([
      formatNumber(28, 'a'),
      formatNumber(1994, 'I'),
      formatNumber(4, 'i'),
      formatNumber(7, '1'),
      formatNumber(7, ''),
    ]).toEqual(['ab', 'MCMXCIV', 'iv', '7', ''])
  })

  it('say what they do not lay out', () => {
    const composition = compose({
      body: '<text:p>a<draw:control svg:width="1cm" svg:height="1cm" text:anchor-type="paragraph"/></text:p>',
      automatic: textStyle('T', 'fo:color="#000000"'),
    })
    expect(composition.unlaid).toEqual([{ feature: 'form controls (not drawn)', count: 1 }])
  })
})
