import type { ChildProcess } from 'node:child_process'
import { connect as connectSocket } from 'node:net'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { until } from '../support/desk-process'
import { makeOdt } from '../support/fixtures'
import { beginServer, endServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 40
const base = `http://127.0.0.1:${port}`
let server: ChildProcess
let said = ''
beforeAll(async () => {
  server = beginServer(port, { MORPHENE_LOG: 'info', MORPHENE_RATE: '0.1' }, text => {
    said += text
  })
  expect(await until(async () => (await fetch(`${base}/api/health`)).ok, 30_000)).toBe(true)
})
afterAll(() => endServer(server))

const put = (name: string, body: Uint8Array) =>
  fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: body as Uint8Array<ArrayBuffer>,
  })
/** Begins to send a file and says no more. */
const slowly = () =>
  new Promise<() => void>(resolve => {
    const socket = connectSocket(port, '127.0.0.1', () => {
      socket.write(
        `POST /api/documents?name=slow.odt HTTP/1.1\r\nHost: 127.0.0.1:${port}\r\nContent-Length: 1000000\r\n\r\nPK`,
      )
      resolve(() => socket.destroy())
    })
    socket.on('error', () => {})
  })

describe('files that are sent', () => {
  it('slowly hold nobody up, and too many of them are told to wait; given up, they leave nothing', async () => {
    const slow = await Promise.all(Array.from({ length: 20 }, slowly))
    expect((await put('Quick.odt', makeOdt({ body: '<text:p>Quick</text:p>' }))).status).toBe(201)
    slow.push(...(await Promise.all(Array.from({ length: 8 }, slowly))))
    expect(
      await until(async () => {
        // What was asked before may have had the last place when these came: one more takes it.
        slow.push(await slowly())
        const response = await put('One more.odt', makeOdt({}))
        return response.status === 429 && /Too many files are on their way/.test(await response.text())
      }, 20_000),
    ).toBe(true)
    expect((await fetch(`${base}/api/health`)).status).toBe(200)
    for (const giveUp of slow) giveUp()
    expect(await until(async () => (await put('After.odt', makeOdt({}))).status === 201, 10_000)).toBe(true)
    const shelf = (await (await fetch(`${base}/api/shelf?find=slow.odt`)).json()) as { total: number }
    expect(shelf.total).toBe(0)
    // A connection that is given up is no error of the server.
    expect(said).not.toMatch(/TypeError|_isIdle|unhandled/i)
  })
})

describe('whoever asks too much', () => {
  it('is told to wait, with when to go on, while the desk says that it is well', async () => {
    const answers = await Promise.all(Array.from({ length: 200 }, () => fetch(`${base}/api/folders`)))
    const refused = answers.find(answer => answer.status === 429)!
    expect(Number(refused.headers.get('retry-after'))).toBeGreaterThan(0)
    expect(((await refused.json()) as { message: string }).message).toMatch(/^More was asked of this desk/)
    expect((await fetch(`${base}/api/health`)).status).toBe(200)
    const again = async () => (await fetch(`${base}/api/folders`)).status === 200
    expect(await until(again, 15_000)).toBe(true)
  })
})

describe('what a server tells those who watch over it', () => {
  it('has routes, kinds and times, never names or words of documents', { timeout: 60_000 }, async () => {
    const name = 'Confidential tariff 77'
    const answer = async () => (await put(`${name}.odt`, makeOdt({ body: `<text:p>${name}</text:p>` }))).status === 201
    expect(await until(answer, 20_000)).toBe(true)
    let metrics = ''
    const there = async () => {
      metrics = await (await fetch(`${base}/api/metrics`)).text()
      return metrics.startsWith('# HELP')
    }
    expect(await until(there, 20_000)).toBe(true)
    expect(metrics).toMatch(/morphene_request_seconds_count\{route="\/api\/documents",method="POST",status="201"\} \d+/)
    expect(metrics).toMatch(/morphene_task_seconds_count\{kind="check",ended="done"\} \d+/)
    expect(metrics).toMatch(/morphene_jobs\{state="queued"\} \d+/)
    expect(metrics.trimEnd().endsWith('# EOF')).toBe(true)
    for (const text of [metrics, said]) expect(text).not.toMatch(/Confidential|tariff/)
    const lines = said
      .split('\n')
      .filter(line => line.startsWith('{'))
      .map(line => JSON.parse(line) as { route?: string; status?: number; ms?: number })
    expect(lines).toContainEqual(
      expect.objectContaining({ route: '/api/documents', status: 201, ms: expect.any(Number) as number }),
    )
  })
})
