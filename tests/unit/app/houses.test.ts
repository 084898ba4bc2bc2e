import { beforeEach, describe, expect, it } from 'vitest'
import { useHouses } from '../../../app/stores/houses'
import { emptyHouse } from '../../../core/house/house'
import { starters } from '../../../core/house/starters'
import type { HouseInfo, LinkedDocument } from '../../../shared/api'
import { appGlobals } from '../../support/app-globals'

let info: HouseInfo
let documents: LinkedDocument[]
let asked: string[]
let refused = ''
const share = { characters: 10, toStyle: 5, roles: [], dressed: 1 }
beforeEach(() => {
  info = {
    id: 'h1',
    name: 'Saltmere',
    revision: 3,
    issued: 1,
    trialUntil: null,
    changed: new Date(0),
    documents: 1,
    working: emptyHouse('Saltmere'),
    pending: [],
    versions: [],
  }
  documents = [
    { id: 'd1', fileName: 'Pier.odt', kind: 'text', version: 1, share: null },
    { id: 'd2', fileName: 'Mast.odt', kind: 'text', version: 1, share },
  ]
  asked = []
  refused = ''
  appGlobals((path, options = {}) => {
    const { method = 'GET', body } = options as { method?: string; body?: Record<string, unknown> }
    asked.push(`${method} ${path}`)
    if (refused && method !== 'GET')
      return Promise.reject(Object.assign(new Error('no'), { data: { message: refused } }))
    if (path === '/api/houses') return Promise.resolve(method === 'POST' ? { id: 'h2' } : [info])
    if (path.endsWith('/from-documents')) return Promise.resolve({ id: 'h3' })
    if (path.endsWith('/documents')) return Promise.resolve({ documents, days: [] })
    if (path.endsWith('/measure')) return Promise.resolve(share)
    if (method === 'PUT')
      info = {
        ...info,
        revision: info.revision + 1,
        working: body!.house as HouseInfo['working'],
        pending: ['Something.'],
        trialUntil: body!.trialUntil as string | null,
      }
    if (path.endsWith('/issue')) info = { ...info, issued: info.issued + 1, pending: [] }
    return Promise.resolve(info)
  })
})

describe('the houses of the desk', () => {
  it('measure what was not measured yet, one document after the other', async () => {
    const houses = useHouses()
    await houses.open('h1')
    expect(asked.filter(each => each.includes('measure'))).toEqual(['POST /api/houses/h1/measure'])
    expect(houses.documents.every(each => each.share !== null)).toBe(true)
    expect(houses.measuring).toBe(0)
    info = { ...info, issued: 0 }
    asked = []
    await houses.open('h1')
    expect(asked.some(each => each.includes('measure'))).toBe(false)
  })

  it('keep a change as the working house, and issue it', async () => {
    const houses = useHouses()
    await houses.open('h1')
    expect(houses.changed).toBe(false)
    houses.draft!.roles[0]!.text = { size: 30 }
    expect(houses.changed).toBe(true)
    houses.undoDraft()
    expect(houses.changed).toBe(false)
    houses.draft!.roles[0]!.text = { size: 31 }
    houses.trialUntil = '2027-01-01'
    expect(await houses.issue()).toBe(true)
    expect(asked.filter(each => /^(PUT|POST)/.test(each)).slice(-3)).toEqual([
      'PUT /api/houses/h1',
      'POST /api/houses/h1/issue',
      'POST /api/houses/h1/measure',
    ])
    expect([houses.info!.issued, houses.done, houses.trialUntil]).toEqual([2, 'Version 2 is issued.', '2027-01-01'])
    expect(houses.info!.working.roles[0]!.text.size).toBe(31)
  })

  it('say why something was not kept, and hold on to what was changed', async () => {
    const houses = useHouses()
    await houses.open('h1')
    houses.draft!.name = 'Mine'
    refused = 'Somebody changed this house meanwhile.'
    expect(await houses.save()).toBe(false)
    expect(await houses.issue()).toBe(false)
    expect([houses.message, houses.draft!.name, houses.changed]).toEqual([refused, 'Mine', true])
    await houses.remove()
    expect(houses.info).not.toBeNull()
    refused = ''
    await houses.remove()
    expect(houses.info).toBeNull()
  })

  it('are made from what is given, or drawn up from documents', async () => {
    const houses = useHouses()
    expect(await houses.add(starters[0]!.house())).toBe('h2')
    expect(await houses.drawUp('Ours', ['d1'])).toBe('h3')
    expect(houses.list).toHaveLength(1)
    for (const { house } of starters)
      expect(house().roles.find(role => role.id === 'body')!.text).toMatchObject({ color: 'ink' })
  })
})
