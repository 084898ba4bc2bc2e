import { readBody } from 'h3'
import { z } from 'zod'
import { database } from '../../../store/database'
import { moveToFolder } from '../../../store/folders'
import { answer, refusal } from '../../../work/answer'
import { documentOf, folderNameSchema } from '../../../work/requests'

const bodySchema = z.strictObject({ folder: folderNameSchema.nullable() })

/** Puts a document into a folder of the shelf, or out of any. */
export default answer(async event => {
  const document = await documentOf(event)
  const { folder } = bodySchema.parse(await readBody(event))
  if (!(await moveToFolder(await database(), document.id, folder)))
    throw refusal(404, `There is no folder “${folder}” any more. The document stays where it is.`)
  return { folder }
})
