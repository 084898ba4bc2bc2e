import { houseChangeSchema } from '../../../../shared/api'
import { route } from '../../../door'
import { changeHouse, findHouse } from '../../../store/houses'
import { refusal } from '../../../work/answer'
import { bodyOf, houseOf } from '../../../work/requests'

/** Keeps the working house anew; its versions stay. */
export default route('arrange', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  const done = await changeHouse(acting, id, await bodyOf(event, houseChangeSchema))
  if (done === 'gone') throw refusal(404, 'This house is not there any more. Nothing was changed.')
  if (done === 'behind')
    throw refusal(409, 'Somebody changed this house meanwhile. Theirs is kept; look at it and change it anew.')
  return (await findHouse(acting, id))!
})
