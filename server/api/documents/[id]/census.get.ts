import { getQuery, setHeader } from 'h3'
import { censusCsv } from '../../../../core/census/csv'
import { database } from '../../../store/database'
import { versionRecord } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/** The census of a version, as JSON or with `format=csv` as a CSV file. */
export default answer(async event => {
  const document = await documentOf(event)
  const record = await versionRecord(await database(), document.id, versionOf(event, document))
  if (!record?.census) throw refusal(404, 'This version is not counted yet. Try again in a moment.')
  if (getQuery(event).format !== 'csv') return record.census
  setHeader(event, 'Content-Type', 'text/csv; charset=utf-8')
  setHeader(event, 'Content-Disposition', attachment(`${document.fileName.replace(/\.\w+$/, '')} census.csv`))
  return censusCsv(record.census)
})
