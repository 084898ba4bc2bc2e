import { defineEventHandler } from 'h3'
import { database } from '../store/database'

/** Whether the server can reach its database: the one route that anybody may ask. */
export default defineEventHandler(async () => {
  await (await database()).raw('select 1')
  return { ready: true }
})
