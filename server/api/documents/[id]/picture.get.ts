import { getQuery } from 'h3'
import { route } from '../../../door'
import { pictureName } from '../../../store/document-count'
import { versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'
import { sendPicture } from '../../../work/pictures'

/** The first page of a version as a picture. With `picture`, what it goes by, it is kept by the browser for good. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const record = await versionRecord(acting, document.id, versionOf(event, document))
  if (!record?.firstPage) throw refusal(404, 'The first page of this version is not drawn yet.')
  return sendPicture(event, record.firstPage, getQuery(event).picture === pictureName(record.firstPage))
})
