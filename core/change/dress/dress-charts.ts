import { shownByChart, type Chart } from '../../document/chart'
import { setStyleValues } from '../../document/style-verbs'
import { findStyle, type Style } from '../../document/styles'
import { paragraphsOf } from '../../document/stories'
import type { Role } from '../../document/rules'
import { mediumOf, settingFor, type Setting } from '../../house/house'
import { settingOfCharts } from '../../house/setting-values'
import { settingWords } from '../../house/setting-words'
import { chartVoices, type ChartVoice } from '../../style/chart-voices'
import { chartsOf, type ObjectText } from '../../style/reading'
import { roleTitle } from '../../style/roles'
import { lookOf, type Look } from '../draw-up/look'
import type { Planner } from '../planner'
import { counted } from '../words'
import { valuesToKeep } from '../keep-look'
import { lookWords } from './look-words'
import { textValues } from './say-setting'
import type { DressWish } from './wish'

/** A style of a chart that text goes by, with what it does. Charts know no named styles: these are its own. */
interface Owner {
  readonly style: Style
  readonly role: Role
  readonly voices: readonly ChartVoice[]
}

const lookOfVoice = (object: ObjectText, chart: Chart, { styleNames }: ChartVoice): Look =>
  lookOf(object.cascade.paragraph(shownByChart(chart, '', styleNames), 'chart').text.effective)

/** The styles that text of a chart goes by; text that goes by none is counted in `without`. */
function ownersOf(object: ObjectText, chart: Chart): { readonly owners: Owner[]; readonly without: number } {
  const scope = object.cascade.scope(chart.part)
  const found = new Map<Style, ChartVoice[]>()
  let without = 0
  for (const voice of chartVoices(chart)) {
    const own = voice.styleNames.map(name => findStyle(scope, 'chart', name)).findLast(style => style !== undefined)
    if (!own) without++
    else found.set(own, [...(found.get(own) ?? []), voice])
  }
  const owners = [...found].map(([style, voices]): Owner => {
    // One style for a title and for labels: more text are the labels.
    const roles = new Set(voices.map(voice => voice.role))
    return { style, voices, role: roles.size === 1 ? voices[0]!.role : 'label' }
  })
  return { owners, without }
}

const textOf = (chart: Chart): string => {
  const title = chart.titles.find(each => each.which === 'title')
  return paragraphsOf(title?.blocks ?? [])
    .flatMap(each => each.inlines.map(inline => (inline.kind === 'text' ? inline.text : '')))
    .join('')
    .trim()
    .slice(0, 60)
}

function listed(planner: Planner, wish: DressWish, chart: Chart, role: Role, owners: readonly Owner[], was: Look) {
  const { house, keep } = wish
  const own = settingFor(house, role, mediumOf(planner.document.kind))
  const setting = own && settingOfCharts(own)
  const open = setting === null || Object.keys(setting).length === 0
  const paragraphs = owners.flatMap(({ voices }) => voices.flatMap(voice => paragraphsOf(voice.blocks)))
  const title = textOf(chart)
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
  const { owners, without } = ownersOf(object, chart)
  if (without > 0) planner.note('text of a chart', 'the chart has no style that it goes by', without)
  const looks = new Map(owners.map(owner => [owner, lookOfVoice(object, chart, owner.voices[0]!)]))
  const settings = new Map<Owner, Setting>()
  for (const role of new Set(owners.map(owner => owner.role))) {
    const own = owners.filter(owner => owner.role === role)
    const setting = listed(planner, wish, chart, role, own, looks.get(own[0]!)!)
    if (setting) for (const owner of own) settings.set(owner, setting)
  }
  if (settings.size === 0) return
  const draft = planner.change.on(chart.part)
  for (const [{ style }, setting] of settings)
    setStyleValues(draft, style.node, 'text', textValues(draft, wish.house, setting))
  // Styles that keep their look say for themselves what they took from one that was dressed.
  planner.reread()
  const now = planner.reading.objects.find(each => each.prefix === object.prefix)!
  for (const owner of owners) {
    if (settings.has(owner)) continue
    const { text } = valuesToKeep(looks.get(owner)!, lookOfVoice(now, chart, owner.voices[0]!))
    setStyleValues(draft, owner.style.node, 'text', text)
  }
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
