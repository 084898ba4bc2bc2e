import type { Knex } from 'knex'
import { dropUnusedContent } from '../store/unused-content'
import { complain } from './complaints'

/** How often is looked for content that nothing names any more. Milliseconds. */
const every = 60_000

/** Lets go, while people work, of content that nothing names. Several servers may do so side by side. */
export class Collector {
  private timer: NodeJS.Timeout | null = null
  private running: Promise<void> | null = null
  private stopped = false

  /** @param connect gives the database, or fails while it is away: then the next round asks again */
  constructor(private readonly connect: () => Promise<Knex>) {}

  start(): void {
    this.timer = setInterval(() => {
      this.running ??= this.round()
        .catch((error: unknown) => complain('letting content go', error))
        .finally(() => {
          this.running = null
        })
    }, every)
  }

  /** Lets everything go that nothing names now. */
  async round(): Promise<void> {
    const knex = await this.connect()
    for (let more = true; more && !this.stopped;) ({ more } = await dropUnusedContent(knex))
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearInterval(this.timer)
    await this.running
  }
}
