import { shownByChart, type Chart } from '../../document/chart'
import { paragraphsOf } from '../../document/stories'
import { setReference } from '../../document/style-references'
import { setStyleValues } from '../../document/style-verbs'
import { findStyle, type Style } from '../../document/styles'
import type { Rules } from '../../document/rules'
import type { House, Setting } from '../../house/house'
import { chartVoices, type ChartVoice } from '../../style/chart-voices'
import type { ObjectText } from '../../style/reading'
import { textValues } from '../dress/say-setting'
import { lookOf, type Look } from '../draw-up/look'
import { valuesToKeep } from '../keep-look'
import type { Planner } from '../planner'

/** A style of a chart that text goes by, with the text. Charts know no named styles: these are its own. */
export interface ChartOwner {
  readonly style: Style
  readonly voices: readonly ChartVoice[]
}

/** How text of a chart looks. */
export const lookOfVoice = (object: ObjectText, chart: Chart, { styleNames }: ChartVoice): Look =>
  lookOf(object.cascade.paragraph(shownByChart(chart, '', styleNames), 'chart').text.effective)

/** The style that says most nearly how text of a chart looks; undefined where the chart has none for it. */
const styleOfVoice = (object: ObjectText, chart: Chart, { styleNames }: ChartVoice): Style | undefined =>
  styleNames
    .map(name => findStyle(object.cascade.scope(chart.part), 'chart', name))
    .findLast(style => style !== undefined)

/** The styles that text of a chart goes by; text that goes by none is counted in `without`. */
export function chartOwners(
  object: ObjectText,
  chart: Chart,
  said: Rules['charts'] = [],
): { readonly owners: ChartOwner[]; readonly without: number } {
  const found = new Map<Style, ChartVoice[]>()
  let without = 0
  for (const voice of chartVoices(chart, said)) {
    const own = styleOfVoice(object, chart, voice)
    if (!own) without++
    else found.set(own, [...(found.get(own) ?? []), voice])
  }
  return { owners: [...found].map(([style, voices]) => ({ style, voices })), without }
}

/** What a chart is called: its title; '' where it has none. */
export const chartTitle = (chart: Chart): string =>
  paragraphsOf(chart.titles.find(each => each.which === 'title')?.blocks ?? [])
    .flatMap(each => each.inlines.map(inline => (inline.kind === 'text' ? inline.text : '')))
    .join('')
    .trim()
    .slice(0, 60)

/** Text of a chart that goes by one style and shall be set: all that goes by it, or some. */
export interface SetVoices {
  readonly owner: ChartOwner
  readonly voices: readonly ChartVoice[]
  readonly setting: Setting
}

/**
 * Sets text of a chart: in the style that it goes by, where nothing else does, else in one of its own. Styles that keep their
 * look say for themselves what they took from one that was set.
 */
export function setChartText(
  planner: Planner,
  object: ObjectText,
  chart: Chart,
  house: House,
  wanted: readonly SetVoices[],
): void {
  const isAlone = ({ owner, voices }: SetVoices) => owner.voices.length === voices.length
  const alone = new Map(wanted.filter(isAlone).map(({ owner, setting }) => [owner, setting]))
  if (alone.size > 0) {
    setStyles(planner, object, chart, house, alone)
    // Styles that were known by what they said may say something else now.
    planner.forgetAutomatic()
  }
  // Last: what parts from a style takes along what that keeps of one that was set.
  for (const each of wanted) if (!isAlone(each)) setApart(planner, chart, house, each)
}

/** Gives text a style of its own, where other text goes by the one it has. */
function setApart(planner: Planner, chart: Chart, house: House, { voices, setting }: SetVoices): void {
  const draft = planner.change.on(chart.part)
  const text = textValues(draft, house, setting)
  for (const holder of new Set(voices.map(voice => voice.holder))) {
    if (holder === null) continue
    const own = draft.part.element(holder).attributes['chart:style-name'] ?? null
    const name = planner.automatic(chart.part).derive('chart', own, { text })
    setReference(draft, { node: holder, attribute: 'chart:style-name' }, name)
  }
}

function setStyles(
  planner: Planner,
  object: ObjectText,
  chart: Chart,
  house: House,
  settings: ReadonlyMap<ChartOwner, Setting>,
): void {
  const { owners } = chartOwners(object, chart, planner.currentRules.charts)
  const set = new Set([...settings.keys()].map(owner => owner.style))
  const looks = new Map(owners.map(owner => [owner, lookOfVoice(object, chart, owner.voices[0]!)]))
  const draft = planner.change.on(chart.part)
  for (const [{ style }, setting] of settings)
    setStyleValues(draft, style.node, 'text', textValues(draft, house, setting))
  planner.reread()
  const now = planner.reading.objects.find(each => each.prefix === object.prefix)!
  for (const owner of owners) {
    if (set.has(owner.style)) continue
    const { text } = valuesToKeep(looks.get(owner)!, lookOfVoice(now, chart, owner.voices[0]!))
    setStyleValues(draft, owner.style.node, 'text', text)
  }
}
