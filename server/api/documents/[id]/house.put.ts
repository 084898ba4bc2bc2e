import { houseLinkSchema } from '../../../../shared/api'
import { route } from '../../../door'
import { linkHouse } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf } from '../../../work/requests'

/** Links a document to a house, or to none. The document itself is not changed. */
export default route('arrange', async (event, acting) => {
  const { id } = await documentOf(event, acting)
  const { house } = await bodyOf(event, houseLinkSchema)
  if (!(await linkHouse(acting, id, house)))
    throw refusal(404, 'This house is not there any more. Nothing was changed.')
  return { house }
})
