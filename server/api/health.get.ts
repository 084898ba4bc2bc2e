import { defineEventHandler } from 'h3'
import { watchingDatabase } from '../store/database'
import { roomWords } from '../work/room'
import { asRefusal } from '../work/answer'

/** Whether the server can reach its database: the one route that anybody may ask. */
export default defineEventHandler(async () => {
  try {
    await watchingDatabase().raw('select 1')
  } catch (error) {
    throw asRefusal(error)
  }
  return { ready: true, room: await roomWords() }
})
