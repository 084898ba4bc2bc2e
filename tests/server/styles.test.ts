import type { ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openDocument, saveDocument } from '../../core/document/open'
import { readRules } from '../../core/document/rules'
import { settleAll } from '../../core/change/styles/wishes'
import { takePiece } from '../../core/change/kept-frame/set-piece'
import type { ListedStyle } from '../../core/change/styles/style-list'
import { sailingGuide } from '../../demo/sailing-guide'
import type { DocumentInfo } from '../../shared/api'
import { session } from '../support/fixtures'
import { quickly } from '../support/planning'
import { endServer, startServer, testDatabase } from './running'
import { rights } from '../../shared/rights'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 3
const base = `http://127.0.0.1:${port}`
const guide = sailingGuide()
let server: ChildProcess
beforeAll(async () => {
  server = await startServer(port)
})
afterAll(async () => {
  await endServer(server)
})

const send = (method: string, path: string, body?: unknown) =>
  fetch(`${base}${path}`, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
const post = (path: string, body: unknown) => send('POST', path, body)
const get = async <T>(path: string): Promise<T> => (await (await fetch(`${base}${path}`)).json()) as T
const bytesOf = async (path: string) => new Uint8Array(await (await fetch(`${base}${path}`)).arrayBuffer())
const messageOf = async (response: Response) => ((await response.json()) as { message: string }).message
async function added(): Promise<string> {
  const response = await fetch(`${base}/api/documents?name=styled.odt`, {
    method: 'POST',
    body: guide as Uint8Array<ArrayBuffer>,
  })
  return ((await response.json()) as { id: string }).id
}

describe('wishes about styles', () => {
  it('make one version with their plan, by the same code as the browser; undoing gives the file back', async () => {
    const id = await added()
    const request = { wishes: [settleAll], leftOut: [] }
    const response = await post(`/api/documents/${id}/changes`, { base: 1, request })
    expect(response.status).toBe(200)
    expect(await response.json()).toMatchObject({
      version: { number: 2, madeBy: 'change', title: 'Settle local formatting in 17 places' },
      made: [],
    })
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(
      saveDocument(quickly(session(guide), settleAll).after.document),
    )
    const record = await get<{ rows: unknown[] }>(`/api/documents/${id}/record`)
    expect(record.rows.length).toBe(6)
    expect(record).not.toHaveProperty('operations')
    const pdf = await bytesOf(`/api/documents/${id}/record-pdf?version=2`)
    expect(new TextDecoder().decode(pdf.slice(0, 5))).toBe('%PDF-')
    expect((await fetch(`${base}/api/documents/${id}/record-pdf?version=1`)).status).toBe(404)
    expect((await post(`/api/documents/${id}/changes`, { base: 1, request })).status).toBe(409)
    const again = await post(`/api/documents/${id}/changes`, { base: 2, request })
    expect([again.status, await messageOf(again)]).toEqual([
      422,
      'Everything is already as you ask, nothing answers to it, or every place is left out. Nothing was changed.',
    ])
    expect((await post(`/api/documents/${id}/step`, { base: 2, direction: 'undo' })).status).toBe(200)
    expect(await bytesOf(`/api/documents/${id}/file`)).toEqual(guide)
  })

  it('are refused with a sentence where they cannot be met, and leave no version', async () => {
    const id = await added()
    const bad = await post(`/api/documents/${id}/changes`, {
      base: 1,
      request: { wishes: [{ type: 'edit', family: 'paragraph', name: 'Gone', changes: {} }] },
    })
    expect([bad.status, await messageOf(bad)]).toEqual([
      422,
      'This document has no paragraph style “Gone” any more. Nothing was changed.',
    ])
    expect(
      (
        await post(`/api/documents/${id}/changes`, {
          base: 1,
          request: {
            wishes: [{ type: 'edit', family: 'paragraph', name: 'Body', changes: { text: { 'fo:color': '<b>' } } }],
          },
        })
      ).status,
    ).toBe(400)
    expect((await post(`/api/documents/${id}/changes`, { base: 1, request: { wishes: [] } })).status).toBe(400)
    expect((await get<{ document: { version: number } }>(`/api/documents/${id}`)).document.version).toBe(1)
  })

  it('edits under rules give the same file in browser and server', async () => {
    const id = await added()
    const rules = {
      type: 'rules',
      style: 'Body',
      patterns: [{ id: 'r1', style: 'Body', title: 'Figures', pattern: '\\p{Nd}+', character: 'Ship_20_name' }],
      leadIns: [],
    }
    expect((await post(`/api/documents/${id}/changes`, { base: 1, request: { wishes: [rules] } })).status).toBe(200)
    const document = openDocument(await bytesOf(`/api/documents/${id}/file`))
    expect(readRules(document).patterns).toMatchObject([{ id: 'r1' }])
    const part = document.parts.get('content.xml')!
    const paragraph = [...part.descendants()].find(
      each => each.name === 'text:p' && each.attributes['text:style-name'] === 'Body' && each.children.length > 0,
    )!
    expect(
      (
        await post(`/api/documents/${id}/edit`, {
          base: 2,
          edits: [
            {
              edit: { type: 'text', part: 'content.xml', node: paragraph.id, from: 0, to: 0, text: '12 ' },
              firstId: part.nextId + 100,
            },
          ],
        })
      ).status,
    ).toBe(200)
    const edited = openDocument(await bytesOf(`/api/documents/${id}/file`)).parts.get('content.xml')!
    const span = [...edited.descendants()].find(each => each.attributes['text:style-name'] === 'Rule_20_r1')!
    expect(edited.textOf(span.id)).toBe('12')
  })

  it('lists a document’s styles laid open', async () => {
    const list = await get<ListedStyle[]>(`/api/documents/${await added()}/styles`)
    expect(list.find(each => each.summary.name === 'Lead')).toMatchObject({
      summary: { parent: 'Body', role: 'lead', proposed: true },
      detail: { text: { 'fo:font-size': '13pt' } },
    })
  })
})

describe('folders, starts and set pieces', () => {
  it('folders hold documents and what new ones begin with', async () => {
    const response = await post('/api/folders', { name: 'Winter' })
    expect(response.status).toBe(201)
    const { id: winter } = (await response.json()) as { id: string }
    const nowhere = '00000000-0000-4000-8000-000000000000'
    expect((await post('/api/folders', { name: 'Winter' })).status).toBe(409)
    expect((await post('/api/folders', { name: 'a/b' })).status).toBe(400)
    const id = await added()
    expect((await post(`/api/documents/${id}/folder`, { folder: winter })).status).toBe(200)
    expect((await post(`/api/documents/${id}/folder`, { folder: nowhere })).status).toBe(404)
    expect(await get('/api/folders')).toContainEqual({
      id: winter,
      name: 'Winter',
      documents: 1,
      keepDays: null,
      members: [],
      rights,
      owns: true,
    })
    const starts = {
      kinds: { body: { fonts: { western: { family: 'Alegreya' } }, text: { 'fo:font-size': '11.5pt' } } },
      page: null,
    }
    expect((await send('PUT', '/api/starts', { folder: winter, starts })).status).toBe(200)
    expect((await send('PUT', '/api/starts', { folder: nowhere, starts })).status).toBe(404)
    expect(await get(`/api/starts?folder=${winter}`)).toEqual({ ...starts, finished: {} })
    const page = {
      kind: 'text',
      title: 'New',
      page: { width: 210, height: 297 },
      margins: { top: 20, bottom: 20, left: 20, right: 20 },
    }
    const made = async (folder: string | null) =>
      session(
        await bytesOf(
          `/api/documents/${((await (await post('/api/documents/new', { ...page, folder })).json()) as { id: string }).id}/file`,
        ),
      )
    const size = (of: ReturnType<typeof session>) =>
      of.reading.cascade.scope('styles.xml').defaults.get('paragraph')!.text['fo:font-size']
    expect(size(await made(winter))).toBe('11.5pt')
    expect(size(await made(null))).not.toBe('11.5pt')
    expect((await post('/api/documents/new', { ...page, folder: nowhere })).status).toBe(404)
    // A folder keeps what it holds and what holds for it under another name.
    await post('/api/folders', { name: 'Summer' })
    expect((await send('PUT', `/api/folders/${winter}`, { name: 'Summer' })).status).toBe(409)
    expect((await send('PUT', `/api/folders/${nowhere}`, { name: 'Spring' })).status).toBe(404)
    expect((await send('PUT', `/api/folders/${winter}`, { name: 'Winter service' })).status).toBe(200)
    const folderOf = async () => (await get<DocumentInfo>(`/api/documents/${id}`)).folder
    expect(await folderOf()).toEqual({ id: winter, name: 'Winter service' })
    expect(size(await made(winter))).toBe('11.5pt')
    expect((await send('DELETE', `/api/folders/${winter}`)).status).toBe(200)
    expect((await send('DELETE', `/api/folders/${winter}`)).status).toBe(404)
    expect(await folderOf()).toBeNull()
    expect(await get(`/api/starts?folder=${winter}`)).toEqual({ kinds: {}, page: null, finished: {} })
  })

  it('set pieces are kept, listed by heading, and removed', async () => {
    const open = session(guide)
    const frame = [...open.document.parts.get('content.xml')!.descendants()].find(
      each => each.attributes['draw:name'] === 'Notice 1',
    )!
    const piece = takePiece(open.reading, 'content.xml', frame.id)
    const response = await post('/api/kept/frame', { heading: 'Boxes', name: 'Notice', data: piece })
    expect(response.status).toBe(201)
    const { id } = (await response.json()) as { id: string }
    expect((await get<{ id: string; data: unknown }[]>('/api/kept/frame')).find(each => each.id === id)!.data).toEqual(
      JSON.parse(JSON.stringify(piece)),
    )
    expect((await post('/api/kept/frame', { heading: '', name: '', data: piece })).status).toBe(400)
    expect((await fetch(`${base}/api/kept/frame/${id}`, { method: 'DELETE' })).status).toBe(200)
    expect((await fetch(`${base}/api/kept/frame/${id}`, { method: 'DELETE' })).status).toBe(404)
  })
})
