import { getRouterParam } from 'h3'
import { folderMembersSchema } from '../../../../shared/people'
import { route } from '../../../door'
import { setFolderMembers } from '../../../store/folders'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

/**
 * Says who sees a folder and what they do there, beside the owners of the desk; nobody in particular opens it to all. Owners
 * of the desk and of the folder say so.
 */
export default route('arrange', async (event, acting) => {
  const { people } = await bodyOf(event, folderMembersSchema)
  const done = await setFolderMembers(acting, getRouterParam(event, 'id') ?? '', people)
  if (done === 'gone')
    throw refusal(404, 'This folder is not there any more, or somebody does not work here. Nothing was changed.')
  if (done === 'not yours')
    throw refusal(403, 'You may not say who sees this folder: its owners do. Nothing was changed.')
  return { people }
})
