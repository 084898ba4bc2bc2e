import { studioBodySchema } from '../../../shared/people'
import { route } from '../../door'
import { nameStudio } from '../../store/people'
import { bodyOf } from '../../work/requests'

/** Names the studio anew: what whoever is asked to come reads first. */
export default route('people', async (event, acting) => {
  await nameStudio(acting, (await bodyOf(event, studioBodySchema)).name)
  return { done: true }
})
