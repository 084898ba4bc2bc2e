import { readBody } from 'h3'
import { database } from '../../store/database'
import { removeFolder } from '../../store/folders'
import { answer } from '../../work/answer'
import { folderBodySchema } from '../../work/requests'

/** Takes a folder away; its documents stay on the shelf. */
export default answer(async event => {
  const { name } = folderBodySchema.parse(await readBody(event))
  await removeFolder(await database(), name)
  return { name }
})
