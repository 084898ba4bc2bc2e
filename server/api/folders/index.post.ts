import { readBody, setResponseStatus } from 'h3'
import { database } from '../../store/database'
import { addFolder } from '../../store/folders'
import { answer, refusal } from '../../work/answer'
import { folderBodySchema } from '../../work/requests'

/** Makes a folder on the shelf. */
export default answer(async event => {
  const { name } = folderBodySchema.parse(await readBody(event))
  if (!(await addFolder(await database(), name)))
    throw refusal(409, `There is a folder “${name}” already. Nothing was changed.`)
  setResponseStatus(event, 201)
  return { name }
})
