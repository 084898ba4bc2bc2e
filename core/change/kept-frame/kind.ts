import { z } from 'zod'
import { oneByOne } from '../kind'
import { setPieceSchema } from '../../style/set-piece'
import { putPiece } from './set-piece'

const place = z.number().min(-20_000).max(20_000)

/** Puts a kept frame on a page or at a paragraph. Places in points. */
const keptFrameSchema = z.strictObject({
  type: z.literal('piece'),
  part: z.string().min(1).max(500),
  node: z.int().nonnegative(),
  x: place,
  y: place,
  withText: z.boolean(),
  piece: setPieceSchema,
})

export type KeptFrameWish = z.infer<typeof keptFrameSchema>

export const keptFrameKind = oneByOne<KeptFrameWish>({
  type: 'piece',
  schema: keptFrameSchema,
  most: 50,
  act(planner, wish) {
    putPiece(planner, wish.piece, wish.part, wish.node, wish, wish.withText)
    return 'Put a kept frame in'
  },
  sentence: () => 'Put a kept frame in.',
  whyNotMany: () => 'A place for a frame belongs to one document. Put it in there. Nothing was changed.',
})
