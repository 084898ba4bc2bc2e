import { route } from '../../../door'
import { carriedFonts } from '../../../work/carried-fonts'
import { threadsFor } from '../../../work/pool'
import { documentOf } from '../../../work/requests'

/** Font files that came with the document: what each is, what its licence allows, or what is wrong with it. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const fonts = await carriedFonts(acting, document, threadsFor(acting))
  return fonts.map(({ path, from, face, problem }) => ({ path, from, problem, face }))
})
