import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { formatNumber, readLevel } from '../../../core/typeset/numbering'
import { readGeometries, readNotesStyle } from '../../../core/typeset/geometry'
import { readSetting } from '../../../core/document/settings'
import { noRules, readRules } from '../../../core/document/rules'
import type { Composition } from '../../../core/typeset/compose'
import {
  face,
  openOdt,
  paragraphStyle,
  sessionOf,
  settingsPart,
  smallPage,
  standardMaster,
  textStyle,
  type Fixture,
} from '../../support/fixtures'

const centimetre = 72 / 2.54
const base =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
  'fo:font-size="12pt"/></style:default-style>'
const compose = (fixture: Fixture): Composition =>
  sessionOf({ faces: face('Spectral'), stylesFaces: face('Spectral'), styles: base, ...fixture }).composition
const pagesOf = (fixture: Fixture): DisplayPage[] => compose(fixture).pages.map(displayPage)
const texts = (page: DisplayPage) => page.lines.map(line => line.runs.map(run => page.runs[run]!.text).join(''))
const all = (fixture: Fixture) => pagesOf(fixture).map(texts)
const p = (text: string, style = '') => `<text:p${style && ` text:style-name="${style}"`}>${text}</text:p>`
const many = (count: number, style = '') => Array.from({ length: count }, (_, at) => p(`line ${at}`, style)).join('')
/** Lines of 12 pt Spectral that a page of 8 cm holds. */
const perPage = all({ body: many(40) })[0]!.length

describe('breaks', () => {
  it('before and after paragraphs, and not twice at the top of a page', () => {
    const automatic =
      paragraphStyle('Before', '', 'fo:break-before="page"') + paragraphStyle('After', '', 'fo:break-after="page"')
    expect(all({ automatic, body: p('a') + p('b', 'Before') + p('c') })).toEqual([['a'], ['b', 'c']])
    expect(all({ automatic, body: p('a', 'After') + p('b') })).toEqual([['a'], ['b']])
    expect(all({ automatic, body: p('a', 'After') + p('b', 'Before') })).toEqual([['a'], ['b']])
    expect(all({ automatic, body: p('a', 'Before') })).toEqual([['a']])
    expect(all({ automatic, body: p('a') + p('b', 'After') })).toEqual([['a', 'b']])
  })

  it('to the next column', () => {
    const layout =
      '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ' +
      'fo:page-height="10cm" fo:margin="1cm"><style:columns fo:column-count="2" fo:column-gap="1cm"/>' +
      '</style:page-layout-properties></style:page-layout>'
    const [page] = pagesOf({
      stylesAutomatic: layout,
      automatic: paragraphStyle('C', '', 'fo:break-before="column"'),
      body: p('a') + p('b', 'C'),
    })
    expect(page!.lines[1]!.x - page!.lines[0]!.x).toBeCloseTo(4.5 * centimetre, 0)
    expect(page!.lines[1]!.y).toBeCloseTo(page!.lines[0]!.y, 1)
  })

  it('set page numbers anew, and go on from there', () => {
    const pages = pagesOf({
      automatic: paragraphStyle('Seven', '', 'style:page-number="7"', ' style:master-page-name="Standard"'),
      masters: standardMaster('<style:footer><text:p><text:page-number>1</text:page-number></text:p></style:footer>'),
      body: p('a') + p('b', 'Seven') + many(perPage + 3),
    })
    expect(pages.map(page => page.number)).toEqual(['1', '7', '8'])
    expect(texts(pages[1]!)).toContain('7')
  })

  it('number pages in the format of their layout, and count to other pages', () => {
    const layout = smallPage.replace('style:num-format="1"', 'style:num-format="i"')
    const pages = pagesOf({
      stylesAutomatic: layout,
      masters: standardMaster(
        '<style:footer><text:p><text:page-number>1</text:page-number>/<text:page-number text:select-page="next">1</text:page-number>/' +
          '<text:page-number ' +
          'text:page-adjust="-1">1</text:page-number></text:p></style:footer>',
      ),
      body: many(perPage + 2),
    })
    expect(texts(pages[1]!)).toContain('ii/iii/i')
  })
})

describe('keeping together', () => {
  it('widows and orphans: as many lines on either side as the style asks', () => {
    const long =
      'sea harbour light morning a sea harbour light morning a sea harbour light morning a sea harbour light morning'
    const split = (orphans: number, widows: number, before: number) => {
      const pages = all({
        automatic: paragraphStyle('W', '', `fo:orphans="${orphans}" fo:widows="${widows}"`),
        body: many(before) + p(long, 'W'),
      })
      const of = (at: number) => pages[at]?.filter(line => !line.startsWith('line')).length ?? 0
      return [of(0), of(1)]
    }
    const whole = split(1, 1, 0)[0]!
    expect(whole).toBeGreaterThanOrEqual(3)
    expect(split(1, 1, perPage - 1)).toEqual([1, whole - 1])
    expect(split(2, 1, perPage - 1)).toEqual([0, whole])
    expect(split(1, 2, perPage - whole + 1)).toEqual([whole - 2, 2])
  })

  it('a paragraph whole, and a heading with what follows', () => {
    const long = 'sea harbour light morning a sea harbour light morning a sea harbour light morning'
    const automatic =
      paragraphStyle('T', '', 'fo:keep-together="always"') + paragraphStyle('K', '', 'fo:keep-with-next="always"')
    expect(all({ automatic, body: many(perPage - 1) + p(long, 'T') })[0]!.every(line => line.startsWith('line'))).toBe(
      true,
    )
    const kept = all({ automatic, body: many(perPage - 2) + p('head', 'K') + p('under it', 'K') + p('text') })
    expect(kept[1]!.slice(0, 3)).toEqual(['head', 'under it', 'text'])
    // What opens a section or an index does not hold what stands before it.
    const section = (inside: string) => `<text:section text:name="S">${inside}</text:section>`
    const apart = all({ automatic, body: many(perPage - 1) + p('head', 'K') + section(p('text') + p('more')) })
    expect([apart[0]!.at(-1), apart[1]![0]]).toEqual(['head', 'text'])
    const inside = all({ automatic, body: many(perPage - 1) + section(p('head', 'K') + p('text')) })
    expect(inside[1]).toEqual(['head', 'text'])
    // A chain longer than a page is no reason to leave one empty.
    expect(all({ automatic, body: many(perPage * 3, 'K') }).map(page => page.length)).toEqual([
      perPage,
      perPage,
      perPage,
    ])
  })

  it('space above is kept where a page was asked for, and left out where it turned by itself', () => {
    const automatic =
      paragraphStyle('S', '', 'fo:margin-top="1cm"') +
      paragraphStyle('B', '', 'fo:margin-top="1cm" fo:break-before="page"')
    const top = (body: string) => pagesOf({ automatic, body })[1]!.lines[0]!.y
    expect(top(p('a') + p('b', 'B'))).toBeCloseTo(2 * centimetre, 0)
    expect(top(many(perPage) + p('b', 'S'))).toBeCloseTo(centimetre, 0)
  })

  it('space between two paragraphs is the larger of both, or both where the document adds them', () => {
    const body = p('a', 'U') + p('b', 'D')
    const automatic =
      paragraphStyle('U', '', 'fo:margin-bottom="10pt"') + paragraphStyle('D', '', 'fo:margin-top="6pt"')
    const gap = (adds: boolean) => {
      const [page] = pagesOf({ automatic, body, parts: [settingsPart({ AddParaTableSpacing: String(adds) })] })
      return page!.lines[1]!.y - page!.lines[0]!.y - page!.lines[0]!.height
    }
    expect(gap(false)).toBeCloseTo(10, 1)
    expect(gap(true)).toBeCloseTo(16, 1)
    expect(
      readSetting(openOdt({ parts: [settingsPart({ AddParaTableSpacing: 'true' })] }), 'AddParaTableSpacing'),
    ).toBe('true')
    expect(readSetting(openOdt({}), 'AddParaTableSpacing')).toBeNull()
  })
})

describe('headers, footers and notes', () => {
  it('take the first, the left and the other pages’ own', () => {
    const pages = pagesOf({
      masters: standardMaster(
        '<style:header><text:p>right</text:p></style:header><style:header-left>' +
          '<text:p>left</text:p></style:header-left><style:header-first>' +
          '<text:p>first</text:p></style:header-first>',
      ),
      body: many(perPage * 3),
    })
    expect(pages.slice(0, 3).map(page => texts(page)[0])).toEqual(['first', 'left', 'right'])
  })

  it('lie under the text, at the height that their text asks for', () => {
    const header = (lines: number) =>
      pagesOf({
        masters: standardMaster(`<style:header>${p('head').repeat(lines)}</style:header>`),
        body: p('body'),
      })[0]!
    const y = (page: DisplayPage) => page.lines[texts(page).indexOf('body')]!.y
    expect(y(header(3)) - y(header(1))).toBeCloseTo(2 * header(1).lines[0]!.height, 1)
    expect(texts(header(1))).toEqual(['head', 'body'])
  })

  it('read how notes are numbered, and the line above them', () => {
    const document = openOdt({
      styles:
        '<text:notes-configuration text:note-class="footnote" style:num-prefix="[" style:num-suffix="]"/>' +
        '<text:notes-configuration text:note-class="endnote" text:master-page-name="End"/>',
    })
    expect(readNotesStyle(document)).toEqual({
      footnote: { prefix: '[', suffix: ']' },
      endnote: { prefix: '', suffix: '', master: 'End' },
    })
    const layout =
      '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ' +
      'fo:page-height="10cm" style:writing-mode="rl-tb"><style:footnote-sep style:width="1pt" ' +
      'style:rel-width="50%" style:color="#aa0000" style:distance-before-sep="4pt" style:distance-after-sep="2pt" ' +
      'style:adjustment="right"/></style:page-layout-properties></style:page-layout>'
    const geometry = readGeometries(openOdt({ stylesAutomatic: layout })).get('Standard')!
    expect(geometry.footnote).toEqual({
      before: 4,
      after: 2,
      thickness: 1,
      relativeWidth: 0.5,
      color: '#aa0000',
      align: 'right',
    })
    expect(geometry.rightToLeft).toBe(true)
  })

  it('notes in tables stand at the foot of the page, too', () => {
    const note =
      '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>' +
      '<text:note-body><text:p>from the table</text:p></text:note-body></text:note>'
    const [page] = pagesOf({
      body:
        `<table:table><table:table-column/><table:table-row><table:table-cell><text:p>` +
        `cell${note}</text:p></table:table-cell></table:table-row></table:table>`,
    })
    expect(texts(page!).at(-1)).toBe('1from the table')
    expect(page!.lines.at(-1)!.y).toBeGreaterThan(7 * centimetre)
  })

  it('a note longer than a page is set on one, and said to be', () => {
    const note =
      `<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>` +
      `<text:note-body>${p('word '.repeat(300))}</text:note-body></text:note>`
    const composition = compose({ body: p(`text${note}`) })
    expect(composition.unlaid).toEqual([
      { feature: 'footnotes that would go on on the next page (they are set on one)', count: 1 },
    ])
    expect(composition.pages.length).toBeLessThan(4)
  })
})

describe('paragraphs', () => {
  it('have their background and borders around them, and over the break of a page', () => {
    const automatic = paragraphStyle(
      'B',
      '',
      'fo:background-color="#ddeeff" fo:border="1pt solid #112233" fo:padding="4pt"',
    )
    const [page] = pagesOf({ automatic, body: p('boxed', 'B') })
    const fill = page!.shapes.find(shape => shape.kind === 'box' && shape.fill === '#ddeeff')!
    const [line] = page!.lines
    expect(fill.kind === 'box' && [fill.x, fill.y, fill.width, fill.height].map(Math.round)).toEqual(
      [centimetre, centimetre, 8 * centimetre, line!.height + 10].map(Math.round),
    )
    expect(line!.x).toBeCloseTo(centimetre + 5, 1)
    expect(page!.shapes.filter(shape => shape.kind === 'box' && shape.fill === '#112233')).toHaveLength(4)
    const broken = pagesOf({ automatic, body: many(perPage - 3) + p('sea harbour light morning '.repeat(9), 'B') })
    expect(
      broken.map(each => each.shapes.filter(shape => shape.kind === 'box' && shape.fill === '#112233').length),
    ).toEqual([3, 3])
  })

  it('that run from right to left have their labels at the right', () => {
    const style =
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="1" ' +
      'style:num-suffix="."><style:list-level-properties text:list-level-position-and-space-mode="label-alignment">' +
      '<style:list-level-label-alignment text:label-followed-by="listtab" fo:text-indent="-1cm" ' +
      'fo:margin-left="1cm"/></style:list-level-properties></text:list-level-style-number>' +
      '</text:list-style>'
    const [page] = pagesOf({
      styles: base + style,
      automatic: paragraphStyle('R', '', 'style:writing-mode="rl-tb"'),
      body: `<text:list text:style-name="L"><text:list-item>${p('שלום', 'R')}</text:list-item></text:list>`,
    })
    const label = page!.runs.find(run => run.text === '1.')!
    const word = page!.runs.find(run => run.text.includes('ש'))!
    expect(label.x).toBeGreaterThan(word.x + word.width)
    expect(label.x + label.width).toBeCloseTo(9 * centimetre, 0)
  })

  it('leave it to the page which way they run', () => {
    const layout = smallPage.replace('style:num-format="1"', 'style:writing-mode="rl-tb"')
    const [page] = pagesOf({ stylesAutomatic: layout, body: p('שלום') })
    expect(page!.lines[0]!.x + page!.lines[0]!.width).toBeCloseTo(9 * centimetre, 0)
  })

  it('show hidden text nowhere, and take no room for it', () => {
    const [page] = pagesOf({
      automatic: textStyle('H', 'text:display="none"'),
      body: p('a<text:span text:style-name="H">hidden</text:span>b'),
    })
    expect(page!.runs.map(run => run.text).join('')).toBe('ab')
    expect(page!.lines[0]!.width).toBeLessThan(15)
  })

  it('take the title of the document where they name it', () => {
    const meta = {
      path: 'meta.xml',
      type: 'text/xml',
      content:
        '<?xml version="1.0"?><office:document-meta xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
        'xmlns:dc="http://purl.org/dc/elements/1.1/"><office:meta><dc:title>Tide tables</dc:title>' +
        '</office:meta></office:document-meta>',
    }
    expect(all({ body: p('<text:title>old</text:title>'), parts: [meta] })).toEqual([['Tide tables']])
    expect(all({ body: p('<text:title>kept</text:title>') })).toEqual([['kept']])
  })

  it('count pages, once they are counted', () => {
    expect(all({ body: p('of <text:page-count>99</text:page-count>') + many(perPage + 1) })[0]![0]).toBe('of 2')
  })
})

describe('numbers', () => {
  it('of ten levels, each with its own format', () => {
    const formats = ['1', 'a', 'i', 'A', 'I', '1', 'a', 'i', 'A', 'I']
    const style = `<text:list-style style:name="L">${formats
      .map(
        (format, at) =>
          `<text:list-level-style-number text:level="${at + 1}" style:num-format="${format}" ` +
          (`text:display-levels="${at + 1}"><style:list-level-properties ` + `text:min-label-width="0.3cm"/>`) +
          `</text:list-level-style-number>`,
      )
      .join('')}</text:list-style>`
    const nested = (level: number): string =>
      level > 10
        ? ''
        : `<text:list${level === 1 ? ' text:style-name="L"' : ''}><text:list-item>` +
          `${p(`level ${level}`)}${nested(level + 1)}</text:list-item>` +
          `</text:list>`
    const composition = compose({ styles: base + style, body: nested(1) })
    const labels = composition.pages.flatMap(page =>
      page.fragments.flatMap(fragment => (fragment.kind === 'lines' ? [fragment.layout.label?.text] : [])),
    )
    expect(labels[0]).toBe('1')
    expect(labels[2]).toBe('1.a.i')
    expect(labels[9]).toBe('1.a.i.A.I.1.a.i.A.I')
  })

  it('of headings begin again where they are told to, and headings without one have none', () => {
    const outline =
      '<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" style:num-format="1"/></text:outline-style>'
    const h = (text: string, more = '') => `<text:h text:outline-level="1"${more}>${text}</text:h>`
    const composition = compose({
      styles: base + outline,
      body:
        h('a') +
        h('b', ' text:is-list-header="true"') +
        h('c') +
        h('d', ' text:restart-numbering="true" text:start-value="7"') +
        h('e'),
    })
    expect(
      composition.pages[0]!.fragments.flatMap(fragment =>
        fragment.kind === 'lines' ? [fragment.layout.label?.text ?? '–'] : [],
      ),
    ).toEqual(['1', '–', '2', '7', '8'])
  })

  it('are written in every format', () => {
    expect([
      formatNumber(3, '1'),
      formatNumber(27, 'A'),
      formatNumber(52, 'a'),
      formatNumber(49, 'i'),
      formatNumber(3999, 'I'),
    ]).toEqual(['3', 'AA', 'az', 'xlix', 'MMMCMXCIX'])
    expect(
      readLevel(openOdt({}).parts.get('styles.xml')!, openOdt({}).parts.get('styles.xml')!.rootElement, 1),
    ).toBeNull()
  })
})

describe('the rules part', () => {
  it('is read whole, with what it does not know passed over, and nothing where there is none', () => {
    const part = (content: string) => ({ parts: [{ path: 'Morphene/rules.json', type: 'application/json', content }] })
    expect(readRules(openOdt({}))).toEqual(noRules)
    expect(
      readRules(openOdt(part('{"kerning":[{"family":"Jost","left":"A","right":"V","amount":-20}],"later":true}')))
        .kerning,
    ).toEqual([{ family: 'Jost', left: 'A', right: 'V', amount: -20 }])
    for (const bad of [
      '',
      '{',
      '[]',
      '{"kerning":[{"family":"Jost","left":"","right":"V","amount":-20}]}',
      '{"features":[{"style":{"family":"text","name":"T"},"features":{"toolong":1}}]}',
      '{"kerning":[{"family":"J","left":"A","right":"V","amount":5000}]}',
    ])
      expect(() => readRules(openOdt(part(bad)))).toThrow(/rules/)
  })
})
