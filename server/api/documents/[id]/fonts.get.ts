import { database } from '../../../store/database'
import { answer } from '../../../work/answer'
import { carriedFonts } from '../../../work/carried-fonts'
import { threads } from '../../../work/pool'
import { documentOf } from '../../../work/requests'

/** Font files that came with the document: what each is, what its licence allows, or what is wrong with it. */
export default answer(async event => {
  const document = await documentOf(event)
  const fonts = await carriedFonts(await database(), document, threads())
  return fonts.map(({ path, from, face, problem }) => ({ path, from, problem, face }))
})
