import { defineEventHandler } from 'h3'
import { refusal } from '../work/answer'

/** Whatever no other route answers: an address that there is not, or one that is asked in a way it is not asked in. */
export default defineEventHandler(event => {
  throw refusal(404, `There is nothing at ${event.method} ${event.path.slice(0, 200)}. Nothing was changed.`)
})
