import { styleFamilies, type StyleFamily } from '../change/styles/families'
import type { StyleChanges } from '../change/styles/style-changes'
import type { Repair } from './check'
import type { ProofText } from './subject'

/** A change of the named style that a paragraph goes by, as what puts it right; undefined where it has none. */
export function styleWish({ owner }: ProofText, changes: StyleChanges): Repair | undefined {
  if (owner?.origin !== 'common' || !styleFamilies.some(each => each === owner.family)) return undefined
  return { wishes: [{ type: 'edit', family: owner.family as StyleFamily, name: owner.name, changes }] }
}
