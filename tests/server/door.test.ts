import type { ChildProcess } from 'node:child_process'
import { createHash } from 'node:crypto'
import { request, type IncomingHttpHeaders } from 'node:http'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 7
let server: ChildProcess
beforeAll(async () => {
  server = await startServer(port)
})
afterAll(async () => {
  await endServer(server)
})

interface Answer {
  readonly status: number
  readonly headers: IncomingHttpHeaders
  readonly body: string
}
/** A request with headers that a browser would not let a page set. */
const ask = (method: string, path: string, headers: Record<string, string> = {}, body = ''): Promise<Answer> =>
  new Promise((resolve, reject) => {
    const sent = request({ host: '127.0.0.1', port, agent: false, method, path, headers }, response => {
      let text = ''
      response.on('data', (chunk: Buffer) => {
        text += chunk.toString()
      })
      response.on('end', () => resolve({ status: response.statusCode!, headers: response.headers, body: text }))
    })
    sent.on('error', reject)
    sent.end(body)
  })
const json = { 'content-type': 'application/json' }
const folder = (name: string) => JSON.stringify({ name })
const folders = async () => (await ask('GET', '/api/folders')).body

describe('the door', () => {
  it.each(['evil.example', `evil.example:${port}`, '127.0.0.1.evil.example', 'localhost@evil.example', '127.0.0.1:x'])(
    'does not go by the name “%s”: nothing is read, made or removed',
    async host => {
      expect((await ask('GET', '/api/folders', { host })).status).toBe(421)
      expect((await ask('GET', '/', { host })).status).toBe(421)
      const made = await ask(
        'POST',
        '/api/folders',
        { ...json, host, 'sec-fetch-site': 'same-origin' },
        folder('Foreign'),
      )
      expect([made.status, made.body]).toEqual([421, expect.stringContaining('does not go by that name')])
      expect(await folders()).not.toContain('Foreign')
    },
  )

  it.each(['localhost', '127.0.0.1', '[::1]'])('goes by the name %s', async name => {
    expect((await ask('GET', '/api/folders', { host: `${name}:${port}` })).status).toBe(200)
  })

  it.each<Record<string, string>>([
    { origin: 'http://evil.example' },
    { origin: `http://localhost:${port + 1}` },
    { origin: 'null' },
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
  ])('lets no page of another site change anything: %j', async headers => {
    const made = await ask('POST', '/api/folders', { ...json, ...headers }, folder('Strange'))
    expect([made.status, made.body]).toEqual([403, expect.stringContaining('came from another site')])
    expect(await folders()).not.toContain('Strange')
  })

  it('lets its own page, and programs without one', async () => {
    const own = {
      ...json,
      host: `127.0.0.1:${port}`,
      origin: `http://127.0.0.1:${port}`,
      'sec-fetch-site': 'same-origin',
    }
    expect((await ask('POST', '/api/folders', own, folder(`Own ${Date.now()}`))).status).toBe(201)
    expect((await ask('POST', '/api/folders', json, folder(`By program ${Date.now()}`))).status).toBe(201)
  })

  it('reads JSON that is sent as JSON, of a size that is said', async () => {
    const form = await ask('POST', '/api/folders', { 'content-type': 'text/plain' }, folder('Form'))
    expect([form.status, form.body]).toEqual([415, expect.stringContaining('application/json')])
    const broken = await ask('POST', '/api/folders', json, '{"name":')
    expect([broken.status, broken.body]).toEqual([400, expect.stringContaining('no JSON')])
    // What says its length is refused before it is sent, what says nothing of it on the way.
    const large = await ask('POST', '/api/folders', { ...json, 'content-length': String(17 * 1024 * 1024) })
    expect([large.status, large.body]).toEqual([413, expect.stringContaining('16 MB')])
    const ended = await new Promise<number | 'closed'>(resolve => {
      const sent = request(
        { host: '127.0.0.1', port, method: 'POST', path: '/api/folders', headers: json },
        response => {
          response.resume()
          resolve(response.statusCode!)
        },
      )
      sent.on('error', () => resolve('closed'))
      for (let count = 0; count < 20; count++) sent.write('x'.repeat(1024 * 1024))
      sent.end()
    })
    expect([413, 'closed']).toContain(ended)
    expect(await folders()).not.toContain('Form')
  })

  it('says that there is nothing where there is nothing, as data and not as a page', async () => {
    for (const [method, path] of [
      ['GET', '/api/nothing'],
      ['DELETE', '/api/shelf'],
      ['POST', '/api/documents/x/y/z'],
    ] as const) {
      const answer = await ask(method, path)
      expect([answer.status, answer.headers['content-type']]).toEqual([404, expect.stringContaining('json')])
      expect(answer.body).toContain('There is nothing at')
    }
  })

  it('answers with headers that keep its pages and files to itself', async () => {
    for (const path of ['/', '/api/folders', '/api/health'])
      expect((await ask('GET', path)).headers).toMatchObject({
        'x-content-type-options': 'nosniff',
        'x-frame-options': 'DENY',
        'referrer-policy': 'same-origin',
        'cross-origin-resource-policy': 'same-origin',
      })
  })

  it('says with every page what may run in it, and with every answer that it is no page', async () => {
    const page = await ask('GET', '/')
    const policy = String(page.headers['content-security-policy'])
    const [scripts] = /script-src [^;]*/.exec(policy)!
    expect(scripts).not.toContain('unsafe-inline')
    expect(scripts).toMatch(/'sha256-[A-Za-z0-9+/=]+'/)
    expect(policy).toContain("frame-ancestors 'none'")
    // Each script that stands in the page is one of those that may run.
    const inline = [...page.body.matchAll(/<script(?![^>]*src=)(?![^>]*json")[^>]*>([\s\S]*?)<\/script>/g)]
    expect(inline.length).toBeGreaterThan(0)
    for (const [, script] of inline) expect(scripts).toContain(createHash('sha256').update(script!).digest('base64'))
    expect(page.headers['x-powered-by']).toBeUndefined()
    for (const path of ['/api/health', '/api/documents', '/api/nothing']) {
      const { headers } = await ask('GET', path)
      expect(headers['content-security-policy']).toContain("frame-ancestors 'none'")
      expect(headers['x-content-type-options']).toBe('nosniff')
    }
    const [asset] = /\/_nuxt\/[\w-]+\.js/.exec(page.body)!
    const { status, headers } = await ask('GET', asset)
    expect([status, headers['x-content-type-options']]).toEqual([200, 'nosniff'])
  })
})
