import { getRouterParam } from 'h3'
import { route } from '../../door'
import { removeWish } from '../../store/kept-wishes'
import { refusal } from '../../work/answer'

/** Takes a kept wish away. What it did stays done. */
export default route('arrange', async (event, acting) => {
  if (!(await removeWish(acting, getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'This wish is not kept any more.')
  return { removed: true }
})
