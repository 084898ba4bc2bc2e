import { getQuery, setHeader } from 'h3'
import { route } from '../../../door'
import { mimetypeOf } from '../../../../core/format/odf/new-document'
import { versionContent } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/** The file of a version, byte for byte; with `download` under its name. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const version = versionOf(event, document)
  const content = await versionContent(acting, document.id, version)
  if (!content) throw refusal(404, 'There is no such version.')
  setHeader(event, 'Content-Type', document.kind === 'finished' ? 'application/pdf' : mimetypeOf[document.kind])
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  // What is opened on the desk is not taken away: the log of people does not tell it.
  if (getQuery(event).download === undefined) event.context.untold = true
  else setHeader(event, 'Content-Disposition', attachment(document.fileName))
  return Buffer.from(content.bytes)
})
