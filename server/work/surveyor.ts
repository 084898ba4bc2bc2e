import { randomUUID } from 'node:crypto'
import type { Knex } from 'knex'
import { rights } from '../../shared/rights'
import type { BatchEffects } from '../../shared/api'
import { failBatchDocument, findBatch, storeBatchPlan, storeBatchVersion } from '../store/batches'
import { actingAs, type Acting } from '../store/acting'
import { findDocument } from '../store/documents'
import { claimJob, handBack, leaveServer, reportJob, seeServer, type ClaimedJob } from '../store/jobs'
import { ConflictError, storeSurvey } from '../store/versions'
import { complain } from './complaints'
import { TaskError, type Workers } from './pool'
import { setContent } from './requests'
import type { Results } from './tasks/task'

/** How often a server says that it is at work. Milliseconds. */
const seenEvery = 2_000

/** Takes waiting jobs from the database, one at a time, until told to stop. */
export class Surveyor {
  private stopped = false
  private running: Promise<void> | null = null
  private timer: NodeJS.Timeout | null = null
  readonly server = randomUUID()

  private connected: Knex | null = null

  /** @param connect gives the database, or fails while it is away: then it is asked again */
  constructor(
    private readonly connect: () => Promise<Knex>,
    private readonly pool: Workers,
  ) {}

  private get knex(): Knex {
    if (!this.connected) throw new Error('the surveyor has not begun')
    return this.connected
  }

  start(): void {
    const see = async () => seeServer(await this.connect(), this.server)
    this.timer = setInterval(() => void see().catch((error: unknown) => complain('jobs', error)), seenEvery)
    this.running = this.loop()
  }

  async stop(): Promise<void> {
    this.stopped = true
    if (this.timer) clearInterval(this.timer)
    await this.running
    // With the database away, it is missed after a while.
    if (this.connected)
      await leaveServer(this.connected, this.server).catch((error: unknown) => complain('jobs', error))
  }

  private async loop(): Promise<void> {
    while (!this.stopped) {
      let worked = false
      try {
        worked = await this.one()
      } catch (error) {
        complain('jobs', error)
      }
      if (!worked) await new Promise(resolve => setTimeout(resolve, 300))
    }
  }

  /** Does one job; false where none waits. */
  async one(): Promise<boolean> {
    this.connected = await this.connect()
    await seeServer(this.knex, this.server)
    await handBack(this.knex, this.server)
    const job = await claimJob(this.knex, this.server)
    if (!job) return false
    // A job is done for whoever asked for it, and reaches what is theirs alone.
    const acting = actingAs(this.knex, { owner: job.owner, person: job.person, rights: new Set(rights) })
    try {
      if (job.kind === 'survey') await this.survey(acting, job)
      else await this.batch(acting, job)
    } catch (error) {
      const message =
        error instanceof ConflictError
          ? 'It was changed since it was planned. It stays as it is.'
          : error instanceof Error
            ? error.message
            : String(error)
      if (job.batch === null) await reportJob(this.knex, job.id, 'failed', 0, message)
      else await failBatchDocument(acting, job, message)
    }
    return true
  }

  private async contentOf(acting: Acting, job: ClaimedJob) {
    const document = await findDocument(acting, job.document)
    return document && setContent(acting, document, job.version)
  }

  private async survey(acting: Acting, job: ClaimedJob): Promise<void> {
    const content = await this.contentOf(acting, job)
    if (!content) {
      await reportJob(this.knex, job.id, 'failed', 0, 'the document is gone')
      return
    }
    await reportJob(this.knex, job.id, 'running', 0.2, 'reading')
    const { census, firstPage } = await this.pool.run({ kind: 'survey', ...content })
    await reportJob(this.knex, job.id, 'running', 0.9, 'keeping')
    await storeSurvey(acting, job.document, job.version, census, firstPage)
    await reportJob(this.knex, job.id, 'done', 1)
  }

  /** Plans one document of a batch, or carries its plan out: planned anew, by the same code. */
  private async batch(acting: Acting, job: ClaimedJob): Promise<void> {
    const batch = await findBatch(acting, job.batch!)
    const content = await this.contentOf(acting, job)
    if (!batch || !content) {
      await failBatchDocument(acting, job, 'It is no longer on the shelf.')
      return
    }
    let made: Results['change']
    try {
      made = await this.pool.run({ kind: 'change', ...content, request: batch.request, partly: true })
    } catch (error) {
      // What the wish does not find here is no failure, nor is a finished PDF among documents: there is nothing to do.
      const isNothing =
        error instanceof TaskError && (error.failure.name === 'NothingToPlan' || error.failure.fault === 'finished')
      if (job.kind !== 'batch-plan' || !isNothing) throw error
      await storeBatchPlan(acting, job, { state: 'nothing', message: error.message, effects: null })
      return
    }
    const { plan, bytes, ids, changes } = made
    if (job.kind === 'batch-plan') {
      const effects: BatchEffects = {
        places: plan.places,
        characters: plan.characters,
        pagesBefore: plan.effects!.pagesBefore,
        pagesAfter: plan.effects!.pagesAfter,
        paragraphsChanged: plan.effects!.paragraphsChanged,
        overset: plan.effects!.overset.filter(frame => frame.lines > frame.linesBefore).length,
        missingGlyphs: plan.missingGlyphs.length,
        left: plan.left.length,
      }
      await storeBatchPlan(
        acting,
        job,
        !changes
          ? { state: 'nothing', message: 'Nothing here answers to the wish.', effects: null }
          : { state: 'planned', message: '', effects },
      )
    } else
      await storeBatchVersion(acting, job, {
        madeBy: 'change',
        title: plan.title,
        content: { bytes, ids },
        plan,
      })
  }
}
