import { route } from '../../../door'
import { signOffsOf, takeSignOffBack } from '../../../store/sign-offs'
import { refusal } from '../../../work/answer'
import { documentOf, versionOf } from '../../../work/requests'

/** Takes one's own sign-off of a version back. */
export default route('sign', async (event, acting) => {
  const document = await documentOf(event, acting)
  if (!(await takeSignOffBack(acting, document.id, versionOf(event, document))))
    throw refusal(404, 'You have not signed this version off. Nothing was changed.')
  return signOffsOf(acting, document.id)
})
