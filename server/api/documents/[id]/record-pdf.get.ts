import { setHeader } from 'h3'
import { database } from '../../../store/database'
import { listVersions, versionRecord } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { attachment, documentOf, setContent, versionOf } from '../../../work/requests'

/** The record of the change that made a version, as PDF: its values, and the pages before and after. */
export default answer(async event => {
  const document = await documentOf(event)
  const knex = await database()
  const number = versionOf(event, document)
  const record = await versionRecord(knex, document.id, number)
  if (!record?.plan || number < 2) throw refusal(404, 'This version was not made by a plan.')
  const version = (await listVersions(knex, document.id)).find(each => each.number === number)!
  const [before, after] = [await setContent(knex, document, number - 1), await setContent(knex, document, number)]
  const { title, rows, left } = record.plan
  const bytes = await threads().run({
    kind: 'record',
    before: before!,
    after: after!,
    recorded: { title, rows, left },
    of: { fileName: document.fileName, version: number, made: new Date(version.created).getTime() },
  })
  setHeader(event, 'Content-Type', 'application/pdf')
  setHeader(event, 'X-Content-Type-Options', 'nosniff')
  setHeader(
    event,
    'Content-Disposition',
    attachment(`${document.fileName.replace(/\.\w+$/, '')}, record of version ${number}.pdf`),
  )
  return Buffer.from(bytes)
})
