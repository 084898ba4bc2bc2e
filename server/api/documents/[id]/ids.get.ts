import { database } from '../../../store/database'
import { versionContent } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** The ids of a version's nodes, where they are not simply counted: what an address in an older version still means. */
export default answer(async event => {
  const document = await documentOf(event)
  const content = await versionContent(await database(), document.id, versionOf(event, document))
  if (!content) throw refusal(404, 'There is no such version.')
  return content.ids
})
