import type { Chart } from '../document/chart'
import type { ChartTextOf } from '../document/chart-texts'
import type { Role, RoleId, Rules } from '../document/rules'
import type { Block } from '../document/story-model'

/** Text of a chart that is seen and does one thing. */
export interface ChartVoice {
  readonly of: ChartTextOf
  readonly role: RoleId
  /** The element that names the innermost of its styles; null where another voice's does. */
  readonly holder: number | null
  /** Names of the chart styles that have a say, outermost first. */
  readonly styleNames: readonly string[]
  /** What stands in the file of it; numbers that the chart works out stand nowhere. */
  readonly blocks: readonly Block[]
}

/**
 * What text of a chart does where nobody says: its title heads it as a heading of the text around would, what stands below the
 * title explains it, and all else are labels: titles and numbers of axes, names in the legend, values.
 */
const proposed: Readonly<Record<ChartTextOf, Role>> = {
  title: 'subheading',
  subtitle: 'caption',
  footer: 'caption',
  axis: 'label',
  'axis title': 'label',
  legend: 'label',
  value: 'label',
}

/** What text of charts does: as the document's own rules say, or as is proposed. */
export const chartTextRole = (of: ChartTextOf, said: Rules['charts'] = []): RoleId =>
  said.find(each => each.of === of)?.role ?? proposed[of]

const named = (names: readonly (string | null)[]): string[] => names.filter(name => name !== null)

/** The voices of a chart, by what each is there for. `said` is what the document's rules say that text of charts does. */
export function chartVoices(
  { styleName: base, titles, axes, plot, legend, series, categories }: Chart,
  said: Rules['charts'] = [],
): ChartVoice[] {
  const label = (
    of: ChartTextOf,
    holder: number | null,
    styleNames: readonly string[],
    blocks: readonly Block[] = [],
  ): ChartVoice => ({
    of,
    role: chartTextRole(of, said),
    holder,
    styleNames,
    blocks,
  })
  return [
    ...titles.map(({ which, node, styleNames, blocks }) => label(which, node, styleNames, blocks)),
    ...axes.flatMap(({ node, styleName, title }) => [
      label('axis', node, named([base, styleName])),
      ...(title ? [label('axis title', title.node, title.styleNames, title.blocks)] : []),
    ]),
    ...(legend ? [label('legend', legend.node, named([base, legend.styleName]))] : []),
    ...categories.map(({ styleNames, blocks }) => label('axis', null, styleNames, blocks)),
    ...series.flatMap(({ node, styleName, label: name }) => [
      label('value', node, named([base, plot.styleName, styleName])),
      ...(name ? [label('legend', null, name.styleNames, name.blocks)] : []),
    ]),
  ]
}
