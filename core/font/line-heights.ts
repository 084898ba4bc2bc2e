import type { FaceMeasures } from './face'
import { spellingKey } from './family-alias'

/*
 * A face that stands in for another has the widths of that other at best; its lines are its own. Where it is publicly known
 * how high lines of a family are, they are set so whatever shows the text: pages then end where they did for whoever has it.
 */

/** What a face asks for its lines, in thousandths of an em: above and below the baseline, and the gap to the next line. */
export interface LineHeights {
  readonly above: number
  readonly below: number
  readonly gap: number
}

interface KnownHeights extends LineHeights {
  readonly names: readonly string[]
}

/**
 * Most are the table of line metrics (hhea) of the free faces that were made for the names which printers had built in, as
 * Debian's package fonts-urw-base35 20200910 has them. A Type 1 font has no such table: of Courier 10
 * Pitch the bounding box is taken, as the metrics file c0419bt_.afm of Debian's xfonts-scalable has it. Files that were laid
 * out with it have lines of about that, and no gap.
 */
const known: readonly KnownHeights[] = [
  { names: ['Courier', 'Nimbus Mono', 'Nimbus Mono PS'], above: 603, below: 397, gap: 200 },
  { names: ['Nimbus Sans'], above: 729, below: 271, gap: 200 },
  { names: ['Nimbus Sans Narrow'], above: 718, below: 282, gap: 200 },
  { names: ['Nimbus Roman'], above: 683, below: 317, gap: 200 },
  { names: ['C059'], above: 737, below: 263, gap: 200 },
  { names: ['P052'], above: 726, below: 274, gap: 200 },
  { names: ['URW Bookman'], above: 717, below: 283, gap: 200 },
  { names: ['URW Gothic'], above: 739, below: 261, gap: 200 },
  { names: ['Z003'], above: 677, below: 323, gap: 200 },
  { names: ['D050000L'], above: 1057, below: 143, gap: 150 },
  { names: ['Standard Symbols PS'], above: 778, below: 222, gap: 0 },
  { names: ['Courier 10 Pitch', 'Bitstream Courier 10 Pitch'], above: 858, below: 299, gap: 0 },
]
const byName = new Map(
  known.flatMap(({ names, ...heights }) => names.map(name => [spellingKey(name), heights] as const)),
)

/** How high lines of a family are that is not here; null where that is not known. */
export const knownLineHeights = (family: string): LineHeights | null => byName.get(spellingKey(family)) ?? null

/** How high lines of a face are by its own file. */
export const ownLineHeights = ({ lineAscent, lineDescent, lineGap }: FaceMeasures): LineHeights => ({
  above: lineAscent,
  below: lineDescent,
  gap: lineGap,
})
