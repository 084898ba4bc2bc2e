import { signOffBodySchema } from '../../../../shared/api'
import { route } from '../../../door'
import { signOff, signOffsOf } from '../../../store/sign-offs'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf } from '../../../work/requests'

/** Signs a version off: whoever changes it later is told, and so is whoever takes it away. */
export default route('sign', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { version } = await bodyOf(event, signOffBodySchema)
  if (version !== document.version)
    throw refusal(
      409,
      `This document has changed meanwhile: version ${document.version} is the newest. Look at it, then sign that off.`,
    )
  await signOff(acting, document.id, version)
  return signOffsOf(acting, document.id)
})
