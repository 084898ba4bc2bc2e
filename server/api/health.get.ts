import { defineEventHandler } from 'h3'
import { database } from '../store/database'
import { asRefusal } from '../work/answer'

/** Whether the server can reach its database: the one route that anybody may ask. */
export default defineEventHandler(async () => {
  try {
    await (await database()).raw('select 1')
  } catch (error) {
    throw asRefusal(error)
  }
  return { ready: true }
})
