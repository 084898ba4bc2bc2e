import type { Knex } from 'knex'
import { beforeAll, describe, expect, it } from 'vitest'
import { mostKeys } from '../../server/store/program-keys'
import type { ProgramKey } from '../../shared/people'
import { runStudio } from './studio'

const studio = runStudio(73, 'morphene_keys_test')
let knex: Knex
beforeAll(() => {
  knex = studio.knex()
})
const owner = studio.browser()
beforeAll(() => studio.signsIn(owner, { id: 'desk', name: 'M. Aldous', role: 'owner' }))

describe('a key for a program', () => {
  const penn = studio.browser()
  const made = async (body: object) =>
    ((await (await penn.ask('POST', '/api/me/keys', body)).json()) as { key: string }).key
  /** What a program is told that sends a key. */
  const by = (key: string, method: string, path: string, body?: unknown, more: Record<string, string> = {}) =>
    fetch(`${studio.base}${path}`, {
      method,
      headers: { authorization: `Bearer ${key}`, ...(body ? { 'content-type': 'application/json' } : {}), ...more },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
  const status = async (...asked: Parameters<typeof by>) => (await by(...asked)).status
  beforeAll(async () => {
    await studio.comes(penn, { id: 'penn', name: 'Jory Penn', role: 'designer' })
  })

  it('lets a program do what it is for, and never more than its person may', async () => {
    const look = await made({ name: 'The harbour screen', may: 'look', days: 30 })
    const change = await made({ name: 'Nightly swap', may: 'change', days: 1 })
    expect(look).toMatch(/^[\w-]{43}$/)
    expect(JSON.stringify(await knex('program_keys').select('*'))).not.toContain(look)
    expect(await status(look, 'GET', '/api/shelf')).toBe(200)
    expect(await status(look, 'POST', '/api/folders', { name: 'By a program' })).toBe(403)
    expect(await status(change, 'POST', '/api/folders', { name: 'By a program' })).toBe(201)
    expect(await status(change, 'GET', '/api/people')).toBe(403)
    expect(await status(change, 'GET', `/api/faces/${'a'.repeat(64)}`)).toBe(403)
    const [first] = await penn.get<ProgramKey[]>('/api/me/keys')
    expect(first).toMatchObject({ name: 'Nightly swap', may: 'change', seen: expect.any(String) })
    expect(Object.keys(first!)).not.toContain('key_hash')
    // What its person may no longer do, it may not either.
    await knex('people').where({ id: 'penn' }).update({ role: 'reader' })
    expect(await status(change, 'POST', '/api/folders', { name: 'By a reader’s program' })).toBe(403)
    await knex('people').where({ id: 'penn' }).update({ role: 'designer' })
  })

  it('does nothing to the person it asks for: no name, no session, no other key', async () => {
    const key = await made({ name: 'Curious', may: 'change', days: 1 })
    for (const [method, path, body] of [
      ['PUT', '/api/me', { name: 'X', signIn: 'xx' }],
      ['GET', '/api/me/sessions', undefined],
      ['GET', '/api/me/keys', undefined],
      ['POST', '/api/me/keys', { name: 'One more', may: 'change', days: 366 }],
      ['POST', '/api/sign-out', {}],
    ] as const)
      expect(await status(key, method, path, body), path).toBe(403)
  })

  it('holds until its end, until it is ended, and as long as its person works here', async () => {
    const key = await made({ name: 'Short', may: 'look', days: 1 })
    expect(await status('a'.repeat(43), 'GET', '/api/shelf')).toBe(401)
    // A key that holds no longer lets nobody in, though the session of a browser came along.
    expect(await status('a'.repeat(43), 'GET', '/api/shelf', undefined, { cookie: penn.cookie })).toBe(401)
    await knex('program_keys')
      .where({ name: 'Short' })
      .update({ until: new Date(Date.now() - 1000) })
    expect(await status(key, 'GET', '/api/shelf')).toBe(401)
    const next = await made({ name: 'Next', may: 'look', days: 1 })
    const { id } = (await penn.get<ProgramKey[]>('/api/me/keys')).find(each => each.name === 'Next')!
    expect(await owner.status('DELETE', `/api/me/keys/${id}`)).toBe(404)
    expect(await penn.status('DELETE', `/api/me/keys/${id}`)).toBe(200)
    expect(await status(next, 'GET', '/api/shelf')).toBe(401)
    const last = await made({ name: 'Last', may: 'look', days: 1 })
    await knex('people').where({ id: 'penn' }).update({ ended: new Date() })
    expect(await status(last, 'GET', '/api/shelf')).toBe(401)
    await knex('people').where({ id: 'penn' }).update({ ended: null })
    const told = (await owner.get<{ what: string; about: string }[]>('/api/people/log')).map(each => each.what)
    expect(told).toEqual(expect.arrayContaining(['key made', 'key ended']))
  })

  it('is one of twenty at the most, with an end within a year', async () => {
    for (let count = (await penn.get<ProgramKey[]>('/api/me/keys')).length; count < mostKeys; count++)
      await made({ name: `Key ${count}`, may: 'look', days: 1 })
    expect(await penn.says('POST', '/api/me/keys', { name: 'Too many', may: 'look', days: 1 })).toEqual([
      422,
      expect.stringContaining('end one first'),
    ])
    for (const wrong of [{ may: 'people' }, { days: 0 }, { days: 367 }, { name: ' ' }])
      expect(await penn.status('POST', '/api/me/keys', { name: 'Wrong', may: 'look', days: 1, ...wrong })).toBe(400)
  })
})
