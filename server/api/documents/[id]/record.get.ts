import { database } from '../../../store/database'
import { versionRecord } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** The plan that made a version: the record of the change. */
export default answer(async event => {
  const document = await documentOf(event)
  const record = await versionRecord(await database(), document.id, versionOf(event, document))
  if (!record?.plan) throw refusal(404, 'This version was not made by a plan.')
  return record.plan
})
