import { route } from '../../../door'
import { removeDocument } from '../../../store/documents'
import { documentOf } from '../../../work/requests'

/** Takes a document with all its versions off the shelf. */
export default route('arrange', async (event, acting) => {
  const document = await documentOf(event, acting)
  await removeDocument(acting, document.id)
  return { removed: document.id }
})
