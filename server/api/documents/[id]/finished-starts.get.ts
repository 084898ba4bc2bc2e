import type { FinishedStartLevels } from '../../../../core/change/defaults/finished-starts'
import { route } from '../../../door'
import { finishedStartsFor } from '../../../store/finished-starts'
import { documentOf } from '../../../work/requests'

/** What text begins with that is added to a finished PDF, by who says it: the strongest first. */
export default route('look', async (event, acting): Promise<FinishedStartLevels> =>
  finishedStartsFor(acting, await documentOf(event, acting)),
)
