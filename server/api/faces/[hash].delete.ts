import { getRouterParam } from 'h3'
import { route } from '../../door'
import { removeFace } from '../../store/faces'
import { refusal } from '../../work/answer'

/**
 * Takes a face that was added out of the library. Documents that name it find it absent again; their files do not
 * change.
 */
export default route('faces', async (event, acting) => {
  if (!(await removeFace(acting, getRouterParam(event, 'hash') ?? '')))
    throw refusal(404, 'This face was not added here, or is gone already. Nothing was changed.')
  return { removed: true }
})
