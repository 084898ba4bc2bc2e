import { readBody } from 'h3'
import { z } from 'zod'
import { editsSchema } from '../../../../core/document/edits'
import { addVersion } from '../../../store/documents'
import { answer } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { contentToChange } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), ...editsSchema.shape })

/** Makes what was typed on version `base` until a pause, by the same code as the browser did: one version. */
export default answer(async event => {
  const { base, edits } = bodySchema.parse(await readBody(event))
  const { document, knex, content } = await contentToChange(event, base)
  const { bytes, ids, title, said } = await threads().run({ kind: 'edit', ...content, edits })
  return {
    version: await addVersion(knex, document.id, base, {
      madeBy: 'edit',
      title,
      content: { bytes, ids },
      plan: null,
    }),
    said,
  }
})
