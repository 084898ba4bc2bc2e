import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { applyEdit, type Edit } from '../../../core/document/edits'
import { saveDocument, type OdfDocument } from '../../../core/document/open'
import { readFrameText } from '../../../core/style/frame-text'
import { DocumentSession } from '../../../core/session'
import { displayPage } from '../../../core/typeset/display'
import { boundsOf } from '../../../core/typeset/matrix'
import { galleyMenu } from '../../../demo/galley-menu'
import { drawingOf, drawnPage, graphicStyle, session, sessionOf, shapeAt, textFrame } from '../../support/fixtures'

const part = 'content.xml'
const centimetre = 72 / 2.54
const node = (document: OdfDocument, name: string, at = 0) =>
  [...document.parts.get(part)!.descendants()].filter(each => each.name === name)[at]!.id

/** Makes an edit, checks that its inverse gives the bytes back, and gives the session after it. */
function edited(open: DocumentSession, wish: Edit): { session: DocumentSession; made: number | null } {
  const before = saveDocument(open.document)
  const done = applyEdit(open.document, wish, open.document.parts.get(part)!.nextId)
  expect(Buffer.compare(saveDocument(applyAll(done.document, done.inverse).document), before)).toBe(0)
  return { session: new DocumentSession(done.document, open.typesetter, open), made: done.made }
}
const place = (open: DocumentSession, id: number, page = 0) => {
  const frame = displayPage(open.composition.pages[page]!).frames.find(each => each.node === id)!
  const at = frame.matrix ? boundsOf(frame.matrix, frame) : frame
  return { x: at.x, y: at.y, width: frame.width, height: frame.height }
}
const rounded = (box: { x: number; y: number; width: number; height: number }) =>
  [box.x, box.y, box.width, box.height].map(value => Math.round(value))
const moved = (open: DocumentSession, id: number, to: { x: number; y: number; width: number; height: number }) =>
  edited(open, { type: 'place-frame', part, node: id, from: place(open, id), to }).session

describe('frames', () => {
  it('go where they are put, whatever way the file places them', () => {
    const shapes: readonly (readonly [string, string])[] = [
      ['draw:rect', `<draw:rect ${shapeAt(1, 1, 2, 2)}/>`],
      ['draw:frame', textFrame(shapeAt(1, 1, 2, 2), '<text:p>a</text:p>')],
      ['draw:circle', '<draw:circle svg:cx="2cm" svg:cy="2cm" svg:r="1cm"/>'],
      ['draw:rect', '<draw:rect svg:width="2cm" svg:height="2cm" draw:transform="translate (1cm 1cm)"/>'],
    ]
    for (const [name, shape] of shapes) {
      const open = drawingOf({ pages: drawnPage(shape) })
      const id = node(open.document, name)
      const from = place(open, id)
      expect(rounded(from), shape).toEqual([centimetre, centimetre, 2 * centimetre, 2 * centimetre].map(Math.round))
      const target = { x: from.x + 40, y: from.y + 10, width: from.width, height: from.height }
      expect(rounded(place(moved(open, id, target), id)), shape).toEqual(rounded(target))
    }
  })

  it('take another size, and their text is set anew in it', () => {
    const open = drawingOf({
      pages: drawnPage(textFrame(shapeAt(1, 1, 3, 3), '<text:p>one two three four five six</text:p>')),
    })
    const id = node(open.document, 'draw:frame')
    const before = displayPage(open.composition.pages[0]!).lines.length
    const after = moved(open, id, { ...place(open, id), width: 8 * centimetre, height: 3 * centimetre })
    expect(displayPage(after.composition.pages[0]!).lines.length).toBeLessThan(before)
    expect(rounded(place(after, id))[2]).toBe(Math.round(8 * centimetre))
  })

  it('that are round lie where they are put when they grow, and rounded corners stay as they are', () => {
    const open = drawingOf({
      pages: drawnPage(
        '<draw:circle svg:cx="2cm" svg:cy="2cm" svg:r="1cm"/><draw:ellipse svg:cx="5cm" svg:cy="3cm" svg:rx="1cm" ' +
          `svg:ry="2cm"/><draw:rect ${shapeAt(6, 6, 2, 2)} svg:rx="3pt" svg:ry="3pt"/>`,
      ),
    })
    for (const name of ['draw:circle', 'draw:ellipse', 'draw:rect']) {
      const id = node(open.document, name)
      const from = place(open, id)
      const target = { x: from.x + 12, y: from.y, width: from.width * 1.5, height: from.height + 20 }
      const after = moved(open, id, target)
      expect(rounded(place(after, id)), name).toEqual(rounded(target))
      const grown = moved(open, id, { ...from, width: from.width + 30 })
      expect(rounded(place(grown, id)), name).toEqual(rounded({ ...from, width: from.width + 30 }))
      if (name === 'draw:rect')
        expect(after.document.parts.get(part)!.element(id).attributes).toMatchObject({
          'svg:rx': '3pt',
          'svg:ry': '3pt',
        })
    }
  })

  it('that are turned keep their turn; groups and lines move whole', () => {
    const open = drawingOf({
      pages: drawnPage(
        `<draw:rect svg:width="2cm" svg:height="1cm" draw:transform="rotate (0.5) translate ` +
          `(3cm 3cm)"/><draw:g><draw:rect ${shapeAt(5, 5, 1, 1)}/><draw:line svg:x1="6cm" ` +
          `svg:y1="6cm" svg:x2="7cm" svg:y2="8cm"/></draw:g>`,
      ),
    })
    const id = node(open.document, 'draw:rect')
    const from = place(open, id)
    const after = place(moved(open, id, { ...from, x: from.x + 20, y: from.y - 5 }), id)
    expect([after.x - from.x, after.y - from.y].map(value => Math.round(value * 10) / 10)).toEqual([20, -5])
    const group = node(open.document, 'draw:g')
    const line = node(open.document, 'draw:line')
    const shifted = edited(open, {
      type: 'place-frame',
      part,
      node: group,
      from: { x: 0, y: 0, width: 1, height: 1 },
      to: { x: 10, y: 0, width: 1, height: 1 },
    }).session
    expect(place(shifted, line).x - place(open, line).x).toBeCloseTo(10, 3)
    expect(() =>
      edited(open, {
        type: 'place-frame',
        part,
        node: group,
        from: { x: 0, y: 0, width: 1, height: 1 },
        to: { x: 0, y: 0, width: 5, height: 1 },
      }),
    ).toThrow('size of a group')
    expect(() =>
      edited(open, {
        type: 'place-frame',
        part,
        node: line,
        from: { x: 0, y: 0, width: 1, height: 1 },
        to: { x: 0, y: 0, width: 5, height: 1 },
      }),
    ).toThrow('has ends')
  })

  it('get columns and insets of their own, and no other frame does', () => {
    const words = `<text:p>${'word '.repeat(60)}</text:p>`
    const open = drawingOf({
      pages: drawnPage(
        textFrame(shapeAt(0, 0, 10, 4), words, 'draw:style-name="s"') +
          textFrame(shapeAt(0, 5, 10, 4), words, 'draw:style-name="s"'),
      ),
      automatic: graphicStyle('s', 'draw:auto-grow-height="false" fo:padding="0cm"'),
    })
    const [one, two] = [node(open.document, 'draw:frame'), node(open.document, 'draw:frame', 1)]
    const { session: after } = edited(open, {
      type: 'frame-text',
      part,
      node: one,
      text: { columns: 2, gap: 20, inset: 10 },
    })
    const scope = after.reading.cascade.scope(part)
    expect(readFrameText(scope, one)).toEqual({ columns: 2, gap: 20, inset: 10, next: null })
    expect(readFrameText(scope, two)).toMatchObject({ columns: 1, inset: 0 })
    const xs = displayPage(after.composition.pages[0]!)
      .lines.filter(line => line.y < 4 * centimetre)
      .map(line => Math.round(line.x))
    expect([...new Set(xs)]).toEqual([10, Math.round(10 + (10 * centimetre - 20 - 20) / 2 + 20)])
    // And back to one.
    const single = edited(after, {
      type: 'frame-text',
      part,
      node: one,
      text: { columns: 1, gap: 0, inset: 0 },
    }).session
    expect(readFrameText(single.reading.cascade.scope(part), one)).toMatchObject({ columns: 1, inset: 0 })
  })

  it('are put on pages and at paragraphs, with what new text starts with', () => {
    const open = drawingOf({ pages: drawnPage('<presentation:notes style:page-layout-name="pm"/>') })
    const { session: after, made } = edited(open, {
      type: 'add-frame',
      part,
      node: node(open.document, 'draw:page'),
      place: { x: 20, y: 30, width: 100, height: 50 },
      text: { columns: 2, gap: 10, inset: 5 },
    })
    expect(rounded(place(after, made!))).toEqual([20, 30, 100, 50])
    const paragraph = [...after.document.parts.get(part)!.descendants()].find(each => each.name === 'text:p')!.id
    const typed = edited(after, { type: 'text', part, node: paragraph, from: 0, to: 0, text: 'begins' }).session
    expect(displayPage(typed.composition.pages[0]!).runs[0]).toMatchObject({ text: 'begins', size: 10 })
    expect(typed.detail.census.faces[0]!.family).toBe('Spectral')

    const text = sessionOf({ body: '<text:p>anchor</text:p>' })
    const { session: framed, made: id } = edited(text, {
      type: 'add-frame',
      part,
      node: node(text.document, 'text:p'),
      place: { x: 60, y: 70, width: 80, height: 40 },
      text: { columns: 1, gap: 0, inset: 0 },
    })
    expect(rounded(place(framed, id!))).toEqual([60, 70, 80, 40])
    expect(() =>
      edited(text, {
        type: 'add-frame',
        part,
        node: node(text.document, 'office:text'),
        place: { x: 0, y: 0, width: 1, height: 1 },
        text: { columns: 1, gap: 0, inset: 0 },
      }),
    ).toThrow('on a page or at a paragraph')
  })

  it('are chained to empty ones, never in a ring, and healed when one between goes', () => {
    const lines = Array.from({ length: 20 }, (_, at) => `<text:p>line ${at}</text:p>`).join('')
    const box = (y: number, inside: string) =>
      textFrame(shapeAt(0, y, 5, 2), inside, `draw:name="F${y}" draw:style-name="c"`)
    let open = drawingOf({
      pages: drawnPage(box(0, lines) + box(3, '<text:p/>') + box(6, '<text:p/>')),
      automatic: graphicStyle('c', 'draw:auto-grow-height="false"'),
    })
    const [a, b, c] = [0, 1, 2].map(at => node(open.document, 'draw:frame', at)) as [number, number, number]
    const chain = (from: number, next: number | null) => edited(open, { type: 'chain', part, node: from, next }).session
    expect(() => chain(b, a)).toThrow('text of its own')
    expect(() => chain(a, a)).toThrow('to itself')
    open = chain(a, b)
    expect(() => chain(c, b)).toThrow('goes on in that one already')
    open = chain(b, c)
    expect(() => chain(c, b)).toThrow()
    const page = () => displayPage(open.composition.pages[0]!)
    const inside = (top: number) =>
      page().lines.filter(line => line.y >= top * centimetre && line.y < (top + 2) * centimetre + 1).length
    expect(inside(3)).toBeGreaterThan(2)
    expect(inside(6)).toBeGreaterThan(2)
    open = edited(open, { type: 'remove-frame', part, node: b }).session
    expect(readFrameText(open.reading.cascade.scope(part), a).next).toBe('F6')
    expect(inside(6)).toBeGreaterThan(2)
    expect(readFrameText(chain(a, null).reading.cascade.scope(part), a).next).toBeNull()
  })
})

describe('pages', () => {
  const open = session(galleyMenu())
  const names = (of: DocumentSession) => of.composition.pages.map(page => page.name)
  it('are added, moved and taken away, each in one change', () => {
    const first = node(open.document, 'draw:page')
    const { session: added, made } = edited(open, { type: 'add-page', part, node: first })
    expect(names(added)).toEqual(['Outside', 'Page 1', 'Inside'])
    expect(added.composition.pages[1]!.geometry.master).toBe('Sheet')
    expect(names(edited(added, { type: 'move-page', part, node: made!, to: 2 }).session)).toEqual([
      'Outside',
      'Inside',
      'Page 1',
    ])
    expect(names(edited(added, { type: 'move-page', part, node: made!, to: 0 }).session)).toEqual([
      'Page 1',
      'Outside',
      'Inside',
    ])
    expect(names(edited(added, { type: 'remove-page', part, node: first }).session)).toEqual(['Page 1', 'Inside'])
    expect(() => edited(added, { type: 'move-page', part, node: made!, to: 9 })).toThrow('pages 1 to 3')
  })

  it('of a text come of its words, and the last one stays', () => {
    const text = sessionOf({ body: '<text:p>a</text:p>' })
    expect(() => edited(text, { type: 'add-page', part, node: node(text.document, 'text:p') })).toThrow(
      'come of its words',
    )
    const single = drawingOf({ pages: drawnPage('') })
    expect(() => edited(single, { type: 'remove-page', part, node: node(single.document, 'draw:page') })).toThrow(
      'the only page',
    )
  })
})
