/** As many trials as one composition may make where nothing can be kept of them: sections in sections, among frames. */
const mostTrials = 20_000

/**
 * The least heights at which sections fit their columns, while pages are composed. To balance a section its content is
 * set some thirty times; with sections inside, each of these would balance them thirty times, and so on: time to the
 * power of the depth. So while a section is tried, what is inside it is balanced once for a place and a width, and kept.
 */
export class Balances {
  private readonly known = new WeakMap<object, Map<string, number | null>>()
  private trials = 0

  /**
   * The least height of what is left of a section from a place in it, in columns that share a width in points; null where
   * it fits none. `find` looks for it where it is not known; a place without a name (null) is looked for each time.
   */
  least(section: object, place: string | null, width: number, find: () => number | null): number | null {
    if (place === null) return find()
    const key = `${width.toFixed(2)} ${place}`
    const own = this.known.get(section) ?? new Map<string, number | null>()
    this.known.set(section, own)
    let height = own.get(key)
    if (height === undefined) own.set(key, (height = find()))
    return height
  }

  /** Counts a trial. */
  tried(): void {
    this.trials++
  }

  /** Whether nothing more may be tried: what is left is not balanced. */
  get spent(): boolean {
    return this.trials >= mostTrials
  }
}
