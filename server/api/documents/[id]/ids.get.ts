import { route } from '../../../door'
import { versionContent } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** The ids of a version's nodes, where they are not simply counted: what an address in an older version still means. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const content = await versionContent(acting, document.id, versionOf(event, document))
  if (!content) throw refusal(404, 'There is no such version.')
  return content.ids
})
