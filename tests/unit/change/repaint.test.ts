import { describe, expect, it } from 'vitest'
import { NothingToPlan } from '../../../core/change/plan'
import { namedColors } from '../../../core/document/colours'
import { saveDocument } from '../../../core/document/open'
import { readRules } from '../../../core/document/rules'
import { paletteOf } from '../../../core/change/repaint/house-paint'
import type { House } from '../../../core/house/house'
import { paintsOf, proposePaints, usedColors } from '../../../core/house/house-paints'
import { saltmereLine, winterService } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { distanceOf } from '../../../core/colour/oklch'
import { applyAll } from '../../../core/document/apply'
import { drawingOf, drawnPage, graphicStyle, session, sessionOf, shapeAt, textFrame } from '../../support/fixtures'
import { planned, quickly, request } from '../../support/planning'
import { registry } from '../../../core/change/registry'

const teal = '#1f6f6b'
const navy = '#123456'
const paint = (from: string, to: string, ...on: string[]) => ({ type: 'repaint', paints: [{ from, to, on }] })
const all = ['text', 'fill', 'line', 'ground', 'series']

/** Colours that a document names, by what they are on. */
const told = (of: ReturnType<typeof session>) => [...namedColors(of.document)].map(each => `${each.on} ${each.color}`)

const drawing = () =>
  drawingOf({
    pages: drawnPage(
      `<draw:rect draw:style-name="G" ${shapeAt(10, 10, 80, 40)}><text:p>Pier</text:p></draw:rect>` +
        textFrame(shapeAt(10, 60, 80, 40), '<text:p text:style-name="P">Quay</text:p>'),
    ),
    automatic:
      graphicStyle(
        'G',
        `draw:fill="solid" draw:fill-color="${teal}" draw:stroke="solid" svg:stroke-color="${teal.toUpperCase()}"`,
        `fo:color="${teal}"`,
        `fo:background-color="${teal}" fo:border="0.5pt solid ${teal}"`,
      ) +
      '<style:style style:name="P" style:family="paragraph"><style:text-properties fo:color="#000000"/></style:style>',
  })

describe('colours that a document names', () => {
  it('are known by what they are on, whatever the letters they are written in', () => {
    expect(
      told(drawing())
        .filter(each => each.includes(teal))
        .sort(),
    ).toEqual([`fill ${teal}`, `ground ${teal}`, `line ${teal}`, `line ${teal}`, `text ${teal}`])
  })

  it('are found in defaults, masters, cells, page layouts and fills, and nowhere in text', () => {
    const open = sessionOf({
      body: '<text:p>#1f6f6b is a colour</text:p><text:p text:style-name="C">x</text:p>',
      styles:
        '<style:default-style style:family="graphic"><style:graphic-properties draw:fill-color="#1f6f6b"/></style:default-style>' +
        '<draw:gradient draw:name="g" draw:style="linear" draw:start-color="#1f6f6b" draw:end-color="#ffffff"/>' +
        '<draw:hatch draw:name="h" draw:style="single" draw:color="#1f6f6b" draw:distance="1mm"/>',
      automatic:
        '<style:style style:name="C" style:family="table-cell"><style:table-cell-properties ' +
        'fo:border-left="1pt solid #1f6f6b" fo:background-color="transparent"/></style:style>',
    })
    expect(told(open).filter(each => each.includes(teal))).toEqual(
      expect.arrayContaining([`fill ${teal}`, `line ${teal}`]),
    )
    expect(told(open).filter(each => each === `fill ${teal}`)).toHaveLength(3)
    expect(told(open).filter(each => each === `line ${teal}`)).toHaveLength(1)
  })

  it('of charts are those of their series apart from all else', () => {
    const open = session(seasonReview())
    const charts = [...namedColors(open.document)].filter(each => each.part.startsWith('Object'))
    expect(charts.some(each => each.on === 'series')).toBe(true)
    expect(charts.some(each => each.on === 'line')).toBe(true)
  })
})

describe('a colour that gives way to another', () => {
  it('does so on what is asked for alone, and what else a value says stays', () => {
    const { plan, after } = planned(drawing(), [paint(teal, navy, 'line', 'ground')])
    expect(plan.rows.map(row => [row.title, row.count, row.before, row.after])).toEqual([
      [`Lines and borders, ${teal}`, 2, teal, navy],
      [`Grounds, ${teal}`, 1, teal, navy],
    ])
    expect(plan.title).toBe('Paint 3 places in 1 colour')
    const found = told(after)
    expect(found.filter(each => each.endsWith(navy)).sort()).toEqual([`ground ${navy}`, `line ${navy}`, `line ${navy}`])
    expect(found).toContain(`fill ${teal}`)
    expect(found).toContain(`text ${teal}`)
    const part = after.document.parts.get('content.xml')!
    const border = [...part.descendants()].find(each => 'fo:border' in each.attributes)!
    expect(border.attributes['fo:border']).toBe(`0.5pt solid ${navy}`)
  })

  it('may be left out thing by thing, moves no line, and is undone to the byte', () => {
    const open = session(seasonReview())
    const wish = paint('#1f6f6b', navy, ...all)
    const whole = planned(open, [wish])
    expect(whole.plan.effects!.pagesAfter).toBe(whole.plan.effects!.pagesBefore)
    const row = whole.plan.rows[0]!
    const { plan, after } = planned(open, [wish], [row.key])
    expect(plan.rows[0]!.included).toBe(false)
    expect(plan.places).toBe(whole.plan.places - row.count)
    const { document } = applyAll(after.document, applyAll(open.document, plan.operations).inverse)
    expect(saveDocument(document)).toEqual(saveDocument(open.document))
  })

  it('is painted once where two speak of it, and paints in turn do not run into each other', () => {
    const wish = {
      type: 'repaint',
      paints: [
        { from: teal, to: '#000000', on: all },
        { from: '#000000', to: navy, on: all },
        { from: teal, to: '#ffffff', on: all },
      ],
    }
    const found = told(quickly(drawing(), wish).after)
    expect(found.filter(each => each.endsWith('#ffffff'))).toEqual([])
    expect(found.filter(each => each.endsWith('#000000'))).toHaveLength(5)
    expect(found).toContain(`text ${navy}`)
  })

  it('is refused where it is named nowhere, and where it is no colour', () => {
    expect(() => quickly(drawing(), paint('#abcdef', navy, 'fill'))).toThrow(NothingToPlan)
    expect(() => quickly(drawing(), paint(teal, teal, 'fill'))).toThrow(NothingToPlan)
    for (const wrong of ['teal', '#12345', '#1234567', 'url(#1f6f6b)'])
      expect(() => request([paint(wrong, navy, 'fill')])).toThrow()
    expect(() => request([paint(teal, navy)])).toThrow()
  })

  it('is told in one sentence before anything is known of a document', () => {
    expect(registry.sentences(request([paint(teal, navy, 'fill', 'series')]))).toEqual([
      `Put ${navy} for ${teal} (fills of shapes, series of charts).`,
    ])
  })
})

describe('colours of a house over many documents', () => {
  const painted = (house: House) => ({ type: 'house-paint', house: paletteOf(house) })
  const dressed = (house: House, version: number) => ({
    type: 'dress',
    house,
    of: { house: `00000000-0000-4000-8000-00000000000${version}`, version },
  })
  /** The colours of shapes, lines, grounds and charts, as often as they are named. */
  const colours = (of: ReturnType<typeof session>) =>
    told(of)
      .filter(each => !each.startsWith('text'))
      .sort()
  const into = (of: ReturnType<typeof session>, house: House, version: number) =>
    registry.plan(of, request([painted(house), dressed(house, version)]), { effects: false, partly: true }).after

  it('are proposed for each, by what they did in the house it was dressed in, which it knows itself', () => {
    const first = into(session(seasonReview()), saltmereLine, 1)
    expect(readRules(first.document).house!.palette).toHaveLength(saltmereLine.palette.length)
    const other = into(first, winterService, 2)
    expect(colours(first).filter(each => /#(1f6f6b|b4361e)$/.test(each))).not.toEqual([])
    expect(colours(other).filter(each => /#(1f6f6b|b4361e)$/.test(each))).toEqual([])
    // The colours of the house come back to the letter, tints of them as near as nobody sees.
    const again = session(saveDocument(into(other, saltmereLine, 3).document))
    const pairs = colours(again).map((each, at) => [each.split(' '), colours(first)[at]!.split(' ')] as const)
    expect(colours(again)).toHaveLength(colours(first).length)
    for (const [[on, color], [was, before]] of pairs) {
      expect(on).toBe(was)
      expect(distanceOf(color!, before!)).toBeLessThan(0.005)
    }
  })

  it('are the nearest where the document was in no house', () => {
    const deck = session(seasonReview())
    const alone = paintsOf(proposePaints(usedColors(namedColors(deck.document)), winterService, null))
    const { plan } = planned(deck, [painted(winterService)])
    expect(plan.rows.map(row => row.after)).toEqual(
      planned(deck, [{ type: 'repaint', paints: alone }]).plan.rows.map(row => row.after),
    )
    expect(plan.sentences[0]).toContain('the colours of the house Saltmere Winter Service')
  })

  it('ask nothing of a document that names none of them', () => {
    const plain = sessionOf({ body: '<text:p>Pier</text:p>' })
    expect(() => planned(plain, [painted(saltmereLine)])).toThrow(NothingToPlan)
    const partly = registry.plan(
      plain,
      request([painted(saltmereLine), { type: 'make', family: 'paragraph', displayName: 'Quay', changes: {} }]),
      { partly: true },
    )
    expect(partly.plan.request.wishes.map(wish => wish.type)).toEqual(['make'])
  })
})
