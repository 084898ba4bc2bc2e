import { remarkActSchema } from '../../../../../shared/remarks'
import { route } from '../../../../door'
import { actOnRemark, remarksOf } from '../../../../store/remarks'
import { remarkRefusal } from '../../../../work/remark-words'
import { bodyOf, documentOf, remarkIdOf } from '../../../../work/requests'

/** Answers a remark, settles it, opens it again or gives it to somebody. Answers all remarks of its document. */
export default route('remark', async (event, acting) => {
  const document = await documentOf(event, acting)
  const remark = remarkIdOf(event)
  const outcome = await actOnRemark(acting, document.id, remark, await bodyOf(event, remarkActSchema))
  if (outcome !== 'done') throw remarkRefusal(outcome)
  return remarksOf(acting, document.id)
})
