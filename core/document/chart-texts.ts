/** Text of a chart by what it belongs to: `axis` is what stands along one, `value` what stands at points of series. */
export const chartTexts = ['title', 'subtitle', 'footer', 'axis', 'axis title', 'legend', 'value'] as const
export type ChartTextOf = (typeof chartTexts)[number]
