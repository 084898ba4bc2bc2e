import { z } from 'zod'
import { route } from '../../../door'
import { moveToFolder } from '../../../store/folders'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({ folder: z.uuid().nullable() })

/** Puts a document into a folder of the shelf, or out of any. */
export default route('arrange', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { folder } = await bodyOf(event, bodySchema)
  if (!(await moveToFolder(acting, document.id, folder)))
    throw refusal(404, 'This folder is not there any more. The document stays where it is.')
  return { folder }
})
