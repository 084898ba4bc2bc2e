import { spawn, type ChildProcess } from 'node:child_process'
import { connect as connectSocket, createServer, type Server, type Socket } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { projectFolder } from '../../server/library/files'
import { connect } from '../../server/store/database'
import { makeOdt } from '../support/fixtures'
import { endServer, serverAccount, testDatabase } from './running'

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

/** Asks until something is so. Milliseconds. */
async function until(what: () => Promise<boolean>, within: number): Promise<boolean> {
  for (const end = Date.now() + within; Date.now() < end;) {
    if (await what().catch(() => false)) return true
    await new Promise(resolve => setTimeout(resolve, 200))
  }
  return false
}
const ready = async () => (await fetch(`${base}/api/health`)).ok
const upload = (name: string) =>
  fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: makeOdt({ body: `<text:p>${name}</text:p>` }) as Uint8Array<ArrayBuffer>,
  })
const counted = (id: string) => async () => (await fetch(`${base}/api/documents/${id}/census`)).ok

beforeAll(() => {
  // The database is away when the server starts.
  server = spawn(process.execPath, [join(projectFolder(), '.output/server/index.mjs')], {
    stdio: ['ignore', 'pipe', 'pipe'],
    env: {
      ...process.env,
      ...serverAccount(),
      MORPHENE_FOLDER: projectFolder(),
      MORPHENE_DB_PORT: String(wirePort),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
    },
  })
  for (const stream of [server.stdout!, server.stderr!])
    stream.on('data', (chunk: Buffer) => {
      said += chunk.toString()
    })
})
afterAll(async () => {
  await endServer(server)
  await wire.cut()
})

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
  it('in the middle of work leaves nothing hanging: asked again, all goes on', { timeout: 90_000 }, async () => {
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
      expect(await until(counted(id), 15_000)).toBe(true)
    }
    const { cards } = (await (await fetch(`${base}/api/shelf?count=100`)).json()) as { cards: { fileName: string }[] }
    const names = cards.map(card => card.fileName)
    expect(names.filter(name => name.startsWith(`${mark} `))).toHaveLength(3)
    expect(names).not.toContain(`${mark} lost.odt`)
  })

  it('leaves no job with a server that could not say its end', { timeout: 60_000 }, async () => {
    const knex = connect()
    const { id } = (await (await upload('Held.odt')).json()) as { id: string }
    expect(await until(counted(id), 15_000)).toBe(true)
    // As it stands when the report of a job is lost: at work, by a server that is at work on nothing.
    const { id: holder } = await knex('servers').orderBy('seen', 'desc').first<{ id: string }>('id')
    await knex('jobs').where({ document: id }).update({ state: 'running', server: holder, changed: new Date() })
    const state = async () => (await knex('jobs').where({ document: id }).first<{ state: string }>('state')).state
    expect(await until(async () => (await state()) === 'done', 15_000)).toBe(true)
    await knex.destroy()
  })

  it('does not silence those who listen: they are told of jobs that end after it', { timeout: 60_000 }, async () => {
    const listening = new AbortController()
    const stream = await fetch(`${base}/api/events`, { signal: listening.signal })
    let heard = ''
    const reader = stream.body!.getReader()
    const reading = (async () => {
      for (let next = await reader.read(); !next.done; next = await reader.read())
        heard += Buffer.from(next.value).toString()
    })().catch(() => {})
    await wire.cut()
    await new Promise(resolve => setTimeout(resolve, 1000))
    await wire.mend()
    expect(await until(ready, 15_000)).toBe(true)
    const { id } = (await (await upload('Heard.odt')).json()) as { id: string }
    expect(await until(() => Promise.resolve(heard.includes(id) && heard.includes('"done"')), 15_000)).toBe(true)
    listening.abort()
    await reading
  })

  it('is complained of once, not with every look', () => {
    expect(said.match(/"of":"jobs"/g)!.length).toBeLessThan(20)
  })
})
