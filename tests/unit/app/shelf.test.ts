import { beforeEach, describe, expect, it, vi } from 'vitest'
import { useShelf } from '../../../app/stores/shelf'
import { wholeShelf } from '../../../app/stores/whole-shelf'
import type { ShelfCard, ShelfPage } from '../../../shared/api'
import { appGlobals } from '../../support/app-globals'

interface Asked {
  readonly path: string
  readonly query: Record<string, unknown>
  readonly method: string
  readonly body: unknown
}
let asked: Asked[] = []
let shelf: ShelfCard[] = []
let folders = [{ id: 'f1', name: 'Winter', documents: 0 }]
/** Answers wait for this one: what is asked meanwhile is answered in the order that a test wants. */
let held: Promise<void> | null = null
let failing = ''

const card = (id: string, more: Partial<ShelfCard> = {}): ShelfCard => ({
  id,
  fileName: `${id}.odt`,
  kind: 'text',
  signed: false,
  version: 1,
  created: new Date(0),
  folder: null,
  uses: null,
  house: null,
  title: '',
  changed: new Date(0),
  pages: 1,
  characters: 1,
  settled: 1,
  faces: [],
  counted: null,
  picture: null,
  ...more,
})

function answer({ path, query, method }: Asked): unknown {
  if (failing !== '' && path.startsWith(failing)) throw new Error('no')
  if (path === '/api/folders' && method === 'GET') return structuredClone(folders)
  if (path !== '/api/shelf') return { id: 'f2' }
  const ids = query.ids as string | undefined
  const found = shelf.filter(
    each =>
      (ids === undefined || ids.split(',').includes(each.id)) &&
      (query.folder === undefined || each.folder === query.folder) &&
      each.fileName.includes(String(query.find ?? '')),
  )
  const start = Number(query.start ?? 0)
  return { cards: found.slice(start, start + Number(query.count ?? 60)), total: found.length } satisfies ShelfPage
}

beforeEach(() => {
  asked = []
  held = null
  failing = ''
  folders = [{ id: 'f1', name: 'Winter', documents: 0 }]
  shelf = Array.from({ length: 150 }, (_, index) => card(`d${String(index).padStart(3, '0')}`))
  appGlobals(async (path, options = {}) => {
    const { query = {}, method = 'GET', body } = options as Partial<Asked>
    const question: Asked = { path, query, method, body }
    asked.push(question)
    const answered = answer(question)
    if (held && path === '/api/shelf' && query.ids === undefined) await held
    return answered
  })
})
const settle = () => new Promise(resolve => setTimeout(resolve, 0))

describe('the shelf', () => {
  it('fetches its first cards, then more as they are looked at, to the end and no further', async () => {
    const store = useShelf()
    expect(store.cards).toBeNull()
    await store.refresh()
    expect([store.cards!.length, store.total]).toEqual([60, 150])
    await store.more()
    await store.more()
    expect(store.cards!.map(each => each.id)).toEqual(shelf.map(each => each.id))
    const before = asked.length
    await store.more()
    expect(asked).toHaveLength(before)
  })

  it('fetches as many anew as were looked at, in steps that the server allows', async () => {
    shelf = Array.from({ length: 500 }, (_, index) => card(`d${String(index).padStart(3, '0')}`))
    const store = useShelf()
    await store.refresh()
    for (let count = 0; count < 4; count++) await store.more()
    asked = []
    await store.refresh()
    expect(store.cards).toHaveLength(300)
    expect(asked.filter(each => each.path === '/api/shelf').map(each => [each.query.start, each.query.count])).toEqual([
      [0, 200],
      [200, 100],
    ])
  })

  it('takes a card that came twice once: something was put on the shelf meanwhile', async () => {
    const store = useShelf()
    await store.refresh()
    shelf.unshift(card('new'))
    await store.more()
    const ids = store.cards!.map(each => each.id)
    expect(new Set(ids).size).toBe(ids.length)
  })

  it('passes over an answer that a newer question has overtaken', async () => {
    const store = useShelf()
    await store.refresh()
    let release = () => {}
    held = new Promise(resolve => {
      release = resolve
    })
    const slow = store.more()
    held = null
    shelf = [card('only')]
    await store.refresh()
    release()
    await slow
    expect(store.cards!.map(each => each.id)).toEqual(['only'])
  })

  describe('when a document is counted', () => {
    let said: (job: object) => void = () => {}
    beforeEach(() => {
      vi.stubGlobal(
        'EventSource',
        class {
          onmessage: (event: { data: string }) => void = () => {}
          constructor() {
            said = job => this.onmessage({ data: JSON.stringify(job) })
          }
        },
      )
    })
    const done = (document: string) => ({ document, batch: null, state: 'done', progress: 1, message: '' })

    it('fetches its card alone', async () => {
      const store = useShelf()
      await store.refresh()
      store.listen()
      asked = []
      shelf[2] = card('d002', { pages: 9 })
      said(done('d002'))
      await settle()
      expect(store.cards![2]!.pages).toBe(9)
      expect(asked.map(each => each.query)).toEqual([{ ids: 'd002' }])
      said(done('d140'))
      await settle()
      expect(asked).toHaveLength(1)
    })

    it('does not let cards that were on their way take its place', async () => {
      const store = useShelf()
      await store.refresh()
      store.listen()
      shelf[2] = card('d002', { pages: null, settled: null })
      let release = () => {}
      held = new Promise(resolve => {
        release = resolve
      })
      const slow = store.refresh()
      await settle()
      // The answer was made before the count was, and comes after it.
      shelf[2] = card('d002', { pages: 9 })
      said(done('d002'))
      await settle()
      held = null
      release()
      await slow
      await settle()
      expect(store.cards![2]!.pages).toBe(9)
    })
  })

  it('begins at the top when a folder is opened or the order changes', async () => {
    shelf[3] = card('in', { folder: 'f1' })
    const store = useShelf()
    await store.refresh()
    store.folder = 'f1'
    await settle()
    await settle()
    expect(store.cards!.map(each => each.id)).toEqual(['in'])
    expect(store.openFolder!.name).toBe('Winter')
    asked = []
    store.sort = 'name'
    await settle()
    await settle()
    expect(asked.find(each => each.path === '/api/shelf')!.query).toMatchObject({ sort: 'name', start: 0 })
  })

  it('looks at everything again when the open folder is gone', async () => {
    const store = useShelf()
    await store.refresh()
    store.folder = 'f1'
    folders = []
    await store.refresh()
    expect(store.folder).toBeNull()
  })

  it('keeps a refusal in words, and says when the server is away', async () => {
    const store = useShelf()
    await store.refresh()
    failing = '/api/documents'
    expect(await store.move('d001', 'f1')).toBe(false)
    expect(store.failure).not.toBe('')
    failing = '/api/shelf'
    await store.refresh()
    expect(store.failure).toContain('cannot be reached')
    expect(store.cards).toHaveLength(60)
  })

  it('opens a folder that was just made, and renames it by its id', async () => {
    const store = useShelf()
    await store.refresh()
    folders.push({ id: 'f2', name: 'Spring', documents: 0 })
    expect(await store.addFolder('Spring')).toBe(true)
    expect(store.folder).toBe('f2')
    expect(store.folderName('f2')).toBe('Spring')
    await store.renameFolder('f2', 'Summer')
    expect(asked.find(each => each.method === 'PUT')).toMatchObject({
      path: '/api/folders/f2',
      body: { name: 'Summer' },
    })
  })
})

describe('the whole shelf', () => {
  it('comes in steps, up to what one plan takes', async () => {
    shelf = Array.from({ length: 450 }, (_, index) => card(`d${index}`))
    const all = await wholeShelf()
    expect([all.cards.length, all.total]).toEqual([450, 450])
    shelf = Array.from({ length: 2100 }, (_, index) => card(`d${index}`))
    const most = await wholeShelf()
    expect([most.cards.length, most.total]).toEqual([2000, 2100])
    shelf = []
    expect(await wholeShelf()).toEqual({ cards: [], total: 0 })
  })
})
