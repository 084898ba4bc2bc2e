import { getRouterParam } from 'h3'
import { database } from '../../store/database'
import { removeFace } from '../../store/faces'
import { answer, refusal } from '../../work/answer'

/**
 * Takes a face that was added out of the library. Documents that name it find it absent again; their files do not
 * change.
 */
export default answer(async event => {
  if (!(await removeFace(await database(), getRouterParam(event, 'hash') ?? '')))
    throw refusal(404, 'This face was not added here, or is gone already. Nothing was changed.')
  return { removed: true }
})
