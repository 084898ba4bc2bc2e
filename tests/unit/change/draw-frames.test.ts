import { describe, expect, it } from 'vitest'
import { NothingToPlan } from '../../../core/change/plan'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { galleyMenu } from '../../../demo/galley-menu'
import { saltmereLine } from '../../../demo/houses'
import { safetyCard } from '../../../demo/safety-card'
import { seasonReview } from '../../../demo/season-review'
import {
  drawingOf,
  drawnPage,
  graphicStyle,
  paragraphStyle,
  session,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { looksByChance, looksOf } from '../../support/looks'
import { planned, quickly } from '../../support/planning'

const drawUp = (more: object = {}) => ({ type: 'draw-up', ...more })

const settled = (of: DocumentSession) => of.detail.census.settled
const graphics = (of: DocumentSession) =>
  [...[...of.reading.cascade.scopes.values()][0]!.common.values()].filter(style => style.family === 'graphic')

const sailings = 'Two boats a day sail to every pier of the outer islands, weather and the post allowing. '
/** A card as somebody makes it who sets everything by hand: headings and text in frames, one name in italics. */
const card = () =>
  drawingOf({
    kind: 'drawing',
    styles: graphicStyle('standard', 'draw:fill="none"', 'fo:font-family="Skerrow" fo:font-size="18pt"'),
    automatic:
      ['gr1', 'gr2', 'gr3']
        .map(name =>
          graphicStyle(
            name,
            `draw:stroke="none" fo:padding="${name.slice(2)}mm"`,
            '',
            '',
            ' style:parent-style-name="standard"',
          ),
        )
        .join('') +
      paragraphStyle(
        'P1',
        'fo:font-family="Jost" fo:font-size="24pt" fo:font-weight="bold"',
        'fo:text-align="center"',
      ) +
      paragraphStyle('P2', 'fo:font-size="9pt"', 'fo:margin-bottom="2mm"') +
      textStyle('T1', 'fo:font-family="Spectral" fo:font-size="9pt"') +
      textStyle('T2', 'fo:font-family="Spectral" fo:font-size="9pt" fo:font-style="italic"') +
      textStyle('T3', 'fo:font-family="Spectral" fo:font-size="9.2pt"'),
    pages: [0, 1]
      .map(page =>
        drawnPage(
          textFrame(
            shapeAt(1, 1, 9, 1.2),
            `<text:p text:style-name="P1">Pier ${page + 1}</text:p>`,
            'draw:style-name="gr1"',
          ) +
            textFrame(
              shapeAt(1, 3, 9, 4),
              `<text:p text:style-name="P2"><text:span text:style-name="T1">${sailings}</text:span>` +
                `<text:span text:style-name="T2">Cormorant</text:span></text:p>` +
                `<text:p text:style-name="P2"><text:span text:style-name="T1">${sailings}</text:span></text:p>`,
              'draw:style-name="gr2"',
            ) +
            textFrame(
              shapeAt(1, 8, 9, 4),
              `<text:p text:style-name="P2"><text:span text:style-name="T3">${sailings}</text:span></text:p>`,
              'draw:style-name="gr3"',
            ),
        ),
      )
      .join(''),
  })

describe('drawing up the loose frames of a deck or drawing', () => {
  it('makes a graphic style of each voice, and nothing looks otherwise', () => {
    const before = card()
    const { plan, after } = planned(before, [drawUp()])
    expect(settled(before)).toBe(0)
    expect(settled(after)).toBeGreaterThan(0.95)
    expect(looksOf(after)).toEqual(looksOf(before))
    expect(plan.effects).toMatchObject({ pagesBefore: 2, pagesAfter: 2, paragraphsChanged: 0 })
    expect(plan.made.map(each => each.family)).toEqual(['graphic', 'graphic', 'graphic'])
    expect(plan.rows.map(row => [row.key.what, row.count])).toEqual([
      ['drawn style', 2],
      ['drawn style', 2],
      ['drawn style', 2],
    ])
    // The name in italics is all that is still set by hand, and frames keep what is theirs: padding and lines.
    const own = [...after.reading.cascade.scope('content.xml').automatic.values()]
    expect(own.filter(style => style.family === 'text').map(style => style.text)).toEqual([
      { 'fo:font-style': 'italic' },
    ])
    expect(
      own
        .filter(style => style.family === 'graphic')
        .map(style => style.graphic['fo:padding'])
        .sort(),
    ).toEqual(['1mm', '2mm', '3mm'])
    expect(own.filter(style => style.family === 'paragraph')).toEqual([])
  })

  it('names styles by what their text is for, says each value once, and keeps the roles', () => {
    const { after } = quickly(card(), drawUp())
    const made = graphics(after).filter(style => style.name !== 'standard')
    expect(made.map(style => style.displayName).sort()).toEqual(['Body', 'Body, large', 'Title'])
    const text = made.find(style => style.displayName === 'Body')!
    const larger = made.find(style => style.displayName === 'Body, large')!
    expect(text.parentName).toBe('standard')
    expect(larger.parentName).toBe(text.name)
    expect(Object.keys(larger.text)).toEqual(['fo:font-size'])
    expect([text.paragraph, larger.paragraph]).toEqual([{ 'fo:margin-bottom': '2mm' }, {}])
    expect(after.reading.cascade.rules.styles.map(each => [each.style.family, each.role]).sort()).toEqual([
      ['graphic', 'body'],
      ['graphic', 'body'],
      ['graphic', 'display'],
    ])
  })

  it('has twins in one style where sizes may differ by so much, and then only they change', () => {
    const before = card()
    const { after } = quickly(before, drawUp({ tolerance: 0.25 }))
    expect(graphics(after)).toHaveLength(3)
    const sizes = (of: DocumentSession) =>
      of.reading.stories.flatMap(story =>
        paragraphsOf(story.blocks).flatMap(paragraph =>
          paragraphRuns(paragraph, of.reading.cascade, story.role).runs.map(
            run => run.style.effective.slots.western.size,
          ),
        ),
      )
    expect(new Set(sizes(before))).toEqual(new Set([24, 9, 9.2]))
    expect(new Set(sizes(after))).toEqual(new Set([24, 9]))
    expect(settled(after)).toBeGreaterThan(0.95)
  })

  it('takes names and roles as they are chosen, lets voices go together, and leaves by hand what is left out', () => {
    const before = card()
    const rows = quickly(before, drawUp()).plan.rows
    const voice = (title: string) => String(rows.find(row => row.title === title)!.key.voice)
    const choices = [
      { family: 'graphic', voice: voice('Title'), name: 'Pier name', role: 'heading' },
      { family: 'graphic', voice: voice('Body, large'), into: { kind: 'voice', voice: voice('Body') } },
    ]
    const { after } = quickly(before, drawUp({ choices }))
    expect(graphics(after).map(style => style.displayName)).toEqual(['standard', 'Body', 'Pier name'])
    expect(after.reading.cascade.rules.styles).toContainEqual({
      style: { family: 'graphic', name: 'Pier_20_name' },
      role: 'heading',
    })
    const left = planned(before, [drawUp()], [rows.find(row => row.title === 'Title')!.key], { effects: false })
    expect(graphics(left.after).map(style => style.displayName)).not.toContain('Title')
    expect(looksOf(left.after)).toEqual(looksOf(before))
    // Another time its text takes a style that is there, and looks as that says.
    const into = [{ family: 'graphic', voice: voice('Title'), into: { kind: 'style', name: 'Body' } }]
    const taken = quickly(left.after, drawUp({ choices: into }))
    expect(taken.plan.made).toEqual([])
    expect(new Set(taken.after.detail.census.faces.map(each => each.family))).toEqual(new Set(['Spectral']))
    const nowhere = [{ ...into[0]!, into: { kind: 'style', name: 'Gone' } }]
    expect(() => quickly(left.after, drawUp({ choices: nowhere }))).toThrow(/no frame style “Gone” any more/)
  })

  it('takes a style that is there where it says nothing of shapes, nor any between it and the base', () => {
    const panel = (parentName: string) =>
      drawingOf({
        kind: 'drawing',
        styles:
          graphicStyle('standard', 'draw:fill="none"', 'fo:font-family="Skerrow" fo:font-size="18pt"') +
          graphicStyle('Panel', 'draw:fill="solid"', '', '', ' style:parent-style-name="standard"') +
          graphicStyle('Plain', '', '', '', ' style:parent-style-name="standard"').replace(
            '<style:graphic-properties />',
            '',
          ) +
          graphicStyle(
            'Small',
            '',
            'fo:font-family="Spectral" fo:font-size="9pt"',
            '',
            ` style:parent-style-name="${parentName}"`,
          ).replace('<style:graphic-properties />', ''),
        automatic: textStyle('T1', 'fo:font-family="Spectral" fo:font-size="9pt"'),
        pages: drawnPage(
          textFrame(
            shapeAt(1, 1, 8, 2),
            `<text:p><text:span text:style-name="T1">${sailings}</text:span></text:p>`,
            'draw:style-name="standard"',
          ),
        ),
      })
    const made = (parentName: string) => quickly(panel(parentName), drawUp()).plan.made.length
    expect([made('standard'), made('Plain')]).toEqual([0, 0])
    expect(made('Panel')).toBe(1)
  })

  it('finds nothing to do a second time, takes what it made before, and is undone to the byte', () => {
    const before = card()
    const { plan, after } = quickly(before, drawUp())
    expect(() => quickly(after, drawUp())).toThrow(NothingToPlan)
    const { document, inverse } = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(document, inverse).document)).toEqual(saveDocument(before.document))
  })

  it('leaves placeholders alone, and keeps words in another voice, empty lines and their own paragraphs as they look', () => {
    const deck = drawingOf({
      styles:
        graphicStyle('standard', 'draw:fill="none"', 'fo:font-family="Skerrow" fo:font-size="18pt"') +
        graphicStyle('M-title', '', 'fo:font-family="Spectral" fo:font-size="30pt"', '', '', 'presentation'),
      automatic:
        graphicStyle('gr1', '', 'fo:font-size="14pt"', '', ' style:parent-style-name="standard"') +
        graphicStyle('pr1', '', 'fo:font-size="26pt"', '', ' style:parent-style-name="M-title"', 'presentation') +
        textStyle('T1', 'fo:font-family="Literata" fo:font-size="11pt"') +
        paragraphStyle('P1', '', 'fo:text-align="end"'),
      pages: drawnPage(
        textFrame(
          shapeAt(1, 1, 8, 1),
          '<text:p>Season</text:p>',
          'presentation:style-name="pr1" presentation:class="title"',
        ) +
          textFrame(
            shapeAt(1, 3, 8, 6),
            `<text:p><text:span text:style-name="T1">${sailings}</text:span></text:p><text:p/><text:p>Plover</text:p>` +
              `<text:p text:style-name="P1"><text:span text:style-name="T1">Kelda</text:span> and Rona</text:p>`,
            'draw:style-name="gr1"',
          ),
      ),
    })
    const { plan, after } = planned(deck, [drawUp()])
    expect(looksOf(after)).toEqual(looksOf(deck))
    expect(plan.effects).toMatchObject({ paragraphsChanged: 0 })
    expect(plan.made).toHaveLength(1)
    expect(settled(after)).toBeGreaterThan(0.7)
    const presentation = [...after.reading.cascade.scope('content.xml').automatic.values()].filter(
      style => style.family === 'presentation',
    )
    expect(presentation.map(style => style.text)).toEqual([{ 'fo:font-size': '26pt' }])
  })

  it('comes before dressing where it is asked for: a drawing without styles is brought to a house', () => {
    const dress = { type: 'dress', house: saltmereLine, drawUp: true }
    const { plan, after } = quickly(card(), dress)
    expect(plan.title).toMatch(/^Draw up 3 styles, and dress \d styles in Saltmere Line$/)
    const families = new Set(after.detail.census.faces.map(face => face.family))
    expect(families).toEqual(new Set(['Newsreader', 'Spectral']))
  })

  it('changes nothing that is seen, however frames, paragraphs and words are set by hand', { timeout: 60_000 }, () => {
    const { random, pick, text, paragraph } = looksByChance(23)
    const onStandard = ' style:parent-style-name="standard"'
    let drawn = 0
    for (let round = 0; round < 40; round++) {
      const names = (prefix: string) => [1, 2, 3].map(number => `${prefix}${number}`)
      const words = () =>
        [sailings, 'Kelda', '']
          .filter(() => random() < 0.7)
          .map(each => (random() < 0.6 ? `<text:span text:style-name="${pick(names('T'))}">${each}</text:span>` : each))
          .join('')
      const deck = drawingOf({
        styles:
          graphicStyle('standard', 'draw:fill="none"', text()) +
          paragraphStyle('Dish', 'fo:font-size="15pt"') +
          graphicStyle('Panel', '', text(), paragraph(), onStandard),
        automatic:
          names('gr')
            .map((name, at) =>
              graphicStyle(
                name,
                'draw:stroke="none"',
                text(),
                paragraph(),
                at === 2 ? ' style:parent-style-name="Panel"' : onStandard,
              ),
            )
            .join('') +
          names('P')
            .map((name, at) =>
              paragraphStyle(name, text(), paragraph(), at === 2 ? ' style:parent-style-name="Dish"' : ''),
            )
            .join('') +
          names('T')
            .map(name => textStyle(name, text()))
            .join(''),
        pages: [0, 1, 2]
          .map(at =>
            drawnPage(
              textFrame(
                shapeAt(1, 1 + at, 9, 4),
                Array.from({ length: 3 }, () =>
                  random() < 0.7
                    ? `<text:p text:style-name="${pick([...names('P'), 'Dish'])}">${words()}</text:p>`
                    : `<text:p>${words()}</text:p>`,
                ).join(''),
                `draw:style-name="${pick(names('gr'))}"${random() < 0.2 ? ' draw:text-style-name="P1"' : ''}`,
              ),
            ),
          )
          .join(''),
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

  it.each([
    ['Galley menu', galleyMenu],
    ['Safety card', safetyCard],
    ['Season review', seasonReview],
  ])('changes nothing that is seen of the %s', (_, make) => {
    const before = session(make())
    let result
    try {
      result = planned(before, [drawUp()])
    } catch (error) {
      expect(error).toBeInstanceOf(NothingToPlan)
      return
    }
    expect(looksOf(result.after)).toEqual(looksOf(before))
    expect(result.plan.effects).toMatchObject({ paragraphsChanged: 0 })
    expect(settled(result.after)).toBeGreaterThanOrEqual(settled(before))
  })
})
