import { setResponseStatus } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { setPieceSchema } from '../../../core/change/kept-frame/set-piece'
import { addPiece, pieceLimit } from '../../store/set-pieces'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

const bodySchema = z.strictObject({
  heading: z.string().trim().min(1).max(120),
  name: z.string().trim().min(1).max(200),
  piece: setPieceSchema,
})

/** Keeps a frame. */
export default route('arrange', async (event, acting) => {
  const { heading, name, piece } = await bodyOf(event, bodySchema)
  const id = await addPiece(acting, heading, name, piece)
  if (id === null)
    throw refusal(
      422,
      `${pieceLimit} frames are kept already, the most there can be. Remove some first. Nothing was kept.`,
    )
  setResponseStatus(event, 201)
  return { id }
})
