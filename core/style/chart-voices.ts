import type { Chart } from '../document/chart'
import type { Role } from '../document/rules'
import type { Block } from '../document/story-model'

/** Text of a chart that is seen and does one thing. */
export interface ChartVoice {
  readonly role: Role
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
  const label = (styleNames: readonly string[], blocks: readonly Block[] = []): ChartVoice => ({
    role: 'label',
    styleNames,
    blocks,
  })
  return [
    ...titles.map(({ which, styleNames, blocks }): ChartVoice => ({ role: titleRoles[which], styleNames, blocks })),
    ...axes.flatMap(({ styleName, title }) => [
      label(named([base, styleName])),
      ...(title ? [label(title.styleNames, title.blocks)] : []),
    ]),
    ...(legend ? [label(named([base, legend.styleName]))] : []),
    ...categories.map(({ styleNames, blocks }) => label(styleNames, blocks)),
    ...series.flatMap(({ styleName, label: name }) => [
      label(named([base, plot.styleName, styleName])),
      ...(name ? [label(name.styleNames, name.blocks)] : []),
    ]),
  ]
}
