import type { FinishedStartLevels } from '../../../../core/change/defaults/finished-starts'
import { finishedStartsBodySchema } from '../../../../shared/finished'
import { route } from '../../../door'
import { listFaces } from '../../../store/faces'
import { finishedStartsFor, storeFinishedStarts } from '../../../store/finished-starts'
import { refusal } from '../../../work/answer'
import { linkedHouse } from '../../../work/handing'
import { bodyOf, documentOf } from '../../../work/requests'

/** Says what text begins with that is added to finished PDFs: to this one, to those of its folder, or to all of the desk. */
export default route('arrange', async (event, acting): Promise<FinishedStartLevels> => {
  const document = await documentOf(event, acting)
  const { level, starts } = await bodyOf(event, finishedStartsBodySchema)
  if (level === 'folder' && document.folder === null)
    throw refusal(
      422,
      'This document lies in no folder. Put it into one on the shelf, or choose for the document or the desk. Nothing was changed.',
    )
  if (starts.family !== undefined && !(await listFaces(acting)).some(face => face.family === starts.family))
    throw refusal(422, `“${starts.family}” is not in the library, so nothing can begin in it. Nothing was changed.`)
  await storeFinishedStarts(acting, document, level, starts)
  return finishedStartsFor(acting, document, await linkedHouse(acting, document))
})
