import { route } from '../../../door'
import { changeBodySchema, type Changed } from '../../../../shared/api'
import { addVersion } from '../../../store/versions'
import { refusal } from '../../../work/answer'
import { threadsFor } from '../../../work/pool'
import { bodyOf, contentToChange } from '../../../work/requests'

/**
 * Carries wishes of any kinds out on version `base`: planned anew here by the same code as in the browser, stored as one
 * version with its plan.
 */
export default route('change', async (event, acting): Promise<Changed> => {
  const { base, request } = await bodyOf(event, changeBodySchema)
  const { document, content } = await contentToChange(event, acting, base)
  const { plan, bytes, ids, changes } = await threadsFor(acting).run({ kind: 'change', ...content, request })
  // What comes to nothing makes no version.
  if (!changes)
    throw refusal(
      422,
      'Everything is already as you ask, nothing answers to it, or every place is left out. Nothing was changed.',
    )
  const version = await addVersion(acting, document.id, base, {
    madeBy: 'change',
    title: plan.title,
    content: { bytes, ids },
    plan,
  })
  return { version, made: plan.made }
})
