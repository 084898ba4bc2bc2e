import type { ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { until } from '../support/desk-process'
import { lookAgain, put, type } from '../support/people'
import { endServer, listenTo, startServer } from './running'

const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 30
const [one, other] = [`http://127.0.0.1:${port}`, `http://127.0.0.1:${port + 1}`]
let servers: ChildProcess[]
beforeAll(async () => {
  servers = [await startServer(port), await startServer(port + 1)]
})
afterAll(() => Promise.all(servers.map(server => endServer(server))))

const get = async <T>(base: string, path: string): Promise<T> => (await (await fetch(base + path)).json()) as T

describe('two servers on one database', () => {
  it('show the same shelf, and the second of two people on two servers is told', async () => {
    const own = await put(one, `Shared letter ${Date.now()}`)
    expect(await lookAgain(other, own)).toEqual(own)
    const typed = await type(other, own, 'first')
    await expect(type(one, own, 'second')).rejects.toThrow(/409[^]*Somebody changed this document meanwhile/)
    expect((await type(one, typed, 'third')).version).toBe(3)
  })

  it('tell those who listen at one of what was put there at the other, whichever counts it', async () => {
    const { heard, stop } = await listenTo(one)
    const { id } = await put(other, `Heard elsewhere ${Date.now()}`)
    const ended = () => Promise.resolve(heard().includes(id) && heard().includes('"done"'))
    expect(await until(ended, 30_000)).toBe(true)
    await stop()
  })

  it('share the work: many documents are counted by both, each once', { timeout: 120_000 }, async () => {
    const ids = await Promise.all(
      Array.from(
        { length: 12 },
        async (_, at) => (await put(at % 2 ? one : other, `Counted ${Date.now()} ${at}`, 400)).id,
      ),
    )
    const counted = async () => {
      const { cards } = await get<{ cards: { counted: number | null }[] }>(one, `/api/shelf?ids=${ids.join(',')}`)
      return cards.length === ids.length && cards.every(card => card.counted === 1)
    }
    expect(await until(counted, 90_000)).toBe(true)
    const tasks = await Promise.all(
      [one, other].map(async base => {
        const text = await (await fetch(`${base}/api/metrics`)).text()
        return Number(/^morphene_task_seconds_count\{kind="survey",ended="done"\} (\d+)/m.exec(text)?.[1] ?? 0)
      }),
    )
    expect(Math.min(...tasks)).toBeGreaterThan(0)
  })

  it('go on as one when the other ends: what it held is done', { timeout: 60_000 }, async () => {
    await endServer(servers[1]!, 'SIGKILL')
    const { id } = await put(one, `After the end ${Date.now()}`)
    const counted = async () =>
      (await get<{ cards: { counted: number | null }[] }>(one, `/api/shelf?ids=${id}`)).cards[0]?.counted === 1
    expect(await until(counted, 30_000)).toBe(true)
  })
})
