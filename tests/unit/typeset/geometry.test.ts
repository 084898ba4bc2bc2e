import { describe, expect, it } from 'vitest'
import { borderColor, borderWidths, edges, lengthOf, readGeometries } from '../../../core/typeset/geometry'
import { displayPage } from '../../../core/typeset/display'
import { pageSvg } from '../../../core/typeset/svg'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, openOdt, paragraphStyle, session, sessionOf, settingsPart, typesetter } from '../../support/fixtures'

const centimetre = 72 / 2.54

describe('edges', () => {
  it('take the side before the shorthand', () => {
    expect(edges({ 'fo:margin': '1cm', 'fo:margin-left': '2cm' }, 'fo:margin')).toEqual({
      top: centimetre,
      right: centimetre,
      bottom: centimetre,
      left: 2 * centimetre,
    })
    expect(edges({}, 'fo:padding')).toEqual({ top: 0, right: 0, bottom: 0, left: 0 })
  })

  it.each([
    [{ 'fo:border': '0.5pt solid #112233' }, { top: 0.5, right: 0.5, bottom: 0.5, left: 0.5 }],
    [
      { 'fo:border': '1pt solid #000000', 'fo:border-top': 'none' },
      { top: 0, right: 1, bottom: 1, left: 1 },
    ],
    [{ 'fo:border-bottom': '2pt double #abcdef' }, { top: 0, right: 0, bottom: 2, left: 0 }],
    [{ 'fo:border': 'none' }, { top: 0, right: 0, bottom: 0, left: 0 }],
  ])('borders of %j', (properties, expected) => {
    expect(borderWidths(properties as Record<string, string>)).toEqual(expected)
  })

  it('find the colour of a border', () => {
    expect(borderColor({ 'fo:border-bottom': '2pt double #abcdef' })).toBe('#abcdef')
    expect(borderColor({})).toBe('#000000')
  })

  it('lengths may be percentages of something', () => {
    expect([lengthOf('50%', 200), lengthOf('10pt', 200), lengthOf('wide', 200)]).toEqual([100, 10, null])
  })
})

describe('page geometry', () => {
  const layout = (more: string, attributes = '') =>
    `<style:page-layout style:name="pm"${attributes}><style:page-layout-properties ` +
    `fo:page-width="20cm" fo:page-height="10cm" fo:margin="1cm" ${more}/><style:header-style>` +
    `<style:header-footer-properties fo:min-height="1cm" fo:margin-bottom="0.5cm"/>` +
    `</style:header-style></style:page-layout>`
  const master = (name: string, inside = '', more = '') =>
    `<style:master-page style:name="${name}" style:page-layout-name="pm"${more}>${inside}</style:master-page>`

  it('reads size, margins, padding, header room and what comes next', () => {
    const geometry = readGeometries(
      openOdt({
        stylesAutomatic: layout('fo:padding="0.5cm" style:num-format="i"'),
        masters:
          master(
            'First',
            '<style:header><text:p>h</text:p></style:header>',
            ' style:next-style-name="Rest" style:display-name="First page"',
          ) + master('Rest'),
      }),
    )
    expect([...geometry.keys()]).toEqual(['First', 'Rest'])
    const first = geometry.get('First')!
    expect(first).toMatchObject({ title: 'First page', next: 'Rest', numberFormat: 'i', usage: 'all', columns: [1] })
    expect(first.margin.left).toBeCloseTo(1.5 * centimetre)
    expect(first.header!.minHeight).toBeCloseTo(centimetre)
    expect(first.header!.gap).toBeCloseTo(0.5 * centimetre)
    expect(geometry.get('Rest')!.header).toBeNull()
  })

  it('falls back to a page when the file has none', () => {
    const [[name, geometry]] = [...readGeometries(openOdt({ masters: '', stylesAutomatic: '' }))] as [
      [string, ReturnType<typeof readGeometries> extends Map<string, infer T> ? T : never],
    ]
    expect([name, Math.round(geometry.width), Math.round(geometry.height)]).toEqual(['Standard', 595, 842])
  })

  it('turns the margins of left pages round where the layout is mirrored', () => {
    const composition = sessionOf({
      stylesAutomatic:
        '<style:page-layout style:name="pm" style:page-usage="mirrored">' +
        '<style:page-layout-properties fo:page-width="20cm" fo:page-height="10cm" fo:margin-left="4cm" ' +
        'fo:margin-right="1cm"/></style:page-layout>',
      automatic: paragraphStyle('N', '', 'fo:break-before="page"'),
      body: '<text:p>a</text:p><text:p text:style-name="N">b</text:p>',
    }).composition
    expect(composition.pages.map(page => Math.round(displayPage(page).lines[0]!.x / centimetre))).toEqual([4, 1])
  })

  it('numbers pages anew where a paragraph asks, in the page’s own format', () => {
    const composition = sessionOf({
      stylesAutomatic: layout('style:num-format="i"'),
      masters: master('Standard'),
      automatic:
        '<style:style style:name="N" style:family="paragraph" style:master-page-name="Standard">' +
        '<style:paragraph-properties style:page-number="5"/></style:style>',
      body: '<text:p>a</text:p><text:p text:style-name="N">b</text:p>',
    }).composition
    expect(composition.pages.map(page => page.number)).toEqual(['i', 'v'])
  })

  it('keeps room for headers: the least height holds the gap to the text, and what is higher moves the body down', () => {
    const top = (header: string) => {
      const page = displayPage(
        sessionOf({ stylesAutomatic: layout(''), masters: master('Standard', header), body: '<text:p>body</text:p>' })
          .composition.pages[0]!,
      )
      return page.lines.find(line => line.runs.some(run => page.runs[run]!.text === 'body'))!.y
    }
    const without = top('')
    expect(top('<style:header><text:p>h</text:p></style:header>') - without).toBeCloseTo(1 * centimetre, 1)
    const [five, six] = [5, 6].map(
      lines => top(`<style:header>${'<text:p>h</text:p>'.repeat(lines)}</style:header>`) - without,
    )
    const line = six! - five!
    expect(five).toBeCloseTo(5 * line + 0.5 * centimetre, 1)
  })
})

describe('spaces between paragraphs', () => {
  const gap = (settings?: string) => {
    const composition = sessionOf({
      automatic:
        paragraphStyle('A', 'fo:font-size="10pt"', 'fo:margin-bottom="10pt"') +
        paragraphStyle('B', 'fo:font-size="10pt"', 'fo:margin-top="6pt"'),
      body: '<text:p text:style-name="A">a</text:p><text:p text:style-name="B">b</text:p>',
      parts: settings === undefined ? [] : [settingsPart({ AddParaTableSpacing: settings })],
    }).composition
    const lines = displayPage(composition.pages[0]!).lines
    const first = lines[0]!
    const second = lines[1]!
    return Math.round(second.y - first.y - first.height)
  }
  it('the larger counts, or both where the file says so', () => {
    expect([gap(), gap('false'), gap('true')]).toEqual([10, 10, 16])
  })
})

describe('frames', () => {
  const frame = (graphic: string, attributes: string, box = '<draw:text-box><text:p>box</text:p></draw:text-box>') =>
    displayPage(
      sessionOf({
        automatic: `<style:style style:name="fr" style:family="graphic"><style:graphic-properties ${graphic}/></style:style>`,
        body: `<text:p><draw:frame draw:style-name="fr" svg:width="2cm" svg:height="2cm" ${attributes}>${box}</draw:frame>body</text:p>`,
      }).composition.pages[0]!,
    )
  const at = (page: ReturnType<typeof frame>, text: string) => page.runs.find(run => run.text === text)!

  it('stand in the line as characters, on its baseline', () => {
    const page = frame('', 'text:anchor-type="as-char"')
    expect(at(page, 'body').x - at(page, 'box').x).toBeCloseTo(2 * centimetre, 0)
    expect(page.lines.some(line => line.height > 2 * centimetre)).toBe(true)
  })

  it('push the text down, or lie over it', () => {
    const below = frame('style:wrap="none"', 'text:anchor-type="paragraph"')
    const over = frame('style:wrap="run-through"', 'text:anchor-type="paragraph"')
    expect(at(below, 'body').y - at(over, 'body').y).toBeCloseTo(2 * centimetre, 0)
  })

  it.each([
    ['left', 0],
    ['center', 3],
    ['right', 6],
    ['from-left', 1],
  ])('stand %s', (position, shift) => {
    const page = frame(
      `style:wrap="none" style:horizontal-pos="${position}"`,
      'text:anchor-type="paragraph" svg:x="1cm"',
    )
    expect(at(page, 'box').x / centimetre - 1).toBeCloseTo(shift as number, 1)
  })

  it('have fills and borders, and pictures are put in place', () => {
    const page = frame(
      'draw:fill="solid" draw:fill-color="#ff0000" fo:border="1pt solid #00ff00"',
      'text:anchor-type="paragraph"',
    )
    expect(page.shapes).toContainEqual(expect.objectContaining({ kind: 'box', fill: '#ff0000', stroke: '#00ff00' }))
    const picture = frame('', 'text:anchor-type="as-char"', '<draw:image xlink:href="Pictures/a.png"/>')
    expect(picture.shapes).toContainEqual(
      expect.objectContaining({ kind: 'image', href: 'Pictures/a.png', width: expect.closeTo(2 * centimetre, 1) }),
    )
  })

  it('nested without end are cut and said', () => {
    const nested =
      '<draw:frame svg:width="5cm"><draw:text-box><text:p>x'.repeat(40) +
      '</text:p></draw:text-box></draw:frame>'.repeat(40)
    expect(sessionOf({ body: `<text:p>${nested}</text:p>` }).composition.unlaid.map(each => each.feature)).toContain(
      'frames or tables nested very deeply',
    )
  })
})

describe('what is drawn', () => {
  const page = displayPage(session(sailingGuide()).composition.pages[0]!)

  it('covers the text of the page with runs and lines that agree', () => {
    expect(page.lines.flatMap(line => line.runs)).toEqual(page.runs.map((_, index) => index))
    for (const run of page.runs) {
      expect(run.glyphs).toHaveLength(run.xs.length)
      expect(run.x + run.width).toBeLessThan(page.width)
      expect(run.end).toBeGreaterThanOrEqual(run.start)
    }
  })

  it('is a well-formed picture for the shelf', () => {
    const svg = pageSvg(page, typesetter.shaper)
    expect(svg).toMatch(/^<svg [^>]*viewBox="0 0 [\d.]+ [\d.]+">.*<\/svg>$/s)
    expect(svg.match(/<use /g)!.length).toBeGreaterThan(500)
    expect(svg).not.toMatch(/NaN|undefined/)
  })

  it('shows spaces that hang over a line’s end', () => {
    const lone = displayPage(
      sessionOf({
        faces: face('Gone'),
        automatic:
          '<style:style style:name="T" style:family="text"><style:text-properties style:font-name="Gone"/></style:style>',
        body: '<text:p>one<text:span text:style-name="T"><text:s/></text:span></text:p>',
      }).composition.pages[0]!,
    )
    expect(lone.runs.filter(run => run.status === 'absent').map(run => run.text)).toEqual([' '])
  })
})

describe('tables', () => {
  const table = (properties: string, columns: string, rows: string, styles = '') =>
    displayPage(
      sessionOf({
        automatic:
          `<style:style style:name="T" style:family="table"><style:table-properties ${properties}/>` +
          `</style:style><style:style style:name="C1" style:family="table-column"><style:table-column-properties ` +
          `style:column-width="2cm"/></style:style><style:style style:name="C2" style:family="table-column">` +
          `<style:table-column-properties style:column-width="4cm"/></style:style>${styles}`,
        body: `<table:table table:style-name="T">${columns}${rows}</table:table>`,
      }).composition.pages[0]!,
    )
  const cell = (text: string, more = '') => `<table:table-cell${more}><text:p>${text}</text:p></table:table-cell>`
  const columns = '<table:table-column table:style-name="C1"/><table:table-column table:style-name="C2"/>'
  const x = (page: ReturnType<typeof table>, text: string) => page.runs.find(run => run.text === text)!.x / centimetre

  it('have columns as wide as their styles say, and stand where they are aligned', () => {
    const left = table(
      'style:width="6cm" table:align="left"',
      columns,
      `<table:table-row>${cell('a')}${cell('b')}</table:table-row>`,
    )
    expect(x(left, 'b') - x(left, 'a')).toBeCloseTo(2, 1)
    const right = table(
      'style:width="6cm" table:align="right"',
      columns,
      `<table:table-row>${cell('a')}${cell('b')}</table:table-row>`,
    )
    expect(x(right, 'a') - x(left, 'a')).toBeCloseTo(2, 1)
    const wide = table('table:align="margins"', columns, `<table:table-row>${cell('a')}${cell('b')}</table:table-row>`)
    expect(x(wide, 'b') - x(wide, 'a')).toBeCloseTo(8 / 3, 1)
  })

  it('span columns and rows', () => {
    const page = table(
      'style:width="6cm" table:align="left"',
      columns,
      `<table:table-row>${cell('a a a a a a a a a', ' table:number-columns-spanned="2"')}<table:covered-table-cell/>` +
        `</table:table-row><table:table-row>${cell('tall '.repeat(8), ' table:number-rows-spanned="2"')}${cell('one')}</table:table-row>` +
        `<table:table-row><table:covered-table-cell/>${cell('two')}</table:table-row><table:table-row>${cell('end')}</table:table-row>`,
    )
    expect(page.runs.filter(run => run.text.startsWith('a')).length).toBe(1)
    const y = (text: string) => page.runs.find(run => run.text === text)!.y
    expect(y('two')).toBeGreaterThan(y('one'))
    const lastTall = Math.max(...page.runs.filter(run => run.text.includes('tall')).map(run => run.y))
    expect(y('end')).toBeGreaterThan(lastTall)
  })

  it('draw fills and edges, and place text in the middle of a row', () => {
    const styles =
      '<style:style style:name="Cell" style:family="table-cell"><style:table-cell-properties ' +
      'fo:background-color="#eeeeee" fo:border="1pt solid #333333" style:vertical-align="middle"/>' +
      '</style:style>'
    const page = table(
      'style:width="6cm" table:align="left"',
      columns,
      `<table:table-row>${cell('x', ' table:style-name="Cell"')}${cell('y '.repeat(60))}</table:table-row>`,
      styles,
    )
    expect(page.shapes.filter(shape => shape.kind === 'box').length).toBe(5)
    const middle = page.runs.find(run => run.text === 'x')!.y
    const rows = page.runs.filter(run => run.text.startsWith('y')).map(run => run.y)
    expect(middle).toBeGreaterThan(rows[1]!)
    expect(middle).toBeLessThan(rows.at(-2)!)
  })
})
