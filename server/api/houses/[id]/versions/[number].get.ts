import { getRouterParam } from 'h3'
import { route } from '../../../../door'
import { houseVersion } from '../../../../store/houses'
import { refusal } from '../../../../work/answer'
import { houseOf } from '../../../../work/requests'

/** A house as it was issued. */
export default route('look', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  const house = await houseVersion(acting, id, Number(getRouterParam(event, 'number')) || 0)
  if (!house) throw refusal(404, 'This house has no such version.')
  return house
})
