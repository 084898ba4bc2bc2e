import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { caretBox, lineBeside, lineOf, rangeBoxes, spotAt, spotInLine } from '../../../core/typeset/caret'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import { mapped } from '../../../core/typeset/matrix'
import { TextWalk } from '../../../core/typeset/text-walk'
import {
  drawingOf,
  drawnPage,
  sessionOf,
  shapeAt,
  smallPage,
  standardMaster,
  textFrame,
  textStyle,
} from '../../support/fixtures'

const open = (body: string, automatic = '') =>
  sessionOf({
    body,
    automatic,
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" ' +
      'fo:font-size="12pt"/></style:default-style>',
  })
const pageOf = (body: string, automatic = ''): DisplayPage => displayPage(open(body, automatic).composition.pages[0]!)
const long =
  'The morning boat leaves while the lamps are still lit, and whoever is awake stands at the rail to see the light go out over the water.'

describe('the caret', () => {
  it('stands where a click puts it, for every place of every line', () => {
    const page = pageOf(`<text:p>${long}</text:p><text:p/><text:p>End</text:p>`)
    expect(page.lines.length).toBeGreaterThan(4)
    for (const line of page.lines) {
      for (let offset = line.start; offset <= line.contentEnd; offset++) {
        const spot = { part: line.part, node: line.node, offset }
        const box = caretBox(page, spot)!
        if (page.lines[box.line] !== line) continue
        const back = spotAt(page, box.x + 0.01, box.y + box.height / 2)!
        expect(back.node).toBe(line.node)
        // A ligature's letters may share an edge.
        expect(Math.abs(caretBox(page, back)!.x - box.x)).toBeLessThan(0.05)
      }
    }
  })

  it('goes from left to right with the letters, and from right to left with Hebrew', () => {
    const latin = pageOf('<text:p>offline</text:p>')
    const xs = Array.from(
      { length: 8 },
      (_, offset) => caretBox(latin, { part: 'content.xml', node: latin.lines[0]!.node, offset })!.x,
    )
    expect([...xs].sort((a, b) => a - b)).toEqual(xs)
    expect(new Set(xs.map(x => Math.round(x * 100)))).toHaveProperty('size', 8)
    const hebrew = pageOf('<text:p>שלום</text:p>')
    const back = Array.from(
      { length: 5 },
      (_, offset) => caretBox(hebrew, { part: 'content.xml', node: hebrew.lines[0]!.node, offset })!.x,
    )
    expect([...back].sort((a, b) => b - a)).toEqual(back)
  })

  it('stands at the start of a line that goes on, and a click at a line’s end stays in that line', () => {
    const page = pageOf(`<text:p>${long}</text:p>`)
    const [first, second] = page.lines as [DisplayPage['lines'][number], DisplayPage['lines'][number]]
    expect(lineOf(page, { part: first.part, node: first.node, offset: second.start })).toBe(1)
    const end = spotInLine(page, 0, 1000)
    expect(lineOf(page, end)).toBe(0)
    expect(end.offset).toBe(first.contentEnd)
  })

  it('is found in empty paragraphs, and nowhere on a page without text', () => {
    const page = pageOf('<text:p>a</text:p><text:p/>')
    const empty = page.lines[1]!
    expect(spotAt(page, empty.x + 50, empty.y + 4)).toEqual({ part: 'content.xml', node: empty.node, offset: 0 })
    expect(caretBox(page, { part: 'content.xml', node: empty.node, offset: 0 })!.x).toBe(empty.x)
    expect(spotAt(displayPage(drawingOf({ pages: drawnPage('') }).composition.pages[0]!), 10, 10)).toBeNull()
    expect(caretBox(page, { part: 'content.xml', node: 99_999, offset: 0 })).toBeNull()
  })

  it('is found in turned text', () => {
    const page = displayPage(
      drawingOf({
        pages: drawnPage(
          '<draw:rect svg:width="4cm" svg:height="1cm" draw:transform="rotate (1.5707963) translate ' +
            '(3cm 8cm)"><text:p>upwards</text:p></draw:rect>',
        ),
      }).composition.pages[0]!,
    )
    const line = page.lines[0]!
    const spot = { part: line.part, node: line.node, offset: 3 }
    const box = caretBox(page, spot)!
    const at = mapped(box.matrix!, box.x + 0.01, box.y + box.height / 2)
    expect(spotAt(page, at.x, at.y)).toEqual(spot)
  })

  it('goes to the line above or below that is nearest', () => {
    const page = pageOf(`<text:p>${long}</text:p>`)
    const node = page.lines[0]!.node
    const box = caretBox(page, { part: 'content.xml', node, offset: page.lines[1]!.start + 5 })!
    expect([lineBeside(page, box, 'up', box.x, () => true), lineBeside(page, box, 'down', box.x, () => true)]).toEqual([
      0, 2,
    ])
    expect(lineBeside(page, caretBox(page, { part: 'content.xml', node, offset: 0 })!, 'up', 0, () => true)).toBe(-1)
  })
})

describe('a selection', () => {
  it('covers its letters, line by line, and the break between paragraphs', () => {
    const page = pageOf(`<text:p>${long}</text:p><text:p>next</text:p>`)
    const [first, second] = page.lines as [DisplayPage['lines'][number], DisplayPage['lines'][number]]
    const boxes = rangeBoxes(page, [
      { part: 'content.xml', node: first.node, from: 4, to: second.start + 3, through: false },
    ])
    expect(boxes).toHaveLength(2)
    expect(boxes[0]!.x).toBeCloseTo(caretBox(page, { part: 'content.xml', node: first.node, offset: 4 })!.x, 3)
    expect(boxes[1]!.x).toBeCloseTo(second.x, 3)
    const node = page.lines.at(-1)!.node
    const whole = rangeBoxes(page, [
      { part: 'content.xml', node: first.node, from: long.length, to: long.length, through: true },
      { part: 'content.xml', node, from: 0, to: 2, through: false },
    ])
    expect(whole.map(box => Math.round(box.width))).toEqual([
      4,
      Math.round(caretBox(page, { part: 'content.xml', node, offset: 2 })!.x - page.lines.at(-1)!.x),
    ])
  })

  it('of one lone space can be seen', () => {
    const page = pageOf(
      '<text:p>a <text:span text:style-name="T"> </text:span>b</text:p>',
      textStyle('T', 'fo:font-size="2pt"'),
    )
    const [box] = rangeBoxes(page, [{ part: 'content.xml', node: page.lines[0]!.node, from: 1, to: 2, through: false }])
    expect(box!.width).toBeGreaterThan(1)
  })
})

describe('going through the text', () => {
  const session = open(
    '<text:p>one two</text:p><text:list><text:list-item><text:p>e\u0301x</text:p>' +
      '</text:list-item></text:list><table:table><table:table-column/>' +
      '<table:table-row><table:table-cell><text:p>cell</text:p></table:table-cell>' +
      '</table:table-row></table:table><text:p>last<draw:frame text:anchor-type="paragraph" ' +
      'svg:width="2cm" svg:height="1cm"><draw:text-box><text:p>framed</text:p>' +
      '</draw:text-box></draw:frame></text:p>',
  )
  const walk = new TextWalk(session.reading)
  const part = 'content.xml'
  const nodes = session.reading.stories
    .flatMap(story => walk.sequence(part, (story.blocks[0] as { node: number }).node))
    .map(paragraph => paragraph.node)

  it('goes by what a reader takes for a letter, over paragraphs and into cells, but not into frames', () => {
    expect(nodes.map(node => walk.text(part, node))).toEqual(['one two', 'e\u0301x', 'cell', 'last\uFFFC'])
    const [one, two, cell] = nodes as [number, number, number]
    expect(walk.move({ part, node: two, offset: 0 }, 'right').offset).toBe(2)
    expect(walk.move({ part, node: two, offset: 2 }, 'left').offset).toBe(0)
    expect(walk.move({ part, node: one, offset: 7 }, 'right')).toEqual({ part, node: two, offset: 0 })
    expect(walk.move({ part, node: cell, offset: 0 }, 'left')).toEqual({ part, node: two, offset: 3 })
    expect(walk.move({ part, node: one, offset: 0 }, 'left')).toEqual({ part, node: one, offset: 0 })
  })

  it('goes by words, and to either end', () => {
    const [one] = nodes as [number]
    expect([
      walk.move({ part, node: one, offset: 0 }, 'word-right').offset,
      walk.move({ part, node: one, offset: 7 }, 'word-left').offset,
    ]).toEqual([3, 4])
    expect(walk.move({ part, node: one, offset: 3 }, 'end')).toEqual({ part, node: nodes.at(-1), offset: 5 })
    expect(walk.word({ part, node: one, offset: 5 })).toEqual({ from: 4, to: 7 })
    expect(walk.word({ part, node: one, offset: 3 })).toEqual({ from: 3, to: 4 })
  })

  it('tells what lies between two places, in whichever order they are given', () => {
    const [one, two, cell] = nodes as [number, number, number]
    const forward = walk.ranges({ part, node: one, offset: 4 }, { part, node: cell, offset: 2 })
    expect(forward).toEqual([
      { part, node: one, from: 4, to: 7, through: true },
      { part, node: two, from: 0, to: 3, through: true },
      { part, node: cell, from: 0, to: 2, through: false },
    ])
    expect(walk.ranges({ part, node: cell, offset: 2 }, { part, node: one, offset: 4 })).toEqual(forward)
    const framed = session.reading.stories[0]!.blocks.at(-1)
    const inner = framed?.kind === 'paragraph' ? framed.inlines.find(inline => inline.kind === 'frame') : undefined
    const node =
      inner?.kind === 'frame' && inner.frame.blocks[0]?.kind === 'paragraph' ? inner.frame.blocks[0].node : -1
    expect(walk.ranges({ part, node: one, offset: 0 }, { part, node, offset: 1 })).toEqual([])
  })
})

describe('text with values of its page', () => {
  it('is pointed at as the file has it: a field is one thing', () => {
    const page = displayPage(
      sessionOf({
        stylesAutomatic: smallPage,
        masters: standardMaster(
          '<style:header><text:p>Side <text:page-number>123456</text:page-number> here</text:p></style:header>',
        ),
        body: '<text:p>a</text:p>',
      }).composition.pages[0]!,
    )
    const line = page.lines.find(each => each.part === 'styles.xml')!
    expect([line.start, line.end]).toEqual([0, 'Side 123456 here'.length])
    const here = page.runs.find(run => run.text.includes('here'))!
    expect(here.start + here.text.indexOf('here')).toBe('Side 123456 '.length)
    expect(spotAt(page, line.x + line.width + 20, line.baseline)!.offset).toBe(line.end)
  })
})

describe('drawn text', () => {
  it('keeps click and caret together wherever frames lie', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 5 }),
        fc.integer({ min: 0, max: 8 }),
        fc.integer({ min: 0, max: 11 }),
        (x, y, offset) => {
          const page = displayPage(
            drawingOf({ pages: drawnPage(textFrame(shapeAt(x, y, 4, 1), '<text:p>Tern Holm</text:p>')) }).composition
              .pages[0]!,
          )
          const line = page.lines[0]!
          const spot = { part: line.part, node: line.node, offset: Math.min(offset, 9) }
          const box = caretBox(page, spot)!
          expect(spotAt(page, box.x + 0.01, box.y + 2)).toEqual(spot)
        },
      ),
      { numRuns: 25 },
    )
  })
})
