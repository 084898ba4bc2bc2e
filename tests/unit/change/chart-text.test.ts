import { describe, expect, it } from 'vitest'
import { listChartText, type ListedChartText } from '../../../core/change/chart-text/chart-list'
import { NothingToPlan } from '../../../core/change/plan'
import { registry } from '../../../core/change/registry'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { namespaces } from '../../../core/package/new-package'
import type { DocumentSession } from '../../../core/session'
import { settingFor } from '../../../core/house/house'
import { measureToStyle } from '../../../core/house/to-style'
import { saltmereLine } from '../../../demo/houses'
import { seasonReview } from '../../../demo/season-review'
import { session, sessionOf } from '../../support/fixtures'
import { parts } from '../../support/independent'
import { planned, quickly, request } from '../../support/planning'

const wish = (texts: readonly object[], chart: string | null = null) => ({ type: 'chart-text', chart, texts })
const lookOf = ({ of, family, weight, italic, size, color }: ListedChartText) =>
  [of, family, weight, italic ? 'italic' : 'upright', size, color].join(' ')
/** How text of the charts is set, chart by chart. */
const looks = (of: DocumentSession, chart = 'Object 1/content.xml') =>
  listChartText(of.reading, null)
    .filter(each => each.chart === chart)
    .map(lookOf)
const deck = () => session(seasonReview())

describe('text of charts', () => {
  it('is told chart by chart, with the page that it is on', () => {
    const of = deck()
    const own = listChartText(of.reading, of.composition).filter(each => each.chart === 'Object 1/content.xml')
    expect(own.map(lookOf)).toEqual([
      'title Skerrow 700 upright 17 ',
      'axis Skerrow 400 upright 12 ',
      'axis title Skerrow 400 upright 12 ',
      'legend Skerrow 400 upright 12 ',
      'value Skerrow 400 upright 13 ',
    ])
    expect(own.map(each => [each.title, each.page])).toEqual(own.map(() => ['Passengers by month', 2]))
  })

  it('is set in all charts at once, whatever goes by the style that it had keeping its look', () => {
    const before = deck()
    const { plan, after } = planned(before, [
      wish([
        { of: 'title', setting: { family: 'Jost', size: 20, weight: 500 }, color: '#1f6f6b' },
        { of: 'legend', setting: { size: 10, italic: true } },
      ]),
    ])
    expect(looks(after)).toEqual([
      'title Jost 500 upright 20 #1f6f6b',
      'axis Skerrow 400 upright 12 ',
      'axis title Skerrow 400 upright 12 ',
      'legend Skerrow 400 italic 10 ',
      'value Skerrow 400 upright 13 ',
    ])
    expect(looks(after, 'Object 3/content.xml')[0]).toBe('title Jost 500 upright 20 #1f6f6b')
    expect(plan.title).toBe('Set the text of 4 charts')
    expect(plan.sentences).toEqual(['Set title, legend of all charts anew.'])
    expect(plan.rows[0]).toMatchObject({ title: 'Chart “Passengers by month”: title', stage: 'chart', included: true })
    expect(plan.rows.slice(0, 2).map(row => row.after)).toEqual(['Jost, 20 pt, weight 500, #1f6f6b', '10 pt, italic'])
    const again = session(saveDocument(after.document))
    expect(looks(again)).toEqual(looks(after))
    const { document } = applyAll(after.document, applyAll(before.document, plan.operations).inverse)
    expect(saveDocument(document)).toEqual(saveDocument(before.document))
  })

  it('is set in one chart, all else of the file being as it was', () => {
    const before = deck()
    const chart = 'Object 2/content.xml'
    const { after } = quickly(before, wish([{ of: 'axis', setting: { family: 'Jost' } }], chart))
    expect(looks(after, chart)).toContain('axis Jost 400 upright 12 ')
    expect(looks(after, chart)).toContain('legend Skerrow 400 upright 12 ')
    const [was, is] = [before, after].map(each => parts(saveDocument(each.document)))
    const changed = Object.keys(was!).filter(path => Buffer.compare(was![path]!, is![path]!) !== 0)
    expect(changed).toEqual([chart])
  })

  it('takes along what a style keeps where another that it goes back to is set in the same plan', () => {
    const { after } = quickly(
      deck(),
      wish([
        { of: 'title', setting: { family: 'Jost' } },
        { of: 'axis', setting: { size: 10 } },
        { of: 'legend', setting: { size: 10 } },
        { of: 'value', setting: { weight: 700 } },
      ]),
    )
    expect(looks(after)).toEqual([
      'title Jost 700 upright 17 ',
      'axis Skerrow 400 upright 10 ',
      'axis title Skerrow 400 upright 12 ',
      'legend Skerrow 400 upright 10 ',
      'value Skerrow 700 upright 13 ',
    ])
  })

  it('is walked to by its own words, and by its style where the chart works them out', () => {
    const of = deck()
    const { plan } = planned(of, [
      wish([
        { of: 'title', setting: { size: 20 } },
        { of: 'value', setting: { size: 10 } },
      ]),
    ])
    const placesOf = (text: string) => plan.rows.find(row => row.key.of === text)!.places
    const nameOf = ({ part, node }: { part: string; node: number }) => of.document.parts.get(part)!.element(node).name
    expect(placesOf('title').map(nameOf)).toEqual(['text:p'])
    expect(placesOf('value').map(nameOf)).toEqual(['style:style'])
  })

  it('that goes by no style stays, and is told', () => {
    const content = (style: string) =>
      `<office:document-content${namespaces} office:version="1.3"><office:automatic-styles>` +
      '<style:style style:name="ch1" style:family="chart"/></office:automatic-styles><office:body><office:chart>' +
      `<chart:chart chart:class="chart:bar"><chart:title${style}><text:p>Fares</text:p></chart:title>` +
      '<chart:subtitle chart:style-name="ch1"><text:p>by pier</text:p></chart:subtitle></chart:chart>' +
      '</office:chart></office:body></office:document-content>'
    const plan = (style: string) => {
      const of = sessionOf({
        parts: [{ path: 'Object 1/content.xml', type: 'text/xml', content: content(style) }],
        objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
      })
      const texts = ['title', 'subtitle'].map(each => ({ of: each, setting: { size: 20 } }))
      const { rows, left } = quickly(of, wish(texts)).plan
      return { titles: rows.map(row => row.title), left }
    }
    expect(plan('')).toEqual({
      titles: ['Chart “Fares”: subtitle'],
      left: [{ what: 'text of a chart', reason: 'the chart has no style that it goes by', count: 1 }],
    })
    expect(plan(' chart:style-name="ch1"')).toEqual({
      titles: ['Chart “Fares”: title', 'Chart “Fares”: subtitle'],
      left: [],
    })
  })

  it('does what is said of it: houses set it by that, in the saved file, too, until it is taken back', () => {
    const before = deck()
    const house = saltmereLine
    const dressed = (of: DocumentSession) => quickly(of, { type: 'dress', house }).after
    const sizes = (of: DocumentSession) =>
      Object.fromEntries(listChartText(of.reading, null).map(each => [each.of, each.size]))
    const said = planned(before, [wish([{ of: 'legend', setting: {}, role: 'caption' }])])
    expect(said.plan.title).toBe('Say what text of charts does')
    expect(said.plan.sentences).toEqual(['Legend in charts: caption.'])
    expect(said.plan.rows).toMatchObject([
      { key: { what: 'role of chart text', of: 'legend' }, before: 'label', after: 'caption', included: true },
    ])
    expect(looks(said.after)).toEqual(looks(before))
    const [plain, own] = [before, session(saveDocument(said.after.document))].map(of => sizes(dressed(of)))
    expect(own!.axis).toBe(plain!.axis)
    expect(own!.legend).toBe(settingFor(house, 'caption', 'deck')!.size)
    expect(own!.legend).not.toBe(plain!.legend)
    // Said of it is all there is to tell how far it is to style, too.
    const count = (of: DocumentSession, role: string) =>
      measureToStyle(of.reading, house).roles.find(each => each.role === role)?.characters ?? 0
    expect(count(said.after, 'caption')).toBeGreaterThan(count(before, 'caption'))
    const [listed] = listChartText(said.after.reading, null).filter(each => each.of === 'legend')
    expect(listed).toMatchObject({ role: 'caption', proposed: 'label' })
    const back = quickly(said.after, wish([{ of: 'legend', setting: {}, role: null }]))
    expect(sizes(dressed(back.after))).toEqual(plain)
    expect(() => quickly(before, wish([{ of: 'legend', setting: {}, role: null }]))).toThrow(NothingToPlan)
    const left = planned(before, [wish([{ of: 'legend', setting: {}, role: 'caption' }])], [said.plan.rows[0]!.key], {
      effects: false,
    })
    expect(left.plan.operations).toEqual([])
  })

  it('may be left out chart by chart', () => {
    const asked = wish([{ of: 'title', setting: { size: 20 } }])
    const [row] = planned(deck(), [asked]).plan.rows
    const { after } = planned(deck(), [asked], [row!.key])
    expect(looks(after)[0]).toBe('title Skerrow 700 upright 17 ')
    expect(looks(after, 'Object 2/content.xml')[0]).toBe('title Skerrow 700 upright 20 ')
  })

  it('is refused where there is none, and asked of many documents only for all of their charts', () => {
    expect(() => quickly(sessionOf({ body: '<text:p>Pier</text:p>' }), wish([{ of: 'title', setting: {} }]))).toThrow(
      NothingToPlan,
    )
    expect(() => quickly(deck(), wish([{ of: 'footer', setting: { size: 9 } }]))).toThrow(NothingToPlan)
    for (const wrong of [[], [{ of: 'bars', setting: {} }], [{ of: 'title', setting: {}, color: 'red' }]])
      expect(() => request([wish(wrong)])).toThrow()
    const of = (chart: string | null) => registry.whyNotMany(request([wish([{ of: 'title', setting: {} }], chart)]))
    expect(of(null)).toBeNull()
    expect(of('Object 1/content.xml')).toMatch(/one document/)
    const { plan } = registry.plan(
      sessionOf({ body: '<text:p>Pier</text:p>' }),
      request([
        wish([{ of: 'title', setting: { size: 9 } }]),
        { type: 'make', family: 'paragraph', displayName: 'Quay', changes: {} },
      ]),
      { partly: true, effects: false },
    )
    expect(plan.request.wishes.map(each => each.type)).toEqual(['make'])
  })
})
