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
 * Adds a font file to the library: the body is the file, of a collection all its faces. With `check` it is only looked at;
 * `for` is the absent family that it shall be, and the answer says whether it is. Refused files leave nothing behind.
 */
export default route('faces', async (event, acting) => {
  const { name, for: wanted, check } = querySchema.parse(getQuery(event))
  const fonts = await withUpload(event, sent => threadsFor(acting).run({ kind: 'font', bytes: sent }))
  const [first] = fonts
  const added = check === 'yes' ? 0 : await addFaces(acting, fonts, `file ${name}`)
  if (added > 0) setResponseStatus(event, 201)
  // Of a collection the face that is asked for speaks for it.
  const face = fonts.find(font => wanted !== '' && isFamily(font.face, wanted).same)?.face ?? first!.face
  return { face, faces: fonts.length, added, family: wanted === '' ? null : isFamily(face, wanted) }
})
