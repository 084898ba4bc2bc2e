import { getQuery, setHeader } from 'h3'
import { route } from '../../../door'
import { censusCsv } from '../../../../core/census/csv'
import { versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/** The census of a version, as JSON or with `format=csv` as a CSV file. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const record = await versionRecord(acting, document.id, versionOf(event, document))
  if (!record?.census) throw refusal(404, 'This version is not counted yet. Try again in a moment.')
  if (getQuery(event).format !== 'csv') return record.census
  setHeader(event, 'Content-Type', 'text/csv; charset=utf-8')
  setHeader(event, 'Content-Disposition', attachment(`${document.fileName.replace(/\.\w+$/, '')} census.csv`))
  return censusCsv(record.census)
})
