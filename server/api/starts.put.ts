import { readBody } from 'h3'
import { z } from 'zod'
import { deskStartsSchema } from '../../core/change/defaults/desk-starts'
import { database } from '../store/database'
import { listFolders, storeStarts } from '../store/folders'
import { answer, refusal } from '../work/answer'

const bodySchema = z.strictObject({ folder: z.string().max(120), starts: deskStartsSchema })

/** Keeps what new documents begin with. Those that are there stay as they are. */
export default answer(async event => {
  const { folder, starts } = bodySchema.parse(await readBody(event))
  const knex = await database()
  if (folder !== '' && !(await listFolders(knex)).some(each => each.name === folder))
    throw refusal(404, `There is no folder “${folder}” any more. Nothing was kept.`)
  await storeStarts(knex, folder, starts)
  return starts
})
