import { sameFamily } from '../../document/font-family'
import { fontReferences } from '../../document/font-references'
import type { Kind } from '../kind'
import { planSwaps } from './plan-swap'
import { swapSchema, swapTitle, type SwapWish } from './wish'

/** A family or face gives way to another, wherever it stands or within limits. */
export const swapKind: Kind<SwapWish> = {
  type: 'swap',
  schema: swapSchema,
  most: 20,
  atOnce: 'first',
  plan: planSwaps,
  sentence: wish => `${swapTitle(wish)}.`,
  whyNotMany: ({ within }) =>
    within?.scope.kind === 'ranges' || within?.scope.kind === 'story'
      ? 'A selection belongs to one document. Leave it out, or plan it there. Nothing was changed.'
      : null,
  applies: (document, { from }) =>
    fontReferences(document).some(reference => reference.families.some(family => sameFamily(family, from.family))),
}
