import type { Knex } from 'knex'
import { rights } from '../../shared/rights'
import { actingAs, type Acting } from '../store/acting'
import { provePurges } from '../store/purges'
import { dueInFolders, dueInTrash, purgeDocument, trashDocument, type Due } from '../store/trash'
import { dropUnusedContent } from '../store/unused-content'
import { complain } from './complaints'

/** How often is looked for what may go. Milliseconds. */
const every = 60_000

/**
 * Lets go, while people work: documents that their folder keeps no longer go into the trash, those whose days in the trash
 * are over go for good, and so does content that nothing names. What went for good is searched for, and proven gone.
 * Several servers may do so side by side.
 */
export class LettingGo {
  private timer: NodeJS.Timeout | null = null
  private running: Promise<void> | null = null
  private stopped = false

  /** @param connect gives the database, or fails while it is away: then the next round asks again */
  constructor(private readonly connect: () => Promise<Knex>) {}

  start(): void {
    this.timer = setInterval(() => {
      this.running ??= this.round()
        .catch((error: unknown) => complain('letting go', error))
        .finally(() => {
          this.running = null
        })
    }, every)
  }

  /** Lets everything go that may go at a time. */
  async round(now: Date = new Date()): Promise<void> {
    const knex = await this.connect()
    await this.each(knex, () => dueInFolders(knex, now), trashDocument)
    await this.each(knex, () => dueInTrash(knex, now), purgeDocument)
    for (let more = true; more && !this.stopped;) ({ more } = await dropUnusedContent(knex))
    while (!this.stopped && (await provePurges(knex)) > 0);
  }

  /** Does something to all documents that are due, for their owners. What cannot be done now waits for the next round. */
  private async each(
    knex: Knex,
    due: () => Promise<Due[]>,
    letGo: (acting: Acting, id: string) => Promise<boolean>,
  ): Promise<void> {
    for (let some = await due(); some.length > 0 && !this.stopped; some = await due()) {
      let gone = 0
      for (const { id, owner } of some)
        if (await letGo(actingAs(knex, { owner, person: '', rights: new Set(rights) }), id)) gone++
      if (gone === 0) return
    }
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearInterval(this.timer)
    await this.running
  }
}
