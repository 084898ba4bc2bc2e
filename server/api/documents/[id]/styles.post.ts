import { readBody } from 'h3'
import { z } from 'zod'
import { styleRequestSchema } from '../../../../core/change/styles/wishes'
import { addVersion } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { contentToChange } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), request: styleRequestSchema })

/**
 * Carries wishes about styles out on version `base`: planned anew here by the same code, stored as one version with
 * its plan.
 */
export default answer(async event => {
  const { base, request } = bodySchema.parse(await readBody(event))
  const { document, knex, content } = await contentToChange(event, base)
  const { plan, bytes, ids, operations } = await threads().run({ kind: 'styles', ...content, request })
  // A wish that comes to nothing makes no version.
  if (operations.length === 0)
    throw refusal(422, 'Everything is already as you ask, or every row is struck. Nothing was changed.')
  return {
    version: await addVersion(knex, document.id, base, {
      madeBy: 'styles',
      title: plan.title,
      content: { bytes, ids },
      operations,
      plan,
    }),
    made: plan.made,
  }
})
