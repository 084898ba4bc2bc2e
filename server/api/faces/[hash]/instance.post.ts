import { getRouterParam, setResponseStatus } from 'h3'
import { z } from 'zod'
import { sameFamily } from '../../../../core/document/font-family'
import { whyNotAt } from '../../../../core/font/axes'
import { route } from '../../../door'
import { addFaces, faceFile, facesByHash, listFaces } from '../../../store/faces'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { bodyOf } from '../../../work/requests'

const called = z.string().trim().min(1).max(80)
const bodySchema = z.strictObject({
  family: called,
  style: called,
  place: z
    .record(z.string().regex(/^[\x20-\x7E]{4}$/), z.number().min(-32768).max(32768))
    .refine(place => Object.keys(place).length <= 64, { error: 'a place names 64 axes at most' }),
})

/** Adds the face that stands at a place on the axes of a variable one to the library, under a name. */
export default route('faces', async (event, acting) => {
  const hash = getRouterParam(event, 'hash') ?? ''
  const { family, style, place } = await bodyOf(event, bodySchema)
  const [face] = /^[0-9a-f]{64}$/.test(hash) ? await facesByHash(acting, [hash]) : []
  const bytes = face && (await faceFile(acting, hash))
  if (!face || !bytes) throw refusal(404, 'The library has no such face.')
  const why = whyNotAt(face.axes, place)
  if (why !== null) throw refusal(422, `${why} Nothing was added.`)
  const made = await threadsFor(acting).run({ kind: 'instance', variable: { bytes, face }, family, style, place })
  const twin = (await listFaces(acting)).find(
    each => sameFamily(each.family, family) && each.weight === made.face.weight && each.slant === made.face.slant,
  )
  if (twin)
    throw refusal(
      409,
      `${twin.family} has a face of weight ${twin.weight} already, ${twin.style}: give this one a family name of its own. ` +
        'Nothing was added.',
    )
  await addFaces(acting, [made], `place of ${face.fullName}`)
  setResponseStatus(event, 201)
  return made.face
})
