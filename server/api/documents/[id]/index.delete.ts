import { database } from '../../../store/database'
import { removeDocument } from '../../../store/documents'
import { answer } from '../../../work/answer'
import { documentOf } from '../../../work/requests'

/** Takes a document with all its versions off the shelf. */
export default answer(async event => {
  const document = await documentOf(event)
  await removeDocument(await database(), document.id)
  return { removed: document.id }
})
