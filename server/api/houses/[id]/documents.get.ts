import { route } from '../../../door'
import { linkedDocuments, sharesByDay } from '../../../store/houses'
import { houseOf } from '../../../work/requests'

/** The documents that are linked to a house, how much of each is to style, and how that went. */
export default route('look', async (event, acting) => {
  const { id, issued } = await houseOf(event, acting)
  return { documents: await linkedDocuments(acting, id, issued), days: await sharesByDay(acting, id) }
})
