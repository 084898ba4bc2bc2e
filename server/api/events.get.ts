import { createEventStream } from 'h3'
import { route } from '../door'
import { database } from '../store/database'
import { JobFeed } from '../work/job-feed'

const feed = new JobFeed(database)

/** Pushes the progress of jobs to the page, whichever server does them. */
export default route('look', async (event, { actor }) => {
  const stream = createEventStream(event)
  const stop = feed.listen(actor.owner, job => void stream.push(JSON.stringify(job)))
  stream.onClosed(async () => {
    stop()
    await stream.close()
  })
  return stream.send()
})
