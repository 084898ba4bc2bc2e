/** A colour in CIELAB under D50. */
export type Lab = readonly [number, number, number]
/** Cyan, magenta, yellow and black, each from 0 to 1. */
export type Inks = readonly [number, number, number, number]

export interface Patch {
  readonly inks: Inks
  readonly lab: Lab
}

/** Measurements of a printing condition: what every mixture of inks looks like on its paper. */
export interface Characterisation {
  readonly name: string
  readonly conditions: string
  readonly patches: readonly Patch[]
}

/** More lines than any chart has. */
const patchLimit = 20_000

/** Measurements cannot be read. */
export class CharacterisationError extends Error {}

/**
 * Reads measurements of a printing condition in the keyword and table form of ISO 28178 (CGATS.17): inks in hundredths as
 * CMYK_C to CMYK_K, and LAB_L, LAB_A, LAB_B.
 * @throws CharacterisationError when a column is missing or there are no measurements
 */
export function readCharacterisation(text: string): Characterisation {
  const fact = (name: string) => new RegExp(`^${name}\\s+"([^"]*)"`, 'm').exec(text)?.[1] ?? ''
  const between = (name: string) =>
    new RegExp(`^BEGIN_${name}\\s*$([\\s\\S]*?)^END_${name}\\s*$`, 'm').exec(text)?.[1] ?? ''
  const columns = between('DATA_FORMAT').trim().split(/\s+/)
  const at = ['CMYK_C', 'CMYK_M', 'CMYK_Y', 'CMYK_K', 'LAB_L', 'LAB_A', 'LAB_B'].map(name => {
    const index = columns.indexOf(name)
    if (index < 0) throw new CharacterisationError(`The measurements have no column ${name}.`)
    return index
  })
  const rows = between('DATA').trim().split(/\r?\n/)
  if (rows.length > patchLimit)
    throw new CharacterisationError(`There are ${rows.length} measurements; ${patchLimit} are read.`)
  const patches = rows.flatMap((row): Patch[] => {
    const values = row.trim().split(/\s+/)
    const [c, m, y, k, ...lab] = at.map(index => Number(values[index]))
    return [c, m, y, k, ...lab].every(value => Number.isFinite(value))
      ? [{ inks: [c! / 100, m! / 100, y! / 100, k! / 100], lab: lab as unknown as Lab }]
      : []
  })
  if (patches.length === 0) throw new CharacterisationError('There are no measurements.')
  return { name: fact('DESCRIPTOR'), conditions: fact('PRINT_CONDITIONS'), patches }
}

/** All mixtures of some levels of cyan, magenta and yellow, at one level of black. */
interface Plane {
  readonly black: number
  readonly levels: readonly number[]
  /** By cyan, then magenta, then yellow. */
  readonly labs: readonly Lab[]
}

/**
 * What a mixture of inks looks like: between measured mixtures, linear in CIELAB. Charts of ISO 12642-2 hold, for some levels
 * of black, every mixture of some levels of the other inks; those are gone by.
 */
export class PrintModel {
  private readonly planes: readonly Plane[]
  readonly white: Lab

  /** @throws CharacterisationError when the measurements do not hold full mixtures with and without black */
  constructor({ patches }: Characterisation) {
    this.planes = planesOf(patches)
    if (this.planes[0]?.black !== 0 || this.planes.at(-1)!.black !== 1)
      throw new CharacterisationError('The measurements lack full mixtures with no black or with full black.')
    this.white = this.planes[0].labs[0]!
  }

  lab([c, m, y, k]: Inks): Lab {
    const { planes } = this
    let above = 1
    while (above < planes.length - 1 && planes[above]!.black < k) above++
    const [low, high] = [planes[above - 1]!, planes[above]!]
    const share = (k - low.black) / (high.black - low.black)
    const [dark, light] = [inPlane(high, c, m, y), inPlane(low, c, m, y)]
    return [0, 1, 2].map(axis => light[axis]! + (dark[axis]! - light[axis]!) * share) as unknown as Lab
  }
}

function planesOf(patches: readonly Patch[]): Plane[] {
  const byBlack = new Map<number, Map<string, Lab>>()
  const keyOf = (c: number, m: number, y: number) => `${c} ${m} ${y}`
  for (const { inks, lab } of patches) {
    const [c, m, y, k] = inks
    byBlack.set(k, (byBlack.get(k) ?? new Map()).set(keyOf(c, m, y), lab))
  }
  const planes: Plane[] = []
  for (const [black, known] of [...byBlack].sort((a, b) => a[0] - b[0])) {
    const inks = [...known.keys()].map(key => key.split(' ').map(Number))
    let levels = [...new Set(inks.flat())].sort((a, b) => a - b)
    const missing = (level: number) =>
      levels.reduce(
        (sum, one) =>
          sum +
          levels.filter(
            other =>
              !known.has(keyOf(level, one, other)) ||
              !known.has(keyOf(one, level, other)) ||
              !known.has(keyOf(one, other, level)),
          ).length,
        0,
      )
    // The level between that fits the others least is dropped, until every mixture of those that are left was measured.
    for (;;) {
      const counts = levels.map(level => ({ level, count: missing(level) }))
      const worst = counts.filter(({ level }) => level > 0 && level < 1).sort((a, b) => b.count - a.count)[0]
      if (!worst || worst.count === 0) break
      levels = levels.filter(level => level !== worst.level)
    }
    if (levels[0] !== 0 || levels.at(-1) !== 1 || levels.some(level => missing(level) > 0)) continue
    planes.push({
      black,
      levels,
      labs: levels.flatMap(c => levels.flatMap(m => levels.map(y => known.get(keyOf(c, m, y))!))),
    })
  }
  return planes
}

function inPlane({ levels, labs }: Plane, ...inks: readonly [number, number, number]): Lab {
  const count = levels.length
  const [c, m, y] = inks.map(ink => {
    let above = 1
    while (above < count - 1 && levels[above]! < ink) above++
    return { at: above - 1, share: (ink - levels[above - 1]!) / (levels[above]! - levels[above - 1]!) }
  }) as unknown as readonly { readonly at: number; readonly share: number }[]
  const sum = [0, 0, 0]
  for (let corner = 0; corner < 8; corner++) {
    const [i, j, l] = [corner & 1, (corner >> 1) & 1, corner >> 2]
    const weight = (i ? c!.share : 1 - c!.share) * (j ? m!.share : 1 - m!.share) * (l ? y!.share : 1 - y!.share)
    if (weight === 0) continue
    const lab = labs[((c!.at + i) * count + m!.at + j) * count + y!.at + l]!
    for (let axis = 0; axis < 3; axis++) sum[axis]! += lab[axis]! * weight
  }
  return sum as unknown as Lab
}
