import type { Chart } from '../../document/chart'
import { paragraphsOf } from '../../document/stories'
import { emptyHouse, houseSchema, type House, type Setting } from '../../house/house'
import { plainNumber } from '../../style/describe'
import type { ChartTextOf, ChartVoice } from '../../style/chart-voices'
import { chartsOf, type ObjectText } from '../../style/reading'
import { textValues } from '../dress/say-setting'
import { lookWords } from '../dress/look-words'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { setReference } from '../../document/style-references'
import { chartOwners, chartTitle, lookOfVoice, setChartText, type ChartOwner } from './chart-owners'
import { chartTextWishSchema, type ChartTextSetting, type ChartTextWish } from './wish'

type Charted = ReturnType<typeof chartsOf>[number]

/** What text of a chart is called on screen. */
export const chartTextWords: Readonly<Record<ChartTextOf, string>> = {
  title: 'Title',
  subtitle: 'Subtitle',
  footer: 'Footer',
  axis: 'Along the axes',
  'axis title': 'Titles of axes',
  legend: 'Legend',
  value: 'Values',
}

/** Settings name colours of a palette: a house that has those of the wish carries them. */
function houseOf(texts: readonly ChartTextSetting[]): House {
  const colors = [...new Set(texts.flatMap(each => each.color ?? []))]
  const palette = colors.map((color, at) => ({ id: `colour-${at}`, title: color, does: 'accent', color }))
  return houseSchema.parse({ ...emptyHouse('charts'), palette })
}

const settingOf = (house: House, { setting, color }: ChartTextSetting): Setting => {
  const id = house.palette.find(each => each.color === color)?.id
  return { ...setting, ...(id === undefined ? {} : { color: id }) }
}

/** What becomes different, in words. */
const changeWords = ({ setting: { family, weight, italic, size, case: letters }, color }: ChartTextSetting): string =>
  [
    family,
    size === undefined ? undefined : `${plainNumber(size)} pt`,
    weight === undefined ? undefined : `weight ${weight}`,
    italic === undefined ? undefined : italic ? 'italic' : 'upright',
    letters === undefined ? undefined : letters === 'none' ? 'letters as they are' : letters.replace('-', ' '),
    color,
  ]
    .filter(each => each !== undefined)
    .join(', ')

/** Text that shall be set, of those that go by one style. */
interface Wanted {
  readonly owner: ChartOwner
  readonly text: ChartTextSetting
  readonly voices: readonly ChartVoice[]
  readonly setting: Setting
}

/** Lists text of a chart; whether it is set. */
function listed(planner: Planner, object: ObjectText, chart: Chart, { owner, text, voices }: Wanted) {
  const paragraphs = voices.flatMap(voice => paragraphsOf(voice.blocks))
  const title = chartTitle(chart)
  return planner.row({
    key: { what: 'chart text', part: chart.part, name: owner.style.name, of: text.of },
    stage: 'chart',
    optional: true,
    title: `Chart${title === '' ? '' : ` “${title}”`}: ${chartTextWords[text.of].toLowerCase()}`,
    count: voices.length,
    before: lookWords(lookOfVoice(object, chart, voices[0]!)),
    after: changeWords(text),
    places:
      paragraphs.length > 0
        ? paragraphs.map(({ part, node }) => ({ part, node }))
        : [{ part: owner.style.part, node: owner.style.node }],
  })
}

/** Gives text a style of its own, where other text goes by the one it has. */
function setApart(planner: Planner, chart: Chart, house: House, { voices, setting }: Wanted): void {
  const draft = planner.change.on(chart.part)
  const text = textValues(draft, house, setting)
  for (const holder of new Set(voices.map(voice => voice.holder))) {
    if (holder === null) continue
    const own = draft.part.element(holder).attributes['chart:style-name'] ?? null
    const name = planner.automatic(chart.part).derive('chart', own, { text })
    setReference(draft, { node: holder, attribute: 'chart:style-name' }, name)
  }
}

function setIn(planner: Planner, house: House, found: Charted, texts: readonly ChartTextSetting[]): boolean {
  const { object, chart } = found
  const { owners, without } = chartOwners(object, chart)
  if (without > 0) planner.note('text of a chart', 'the chart has no style that it goes by', without)
  const chosen: Wanted[] = []
  for (const owner of owners)
    for (const text of texts) {
      const voices = owner.voices.filter(voice => voice.of === text.of)
      if (voices.length === 0) continue
      const wanted: Wanted = { owner, text, voices, setting: settingOf(house, text) }
      if (listed(planner, object, chart, wanted)) chosen.push(wanted)
    }
  if (chosen.length === 0) return false
  const isAlone = ({ owner, voices }: Wanted) => owner.voices.length === voices.length
  const alone = new Map(chosen.filter(isAlone).map(({ owner, setting }) => [owner, setting]))
  if (alone.size > 0) {
    setChartText(planner, object, chart, house, alone)
    // Styles that were known by what they said may say something else now.
    planner.forgetAutomatic()
  }
  // Last: what parts from a style takes along what that keeps of one that was set.
  for (const wanted of chosen) if (!isAlone(wanted)) setApart(planner, chart, house, wanted)
  return true
}

export const chartTextKind = oneByOne<ChartTextWish>({
  type: 'chart-text',
  schema: chartTextWishSchema,
  most: 20,
  act(planner, { chart: only, texts }) {
    const house = houseOf(texts)
    const own = planner.rows.length
    const charts = chartsOf(planner.reading).filter(({ chart }) => only === null || chart.part === only)
    const set = charts.filter(each => setIn(planner, house, each, texts))
    if (planner.rows.length === own)
      throw new NothingToPlan('This document has no charts with such text, or they have no styles that it goes by.')
    return `Set the text of ${counted(set.length, 'chart')}`
  },
  sentence: ({ chart, texts }) =>
    `Set ${texts.map(each => chartTextWords[each.of].toLowerCase()).join(', ')} of ${chart === null ? 'all charts' : 'a chart'} anew.`,
  applies: document => document.subdocuments.some(each => each.kind === 'chart'),
  whyNotMany: ({ chart }) => (chart === null ? null : 'A chart of one document is named. Ask for all charts instead.'),
})
