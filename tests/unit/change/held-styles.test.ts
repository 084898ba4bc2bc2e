import { describe, expect, it } from 'vitest'
import { styleDetail } from '../../../core/change/styles/style-detail'
import { listStyles } from '../../../core/change/styles/style-list'
import { styledPlaces, styledSample } from '../../../core/desk/styled-text'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { describeHolder } from '../../../core/style/describe'
import { paragraphRuns } from '../../../core/style/runs'
import { crewHandbook } from '../../../demo/crew-handbook'
import { safetyCard } from '../../../demo/safety-card'
import { seasonReview } from '../../../demo/season-review'
import { drawingOf, drawnPage, library, session, shapeAt } from '../../support/fixtures'
import { quickly } from '../../support/planning'

/* Styles of what holds text: placeholders on slides, frames and shapes, cells. */

const review = session(seasonReview())
const list = listStyles(review.reading, library, review.composition)
const of = (name: string) => list.find(style => style.family === 'presentation' && style.name === name)!

describe('styles of placeholders', () => {
  it('are listed with the text that goes by them, parents before children', () => {
    const outline = of('Saltmere-outline1')
    expect(outline.characters).toBeGreaterThan(100)
    expect(outline.pages.length).toBeGreaterThan(1)
    expect(outline.look).toMatchObject({ family: 'Spectral', size: 20 })
    expect(of('Saltmere-outline2').depth).toBe(outline.depth + 1)
    expect(outline).toMatchObject({ role: 'body', proposed: true })
  })

  it('count each paragraph under the one placeholder it stands in', () => {
    const levels = list.filter(style => style.name.startsWith('Saltmere-outline'))
    const places = levels.flatMap(style => styledPlaces(review, 'presentation', style.name))
    expect(places.length).toBe(levels.reduce((sum, style) => sum + style.paragraphs, 0))
    expect(new Set(places.map(place => `${place.part} ${place.node}`)).size).toBe(places.length)
  })

  it('lay open what they say, what they have from where, and words that stand in them', () => {
    const detail = styleDetail(review.reading, 'presentation', 'Saltmere-outline2')!
    expect(detail.parent).toBe('Saltmere-outline1')
    expect(detail.fonts.western.inherited).toMatchObject({ value: 'Spectral', from: 'Saltmere-outline1' })
    expect(styledSample(review, 'presentation', 'Saltmere-outline1').length).toBeGreaterThan(10)
  })

  it('are edited like any other: the slides follow, the file names it, and undoing gives the bytes', () => {
    const bytes = seasonReview()
    const before = session(bytes)
    const { plan, after } = quickly(before, {
      type: 'edit',
      family: 'presentation',
      name: 'Saltmere-outline1',
      changes: {
        fonts: { western: { family: 'Work Sans' } },
        text: { 'fo:font-size': '23pt' },
        holder: { 'draw:fill': 'solid', 'draw:fill-color': '#e7f0ef' },
      },
    })
    expect(plan.rows[0]).toMatchObject({
      key: { what: 'style', family: 'presentation', name: 'Saltmere-outline1' },
      title: 'Placeholder style Saltmere-outline1',
      after: 'Work Sans, 23 pt, ground #e7f0ef',
    })
    const [first] = styledPlaces(after, 'presentation', 'Saltmere-outline1')
    const found = after.reading.stories
      .flatMap(story => paragraphsOf(story.blocks).map(paragraph => ({ paragraph, story })))
      .find(({ paragraph }) => paragraph.part === first!.part && paragraph.node === first!.node)!
    const [run] = paragraphRuns(found.paragraph, after.reading.cascade, found.story.role).runs
    expect(run!.style.effective.slots.western).toMatchObject({ size: 23, font: { family: 'Work Sans' } })
    const look = listStyles(after.reading, library, null).find(each => each.name === 'Saltmere-outline1')!.look
    expect(look).toMatchObject({ family: 'Work Sans', size: 23 })
    const { document, inverse } = applyAll(before.document, plan.operations)
    expect(Buffer.from(saveDocument(applyAll(document, inverse).document))).toEqual(Buffer.from(bytes))
  })

  it('take a face like styles of text', () => {
    const { after } = quickly(review, {
      type: 'set-type',
      to: { family: 'Work Sans' },
      on: { kind: 'style', family: 'presentation', name: 'Saltmere-title' },
      size: 'keep',
    })
    const title = listStyles(after.reading, library, null).find(each => each.name === 'Saltmere-title')!
    expect(title.look.family).toBe('Work Sans')
  })

  it('tell what they are for, proposed or said by hand', () => {
    const roleOf = (of: typeof review, name: string) => {
      const { role, proposed } = listStyles(of.reading, library, null).find(each => each.name === name)!
      return { role, proposed }
    }
    expect(roleOf(review, 'Saltmere-title')).toEqual({ role: 'display', proposed: true })
    // No slide goes so deep.
    expect(roleOf(review, 'Saltmere-outline7')).toEqual({ role: 'body', proposed: true })
    const edit = (of: typeof review, role: string | null) =>
      quickly(of, { type: 'edit', family: 'presentation', name: 'Saltmere-title', changes: { role } }).after
    const said = edit(review, 'heading')
    expect(roleOf(said, 'Saltmere-title')).toEqual({ role: 'heading', proposed: false })
    expect(roleOf(edit(said, null), 'Saltmere-title')).toEqual({ role: 'display', proposed: true })
  })

  it('refuse what only paragraphs have, and text refuses what only frames have', () => {
    const edit = (family: 'presentation' | 'paragraph', name: string, changes: object) => () =>
      quickly(review, { type: 'edit', family, name, changes })
    expect(edit('presentation', 'Saltmere-title', { outlineLevel: 1 })).toThrow(/belong to paragraph styles/)
    const paragraph = list.find(style => style.family === 'paragraph')
    if (paragraph) expect(edit('paragraph', paragraph.name, { holder: { 'draw:fill': 'none' } })).toThrow(/no frame/)
  })
})

describe('styles of frames and cells', () => {
  it('are listed where a drawing or a text has them', () => {
    const card = session(safetyCard())
    const frames = listStyles(card.reading, library, null).filter(style => style.family === 'graphic')
    expect(frames.some(style => style.characters > 0)).toBe(true)
    for (const style of frames) expect(style.settledCharacters).toBeLessThanOrEqual(style.characters)
  })

  it('never count text twice in one family', () => {
    const book = session(crewHandbook())
    const all = listStyles(book.reading, library, null)
    for (const family of ['graphic', 'presentation', 'table-cell'] as const) {
      const places = all
        .filter(style => style.family === family)
        .flatMap(style => styledPlaces(book, family, style.name).map(place => `${place.part} ${place.node}`))
      expect(new Set(places).size).toBe(places.length)
    }
  })

  it('are told in words', () => {
    expect(describeHolder({ 'draw:fill': 'none', 'draw:stroke': 'none' })).toEqual(['no ground', 'no line'])
    expect(describeHolder({ 'fo:background-color': '#ffeecc', 'style:vertical-align': 'middle' })).toEqual([
      'ground #ffeecc',
      'text in the middle',
    ])
    expect(
      describeHolder({ 'svg:stroke-width': '0.035cm', 'svg:stroke-color': '#1b2430', 'fo:padding': '2mm' }),
    ).toEqual(['line 0.99 pt #1b2430', 'text 5.67 pt off the edge'])
    expect(describeHolder({ 'draw:fill': 'gradient' })).toEqual(['ground of a gradient'])
    expect(describeHolder({})).toEqual([])
  })
})

describe('styles of cells', () => {
  it('say which parts of table templates go by them', () => {
    const cell = (name: string, size: number) =>
      `<style:style style:name="${name}" style:family="table-cell"><style:text-properties fo:font-size="${size}pt"/></style:style>`
    const deck = drawingOf({
      pages: drawnPage(
        `<draw:frame ${shapeAt(1, 1, 8, 4)}><table:table table:template-name="Time_20_table" table:use-first-row-styles="true">` +
          '<table:table-column/><table:table-row><table:table-cell><text:p>Pier</text:p></table:table-cell></table:table-row>' +
          '<table:table-row><table:table-cell><text:p>Quay</text:p></table:table-cell></table:table-row></table:table></draw:frame>',
      ),
      styles:
        cell('head', 14) +
        cell('plain', 11) +
        cell('other', 9) +
        '<table:table-template table:name="Time_20_table"><table:first-row table:style-name="head"/>' +
        '<table:body table:style-name="plain"/><table:odd-rows table:style-name="plain"/></table:table-template>',
    })
    const cells = listStyles(deck.reading, library, deck.composition).filter(style => style.family === 'table-cell')
    expect(cells.map(style => [style.name, style.templateParts, style.characters])).toEqual([
      ['head', ['first row of Time table'], 4],
      ['other', [], 0],
      ['plain', ['body of Time table', 'odd rows of Time table'], 4],
    ])
  })
})
