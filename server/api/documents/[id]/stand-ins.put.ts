import { z } from 'zod'
import { route } from '../../../door'
import { standInScripts } from '../../../../core/font/library'
import { atOnce } from '../../../store/acting'
import { countAnew, listFaces } from '../../../store/faces'
import { setStandIn, type StandInTarget } from '../../../store/stand-ins'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({
  level: z.enum(['document', 'folder', 'desk']),
  family: z.string().trim().max(200),
  script: z.enum(standInScripts),
  to: z.string().trim().min(1).max(200).nullable(),
})

/**
 * Chooses who stands in for an absent family, or with '' for all of them: for the document, for the folder it lies
 * in, or for the desk. No file is changed.
 */
export default route('arrange', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { level, family, script, to } = await bodyOf(event, bodySchema)
  if (level === 'folder' && document.folder === null)
    throw refusal(
      422,
      'This document lies in no folder. Put it into one on the shelf, or choose for the document or the desk. Nothing was changed.',
    )
  if (to !== null && !(await listFaces(acting)).some(face => face.family === to))
    throw refusal(422, `“${to}” is not in the library, so it cannot stand in. Nothing was changed.`)
  const target: StandInTarget =
    level === 'desk' ? { level } : { level, id: level === 'document' ? document.id : document.folder! }
  await atOnce(acting, async within => {
    await setStandIn(within, target, { family, script, to })
    await countAnew(
      within,
      level === 'document' ? { id: document.id } : level === 'folder' ? { folder: document.folder! } : {},
    )
  })
  return { done: true }
})
