import { getRouterParam, setHeader } from 'h3'
import { route } from '../../../door'
import { faceFile, facesByHash } from '../../../store/faces'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'

/** The forms that characters of a face have beside the usual one, with the features that give them. */
export default route('fonts', async (event, acting) => {
  const hash = getRouterParam(event, 'hash') ?? ''
  const [face] = /^[0-9a-f]{64}$/.test(hash) ? await facesByHash(acting, [hash]) : []
  const bytes = face && (await faceFile(acting, hash))
  if (!face || !bytes) throw refusal(404, 'The library has no such face.')
  const { features, ranges } = face
  const found = await threadsFor(acting).run({ kind: 'alternates', bytes, face: { features, ranges } })
  // A file under its hash never changes, but how it is read may.
  setHeader(event, 'Cache-Control', 'private, max-age=86400')
  return found
})
