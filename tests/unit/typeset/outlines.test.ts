import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { openParagraph, rawOffset } from '../../../core/document/paragraph-spots'
import { tokens, writtenText } from '../../../core/document/white-space'
import {
  after,
  boundsOf,
  identity,
  inverted,
  mapped,
  readTransform,
  rotation,
  scaling,
  translation,
  type Matrix,
} from '../../../core/typeset/matrix'
import { plainPath, shapeOutline } from '../../../core/typeset/shape-outlines'
import { shapePlace } from '../../../core/typeset/shape-place'
import { drawingOf, drawnPage, openOdt } from '../../support/fixtures'

const centimetre = 72 / 2.54
const close = (matrix: Matrix | null, expected: readonly number[]) =>
  matrix!.forEach((value, at) => {
    expect(value).toBeCloseTo(expected[at]!, 6)
  })

describe('maps', () => {
  const some = fc.tuple(
    ...Array.from({ length: 6 }, () => fc.double({ min: -50, max: 50, noNaN: true })),
  ) as unknown as fc.Arbitrary<Matrix>
  it('go one after the other, and back', () => {
    fc.assert(
      fc.property(
        some,
        some,
        fc.double({ min: -99, max: 99, noNaN: true }),
        fc.double({ min: -99, max: 99, noNaN: true }),
        (one, other, x, y) => {
          const first = mapped(one, x, y)
          const both = mapped(after(other, one), x, y)
          const step = mapped(other, first.x, first.y)
          expect(both.x).toBeCloseTo(step.x, 4)
          expect(both.y).toBeCloseTo(step.y, 4)
          const back = inverted(one)
          if (!back || Math.abs(one[0] * one[3] - one[1] * one[2]) < 1) return
          expect(mapped(back, first.x, first.y).x).toBeCloseTo(x, 3)
          expect(mapped(back, first.x, first.y).y).toBeCloseTo(y, 3)
        },
      ),
    )
    expect(inverted([1, 2, 2, 4, 0, 0])).toBeNull()
  })

  it('have bounds that hold every corner', () => {
    const bounds = boundsOf(rotation(Math.PI / 4), { x: 0, y: 0, width: 10, height: 10 })
    expect([bounds.x, bounds.width, bounds.height].map(value => Math.round(value * 1000) / 1000)).toEqual([
      0, 14.142, 14.142,
    ])
  })

  it('are read from draw:transform, first thing first', () => {
    close(readTransform('translate (1cm 2cm)'), [1, 0, 0, 1, centimetre, 2 * centimetre])
    close(readTransform('scale (2) translate(10pt,0pt)'), [2, 0, 0, 2, 10, 0])
    close(readTransform('translate(10pt 0pt) scale(2 3)'), [2, 0, 0, 3, 20, 0])
    close(readTransform('rotate (1.57079632679)'), [0, -1, 1, 0, 0, 0])
    close(readTransform('skewX(0.785398163)'), [1, 0, -1, 1, 0, 0])
    close(readTransform('matrix(1 0 0 1 5pt 6pt)'), [1, 0, 0, 1, 5, 6])
    expect([
      readTransform(undefined),
      readTransform(''),
      readTransform('wobble(1)'),
      readTransform('matrix(1 2)'),
      readTransform('translate(a b)'),
    ]).toEqual([null, null, null, null, null])
    close(after(translation(1, 2), identity), [1, 0, 0, 1, 1, 2])
    close(scaling(2, 3), [2, 0, 0, 3, 0, 0])
  })
})

/** The outline of the first shape on a page. */
function outlineOf(shape: string) {
  const { document } = drawingOf({ pages: drawnPage(shape) })
  const part = document.parts.get('content.xml')!
  const page = [...part.descendants()].find(each => each.name === 'draw:page')!
  const element = [...part.elements(page)][0]!
  const place = shapePlace(element)
  return { place, outline: shapeOutline(part, element, place) }
}
const points = (data: string) =>
  [...data.matchAll(/(-?[\d.]+) (-?[\d.]+)/g)].map(match => [Number(match[1]), Number(match[2])] as const)

describe('outlines', () => {
  it('are plain: arcs, curves and short forms become lines and cubic curves', () => {
    expect(plainPath('M0 0h10v10H0z')).toBe('M0 0 L10 0 L10 10 L0 10 Z')
    expect(plainPath('M0 0q5 10 10 0t10 0')).toMatch(/^M0 0 C[^A-Z]+ C[^A-Z]+$/)
    expect(plainPath('m1 1l2 2', 2, 3, 10, 20)).toBe('M12 23 L16 29')
    expect([plainPath('nonsense'), plainPath('M0 0 L'.repeat(100_000))]).toEqual(['', ''])
  })

  it('of rectangles with round corners, ellipses and their sections stay in their box', () => {
    for (const shape of [
      '<draw:rect svg:width="100pt" svg:height="50pt" draw:corner-radius="10pt"/>',
      '<draw:ellipse svg:width="100pt" svg:height="50pt"/>',
      '<draw:ellipse svg:width="100pt" svg:height="50pt" draw:kind="section" draw:start-angle="0" draw:end-angle="90"/>',
      '<draw:ellipse svg:width="100pt" svg:height="50pt" draw:kind="cut" draw:start-angle="10" draw:end-angle="200"/>',
      '<draw:regular-polygon svg:width="100pt" svg:height="50pt" draw:corners="7"/>',
      '<draw:regular-polygon svg:width="100pt" svg:height="50pt" draw:corners="5" draw:concave="true" draw:sharpness="50"/>',
    ]) {
      const { outline } = outlineOf(shape)
      expect(outline.pieces.length, shape).toBeGreaterThan(0)
      // Where its pieces end: the handles of curves may lie outside.
      for (const [x, y] of outline.pieces.flatMap(piece =>
        piece.data.match(/[MLC][^MLCZ]+/g)!.map(each => points(each).at(-1)!),
      )) {
        expect(x).toBeGreaterThan(-0.01)
        expect(x).toBeLessThan(100.01)
        expect(y).toBeGreaterThan(-0.01)
        expect(y).toBeLessThan(50.01)
      }
    }
    const { outline } = outlineOf(
      '<draw:ellipse svg:width="100pt" svg:height="50pt" draw:kind="arc" draw:start-angle="0" draw:end-angle="90"/>',
    )
    expect(outline.pieces[0]).toMatchObject({ filled: false, open: true })
    // From three o'clock, anticlockwise, to the top.
    expect(points(outline.pieces[0]!.data)[0]).toEqual([100, 25])
    expect(points(outline.pieces[0]!.data).at(-1)).toEqual([50, 0])
  })

  it('of paths and polygons fill their box from their view box', () => {
    expect(
      outlineOf(
        '<draw:polygon svg:width="50pt" svg:height="20pt" svg:viewBox="0 0 100 100" draw:points="0,0 100,0 100,100"/>',
      ).outline.pieces[0],
    ).toMatchObject({ data: 'M0 0 L50 0 L50 20 Z', filled: true })
    expect(
      outlineOf(
        '<draw:polyline svg:width="50pt" svg:height="20pt" svg:viewBox="10 10 100 100" draw:points="10,10 110,110"/>',
      ).outline.pieces[0],
    ).toMatchObject({ data: 'M0 0 L50 20', filled: false, open: true })
  })

  it('of lines go from end to end, whichever way they lie', () => {
    const { place, outline } = outlineOf('<draw:line svg:x1="30pt" svg:y1="50pt" svg:x2="10pt" svg:y2="20pt"/>')
    expect([place.bounds.x, place.bounds.y, place.width, place.height].map(Math.round)).toEqual([10, 20, 20, 30])
    expect(points(outline.pieces[0]!.data).map(([x, y]) => [Math.round(x), Math.round(y)])).toEqual([
      [20, 30],
      [0, 0],
    ])
    const steps = outlineOf('<draw:connector svg:x1="0pt" svg:y1="0pt" svg:x2="20pt" svg:y2="10pt"/>').outline
      .pieces[0]!
    expect(points(steps.data)).toEqual([
      [0, 0],
      [10, 0],
      [10, 10],
      [20, 10],
    ])
  })

  it('of shapes with formulas follow conditions, functions and each other, and end where they go in a ring', () => {
    const custom = (equations: string, path: string) =>
      outlineOf(
        `<draw:custom-shape svg:width="100pt" svg:height="100pt"><draw:enhanced-geometry ` +
          `svg:viewBox="0 0 100 100" draw:modifiers="30" draw:enhanced-path="${path}">${equations}</draw:enhanced-geometry>` +
          `</draw:custom-shape>`,
      ).outline
    const equation = (name: string, formula: string) => `<draw:equation draw:name="${name}" draw:formula="${formula}"/>`
    const shown = custom(
      equation('f0', 'if($0 - 20, 10, 90)') + equation('f1', 'max(?f0, sqrt(400))') + equation('f2', 'width / 2'),
      'M ?f0 ?f1 L ?f2 0 Z N',
    )
    expect(points(shown.pieces[0]!.data).slice(0, 2)).toEqual([
      [10, 20],
      [50, 0],
    ])
    expect(() => custom(equation('a', '?b + 1') + equation('b', '?a + 1'), 'M ?a 0 L 10 10 N')).not.toThrow()
  })
})

describe('white space', () => {
  it('of any text is written so that it is read back', () => {
    fc.assert(
      fc.property(fc.stringMatching(/^[ab \t\n&<]{0,14}$/), text => {
        const part = openOdt({ body: `<text:p>${writtenText(text)}</text:p>` }).parts.get('content.xml')!
        const paragraph = [...part.descendants()].find(each => each.name === 'text:p')!
        expect(openParagraph(part, paragraph.id).text).toBe(text)
      }),
      { numRuns: 300 },
    )
  })

  it('takes elements only where characters would collapse', () => {
    expect(tokens('a b', false, false)).toEqual([{ kind: 'text', text: 'a b' }])
    expect(tokens(' a ', true, true)).toEqual([
      { kind: 'spaces', count: 1 },
      { kind: 'text', text: 'a' },
      { kind: 'spaces', count: 1 },
    ])
    expect(tokens('a   b\tc', false, false)).toEqual([
      { kind: 'text', text: 'a ' },
      { kind: 'spaces', count: 2 },
      { kind: 'text', text: 'b' },
      { kind: 'tab' },
      { kind: 'text', text: 'c' },
    ])
  })

  it('that collapses in the file is counted once, and found again', () => {
    const part = openOdt({ body: '<text:p>  one \n\t two<text:span> three</text:span>  </text:p>' }).parts.get(
      'content.xml',
    )!
    const paragraph = [...part.descendants()].find(each => each.name === 'text:p')!
    const open = openParagraph(part, paragraph.id)
    expect(open.text).toBe('one two three')
    const [first] = open.pieces
    const source = part.node(first!.node)
    const at = (offset: number) => (source.kind === 'text' ? source.text[rawOffset(first!, offset, 'after')] : '')
    expect([at(0), at(2), at(4), at(6)]).toEqual(['o', 'e', 't', 'o'])
    expect(() => openParagraph(part, part.root)).toThrow('is not a paragraph')
  })
})
