import type { Knex } from 'knex'
import { storeSurvey, versionContent } from '../store/documents'
import { claimJob, reportJob } from '../store/jobs'
import type { ThreadPool } from './pool'

/** Takes waiting jobs from the database, one at a time, until told to stop. */
export class Surveyor {
  private stopped = false
  private running: Promise<void> | null = null

  constructor(private readonly knex: Knex, private readonly pool: ThreadPool) {}

  start(): void { this.running = this.loop() }

  async stop(): Promise<void> {
    this.stopped = true
    await this.running
  }

  private async loop(): Promise<void> {
    while (!this.stopped) {
      let worked = false
      try { worked = await this.one() }
      catch (error) { console.error('jobs:', error instanceof Error ? error.message : error) }
      if (!worked) await new Promise(resolve => setTimeout(resolve, 300))
    }
  }

  /** Does one job; false where none waits. */
  async one(): Promise<boolean> {
    const job = await claimJob(this.knex)
    if (!job) return false
    try {
      const content = await versionContent(this.knex, job.document, job.version)
      if (!content) { await reportJob(this.knex, job.id, 'failed', 0, 'the document is gone'); return true }
      await reportJob(this.knex, job.id, 'running', 0.2, 'reading')
      const { census, firstPage } = await this.pool.run({ kind: 'survey', ...content })
      await reportJob(this.knex, job.id, 'running', 0.9, 'keeping')
      await storeSurvey(this.knex, job.document, job.version, census, firstPage)
      await reportJob(this.knex, job.id, 'done', 1)
    }
    catch (error) {
      await reportJob(this.knex, job.id, 'failed', 0, error instanceof Error ? error.message : String(error))
    }
    return true
  }
}
