import { describe, expect, it } from 'vitest'
import { NothingToPlan, PlanError, type RowKey } from '../../../core/change/plan'
import type { Planned } from '../../../core/change/plan-change'
import { saveDocument } from '../../../core/document/open'
import type { DocumentSession } from '../../../core/session'
import { saltmereLine, winterService } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { winterTariff } from '../../../demo/winter-tariff'
import { face, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { planned, swap } from '../../support/planning'

/*
 * Whatever was wished: a row that is left out keeps what it has, is told as left out, and takes nothing else with it.
 */
const text = sessionOf({
  stylesFaces: face('Lora') + face('Jost'),
  faces: face('Lora') + face('Jost'),
  styles:
    '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Lora" fo:font-size="11pt"/>' +
    '</style:default-style>' +
    paragraphStyle('Body') +
    paragraphStyle('Head', 'style:font-name="Jost" fo:font-size="18pt"') +
    textStyle('Words', 'fo:font-style="italic"'),
  automatic:
    paragraphStyle('P1', 'fo:font-size="9pt"', '', ' style:parent-style-name="Body"') +
    textStyle('T1', 'style:font-name="Jost" fo:letter-spacing="1pt"'),
  body:
    '<text:h text:style-name="Head" text:outline-level="1">AV ahead</text:h>' +
    '<text:p text:style-name="Body"> AV  2 kegs, <text:span text:style-name="T1">Tow</text:span> "so"</text:p>' +
    '<text:p text:style-name="P1">To 3 Fisch</text:p><text:p/><text:p text:style-name="Body">AV again </text:p>',
})
const deck = session(seasonReview())
const leaflet = session(winterTariff())
const plan = (of: DocumentSession, wishes: readonly object[], leftOut: readonly RowKey[] = []): Planned =>
  planned(of, wishes, leftOut, { effects: false })
const keyOf = (key: RowKey) => JSON.stringify(key)
const clean = { emptyParagraphs: true, doubleSpaces: true, edgeSpaces: true, tabIndents: true, straightQuotes: true }
const ranges = [...text.reading.stories[0]!.blocks].flatMap(block =>
  block.kind === 'paragraph' ? [{ part: block.part, node: block.node, from: 0, to: 99 }] : [],
)

const wishes: readonly (readonly [string, DocumentSession, readonly object[]])[] = [
  ['a swap', text, [swap('Lora', 'Spectral', { size: { mode: 'x-height' } })]],
  ['a swap in a deck', deck, [swap('Spectral', 'Literata')]],
  ['a swap of some text', text, [swap('Lora', 'Spectral', { within: { look: { paragraphStyle: 'Body' } } })]],
  ['words found', text, [{ type: 'recast', find: { words: { text: 'AV' }, look: {} }, change: { words: 'VA' } }]],
  ['colours', deck, [{ type: 'recast', find: { look: {} }, change: {}, colors: [{ from: '#1f6f6b', to: '#123456' }] }]],
  ['text put in order', text, [{ type: 'clean-up', ...clean }]],
  ['formatting settled', text, [{ type: 'settle', scope: { kind: 'document' }, groups: ['face', 'size', 'tracking'] }]],
  [
    'a style applied',
    text,
    [
      {
        type: 'apply',
        style: { family: 'paragraph', name: 'Head' },
        scope: { kind: 'ranges', ranges },
        strays: 'settle',
      },
    ],
  ],
  [
    'words given a style',
    text,
    [{ type: 'apply', style: { family: 'text', name: 'Words' }, scope: { kind: 'ranges', ranges }, strays: 'keep' }],
  ],
  [
    'pairs',
    text,
    [
      {
        type: 'kern',
        pairs: [
          { family: 'Lora', left: 'A', right: 'V', amount: -50 },
          { family: 'Lora', left: 'T', right: 'o', amount: -20 },
        ],
        places: [{ part: ranges[4]!.part, node: ranges[4]!.node, from: 0, amount: 30 }],
      },
    ],
  ],
  [
    'levels',
    deck,
    [
      {
        type: 'levels',
        levels: [
          { placeholder: 'title', setting: { size: 30 } },
          { placeholder: 'outline', level: 2, setting: { size: 15 } },
        ],
      },
    ],
  ],
  [
    'text of charts',
    deck,
    [
      {
        type: 'chart-text',
        texts: [
          { of: 'title', setting: { size: 17 } },
          { of: 'axis', setting: { size: 9 } },
        ],
      },
    ],
  ],
  ['styles drawn up', leaflet, [{ type: 'draw-up' }]],
  ['cells drawn up', deck, [{ type: 'draw-up' }]],
  ['a house', leaflet, [{ type: 'dress', house: winterService, drawUp: true, names: 'house' }]],
  ['a house on a deck', deck, [{ type: 'dress', house: saltmereLine }]],
  ['a house on a text', text, [{ type: 'dress', house: winterService }]],
]

describe.each(wishes)('%s', (_, of, wish) => {
  const whole = plan(of, wish)
  const optional = whole.plan.rows.filter(row => row.optional && row.included)
  const bytes = saveDocument(whole.after.document)

  it('tells rows that can be left out', () => {
    expect(optional.length).toBeGreaterThan(0)
    // A key names one row: else leaving one out would leave others out.
    expect(new Set(whole.plan.rows.map(row => keyOf(row.key))).size).toBe(whole.plan.rows.length)
  })

  it('leaves one out, and the others as they were', () => {
    for (const row of [...new Set([optional[0]!, optional.at(-1)!, optional[optional.length >> 1]!])]) {
      let without: Planned
      try {
        without = plan(of, wish, [row.key])
      } catch (error) {
        // It was all there was.
        expect(error).toBeInstanceOf(NothingToPlan)
        expect(optional).toHaveLength(1)
        continue
      }
      const told = without.plan.rows.find(each => keyOf(each.key) === keyOf(row.key))
      expect(told).toMatchObject({ title: row.title, included: false, reason: null })
      expect(saveDocument(without.after.document)).not.toEqual(bytes)
    }
  })

  it('leaves all out, and then nothing of them changes', () => {
    let none: Planned
    try {
      none = plan(
        of,
        wish,
        optional.map(row => row.key),
      )
    } catch (error) {
      expect(error).toBeInstanceOf(PlanError)
      return
    }
    // What a style that was left out would have said for others may come up in its place.
    const left = new Set(optional.map(row => keyOf(row.key)))
    const told = none.plan.rows.filter(row => left.has(keyOf(row.key)))
    expect(told.filter(row => row.included)).toEqual([])
    expect(told.length).toBeGreaterThan(0)
    if (none.plan.operations.length === 0) expect(none.plan).toMatchObject({ places: 0, characters: 0 })
    else expect(saveDocument(none.after.document)).not.toEqual(bytes)
  })
})

describe('a swap that sizes, too', () => {
  const wish = [swap('Lora', 'Spectral', { size: { mode: 'x-height' } })]
  const rows = plan(text, wish).plan.rows
  const places = (leftOut: readonly RowKey[]) => plan(text, wish, leftOut).plan.places

  it('counts where fonts and where sizes change', () => {
    const counts = rows.filter(row => row.stage !== 'declaration').map(row => row.count)
    expect(rows.map(row => row.stage)).toEqual(['default', 'declaration', 'size', 'size'])
    expect(places([])).toBe(counts.reduce((sum, each) => sum + each, 0))
    expect(places([rows[2]!.key])).toBe(places([]) - rows[2]!.count)
    expect(places([rows[0]!.key, rows[1]!.key])).toBe(places([]) - rows[0]!.count)
  })
})
