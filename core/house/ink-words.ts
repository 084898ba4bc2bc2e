import { inkSchema, type Ink } from './house'

/** What a colour is printed with, in words as they are read back: “10 / 55 / 100 / 30” or a spot ink's name; '' for nothing said. */
export function inkWords(ink: Ink | undefined): string {
  if (ink === undefined) return ''
  return 'process' in ink ? ink.process.join(' / ') : ink.spot
}

/**
 * What is typed for an ink: shares of cyan, magenta, yellow and black in percent, else the name of a spot ink; undefined for
 * nothing; null where it is neither.
 */
export function readInk(text: string): Ink | undefined | null {
  const plain = text.trim()
  if (plain === '') return undefined
  const shares = plain.split(/[\s/,;]+/).map(each => Number(each.replace(/%$/, '')))
  if (shares.every(share => Number.isFinite(share))) {
    const process = shares.length === 4 && shares.every(share => share >= 0 && share <= 100)
    return process ? { process: shares as [number, number, number, number] } : null
  }
  const spot = inkSchema.safeParse({ spot: plain })
  return spot.success ? spot.data : null
}
