import { route } from '../../../door'
import { threadsFor } from '../../../work/pool'
import { documentOf, setContent, versionOf } from '../../../work/requests'

/** The named styles of a document, laid open: for taking some of them over into another one. */
export default route('look', async (event, acting) => {
  const document = await documentOf(event, acting)
  const content = await setContent(acting, document, versionOf(event, document))
  return threadsFor(acting).run({ kind: 'styleList', ...content! })
})
