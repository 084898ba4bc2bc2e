import { handoffSchema } from '../../../../core/format/handoff/request'
import { route } from '../../../door'
import { handedOn, linkedHouse } from '../../../work/handing'
import { threadsFor } from '../../../work/pool'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf, heldLicences, setContent, versionOf } from '../../../work/requests'

/** A version handed on as what is asked for; what it is and what it does not hold is told in a header, as JSON. */
export default route('take', async (event, acting) => {
  const request = await bodyOf(event, handoffSchema)
  const document = await documentOf(event, acting)
  const content = await setContent(acting, document, versionOf(event, document))
  if (!content) throw refusal(404, 'There is no such version.')
  const name = document.fileName.replace(/\.\w+$/, '')
  const made = await threadsFor(acting).run({
    kind: 'handoff',
    ...content,
    request,
    context: {
      name,
      made: Date.now(),
      house: await linkedHouse(acting, document),
      licences: await heldLicences(acting),
    },
  })
  return handedOn(event, made, name)
})
