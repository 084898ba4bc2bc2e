import { createEventStream } from 'h3'
import { route } from '../door'
import { changedJobs } from '../store/jobs'

/** Pushes the progress of jobs to the page, whichever server does them. */
export default route('look', async (event, acting) => {
  const stream = createEventStream(event)
  let since = new Date(Date.now() - 2000)
  let busy = false
  const timer = setInterval(() => {
    if (busy) return
    busy = true
    changedJobs(acting, since)
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
