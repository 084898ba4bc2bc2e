import type { Chart } from '../../document/chart'
import { paragraphsOf } from '../../document/stories'
import type { RoleId, Rules } from '../../document/rules'
import { mediumOf, settingFor } from '../../house/house'
import { settingOfCharts } from '../../house/setting-values'
import { settingWords } from '../../house/setting-words'
import type { ChartVoice } from '../../style/chart-voices'
import { chartsOf, type ObjectText } from '../../style/reading'
import { roleTitle } from '../../style/roles'
import {
  chartOwners,
  chartTitle,
  lookOfVoice,
  setChartText,
  type ChartOwner,
  type SetVoices,
} from '../chart-text/chart-owners'
import type { Look } from '../draw-up/look'
import type { Planner } from '../planner'
import { counted } from '../words'
import { lookWords } from './look-words'
import type { DressWish } from './wish'

/** Text of a chart that goes by one style and does one thing. */
interface Owned {
  readonly owner: ChartOwner
  readonly voices: readonly ChartVoice[]
  readonly role: RoleId
}

/**
 * Text that goes by one style, by what it does. Where a style is a title's and that of labels, it is all labels, which are more
 * text: only what somebody said parts them.
 */
function byRole(owner: ChartOwner, said: NonNullable<Rules['charts']>): Owned[] {
  const isSaid = ({ of }: ChartVoice) => said.some(each => each.of === of)
  const proposed = new Set(owner.voices.filter(voice => !isSaid(voice)).map(voice => voice.role))
  const roleOf = (voice: ChartVoice) => (isSaid(voice) || proposed.size === 1 ? voice.role : 'label')
  return [...new Set(owner.voices.map(roleOf))].map(role => ({
    owner,
    voices: owner.voices.filter(voice => roleOf(voice) === role),
    role,
  }))
}

function listed(planner: Planner, wish: DressWish, chart: Chart, role: RoleId, owned: readonly Owned[], was: Look) {
  const { house, keep } = wish
  const own = settingFor(house, role, mediumOf(planner.document.kind))
  const setting = own && settingOfCharts(own)
  const open = setting === null || Object.keys(setting).length === 0
  const paragraphs = owned.flatMap(({ voices }) => voices.flatMap(voice => paragraphsOf(voice.blocks)))
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
        : owned.map(({ owner: { style } }) => ({ part: style.part, node: style.node })),
  })
  return included ? setting : null
}

function dressChart(planner: Planner, wish: DressWish, object: ObjectText, chart: Chart): void {
  const { charts: said = [] } = planner.currentRules
  const { owners, without } = chartOwners(object, chart, said)
  if (without > 0) planner.note('text of a chart', 'the chart has no style that it goes by', without)
  const owned = owners.flatMap(owner => byRole(owner, said))
  const wanted: SetVoices[] = []
  for (const role of new Set(owned.map(each => each.role))) {
    const own = owned.filter(each => each.role === role)
    const setting = listed(planner, wish, chart, role, own, lookOfVoice(object, chart, own[0]!.voices[0]!))
    if (setting) wanted.push(...own.map(({ owner, voices }) => ({ owner, voices, setting })))
  }
  if (wanted.length > 0) setChartText(planner, object, chart, wish.house, wanted)
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
