import { z } from 'zod'
import { keepDaysSchema } from '../../../shared/api'
import { route } from '../../door'
import { setTrashDays } from '../../store/trash'
import { bodyOf } from '../../work/requests'

const bodySchema = z.strictObject({ days: keepDaysSchema })

/** Says how long the trash keeps what is put into it. */
export default route('purge', async (event, acting) => {
  const { days } = await bodyOf(event, bodySchema)
  await setTrashDays(acting, days)
  return { days }
})
