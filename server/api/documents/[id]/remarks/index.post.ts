import { remarkBodySchema } from '../../../../../shared/remarks'
import { route } from '../../../../door'
import { addRemark, remarksOf } from '../../../../store/remarks'
import { refusal } from '../../../../work/answer'
import { remarkRefusal } from '../../../../work/remark-words'
import { bodyOf, documentOf } from '../../../../work/requests'

/** Keeps what somebody says of a document or a place in it. Answers all its remarks. */
export default route('remark', async (event, acting) => {
  const document = await documentOf(event, acting)
  const body = await bodyOf(event, remarkBodySchema)
  if (body.version > document.version)
    throw refusal(400, `This document has versions 1 to ${document.version}. Nothing was kept.`)
  const outcome = await addRemark(acting, document.id, body)
  if (outcome !== 'done') throw remarkRefusal(outcome)
  return remarksOf(acting, document.id)
})
