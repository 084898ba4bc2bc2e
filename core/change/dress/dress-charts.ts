import type { Chart } from '../../document/chart'
import { paragraphsOf } from '../../document/stories'
import type { Role } from '../../document/rules'
import { mediumOf, settingFor, type Setting } from '../../house/house'
import { settingOfCharts } from '../../house/setting-values'
import { settingWords } from '../../house/setting-words'
import { chartsOf, type ObjectText } from '../../style/reading'
import { roleTitle } from '../../style/roles'
import { chartOwners, chartTitle, lookOfVoice, setChartText, type ChartOwner } from '../chart-text/chart-owners'
import type { Look } from '../draw-up/look'
import type { Planner } from '../planner'
import { counted } from '../words'
import { lookWords } from './look-words'
import type { DressWish } from './wish'

/** A style of a chart with what its text does. */
interface Owner extends ChartOwner {
  readonly role: Role
}

/** One style for a title and for labels: more text are the labels. */
function withRole({ style, voices }: ChartOwner): Owner {
  const roles = new Set(voices.map(voice => voice.role))
  return { style, voices, role: roles.size === 1 ? voices[0]!.role : 'label' }
}

function listed(planner: Planner, wish: DressWish, chart: Chart, role: Role, owners: readonly Owner[], was: Look) {
  const { house, keep } = wish
  const own = settingFor(house, role, mediumOf(planner.document.kind))
  const setting = own && settingOfCharts(own)
  const open = setting === null || Object.keys(setting).length === 0
  const paragraphs = owners.flatMap(({ voices }) => voices.flatMap(voice => paragraphsOf(voice.blocks)))
  const title = chartTitle(chart)
  const included = planner.row({
    key: { what: 'dressed chart', part: chart.part, role },
    stage: 'chart',
    optional: true,
    title: `Chart${title === '' ? '' : ` “${title}”`}, ${roleTitle(role)}`,
    characters: paragraphs.reduce(
      (sum, { inlines }) => inlines.reduce((own, each) => own + (each.kind === 'text' ? each.text.length : 0), sum),
      0,
    ),
    before: lookWords(was),
    after: open ? 'as it is' : settingWords(house, setting),
    reason: open ? `the house leaves ${roleTitle(role)} open` : keep.includes(role) ? 'its role keeps its look' : null,
    places:
      paragraphs.length > 0
        ? paragraphs.map(({ part, node }) => ({ part, node }))
        : owners.map(({ style }) => ({ part: style.part, node: style.node })),
  })
  return included ? setting : null
}

function dressChart(planner: Planner, wish: DressWish, object: ObjectText, chart: Chart): void {
  const found = chartOwners(object, chart)
  const owners = found.owners.map(withRole)
  if (found.without > 0) planner.note('text of a chart', 'the chart has no style that it goes by', found.without)
  const settings = new Map<Owner, Setting>()
  for (const role of new Set(owners.map(owner => owner.role))) {
    const own = owners.filter(owner => owner.role === role)
    const setting = listed(planner, wish, chart, role, own, lookOfVoice(object, chart, own[0]!.voices[0]!))
    if (setting) for (const owner of own) settings.set(owner, setting)
  }
  if (settings.size > 0) setChartText(planner, object, chart, wish.house, settings)
}

/** Sets the text of charts as a house says, that which charts work out themselves included. */
export function dressCharts(planner: Planner, wish: DressWish): void {
  for (const { object, chart } of chartsOf(planner.reading)) dressChart(planner, wish, object, chart)
}

/** “the text of 2 charts”, by the rows of a plan; '' for none. */
export function chartsDressed(planner: Planner, from: number): string {
  const charts = planner.rows.slice(from).filter(row => row.included && row.key.what === 'dressed chart')
  const count = new Set(charts.map(row => row.key.part)).size
  return count === 0 ? '' : `the text of ${counted(count, 'chart')}`
}
