import { readBody } from 'h3'
import { z } from 'zod'
import { swapRequestSchema } from '../../../../core/change/plan'
import { addVersion } from '../../../store/documents'
import { answer } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { contentToChange } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), request: swapRequestSchema })

/** Carries a swap out on version `base`: planned anew here by the same code, stored as one version with its plan. */
export default answer(async event => {
  const { base, request } = bodySchema.parse(await readBody(event))
  const { document, knex, content } = await contentToChange(event, base)
  const { plan, bytes, ids, operations } = await threads().run({ kind: 'swap', ...content, request })
  return addVersion(knex, document.id, base, {
    madeBy: 'swap',
    title: plan.title,
    content: { bytes, ids },
    operations,
    plan,
  })
})
