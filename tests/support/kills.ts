import type { Knex } from 'knex'
import { openDocument } from '../../core/document/open'
import { actingAs } from '../../server/store/acting'
import { verifyStore } from '../../server/store/verify'
import { listVersions, versionContent } from '../../server/store/versions'
import { until, type DeskProcess } from './desk-process'
import { batch, lookAgain, put, recast, type, type Own } from './people'

/*
 * Servers and the database are killed at random moments while people upload, type and carry plans out. What was
 * acknowledged must be there afterwards, nothing half done, and no job left hanging.
 */

export type Victim = 'server' | 'database'

/**
 * Within this time after the return no job may be held by a server that is gone. Milliseconds. Where other work goes on
 * beside it, as in tests, more is given: how quickly is measured elsewhere, here is looked whether.
 */
const hangs = 15_000

/** Somebody who works without pause; what is not acknowledged is done again, as people do. */
class Worker {
  /** What was acknowledged, newest last, for each document. */
  readonly acknowledged: Own[] = []
  private own: Own | null = null
  private stopped = false

  constructor(
    private readonly base: string,
    private readonly name: string,
    private readonly random: () => number,
  ) {}

  async work(): Promise<void> {
    for (let step = 0; !this.stopped; step++) {
      try {
        this.own = await this.act(step)
        this.acknowledged.push(this.own)
      } catch {
        // The desk is away, or somebody else changed the document: they look again after a moment.
        await new Promise(resolve => setTimeout(resolve, 50))
        if (this.own) this.own = await lookAgain(this.base, this.own).catch(() => this.own)
      }
    }
  }

  private async act(step: number): Promise<Own> {
    const what = this.random()
    if (this.own === null || what < 0.15) return put(this.base, `${this.name} ${step}`)
    if (what < 0.75) return type(this.base, this.own, `word${step}`)
    if (what < 0.95) return recast(this.base, this.own, 8 + Math.floor(this.random() * 20))
    await batch(this.base, [...new Set(this.acknowledged.slice(-3).map(each => each.id))], 9 + (step % 20))
    return this.own
  }

  stop(): void {
    this.stopped = true
  }
}

/** What was found after the kills: sentences, none where all is well. */
export interface Found {
  readonly acknowledged: number
  readonly faults: readonly string[]
}

/** Kills each of the victims at a random moment of work, begins it again, and looks whether all is as it was said. */
export async function workWithKills(
  desk: DeskProcess,
  victims: readonly Victim[],
  random: () => number,
  tell: (line: string) => void = () => {},
  patience = hangs,
): Promise<Found> {
  const faults: string[] = []
  const workers = ['Ash', 'Birch', 'Cedar'].map(name => new Worker(desk.base(), name, random))
  const working = workers.map(worker => worker.work())
  const knex = desk.connect()
  try {
    for (const [round, victim] of victims.entries()) {
      await new Promise(resolve => setTimeout(resolve, 300 + random() * 1700))
      if (victim === 'server') {
        await desk.killServer()
        await desk.startServer()
      } else {
        await desk.killDatabase()
        await desk.startDatabase()
        if (!(await until(() => desk.ready(), patience))) faults.push(`round ${round}: the desk did not come back`)
      }
      if (!(await until(async () => (await hanging(knex)).length === 0, patience)))
        faults.push(`round ${round}: jobs hang: ${(await hanging(knex)).join(', ')}`)
      faults.push(...(await verifyStore(knex)).faults.map(fault => `round ${round}: ${fault}`))
      tell(
        `${String(round + 1).padStart(3)} of ${victims.length}  ${victim} killed; ` +
          `${workers.reduce((sum, worker) => sum + worker.acknowledged.length, 0)} acknowledged, ${faults.length} faults`,
      )
    }
  } finally {
    for (const worker of workers) worker.stop()
    await Promise.all(working)
  }
  const acknowledged = workers.flatMap(worker => worker.acknowledged)
  faults.push(...(await lost(knex, acknowledged)))
  await knex.destroy()
  return { acknowledged: acknowledged.length, faults }
}

/** Jobs that are held by a server that was not seen for a while. */
async function hanging(knex: Knex): Promise<string[]> {
  const seen = knex('servers')
    .where('seen', '>', new Date(Date.now() - 8_000))
    .select('id')
  const rows = await knex('jobs').where({ state: 'running' }).whereNotIn('server', seen).select<{ id: string }[]>('id')
  return rows.map(row => row.id)
}

/** What was acknowledged and is not there, or is not whole. */
async function lost(knex: Knex, acknowledged: readonly Own[]): Promise<string[]> {
  const acting = actingAs(knex)
  const faults: string[] = []
  for (const own of acknowledged) {
    const content = await versionContent(acting, own.id, own.version)
    const part = content && openDocument(content.bytes).parts.get('content.xml')!
    const text = part ? part.textOf(own.paragraph) : ''
    for (const word of own.words)
      if (!text.includes(word)) faults.push(`version ${own.version} of ${own.id} lacks “${word}”`)
  }
  for (const id of new Set(acknowledged.map(each => each.id))) {
    const numbers = (await listVersions(acting, id)).map(version => version.number)
    if (numbers.some((number, index) => number !== index + 1)) faults.push(`the versions of ${id} have a gap`)
  }
  return faults
}
