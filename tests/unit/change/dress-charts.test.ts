import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { shownByChart } from '../../../core/document/chart'
import { emptyHouse, houseSchema, type Setting } from '../../../core/house/house'
import { measureToStyle } from '../../../core/house/to-style'
import type { DocumentSession } from '../../../core/session'
import { chartVoices } from '../../../core/style/chart-voices'
import { chartsOf } from '../../../core/style/reading'
import { saltmereLine, winterService } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { sailingGuide } from '../../../demo/sailing-guide'
import { session } from '../../support/fixtures'
import { parts } from '../../support/independent'
import { planned, quickly } from '../../support/planning'

const dress = (house: object, more: object = {}) => ({ type: 'dress', house, ...more })
const houseWith = (roles: Readonly<Record<string, Setting>>) =>
  houseSchema.parse({
    ...emptyHouse('House A'),
    roles: emptyHouse('x').roles.map(role => ({ ...role, text: roles[role.id] ?? {} })),
  })

/** How each voice of the charts is set: “role family size weight”. */
const voices = (of: DocumentSession): string[] =>
  chartsOf(of.reading).flatMap(({ chart, object }) =>
    chartVoices(chart).map(({ role, styleNames }) => {
      const { text } = object.cascade.paragraph(shownByChart(chart, '', styleNames), 'chart')
      const { font, size, weight } = text.effective.slots.western
      return `${role} ${font.family} ${Math.round(size * 100) / 100} ${weight}`
    }),
  )
const few = (list: readonly string[]) => [...new Set(list)].sort()
const chartRows = (plan: { rows: readonly { key: { what: string } }[] }) =>
  plan.rows.filter(row => row.key.what === 'dressed chart')

describe('charts in a document that is dressed', () => {
  it('take the face and size of their role: titles, and labels with the numbers that the chart works out', () => {
    const before = session(seasonReview())
    expect(few(voices(before)).every(each => each.includes('Skerrow'))).toBe(true)
    const { after, plan } = quickly(before, dress(saltmereLine))
    expect(few(voices(after))).toEqual(['label Jost 14 400', 'subheading Jost 20 500'])
    expect(plan.title).toMatch(/and the text of \d+ charts in Saltmere Line$/)
    const charts = chartsOf(before.reading).length
    expect(charts).toBeGreaterThan(1)
    expect(chartRows(plan)).toHaveLength(charts * 2)
    expect(plan.rows.filter(row => row.key.what === 'dressed chart').map(row => row.title)[0]).toMatch(
      /^Chart “.+”, (subheading|label)$/,
    )
    const first = chartsOf(before.reading)[0]!.chart
    const letters = (role: string) =>
      plan.rows.find(row => row.key.what === 'dressed chart' && row.key.part === first.part && row.key.role === role)!
        .characters
    expect(letters('subheading')).toBe('Passengers by month'.length)
    expect(few(voices(quickly(after, dress(winterService)).after)).every(each => each.includes('Work Sans'))).toBe(true)
  })

  it('count as to style, or not, by what they show', () => {
    const before = session(seasonReview())
    const { after } = quickly(before, dress(saltmereLine))
    const inCharts = (of: DocumentSession) => {
      const paths = new Set(chartsOf(of.reading).map(({ chart }) => chart.part))
      const off = measureToStyle(of.reading, saltmereLine).places.filter(place => paths.has(place.part))
      return off.reduce((sum, place) => sum + place.characters, 0)
    }
    const shown = chartsOf(before.reading).flatMap(({ chart }) =>
      chartVoices(chart).flatMap(({ blocks }) =>
        paragraphsOf(blocks).flatMap(each => each.inlines.map(inline => (inline.kind === 'text' ? inline.text : ''))),
      ),
    )
    expect(inCharts(before)).toBe([...shown.join('')].length)
    expect(inCharts(after)).toBe(0)
  })

  it('keep their look where they are left out, by chart, by role or because the house says nothing', () => {
    const before = session(sailingGuide())
    const [chart] = chartsOf(before.reading)
    const { plan, after: whole } = quickly(before, dress(saltmereLine))
    expect(voices(whole)).not.toEqual(voices(before))
    const keys = plan.rows.filter(row => row.key.what === 'dressed chart').map(row => row.key)
    const none = planned(before, [dress(saltmereLine)], keys, { effects: false }).after
    expect(parts(saveDocument(none.document))[chart!.chart.part]).toEqual(
      parts(saveDocument(before.document))[chart!.chart.part],
    )
    for (const role of ['label', 'subheading']) {
      const { after } = quickly(before, dress(saltmereLine, { keep: [role] }))
      const now = voices(after)
      for (const [at, voice] of voices(before).entries())
        if (voice.startsWith(role)) expect(now[at]).toBe(voice)
        else expect(now[at]).not.toBe(voice)
    }
    const open = quickly(before, dress(houseWith({ body: { family: 'Literata' } })))
    expect(voices(open.after)).toEqual(voices(before))
    expect(chartRows(open.plan)[0]).toMatchObject({
      included: false,
      reason: expect.stringMatching(/leaves .* open/) as string,
    })
  })

  it('change nothing but the look of their text, and go back to the byte', () => {
    const bytes = seasonReview()
    const before = session(bytes)
    const { plan, after } = quickly(before, dress(saltmereLine))
    const strip = (text: string) =>
      text
        .replace(/<style:text-properties[^>]*\/>/g, '')
        .replace(/<style:font-face [^>]*\/>/g, '')
        .replace(/<(style:style [^>]*)><\/style:style>/g, '<$1/>')
    for (const { chart } of chartsOf(before.reading)) {
      const was = new TextDecoder().decode(parts(bytes)[chart.part])
      const now = new TextDecoder().decode(parts(saveDocument(after.document))[chart.part])
      expect(now).not.toBe(was)
      expect(strip(now)).toBe(strip(was))
      expect(now).not.toContain('fo:line-height')
    }
    const { document, inverse } = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(document, inverse).document)).toEqual(bytes)
  })
})
