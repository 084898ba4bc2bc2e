import { z } from 'zod'
import { route } from '../door'
import { deskStartsSchema } from '../../core/change/defaults/desk-starts'
import { findFolder, storeStarts } from '../store/folders'
import { refusal } from '../work/answer'
import { bodyOf } from '../work/requests'

const bodySchema = z.strictObject({ folder: z.uuid().nullable(), starts: deskStartsSchema })

/** Keeps what new documents begin with. Those that are there stay as they are. */
export default route('arrange', async (event, acting) => {
  const { folder, starts } = await bodyOf(event, bodySchema)
  if (folder !== null && !(await findFolder(acting, folder)))
    throw refusal(404, 'This folder is not there any more. Nothing was kept.')
  await storeStarts(acting, folder, starts)
  return starts
})
