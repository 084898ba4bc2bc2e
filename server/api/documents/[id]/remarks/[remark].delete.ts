import { route } from '../../../../door'
import { remarksOf, removeRemark } from '../../../../store/remarks'
import { remarkRefusal } from '../../../../work/remark-words'
import { documentOf, remarkIdOf } from '../../../../work/requests'

/** Takes a remark away: one's own that nobody else answered. Answers the others of its document. */
export default route('remark', async (event, acting) => {
  const document = await documentOf(event, acting)
  const outcome = await removeRemark(acting, document.id, remarkIdOf(event))
  if (outcome !== 'done') throw remarkRefusal(outcome)
  return remarksOf(acting, document.id)
})
