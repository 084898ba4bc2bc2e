import { getQuery, setHeader } from 'h3'
import { csvLines } from '../../../core/census/csv'
import { route } from '../../door'
import { auditLog } from '../../store/audit'
import { namesOfPeople } from '../../store/people'
import { attachment } from '../../work/requests'

/** Who came in and went, what rights were given, what was taken away: as data, or with `format=csv` as a file. */
export default route('people', async (event, acting) => {
  const lines = await auditLog(acting)
  if (getQuery(event).format !== 'csv') return lines
  const { names } = await namesOfPeople(acting)
  setHeader(event, 'Content-Type', 'text/csv; charset=utf-8')
  setHeader(event, 'Content-Disposition', attachment('People, log.csv'))
  return csvLines([
    ['when', 'who', 'what', 'about'],
    ...lines.map(line => [new Date(line.at).toISOString(), names[line.person] ?? line.person, line.what, line.about]),
  ])
})
