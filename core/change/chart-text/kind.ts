import type { Chart } from '../../document/chart'
import { paragraphsOf } from '../../document/stories'
import { emptyHouse, houseSchema, type House, type Setting } from '../../house/house'
import { plainNumber } from '../../style/describe'
import type { ChartTextOf } from '../../document/chart-texts'
import { chartTextRole } from '../../style/chart-voices'
import { roleTitle } from '../../style/roles'
import { chartsOf, type ObjectText } from '../../style/reading'
import { lookWords } from '../dress/look-words'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import type { Planner } from '../planner'
import { counted } from '../words'
import { chartOwners, chartTitle, lookOfVoice, setChartText, type SetVoices } from './chart-owners'
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

interface Wanted extends SetVoices {
  readonly text: ChartTextSetting
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

function setIn(planner: Planner, house: House, found: Charted, texts: readonly ChartTextSetting[]): boolean {
  const { object, chart } = found
  const { owners, without } = chartOwners(object, chart, planner.currentRules.charts)
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
  setChartText(planner, object, chart, house, chosen)
  return true
}

/** Says what text of all charts does, and takes back what was said. How many are said anew. */
function sayRoles(planner: Planner, texts: readonly ChartTextSetting[]): number {
  let said = 0
  for (const { of, role } of texts) {
    const { charts = [] } = planner.currentRules
    const now = charts.find(each => each.of === of)?.role ?? null
    if (role === undefined || role === now) continue
    const included = planner.row({
      key: { what: 'role of chart text', of },
      stage: 'chart',
      optional: true,
      title: `Role in charts: ${chartTextWords[of].toLowerCase()}`,
      count: 1,
      before: roleTitle(chartTextRole(of, charts)),
      after: roleTitle(role ?? chartTextRole(of)),
    })
    if (!included) continue
    const others = charts.filter(each => each.of !== of)
    const next = role === null ? others : [...others, { of, role }]
    planner.rules = { ...planner.currentRules, charts: next.length > 0 ? next : undefined }
    said++
  }
  return said
}

const isSet = ({ setting, color }: ChartTextSetting): boolean => Object.keys(setting).length > 0 || color !== undefined

export const chartTextKind = oneByOne<ChartTextWish>({
  type: 'chart-text',
  schema: chartTextWishSchema,
  most: 20,
  act(planner, { chart: only, texts }) {
    const house = houseOf(texts)
    const own = planner.rows.length
    const charts = chartsOf(planner.reading).filter(({ chart }) => only === null || chart.part === only)
    const said = charts.length === 0 ? 0 : sayRoles(planner, texts)
    const wanted = texts.filter(isSet)
    const set = charts.filter(each => setIn(planner, house, each, wanted))
    if (planner.rows.length === own)
      throw new NothingToPlan('This document has no charts with such text, or they have no styles that it goes by.')
    return [
      ...(said > 0 ? ['Say what text of charts does'] : []),
      ...(said === 0 || set.length > 0
        ? [`${said > 0 ? 'set' : 'Set'} the text of ${counted(set.length, 'chart')}`]
        : []),
    ].join(', ')
  },
  sentence: ({ chart, texts }) => {
    const words = (list: readonly ChartTextSetting[]) =>
      list.map(each => chartTextWords[each.of].toLowerCase()).join(', ')
    const [set, said] = [texts.filter(isSet), texts.filter(each => each.role !== undefined)]
    return [
      ...(set.length > 0 ? [`Set ${words(set)} of ${chart === null ? 'all charts' : 'a chart'} anew.`] : []),
      ...said.map(({ of, role }) => `${chartTextWords[of]} in charts: ${role ? roleTitle(role) : 'as is proposed'}.`),
    ].join(' ')
  },
  applies: document => document.subdocuments.some(each => each.kind === 'chart'),
  whyNotMany: ({ chart }) => (chart === null ? null : 'A chart of one document is named. Ask for all charts instead.'),
})
