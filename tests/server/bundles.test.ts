import type { ChildProcess } from 'node:child_process'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FaceRecord } from '../../core/font/face'
import type { ShelfPage } from '../../shared/api'
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

const post = (path: string, body: unknown) =>
  fetch(`${base}${path}`, {
    method: 'POST',
    body: JSON.stringify(body),
    headers: { 'content-type': 'application/json' },
  })
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
})
