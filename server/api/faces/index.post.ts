import { getQuery, setResponseStatus } from 'h3'
import { z } from 'zod'
import { route } from '../../door'
import { isFamily } from '../../../core/font/file-check'
import { addFaces } from '../../store/faces'
import { threadsFor } from '../../work/pool'
import { withUpload } from '../../work/upload'

const querySchema = z.object({
  name: z.string().trim().min(1).max(255).default('font'),
  for: z.string().trim().max(200).default(''),
  check: z.enum(['yes', 'no']).default('no'),
})

/**
 * Adds a font file to the library: the body is the file. With `check` it is only looked at; `for` is the absent family
 * that it shall be, and the answer says whether it is. Refused files leave nothing behind.
 */
export default route('faces', async (event, acting) => {
  const { name, for: wanted, check } = querySchema.parse(getQuery(event))
  const { bytes, face } = await withUpload(event, sent => threadsFor(acting).run({ kind: 'font', bytes: sent }))
  const added = check === 'yes' ? 0 : await addFaces(acting, [{ bytes, face }], `file ${name}`)
  if (added > 0) setResponseStatus(event, 201)
  return { face, added, family: wanted === '' ? null : isFamily(face, wanted) }
})
