import { setHeader } from 'h3'
import { z } from 'zod'
import { makeSpecimen, specimenSchema } from '../../core/format/odf/specimen'
import { route } from '../door'
import { facesByHash } from '../store/faces'
import { refusal } from '../work/answer'
import { threadsFor } from '../work/pool'
import { attachment, bodyOf } from '../work/requests'
import { settingFor } from '../work/setting'

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
  const setting = await settingFor(acting, { id: '', folder: null })
  const { bytes } = await threadsFor(acting).run({
    kind: 'pdf',
    bytes: makeSpecimen(faces, of),
    ids: {},
    ...(setting === undefined ? {} : { setting }),
    options: { bleed: 0, cropMarks: false, leaveOut: false, notes: false, made: Date.now() },
  })
  setHeader(event, 'Content-Type', 'application/pdf')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(event, 'Content-Disposition', attachment(`${faces.length === 1 ? faces[0]!.family : 'Faces'} specimen.pdf`))
  return Buffer.from(bytes)
})
