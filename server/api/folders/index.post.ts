import { setResponseStatus } from 'h3'
import { folderBodySchema } from '../../../shared/api'
import { route } from '../../door'
import { addFolder } from '../../store/folders'
import { refusal } from '../../work/answer'
import { bodyOf } from '../../work/requests'

/** Makes a folder on the shelf. */
export default route('arrange', async (event, acting) => {
  const { name } = await bodyOf(event, folderBodySchema)
  const id = await addFolder(acting, name)
  if (id === null) throw refusal(409, `There is a folder “${name}” already. Nothing was changed.`)
  setResponseStatus(event, 201)
  return { id, name }
})
