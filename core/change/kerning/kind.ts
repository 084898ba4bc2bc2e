import { readRules } from '../../document/rules'
import { fontReferences } from '../../document/font-references'
import { sameFamily } from '../../document/font-family'
import { oneByOne } from '../kind'
import { correctPairs, correctPlaces } from './correct-pairs'
import { kernSchema, kernTitle, type KernWish } from './wish'

/** Pairs of letters are corrected: for a face, for a family, or at one place. */
export const kernKind = oneByOne<KernWish>({
  type: 'kern',
  schema: kernSchema,
  most: 50,
  act(planner, wish) {
    correctPairs(planner, wish.pairs)
    correctPlaces(planner, wish.places)
    return kernTitle(wish)
  },
  sentence: wish => `${kernTitle(wish)}.`,
  whyNotMany: ({ places }) =>
    places.length > 0 ? 'A place belongs to one document. Correct the pair there. Nothing was changed.' : null,
  applies: (document, { pairs }) =>
    fontReferences(document).some(({ families }) =>
      families.some(family => pairs.some(pair => sameFamily(family, pair.family))),
    ) || readRules(document).kerning.length > 0,
})
