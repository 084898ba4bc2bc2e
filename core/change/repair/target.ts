import type { Repair } from './wish'

/**
 * What shall be mended: a paragraph that gained lines, or a frame that runs over. `limits` is how far each way may
 * go.
 */
export interface RepairTarget {
  readonly part: string
  readonly node: number
  readonly of: 'paragraph' | 'frame'
  /** Thousandths of an em; percent; percent; points: the furthest that is tried. */
  readonly limits: {
    readonly tracking: number
    readonly size: number
    readonly leading: number
    readonly height: number
  }
}

/** How far repairs go where nobody says otherwise. */
export const usualLimits: RepairTarget['limits'] = { tracking: -20, size: 92, leading: 92, height: 60 }

/** A way to mend it, with what comes of it: lines of the paragraph, or lines that still run over. */
export interface RepairOption {
  readonly repair: Repair
  readonly linesBefore: number
  readonly lines: number
  readonly mends: boolean
  readonly pages: number
}
