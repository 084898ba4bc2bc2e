import { database } from '../store/database'
import { answer } from '../work/answer'

/** Whether the server can reach its database. */
export default answer(async () => {
  await (await database()).raw('select 1')
  return { ready: true }
})
