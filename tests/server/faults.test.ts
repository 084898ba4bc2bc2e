import type { ChildProcess } from 'node:child_process'
import { connect as connectSocket, createServer, type Server, type Socket } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { connect } from '../../server/store/database'
import { until } from '../support/desk-process'
import { makeOdt } from '../support/fixtures'
import { beginServer, endServer, listenTo, testDatabase } from './running'

/*
 * The database goes away and comes back while the desk is at work: the server reaches it through a wire that is cut.
 */

const { port: databasePort } = testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 8
const wirePort = port + 1
const base = `http://127.0.0.1:${port}`

/** A wire to the database that can be cut and mended. */
class Wire {
  private server: Server | null = null
  private readonly ends = new Set<Socket>()

  mend(): Promise<void> {
    return new Promise(resolve => {
      this.server = createServer(from => {
        const to = connectSocket(databasePort, '127.0.0.1')
        for (const [one, other] of [
          [from, to],
          [to, from],
        ] as const) {
          this.ends.add(one)
          one.on('error', () => other.destroy())
          one.on('close', () => {
            this.ends.delete(one)
            other.destroy()
          })
          one.pipe(other)
        }
      }).listen(wirePort, '127.0.0.1', resolve)
    })
  }

  cut(): Promise<void> {
    for (const end of this.ends) end.destroy()
    return new Promise(resolve => {
      if (this.server) this.server.close(() => resolve())
      else resolve()
    })
  }
}

const wire = new Wire()
let server: ChildProcess
let said = ''

const ready = async () => (await fetch(`${base}/api/health`)).ok
const upload = (name: string) =>
  fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: makeOdt({ body: `<text:p>${name}</text:p>` }) as Uint8Array<ArrayBuffer>,
  })
const counted = (id: string) => async () => (await fetch(`${base}/api/documents/${id}/census`)).ok

beforeAll(() => {
  // The database is away when the server starts.
  server = beginServer(port, { MORPHENE_DB_PORT: String(wirePort) }, text => {
    said += text
  })
})
afterAll(async () => {
  await endServer(server)
  await wire.cut()
})

/** How long is waited for what must come: here is looked whether it does, and other work may go on beside it. Milliseconds. */
const patience = 60_000

describe('a database that is away', () => {
  it('while the server starts is said, and found when it is back', { timeout: 60_000 }, async () => {
    expect(await until(async () => (await fetch(`${base}/api/health`)).status === 503, 30_000)).toBe(true)
    const away = await fetch(`${base}/api/folders`)
    expect([away.status, away.headers.get('retry-after')]).toEqual([503, '3'])
    expect(((await away.json()) as { message: string }).message).toMatch(/cannot reach its database just now\. Nothing/)
    await wire.mend()
    expect(await until(ready, 15_000)).toBe(true)
    expect((await upload('First.odt')).status).toBe(201)
  })

  const mark = `Round of ${Date.now()}`
  it('in the middle of work leaves nothing hanging: asked again, all goes on', { timeout: 300_000 }, async () => {
    for (let round = 0; round < 3; round++) {
      const answer = await upload(`${mark} ${round}.odt`)
      expect(answer.status).toBe(201)
      const { id } = (await answer.json()) as { id: string }
      // The job is taken up about now, and its end cannot be said.
      await new Promise(resolve => setTimeout(resolve, 150 + round * 200))
      await wire.cut()
      const lost = await upload(`${mark} lost.odt`)
      expect(lost.status).toBe(503)
      await wire.mend()
      expect(await until(ready, 15_000)).toBe(true)
      expect(await until(counted(id), patience)).toBe(true)
    }
    const { cards } = (await (await fetch(`${base}/api/shelf?count=100`)).json()) as { cards: { fileName: string }[] }
    const names = cards.map(card => card.fileName)
    expect(names.filter(name => name.startsWith(`${mark} `))).toHaveLength(3)
    expect(names).not.toContain(`${mark} lost.odt`)
  })

  it('leaves no job with a server that could not say its end', { timeout: 180_000 }, async () => {
    const knex = connect()
    const { id } = (await (await upload('Held.odt')).json()) as { id: string }
    expect(await until(counted(id), patience)).toBe(true)
    // As it stands when the report of a job is lost: at work, by a server that is at work on nothing.
    const { id: holder } = await knex('servers').orderBy('seen', 'desc').first<{ id: string }>('id')
    await knex('jobs').where({ document: id }).update({ state: 'running', server: holder, changed: new Date() })
    const state = async () => (await knex('jobs').where({ document: id }).first<{ state: string }>('state')).state
    expect(await until(async () => (await state()) === 'done', patience)).toBe(true)
    await knex.destroy()
  })

  it('does not silence those who listen: they are told of jobs that end after it', { timeout: 60_000 }, async () => {
    const { heard, stop } = await listenTo(base)
    await wire.cut()
    await new Promise(resolve => setTimeout(resolve, 1000))
    await wire.mend()
    expect(await until(ready, 15_000)).toBe(true)
    const { id } = (await (await upload('Heard.odt')).json()) as { id: string }
    expect(await until(() => Promise.resolve(heard().includes(id) && heard().includes('"done"')), 15_000)).toBe(true)
    await stop()
  })

  it('is complained of once, not with every look', () => {
    expect(said.match(/"of":"jobs"/g)!.length).toBeLessThan(20)
  })
})
