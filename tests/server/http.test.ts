import type { ChildProcess } from 'node:child_process'
import { request as httpRequest } from 'node:http'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Census } from '../../core/census/census'
import { sailingGuide } from '../../demo/sailing-guide'
import { connect } from '../../server/store/database'
import { badFiles } from '../support/bad-files'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411)
const base = `http://127.0.0.1:${port}`
const guide = sailingGuide()
let server: ChildProcess
let knex: Knex

beforeAll(async () => {
  knex = await connect()
  server = await startServer(port)
})
afterAll(async () => {
  await endServer(server)
  await knex.destroy()
})

const counts = async () => Promise.all(['documents', 'versions', 'jobs', 'blobs', 'document_faces'].map(async table => Number((await knex(table).count({ n: '*' }).first())!.n)))
const upload = (bytes: Uint8Array, name = 'guide.odt') => fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, { method: 'POST', body: bytes as Uint8Array<ArrayBuffer> })
const post = (path: string, body: unknown, headers: Record<string, string> = {}) => fetch(`${base}${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json', ...headers } })
const get = async <T>(path: string): Promise<T> => await (await fetch(`${base}${path}`)).json() as T
const bytesOf = async (path: string) => new Uint8Array(await (await fetch(`${base}${path}`)).arrayBuffer())
const swap = (from: string, to: string) => ({ wishes: [{ from: { family: from }, to: { family: to } }] })
interface Info { document: { version: number }, versions: { number: number, title: string, state: number }[], history: { undo: { title: string } | null, redo: { title: string } | null } }

async function added(bytes: Uint8Array = guide): Promise<string> {
  const response = await upload(bytes)
  expect(response.status).toBe(201)
  return (await response.json() as { id: string }).id
}
async function surveyed(id: string): Promise<Census> {
  for (let tries = 0; tries < 300; tries++) {
    const response = await fetch(`${base}/api/documents/${id}/census`)
    if (response.ok) return await response.json() as Census
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the document was never counted')
}

describe('bad files', () => {
  it.each(badFiles)('%s: refused with a sentence, and no row stays behind', async (_name, make, word) => {
    const before = await counts()
    const response = await upload(make())
    const { message } = await response.json() as { message: string }
    expect(response.status).toBeGreaterThanOrEqual(400)
    expect(response.status).toBeLessThan(500)
    expect(message).toMatch(word)
    expect(message).toMatch(/\.$/)
    expect(await counts()).toEqual(before)
  })

  it('300 MB: refused before it has arrived', async () => {
    const before = await counts()
    const status = await new Promise<number>((resolve, reject) => {
      const sending = httpRequest(`${base}/api/documents?name=big.odt`, { method: 'POST', headers: { 'content-length': 300 * 1024 * 1024 } }, (response) => { resolve(response.statusCode ?? 0); response.resume(); sending.destroy() })
      sending.on('error', reject)
      sending.write(Buffer.alloc(65536))
    })
    expect(status).toBe(413)
    expect(await counts()).toEqual(before)
  })

  it('names with slashes, and requests from other sites', async () => {
    expect((await upload(guide, '../guide.odt')).status).toBe(400)
    expect((await post('/api/documents?name=x.odt', {}, { 'sec-fetch-site': 'cross-site' })).status).toBe(403)
    expect((await fetch(`${base}/api/documents/not-an-id`)).status).toBe(404)
    expect((await fetch(`${base}/api/faces/${'0'.repeat(64)}`)).status).toBe(404)
  })
})

describe('a document on the shelf', () => {
  it('is kept byte for byte, counted, drawn, and handed out as CSV', async () => {
    const id = await added()
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(guide)
    const census = await surveyed(id)
    expect(census.document.pages).toBe(24)
    expect(await (await fetch(`${base}/api/documents/${id}/picture`)).text()).toMatch(/^<svg/)
    const csv = await fetch(`${base}/api/documents/${id}/census?format=csv`)
    expect(csv.headers.get('content-disposition')).toContain('guide census.csv')
    expect(await csv.text()).toContain('Skerrow')
    const cards = await get<{ id: string, settled: number, faces: { family: string }[] }[]>('/api/shelf')
    expect(cards.find(card => card.id === id)).toMatchObject({ settled: census.settled })
    expect(Number((await knex('document_faces').where({ document: id, family: 'Skerrow' }).count({ n: '*' }).first())!.n)).toBeGreaterThan(0)
  })

  it('says that a change ends its signature', async () => {
    const response = await upload(makeOdt({ parts: [{ path: 'META-INF/documentsignatures.xml', type: '', content: '<x/>' }] }))
    expect(await response.json()).toMatchObject({ signed: true })
  })

  it('swaps as one version, with undo, redo, and a record', async () => {
    const id = await added()
    const done = await post(`/api/documents/${id}/swap`, { base: 1, request: swap('Skerrow', 'Work Sans') })
    expect(await done.json()).toMatchObject({ number: 2, madeBy: 'swap', title: 'Skerrow gives way to Work Sans' })
    const swapped = await bytesOf(`/api/documents/${id}/file`)
    expect(swapped).not.toEqual(guide)
    expect(await bytesOf(`/api/documents/${id}/file?version=1`)).toEqual(guide)
    expect(await get<object>(`/api/documents/${id}/record?version=2`)).toMatchObject({ kind: 'swap', places: 7, effects: { pagesBefore: 24 } })
    expect((await get<Info>(`/api/documents/${id}`)).history).toMatchObject({ undo: { title: 'Skerrow gives way to Work Sans' }, redo: null })
    await post(`/api/documents/${id}/step`, { base: 2, direction: 'undo' })
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(guide)
    expect((await get<Info>(`/api/documents/${id}`)).history).toMatchObject({ undo: null, redo: { title: 'Skerrow gives way to Work Sans' } })
    await post(`/api/documents/${id}/step`, { base: 3, direction: 'redo' })
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(swapped)
    expect((await post(`/api/documents/${id}/step`, { base: 4, direction: 'redo' })).status).toBe(422)
    // A change on top of a change: ids of the first are carried over.
    const again = await post(`/api/documents/${id}/swap`, { base: 4, request: swap('Work Sans', 'Spectral') })
    expect(again.status).toBe(200)
    expect((await get<Info>(`/api/documents/${id}`)).versions.map(version => version.state)).toEqual([1, 2, 1, 2, 5])
  })

  it('tells the second of two people what the first changed, and loses nothing', async () => {
    const id = await added()
    expect((await post(`/api/documents/${id}/swap`, { base: 1, request: swap('Skerrow', 'Work Sans') })).status).toBe(200)
    const late = await post(`/api/documents/${id}/swap`, { base: 1, request: swap('Jost', 'Archivo') })
    expect(late.status).toBe(409)
    expect(await late.json()).toMatchObject({ message: expect.stringContaining('Skerrow gives way to Work Sans'), data: { current: 2, since: [{ number: 2 }] } })
    expect((await get<Info>(`/api/documents/${id}`)).document.version).toBe(2)
  })

  it('two swaps at the very same moment: one is taken, one is told', async () => {
    const id = await added()
    const statuses = (await Promise.all([swap('Skerrow', 'Work Sans'), swap('Skerrow', 'Archivo')].map(wish => post(`/api/documents/${id}/swap`, { base: 1, request: wish })))).map(response => response.status)
    expect(statuses.sort()).toEqual([200, 409])
  })

  it('refuses wishes that cannot be met, and requests that are none', async () => {
    const id = await added()
    const response = await post(`/api/documents/${id}/swap`, { base: 1, request: swap('Skerrow', 'Nowhere') })
    expect(response.status).toBe(422)
    expect(await response.json()).toMatchObject({ message: expect.stringContaining('not in the library') })
    expect((await post(`/api/documents/${id}/swap`, { base: 1, request: { wishes: [] } })).status).toBe(400)
    expect((await post(`/api/documents/${id}/swap`, { base: 'x' })).status).toBe(400)
    expect((await get<Info>(`/api/documents/${id}`)).document.version).toBe(1)
  })

  it('comes as PDF at true size, with what it does not hold told beside it', async () => {
    const id = await added()
    const response = await fetch(`${base}/api/documents/${id}/pdf?bleed=3&marks=yes`)
    expect(response.status).toBe(200)
    expect(response.headers.get('content-type')).toBe('application/pdf')
    expect(response.headers.get('content-disposition')).toContain('guide.pdf')
    expect(JSON.parse(decodeURIComponent(response.headers.get('x-pdf-notes')!))).toMatchObject({ pages: 24, notEmbedded: [], unlaid: [{ feature: 'charts (shown as an empty box)', count: 1 }] })
    expect(new TextDecoder('latin1').decode((await response.arrayBuffer()).slice(0, 8))).toBe('%PDF-1.7')
    expect((await fetch(`${base}/api/documents/${id}/pdf?bleed=400`)).status).toBe(400)
    expect((await fetch(`${base}/api/documents/${id}/pdf?version=9`)).status).toBe(400)
  })

  it('is removed with all its versions', async () => {
    const id = await added()
    expect((await fetch(`${base}/api/documents/${id}`, { method: 'DELETE' })).status).toBe(200)
    expect((await fetch(`${base}/api/documents/${id}`)).status).toBe(404)
    expect(Number((await knex('versions').where({ document: id }).count({ n: '*' }).first())!.n)).toBe(0)
  })
})

describe('the library', () => {
  it('lists faces and serves their files for ever', async () => {
    const faces = await get<{ hash: string, family: string, fileSize: number }[]>('/api/faces')
    expect(faces.length).toBeGreaterThan(400)
    const file = await fetch(`${base}/api/faces/${faces[0]!.hash}`)
    expect(file.headers.get('cache-control')).toContain('immutable')
    expect((await file.arrayBuffer()).byteLength).toBe(faces[0]!.fileSize)
  })
})

describe('a server that is killed', () => {
  it('in the middle of a swap leaves the former version whole and the swap wholly there or wholly not', async () => {
    const long = makeOdt({ faces: face('Jost'), automatic: paragraphStyle('P', 'style:font-name="Jost"'), body: Array.from({ length: 3000 }, (_, at) => `<text:p text:style-name="P">Paragraph ${at} of a long text that takes its time to be set in pages, twice.</text:p>`).join('') })
    for (const delay of [30, 200, 500, 900]) {
      const id = await added(long)
      const response = post(`/api/documents/${id}/swap`, { base: 1, request: swap('Jost', 'Spectral') }).catch(() => null)
      await new Promise(resolve => setTimeout(resolve, delay))
      await endServer(server, 'SIGKILL')
      await response
      server = await startServer(port)
      const { document, versions } = await get<Info>(`/api/documents/${id}`)
      expect(await bytesOf(`/api/documents/${id}/file?version=1`)).toEqual(long)
      expect(versions).toHaveLength(document.version)
      expect([1, 2]).toContain(document.version)
      if (document.version === 2) expect((await bytesOf(`/api/documents/${id}/file`)).length).toBeGreaterThan(1000)
      // And the document can be worked on: the same swap goes through if it had not.
      if (document.version === 1) expect((await post(`/api/documents/${id}/swap`, { base: 1, request: swap('Jost', 'Spectral') })).status).toBe(200)
    }
  })
})
