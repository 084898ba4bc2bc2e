import type { Chart } from '../document/chart'
import type { Role } from '../document/rules'
import type { Block } from '../document/story-model'

/** Text of a chart by what it belongs to: `axis` is what stands along one, `value` what stands at points of series. */
export const chartTexts = ['title', 'subtitle', 'footer', 'axis', 'axis title', 'legend', 'value'] as const
export type ChartTextOf = (typeof chartTexts)[number]

/** Text of a chart that is seen and does one thing. */
export interface ChartVoice {
  readonly of: ChartTextOf
  readonly role: Role
  /** The element that names the innermost of its styles; null where another voice's does. */
  readonly holder: number | null
  /** Names of the chart styles that have a say, outermost first. */
  readonly styleNames: readonly string[]
  /** What stands in the file of it; numbers that the chart works out stand nowhere. */
  readonly blocks: readonly Block[]
}

const titleRoles = { title: 'subheading', subtitle: 'caption', footer: 'caption' } as const satisfies Record<
  string,
  Role
>
const named = (names: readonly (string | null)[]): string[] => names.filter(name => name !== null)

/**
 * The voices of a chart, by what each is there for: its title heads it as a heading of the text around would, what stands
 * below the title explains it, and all else are labels: titles and numbers of axes, names in the legend, values.
 */
export function chartVoices({ styleName: base, titles, axes, plot, legend, series, categories }: Chart): ChartVoice[] {
  const label = (
    of: ChartTextOf,
    holder: number | null,
    styleNames: readonly string[],
    blocks: readonly Block[] = [],
  ): ChartVoice => ({
    of,
    role: 'label',
    holder,
    styleNames,
    blocks,
  })
  return [
    ...titles.map(({ which, node, styleNames, blocks }): ChartVoice => ({
      of: which,
      role: titleRoles[which],
      holder: node,
      styleNames,
      blocks,
    })),
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
