import { route } from '../../../door'
import { trashDocument } from '../../../store/trash'
import { documentOf } from '../../../work/requests'

/** Takes a document off the shelf and puts it into the trash, with all its versions. */
export default route('arrange', async (event, acting) => {
  const document = await documentOf(event, acting)
  await trashDocument(acting, document.id)
  return { trashed: document.id }
})
