import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import type { GlyphRun } from '../../../core/typeset/glyph-runs'
import { mapped } from '../../../core/typeset/matrix'
import { pageSvg } from '../../../core/typeset/svg'
import { drawnPage, makeDrawing, session, shapeAt, typesetter } from '../../support/fixtures'
import { request, swap } from '../../support/planning'
import { registry } from '../../../core/change/registry'

const centimetre = 72 / 2.54
const settingsOf = (values: Readonly<Record<string, string>>) =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-settings xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ` +
  `xmlns:config="urn:oasis:names:tc:opendocument:xmlns:config:1.0" office:version="1.3"><office:settings>` +
  `<config:config-item-set config:name="c">${Object.entries(values)
    .map(
      ([name, value]) => `<config:config-item config:name="${name}" config:type="string">${value}</config:config-item>`,
    )
    .join('')}</config:config-item-set></office:settings></office:document-settings>`
const markup = (inside: string, more = ' display="block"') =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<math xmlns="http://www.w3.org/1998/Math/MathML"${more}>` +
  `<semantics><mrow>${inside}</mrow><annotation encoding="plain">never shown</annotation></semantics></math>`

/** A drawing with one formula in a frame of 8 by 4 cm. */
const withFormula = (content: string, values: Readonly<Record<string, string>> = { BaseFontHeight: '10' }) =>
  session(
    makeDrawing({
      pages: drawnPage(`<draw:frame ${shapeAt(1, 1, 8, 4)}><draw:object xlink:href="./Object 1"/></draw:frame>`),
      parts: [
        { path: 'Object 1/content.xml', type: 'text/xml', content },
        { path: 'Object 1/settings.xml', type: 'text/xml', content: settingsOf(values) },
      ],
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.formula' }],
    }),
  )
const drawn = (inside: string, values?: Readonly<Record<string, string>>, more?: string): DisplayPage =>
  displayPage(withFormula(markup(inside, more), values).composition.pages[0]!)
const sign = (page: DisplayPage, text: string): GlyphRun => page.runs.find(run => run.text === text)!
/** Where a sign begins and its baseline is, on the page. */
const at = (run: GlyphRun) => (run.matrix ? mapped(run.matrix, run.x, run.y) : { x: run.x, y: run.y })
const faceOf = (run: GlyphRun) => typesetter.library.byHash(run.face)!
const mi = (text: string) => `<mi>${text}</mi>`
const mo = (text: string) => `<mo>${text}</mo>`
const mn = (text: string) => `<mn>${text}</mn>`

describe('formulas', () => {
  it('are set in the faces that their settings name by kinds of signs, single letters slanting', () => {
    const page = drawn(`${mi('x')}${mo('=')}${mn('12')}${mi('sin')}<mtext>knots</mtext>`, {
      BaseFontHeight: '14',
      FontNameVariables: 'Spectral',
      FontNameNumbers: 'Work Sans',
      FontNameFunctions: 'Jost',
      FontNameText: 'Bitter',
    })
    expect(['x', '12', 'sin', 'knots'].map(text => faceOf(sign(page, text)).family)).toEqual([
      'Spectral',
      'Work Sans',
      'Jost',
      'Bitter',
    ])
    expect(['x', 'sin'].map(text => faceOf(sign(page, text)).slant)).toEqual(['italic', 'upright'])
    expect(sign(page, 'x').size).toBe(14)
    expect(page.runs.map(run => run.text).join('')).not.toContain('never')
    expect(page.runs.every(run => !run.own)).toBe(true)
  })

  it('take what markup says of itself: a family, a variant, a size, a colour', () => {
    const page = drawn(
      `<mi fontfamily="Work Sans" mathvariant="normal">a</mi><mi mathvariant="bold">b</mi>` +
        `<mstyle mathsize="20pt" mathcolor="#102030">${mi('c')}</mstyle><mi mathsize="150%">d</mi>`,
    )
    expect([faceOf(sign(page, 'a')).family, faceOf(sign(page, 'a')).slant]).toEqual(['Work Sans', 'upright'])
    expect([faceOf(sign(page, 'b')).weight, faceOf(sign(page, 'b')).slant]).toEqual([700, 'upright'])
    expect([sign(page, 'c').size, sign(page, 'c').color, sign(page, 'd').size]).toEqual([20, '#102030', 15])
  })

  it('stand in the middle of their frame, on one baseline, relations apart from what they stand between', () => {
    const page = drawn(`${mi('a')}${mo('=')}${mi('b')}${mo('+')}${mi('c')}`)
    const [a, equals, b, plus, c] = ['a', '=', 'b', '+', 'c'].map(text => sign(page, text)) as [
      GlyphRun,
      GlyphRun,
      GlyphRun,
      GlyphRun,
      GlyphRun,
    ]
    expect(new Set(page.runs.map(run => Math.round(at(run).y * 100))).size).toBe(1)
    expect((at(a).x + at(c).x + c.width) / 2).toBeCloseTo(5 * centimetre, 3)
    const gap = (one: GlyphRun, other: GlyphRun) => (at(other).x - at(one).x - one.width) / 10
    expect([gap(a, equals), gap(equals, b), gap(b, plus), gap(plus, c)]).toEqual(
      [5, 5, 4, 4].map(share => expect.closeTo(share / 18, 3)),
    )
    const minus = drawn(`${mo('−')}${mi('b')}`)
    expect(gap(sign(minus, '−'), sign(minus, 'b'))).toBeCloseTo(0, 3)
    const named = drawn(`${mi('sin')}${mi('x')}`)
    expect(gap(sign(named, 'sin'), sign(named, 'x'))).toBeCloseTo(3 / 18, 3)
    const fenced = drawn(`${mi('sin')}${mo('(')}${mi('x')}${mo(')')}`)
    expect(gap(sign(fenced, 'sin'), sign(fenced, '('))).toBeCloseTo(0, 3)
  })

  it('have the parts of fractions above and below a bar, and smaller ones within them', () => {
    const page = drawn(`<mfrac>${mi('n')}<mfrac>${mi('u')}${mi('v')}</mfrac></mfrac>`)
    const [bar] = page.shapes.filter(shape => shape.kind === 'path')
    expect(at(sign(page, 'n')).y).toBeLessThan(bar!.y)
    expect(at(sign(page, 'u')).y).toBeGreaterThan(bar!.y)
    expect(at(sign(page, 'v')).y).toBeGreaterThan(at(sign(page, 'u')).y)
    expect([sign(page, 'n').size, sign(page, 'u').size]).toEqual([10, expect.closeTo(7.1, 3)])
    expect(drawn(`<mfrac linethickness="0">${mn('5')}${mn('2')}</mfrac>`).shapes).toEqual([])
  })

  it('raise and lower scripts, clear of one another, none too small to be read', () => {
    const page = drawn(`<msubsup>${mi('p')}${mi('i')}${mn('2')}</msubsup>`)
    expect(at(sign(page, '2')).y).toBeLessThan(at(sign(page, 'p')).y)
    expect(at(sign(page, 'i')).y).toBeGreaterThan(at(sign(page, 'p')).y)
    expect(at(sign(page, '2')).x).toBeCloseTo(at(sign(page, 'i')).x, 3)
    const deep = drawn(`<msup>${mi('a')}<msup>${mi('b')}<msup>${mi('c')}${mi('d')}</msup></msup></msup>`)
    expect(sign(deep, 'd').size).toBe(5)
  })

  it('put limits above and below where a formula stands alone, and beside where it runs in a line', () => {
    const sum = `<munderover>${mo('∑')}${mi('i')}${mi('n')}</munderover>`
    const alone = drawn(sum)
    expect(at(sign(alone, 'n')).y).toBeLessThan(at(sign(alone, '∑')).y - sign(alone, '∑').size * 0.5)
    expect(sign(alone, '∑').size).toBeCloseTo(14, 3)
    const middle = (run: GlyphRun) => at(run).x + run.width / 2
    expect(middle(sign(alone, 'i'))).toBeCloseTo(middle(sign(alone, '∑')), 1)
    const inLine = drawn(sum, undefined, ' display="inline"')
    expect(at(sign(inLine, 'n')).x).toBeGreaterThan(at(sign(inLine, '∑')).x + sign(inLine, '∑').width)
    const accent = drawn(`<mover accent="true">${mi('x')}${mo('→')}</mover>`)
    expect(sign(accent, '→').size).toBe(10)
  })

  it('draw roots around what they are of', () => {
    const page = drawn(`<mroot><mrow>${mi('b')}${mo('−')}${mi('c')}</mrow>${mn('3')}</mroot>`)
    const [root] = page.shapes.filter(shape => shape.kind === 'path')
    expect(root!.x + root!.width).toBeGreaterThan(at(sign(page, 'c')).x + sign(page, 'c').width)
    expect(root!.y).toBeLessThan(at(sign(page, 'b')).y - sign(page, 'b').size * 0.6)
    expect(at(sign(page, '3')).x).toBeLessThan(at(sign(page, 'b')).x)
  })

  it('stretch fences to what they hold and no further, and set what is fenced with its separators', () => {
    const tall = `<mfrac><mfrac>${mi('u')}${mi('v')}</mfrac>${mi('w')}</mfrac>`
    const page = drawn(`${mo('(')}${tall}${mo(')')}${mo('[')}${mi('t')}${mo(']')}`)
    expect(sign(page, '(').matrix![3]).toBeGreaterThan(1.5)
    expect(sign(page, '[').matrix).toBeUndefined()
    const fenced = drawn(`<mfenced open="{" close="}" separators=";">${mi('a')}${mi('b')}</mfenced>`)
    expect(fenced.runs.map(run => run.text).join('')).toBe('{a;b}')
  })

  it('set tables with columns under one another, in the middle of the row', () => {
    const cell = (text: string) => `<mtd>${mn(text)}</mtd>`
    const page = drawn(
      `${mi('A')}${mo('=')}<mtable><mtr>${cell('1')}${cell('200')}</mtr><mtr>${cell('30')}${cell('4')}</mtr></mtable>`,
    )
    const middle = (text: string) => at(sign(page, text)).x + sign(page, text).width / 2
    expect(middle('1')).toBeCloseTo(middle('30'), 3)
    expect(middle('200')).toBeCloseTo(middle('4'), 3)
    const levels = ['1', '30'].map(text => at(sign(page, text)).y)
    expect(at(sign(page, 'A')).y).toBeGreaterThan(levels[0]!)
    expect(at(sign(page, 'A')).y).toBeLessThan(levels[1]!)
  })

  it('leave room for what is only there for its room, and nothing for signs that nobody sees', () => {
    const page = drawn(
      `${mi('a')}<mphantom>${mn('888')}</mphantom><mspace width="2em"/>${mi('b')}${mo('\u2061')}${mi('c')}`,
    )
    expect(sign(page, '888')).toBeUndefined()
    const [a, b, c] = ['a', 'b', 'c'].map(text => sign(page, text)) as [GlyphRun, GlyphRun, GlyphRun]
    expect(at(b).x - at(a).x - a.width).toBeGreaterThan(20 + 12)
    expect(at(c).x).toBeCloseTo(at(b).x + b.width, 3)
  })

  it('are shown in pictures of pages, and say where they are', () => {
    const made = withFormula(markup(mi('x')))
    expect(pageSvg(displayPage(made.composition.pages[0]!), typesetter.shaper)).toContain('<use href="#g0"')
    expect(made.composition.unlaid).toEqual([])
    const frames = displayPage(made.composition.pages[0]!).frames.filter(frame => frame.object !== '')
    expect(frames.map(frame => frame.object)).toEqual(['./Object 1'])
  })

  it('follow a swap of a face that only their settings name', () => {
    const before = withFormula(markup(mi('x')), { FontNameVariables: 'Spectral' })
    const { after } = registry.plan(before, request([swap('Spectral', 'Bitter')]), { effects: false })
    const run = sign(displayPage(after.composition.pages[0]!), 'x')
    expect(faceOf(run).family).toBe('Bitter')
  })

  it('that are too much are a box and are named; broken ones are set as far as they go', () => {
    const deep = withFormula(markup(`${'<mrow>'.repeat(80)}${mi('x')}${'</mrow>'.repeat(80)}`))
    expect(deep.composition.unlaid.map(each => each.feature)).toEqual([
      'formulas that nest too deeply (not drawn)',
      'formulas (shown as an empty box)',
    ])
    const many = withFormula(markup(mi('x').repeat(5000)))
    expect(many.composition.unlaid[0]!.feature).toBe('formulas of more than 4,000 signs (not drawn)')
    const odd = `<mfrac/><msup/><msub>${mi('a')}</msub><mroot>${mi('b')}</mroot><munder/><mtable/><mfenced/><mi/>`
    expect(
      drawn(odd)
        .runs.map(run => run.text)
        .join(''),
    ).toBe('ab()')
  })
})
