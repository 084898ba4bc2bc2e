import type { FinishedStartLevels } from '../../../../core/change/defaults/finished-starts'
import { route } from '../../../door'
import { finishedStartsFor } from '../../../store/finished-starts'
import { linkedHouse } from '../../../work/handing'
import { documentOf } from '../../../work/requests'

/** What text begins with that is added to a finished PDF, by who says it: the strongest first. */
export default route('look', async (event, acting): Promise<FinishedStartLevels> => {
  const document = await documentOf(event, acting)
  return finishedStartsFor(acting, document, await linkedHouse(acting, document))
})
