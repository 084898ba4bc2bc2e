import { getRouterParam } from 'h3'
import { z } from 'zod'
import { keepDaysSchema } from '../../../../shared/api'
import { route } from '../../../door'
import { keepInFolder } from '../../../store/folders'
import { refusal } from '../../../work/answer'
import { bodyOf } from '../../../work/requests'

const bodySchema = z.strictObject({ days: keepDaysSchema.nullable() })

/** Says for how many days after its last change a folder keeps a document, before it goes into the trash. */
export default route('purge', async (event, acting) => {
  const { days } = await bodyOf(event, bodySchema)
  if (!(await keepInFolder(acting, getRouterParam(event, 'id') ?? '', days)))
    throw refusal(404, 'This folder is not there any more. Nothing was changed.')
  return { days }
})
