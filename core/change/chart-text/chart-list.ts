import { objectPages } from '../../census/text-pages'
import type { Composition } from '../../typeset/compose'
import { chartTexts, type ChartTextOf } from '../../document/chart-texts'
import type { RoleId } from '../../document/rules'
import { chartTextRole, chartVoices } from '../../style/chart-voices'
import { chartsOf, type Reading } from '../../style/reading'
import { shownByChart } from '../../document/chart'
import { colorOfText } from '../../house/to-style'
import { chartTitle } from './chart-owners'

/** Text of a chart as it is set now. Points; colour “#rrggbb”, '' for that of the ground it stands on. */
export interface ListedChartText {
  readonly chart: string
  /** The chart's title; '' for none. */
  readonly title: string
  /** Index of the page that it is drawn on first; -1 for none. */
  readonly page: number
  readonly of: ChartTextOf
  readonly family: string
  readonly weight: number
  readonly italic: boolean
  readonly size: number
  readonly color: string
  /** What it does in charts of this document, where somebody said it; and what is proposed. */
  readonly role: RoleId | null
  readonly proposed: RoleId
}

/** All text of the charts of a document, chart by chart; of several that are one thing, as of two axes, how the first is set. */
export function listChartText(reading: Reading, composition: Composition | null): ListedChartText[] {
  const pagesOf = objectPages(composition)
  return chartsOf(reading).flatMap(({ object, chart }) => {
    const { charts: said = [] } = reading.cascade.rules
    const voices = chartVoices(chart, said)
    return chartTexts.flatMap((of): ListedChartText[] => {
      const own = voices.filter(voice => voice.of === of)
      if (own.length === 0) return []
      const { text } = object.cascade.paragraph(shownByChart(chart, '', own[0]!.styleNames), 'chart')
      const { font, size, weight, posture } = text.effective.slots.western
      return [
        {
          chart: chart.part,
          title: chartTitle(chart),
          page: pagesOf(object.prefix)[0] ?? -1,
          of,
          family: font.family,
          weight,
          italic: posture !== 'normal',
          size,
          color: colorOfText(text),
          role: said.find(each => each.of === of)?.role ?? null,
          proposed: chartTextRole(of),
        },
      ]
    })
  })
}
