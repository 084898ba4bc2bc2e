import { readBody, setResponseStatus } from 'h3'
import { z } from 'zod'
import { setPieceSchema } from '../../../core/change/kept-frame/set-piece'
import { database } from '../../store/database'
import { addPiece, pieceLimit } from '../../store/set-pieces'
import { answer, refusal } from '../../work/answer'

const bodySchema = z.strictObject({
  heading: z.string().trim().min(1).max(120),
  name: z.string().trim().min(1).max(200),
  piece: setPieceSchema,
})

/** Keeps a frame. */
export default answer(async event => {
  const { heading, name, piece } = bodySchema.parse(await readBody(event))
  const id = await addPiece(await database(), heading, name, piece)
  if (id === null)
    throw refusal(
      422,
      `${pieceLimit} frames are kept already, the most there can be. Remove some first. Nothing was kept.`,
    )
  setResponseStatus(event, 201)
  return { id }
})
