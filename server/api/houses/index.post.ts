import { setResponseStatus } from 'h3'
import { houseBodySchema } from '../../../shared/api'
import { route } from '../../door'
import { addHouse } from '../../store/houses'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

/** Keeps a new house. */
export default route('arrange', async (event, acting) => {
  const { house, trialUntil } = await bodyOf(event, houseBodySchema)
  const id = await addHouse(acting, house, trialUntil)
  if (id === null)
    throw refusal(409, 'There are as many houses as are kept: 200. Let one go first. Nothing was changed.')
  setResponseStatus(event, 201)
  return { id }
})
