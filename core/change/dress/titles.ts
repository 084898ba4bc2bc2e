import { takenNames } from '../../document/style-names'
import type { Style } from '../../document/styles'
import type { Planner } from '../planner'

/** A title that no other style of the family has: with a number behind it where it must be. */
export function uniqueTitle(planner: Planner, style: Style, title: string): string {
  const taken = new Set(
    [...takenNames(planner.common.part, style.family)]
      .filter(([name]) => name !== style.name)
      .map(([, shown]) => shown.toLowerCase()),
  )
  let free = title
  for (let number = 2; taken.has(free.toLowerCase()); number++) free = `${title} ${number}`
  return free
}
