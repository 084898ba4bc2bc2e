import { getQuery, setHeader } from 'h3'
import { mimetypeOf } from '../../../../core/format/odf/new-document'
import { database } from '../../../store/database'
import { versionContent } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/** The file of a version, byte for byte; with `download` under its name. */
export default answer(async event => {
  const document = await documentOf(event)
  const version = versionOf(event, document)
  const content = await versionContent(await database(), document.id, version)
  if (!content) throw refusal(404, 'There is no such version.')
  setHeader(event, 'Content-Type', mimetypeOf[document.kind])
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  if (getQuery(event).download !== undefined) setHeader(event, 'Content-Disposition', attachment(document.fileName))
  return Buffer.from(content.bytes)
})
