import { z } from 'zod'
import { route } from '../../../door'
import { editsSchema } from '../../../../core/document/edits'
import { addVersion } from '../../../store/versions'
import { threadsFor } from '../../../work/pool'
import { bodyOf, contentToChange } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), ...editsSchema.shape })

/** Makes what was typed on version `base` until a pause, by the same code as the browser did: one version. */
export default route('change', async (event, acting) => {
  const { base, edits } = await bodyOf(event, bodySchema)
  const { document, content } = await contentToChange(event, acting, base)
  const { bytes, ids, title, said } = await threadsFor(acting).run({ kind: 'edit', ...content, edits })
  return {
    version: await addVersion(acting, document.id, base, {
      madeBy: 'edit',
      title,
      content: { bytes, ids },
      plan: null,
    }),
    said,
  }
})
