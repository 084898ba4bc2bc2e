import type { ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FaceRecord } from '../../core/font/face'
import { saltmereLine } from '../../demo/houses'
import type { HouseInfo, HouseRow, ShelfPage } from '../../shared/api'
import { until } from '../support/desk-process'
import { face, makeOdt, paragraphStyle } from '../support/fixtures'
import { endServer, startServer, testDatabase } from './running'

testDatabase()
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411) + 64
const base = `http://127.0.0.1:${port}`
let server: ChildProcess
beforeAll(async () => {
  server = await startServer(port)
})
afterAll(() => endServer(server))

const send = (method: string, path: string, body: unknown) =>
  fetch(`${base}${path}`, { method, body: JSON.stringify(body), headers: { 'content-type': 'application/json' } })
const post = (path: string, body: unknown) => send('POST', path, body)
const put = async (bytes: Uint8Array, name: string) =>
  (await (
    await fetch(`${base}/api/documents?name=${encodeURIComponent(name)}`, {
      method: 'POST',
      body: bytes as Uint8Array<ArrayBuffer>,
    })
  ).json()) as { id: string; left: { what: string }[] }
const facesOf = async (family: string) =>
  ((await (await fetch(`${base}/api/faces`)).json()) as FaceRecord[]).filter(each => each.family === family)
/** How the families of a document are there, once it is counted. */
async function familiesOf(id: string): Promise<Record<string, string>> {
  let found: Record<string, string> = {}
  const isCounted = async () => {
    const page = (await (await fetch(`${base}/api/shelf?ids=${id}`)).json()) as ShelfPage
    const [card] = page.cards
    found = Object.fromEntries((card?.faces ?? []).map(each => [each.family, each.status]))
    return card?.counted === 1
  }
  expect(await until(isCounted, 30_000)).toBe(true)
  return found
}

describe('a bundle', () => {
  it('opened where its faces are lacking brings those that may travel, and says which may not', async () => {
    // One face that anybody may pass on, and one that is held by licence.
    for (const id of ['karla', 'brannock']) expect((await post(`/api/supplier/${id}`, {})).status).toBe(201)
    const document = await put(
      makeOdt({
        stylesFaces: face('Karla') + face('Brannock'),
        styles:
          paragraphStyle('Free', 'style:font-name="Karla"') + paragraphStyle('Held', 'style:font-name="Brannock"'),
        body: '<text:p text:style-name="Free">Ferries</text:p><text:p text:style-name="Held">Galley</text:p>',
      }),
      'Travels.odt',
    )
    expect(await familiesOf(document.id)).toEqual({ Karla: 'present', Brannock: 'present' })
    const answer = await post('/api/bundle', { documents: [document.id] })
    expect(answer.status).toBe(200)
    const bundle = new Uint8Array(await answer.arrayBuffer())
    const notes = JSON.parse(decodeURIComponent(answer.headers.get('x-handoff-notes')!)) as { left: string[] }
    expect(notes.left.some(each => each.startsWith('Brannock Regular: its licence is not one'))).toBe(true)

    // The desk that it is opened on has neither.
    for (const family of ['Karla', 'Brannock'])
      for (const { hash } of await facesOf(family))
        expect((await fetch(`${base}/api/faces/${hash}`, { method: 'DELETE' })).status).toBe(200)
    const bare = await put(makeOdt({ body: '<text:p>Ferries</text:p>' }), 'Bare.odt')
    expect(bare.id).toBeTruthy()
    expect(await facesOf('Karla')).toEqual([])

    const opened = await put(bundle, 'Travels, bundle.zip')
    expect(await familiesOf(opened.id)).toEqual({ Karla: 'present', Brannock: 'absent' })
    expect((await facesOf('Karla')).length).toBeGreaterThan(0)
    expect(await facesOf('Brannock')).toEqual([])
    expect(opened.left[0]!.what).toMatch(/^font files came along: Karla Regular/)
    for (const { hash } of await facesOf('Karla')) await fetch(`${base}/api/faces/${hash}`, { method: 'DELETE' })
  })

  it('opened where its house is lacking brings it, issued, and links its documents; a house of the name stays', async () => {
    const made = (await (
      await post('/api/houses', { house: { ...saltmereLine, name: 'Travelling house' }, trialUntil: null })
    ).json()) as { id: string }
    const house = async () => (await (await fetch(`${base}/api/houses/${made.id}`)).json()) as HouseInfo
    expect((await post(`/api/houses/${made.id}/issue`, { revision: 1 })).status).toBe(200)
    const texts = await Promise.all(
      ['Ferries', 'Piers'].map(text => put(makeOdt({ body: `<text:p>${text}</text:p>` }), `${text}.odt`)),
    )
    for (const { id } of texts)
      expect((await send('PUT', `/api/documents/${id}/house`, { house: made.id })).status).toBeLessThan(300)
    const answer = await post('/api/bundle', { documents: texts.map(each => each.id) })
    const bundle = new Uint8Array(await answer.arrayBuffer())
    const open = async () => (await put(bundle, 'Two, bundle.zip')).left.map(each => each.what)

    // Where the same house is, the documents go by it; where another one has its name, they are left alone.
    expect(await open()).toContain(
      'the house Travelling house is here already, and the same; the documents are linked to it',
    )
    expect((await house()).documents).toBe(4)
    const { working, revision } = await house()
    const changed = { house: { ...working, limits: { ...working.limits, families: 9 } }, trialUntil: null, revision }
    expect((await send('PUT', `/api/houses/${made.id}`, changed)).status).toBeLessThan(300)
    expect((await post(`/api/houses/${made.id}/issue`, { revision: revision + 1 })).status).toBe(200)
    expect(await open()).toContain('another house Travelling house is here already: what came is not linked to it')
    expect((await house()).documents).toBe(4)

    // Where there is none, it comes, and what it says reaches them at once.
    expect((await fetch(`${base}/api/houses/${made.id}`, { method: 'DELETE' })).status).toBeLessThan(300)
    expect(await open()).toContain('a house came along: Travelling house; the documents are linked to it')
    const come = ((await (await fetch(`${base}/api/houses`)).json()) as HouseRow[]).find(
      each => each.name === 'Travelling house',
    )!
    expect(come).toMatchObject({ issued: 1, documents: 2 })
    await fetch(`${base}/api/houses/${come.id}`, { method: 'DELETE' })
  })
})
