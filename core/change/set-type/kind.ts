import { fontReferences } from '../../document/font-references'
import { sameFamily } from '../../document/font-family'
import { readScopes } from '../../document/styles'
import type { Kind } from '../kind'
import { setType } from './set-type'
import { boundTarget, setTypeSchema, setTypeTitle, type SetTypeWish } from './wish'

/** A face is chosen for something: selected text, a frame, a style, a role, all text in a family, a default. */
export const setTypeKind: Kind<SetTypeWish> = {
  type: 'set-type',
  schema: setTypeSchema,
  most: 500,
  plan: (planner, [first]) => setType(planner, first!),
  sentence: (wish, titleOf) => `${setTypeTitle(wish, titleOf)}.`,
  whyNotMany: ({ on }) => boundTarget(on),
  applies(document, { on }) {
    if (on.kind === 'family')
      return fontReferences(document).some(({ families }) => families.some(family => sameFamily(family, on.family)))
    if (on.kind !== 'style') return true
    return readScopes(document, document.subdocuments[0]!).styles?.common.has(`${on.family}\n${on.name}`) ?? false
  },
}
