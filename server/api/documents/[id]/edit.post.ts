import { readBody } from 'h3'
import { z } from 'zod'
import { editsSchema } from '../../../../core/document/edits'
import { database } from '../../../store/database'
import { addVersion, ConflictError, listVersions, versionContent } from '../../../store/documents'
import { answer } from '../../../work/answer'
import { threads } from '../../../work/pool'
import { documentOf } from '../../../work/requests'

const bodySchema = z.strictObject({ base: z.int().min(1), ...editsSchema.shape })

/** Makes what was typed on version `base` until a pause, by the same code as the browser did: one version. */
export default answer(async (event) => {
  const document = await documentOf(event)
  const { base, edits } = bodySchema.parse(await readBody(event))
  const knex = await database()
  if (base !== document.version) throw new ConflictError(document.version, (await listVersions(knex, document.id)).filter(version => version.number > base))
  const content = await versionContent(knex, document.id, base)
  const { bytes, ids, operations, title, said } = await threads().run({ kind: 'edit', ...content!, edits })
  return { version: await addVersion(knex, document.id, base, { madeBy: 'edit', title, content: { bytes, ids }, operations, plan: null }), said }
})
