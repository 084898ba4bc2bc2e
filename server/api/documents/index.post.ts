import { getQuery, setResponseStatus } from 'h3'
import { z } from 'zod'
import { database } from '../../store/database'
import { addDocument } from '../../store/documents'
import { answer, refusal } from '../../work/answer'
import { threads } from '../../work/pool'
import { readFile } from '../../work/requests'

const nameSchema = z.string().trim().min(1).max(255).regex(/^[^/\\\0]+$/)

/** Puts a document on the shelf: the body is the file, `name` its name. Refused files leave nothing behind. */
export default answer(async (event) => {
  const name = nameSchema.safeParse(getQuery(event).name)
  if (!name.success) throw refusal(400, 'The file needs a name without slashes. Nothing was kept.')
  const bytes = await readFile(event)
  const { kind, signed } = await threads().run({ kind: 'check', bytes })
  const { id, job } = await addDocument(await database(), { fileName: name.data, kind, signed, bytes })
  setResponseStatus(event, 201)
  return { id, job, signed }
})
