import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { mapped } from '../../../core/typeset/matrix'
import { countCharacters } from '../../support/independent'
import {
  drawingOf,
  drawnMaster,
  drawnPage,
  graphicStyle,
  makeDrawing,
  shapeAt,
  textFrame,
  type DrawingFixture,
} from '../../support/fixtures'

const centimetre = 72 / 2.54
const pagesOf = (fixture: DrawingFixture, view: 'pages' | 'notes' | 'masters' = 'pages'): DisplayPage[] =>
  drawingOf(fixture).composition[view].map(displayPage)
const first = (inside: string, more: Partial<DrawingFixture> = {}): DisplayPage =>
  pagesOf({ pages: drawnPage(inside), ...more })[0]!
const runOf = (page: DisplayPage, text: string) => page.runs.find(run => run.text.includes(text))!
const paths = (page: DisplayPage) => page.shapes.filter(shape => shape.kind === 'path')

describe('placeholders', () => {
  const styles = [
    graphicStyle('M-title', '', 'fo:font-size="20pt"', 'fo:text-align="center"', '', 'presentation'),
    graphicStyle('M-outline1', '', 'fo:font-size="14pt"', '', '', 'presentation'),
    graphicStyle('M-outline2', '', 'fo:font-size="12pt"', '', ' style:parent-style-name="M-outline1"', 'presentation'),
    graphicStyle(
      'M-outline3',
      '',
      'fo:font-style="italic"',
      '',
      ' style:parent-style-name="M-outline2"',
      'presentation',
    ),
    graphicStyle('M-notes', '', 'fo:font-size="9pt" fo:font-family="Jost"', '', '', 'presentation'),
  ].join('')
  const automatic = ['title', 'outline1', 'notes']
    .map(name => graphicStyle(`a-${name}`, '', '', '', ` style:parent-style-name="M-${name}"`, 'presentation'))
    .join('')
  const list = (level: number, text: string): string =>
    level === 0
      ? `<text:p>${text}</text:p>`
      : `<text:list><text:list-item>${list(level - 1, text)}</text:list-item></text:list>`
  const fixture: DrawingFixture = {
    styles,
    automatic,
    pages: drawnPage(
      [
        textFrame(
          shapeAt(0, 0, 10, 2),
          '<text:p>Name</text:p>',
          'presentation:class="title" presentation:style-name="a-title"',
        ),
        textFrame(
          shapeAt(0, 2, 10, 6),
          list(1, 'one') + list(2, 'two') + list(3, 'three'),
          'presentation:class="outline" presentation:style-name="a-outline1"',
        ),
        `<presentation:notes style:page-layout-name="pm"><draw:page-thumbnail ` +
          `${shapeAt(1, 1, 4, 4)}/>${textFrame(
            shapeAt(1, 6, 8, 3),
            '<text:p>Said</text:p>',
            'presentation:class="notes" presentation:style-name="a-notes"',
          )}</presentation:notes>`,
      ].join(''),
    ),
  }

  it('inherit from the styles of their master, outline text by its level', () => {
    const [page] = pagesOf(fixture)
    expect(['Name', 'one', 'two', 'three'].map(text => runOf(page!, text).size)).toEqual([20, 14, 12, 12])
    const name = runOf(page!, 'Name')
    expect(name.x + name.width / 2).toBeCloseTo(5 * centimetre, 0)
    const open = drawingOf(fixture)
    expect(open.detail.census.voices.find(voice => voice.size === 12 && voice.style.includes('Italic'))).toBeDefined()
    expect(open.composition.pages[0]!.name).toBe('Name')
  })

  it('show speaker notes in their own type, with the page in small, and count them with their page', () => {
    const [notes] = pagesOf(fixture, 'notes')
    expect(runOf(notes!, 'Said')).toMatchObject({ size: 9 })
    const small = runOf(notes!, 'Name')
    expect(small.matrix![0]).toBeCloseTo(0.4, 5)
    expect(mapped(small.matrix!, small.x, small.y).y).toBeGreaterThan(centimetre)
    const { census } = drawingOf(fixture).detail
    expect(census.faces.find(face => face.family === 'Jost')).toMatchObject({
      pages: [0],
      places: { note: 1, body: 0 },
    })
    expect(census.characters).toBe(countCharacters(makeDrawing(fixture)))
  })
})

describe('what stands on a master', () => {
  const masters =
    drawnMaster(
      [
        `<draw:rect draw:style-name="fill" ${shapeAt(0, 9, 10, 1)}/>`,
        textFrame(
          shapeAt(0, 0, 10, 1),
          '<text:p>empty one</text:p>',
          'presentation:class="title" presentation:placeholder="true"',
        ),
        textFrame(shapeAt(0, 9, 4, 1), '<text:p><presentation:footer/></text:p>', 'presentation:class="footer"'),
        textFrame(shapeAt(6, 9, 4, 1), '<text:p>no. <text:page-number/></text:p>', 'presentation:class="page-number"'),
        '<presentation:notes style:page-layout-name="pm"/>',
      ].join(''),
    ) +
    ('<style:handout-master style:page-layout-name="pm"><draw:frame svg:x="1cm" svg:y="1cm" ' +
      'svg:width="5cm" svg:height="1cm"><draw:text-box><text:p>to hand out</text:p>' +
      '</draw:text-box></draw:frame></style:handout-master>')
  const fixture = (more = '', automatic = ''): DrawingFixture => ({
    masters,
    stylesAutomatic: graphicStyle('fill', 'draw:fill="solid" draw:fill-color="#112233"'),
    automatic,
    before: '<presentation:footer-decl presentation:name="f">At the foot</presentation:footer-decl>',
    pages: drawnPage('', ` presentation:use-footer-name="f"${more}`).repeat(2),
  })
  const words = (page: DisplayPage) => page.runs.map(run => run.text).join('|')

  it('is on every page, with its fields filled and empty placeholders left out', () => {
    const [one, two] = pagesOf(fixture())
    expect(words(one!)).toContain('At the foot')
    expect(words(two!)).toContain('no.|2')
    expect(words(one!)).not.toContain('empty one')
    expect(paths(one!)[0]).toMatchObject({ fill: '#112233' })
  })

  it('stays away where the page says so', () => {
    const style = (properties: string) =>
      `<style:style style:name="d" style:family="drawing-page"><style:drawing-page-properties ${properties}/></style:style>`
    expect(
      words(pagesOf(fixture(' draw:style-name="d"', style('presentation:display-footer="false"')))[0]!),
    ).not.toContain('At the foot')
    expect(
      pagesOf(fixture(' draw:style-name="d"', style('presentation:background-objects-visible="false"')))[0]!.shapes,
    ).toEqual([])
    expect(
      pagesOf(fixture(' draw:style-name="d"', style('draw:fill="solid" draw:fill-color="#aabbcc"')))[0]!.background,
    ).toBe('#aabbcc')
  })

  it('can be looked at by itself, and so can notes masters and handouts', () => {
    const open = drawingOf(fixture())
    expect(open.composition.masters.map(page => page.name)).toEqual(['Master M', 'Notes of master M', 'Handout'])
    expect(words(displayPage(open.composition.masters[0]!))).toContain('empty one')
    expect(words(displayPage(open.composition.masters[2]!))).toContain('to hand out')
    expect(open.detail.census.characters).toBe(countCharacters(makeDrawing(fixture())))
  })
})

describe('shapes', () => {
  const automatic = graphicStyle(
    's',
    'draw:fill="solid" draw:fill-color="#ff0000" draw:stroke="solid" svg:stroke-color="#00ff00" ' +
      'svg:stroke-width="0.1cm" draw:textarea-vertical-align="middle" draw:textarea-horizontal-align="center"',
    '',
    'fo:text-align="center"',
  )

  it('are outlined and filled, their text in their middle', () => {
    const page = first(`<draw:rect draw:style-name="s" ${shapeAt(2, 2, 4, 2)}><text:p>in it</text:p></draw:rect>`, {
      automatic,
    })
    expect(paths(page)[0]).toMatchObject({ fill: '#ff0000', stroke: '#00ff00' })
    const run = runOf(page, 'in it')
    const at = run.matrix ? mapped(run.matrix, run.x, run.y) : run
    expect(at.x + run.width / 2).toBeCloseTo(4 * centimetre, 0)
    expect(at.y).toBeGreaterThan(2.8 * centimetre)
    expect(at.y).toBeLessThan(3.4 * centimetre)
  })

  it('are turned with their text', () => {
    const page = first(
      '<draw:rect draw:style-name="s" svg:width="4cm" svg:height="1cm" draw:transform="rotate ' +
        '(1.5707963) translate (3cm 8cm)"><text:p>up</text:p></draw:rect>',
      { automatic },
    )
    const run = runOf(page, 'up')
    // A quarter turn anticlockwise: what went right goes up.
    expect(run.matrix!.map(value => Math.round(value * 1000) / 1000 + 0).slice(0, 4)).toEqual([0, -1, 1, 0])
    const at = mapped(run.matrix!, run.x, run.y)
    expect(at.x).toBeGreaterThan(3 * centimetre)
    expect(at.x).toBeLessThan(4 * centimetre)
    expect(at.y).toBeLessThan(8 * centimetre)
    expect(at.y).toBeGreaterThan(4 * centimetre)
  })

  it('grow with their text, shrink it, or run over', () => {
    const long = '<text:p>one two three four five six seven eight nine ten eleven twelve</text:p>'
    const frame = (graphic: string) => {
      const open = drawingOf({
        pages: drawnPage(textFrame(shapeAt(1, 1, 3, 1), long, 'draw:name="F" draw:style-name="g"')),
        automatic: graphicStyle('g', graphic),
      })
      return { open, page: displayPage(open.composition.pages[0]!) }
    }
    const grown = frame('draw:auto-grow-height="true"')
    expect(grown.page.frames[0]!.height).toBeGreaterThan(1.5 * centimetre)
    expect(grown.open.composition.overset).toEqual([])
    const shrunk = frame('draw:fit-to-size="shrink-to-fit" draw:auto-grow-height="false"')
    const scale = shrunk.page.runs[0]!.matrix![0]
    expect(scale).toBeLessThan(0.9)
    expect(scale).toBeGreaterThan(0.3)
    const bottom = Math.max(...shrunk.page.lines.map(line => mapped(line.matrix!, 0, line.y + line.height).y))
    expect(bottom).toBeLessThanOrEqual(2 * centimetre + 1)
    const over = frame('draw:auto-grow-height="false"')
    expect(over.open.composition.overset[0]).toMatchObject({ name: 'F', page: 0 })
    expect(over.open.detail.census.frames[0]).toMatchObject({ name: 'F', page: 0 })
  })

  it('lie over one another as they come, text with its shape', () => {
    const page = first(
      `${textFrame(shapeAt(1, 1, 5, 1), '<text:p>below</text:p>')}<draw:rect draw:style-name="s" ${shapeAt(1, 1, 5, 1)}/>`,
      { automatic },
    )
    expect(page.layers.map(layer => layer.of)).toEqual(['runs', 'shapes'])
    const ordered = first(
      `<draw:rect draw:style-name="s" draw:z-index="2" ${shapeAt(1, 1, 5, 1)}/><draw:ellipse ` +
        `draw:style-name="s" draw:z-index="1" ${shapeAt(1, 1, 5, 1)}/>`,
      { automatic },
    )
    expect(ordered.frames.map(frame => frame.shape)).toEqual(['draw:ellipse', 'draw:rect'])
  })

  it('stand in groups, connect, have dashes and arrows', () => {
    const page = first(
      `<draw:g>${`<draw:rect draw:style-name="s" ${shapeAt(1, 1, 1, 1)}/>`.repeat(2)}</draw:g>` +
        `<draw:line draw:style-name="l" svg:x1="1cm" svg:y1="5cm" svg:x2="6cm" svg:y2="5cm"/>`,
      {
        automatic:
          automatic +
          graphicStyle(
            'l',
            'draw:stroke="dash" draw:stroke-dash="D" svg:stroke-width="0.1cm" draw:marker-end="A" draw:marker-end-width="0.4cm"',
          ),
        styles:
          '<draw:stroke-dash draw:name="D" draw:dots1="1" draw:dots1-length="0.3cm" draw:distance="0.2cm"/>' +
          '<draw:marker draw:name="A" svg:viewBox="0 0 20 30" svg:d="M10 0L0 30h20z"/>',
      },
    )
    expect(page.frames).toHaveLength(3)
    const line = paths(page).find(shape => shape.dash.length > 0)!
    expect(line.dash.map(value => Math.round(value * 10) / 10)).toEqual([8.5, 5.7])
    // The arrow's tip is at the line's end.
    const arrow = paths(page).find(
      shape =>
        shape.fill !== '' &&
        shape.data.split(' ').length > 4 &&
        shape.data !== line.data &&
        !shape.fill.startsWith('#ff'),
    )!
    const tip = mapped(
      arrow.matrix ?? [1, 0, 0, 1, arrow.x, arrow.y],
      ...(/^M(-?[\d.]+) (-?[\d.]+)/.exec(arrow.data)!.slice(1).map(Number) as [number, number]),
    )
    expect([tip.x, tip.y].map(Math.round)).toEqual([6, 5].map(value => Math.round(value * centimetre)))
  })

  it('of a drawing’s own making follow their formulas, text in the area they name', () => {
    const geometry =
      '<draw:enhanced-geometry svg:viewBox="0 0 100 100" draw:modifiers="25" draw:text-areas="?f0 ' +
      '0 100 50" draw:enhanced-path="M ?f0 0 L 100 0 100 100 0 100 Z N">' +
      '<draw:equation draw:name="f0" draw:formula="$0 * 2"/></draw:enhanced-geometry>'
    const page = first(
      `<draw:custom-shape draw:style-name="s" ${shapeAt(0, 0, 10, 10)}><text:p>x</text:p>${geometry}</draw:custom-shape>`,
      { automatic },
    )
    expect(paths(page)[0]!.data.startsWith(`M${Math.round(5 * centimetre * 1000) / 1000} 0`)).toBe(true)
    const run = runOf(page, 'x')
    expect(run.x + run.width / 2).toBeCloseTo(7.5 * centimetre, 0)
    expect(run.y).toBeLessThan(5 * centimetre)
  })

  it('off the page are told, and widen what is shown', () => {
    const page = first(
      `<draw:rect draw:style-name="s" ${shapeAt(12, 2, 2, 2)}/><draw:rect draw:style-name="s" ${shapeAt(-1, 2, 2, 2)}/>`,
      { automatic },
    )
    expect(page.offPage).toBe(1)
    expect(page.extent.x).toBeCloseTo(-centimetre, 1)
    expect(page.extent.x + page.extent.width).toBeCloseTo(14 * centimetre, 1)
  })
})

describe('chained frames', () => {
  const words = Array.from({ length: 30 }, (_, at) => `<text:p>line ${at + 1}</text:p>`).join('')
  const chained = (place: (name: string, next: string, inside: string) => string): DrawingFixture => ({
    kind: 'drawing',
    automatic: graphicStyle('c', 'draw:auto-grow-height="false" fo:padding="0cm"'),
    pages: `${drawnPage(place('A', 'B', words))}${drawnPage(place('B', '', ''))}`,
  })
  const frame = (name: string, next: string, inside: string) =>
    textFrame(
      shapeAt(1, 1, 5, 3),
      inside,
      `draw:name="${name}" draw:style-name="c"`,
      next ? ` draw:chain-next-name="${next}"` : '',
    )

  it('hand their text on over pages; the last one runs over', () => {
    const open = drawingOf(chained(frame))
    const [a, b] = open.composition.pages.map(displayPage)
    const last = Number(a!.runs.at(-1)!.text.slice(5))
    expect(last).toBeGreaterThan(3)
    expect(b!.runs[0]!.text).toBe(`line ${last + 1}`)
    expect(open.composition.overset).toMatchObject([{ name: 'B', page: 1 }])
    const over = open.composition.overset[0]!
    expect(a!.runs.length + b!.runs.length + over.lines).toBe(30)
  })
})

describe('tables on slides', () => {
  it('take the looks of their template, part by part', () => {
    const open = drawingOf({
      styles:
        `<style:style style:name="body" style:family="table-cell"><style:text-properties ` +
        `fo:font-size="8pt"/></style:style><style:style style:name="head" style:family="table-cell">` +
        `<style:text-properties fo:font-size="13pt"/></style:style><table:table-template ` +
        `table:name="T"><table:first-row table:style-name="head"/><table:body table:style-name="body"/>` +
        `</table:table-template>`,
      pages: drawnPage(
        `<draw:frame ${shapeAt(1, 1, 8, 4)}><table:table table:template-name="T" table:use-first-row-styles="true">` +
          `<table:table-column table:number-columns-repeated="2"/><table:table-row><table:table-cell>` +
          `<text:p>Head</text:p></table:table-cell><table:table-cell><text:p>b</text:p></table:table-cell>` +
          `</table:table-row><table:table-row><table:table-cell><text:p>Cell</text:p></table:table-cell>` +
          `<table:table-cell/></table:table-row></table:table></draw:frame>`,
      ),
    })
    const page = displayPage(open.composition.pages[0]!)
    expect([runOf(page, 'Head').size, runOf(page, 'Cell').size]).toEqual([13, 8])
  })
})
