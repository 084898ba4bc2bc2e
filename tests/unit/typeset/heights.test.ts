import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { face, paragraphStyle, sessionOf, settingsPart, textStyle, type Fixture } from '../../support/fixtures'

/*
 * How high lines are and what lies between them, as files behave that tell where their pages ended.
 */

const base =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
  'fo:font-size="12pt"/></style:default-style>'
const pageOf = (fixture: Fixture): DisplayPage =>
  displayPage(
    sessionOf({ faces: face('Spectral'), stylesFaces: face('Spectral'), styles: base, ...fixture }).composition
      .pages[0]!,
  )
const tops = (fixture: Fixture) => pageOf(fixture).lines.map(line => line.y)
const steps = (fixture: Fixture) => tops(fixture).flatMap((y, at, all) => (at === 0 ? [] : [y - all[at - 1]!]))

describe('lines', () => {
  it('are as high as their ascent and descent, each in twentieths of a point', () => {
    // Spectral: ascent 1.059, descent 0.463, no gap.
    const [step] = steps({
      automatic: paragraphStyle('P', 'fo:font-size="10.3pt"'),
      body: '<text:p text:style-name="P">a</text:p><text:p text:style-name="P">b</text:p>',
    })
    expect(step! * 20).toBeCloseTo(Math.round(step! * 20), 6)
    expect(Math.abs(step! - 10.3 * 1.522)).toBeLessThan(0.051)
  })

  it('have the gap that their font asks for, unless one of two settings says not', () => {
    const lora = { faces: face('Carlito'), stylesFaces: face('Carlito') }
    const body = '<text:p text:style-name="P">a</text:p><text:p text:style-name="P">b</text:p>'
    const automatic = paragraphStyle('P', 'style:font-name="Carlito"')
    const step = (values: Record<string, string>) =>
      steps({ ...lora, automatic, body, parts: [settingsPart(values)] })[0]!
    const usual = step({})
    expect(step({ AddExternalLeading: 'true', UnxForceZeroExtLeading: 'false' })).toBe(usual)
    const without = step({ AddExternalLeading: 'false' })
    expect(without).toBeLessThan(usual - 1)
    expect(step({ AddExternalLeading: 'true', UnxForceZeroExtLeading: 'true' })).toBe(without)
  })

  it('take no height from a break at their end, in whatever size it stands', () => {
    const styles = textStyle('Big', 'fo:font-size="40pt"')
    const plain = steps({ automatic: styles, body: '<text:p>a<text:line-break/>b<text:line-break/>c</text:p>' })
    const big = steps({
      automatic: styles,
      body: '<text:p>a<text:span text:style-name="Big"><text:line-break/></text:span>b<text:line-break/>c</text:p>',
    })
    expect(big).toEqual(plain)
    // Where a break is all there is, the line is as high as it.
    const alone = steps({
      automatic: styles,
      body: '<text:p>a<text:line-break/><text:span text:style-name="Big"><text:line-break/></text:span>c</text:p>',
    })
    expect(alone[0]).toBeCloseTo(plain[0]!, 6)
    expect(alone[1]).toBeCloseTo((plain[0]! * 40) / 12, 0)
  })

  it('are raised by a label that is larger than their text: the first of an item, and no other', () => {
    const list = (size: string) =>
      `<text:list-style style:name="L"><text:list-level-style-bullet text:level="1" text:bullet-char="•" ` +
      `text:style-name="Sign"><style:list-level-properties text:min-label-width="1cm"/>` +
      `</text:list-level-style-bullet></text:list-style>${textStyle('Sign', `fo:font-size="${size}"`)}`
    const body =
      '<text:list text:style-name="L"><text:list-item><text:p>one<text:line-break/>two<text:line-break/>three</text:p>' +
      '</text:list-item></text:list><text:p>after</text:p>'
    const height = (size: string) => {
      const y = tops({ styles: base + list(size), body })
      return [y[1]! - y[0]!, y[2]! - y[1]!, y[3]! - y[2]!]
    }
    const [first, second, third] = height('12pt')
    const raised = height('24pt')
    expect(raised[0]).toBeCloseTo(2 * first!, 0)
    expect(raised[1]).toBeCloseTo(second!, 6)
    expect(raised[2]).toBeCloseTo(third!, 6)
  })
})

/** The namespace that files of before the standard had it carry some properties in. */
const older = 'xmlns:loext="urn:org:documentfoundation:names:experimental:office:xmlns:loext:1.0"'

describe('neighbours', () => {
  const framed = (name: string, more = '') =>
    paragraphStyle(name, '', `fo:border="1pt solid #000000" fo:padding="4pt" ${more}`)
  const both = (one: string, other: string) =>
    steps({
      automatic: framed('A') + framed('B', 'style:join-border="false"') + framed('C', 'fo:margin-left="1cm"'),
      body: `<text:p text:style-name="${one}">a</text:p><text:p text:style-name="${other}">b</text:p>`,
    })[0]!

  it('of the same border stand in one: its lines and paddings are not between them', () => {
    const line = steps({ body: '<text:p>a</text:p><text:p>b</text:p>' })[0]!
    expect(both('A', 'A')).toBeCloseTo(line, 6)
    // Where one says not to, or stands elsewhere, each has its own.
    expect(both('A', 'B')).toBeCloseTo(line + 10, 6)
    expect(both('A', 'C')).toBeCloseTo(line + 10, 6)
  })

  it('in one border have one line above and one below, and its sides run through the space between', () => {
    const page = pageOf({
      automatic: framed('A', 'fo:margin-bottom="10pt"'),
      body: '<text:p text:style-name="A">a</text:p><text:p text:style-name="A">b</text:p>',
    })
    const boxes = page.shapes.filter(shape => shape.kind === 'box')
    expect(boxes.filter(box => box.height === 1)).toHaveLength(2)
    const sides = boxes.filter(box => box.width === 1).sort((one, other) => one.y - other.y)
    const [upper, lower] = [sides[0]!, sides.at(-1)!]
    expect(lower.y).toBeCloseTo(upper.y + upper.height, 6)
  })

  it('of one style that says so have no space between them, under either name', () => {
    const styled = (name: string) => ({
      styles: base + paragraphStyle('Item', '', `fo:margin-top="5pt" fo:margin-bottom="7pt" ${name}="true" ${older}`),
      automatic: paragraphStyle('P', 'fo:color="#ff0000"', '', ' style:parent-style-name="Item"'),
      body:
        '<text:p text:style-name="Item">a</text:p><text:p text:style-name="P">b</text:p><text:p>c</text:p>' +
        '<text:p text:style-name="Item">d</text:p>',
    })
    const line = steps({ body: '<text:p>a</text:p><text:p>b</text:p>' })[0]!
    for (const name of ['style:contextual-spacing', 'loext:contextual-spacing']) {
      const [alike, below, above] = steps(styled(name))
      expect(alike).toBeCloseTo(line, 6)
      expect(below).toBeCloseTo(line + 7, 6)
      expect(above).toBeCloseTo(line + 5, 6)
    }
  })
})

describe('tab stops', () => {
  it('count from the indent, or from the edge of the column where a setting says so', () => {
    const at = (values: Record<string, string>) => {
      const page = pageOf({
        automatic:
          '<style:style style:name="T" style:family="paragraph"><style:paragraph-properties fo:margin-left="2cm">' +
          '<style:tab-stops><style:tab-stop style:position="5cm"/></style:tab-stops></style:paragraph-properties>' +
          '</style:style>',
        body: '<text:p text:style-name="T">a<text:tab/>b</text:p>',
        parts: [settingsPart(values)],
      })
      const [a, b] = ['a', 'b'].map(text => page.runs.find(run => run.text === text)!.x)
      return ((b! - a!) / 72) * 2.54
    }
    expect(at({})).toBeCloseTo(5, 1)
    expect(at({ TabsRelativeToIndent: 'true' })).toBeCloseTo(5, 1)
    expect(at({ TabsRelativeToIndent: 'false' })).toBeCloseTo(3, 1)
  })
})

describe('labels', () => {
  const labelled = (level: string, body: string, more: Partial<Fixture> = {}) =>
    pageOf({
      ...more,
      styles: `${base}<text:list-style style:name="L">${level}</text:list-style>`,
      body: `<text:list text:style-name="L">${body}</text:list>`,
    })
  const old = '<style:list-level-properties text:space-before="1cm" text:min-label-width="1cm"/>'
  const cm = (points: number) => (points / 72) * 2.54

  it('of old attributes stand where indent, space and the paragraph’s first line add up', () => {
    const at = (values: Record<string, string>) => {
      const page = labelled(
        `<text:list-level-style-number text:level="1" style:num-format="1">${old}</text:list-level-style-number>`,
        '<text:list-item><text:p text:style-name="P">text</text:p></text:list-item>',
        {
          automatic: paragraphStyle('P', '', 'fo:margin-left="2cm" fo:text-indent="-0.5cm"'),
          parts: [settingsPart(values)],
        },
      )
      const left = page.runs.find(run => run.text === 'text')!.x
      return [cm(page.runs.find(run => run.text === '1')!.x), cm(left)].map(each => each - 1)
    }
    // From the margin of 1 cm: 2 cm of the paragraph and 1 cm of the list, half a centimetre to the left.
    const [label, text] = at({})
    expect(label).toBeCloseTo(2.5, 1)
    expect(text).toBeCloseTo(3.5, 1)
    const ignoring = at({ IgnoreFirstLineIndentInNumbering: 'true' })
    expect(ignoring[0]).toBeCloseTo(3, 1)
    expect(ignoring[1]).toBeCloseTo(4, 1)
  })

  it('are shown where a level has but signs around a number, and bullets have theirs', () => {
    const texts = (level: string) =>
      labelled(level, '<text:list-item><text:p>text</text:p></text:list-item>')
        .runs.map(run => run.text)
        .filter(text => text !== 'text')
        .join('')
    expect(
      texts(
        `<text:list-level-style-number text:level="1" style:num-format="" style:num-suffix="§">` +
          `${old}</text:list-level-style-number>`,
      ),
    ).toBe('§')
    expect(
      texts(
        `<text:list-level-style-bullet text:level="1" text:bullet-char="•" style:num-prefix="(" style:num-suffix=")">` +
          `${old}</text:list-level-style-bullet>`,
      ),
    ).toBe('(•)')
  })
})

describe('frames in a line', () => {
  const line = (position: string) => {
    const graphic = `<style:style style:name="G" style:family="graphic"><style:graphic-properties ${position}/></style:style>`
    const page = pageOf({
      automatic: graphic,
      body:
        '<text:p>x<draw:frame draw:style-name="G" text:anchor-type="as-char" svg:width="20pt" svg:height="40pt" ' +
        'svg:y="-30pt"><draw:image xlink:href="Pictures/a.png"/></draw:frame></text:p><text:p>y</text:p>',
    })
    const x = page.runs.find(run => run.text === 'x')
    const image = page.shapes.find(shape => shape.kind === 'image')!
    return { above: x!.y - image.y, below: image.y + image.height - x!.y, step: page.lines[1]!.y - page.lines[0]!.y }
  }
  const plain = steps({ body: '<text:p>x</text:p><text:p>y</text:p>' })[0]!
  const descent = 12 * 0.463

  it('sit on the baseline, hang from it, or stand across it as they are told, and make room for themselves', () => {
    expect(line('style:vertical-pos="top" style:vertical-rel="baseline"')).toMatchObject({ above: 40, below: 0 })
    const from = line('style:vertical-pos="from-top" style:vertical-rel="baseline"')
    expect([from.above, from.below]).toEqual([30, 10].map(each => expect.closeTo(each, 1) as number))
    const middle = line('style:vertical-pos="middle" style:vertical-rel="baseline"')
    expect([middle.above, middle.below, middle.step]).toEqual(
      [20, 20, 40].map(each => expect.closeTo(each, 1) as number),
    )
    const hanging = line('style:vertical-pos="bottom" style:vertical-rel="baseline"')
    expect(hanging.below).toBeCloseTo(40, 1)
    expect(hanging.step).toBeCloseTo(plain - descent + 40, 0)
  })

  it('stand by the text beside them where they are told', () => {
    expect(line('style:vertical-pos="bottom" style:vertical-rel="char"').below).toBeCloseTo(descent, 1)
    expect(line('style:vertical-pos="top" style:vertical-rel="char"').above).toBeCloseTo(plain - descent, 1)
    const { above, below } = line('style:vertical-pos="middle" style:vertical-rel="text"')
    expect(above - (plain - descent)).toBeCloseTo(below - descent, 1)
  })
})

describe('tables', () => {
  const cell = (text: string) =>
    `<table:table-cell table:style-name="C"><text:p text:style-name="S">${text}</text:p></table:table-cell>`
  const table = (model: string, values: Record<string, string> = {}, space = '') =>
    pageOf({
      automatic:
        `<style:style style:name="T" style:family="table"><style:table-properties table:border-model="${model}"/></style:style>` +
        '<style:style style:name="C" style:family="table-cell"><style:table-cell-properties fo:border="2pt solid #000000"/></style:style>' +
        paragraphStyle('S', '', space),
      body: `<table:table table:style-name="T"><table:table-column table:number-columns-repeated="2"/>${[1, 2, 3]
        .map(row => `<table:table-row>${cell(`${row}a`)}${cell(`${row}b`)}</table:table-row>`)
        .join('')}</table:table>`,
      parts: [settingsPart(values)],
    })

  it('whose borders collapse have one between two cells, not two', () => {
    const rows = (model: string) => {
      const y = table(model).lines.map(each => each.y)
      return [y[2]! - y[0]!, y[4]! - y[2]!]
    }
    const line = steps({ body: '<text:p>a</text:p><text:p>b</text:p>' })[0]!
    for (const step of rows('separating')) expect(step).toBeCloseTo(line + 4, 6)
    for (const step of rows('collapsing')) expect(step).toBeCloseTo(line + 2, 6)
    const shapes = table('collapsing').shapes.filter(shape => shape.kind === 'box')
    // Four lines across the two columns, and three down the three rows.
    expect(shapes.filter(shape => shape.height === 2)).toHaveLength(8)
    expect(shapes.filter(shape => shape.width === 2)).toHaveLength(9)
  })

  it('keep the space below the last paragraph of a cell, unless a setting says not', () => {
    const step = (values: Record<string, string>) => {
      const y = table('separating', values, 'fo:margin-bottom="9pt"').lines.map(each => each.y)
      return y[2]! - y[0]!
    }
    expect(step({}) - step({ AddParaSpacingToTableCells: 'false' })).toBeCloseTo(9, 6)
  })
})

describe('words with places where a line may end', () => {
  const widthOf = (text: string, kerning = true, family = 'Spectral') => {
    const page = pageOf({
      automatic: paragraphStyle('K', `fo:font-family="${family}" style:letter-kerning="${String(kerning)}"`),
      body: `<text:p text:style-name="K">${text}</text:p>`,
    })
    return page.runs.reduce((sum, run) => Math.max(sum, run.x + run.width), 0) - page.runs[0]!.x
  }

  it('are kerned across them', () => {
    // Spectral moves T and V to a hyphen; the hyphen ends a part that is shaped by itself.
    expect(widthOf('T-V')).toBeLessThan(widthOf('T-V', false) - 0.1)
    const parts = widthOf('T-') + widthOf('V')
    expect(widthOf('T-V')).toBeLessThan(parts - 0.05)
  })

  it('are kerned across them once, where a face that moves letters at spaces has the line shaped as a whole', () => {
    // 5,010 and 12,129 units of 1,000 to the em, as hb-shape gives them for all of it.
    expect(widthOf('well-known', true, 'Zilla Slab')).toBeCloseTo(5.01 * 12, 3)
    expect(widthOf('7.30 well-known well-known', true, 'Zilla Slab')).toBeCloseTo(12.129 * 12, 3)
  })
})
