import { beforeEach, describe, expect, it } from 'vitest'
import { useShelf } from '../../../app/stores/shelf'
import { useTrash } from '../../../app/stores/trash'
import type { Trash } from '../../../shared/api'
import { appGlobals } from '../../support/app-globals'

const thrown = { id: 'd1', fileName: 'Pier.odt', versions: 2, folder: null, trashed: new Date(0), until: new Date(1) }
let trash: Trash
let asked: string[]
let failing = false
beforeEach(() => {
  trash = { days: 30, documents: [thrown], purges: [] }
  asked = []
  failing = false
  appGlobals((path, options = {}) => {
    const { method = 'GET', body } = options as { method?: string; body?: unknown }
    asked.push(`${method} ${path}${body ? ` ${JSON.stringify(body)}` : ''}`)
    if (failing && method !== 'GET')
      return Promise.reject(Object.assign(new Error('no'), { data: { message: 'It is not in the trash.' } }))
    if (path === '/api/trash' && method === 'GET') return Promise.resolve(trash)
    if (path === '/api/folders') return Promise.resolve([])
    return Promise.resolve(path === '/api/shelf' ? { cards: [], total: 0 } : {})
  })
})

describe('the trash', () => {
  it('is fetched anew after whatever is done with it, which is said', async () => {
    const store = useTrash()
    await store.fetch()
    expect(store.trash!.documents).toEqual([thrown])
    trash = { ...trash, documents: [] }
    await store.putBack('d1', 'Pier.odt')
    expect([store.trash!.documents, store.done]).toEqual([[], 'Pier.odt is back on the shelf.'])
    await store.purge('d2', 'Quay.odt')
    await store.empty()
    await store.keepFor(90)
    expect(asked.filter(each => !each.startsWith('GET'))).toEqual([
      'POST /api/trash/d1/back',
      'DELETE /api/trash/d2',
      'DELETE /api/trash',
      'PUT /api/trash {"days":90}',
    ])
    expect(store.done).toContain('90 days')
  })

  it('says why something could not be done, and what lies there all the same', async () => {
    const store = useTrash()
    failing = true
    await store.purge('d1', 'Pier.odt')
    expect([store.failure, store.done]).toEqual(['It is not in the trash.', ''])
    expect(store.trash!.documents).toEqual([thrown])
  })
})

describe('what is thrown away from the shelf', () => {
  it('can be put back until the shelf is left', async () => {
    const shelf = useShelf()
    await shelf.throwAway({ id: 'd1', fileName: 'Pier.odt' })
    expect(shelf.thrownAway).toEqual({ id: 'd1', fileName: 'Pier.odt' })
    await shelf.putBack()
    expect(shelf.thrownAway).toBeNull()
    expect(asked).toContain('POST /api/trash/d1/back')
    await shelf.throwAway({ id: 'd1', fileName: 'Pier.odt' })
    shelf.hush()
    expect(shelf.thrownAway).toBeNull()
    failing = true
    await shelf.throwAway({ id: 'd1', fileName: 'Pier.odt' })
    expect([shelf.thrownAway, shelf.failure]).toEqual([null, 'It is not in the trash.'])
  })

  it('says for how long a folder keeps documents', async () => {
    const shelf = useShelf()
    await shelf.keepInFolder('f1', 90)
    await shelf.keepInFolder('f1', null)
    expect(asked.filter(each => each.startsWith('PUT'))).toEqual([
      'PUT /api/folders/f1/keep {"days":90}',
      'PUT /api/folders/f1/keep {"days":null}',
    ])
  })
})

describe('files that are sent', () => {
  /** What the server answers, one after the other; how many were on their way at once at the most. */
  let answers: { status: number; text: string; retry?: string }[]
  let [onTheirWay, most] = [0, 0]
  class Request {
    upload = {} as { onprogress?: (event: { loaded: number; total: number }) => void }
    status = 0
    responseText = ''
    onloadend = () => {}
    private retry: string | null = null
    open(): void {
      most = Math.max(most, ++onTheirWay)
    }
    getResponseHeader = () => this.retry
    send(): void {
      this.upload.onprogress?.({ loaded: 1, total: 1 })
      setTimeout(() => {
        onTheirWay--
        const { status, text, retry } = answers.shift()!
        Object.assign(this, { status, responseText: text, retry: retry ?? null })
        this.onloadend()
      }, 5)
    }
  }
  beforeEach(() => {
    ;[onTheirWay, most] = [0, 0]
    Object.assign(globalThis, { XMLHttpRequest: Request })
  })
  const file = (name: string) => new File(['x'], name)
  const arrived = JSON.stringify({ id: 'd', job: 'j', signed: false, left: [] })

  it('go a few at a time, and again where the desk has too much to do', { timeout: 15_000 }, async () => {
    answers = [
      { status: 429, text: '{"message":"Too many files"}', retry: '1' },
      ...Array.from({ length: 8 }, () => ({ status: 201, text: arrived })),
    ]
    const shelf = useShelf()
    await Promise.all(Array.from({ length: 8 }, (_, at) => shelf.put(file(`${at}.odt`))))
    expect(most).toBe(3)
    expect([answers, shelf.uploads]).toEqual([[], []])
  })

  it('stay with a word where they are refused, lost, or something was left out', async () => {
    answers = [
      { status: 422, text: '{"message":"This is no document."}' },
      { status: 0, text: '' },
      { status: 201, text: JSON.stringify({ ...JSON.parse(arrived), left: [{ what: 'pictures', count: 2 }] }) },
    ]
    const shelf = useShelf()
    for (const name of ['a.odt', 'b.odt', 'c.md']) await shelf.put(file(name))
    expect(shelf.uploads.map(each => [each.state, each.message])).toEqual([
      ['refused', 'This is no document.'],
      ['refused', 'The file did not arrive: the connection was lost. Nothing was kept.'],
      ['told', 'Opened as a text. Left out or guessed: pictures (2).'],
    ])
    for (const { key } of [...shelf.uploads]) shelf.dismiss(key)
    expect(shelf.uploads).toEqual([])
  })
})
