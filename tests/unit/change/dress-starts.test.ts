import { describe, expect, it } from 'vitest'
import { listStarts } from '../../../core/change/defaults/start-list'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { emptyHouse, houseSchema, type House, type Setting } from '../../../core/house/house'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { seasonReview } from '../../../demo/season-review'
import { library, paragraphStyle, session, sessionOf } from '../../support/fixtures'
import { planned, quickly } from '../../support/planning'

const house = (defaults: House['defaults'], roles: Readonly<Record<string, Setting>>): House =>
  houseSchema.parse({
    ...emptyHouse('Line'),
    defaults,
    roles: emptyHouse('x').roles.map(role => ({ ...role, text: roles[role.id] ?? {} })),
  })
const line = house(
  { body: 'body', frame: 'caption', note: 'note', cell: 'table' },
  {
    body: { family: 'Literata', size: 11, leading: { value: 150, unit: 'percent' } },
    caption: { family: 'Jost', size: 8, weight: 500 },
    note: { family: 'Literata', size: 8.5 },
  },
)
const dress = (of: House, more: object = {}) => ({ type: 'dress', house: of, ...more })
const guide = () =>
  sessionOf({
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" ' +
      'fo:font-size="10pt"/></style:default-style>' +
      paragraphStyle('Text_20_body') +
      paragraphStyle('Other', 'fo:font-family="Inter"'),
    body:
      '<text:p text:style-name="Text_20_body">Two boats a day sail to every pier of the outer islands.</text:p>' +
      '<text:p text:style-name="Other">as it was</text:p>',
  })
const roles = [
  { style: { family: 'paragraph', name: 'Text_20_body' }, role: 'body' },
  { style: { family: 'paragraph', name: 'Other' }, role: null },
]
const startsOf = ({ reading }: DocumentSession) =>
  Object.fromEntries(
    listStarts(reading, library).map(({ kind, family, size, leading }) => [kind, { family, size, leading }]),
  )
const looks = ({ reading }: DocumentSession) =>
  reading.stories.flatMap(story =>
    [...paragraphsOf(story.blocks)].flatMap(paragraph =>
      paragraphRuns(paragraph, reading.cascade, story.role).runs.map(run => {
        const { font, size } = run.style.effective.slots[run.slot]
        return `${font.family} ${size}`
      }),
    ),
  )
const rowsOf = (plan: ReturnType<typeof quickly>['plan']) => plan.rows.filter(row => row.key.what === 'dressed default')

describe('what new text begins with, by the house', () => {
  it('is set kind by kind as the role is; text that is there looks as it is dressed, or as it was', () => {
    const { plan, after } = quickly(guide(), dress(line, { roles }))
    const starts = startsOf(after)
    expect(starts.body).toMatchObject({ family: 'Literata', size: 11, leading: '16.5pt' })
    expect(starts.frame).toMatchObject({ family: 'Jost', size: 8 })
    expect(starts.note).toMatchObject({ family: 'Literata', size: 8.5 })
    // The house leaves the role of table text open, and says nothing of headers: they begin as the document does, which is
    // as body text now.
    expect([starts.cell, starts.header]).toMatchObject([
      { family: 'Literata', size: 11 },
      { family: 'Literata', size: 11 },
    ])
    expect(looks(after)).toEqual(['Literata 11', 'Inter 10'])
    expect(rowsOf(plan).map(row => row.key.kind)).toEqual(['body', 'frame', 'note'])
    expect(startsOf(session(saveDocument(after.document)))).toEqual(starts)
  })

  it('may be left out row by row, with the role that keeps its look, and is undone to the byte', () => {
    const before = guide()
    const { plan, after } = planned(
      before,
      [dress(line, { roles, keep: ['note'] })],
      [{ what: 'dressed default', kind: 'frame' }],
      { effects: false },
    )
    expect(rowsOf(plan).map(row => [row.key.kind, row.included])).toEqual([
      ['body', true],
      ['frame', false],
    ])
    const [now, then] = [startsOf(after), startsOf(before)]
    expect([now.frame, now.note].map(each => each!.family)).not.toContain('Jost')
    expect(then.frame!.family).toBe('Spectral')
    const applied = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(saveDocument(before.document))
  })

  it('is not said twice: dressed again in the same house nothing of it is listed, and no style is added', () => {
    const { after } = quickly(guide(), dress(line, { roles }))
    const again = quickly(after, dress(line, { roles }))
    const names = ({ reading }: DocumentSession) =>
      [...[...reading.cascade.scopes.values()].at(-1)!.common.values()].map(style => style.name)
    expect(rowsOf(again.plan)).toEqual([])
    expect(names(again.after)).toEqual(names(after))
    expect(startsOf(again.after)).toEqual(startsOf(after))
  })

  it('takes the kinds that a deck has, in its medium', () => {
    const deck = session(seasonReview())
    const { plan, after } = quickly(deck, dress(line))
    expect(rowsOf(plan).map(row => row.key.kind)).toEqual(['frame'])
    expect(startsOf(after).frame).toMatchObject({ family: 'Jost', size: 8 })
  })
})
