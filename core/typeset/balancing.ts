import type { Item, Position } from './flow'

/** As many trials as one composition may make where nothing can be kept of them: sections in sections, among frames. */
const mostTrials = 20_000

/** Whether all that a position says is where it is: no row was cut in two. */
const isPlain = (position: Position | null): boolean =>
  position === null || (position.rest === null && isPlain(position.inner))

/**
 * The least heights at which sections fit their columns, while pages are composed. To balance a section its content is
 * set some thirty times; with sections inside, each of these would balance them thirty times, and so on: time to the
 * power of the depth. So while a section is tried, what is inside it is balanced once for a place and a width, and kept.
 */
export class Balances {
  private readonly known = new WeakMap<readonly Item[], Map<string, number | null>>()
  private trials = 0

  /**
   * The least height of what is left of a section from a position, in columns that share a width in points; null where
   * it fits none. `find` looks for it where it is not known.
   */
  least(items: readonly Item[], position: Position, width: number, find: () => number | null): number | null {
    if (!isPlain(position)) return find()
    const key = `${width.toFixed(2)} ${JSON.stringify(position)}`
    const own = this.known.get(items) ?? new Map<string, number | null>()
    this.known.set(items, own)
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
