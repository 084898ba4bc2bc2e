import { route } from '../../../door'
import { removeHouse } from '../../../store/houses'
import { houseOf } from '../../../work/requests'

/** Lets go of a house with its versions; its documents stay as they are. */
export default route('arrange', async (event, acting) => {
  const { id } = await houseOf(event, acting)
  return { removed: await removeHouse(acting, id) }
})
