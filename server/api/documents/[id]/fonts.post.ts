import { z } from 'zod'
import { route } from '../../../door'
import { addFaces } from '../../../store/faces'
import { refusal } from '../../../work/answer'
import { carriedFonts } from '../../../work/carried-fonts'
import { threadsFor } from '../../../work/pool'
import { bodyOf, documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({ paths: z.array(z.string().min(1).max(500)).min(1).max(100) })

/** Takes font files that came with the document into the library. */
export default route('faces', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { paths } = await bodyOf(event, bodySchema)
  const fonts = (await carriedFonts(acting, document, threadsFor(acting))).filter(font => paths.includes(font.path))
  const bad = fonts.find(font => font.face === null)
  if (bad) throw refusal(422, `${bad.path}: ${bad.problem}`)
  if (fonts.length < paths.length)
    throw refusal(404, 'This font file did not come with the document. Nothing was added.')
  return {
    added: await addFaces(
      acting,
      fonts.map(({ bytes, face }) => ({ bytes, face: face! })),
      `came with ${document.fileName}`,
    ),
    faces: fonts.map(({ face }) => face!),
  }
})
