import { getRouterParam } from 'h3'
import { folderBodySchema } from '../../../../shared/api'
import { route } from '../../../door'
import { renameFolder } from '../../../store/folders'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

/** Gives a folder another name; what lies in it and what holds for it stay. */
export default route('arrange', async (event, acting) => {
  const { name } = await bodyOf(event, folderBodySchema)
  const done = await renameFolder(acting, getRouterParam(event, 'id') ?? '', name)
  if (done === 'gone') throw refusal(404, 'This folder is not there any more. Nothing was changed.')
  if (done === 'taken') throw refusal(409, `There is a folder “${name}” already. Nothing was changed.`)
  return { name }
})
