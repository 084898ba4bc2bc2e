import { describe, expect, it } from 'vitest'
import { NothingToPlan } from '../../../core/change/plan'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import type { DocumentSession } from '../../../core/session'
import { saltmereLine } from '../../../demo/houses'
import { drawingOf, drawnPage, graphicStyle, paragraphStyle, shapeAt, textStyle } from '../../support/fixtures'
import { looksByChance, looksOf } from '../../support/looks'
import { planned, quickly } from '../../support/planning'

const drawUp = (more: object = {}) => ({ type: 'draw-up', ...more })
const settled = (of: DocumentSession) => of.detail.census.settled
const cellStyles = (of: DocumentSession) =>
  [...of.reading.cascade.scope('content.xml').common.values()].filter(style => style.family === 'table-cell')

/** A cell style: what it says of itself, of text and of paragraphs. */
const cellStyle = (name: string, text: string, paragraph = '', more = '', cell = 'fo:padding="1mm"') =>
  `<style:style style:name="${name}" style:family="table-cell"${more}>` +
  (cell && `<style:table-cell-properties ${cell}/>`) +
  `${paragraph && `<style:paragraph-properties ${paragraph}/>`}<style:text-properties ${text}/></style:style>`
const cell = (style: string, inside: string) =>
  `<table:table-cell${style && ` table:style-name="${style}"`}>${inside}</table:table-cell>`
const table = (rows: readonly (readonly string[])[], more = '', row = '') =>
  `<draw:frame ${shapeAt(1, 1, 8, 4)}><table:table${more}>${rows[0]!.map(() => '<table:table-column/>').join('')}` +
  `${rows.map(cells => `<table:table-row${row}>${cells.join('')}</table:table-row>`).join('')}</table:table></draw:frame>`

/** Sailings as somebody sets them by hand: a head, rows of one look, one of them in another colour. */
const timetable = (more = '') =>
  drawingOf({
    styles:
      graphicStyle('standard', 'draw:fill="none"', 'fo:font-family="Skerrow" fo:font-size="18pt"') +
      cellStyle('default', 'fo:font-size="12pt"', '', '', '') +
      cellStyle('tide', 'fo:color="#1f6f6b"', '', ' style:parent-style-name="default"', '') +
      '<table:table-template table:name="Tides"><table:first-row table:style-name="tide"/>' +
      '<table:body table:style-name="default"/></table:table-template>',
    automatic:
      cellStyle('ce1', 'fo:font-family="Jost" fo:font-size="14pt"', 'fo:text-align="center"', more) +
      cellStyle('ce2', 'fo:font-family="Spectral" fo:font-size="11pt"', 'fo:border="1pt solid #000000"', more) +
      textStyle('T1', 'fo:color="#b4361e"'),
    pages: drawnPage(
      table(
        [
          [cell('ce1', '<text:p>Pier</text:p>'), cell('ce1', '<text:p>Sails at</text:p>')],
          [cell('ce2', '<text:p>Kelda</text:p>'), cell('ce2', '<text:p>08:15</text:p>')],
          [
            cell('ce2', '<text:p>Rona</text:p>'),
            cell('ce2', '<text:p>09:40 and 16:10 <text:span text:style-name="T1">Sundays</text:span></text:p>'),
          ],
        ],
        ' table:template-name="Tides" table:use-first-row-styles="true"',
      ),
    ),
  })

describe('drawing up the tables of a deck', () => {
  it('makes a cell style of each voice, named by what it is for, and nothing looks otherwise', () => {
    const before = timetable()
    const { plan, after } = planned(before, [drawUp()])
    expect(settled(before)).toBe(0)
    expect(settled(after)).toBeGreaterThan(0.8)
    expect(looksOf(after)).toEqual(looksOf(before))
    expect(plan.effects).toMatchObject({ paragraphsChanged: 0 })
    expect(plan.rows.map(({ title, count, after: says, key }) => [title, count, says, key.family])).toEqual([
      ['Table text', 4, 'cell style Table text', 'table-cell'],
      ['Table head', 2, 'cell style Table head', 'table-cell'],
    ])
    const made = cellStyles(after).filter(style => style.displayName.startsWith('Table'))
    expect(made.map(style => [style.displayName, style.paragraph])).toEqual([
      ['Table text', {}],
      ['Table head', { 'fo:text-align': 'center' }],
    ])
    expect(after.reading.cascade.rules.styles.map(each => [each.style.family, each.role]).sort()).toEqual([
      ['table-cell', 'data'],
      ['table-cell', 'label'],
    ])
  })

  it('leaves cells what is theirs: borders and padding stay by hand, the one word in another colour, too', () => {
    const { after } = quickly(timetable(), drawUp())
    const own = [...after.reading.cascade.scope('content.xml').automatic.values()]
    const cells = own.filter(style => style.family === 'table-cell')
    expect(cells.map(({ text, paragraph, cell: of }) => [text, paragraph, of])).toEqual([
      [{}, { 'fo:border': '1pt solid #000000' }, { 'fo:padding': '1mm' }],
      [{}, {}, { 'fo:padding': '1mm' }],
    ])
    expect(own.filter(style => style.family === 'text').map(style => style.text)).toEqual([{ 'fo:color': '#b4361e' }])
  })

  it('takes empty cells along that look like those with text, and makes no style for them alone', () => {
    const before = drawingOf({
      automatic:
        cellStyle('ce1', 'fo:font-family="Jost" fo:font-size="14pt"', 'fo:text-align="center"') +
        cellStyle('ce2', 'fo:font-family="Spectral" fo:font-size="30pt"') +
        paragraphStyle('P1', '', 'fo:text-align="end"'),
      pages: drawnPage(
        table([
          [cell('ce1', '<text:p>Kelda</text:p>'), cell('ce1', '<text:p/>')],
          [cell('ce1', '<text:p text:style-name="P1"/>'), cell('ce2', '<text:p/>')],
        ]),
      ),
    })
    const { plan, after } = quickly(before, drawUp())
    expect(looksOf(after)).toEqual(looksOf(before))
    expect(plan.rows.map(row => [row.title, row.count])).toEqual([['Table head', 1]])
    const own = [...after.reading.cascade.scope('content.xml').automatic.values()]
    const cells = own.filter(style => style.family === 'table-cell')
    expect(cells.map(({ parentName, text }) => [parentName, text['fo:font-size'] ?? ''])).toEqual([
      [null, '30pt'],
      ['Table_20_head', ''],
    ])
  })

  it('goes back to the named style that cells have, and takes what it made before', () => {
    const before = timetable(' style:parent-style-name="default"')
    const { plan, after } = quickly(before, drawUp())
    expect(looksOf(after)).toEqual(looksOf(before))
    const made = cellStyles(after).filter(style => style.displayName.startsWith('Table'))
    const text = made.find(style => style.displayName === 'Table text')!
    expect(text.parentName).toBe('default')
    expect(() => quickly(after, drawUp())).toThrow(NothingToPlan)
    const { document, inverse } = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(document, inverse).document)).toEqual(saveDocument(before.document))
  })

  it('lets a voice of cells be left out while frames of the same look get their style', () => {
    const voiced = 'fo:font-family="Jost" fo:font-size="14pt"'
    const before = drawingOf({
      automatic: cellStyle('ce1', voiced) + graphicStyle('gr1', '', voiced),
      pages: drawnPage(
        table([[cell('ce1', '<text:p>Kelda</text:p>')], [cell('ce1', '<text:p>Rona</text:p>')]]) +
          `<draw:frame ${shapeAt(1, 6, 8, 2)} draw:style-name="gr1"><draw:text-box><text:p>Piers</text:p></draw:text-box></draw:frame>`,
      ),
    })
    const { rows } = quickly(before, drawUp()).plan
    const families = rows.map(row => row.key.family)
    expect(families.sort()).toEqual(['graphic', 'table-cell'])
    expect(new Set(rows.map(row => row.key.voice)).size).toBe(1)
    const left = rows.find(row => row.key.family === 'table-cell')!.key
    const { after, plan } = planned(before, [drawUp()], [left], { effects: false })
    expect(plan.made.map(each => each.family)).toEqual(['graphic'])
    expect(cellStyles(after)).toEqual([])
    expect(looksOf(after)).toEqual(looksOf(before))
  })

  it('lets cells take a style that is there, or the voice of others, with their emphasis kept', () => {
    const before = timetable()
    const { rows } = quickly(before, drawUp()).plan
    const voice = (title: string) => String(rows.find(row => row.title === title)!.key.voice)
    const head = { family: 'table-cell', voice: voice('Table head') }
    const taken = quickly(before, drawUp({ choices: [{ ...head, into: { kind: 'style', name: 'tide' } }] }))
    expect(taken.plan.made.map(each => each.displayName)).toEqual(['Table text'])
    const faces = (of: DocumentSession) => of.detail.census.faces.map(each => each.family).sort()
    expect(faces(before)).toEqual(['Jost', 'Spectral'])
    expect(faces(taken.after)).toEqual(['Spectral'])
    // Heads stand on a style of their template that says a colour, which the voice of all others does not have.
    const one = quickly(before, drawUp({ choices: [{ ...head, into: { kind: 'voice', voice: voice('Table text') } }] }))
    expect(one.plan.rows.map(row => [row.title, row.count])).toEqual([['Table text', 4]])
    expect(one.plan.left).toEqual([
      { what: 'frames and cells', reason: 'what they stand on cannot be said by a style', count: 2 },
    ])
    const text = { family: 'table-cell', voice: voice('Table text') }
    const other = quickly(before, drawUp({ choices: [{ ...text, into: { kind: 'voice', voice: head.voice } }] }))
    expect(other.plan.made).toHaveLength(1)
    expect(faces(other.after)).toEqual(['Jost'])
    const gone = [{ ...head, into: { kind: 'style', name: 'Gone' } }]
    expect(() => quickly(before, drawUp({ choices: gone }))).toThrow(/no cell style “Gone” any more/)
  })

  it('comes before dressing: the table of a deck without styles is brought to a house', () => {
    const { plan, after } = quickly(timetable(), { type: 'dress', house: saltmereLine, drawUp: true })
    // Data and labels of this house are both in Jost.
    expect(after.detail.census.faces.map(face => face.family)).toEqual(['Jost'])
    expect(settled(after)).toBeGreaterThan(0.8)
    // This deck's masters know no placeholders, which is told once.
    expect(plan.left.filter(each => each.what.includes('placeholders'))).toEqual([
      {
        what: 'what new text in placeholders begins with',
        reason: 'the masters have no styles for it',
        count: expect.any(Number) as number,
      },
    ])
  })

  it('changes nothing that is seen, whatever says how cells look', { timeout: 60_000 }, () => {
    const { random, pick, text, paragraph } = looksByChance(41)
    let drawn = 0
    for (let round = 0; round < 40; round++) {
      const names = (prefix: string) => [1, 2, 3].map(number => `${prefix}${number}`)
      const words = () =>
        ['Sailings by the tide', 'Kelda', '']
          .filter(() => random() < 0.7)
          .map(each => (random() < 0.5 ? `<text:span text:style-name="${pick(names('T'))}">${each}</text:span>` : each))
          .join('')
      const inside = () =>
        Array.from({ length: random() < 0.3 ? 2 : 1 }, () =>
          random() < 0.4
            ? `<text:p text:style-name="${pick(names('P'))}">${words()}</text:p>`
            : `<text:p>${words()}</text:p>`,
        ).join('')
      const cells = () => names('').map(() => cell(pick([...names('ce'), 'body', '']), inside()))
      const template = random() < 0.7 ? ' table:template-name="Tides" table:use-first-row-styles="true"' : ''
      const deck = drawingOf({
        styles:
          graphicStyle('standard', 'draw:fill="none"', text()) +
          cellStyle('body', text(), paragraph(), '', '') +
          cellStyle('tide', text(), '', ' style:parent-style-name="body"', '') +
          '<table:table-template table:name="Tides"><table:first-row table:style-name="tide"/>' +
          '<table:body table:style-name="body"/></table:table-template>',
        automatic:
          names('ce')
            .map((name, at) => cellStyle(name, text(), paragraph(), ['', ' style:parent-style-name="body"', ''][at]))
            .join('') +
          names('P')
            .map(name => paragraphStyle(name, text(), paragraph()))
            .join('') +
          names('T')
            .map(name => textStyle(name, text()))
            .join(''),
        pages: drawnPage(
          table([cells(), cells(), cells()], template, pick(['', ' table:default-cell-style-name="ce2"'])),
        ),
      })
      try {
        const { after } = quickly(deck, drawUp())
        drawn++
        expect(looksOf(after)).toEqual(looksOf(deck))
        expect(settled(after)).toBeGreaterThanOrEqual(settled(deck))
      } catch (error) {
        if (!(error instanceof NothingToPlan)) throw error
      }
    }
    expect(drawn).toBeGreaterThan(25)
  })
})
