import { database } from '../../../store/database'
import { answer } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { documentOf, setContent, versionOf } from '../../../work/requests'

/** The named styles of a document, laid open: for taking some of them over into another one. */
export default answer(async event => {
  const document = await documentOf(event)
  const content = await setContent(await database(), document, versionOf(event, document))
  return threads().run({ kind: 'styleList', ...content! })
})
