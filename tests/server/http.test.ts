import type { ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { request as httpRequest } from 'node:http'
import { unzipSync } from 'fflate'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Census } from '../../core/census/census'
import type { FaceAlternates } from '../../core/font/alternates'
import type { FaceRecord } from '../../core/font/face'
import { makeEdits } from '../../core/change/make-edits'
import { openDocument, saveDocument } from '../../core/document/open'
import { sailingGuide } from '../../demo/sailing-guide'
import { seasonReview } from '../../demo/season-review'
import { connect } from '../../server/store/database'
import type { ShelfPage } from '../../shared/api'
import { badFiles } from '../support/bad-files'
import { until } from '../support/desk-process'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { familiesIn, parts, xmlParts } from '../support/independent'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411)
const base = `http://127.0.0.1:${port}`
const guide = sailingGuide()
let server: ChildProcess
let knex: Knex

beforeAll(async () => {
  knex = connect()
  server = await startServer(port)
})
afterAll(async () => {
  await endServer(server)
  await knex.destroy()
})

const counts = async () =>
  Promise.all(
    ['documents', 'versions', 'jobs', 'blobs', 'document_faces'].map(async table =>
      Number((await knex(table).count({ n: '*' }).first())!.n),
    ),
  )
/** What is told of a file that was handed on. */
const notesOf = (response: Response) =>
  JSON.parse(decodeURIComponent(response.headers.get('x-handoff-notes')!)) as { said: string[]; left: string[] }
/** Waits until nothing is counted in the background: counts write rows of their own. */
const atRest = async () => {
  for (;;) {
    const [open] = await knex('jobs').whereIn('state', ['queued', 'running']).count({ n: '*' })
    if (Number(open!.n) === 0) return
    await new Promise(resolve => setTimeout(resolve, 50))
  }
}
const upload = (bytes: Uint8Array, name = 'guide.odt') =>
  fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
  })
const post = (path: string, body: unknown, headers: Record<string, string> = {}) =>
  fetch(`${base}${path}`, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json', ...headers },
  })
const get = async <T>(path: string): Promise<T> => (await (await fetch(`${base}${path}`)).json()) as T
const bytesOf = async (path: string) => new Uint8Array(await (await fetch(`${base}${path}`)).arrayBuffer())
const swap = (from: string, to: string) => ({ wishes: [{ type: 'swap', from: { family: from }, to: { family: to } }] })
interface Info {
  document: { version: number }
  versions: { number: number; title: string; state: number }[]
  history: { undo: { title: string } | null; redo: { title: string } | null }
}

async function added(bytes: Uint8Array = guide): Promise<string> {
  const response = await upload(bytes)
  expect(response.status).toBe(201)
  return ((await response.json()) as { id: string }).id
}
async function surveyed(id: string): Promise<Census> {
  for (let tries = 0; tries < 300; tries++) {
    const { document } = await get<Info>(`/api/documents/${id}`)
    const response = await fetch(`${base}/api/documents/${id}/census?version=${document.version}`)
    if (response.ok) return (await response.json()) as Census
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the document was never counted')
}

describe('bad files', () => {
  // What was opened before is counted meanwhile, and counting writes rows, too.
  beforeAll(async () => {
    const atWork = () => knex('jobs').whereIn('state', ['queued', 'running']).first()
    expect(await until(async () => (await atWork()) === undefined, 60_000)).toBe(true)
  })
  it.each(badFiles)('%s: refused with a sentence, and no row stays behind', async (_name, make, word) => {
    await atRest()
    const before = await counts()
    const response = await upload(make())
    const { message } = (await response.json()) as { message: string }
    expect(response.status).toBeGreaterThanOrEqual(400)
    expect(response.status).toBeLessThan(500)
    expect(message).toMatch(word)
    expect(message).toMatch(/\.$/)
    expect(await counts()).toEqual(before)
  })

  it('300 MB: refused before it has arrived', async () => {
    await atRest()
    const before = await counts()
    const status = await new Promise<number>((resolve, reject) => {
      const sending = httpRequest(
        `${base}/api/documents?name=big.odt`,
        { method: 'POST', headers: { 'content-length': 300 * 1024 * 1024 } },
        response => {
          resolve(response.statusCode ?? 0)
          response.resume()
          sending.destroy()
        },
      )
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
    const { cards, total } = await get<ShelfPage>(`/api/shelf?ids=${id}`)
    expect(total).toBe(1)
    expect(cards[0]).toMatchObject({ id, settled: census.settled, pages: 24, title: census.document.title })
    expect(
      Number((await knex('document_faces').where({ document: id, family: 'Skerrow' }).count({ n: '*' }).first())!.n),
    ).toBeGreaterThan(0)
  })

  it('says that a change ends its signature', async () => {
    const response = await upload(
      makeOdt({ parts: [{ path: 'META-INF/documentsignatures.xml', type: '', content: '<x/>' }] }),
    )
    expect(await response.json()).toMatchObject({ signed: true })
  })

  it('swaps as one version, with undo, redo, and a record', async () => {
    const id = await added()
    const done = await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Skerrow', 'Work Sans') })
    expect(await done.json()).toMatchObject({
      version: { number: 2, madeBy: 'change', title: 'Skerrow gives way to Work Sans' },
    })
    const swapped = await bytesOf(`/api/documents/${id}/file`)
    expect(swapped).not.toEqual(guide)
    expect(await bytesOf(`/api/documents/${id}/file?version=1`)).toEqual(guide)
    expect(await get<object>(`/api/documents/${id}/record?version=2`)).toMatchObject({
      sentences: ['Skerrow gives way to Work Sans.'],
      places: 7,
      effects: { pagesBefore: 24 },
    })
    expect((await get<Info>(`/api/documents/${id}`)).history).toMatchObject({
      undo: { title: 'Skerrow gives way to Work Sans' },
      redo: null,
    })
    await post(`/api/documents/${id}/step`, { base: 2, direction: 'undo' })
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(guide)
    expect((await get<Info>(`/api/documents/${id}`)).history).toMatchObject({
      undo: null,
      redo: { title: 'Skerrow gives way to Work Sans' },
    })
    await post(`/api/documents/${id}/step`, { base: 3, direction: 'redo' })
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(swapped)
    expect((await post(`/api/documents/${id}/step`, { base: 4, direction: 'redo' })).status).toBe(422)
    // A change on top of a change: ids of the first are carried over.
    const again = await post(`/api/documents/${id}/changes`, { base: 4, request: swap('Work Sans', 'Spectral') })
    expect(again.status).toBe(200)
    expect((await get<Info>(`/api/documents/${id}`)).versions.map(version => version.state)).toEqual([1, 2, 1, 2, 5])
  })

  it('makes edits as one version, by the same code as the browser, and undoes them to the byte', async () => {
    const id = await added()
    const document = openDocument(guide)
    const part = document.parts.get('content.xml')!
    const paragraph = [...part.descendants()].find(each => each.name === 'text:p' && part.textOf(each.id).length > 100)!
    const firstId = part.nextId
    const edits = [
      {
        edit: { type: 'text' as const, part: 'content.xml', node: paragraph.id, from: 4, to: 4, text: 'quite ' },
        firstId,
      },
      { edit: { type: 'split' as const, part: 'content.xml', node: paragraph.id, at: 10 }, firstId: firstId + 50 },
    ]
    const response = await post(`/api/documents/${id}/edit`, { base: 1, edits })
    expect(response.status).toBe(200)
    expect(await response.json()).toMatchObject({
      version: { number: 2, madeBy: 'edit', title: 'Edited text in a paragraph' },
      said: [],
    })
    expect(
      Buffer.compare(await bytesOf(`/api/documents/${id}/file`), saveDocument(makeEdits(document, edits).document)),
    ).toBe(0)
    // New nodes keep their ids: a second edit finds the paragraph that the first one made.
    const made = makeEdits(document, edits).made!
    const again = await post(`/api/documents/${id}/edit`, {
      base: 2,
      edits: [
        { edit: { type: 'text', part: 'content.xml', node: made, from: 0, to: 1, text: '' }, firstId: firstId + 100 },
      ],
    })
    expect(again.status).toBe(200)
    expect(((await again.json()) as { version: { title: string } }).version.title).toMatch(/^Deleted /)
    expect((await post(`/api/documents/${id}/step`, { base: 3, direction: 'undo' })).status).toBe(200)
    expect((await post(`/api/documents/${id}/step`, { base: 4, direction: 'undo' })).status).toBe(200)
    expect(Buffer.compare(await bytesOf(`/api/documents/${id}/file`), guide)).toBe(0)
  })

  it('refuses edits that do not fit, with a sentence, and stores nothing of them', async () => {
    const id = await added(
      makeOdt({
        body: '<text:section text:name="S" text:protected="true"><text:p>a</text:p></text:section><text:p>b</text:p>',
      }),
    )
    const nodes = [
      ...openDocument(await bytesOf(`/api/documents/${id}/file`))
        .parts.get('content.xml')!
        .descendants(),
    ]
      .filter(each => each.name === 'text:p')
      .map(each => each.id) as [number, number]
    const text = (node: number, words = 'x') => ({
      edit: { type: 'text', part: 'content.xml', node, from: 0, to: 0, text: words },
      firstId: 900,
    })
    await atRest()
    const before = await counts()
    const refused = await post(`/api/documents/${id}/edit`, { base: 1, edits: [text(nodes[1]), text(nodes[0])] })
    expect(refused.status).toBe(422)
    expect(((await refused.json()) as { message: string }).message).toBe(
      'The section “S” is protected. Nothing was changed.',
    )
    for (const body of [
      { base: 1, edits: [] },
      { base: 1, edits: [text(nodes[1], 'a\u0000')] },
      { base: 1, edits: [{ edit: { type: 'restore-node' }, firstId: 1 }] },
      { base: 1 },
    ])
      expect((await post(`/api/documents/${id}/edit`, body)).status).toBe(400)
    expect((await post(`/api/documents/${id}/edit`, { base: 7, edits: [text(nodes[1])] })).status).toBe(409)
    expect(await counts()).toEqual(before)
    expect((await get<Info>(`/api/documents/${id}`)).document.version).toBe(1)
  })

  it('takes presentations and drawings, with their notes in the PDF where they are asked for', async () => {
    const review = seasonReview()
    const response = await upload(review, 'Season review.odp')
    expect(response.status).toBe(201)
    const { id } = (await response.json()) as { id: string }
    const file = await fetch(`${base}/api/documents/${id}/file`)
    expect(file.headers.get('content-type')).toBe('application/vnd.oasis.opendocument.presentation')
    expect(Buffer.compare(new Uint8Array(await file.arrayBuffer()), review)).toBe(0)
    const pages = async (notes: boolean) =>
      notesOf(await post(`/api/documents/${id}/handoff`, { as: 'pdf', notes })).said[0]
    expect([await pages(false), await pages(true)]).toEqual(['14 pages', '28 pages'])
    const swapped = await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Skerrow', 'Literata') })
    expect(swapped.status).toBe(200)
    const files = parts(await bytesOf(`/api/documents/${id}/file`))
    for (const path of xmlParts(files)) expect(familiesIn(files[path]!).has('skerrow'), path).toBe(false)
  })

  it('makes texts of plain text, Markdown and HTML, and says what was left', async () => {
    const response = await upload(new TextEncoder().encode('# Tides\n\nHigh at *noon*. ![chart](a.png)'), 'Tides.md')
    expect(response.status).toBe(201)
    const { id, left } = (await response.json()) as { id: string; left: unknown }
    expect(left).toEqual([{ what: 'pictures', count: 1 }])
    const info = await get<{ document: { fileName: string; kind: string } }>(`/api/documents/${id}`)
    expect(info.document).toMatchObject({ fileName: 'Tides.odt', kind: 'text' })
    expect(openDocument(await bytesOf(`/api/documents/${id}/file`)).title).toBe('Tides')
    await atRest()
    const before = await counts()
    const empty = await upload(new Uint8Array(), 'Nothing.txt')
    expect([empty.status, ((await empty.json()) as { message: string }).message]).toEqual([
      422,
      'This file is empty. Nothing was kept.',
    ])
    expect(await counts()).toEqual(before)
  })

  it('makes new documents, from a page size or from one on the shelf', async () => {
    const page = { width: 148, height: 210 }
    const margins = { top: 10, bottom: 10, left: 10, right: 10 }
    const made = await post('/api/documents/new', { kind: 'drawing', title: 'A/card', page, margins, pages: 3 })
    expect(made.status).toBe(201)
    const { id } = (await made.json()) as { id: string }
    expect((await get<{ document: { fileName: string } }>(`/api/documents/${id}`)).document.fileName).toBe('A card.odg')
    const copy = await post('/api/documents/new', { template: id, title: 'Second' })
    expect(copy.status).toBe(201)
    const second = ((await copy.json()) as { id: string }).id
    expect(
      Buffer.compare(await bytesOf(`/api/documents/${second}/file`), await bytesOf(`/api/documents/${id}/file`)),
    ).toBe(0)
    expect(
      (await post('/api/documents/new', { kind: 'text', title: '', page: { width: 20, height: 20 }, margins })).status,
    ).toBe(400)
    expect((await post('/api/documents/new', { template: crypto.randomUUID(), title: '' })).status).toBe(404)
  })

  it('tells the second of two people what the first changed, and loses nothing', async () => {
    const id = await added()
    expect(
      (await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Skerrow', 'Work Sans') })).status,
    ).toBe(200)
    const late = await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Jost', 'Archivo') })
    expect(late.status).toBe(409)
    expect(await late.json()).toMatchObject({
      message: expect.stringContaining('Skerrow gives way to Work Sans'),
      data: { current: 2, since: [{ number: 2 }] },
    })
    expect((await get<Info>(`/api/documents/${id}`)).document.version).toBe(2)
  })

  it('two swaps at the very same moment: one is taken, one is told', async () => {
    const id = await added()
    const statuses = (
      await Promise.all(
        [swap('Skerrow', 'Work Sans'), swap('Skerrow', 'Archivo')].map(wish =>
          post(`/api/documents/${id}/changes`, { base: 1, request: wish }),
        ),
      )
    ).map(response => response.status)
    expect(statuses.sort()).toEqual([200, 409])
  })

  it('refuses wishes that cannot be met, and requests that are none', async () => {
    const id = await added()
    const response = await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Skerrow', 'Nowhere') })
    expect(response.status).toBe(422)
    expect(await response.json()).toMatchObject({ message: expect.stringContaining('not in the library') })
    expect((await post(`/api/documents/${id}/changes`, { base: 1, request: { wishes: [] } })).status).toBe(400)
    expect((await post(`/api/documents/${id}/changes`, { base: 'x' })).status).toBe(400)
    expect((await get<Info>(`/api/documents/${id}`)).document.version).toBe(1)
  })

  it('is handed on as PDF at true size, with what it does not hold told beside it', async () => {
    const id = await added()
    const response = await post(`/api/documents/${id}/handoff`, { as: 'pdf', bleed: 8.5, cropMarks: true })
    expect(response.status).toBe(200)
    expect(response.headers.get('content-type')).toBe('application/pdf')
    expect(response.headers.get('content-disposition')).toContain('guide.pdf')
    expect(notesOf(response).said[0]).toBe('24 pages')
    expect(new TextDecoder('latin1').decode((await response.arrayBuffer()).slice(0, 8))).toBe('%PDF-1.7')
    expect((await post(`/api/documents/${id}/handoff`, { as: 'pdf', bleed: 400 })).status).toBe(400)
    expect((await post(`/api/documents/${id}/handoff?version=9`, { as: 'pdf' })).status).toBe(400)
    expect((await post(`/api/documents/${id}/handoff`, { as: 'paper' })).status).toBe(400)
  })

  it('is handed on for print, as a book, a page, styles; what cannot be is told', async () => {
    const id = await added()
    const conditions = await get<{ id: string }[]>('/api/printing')
    expect(conditions.map(each => each.id)).toContain('FOGRA39L')
    const print = await post(`/api/documents/${id}/handoff`, { as: 'pdf', print: { condition: 'FOGRA39L' } })
    expect(notesOf(print).said).toContain('built to PDF/X-4')
    for (const [as, type] of [
      ['epub', 'application/epub+zip'],
      ['html', 'application/zip'],
      ['css', 'text/css'],
      ['tokens', 'application/json'],
      ['template', 'application/vnd.oasis.opendocument.text-template'],
    ])
      expect((await post(`/api/documents/${id}/handoff`, { as })).headers.get('content-type')).toContain(type)
    const nowhere = await post(`/api/documents/${id}/handoff`, { as: 'pdf', print: { condition: 'nowhere' } })
    expect(nowhere.status).toBe(422)
    expect(await nowhere.json()).toMatchObject({ message: expect.stringContaining('is not at hand') })
  })

  it('goes into a bundle with what it needs, and is complete where that is opened', async () => {
    const id = await added()
    const response = await post('/api/bundle', { documents: [id] })
    expect(response.status).toBe(200)
    expect(response.headers.get('content-disposition')).toContain('guide, bundle.zip')
    expect(notesOf(response).said[0]).toBe('1 document')
    const zip = new Uint8Array(await response.arrayBuffer())
    const files = unzipSync(zip)
    expect(files['guide.odt']).toEqual(guide)
    const put = await fetch(`${base}/api/documents?name=bundle.zip`, { method: 'POST', body: zip })
    expect(put.status).toBe(201)
    const { id: other, left } = (await put.json()) as { id: string; left: { what: string }[] }
    expect(await bytesOf(`/api/documents/${other}/file`)).toEqual(guide)
    expect(left.map(each => each.what).join(' ')).toContain('those of free licences are in the library')
    expect((await post('/api/bundle', { documents: [randomUUID()] })).status).toBe(404)
  })

  it('is thrown away, comes back, and goes for good with all its versions', async () => {
    const id = await added()
    const status = async (path: string, method: string) => (await fetch(`${base}${path}`, { method })).status
    expect(await status(`/api/trash/${id}`, 'DELETE')).toBe(404)
    expect(await status(`/api/documents/${id}`, 'DELETE')).toBe(200)
    expect(await status(`/api/documents/${id}`, 'GET')).toBe(404)
    expect(await status(`/api/trash/${id}/back`, 'POST')).toBe(200)
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(guide)
    await status(`/api/documents/${id}`, 'DELETE')
    const { documents, days } = await get<{ documents: { id: string }[]; days: number }>('/api/trash')
    expect([days, documents.map(each => each.id).includes(id)]).toEqual([30, true])
    expect(await status(`/api/trash/${id}`, 'DELETE')).toBe(200)
    expect(await status(`/api/trash/${id}/back`, 'POST')).toBe(404)
    expect(Number((await knex('versions').where({ document: id }).count({ n: '*' }).first())!.n)).toBe(0)
    const put = (days: unknown) =>
      fetch(`${base}/api/trash`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ days }),
      })
    expect([(await put(0)).status, (await put(30)).status]).toEqual([400, 200])
  })

  it('shows a page to whoever has it already by a word, and draws it once', async () => {
    const id = await added()
    const first = await fetch(`${base}/api/documents/${id}/page-picture?page=1`)
    const tag = first.headers.get('etag')!
    expect(await first.text()).toMatch(/^<svg/)
    const again = await fetch(`${base}/api/documents/${id}/page-picture?page=1`, { headers: { 'if-none-match': tag } })
    expect([again.status, await again.text()]).toEqual([304, ''])
    const other = await fetch(`${base}/api/documents/${id}/page-picture?page=2`, { headers: { 'if-none-match': tag } })
    expect(other.status).toBe(200)
  })

  it('keeps the count of before in sight while a new version is counted', async () => {
    const id = await added()
    await surveyed(id)
    const { version } = (await (
      await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Skerrow', 'Work Sans') })
    ).json()) as { version: { number: number } }
    const now = await fetch(`${base}/api/documents/${id}/census`)
    expect(now.status).toBe(200)
    const of = Number(now.headers.get('morphene-census-version'))
    expect([1, version.number]).toContain(of)
    const census = (await now.json()) as Census
    expect(census.faces.some(face => face.family === 'Skerrow')).toBe(of === 1)
    const counted = await surveyed(id)
    expect(counted.faces.some(face => face.family === 'Skerrow')).toBe(false)
  })
})

describe('the library', () => {
  it('lists faces and serves their files for ever', async () => {
    const faces = await get<{ hash: string; family: string; fileSize: number }[]>('/api/faces')
    expect(faces.length).toBeGreaterThan(400)
    const file = await fetch(`${base}/api/faces/${faces[0]!.hash}`)
    expect(file.headers.get('cache-control')).toContain('immutable')
    expect((await file.arrayBuffer()).byteLength).toBe(faces[0]!.fileSize)
  })
})

describe('what is kept under a name', () => {
  const send = (method: string, path: string, body?: unknown) =>
    fetch(`${base}${path}`, {
      method,
      headers: { 'content-type': 'application/json' },
      body: body === undefined ? null : JSON.stringify(body),
    })
  const quay = { heading: 'Fira Sans', body: 'Spectral', size: 10, ratio: 1.25 }
  type Listed = { id: string; heading: string; name: string; data: unknown }[]

  it('pairs: kept in folders, renamed, moved, let go', async () => {
    const { id } = (await (
      await send('POST', '/api/kept/pair', { heading: 'Season', name: 'Quay', data: quay })
    ).json()) as {
      id: string
    }
    expect(await get<Listed>('/api/kept/pair')).toEqual([{ id, heading: 'Season', name: 'Quay', data: quay }])
    expect((await send('PUT', `/api/kept/pair/${id}`, { heading: 'Winter', name: 'Pier' })).status).toBe(200)
    expect((await send('PUT', `/api/kept/pair/${id}`, { data: { ...quay, ratio: 1.5 } })).status).toBe(200)
    expect(await get<Listed>('/api/kept/pair')).toEqual([
      { id, heading: 'Winter', name: 'Pier', data: { ...quay, ratio: 1.5 } },
    ])
    expect(await get<Listed>('/api/kept/licence')).toEqual([])
    // What is of one sort is not to be had as another.
    expect((await send('DELETE', `/api/kept/licence/${id}`)).status).toBe(404)
    expect((await send('DELETE', `/api/kept/pair/${id}`)).status).toBe(200)
    expect((await send('PUT', `/api/kept/pair/${id}`, { name: 'Gone' })).status).toBe(404)
  })

  it('refuses what its sort does not hold, and sorts that there are not', async () => {
    for (const [path, body] of [
      ['/api/kept/pair', { name: '', data: quay }],
      ['/api/kept/pair', { name: 'Quay', data: { ...quay, ratio: 0 } }],
      [
        '/api/kept/licence',
        { name: 'Set', data: { families: ['A'], uses: ['print'], seats: null, until: 'soon', holder: '' } },
      ],
      ['/api/kept/judgement', { name: 'Lora', data: { family: 'Lora', class: 'sans', kind: 'fancy' } }],
    ] as const)
      expect((await send('POST', path, body)).status, JSON.stringify(body)).toBe(400)
    expect((await send('GET', '/api/kept/elephant')).status).toBe(404)
    const repair = {
      wishes: [{ type: 'kern', pairs: [], places: [{ part: 'content.xml', node: 1, from: 0, amount: 5 }] }],
    }
    const refused = await send('POST', '/api/kept/wish', { name: 'Here', data: repair })
    expect([refused.status, ((await refused.json()) as { message: string }).message]).toEqual([
      422,
      'A place belongs to one document. Correct the pair there. Nothing was changed.',
    ])
  })

  it('judgements and lists: one of a name, the newer in place of the older', async () => {
    for (const kind of ['brush', 'hand'])
      await send('POST', '/api/kept/judgement', { name: 'Caveat', data: { family: 'Caveat', class: 'script', kind } })
    await send('POST', '/api/kept/face list', { name: 'Posters', data: ['Anton', 'Lora'] })
    expect((await get<Listed>('/api/kept/judgement')).map(each => each.data)).toEqual([
      { family: 'Caveat', class: 'script', kind: 'hand' },
    ])
    expect((await get<Listed>('/api/kept/face list')).map(each => each.name)).toEqual(['Posters'])
    // No two come to one name by being renamed either, and what is refused when it is kept is refused when it changes.
    const { id } = (await (await send('POST', '/api/kept/face list', { name: 'Cards', data: ['Inter'] })).json()) as {
      id: string
    }
    expect((await send('PUT', `/api/kept/face list/${id}`, { name: 'Posters' })).status).toBe(422)
    expect((await send('PUT', `/api/kept/face list/${id}`, { name: 'Cards', data: ['Jost'] })).status).toBe(200)
    const bound = {
      wishes: [{ type: 'kern', pairs: [], places: [{ part: 'content.xml', node: 1, from: 0, amount: 5 }] }],
    }
    const free = { wishes: [{ type: 'kern', pairs: [{ family: 'A', left: 'A', right: 'V', amount: 5 }], places: [] }] }
    const wish = (await (await send('POST', '/api/kept/wish', { name: 'Apart', data: free })).json()) as { id: string }
    expect((await send('PUT', `/api/kept/wish/${wish.id}`, { data: bound })).status).toBe(422)
  })

  it('a document says what it is made for, and its card, too', async () => {
    const id = await added()
    expect((await get<{ document: { uses: unknown } }>(`/api/documents/${id}`)).document.uses).toBeNull()
    expect((await send('PUT', `/api/documents/${id}/uses`, { uses: ['print', 'PDF', 'print'] })).status).toBe(200)
    expect((await get<{ document: { uses: unknown } }>(`/api/documents/${id}`)).document.uses).toEqual(['print', 'PDF'])
    expect((await get<ShelfPage>(`/api/shelf?ids=${id}`)).cards[0]!.uses).toEqual(['print', 'PDF'])
    expect((await send('PUT', `/api/documents/${id}/uses`, { uses: ['theft'] })).status).toBe(400)
  })
})

describe('a face of the library', () => {
  it('tells the further forms of its characters, and of no face that is not there', async () => {
    const faces = await get<FaceRecord[]>('/api/faces')
    const { hash, features } = faces.find(each => each.family === 'EB Garamond' && each.style === 'Regular')!
    const { list, looked, characters } = await get<FaceAlternates>(`/api/faces/${hash}/alternates`)
    expect(looked).toBe(characters)
    expect(list.find(each => each.code === 'a'.codePointAt(0))!.forms).toContainEqual({ tag: 'smcp', value: 1 })
    for (const { forms } of list) for (const { tag } of forms) expect(features).toContain(tag)
    for (const none of ['a'.repeat(64), 'none'])
      expect((await fetch(`${base}/api/faces/${none}/alternates`)).status).toBe(404)
  })
})

describe('a server that is killed', () => {
  it(
    'in the middle of a swap leaves the former version whole and the swap wholly there or wholly not',
    { timeout: 300_000 },
    async () => {
      const long = makeOdt({
        faces: face('Jost'),
        automatic: paragraphStyle('P', 'style:font-name="Jost"'),
        body: Array.from(
          { length: 3000 },
          (_, at) =>
            `<text:p text:style-name="P">Paragraph ${at} of a long text that takes its time to be set in pages, twice.</text:p>`,
        ).join(''),
      })
      for (const delay of [30, 200, 500, 900]) {
        const id = await added(long)
        // Counting is not what is tried here.
        const uncounted = () => knex('jobs').where({ document: id, kind: 'survey' }).update({ state: 'cancelled' })
        await uncounted()
        const response = post(`/api/documents/${id}/changes`, { base: 1, request: swap('Jost', 'Spectral') }).catch(
          () => null,
        )
        await new Promise(resolve => setTimeout(resolve, delay))
        await endServer(server, 'SIGKILL')
        await response
        server = await startServer(port)
        const { document, versions } = await get<Info>(`/api/documents/${id}`)
        expect(await bytesOf(`/api/documents/${id}/file?version=1`)).toEqual(long)
        await uncounted()
        expect(versions).toHaveLength(document.version)
        expect([1, 2]).toContain(document.version)
        if (document.version === 2) expect((await bytesOf(`/api/documents/${id}/file`)).length).toBeGreaterThan(1000)
        // And the document can be worked on: the same swap goes through if it had not.
        if (document.version === 1)
          expect(
            (await post(`/api/documents/${id}/changes`, { base: 1, request: swap('Jost', 'Spectral') })).status,
          ).toBe(200)
      }
    },
  )
})
