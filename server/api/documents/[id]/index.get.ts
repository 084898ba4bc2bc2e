import { database } from '../../../store/database'
import { history, listVersions } from '../../../store/documents'
import { answer } from '../../../work/answer'
import { documentOf } from '../../../work/requests'

/** A document with its versions and what undo and redo would do. */
export default answer(async event => {
  const document = await documentOf(event)
  const versions = await listVersions(await database(), document.id)
  return { document, versions, history: history(versions) }
})
