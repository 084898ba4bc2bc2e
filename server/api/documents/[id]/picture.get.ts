import { setHeader } from 'h3'
import { route } from '../../../door'
import { versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** The first page of a version as a picture. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const record = await versionRecord(acting, document.id, versionOf(event, document))
  if (!record?.firstPage) throw refusal(404, 'The first page of this version is not drawn yet.')
  setHeader(event, 'Content-Type', 'image/svg+xml')
  setHeader(event, 'Content-Security-Policy', "default-src 'none'; style-src 'unsafe-inline'")
  setHeader(event, 'Cache-Control', 'private, max-age=31536000, immutable')
  return record.firstPage
})
