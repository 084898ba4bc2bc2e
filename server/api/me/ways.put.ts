import { waysSchema } from '../../../shared/ways'
import { route } from '../../door'
import { setWays } from '../../store/ways'
import { bodyOf } from '../../work/requests'

/** How whoever asks likes to work. */
export default route('look', async (event, acting) => {
  await setWays(acting, await bodyOf(event, waysSchema))
  return { done: true }
})
