import type { Role, RoleId } from '../../document/rules'
import type { SetTypeWish } from './wish'

/** The two faces of a pair by what they are for. */
export interface PairFamilies {
  readonly heading: string
  readonly body: string
  /** A third, for labels and figures in tables; without one they keep what they have. */
  readonly label?: string
}

/** Which face of a pair each role takes. */
const faceOfRole: Partial<Readonly<Record<Role, keyof PairFamilies>>> = {
  display: 'heading',
  heading: 'heading',
  subheading: 'heading',
  lead: 'body',
  body: 'body',
  caption: 'body',
  note: 'body',
  label: 'label',
  data: 'label',
}

/** A paragraph style as a pair looks at it. */
export interface PairedStyle {
  readonly name: string
  readonly role: RoleId | null
  /** How many parents it has. */
  readonly depth: number
}

/**
 * A pair on a document, by the roles that its styles have now: text that shares a font but not the role goes its own way. Each
 * style is named, since roles that are worked out hang on sizes, and sizes change on the way; those that go back to others
 * come first, while the size that they look as large as still is the old one.
 */
export function pairWishes(pair: PairFamilies, styles: readonly PairedStyle[]): SetTypeWish[] {
  return [...styles]
    .sort((a, b) => b.depth - a.depth)
    .flatMap(({ name, role }): SetTypeWish[] => {
      const face = role === null ? undefined : faceOfRole[role as Role]
      const family = face === undefined ? undefined : pair[face]
      return family === undefined
        ? []
        : [
            {
              type: 'set-type',
              to: { family },
              on: { kind: 'style', family: 'paragraph', name },
              size: 'equal',
            },
          ]
    })
}
