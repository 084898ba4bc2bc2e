import type { ChildProcess } from 'node:child_process'
import { PDFDocument, StandardFonts } from '@cantoo/pdf-lib'
import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openPdf } from '../../core/format/finished/open'
import { FinishedReader } from '../../core/format/finished/reader'
import type { FinishedCensus } from '../../core/format/finished/census'
import type { FinishedStartLevels } from '../../core/change/defaults/finished-starts'
import { connect } from '../../server/store/database'
import type { DocumentInfo, ProofCounts, ShelfPage } from '../../shared/api'
import type { FinishedChanged, FinishedTrial } from '../../shared/finished'
import { zipFiles } from '../../core/package/zip-files'
import { until } from '../support/desk-process'
import { makeOdt } from '../support/fixtures'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 60
const base = `http://127.0.0.1:${port}`
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

const send = (method: string, path: string, body: unknown) =>
  fetch(`${base}${path}`, {
    method,
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  })
const get = async <T>(path: string): Promise<T> => (await (await fetch(`${base}${path}`)).json()) as T
const bytesOf = async (path: string) => new Uint8Array(await (await fetch(`${base}${path}`)).arrayBuffer())
const put = (bytes: Uint8Array, name: string) =>
  fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
    method: 'POST',
    body: bytes as Uint8Array<ArrayBuffer>,
  })

async function lease(): Promise<Uint8Array> {
  const pdf = await PDFDocument.create()
  const font = await pdf.embedFont(StandardFonts.Helvetica)
  const page = pdf.addPage([400, 300])
  page.drawText('The berth is let untill spring', { x: 40, y: 200, size: 12, font })
  page.drawText('Paid - in full', { x: 40, y: 170, size: 9, font })
  return pdf.save({ useObjectStreams: false })
}
/** A finished PDF on the shelf, once it is counted. */
async function onShelf(name = 'Lease.pdf') {
  const bytes = await lease()
  const answer = await put(bytes, name)
  expect(answer.status).toBe(201)
  const { id } = (await answer.json()) as { id: string }
  const isCounted = async () => (await fetch(`${base}/api/documents/${id}/census?version=1`)).ok
  expect(await until(isCounted, 30_000)).toBe(true)
  return { id, bytes }
}
const right = { type: 'put-right', page: 1, line: 0, from: 17, to: 23, words: 'until' }
const addition = {
  type: 'add-text',
  page: 1,
  x: 40,
  y: 20,
  width: null,
  height: null,
  text: 'Received',
  family: 'Spectral',
  size: 11,
  leading: null,
  weight: 400,
  italic: false,
  color: '#000000',
  language: 'en-GB',
}

describe('a finished PDF on the shelf', () => {
  it('is counted, drawn, found and told apart from what is set here', async () => {
    const { id, bytes } = await onShelf('Lease of the quay.pdf')
    const [card] = (await get<ShelfPage>('/api/shelf?find=Lease%20of%20the%20quay')).cards
    expect(card).toMatchObject({ id, kind: 'finished', pages: 1, characters: 44, settled: null, signed: false })
    expect(card!.faces).toEqual([{ family: 'Helvetica', style: '', status: 'absent', characters: 44 }])
    const picture = await fetch(`${base}/api/documents/${id}/picture?version=1`)
    expect(picture.headers.get('content-type')).toContain('image/svg+xml')
    expect(await picture.text()).toMatch(/<image [^>]*href="data:image\/png;base64,/)
    expect((await get<ShelfPage>('/api/shelf?find=helvetica')).cards.some(each => each.id === id)).toBe(true)
    const file = await fetch(`${base}/api/documents/${id}/file?download`)
    expect(file.headers.get('content-type')).toBe('application/pdf')
    expect(Buffer.compare(new Uint8Array(await file.arrayBuffer()), bytes)).toBe(0)
    const census = await get<FinishedCensus>(`/api/documents/${id}/census`)
    expect(census.document).toMatchObject({ kind: 'finished', pages: 1 })
    const csv = await (await fetch(`${base}/api/documents/${id}/census?format=csv`)).text()
    expect(csv.split('\r\n')[1]).toBe('Helvetica,Type1,no,yes,44,12 9,#000000,1')
    const counts = await get<ProofCounts>(`/api/documents/${id}/proof`)
    expect(counts.checks.map(each => each.check)).toEqual(
      expect.arrayContaining(['absent-face', 'hyphen-for-dash', 'untagged-pdf']),
    )
    const report = await fetch(`${base}/api/documents/${id}/proof-pdf`)
    expect(report.headers.get('content-disposition')).toContain('proof.pdf')
    expect(
      Buffer.from(await report.arrayBuffer())
        .subarray(0, 5)
        .toString(),
    ).toBe('%PDF-')
    expect((await fetch(`${base}/api/documents/${id}/page-picture?page=0`)).status).toBe(200)
    expect((await fetch(`${base}/api/documents/${id}/page-picture?page=4`)).status).toBe(404)
  })

  it('is refused with a sentence where it is damaged or locked', async () => {
    const answer = await put(new TextEncoder().encode('%PDF-1.7\nnothing'), 'Broken.pdf')
    expect(answer.status).toBe(422)
    expect(await answer.text()).toContain('This PDF is damaged and cannot be read')
  })

  it('says plainly what cannot be done with it, and stays as it is', async () => {
    const { id } = await onShelf('Refusals.pdf')
    const wishes = { wishes: [{ type: 'swap', from: { family: 'Helvetica' }, to: { family: 'Spectral' } }] }
    for (const [path, body] of [
      ['changes', { base: 1, request: { ...wishes, leftOut: [] } }],
      ['edit', { base: 1, edits: [{ edit: { type: 'remove', part: 'content.xml', node: 1 }, firstId: 100 }] }],
      ['handoff', { as: 'epub' }],
    ] as const) {
      const answer = await send('POST', `/api/documents/${id}/${path}`, body)
      expect([400, 422], path).toContain(answer.status)
      if (path !== 'edit') expect(await answer.text()).toContain('This is a finished PDF')
    }
    expect((await get<DocumentInfo>(`/api/documents/${id}`)).document.version).toBe(1)
  })
})

describe('a change of a finished PDF', () => {
  it('is looked at first, then kept as a version that begins with the bytes before, and undone', async () => {
    const { id, bytes } = await onShelf()
    const path = `/api/documents/${id}/finished`
    const trial = (await (await send('POST', path, { base: 1, changes: [right], look: true })).json()) as FinishedTrial
    expect(trial.corrected[0]).toMatchObject({ becomes: 'The berth is let until spring', standIn: null })
    const whole = Buffer.concat([bytes, Buffer.from(trial.behind, 'base64')])
    const reader = new FinishedReader(await openPdf(new Uint8Array(whole)))
    expect(reader.lines(1)[0]!.text).toBe('The berth is let until spring')
    expect((await get<DocumentInfo>(`/api/documents/${id}`)).document.version).toBe(1)

    const made = (await (await send('POST', path, { base: 1, changes: [right, addition] })).json()) as FinishedChanged
    expect(made.version).toMatchObject({ number: 2, madeBy: 'edit', title: 'Put 1 line right, added 1 text' })
    const after = await bytesOf(`/api/documents/${id}/file`)
    expect(Buffer.compare(after.subarray(0, bytes.length), bytes)).toBe(0)
    // What both have in common is stored once: the second version begins with the first one's piece.
    const own = await knex('version_pieces').where({ document: id, version: 2 }).orderBy('position').select('hash')
    const [first] = await knex('version_pieces').where({ document: id, version: 1 }).orderBy('position').select('hash')
    expect(own.length).toBeGreaterThan(1)
    expect(own[0]).toEqual(first)

    // Somebody who had the version before is told.
    const late = await send('POST', path, { base: 1, changes: [right] })
    expect(late.status).toBe(409)
    expect(await late.text()).toContain('Put 1 line right')

    const undone = await send('POST', `/api/documents/${id}/step`, { base: 2, direction: 'undo' })
    expect(undone.status).toBe(200)
    expect(Buffer.compare(await bytesOf(`/api/documents/${id}/file`), bytes)).toBe(0)
    await send('POST', `/api/documents/${id}/step`, { base: 3, direction: 'redo' })
    expect(Buffer.compare(await bytesOf(`/api/documents/${id}/file`), after)).toBe(0)
  })

  it('is refused with the reason where it cannot be made, and nothing is kept', async () => {
    const { id } = await onShelf()
    const change = async (changes: unknown, status: number, says: string) => {
      const answer = await send('POST', `/api/documents/${id}/finished`, { base: 1, changes })
      expect([answer.status, await answer.text()]).toEqual([status, expect.stringContaining(says)])
    }
    await change([{ ...addition, family: 'Nowhere' }], 422, 'is not in the library')
    await change([{ ...right, line: 9 }], 422, 'no such place')
    await change([{ ...addition, text: 'Πέρας' }], 422, 'no stand-in that has them is chosen for Greek letters')
    await change([], 400, 'cannot be read')
    expect((await get<DocumentInfo>(`/api/documents/${id}`)).versions).toHaveLength(1)
    // With a stand-in for the script it can be.
    await send('PUT', `/api/documents/${id}/stand-ins`, {
      level: 'document',
      family: '',
      script: 'Greek',
      to: 'Alegreya',
    })
    const made = await send('POST', `/api/documents/${id}/finished`, {
      base: 1,
      changes: [{ ...addition, text: 'Pier Πέρας' }],
    })
    expect(made.status).toBe(200)
    const reader = new FinishedReader(await openPdf(await bytesOf(`/api/documents/${id}/file`)))
    expect(reader.census.fonts.map(each => each.name).sort()).toEqual([
      'Alegreya-Regular',
      'Helvetica',
      'Spectral-Regular',
    ])
  })

  it('is not for documents that are set here', async () => {
    const made = await put(makeOdt({}), 'Not finished.odt')
    const { id } = (await made.json()) as { id: string }
    const answer = await send('POST', `/api/documents/${id}/finished`, { base: 1, changes: [addition] })
    expect([answer.status, await answer.text()]).toEqual([422, expect.stringContaining('This is no finished PDF')])
  })
})

describe('defaults for finished PDFs', () => {
  it('are said for one, for its folder and for the desk, and outlive what else begins there', async () => {
    const { id } = await onShelf('Defaults.pdf')
    const path = `/api/documents/${id}/finished-starts`
    const say = async (level: string, starts: object) => send('PUT', path, { level, starts })
    expect(await get(path)).toMatchObject({ document: {}, folder: {} })
    expect((await say('folder', { size: 9 })).status).toBe(422)
    const folder = (await (await send('POST', '/api/folders', { name: `Leases ${Date.now()}` })).json()) as {
      id: string
    }
    await send('POST', `/api/documents/${id}/folder`, { folder: folder.id })
    await say('document', { size: 8 })
    await say('folder', { size: 9, family: 'Spectral' })
    await say('desk', { color: '#1f6f6b' })
    const levels: FinishedStartLevels = {
      document: { size: 8 },
      folder: { size: 9, family: 'Spectral' },
      desk: { color: '#1f6f6b' },
      house: {},
    }
    expect(await get(path)).toEqual(levels)
    const desk = await get<{ page: unknown; finished: unknown }>('/api/starts')
    expect(desk.finished).toEqual({ color: '#1f6f6b' })
    await say('desk', {})
    expect((await say('desk', { family: 'Nowhere' })).status).toBe(422)
    expect((await say('desk', { size: 0 })).status).toBe(400)
  })
})

describe('finished PDFs with others', () => {
  it('come in a zip and go in a bundle, from which they come back', async () => {
    const bytes = await lease()
    const zip = zipFiles(new Map([['Lease in a zip.pdf', bytes]]), 0)
    const put1 = (await (await put(zip, 'Leases.zip')).json()) as { id: string }
    expect((await get<DocumentInfo>(`/api/documents/${put1.id}`)).document).toMatchObject({ kind: 'finished' })
    const answer = await send('POST', '/api/bundle', { documents: [put1.id] })
    expect(answer.status).toBe(200)
    const notes = JSON.parse(decodeURIComponent(answer.headers.get('x-handoff-notes')!)) as { left: string[] }
    expect(notes.left).toEqual(['Helvetica: it is not in Lease in a zip.pdf itself'])
    const back = (await (await put(new Uint8Array(await answer.arrayBuffer()), 'Back.zip')).json()) as { id: string }
    expect(Buffer.compare(await bytesOf(`/api/documents/${back.id}/file`), bytes)).toBe(0)
  })
})
