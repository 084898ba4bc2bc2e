import type { Inks, Lab, PrintModel } from './characterisation'

/** No paper of a press takes more than this of all inks together. */
const mostInk = 3.3
/** Near enough, in CIE 1976 units: other shares of black are not tried any more. */
const near = 0.5
/** Shares of black that are tried where the wanted one does not do. */
const shares = [0, 0.2, 0.4, 0.6, 0.8, 0.9, 1] as const

const distanceOf = (one: Lab, other: Lab) => Math.hypot(one[0] - other[0], one[1] - other[1], one[2] - other[2])

/**
 * The inks that come nearest to a colour. Black begins below a lightness of 60 and grows towards the dark, so that shadows
 * stay neutral and inks few; where that does not do, more or less of it is tried.
 * @param from where to begin: the inks of a colour nearby
 */
export function inksFor(
  model: PrintModel,
  lab: Lab,
  from: Inks | null,
): { readonly inks: Inks; readonly distance: number } {
  const wanted = Math.min(Math.max((60 - lab[0]) / 60, 0), 1) ** 1.2
  let best: { inks: Inks; distance: number } | null = null
  for (const black of [wanted, ...shares]) {
    const inks = solved(model, lab, black, from)
    const over = Math.max(inks.reduce((sum, ink) => sum + ink, 0) - mostInk, 0)
    const distance = distanceOf(model.lab(inks), lab)
    if (!best || distance + over * 50 < best.distance) best = { inks, distance: distance + over * 50 }
    if (best.distance <= near) break
  }
  return best!
}

/** Cyan, magenta and yellow for a share of black, by steps of Gauss and Newton that stay between 0 and 1. */
function solved(model: PrintModel, lab: Lab, black: number, from: Inks | null): Inks {
  let inks: [number, number, number] = from ? [from[0], from[1], from[2]] : [0.5, 0.5, 0.5]
  let distance = distanceOf(model.lab([...inks, black]), lab)
  for (let round = 0; round < 14 && distance > near / 4; round++) {
    const step = stepTowards(model, lab, inks, black)
    let share = 1
    let better: typeof inks | null = null
    for (; share > 0.05; share /= 2) {
      const tried = inks.map((ink, at) => Math.min(Math.max(ink + step[at]! * share, 0), 1)) as typeof inks
      const far = distanceOf(model.lab([...tried, black]), lab)
      if (far < distance - 1e-4) {
        better = tried
        distance = far
        break
      }
    }
    if (!better) break
    inks = better
  }
  return [...inks, black]
}

/** A step by the derivatives of the model, damped so that flat places do not throw it far (Levenberg 1944). */
function stepTowards(model: PrintModel, lab: Lab, inks: readonly [number, number, number], black: number): number[] {
  const here = model.lab([...inks, black])
  const slopes = inks.map((ink, at) => {
    const side = ink > 0.5 ? -0.02 : 0.02
    const moved = inks.map((each, index) => (index === at ? each + side : each)) as unknown as typeof inks
    const there = model.lab([...moved, black])
    return here.map((value, axis) => (there[axis]! - value) / side)
  })
  const off = here.map((value, axis) => lab[axis]! - value)
  const product = (one: readonly number[], other: readonly number[]) =>
    one.reduce((sum, value, at) => sum + value * other[at]!, 0)
  const matrix = slopes.map((one, row) =>
    slopes.map((other, column) => product(one, other) + (row === column ? 20 : 0)),
  )
  return solve3(
    matrix,
    slopes.map(slope => product(slope, off)),
  )
}

/** Three equations, by determinants. */
function solve3(m: readonly (readonly number[])[], right: readonly number[]): number[] {
  const determinant = (a: readonly (readonly number[])[]) =>
    a[0]![0]! * (a[1]![1]! * a[2]![2]! - a[1]![2]! * a[2]![1]!) -
    a[0]![1]! * (a[1]![0]! * a[2]![2]! - a[1]![2]! * a[2]![0]!) +
    a[0]![2]! * (a[1]![0]! * a[2]![1]! - a[1]![1]! * a[2]![0]!)
  const whole = determinant(m)
  return [0, 1, 2].map(column =>
    whole === 0
      ? 0
      : determinant(m.map((row, at) => row.map((value, index) => (index === column ? right[at]! : value)))) / whole,
  )
}
