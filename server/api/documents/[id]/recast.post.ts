import { readBody } from 'h3'
import { z } from 'zod'
import { recastRequestSchema } from '../../../../core/change/recast/request'
import { addVersion } from '../../../store/documents'
import { answer, refusal } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { contentToChange } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), request: recastRequestSchema })

/** Carries a recast out on version `base`: planned anew here by the same code, stored as one version with its plan. */
export default answer(async event => {
  const { base, request } = bodySchema.parse(await readBody(event))
  const { document, knex, content } = await contentToChange(event, base)
  const { plan, bytes, ids, operations } = await threads().run({ kind: 'recast', ...content, request })
  if (operations.length === 0)
    throw refusal(422, 'Nothing answers to the wish, every row is struck, or all is as you ask. Nothing was changed.')
  return addVersion(knex, document.id, base, {
    madeBy: 'recast',
    title: plan.title,
    content: { bytes, ids },
    operations,
    plan,
  })
})
