import { getRouterParam } from 'h3'
import { route } from '../../../door'
import { removeFolder } from '../../../store/folders'
import { refusal } from '../../../work/answer'

/** Takes a folder away; its documents stay on the shelf. */
export default route('arrange', async (event, acting) => {
  if (!(await removeFolder(acting, getRouterParam(event, 'id') ?? '')))
    throw refusal(404, 'This folder is gone already. Nothing was changed.')
  return { removed: true }
})
