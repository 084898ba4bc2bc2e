import { z } from 'zod'
import { makeSpecimen, specimenSchema } from '../../core/format/odf/specimen'
import { route } from '../door'
import { facesByHash } from '../store/faces'
import { refusal } from '../work/answer'
import { madeAsPdf } from '../work/handing'
import { bodyOf } from '../work/requests'

const bodySchema = z.strictObject({
  ...specimenSchema.shape,
  faces: z
    .array(z.string().regex(/^[0-9a-f]{64}$/))
    .min(1)
    .max(8),
})

/** A specimen of faces as PDF at true size, every sheet with a scale. */
export default route('take', async (event, acting) => {
  const { faces: hashes, ...of } = await bodyOf(event, bodySchema)
  const faces = await facesByHash(acting, hashes)
  if (faces.length < hashes.length) throw refusal(404, 'The library has not all of these faces. No specimen was made.')
  const name = `${faces.length === 1 ? faces[0]!.family : 'Faces'} specimen`
  return madeAsPdf(event, acting, makeSpecimen(faces, of), name)
})
