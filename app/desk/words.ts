export { counted, grouped } from '~~/core/change/words'

/** A share in percent; what rounds to nothing is a dash. */
export function percentage(share: number): string {
  const value = share * 100
  return value > 0 && value < 0.05 ? '–' : `${value.toFixed(1)} %`
}

/** Page indexes as folios: “all pages”, “2–5, 9”. */
export function pageWords(pages: readonly number[], all: number): string {
  // Text that no page shows stands on a master, in its placeholders, or on a handout.
  if (pages.length === 0) return 'masters alone'
  if (pages.length === all && all > 1) return 'all pages'
  const runs: [number, number][] = []
  for (const page of pages) {
    const last = runs.at(-1)
    if (last && page === last[1] + 1) last[1] = page
    else runs.push([page, page])
  }
  const words = runs.map(([from, to]) => (from === to ? String(from + 1) : `${from + 1}–${to + 1}`))
  return words.length > 4 ? `${words.slice(0, 3).join(', ')} … ${words.at(-1)}` : words.join(', ')
}

/** A day as people read it: “3 Feb 2027”. */
export function dayWords(date: Date | string): string {
  return new Date(date).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })
}

/** Share that is settled: never rounded up to 100. */
export function settledWords(settled: number): string {
  return settled === 1 ? '100 %' : `${(Math.floor(settled * 1000) / 10).toFixed(1)} %`
}
