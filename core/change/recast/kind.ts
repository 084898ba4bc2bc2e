import type { Kind } from '../kind'
import { planRecasts } from './plan-recast'
import { recastSchema, recastSentence, type RecastWish } from './wish'

/** Finds text by its words and its look, and changes either; exchanges colours. */
export const recastKind: Kind<RecastWish> = {
  type: 'recast',
  schema: recastSchema,
  most: 200,
  atOnce: 'last',
  plan: planRecasts,
  sentence: recastSentence,
  whyNotMany: ({ find: { scope } }) =>
    scope.kind === 'ranges' || scope.kind === 'story'
      ? 'A selection belongs to one document. Look in whole documents or on pages. Nothing was changed.'
      : null,
}
