import type { Role } from '../../document/rules'
import type { SetTypeWish } from './wish'

/** The two faces of a pair by what they are for. */
export interface PairFamilies {
  readonly heading: string
  readonly body: string
}

/** Which face of a pair each role takes. Labels and figures in tables go with neither: they keep what they have. */
const faceOfRole: Partial<Readonly<Record<Role, keyof PairFamilies>>> = {
  display: 'heading',
  heading: 'heading',
  subheading: 'heading',
  lead: 'body',
  body: 'body',
  caption: 'body',
  note: 'body',
}

/**
 * A pair on a document, role by role: text that shares a font but not the role goes its own way. Sizes go so that text looks
 * as large as before.
 * @param roles that styles of the document have
 */
export function pairWishes(pair: PairFamilies, roles: Iterable<Role>): SetTypeWish[] {
  return [...new Set(roles)].flatMap((role): SetTypeWish[] => {
    const face = faceOfRole[role]
    return face === undefined
      ? []
      : [{ type: 'set-type', to: { family: pair[face] }, on: { kind: 'role', role }, size: 'equal' }]
  })
}
