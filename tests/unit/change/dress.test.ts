import { describe, expect, it } from 'vitest'
import { dressSchema } from '../../../core/change/dress/wish'
import { NothingToPlan } from '../../../core/change/plan'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { emptyHouse, houseSchema, type House, type Setting } from '../../../core/house/house'
import { houseFromPair } from '../../../core/house/make-house'
import { colorOfText, measureToStyle } from '../../../core/house/to-style'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { demoDocuments } from '../../../demo/documents'
import {
  drawingOf,
  drawnMaster,
  drawnPage,
  graphicStyle,
  paragraphStyle,
  session as open,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { planned, quickly } from '../../support/planning'

const houseOf = (roles: Readonly<Record<string, Setting>>, more: Partial<House> = {}): House =>
  houseSchema.parse({
    ...emptyHouse('House A'),
    ...more,
    roles: emptyHouse('x').roles.map(role => ({
      ...role,
      text: roles[role.id] ?? {},
      ...(more.roles?.find(each => each.id === role.id) ?? {}),
    })),
  })
const dress = (house: House, more: object = {}) => ({ type: 'dress', house, ...more })
const looks = (of: DocumentSession) =>
  of.reading.stories.flatMap(story =>
    paragraphsOf(story.blocks).flatMap(paragraph =>
      paragraphRuns(paragraph, of.reading.cascade, story.role).runs.map(run => {
        const { font, size, weight, posture } = run.style.effective.slots[run.slot]
        return `${font.family} ${Math.round(size * 100) / 100} ${weight}${posture === 'normal' ? '' : ' italic'}`
      }),
    ),
  )
const words = 'Two boats a day sail to every pier of the outer islands, weather and the post allowing. '
const guide = () =>
  sessionOf({
    styles:
      paragraphStyle('Base', 'fo:font-family="Spectral" fo:font-size="10pt"', 'fo:line-height="14pt"') +
      paragraphStyle('Text_20_one', '', '', ' style:parent-style-name="Base"') +
      paragraphStyle('Caption', '', 'fo:margin-top="1mm"', ' style:parent-style-name="Base"') +
      paragraphStyle('Aside', '', '', ' style:parent-style-name="Text_20_one"') +
      textStyle('Strong', 'fo:font-family="Spectral SemiBold" fo:font-size="10pt"'),
    automatic:
      paragraphStyle('P1', 'fo:font-size="9.6pt"', 'fo:text-indent="3mm"', ' style:parent-style-name="Text_20_one"') +
      textStyle('T1', 'fo:font-style="italic" fo:color="#ff0000"'),
    body:
      `<text:p text:style-name="Text_20_one">${words}<text:span text:style-name="Strong">now</text:span></text:p>` +
      `<text:p text:style-name="P1">${words}<text:span text:style-name="T1">Skerry</text:span></text:p>` +
      `<text:p text:style-name="Caption">Figure 1: a pier</text:p><text:p text:style-name="Aside">aside</text:p>`,
  })
const a = houseOf({
  body: {
    family: 'Literata',
    size: 11,
    weight: 400,
    italic: false,
    leading: { value: 150, unit: 'percent' },
    after: 4,
  },
  caption: { family: 'Jost', size: 8, weight: 500 },
})
const roles = [
  { style: { family: 'paragraph', name: 'Text_20_one' }, role: 'body' },
  { style: { family: 'paragraph', name: 'Caption' }, role: 'caption' },
  { style: { family: 'paragraph', name: 'Aside' }, role: null },
]

describe('dressing a document', () => {
  it('asks for a house without its frames: plans that are kept stay small', () => {
    const piece = { frame: '<draw:frame/>', width: 90, height: 40, automatic: [], styles: [] }
    const framed = houseSchema.parse({ ...emptyHouse('Quay'), frames: [{ name: 'Box', piece }] })
    const wish = dressSchema.parse(dress(framed))
    expect(wish.house).toEqual({ ...framed, frames: [] })
    expect(framed.frames.length).toBe(1)
  })

  it('sets each role as its house says: what shared a font but not a role comes apart', () => {
    const { after } = quickly(guide(), dress(a, { roles }))
    expect(looks(after)).toEqual([
      'Literata 11 400',
      'Literata 11 600',
      'Literata 11 400',
      'Literata 11 400 italic',
      'Jost 8 500',
      'Spectral 10 400',
    ])
    const { properties } = after.reading.cascade.paragraph(paragraphsOf(after.reading.stories[0]!.blocks)[1]!)
    expect(properties).toMatchObject({ 'fo:line-height': '16.5pt', 'fo:margin-bottom': '4pt', 'fo:text-indent': '3mm' })
  })

  it('leaves what is left out as it looks, though it goes back to what is dressed', () => {
    const before = guide()
    const { after, plan } = quickly(before, dress(a, { roles, keep: ['caption'] }))
    expect(looks(after).slice(4)).toEqual(looks(before).slice(4))
    expect(plan.rows.find(row => row.title.startsWith('Caption'))).toMatchObject({
      included: false,
      reason: 'its role keeps its look',
    })
    const byHand = planned(
      guide(),
      [dress(a, { roles })],
      [{ what: 'dressed style', family: 'paragraph', name: 'Text_20_one' }],
      { effects: false },
    )
    expect(looks(byHand.after).slice(0, 4)).toEqual(looks(guide()).slice(0, 4))
    expect(looks(byHand.after)[4]).toBe('Jost 8 500')
  })

  it('leaves text black that named no colour and goes back to what is given one', () => {
    const green = houseOf(
      { body: { family: 'Literata', size: 12, color: 'sea' } },
      { palette: [{ id: 'sea', title: 'Sea', does: 'accent', color: '#1f6f6b' }] },
    )
    const before = guide()
    const { after } = quickly(before, dress(green, { roles: [...roles.slice(0, 1), ...roles.slice(2)] }))
    const colors = (of: DocumentSession) =>
      paragraphsOf(of.reading.stories[0]!.blocks).map(each => colorOfText(of.reading.cascade.paragraph(each).text))
    expect(colors(after)).toEqual(['#1f6f6b', '#1f6f6b', '', ''])
    expect(looks(after).slice(5)).toEqual(looks(before).slice(5))
  })

  it('lets what was set by hand go but for emphasis, or keeps it', () => {
    const { after } = quickly(guide(), dress(a, { roles }))
    const made = [...[...after.reading.cascade.scopes.values()][0]!.common.values()].filter(
      style => style.family === 'text',
    )
    expect(made.map(style => style.displayName).sort()).toEqual(['Emphasis', 'Strong'])
    const kept = quickly(guide(), dress(a, { roles, strays: 'keep' }))
    expect(looks(kept.after)[2]).toBe('Literata 9.6 400')
  })

  it('remembers what styles do, and gives them the names of the house where that is asked', () => {
    const { after } = quickly(guide(), dress(a, { roles, names: 'house' }))
    const { rules } = after.reading.cascade
    expect(rules.styles).toEqual([
      { style: { family: 'paragraph', name: 'Text_20_one' }, role: 'body' },
      { style: { family: 'paragraph', name: 'Caption' }, role: 'caption' },
    ])
    const [scope] = [...after.reading.cascade.scopes.values()]
    expect(scope!.common.get('paragraph\nText_20_one')!.displayName).toBe('Body')
    // The next house needs no map any more.
    const again = quickly(after, dress(houseOf({ body: { family: 'Work Sans', size: 9 } })))
    expect(looks(again.after)[0]).toBe('Work Sans 9 400')
  })

  it('tells how many letters character styles have where it is counted', () => {
    const counted = (effects: boolean) =>
      planned(guide(), [dress(a, { roles })], [], { effects }).plan.rows.find(row => row.key.what === 'dressed words')!
    expect([counted(true).characters, counted(false).characters]).toEqual([3, 0])
  })

  it('leaves what is set by hand on a frame where some of its text is not dressed', () => {
    const standing = ' style:parent-style-name="F"'
    const deck = (last: string) =>
      drawingOf({
        kind: 'drawing',
        styles:
          graphicStyle('F', 'draw:fill="none"', 'fo:font-family="Spectral" fo:font-size="12pt"') +
          paragraphStyle('Kept', 'fo:font-weight="bold"'),
        automatic: graphicStyle('gr1', '', 'fo:font-size="20pt"', '', standing),
        pages: drawnPage(
          textFrame(
            shapeAt(1, 1, 8, 6),
            `<text:p>${words}</text:p><text:p text:style-name="${last}">Kelda</text:p>`,
            'draw:style-name="gr1"',
          ),
        ),
      })
    const set = houseOf({ body: { family: 'Literata' } })
    const chosen = [
      { style: { family: 'graphic', name: 'F' }, role: 'body' },
      { style: { family: 'paragraph', name: 'Kept' }, role: null },
    ]
    const house: House = { ...set, roles: set.roles.map(role => ({ ...role, sheet: role.text })) }
    const sizes = (last: string) => looks(quickly(deck(last), dress(house, { roles: chosen })).after)
    expect(sizes('Kept')).toEqual(['Literata 20 400', expect.stringMatching(/ 20 700$/)])
    expect(sizes('')).toEqual(['Literata 12 400', 'Literata 12 400'])
  })

  it('gives the bytes back when it is undone, and says where it has nothing to do', () => {
    const before = guide()
    const bytes = saveDocument(before.document)
    const applied = applyAll(before.document, quickly(before, dress(a, { roles })).plan.operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(bytes)
    expect(() => quickly(sessionOf({}), dress(a))).toThrow(NothingToPlan)
  })

  it('sets the cells of a deck’s tables as figures, whether by themselves or by their template', () => {
    const cellStyle = (name: string, text: string, more = '') =>
      `<style:style style:name="${name}" style:family="table-cell"${more}><style:text-properties ${text}/></style:style>`
    const cell = (words: string, style = '') => `<table:table-cell${style}><text:p>${words}</text:p></table:table-cell>`
    const deck = drawingOf({
      styles:
        cellStyle('Times', 'fo:font-family="Skerrow" fo:font-size="18pt"') +
        cellStyle('Plain', 'fo:font-family="Skerrow" fo:font-size="16pt"') +
        '<table:table-template table:name="T"><table:body table:style-name="Times"/></table:table-template>',
      automatic: cellStyle('ce1', 'fo:font-style="italic"', ' style:parent-style-name="Plain"'),
      pages: drawnPage(
        `<draw:frame ${shapeAt(1, 1, 8, 3)}><table:table table:template-name="T"><table:table-column/><table:table-row>` +
          `${cell('06.10')}${cell('07.45', ' table:style-name="ce1"')}</table:table-row></table:table></draw:frame>`,
      ),
    })
    const { plan, after } = quickly(deck, dress(houseOf({ data: { family: 'Jost', size: 14 } })))
    expect(looks(deck)).toEqual(['Skerrow 18 400', 'Skerrow 16 400 italic'])
    expect(looks(after)).toEqual(['Jost 14 400', 'Jost 14 400 italic'])
    expect(plan.rows.map(row => row.title)).toEqual(['Times, data', 'Plain, data'])
    expect(after.reading.cascade.rules.styles.map(each => each.style.family)).toEqual(['table-cell', 'table-cell'])
  })

  it('sets a deck’s placeholders by level, and what was set by hand on their frames goes', () => {
    const level = (number: number, size: number) =>
      graphicStyle(
        `M-outline${number}`,
        'draw:fill="none"',
        `fo:font-family="Spectral" fo:font-size="${size}pt"`,
        '',
        number > 1 ? ` style:parent-style-name="M-outline${number - 1}"` : '',
        'presentation',
      )
    const deck = drawingOf({
      styles:
        graphicStyle(
          'M-title',
          'draw:fill="none"',
          'fo:font-family="Spectral" fo:font-size="30pt"',
          '',
          '',
          'presentation',
        ) +
        level(1, 20) +
        level(2, 16),
      automatic: graphicStyle(
        'pr1',
        'draw:fill="none"',
        'fo:font-size="24pt"',
        '',
        ' style:parent-style-name="M-outline1"',
        'presentation',
      ),
      masters: drawnMaster(),
      pages: drawnPage(
        textFrame(
          shapeAt(1, 1, 8, 1),
          '<text:p>Season</text:p>',
          'presentation:style-name="M-title" presentation:class="title"',
        ) +
          textFrame(
            shapeAt(1, 3, 8, 5),
            '<text:list><text:list-item><text:p>One</text:p><text:list><text:list-item><text:p>Two</text:p>' +
              '</text:list-item></text:list></text:list-item></text:list>',
            'presentation:style-name="pr1" presentation:class="outline"',
          ),
      ),
    })
    const house = houseSchema.parse({
      ...emptyHouse('Decks'),
      roles: [
        { id: 'display', title: 'Title', deck: { family: 'Jost', size: 40 } },
        { id: 'body', title: 'Body', text: { family: 'Literata' }, deck: { size: 22 }, levels: [{ size: 18 }] },
      ],
    })
    const { after } = quickly(deck, dress(house))
    expect(looks(after)).toEqual(['Jost 40 400', 'Literata 22 400', 'Literata 18 400'])
    const share = measureToStyle(after.reading, house)
    expect(share.toStyle).toBe(share.characters)
  })
})

describe('the demo’s documents, from one house to another and back', () => {
  const house = (name: string, heading: string, body: string, size: number) =>
    houseFromPair(name, { heading, body, size, ratio: 1.25 })
  const [one, two] = [house('A', 'Jost', 'Spectral', 10), house('B', 'Literata', 'Literata', 9)]
  it.each(demoDocuments.filter(({ fileName }) => !fileName.startsWith('Crew')))('$fileName', ({ make }) => {
    const first = open(make())
    const begin = first.document.kind === 'text' ? [{ type: 'draw-up' }] : []
    const drawn = begin.length > 0 && first.detail.census.settled < 0.999 ? quickly(first, ...begin).after : first
    const through = (of: DocumentSession, to: House) => open(saveDocument(quickly(of, dress(to)).after.document))
    const inOne = through(drawn, one)
    const back = through(through(inOne, two), one)
    expect(looks(back)).toEqual(looks(inOne))
    expect(back.composition.pages.length).toBe(inOne.composition.pages.length)
    const share = measureToStyle(back.reading, one)
    const known = share.characters - (share.roles.find(each => each.role === null)?.characters ?? 0)
    expect(share.toStyle / known).toBeGreaterThan(0.6)
  })
})
