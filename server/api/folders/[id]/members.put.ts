import { getRouterParam } from 'h3'
import { folderMembersSchema } from '../../../../shared/people'
import { route } from '../../../door'
import { setFolderMembers } from '../../../store/folders'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

/** Says who sees a folder and what lies in it, beside the owners; nobody in particular opens it to all. */
export default route('people', async (event, acting) => {
  const { people } = await bodyOf(event, folderMembersSchema)
  if (!(await setFolderMembers(acting, getRouterParam(event, 'id') ?? '', people)))
    throw refusal(404, 'This folder is not there any more, or somebody does not work here. Nothing was changed.')
  return { people }
})
