import { database } from '../../../store/database'
import { standInsOf } from '../../../store/stand-ins'
import { answer } from '../../../work/answer'
import { documentOf } from '../../../work/requests'

/** The stand-ins that hold for a document, by whose they are: the strongest first. */
export default answer(async event => {
  const document = await documentOf(event)
  const knex = await database()
  return {
    document: await standInsOf(knex, 'document', document.id),
    folder: document.folder === null ? [] : await standInsOf(knex, 'folder', document.folder),
    desk: await standInsOf(knex, 'desk', ''),
  }
})
