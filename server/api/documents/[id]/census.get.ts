import { getQuery, setHeader } from 'h3'
import { route } from '../../../door'
import { finishedCsv } from '../../../../core/format/finished/csv'
import { censusCsv } from '../../../../core/census/csv'
import { isFinishedCensus } from '../../../store/document-count'
import { countedVersion, versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { attachment, documentOf, versionOf } from '../../../work/requests'

/**
 * The census of a version, as JSON or with `format=csv` as a CSV file. Where no version is said and the newest is not
 * counted yet, the last one that is, whose number the header `Morphene-Census-Version` says.
 */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { format, version } = getQuery(event)
  const record = await versionRecord(acting, document.id, versionOf(event, document))
  // A file that is handed on says what is, not what was.
  const stale = version === undefined && format !== 'csv' && !record?.census
  const number = stale ? ((await countedVersion(acting, document.id)) ?? document.version) : versionOf(event, document)
  const census = stale ? (await versionRecord(acting, document.id, number))?.census : record?.census
  if (!census) throw refusal(404, 'This version is not counted yet. Try again in a moment.')
  setHeader(event, 'Morphene-Census-Version', number)
  if (format !== 'csv') return census
  setHeader(event, 'Content-Type', 'text/csv; charset=utf-8')
  setHeader(event, 'Content-Disposition', attachment(`${document.fileName.replace(/\.\w+$/, '')} census.csv`))
  return isFinishedCensus(census) ? finishedCsv(census) : censusCsv(census)
})
