import { z } from 'zod'
import { route } from '../../../door'
import { addVersion, history, listVersions } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { bodyOf, documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), direction: z.enum(['undo', 'redo']) })

/** Undoes or redoes: a new version with the content of an earlier one. Nothing is overwritten. */
export default route('change', async (event, acting) => {
  const document = await documentOf(event, acting)
  const { base, direction } = await bodyOf(event, bodySchema)
  const versions = await listVersions(acting, document.id)
  const step = history(versions.filter(version => version.number <= base))[direction]
  if (!step) throw refusal(422, `There is nothing to ${direction}.`)
  const title = direction === 'undo' ? `Undid: ${step.title}` : `Did again: ${step.title}`
  return addVersion(acting, document.id, base, {
    madeBy: direction,
    title,
    content: { state: step.state },
    plan: null,
  })
})
