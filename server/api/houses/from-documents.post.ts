import { setResponseStatus } from 'h3'
import { houseFromDocumentsSchema } from '../../../shared/api'
import { route } from '../../door'
import { findDocument } from '../../store/documents'
import { addHouse } from '../../store/houses'
import { refusal } from '../../work/answer'
import { threadsFor } from '../../work/pool'
import { bodyOf, setContent } from '../../work/requests'
import type { Content } from '../../work/tasks/task'

/** Draws a house up from documents of the shelf, and keeps it. */
export default route('arrange', async (event, acting) => {
  const { name, documents: ids } = await bodyOf(event, houseFromDocumentsSchema)
  const documents: Content[] = []
  for (const id of ids) {
    const document = await findDocument(acting, id)
    const content = document && (await setContent(acting, document, document.version))
    if (!content) throw refusal(404, 'One of these documents is not on the shelf any more. Nothing was changed.')
    documents.push(content)
  }
  const house = await threadsFor(acting).run({ kind: 'houseFrom', name, documents })
  const id = await addHouse(acting, house, null)
  if (id === null)
    throw refusal(409, 'There are as many houses as are kept: 200. Let one go first. Nothing was changed.')
  setResponseStatus(event, 201)
  return { id }
})
