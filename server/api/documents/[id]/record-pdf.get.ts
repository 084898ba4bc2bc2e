import { route } from '../../../door'
import { listVersions, versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { plainName, reportAsPdf } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { documentOf, setContent, versionOf } from '../../../work/requests'

/** The record of the change that made a version, as PDF: its values, and the pages before and after. */
export default route('take', async (event, acting) => {
  const document = await documentOf(event, acting)
  const number = versionOf(event, document)
  const record = await versionRecord(acting, document.id, number)
  if (!record?.plan || number < 2) throw refusal(404, 'This version was not made by a plan.')
  const version = (await listVersions(acting, document.id)).find(each => each.number === number)!
  const [before, after] = [await setContent(acting, document, number - 1), await setContent(acting, document, number)]
  const { title, rows, left } = record.plan
  const bytes = await threadsFor(acting).run({
    kind: 'record',
    before: before!,
    after: after!,
    recorded: { title, rows, left },
    of: { fileName: document.fileName, version: number },
    made: new Date(version.created).getTime(),
  })
  return reportAsPdf(event, bytes, `${plainName(document)}, record of version ${number}`)
})
