import type { Knex } from 'knex'
import { beforeAll, describe, expect, it } from 'vitest'
import { registry } from '../../core/change/registry'
import { actingAs } from '../../server/store/acting'
import { addBatch } from '../../server/store/batches'
import { addDocument } from '../../server/store/documents'
import { addFolder } from '../../server/store/folders'
import { addVersion } from '../../server/store/versions'
import type { Batch, DocumentInfo, Folder } from '../../shared/api'
import { rightsOf } from '../../shared/people'
import { makeOdt } from '../support/fixtures'
import { addressOf, bodyFor, guarded } from './routes'
import { anyId, runStudio, type Browser } from './studio'

const studio = runStudio(74, 'morphene_folders_test')
let knex: Knex
beforeAll(() => {
  knex = studio.knex()
})
const owner = studio.browser()
beforeAll(() => studio.signsIn(owner, { id: 'desk', name: 'M. Aldous', role: 'owner' }))
/** Somebody of another studio on the same installation. */
beforeAll(async () => {
  await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
  await studio.comes(studio.browser(), { id: 'someone', name: 'Some One', role: 'owner', studio: 'other' })
})

describe('a folder of some', () => {
  const [member, outside] = [studio.browser(), studio.browser()]
  let ids: { folder: string; document: string; open: string }
  const wish = registry.schema.parse({ wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }] })
  let batch = ''
  beforeAll(async () => {
    for (const [browser, id] of [
      [member, 'member'],
      [outside, 'outside'],
    ] as const) {
      await studio.comes(browser, { id, name: id, role: 'designer', also: ['purge'] })
    }
    const ours = actingAs(knex)
    const folder = (await addFolder(ours, 'Client'))!
    const file = { kind: 'text' as const, signed: false, bytes: makeOdt({ body: '<text:p>Pier</text:p>' }) }
    const document = (await addDocument(ours, { ...file, fileName: 'Client letter.odt', folder })).id
    const open = (await addDocument(ours, { ...file, fileName: 'Open letter.odt' })).id
    await addVersion(ours, document, 1, {
      madeBy: 'change',
      title: 'of the client',
      content: { bytes: file.bytes, ids: {} },
      plan: { title: 'of the client' } as never,
    })
    batch = await addBatch(ours, wish, 'Both', [document, open])
    ids = { folder, document, open }
  })
  const works = (person: string) => ({ person, role: 'designer' })
  const names = async (browser: Browser) => {
    const { cards } = await browser.get<{ cards: { fileName: string }[] }>('/api/shelf?find=letter')
    return cards.map(each => each.fileName).sort()
  }

  it('is everybody’s until somebody is named, and only owners say who', async () => {
    expect(await names(outside)).toEqual(['Client letter.odt', 'Open letter.odt'])
    const path = `/api/folders/${ids.folder}/members`
    expect(await member.status('PUT', path, { people: [works('member')] })).toBe(403)
    expect((await owner.says('PUT', path, { people: [works('member'), works('someone')] }))[0]).toBe(404)
    expect(await owner.status('PUT', path, { people: [works('member'), works('member')] })).toBe(200)
    const folders = await owner.get<Folder[]>('/api/folders')
    expect(folders.find(each => each.id === ids.folder)!.members).toEqual([works('member')])
    expect((await owner.get<{ what: string }[]>('/api/people/log'))[0]!.what).toBe('folder members')
  })

  it('and all that lies in it is nothing to whoever is no member', async () => {
    expect([await names(member), await names(owner)]).toEqual([
      ['Client letter.odt', 'Open letter.odt'],
      ['Client letter.odt', 'Open letter.odt'],
    ])
    expect(await names(outside)).toEqual(['Open letter.odt'])
    expect((await outside.get<Folder[]>('/api/folders')).map(each => each.name)).not.toContain('Client')
    for (const path of ['', '/file', '/census', '/remarks', '/ids', '/stand-ins', '/page-picture', '/proof', '/styles'])
      expect(await outside.status('GET', `/api/documents/${ids.document}${path}`), path).toBe(404)
    expect(await member.status('GET', `/api/documents/${ids.document}/file`)).toBe(200)
    expect((await outside.ask('PUT', '/api/me/at', { document: ids.document })).status).toBe(404)
    for (const [method, path, body] of [
      ['POST', `/api/documents/${ids.document}/step`, { base: 2, direction: 'undo' }],
      ['POST', `/api/documents/${ids.document}/remarks`, { version: 1, place: null, text: 'x' }],
      ['POST', `/api/documents/${ids.open}/folder`, { folder: ids.folder }],
      ['PUT', `/api/folders/${ids.folder}`, { name: 'Mine' }],
      ['PUT', `/api/folders/${ids.folder}/keep`, { days: 1 }],
      ['DELETE', `/api/folders/${ids.folder}`, undefined],
      ['DELETE', `/api/documents/${ids.document}`, undefined],
    ] as const)
      expect(await outside.status(method, path, body), path).toBe(404)
    const told = async (browser: Browser, path: string) => JSON.stringify(await browser.get(path))
    for (const path of ['/api/records', `/api/batches/${batch}`]) {
      expect(await told(member, path), path).toContain('Client letter')
      expect(await told(outside, path), path).not.toContain('Client letter')
    }
    // Nor is it found in the trash; what is asked of somebody there does not reach them.
    await knex('remarks').insert({
      id: anyId,
      document: ids.document,
      version: 1,
      text: 'For you',
      author: 'desk',
      given_to: 'outside',
      created: new Date(),
    })
    expect(await outside.get('/api/remarks')).toEqual([])
    const handed = { version: 1, place: null, text: 'See to it', to: 'outside' }
    expect(await member.says('POST', `/api/documents/${ids.document}/remarks`, handed)).toEqual([
      422,
      expect.stringContaining('does not see this document'),
    ])
    expect(await member.status('POST', `/api/documents/${ids.open}/remarks`, handed)).toBe(200)
    expect(await member.status('POST', `/api/documents/${ids.document}/remarks`, { ...handed, to: 'member' })).toBe(200)
    expect(await member.status('DELETE', `/api/documents/${ids.document}`)).toBe(200)
    expect(await told(outside, '/api/trash')).not.toContain('Client letter')
    expect(await outside.status('POST', `/api/trash/${ids.document}/back`)).toBe(404)
    expect(await outside.status('DELETE', `/api/trash/${ids.document}`)).toBe(404)
    expect(await member.status('POST', `/api/trash/${ids.document}/back`)).toBe(200)
  })

  it('is only read by whoever is a reader there, whatever they may at the desk', async () => {
    const path = `/api/folders/${ids.folder}/members`
    expect(await owner.status('PUT', path, { people: [{ person: 'member', role: 'reader' }] })).toBe(200)
    expect(await names(member)).toEqual(['Client letter.odt', 'Open letter.odt'])
    const info = await member.get<DocumentInfo>(`/api/documents/${ids.document}`)
    expect(info.rights).toEqual(['look', 'remark'])
    expect((await member.get<DocumentInfo>(`/api/documents/${ids.open}`)).rights).toContain('change')
    const folder = (await member.get<Folder[]>('/api/folders')).find(each => each.id === ids.folder)!
    expect(folder).toMatchObject({ rights: ['look', 'remark'], owns: false })
    const more = guarded.filter(each => !rightsOf.reader.includes(each.right!))
    for (const { method, path: route } of more.filter(each => each.path.startsWith('/api/documents/[id]')))
      expect(
        (await member.says(method, addressOf(route, ids.document), bodyFor(method, route)))[0],
        `${method} ${route}`,
      ).toBe(403)
    for (const { method, path: route } of more.filter(each => each.path.startsWith('/api/folders/[id]')))
      expect(
        await member.status(method, addressOf(route, ids.folder), bodyFor(method, route)),
        `${method} ${route}`,
      ).toBe(404)
    // Remarks they write; those of others they leave as they are.
    const remark = { version: 1, place: null, text: 'Is this meant?' }
    expect(await member.status('POST', `/api/documents/${ids.document}/remarks`, remark)).toBe(200)
    const [others] = await knex('remarks')
      .where({ document: ids.document, author: 'desk' })
      .select<{ id: string }[]>('id')
    expect(await member.status('POST', `/api/documents/${ids.document}/remarks/${others!.id}`, { act: 'settle' })).toBe(
      403,
    )
    // Nor by ways about: a plan over documents, a bundle, another folder, a new document there, the trash.
    const batch = await member.ask('POST', '/api/batches', { request: wish, documents: [ids.document, ids.open] })
    const { id } = (await batch.json()) as { id: string }
    const planned = await owner.get<Batch>(`/api/batches/${id}`)
    expect(planned.documents.map(each => each.fileName)).toEqual(['Open letter.odt'])
    expect(await member.status('POST', '/api/bundle', { documents: [ids.document] })).toBe(404)
    expect(await member.status('POST', `/api/documents/${ids.open}/folder`, { folder: ids.folder })).toBe(404)
    const made = { template: ids.open, title: 'Theirs', folder: ids.folder }
    expect(await member.status('POST', '/api/documents/new', made)).toBe(404)
    expect(await member.status('POST', '/api/documents/new', { ...made, folder: null })).toBe(201)
    expect(await owner.status('DELETE', `/api/documents/${ids.document}`)).toBe(200)
    expect(await member.status('POST', `/api/trash/${ids.document}/back`)).toBe(404)
    expect(await member.status('DELETE', `/api/trash/${ids.document}`)).toBe(404)
    // What they empty the trash of is what is theirs to let go.
    expect(await member.status('DELETE', '/api/trash')).toBe(200)
    expect(await owner.status('POST', `/api/trash/${ids.document}/back`)).toBe(200)
    expect((await owner.get<DocumentInfo>(`/api/documents/${ids.document}`)).document.version).toBe(2)
  })

  it('has owners of its own, who say who sees it and may no more than at the desk', async () => {
    const path = `/api/folders/${ids.folder}/members`
    const both = [{ person: 'member', role: 'owner' }, works('outside')]
    expect(await owner.status('PUT', path, { people: both })).toBe(200)
    expect((await outside.says('PUT', path, { people: [] }))[0]).toBe(403)
    const folder = (await member.get<Folder[]>('/api/folders')).find(each => each.id === ids.folder)!
    expect(folder).toMatchObject({ owns: true, members: both })
    expect(folder.rights).not.toContain('people')
    expect(await member.status('GET', '/api/people')).toBe(403)
    expect(await member.status('PUT', path, { people: [{ person: 'member', role: 'owner' }] })).toBe(200)
    expect(await names(outside)).toEqual(['Open letter.odt'])
    expect((await owner.get<{ told: string }[]>('/api/people/log'))[0]).toMatchObject({ what: 'folder members' })
  })

  it('is worked on by a reader of the desk whom it is given to, and nothing else is', async () => {
    const guest = studio.browser()
    await studio.comes(guest, { id: 'guest', name: 'guest', role: 'reader' })
    const hash = (await knex('faces').first<{ hash: string } | undefined>('hash'))?.hash ?? 'a'.repeat(64)
    const file = (id: string) => `/api/documents/${id}/file`
    const change = (id: string, base: number) =>
      guest.status('POST', `/api/documents/${id}/changes`, { base, request: recast })
    const recast = { wishes: [{ type: 'recast', change: { size: { points: 9 } } }], leftOut: [] }
    expect([await guest.status('GET', file(ids.open)), await change(ids.open, 1)]).toEqual([403, 403])
    expect(await guest.status('GET', `/api/faces/${hash}`)).toBe(403)
    const path = `/api/folders/${ids.folder}/members`
    expect(await owner.status('PUT', path, { people: [works('guest')] })).toBe(200)
    const info = await guest.get<DocumentInfo>(`/api/documents/${ids.document}`)
    expect(info.rights).toEqual(expect.arrayContaining(['take', 'change', 'fonts']))
    expect(info.rights).not.toContain('arrange')
    expect([await guest.status('GET', file(ids.document)), await change(ids.document, 2)]).toEqual([200, 200])
    expect(await guest.status('GET', `/api/faces/${hash}`)).not.toBe(403)
    // What lies elsewhere they look at, as before, and nothing else of the desk is theirs.
    expect((await guest.get<DocumentInfo>(`/api/documents/${ids.open}`)).rights).toEqual(['look', 'remark'])
    expect([await guest.status('GET', file(ids.open)), await change(ids.open, 1)]).toEqual([403, 403])
    expect(
      await guest.status('GET', `/api/documents/${ids.document}/comparison-pdf?against=${ids.open}&version=1`),
    ).toBe(404)
    expect(await guest.status('POST', `/api/documents/${ids.document}/folder`, { folder: null })).toBe(403)
    expect(await guest.status('PUT', `/api/documents/${ids.document}/stand-ins`, {})).toBe(403)
    expect(await guest.status('POST', '/api/bundle', { documents: [ids.document] })).toBe(403)
    expect(await guest.status('POST', '/api/batches', { request: recast, documents: [ids.document] })).toBe(403)
    expect(await guest.status('POST', '/api/faces', {})).toBe(403)
    expect((await guest.get<{ rights: string[] }>('/api/me')).rights).toEqual(['look', 'remark'])
  })

  it('is in no plan that somebody carries on who may not change it', async () => {
    const path = `/api/folders/${ids.folder}/members`
    expect(await owner.status('PUT', path, { people: [works('outside')] })).toBe(200)
    const made = await owner.ask('POST', '/api/batches', { request: wish, documents: [ids.document, ids.open] })
    const { id } = (await made.json()) as { id: string }
    for (const [step, body] of [
      ['apply', { leftOut: [] }],
      ['steer', { how: 'cancel' }],
      ['undo', {}],
    ] as const)
      expect(await member.status('POST', `/api/batches/${id}/${step}`, body), step).toBe(403)
    expect(await member.status('GET', `/api/batches/${id}`)).toBe(200)
    expect(await outside.status('POST', `/api/batches/${id}/steer`, { how: 'cancel' })).toBe(200)
  })

  it('is opened again by naming nobody', async () => {
    expect(await owner.status('PUT', `/api/folders/${ids.folder}/members`, { people: [] })).toBe(200)
    expect(await names(outside)).toEqual(['Client letter.odt', 'Open letter.odt'])
  })
})
