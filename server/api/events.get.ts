import { createEventStream, defineEventHandler } from 'h3'
import { database } from '../store/database'
import { changedJobs } from '../store/jobs'

/** Pushes the progress of jobs to the page, whichever server does them. */
export default defineEventHandler(async event => {
  const stream = createEventStream(event)
  const knex = await database()
  let since = new Date(Date.now() - 2000)
  let busy = false
  const timer = setInterval(() => {
    if (busy) return
    busy = true
    changedJobs(knex, since)
      .then(async jobs => {
        for (const { changed, ...job } of jobs) {
          if (changed > since) since = changed
          await stream.push(JSON.stringify(job))
        }
      })
      .catch(() => {
        /* The next round asks again. */
      })
      .finally(() => {
        busy = false
      })
  }, 400)
  stream.onClosed(async () => {
    clearInterval(timer)
    await stream.close()
  })
  return stream.send()
})
