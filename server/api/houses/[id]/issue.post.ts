import { issueBodySchema } from '../../../../shared/api'
import { route } from '../../../door'
import { findHouse, issueHouse } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { bodyOf, houseOf } from '../../../work/requests'

/** Issues the working house as its next version. */
export default route('issue', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  const { revision } = await bodyOf(event, issueBodySchema)
  const done = await issueHouse(acting, id, revision)
  if (done === 'gone') throw refusal(404, 'This house is not there any more. Nothing was changed.')
  if (done === 'behind')
    throw refusal(409, 'Somebody changed this house meanwhile. Nothing was issued; look at it first.')
  if (done === 'same') throw refusal(422, 'This house is as its newest version: there is nothing to issue.')
  return (await findHouse(acting, id))!
})
