import { setHeader } from 'h3'
import { route } from '../../../door'
import { recordCsv } from '../../../../core/change/record-csv'
import { listVersions, versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/** The record of the change that made a version, as CSV: every row of its plan, and what it did to the pages. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const number = versionOf(event, document)
  const record = await versionRecord(acting, document.id, number)
  if (!record?.plan) throw refusal(404, 'This version was not made by a plan.')
  const version = (await listVersions(acting, document.id)).find(each => each.number === number)!
  setHeader(event, 'Content-Type', 'text/csv; charset=utf-8')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(
    event,
    'Content-Disposition',
    attachment(`${document.fileName.replace(/\.\w+$/, '')}, record of version ${number}.csv`),
  )
  return recordCsv(record.plan, {
    fileName: document.fileName,
    version: number,
    made: new Date(version.created),
  })
})
