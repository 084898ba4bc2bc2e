import { route } from '../../../door'
import { versionRecord } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** The plan that made a version: the record of the change. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const record = await versionRecord(acting, document.id, versionOf(event, document))
  if (!record?.plan) throw refusal(404, 'This version was not made by a plan.')
  return record.plan
})
