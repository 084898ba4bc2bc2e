import type { Knex } from 'knex'
import type { Job } from '../../shared/api'
import { changedJobs } from '../store/jobs'
import { complain } from './complaints'

/** How often is looked for jobs that changed. Milliseconds. */
const every = 400

/** Told of a job of an owner's. */
type Listener = (job: Job) => void

/**
 * Tells everybody who listens of jobs that changed, whichever server does them. One look at the database serves all: it
 * is asked only while somebody listens.
 */
export class JobFeed {
  private readonly listeners = new Map<Listener, string>()
  private timer: NodeJS.Timeout | null = null
  private since = new Date(0)
  private busy = false

  /** @param connect gives the database, or fails while it is away */
  constructor(private readonly connect: () => Promise<Knex>) {}

  /** Listens for jobs of an owner, those of the last moments first. Answers how to stop. */
  listen(owner: string, listener: Listener): () => void {
    this.listeners.set(listener, owner)
    this.since = new Date(Math.min(Date.now() - 2000, this.timer ? this.since.getTime() : Infinity))
    this.timer ??= setInterval(() => void this.look(), every)
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size > 0 || !this.timer) return
      clearInterval(this.timer)
      this.timer = null
    }
  }

  private async look(): Promise<void> {
    if (this.busy) return
    this.busy = true
    try {
      for (const { changed, owner, ...job } of await changedJobs(await this.connect(), this.since)) {
        if (changed > this.since) this.since = changed
        for (const [listener, whose] of this.listeners) if (whose === owner) listener(job)
      }
    } catch (error) {
      // While the database is away, the next round asks again.
      complain('who listens for jobs', error)
    } finally {
      this.busy = false
    }
  }
}
