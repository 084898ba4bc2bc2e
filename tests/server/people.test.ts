import type { Knex } from 'knex'
import { beforeAll, describe, expect, it } from 'vitest'
import { noStarts } from '../../core/change/defaults/desk-starts'
import { houseFromPair } from '../../core/house/make-house'
import { actingAs, type Acting } from '../../server/store/acting'
import { addBatch } from '../../server/store/batches'
import { addDocument } from '../../server/store/documents'
import { addFolder } from '../../server/store/folders'
import { addHouse } from '../../server/store/houses'
import { addStudio, makeLink } from '../../server/store/people'
import { registry } from '../../core/change/registry'
import { addVersion } from '../../server/store/versions'
import { rights } from '../../shared/rights'
import type { DocumentInfo } from '../../shared/api'
import { rightsOf, type Me, type Session } from '../../shared/people'
import { until } from '../support/desk-process'
import { makeOdt } from '../support/fixtures'
import { beginServer, dropDatabase, endServer, ownDatabase } from './running'
import { addressOf, bodyFor, guarded } from './routes'
import { anyId, runStudio, type Browser } from './studio'

const studio = runStudio(70, 'morphene_people_test')
let knex: Knex
beforeAll(() => {
  knex = studio.knex()
})
const owner = studio.browser()
const reader = studio.browser()
const nobody = () => studio.browser()
const own = { name: 'M. Aldous', signIn: 'aldous', passphrase: 'nets drying on the north quay' }
const passphrase = 'seven lamps at the outer pier'

describe('a desk of one', () => {
  it('opens without signing in, and whoever is there may do everything', async () => {
    const me = await nobody().get<Me>('/api/me')
    expect(me).toMatchObject({ signInNeeded: false, studio: 'This desk', person: { id: 'desk', role: 'owner' } })
    expect([...me.rights].sort()).toEqual([...rights].sort())
    expect(await nobody().status('GET', '/api/shelf')).toBe(200)
  })

  it('asks for its owner’s passphrase before anybody is asked to come, and for a good one', async () => {
    const invitation = { name: 'J. Teal', role: 'reader' }
    expect(await owner.says('POST', '/api/people/invitations', invitation)).toEqual([
      422,
      expect.stringContaining('Choose your own passphrase first'),
    ])
    const trial = async (said: object) => owner.says('PUT', '/api/me', { ...own, ...said })
    expect((await trial({ passphrase: 'short' }))[0]).toBe(400)
    expect(await trial({ passphrase: 'passwordpassword' })).toEqual([422, expect.stringContaining('guessed first')])
    expect(await trial({ passphrase: 'aaaaaaaaaaaaaaaa' })).toEqual([422, expect.stringContaining('guessed first')])
    expect(await trial({ signIn: 'aldous-of-ossay', passphrase: 'aldous-of-ossay1' })).toEqual([
      422,
      expect.stringContaining('hardly more than the name'),
    ])
    expect((await trial({ passphrase: null }))[0]).toBe(422)
    expect(await owner.status('PUT', '/api/me', own)).toBe(200)
    expect(owner.flags).toMatch(/^morphene=[\w-]{43};/)
    expect(owner.flags).toContain('HttpOnly')
    expect(owner.flags).toContain('SameSite=Strict')
    expect(owner.flags).toContain('Path=/')
    // What is kept of the key and of the passphrase gives neither.
    const [session] = await knex('sessions').select<{ key_hash: string }[]>('*')
    expect(JSON.stringify(session)).not.toContain(owner.cookie.slice('morphene='.length))
    const [person] = await knex('people').select<{ passphrase: string }[]>('*')
    expect(person!.passphrase).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/)
    // Still one person: nobody has to sign in.
    expect(await nobody().status('GET', '/api/shelf')).toBe(200)
  })
})

describe('a desk of several', () => {
  let key = ''
  it('lets nobody in without signing in from the moment that somebody is asked to come', async () => {
    const asked = await owner.ask('POST', '/api/people/invitations', { name: 'J. Teal', role: 'reader', also: [] })
    expect(asked.status).toBe(201)
    key = ((await asked.json()) as { key: string }).key
    expect(await nobody().status('GET', '/api/shelf')).toBe(401)
    expect(await owner.status('GET', '/api/shelf')).toBe(200)
    const me = await nobody().get<Me>('/api/me')
    expect(me).toEqual({
      signInNeeded: true,
      person: null,
      rights: [],
      ways: null,
      studio: '',
      provider: null,
      connected: false,
      names: {},
      here: [],
    })
    expect(await knex('invitations').where({ key_hash: key }).first()).toBeUndefined()
  })

  it.each(guarded)('$method $path: 401 without a session', async ({ method, path }) => {
    const body = method === 'POST' || method === 'PUT' ? {} : undefined
    const answer = await nobody().says(method, addressOf(path), body)
    expect(answer).toEqual([401, expect.stringContaining('Sign in first')])
    // A key that nobody was given is none.
    const foreign = nobody()
    foreign.cookie = `morphene=${'A'.repeat(43)}`
    expect(await foreign.status(method, addressOf(path), body)).toBe(401)
  })

  it('is joined by a link, once, under a name of one’s own', async () => {
    expect(await (await nobody().ask('POST', '/api/link', { key })).json()).toEqual({
      name: 'J. Teal',
      studio: 'This desk',
      joins: true,
    })
    // It is no way in for anybody else, and no name that is there already.
    expect(await nobody().status('POST', '/api/come-in', { key })).toBe(404)
    const joining = { key, name: 'Jo Teal', signIn: 'teal', passphrase }
    expect(await reader.says('POST', '/api/join', { ...joining, signIn: 'aldous' })).toEqual([
      409,
      expect.stringContaining('Somebody else signs in by “aldous”'),
    ])
    expect((await reader.says('POST', '/api/join', { ...joining, passphrase: 'iloveyouiloveyou' }))[0]).toBe(422)
    expect(await reader.status('POST', '/api/join', joining)).toBe(201)
    expect(await nobody().status('POST', '/api/join', { ...joining, signIn: 'other' })).toBe(404)
    expect(await reader.get<Me>('/api/me')).toMatchObject({
      person: { name: 'Jo Teal', signIn: 'teal', role: 'reader' },
      rights: ['look', 'remark'],
      names: { desk: 'M. Aldous' },
    })
  })

  it.each(guarded.filter(each => !rightsOf.reader.includes(each.right!)))(
    '$method $path: 403 for a reader',
    async ({ method, path }) => {
      const body = method === 'POST' || method === 'PUT' ? {} : undefined
      expect(await reader.says(method, addressOf(path), body)).toEqual([
        403,
        expect.stringMatching(/You may not .+\. Nothing was changed\./),
      ])
    },
  )

  it('gives a reader more where an owner says so, at once', async () => {
    const { people } = await owner.get<{ people: { id: string; signIn: string }[] }>('/api/people')
    const teal = people.find(each => each.signIn === 'teal')!
    expect(await owner.status('PUT', `/api/people/${teal.id}`, { role: 'reader', also: ['take'] })).toBe(200)
    expect((await reader.get<Me>('/api/me')).rights).toEqual(['look', 'remark', 'take'])
    expect(await owner.status('PUT', `/api/people/${teal.id}`, { role: 'designer', also: [] })).toBe(200)
    const made = await reader.ask('POST', '/api/folders', { name: 'Teal’s' })
    expect(made.status).toBe(201)
    expect(await reader.status('GET', '/api/people')).toBe(403)
    expect(await owner.status('PUT', `/api/people/${teal.id}`, { role: 'reader', also: [] })).toBe(200)
    expect(await reader.status('POST', '/api/folders', { name: 'More of Teal’s' })).toBe(403)
    expect(await owner.status('PUT', `/api/people/${anyId}`, { role: 'reader', also: [] })).toBe(404)
  })

  it('has an owner always', async () => {
    expect(await owner.says('PUT', '/api/people/desk', { role: 'reader', also: [] })).toEqual([
      422,
      expect.stringContaining('the only owner'),
    ])
    expect(await owner.status('DELETE', '/api/people/desk')).toBe(422)
  })
})

describe('another studio on the same installation', () => {
  const theirs = studio.browser()
  let ours: Acting
  const ids: Record<string, string> = {}
  beforeAll(async () => {
    ours = actingAs(knex)
    await knex('owners').insert({ id: 'other', name: 'Another studio', created: new Date() })
    await studio.comes(theirs, { id: 'someone', name: 'Some One', role: 'owner', studio: 'other' })
    ids.documents = (
      await addDocument(ours, { fileName: 'Ours.odt', kind: 'text', signed: false, bytes: makeOdt({}) })
    ).id
    ids.folders = (await addFolder(ours, 'Ours'))!
    ids.houses = (await addHouse(
      ours,
      houseFromPair('Ours', { heading: 'Jost', body: 'Literata', size: 10, ratio: 1.25 }),
      null,
    ))!
    const wish = registry.schema.parse({ wishes: [{ type: 'swap', from: { family: 'A' }, to: { family: 'B' } }] })
    ids.batches = await addBatch(ours, wish, 'Ours', [ids.documents])
    ids.trash = ids.documents
    ids.people = 'desk'
    const [session] = await knex('sessions').where({ person: 'desk' }).select<{ id: string }[]>('id')
    ids.me = session!.id
    const asked = await owner.ask('POST', '/api/people/invitations', { name: 'Nobody yet', role: 'reader', also: [] })
    ids.invitations = ((await asked.json()) as { id: string }).id
  })

  /** Nothing of anybody’s is named by these: the supplier’s stock is the same for all, faces go by what they are. */
  const nobodys = ['/api/supplier/[id]', '/api/faces/[hash]', '/api/kept/[kind]/[id]']
  const about = guarded.filter(each => each.path.includes('[id]') && !nobodys.includes(each.path))

  it.each(about)('$method $path: 404 for what is ours', async ({ method, path }) => {
    const kind = path.includes('/invitations/') ? 'invitations' : path.split('/')[2]!
    const id = ids[kind]
    expect(id, kind).toBeTruthy()
    const [status, said] = await theirs.says(method, addressOf(path, id), bodyFor(method, path))
    expect([status, said]).toEqual([404, expect.any(String)])
  })

  it('sees nothing of ours in any list, and we nothing of theirs', async () => {
    expect(await theirs.status('POST', '/api/folders', { name: 'Theirs alone' })).toBe(201)
    for (const path of [
      '/api/shelf',
      '/api/folders',
      '/api/houses',
      '/api/batches',
      '/api/records',
      '/api/census',
      '/api/trash',
      '/api/people',
      '/api/people/log',
      '/api/remarks',
    ]) {
      const [, said] = await theirs.says('GET', path, undefined)
      for (const word of ['Ours', 'Teal', 'Aldous', ids.documents]) expect(said, path).not.toContain(word)
    }
    expect((await owner.says('GET', '/api/folders', undefined))[1]).not.toContain('Theirs alone')
    expect(await theirs.get('/api/starts')).toEqual(noStarts)
    expect((await theirs.get<Me>('/api/me')).names).toEqual({ someone: 'Some One' })
  })
})

describe('a session', () => {
  const signIn = async (browser: Browser, said: object = {}) =>
    browser.status('POST', '/api/sign-in', { signIn: 'teal', passphrase, ...said })

  it('begins with a key of its own: one that somebody had before holds no longer', async () => {
    const browser = studio.browser()
    expect(await signIn(browser)).toBe(200)
    const before = browser.cookie
    expect(await signIn(browser)).toBe(200)
    expect(browser.cookie).not.toBe(before)
    const old = studio.browser()
    old.cookie = before
    expect(await old.status('GET', '/api/shelf')).toBe(401)
    // A key that a foreign page put there is not taken over.
    const fixed = studio.browser()
    fixed.cookie = 'morphene=chosen-by-somebody-else'
    expect(await signIn(fixed)).toBe(200)
    expect(fixed.cookie).not.toContain('chosen')
  })

  it('is over when it is ended, and when its time is', async () => {
    const [one, two, three] = [studio.browser(), studio.browser(), studio.browser()]
    for (const browser of [one, two, three]) expect(await signIn(browser)).toBe(200)
    const stolen = one.cookie
    expect(await one.status('POST', '/api/sign-out', {})).toBe(200)
    one.cookie = stolen
    expect(await one.status('GET', '/api/shelf')).toBe(401)
    // From another browser of theirs, too; not one of somebody else.
    const sessions = await two.get<Session[]>('/api/me/sessions')
    const other = sessions.find(each => !each.own)!
    expect(await owner.status('DELETE', `/api/me/sessions/${other.id}`)).toBe(404)
    expect(await two.status('DELETE', `/api/me/sessions/${other.id}`)).toBe(200)
    const own = (await two.get<Session[]>('/api/me/sessions')).find(each => each.own)!
    await knex('sessions')
      .where({ id: own.id })
      .update({ until: new Date(Date.now() - 1000) })
    expect(await two.status('GET', '/api/shelf')).toBe(401)
    const idle = studio.browser()
    await signIn(idle)
    await knex('sessions')
      .whereNot({ person: 'desk' })
      .update({ seen: new Date(Date.now() - 6 * 86_400_000) })
    expect(await idle.status('GET', '/api/shelf')).toBe(200)
    await knex('sessions')
      .whereNot({ person: 'desk' })
      .update({ seen: new Date(Date.now() - 8 * 86_400_000) })
    expect(await idle.status('GET', '/api/shelf')).toBe(401)
  })

  it('ends with a new passphrase, but for the one that chose it; the old one must be said', async () => {
    const [one, two] = [studio.browser(), studio.browser()]
    await signIn(one)
    await signIn(two)
    const change = { name: 'Jo Teal', signIn: 'teal', passphrase: 'gulls asleep on the white line' }
    expect(await one.says('PUT', '/api/me', { ...change, old: 'not that one at all' })).toEqual([
      422,
      expect.stringContaining('is another one'),
    ])
    expect(await one.status('PUT', '/api/me', { ...change, old: passphrase })).toBe(200)
    expect(await one.status('GET', '/api/shelf')).toBe(200)
    expect(await two.status('GET', '/api/shelf')).toBe(401)
    expect(await signIn(two)).toBe(401)
    expect(await signIn(two, { passphrase: change.passphrase })).toBe(200)
    expect(await one.status('PUT', '/api/me', { ...change, passphrase, old: change.passphrase })).toBe(200)
  })

  it('is not told apart by who is here and who is not, and not tried for ever', async () => {
    const said = await Promise.all(
      [{ signIn: 'teal' }, { signIn: 'nobody-of-that-name' }].map(each =>
        nobody().says('POST', '/api/sign-in', { passphrase: 'wrong wrong wrong', ...each }),
      ),
    )
    expect(said[0]).toEqual(said[1])
    expect(said[0]![0]).toBe(401)
    let refused = 0
    for (let count = 0; count < 14; count++)
      if (
        (await nobody().status('POST', '/api/sign-in', { signIn: 'guessed', passphrase: `guess number ${count}` })) ===
        429
      )
        refused++
    expect(refused).toBe(4)
  })

  it('comes by a link that an owner made, once, and older links hold no longer', async () => {
    const { people } = await owner.get<{ people: { id: string; signIn: string }[] }>('/api/people')
    const teal = people.find(each => each.signIn === 'teal')!
    const link = async () =>
      ((await (await owner.ask('POST', `/api/people/${teal.id}/link`, {})).json()) as { key: string }).key
    const [first, second] = [await link(), await link()]
    expect(await nobody().status('POST', '/api/come-in', { key: first })).toBe(404)
    const browser = studio.browser()
    expect(await browser.status('POST', '/api/come-in', { key: second })).toBe(200)
    expect((await browser.get<Me>('/api/me')).person!.name).toBe('Jo Teal')
    expect(await nobody().status('POST', '/api/come-in', { key: second })).toBe(404)
    const late = (await makeLink(actingAs(knex), teal.id))!
    await knex('invitations')
      .where({ person: teal.id })
      .update({ until: new Date(Date.now() - 1000) })
    expect(await nobody().status('POST', '/api/come-in', { key: late })).toBe(404)
  })

  it('ends at once with somebody’s access; what they made keeps their name', async () => {
    const { people, invitations } = await owner.get<{
      people: { id: string; signIn: string }[]
      invitations: { id: string }[]
    }>('/api/people')
    const teal = people.find(each => each.signIn === 'teal')!
    const browser = studio.browser()
    expect(await signIn(browser)).toBe(200)
    expect(await owner.status('DELETE', `/api/people/${teal.id}`)).toBe(200)
    expect(await browser.status('GET', '/api/shelf')).toBe(401)
    expect(await signIn(browser)).toBe(401)
    expect((await owner.get<Me>('/api/me')).names[teal.id]).toBe('Jo Teal')
    for (const each of invitations) expect(await owner.status('DELETE', `/api/people/invitations/${each.id}`)).toBe(200)
  })
})

describe('the log of people', () => {
  it('tells who came, who was refused and what rights were given, and goes out as CSV', async () => {
    const lines = await owner.get<{ what: string; about: string }[]>('/api/people/log')
    const kinds = new Set(lines.map(each => each.what))
    for (const what of [
      'signed in',
      'sign-in refused',
      'signed out',
      'invited',
      'joined',
      'rights changed',
      'person ended',
    ])
      expect(kinds).toContain(what)
    const csv = await (await owner.ask('GET', '/api/people/log?format=csv')).text()
    expect(csv.split('\r\n')[0]).toBe('when,who,what,about')
    expect(csv).toContain('Jo Teal: reader')
    // What was taken away is told by its address, never by words of a document; what was opened is not told.
    const { id } = await addDocument(actingAs(knex), {
      fileName: 'Taken.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({}),
    })
    const taken = async () =>
      (await owner.get<{ what: string; about: string }[]>('/api/people/log')).filter(
        each => each.what === 'taken' && each.about.includes(id),
      )
    expect(await owner.status('GET', `/api/documents/${id}/file`)).toBe(200)
    expect(await taken()).toEqual([])
    expect(await owner.status('GET', `/api/documents/${id}/file?download=1`)).toBe(200)
    expect((await taken()).map(each => each.about)).toEqual([`/api/documents/${id}/file`])
    expect(JSON.stringify(lines)).not.toContain(passphrase)
  })
})

describe('a version that is signed off', () => {
  it('tells who did and when, of the newest version alone; what comes later says that it was', async () => {
    const { id } = await addDocument(actingAs(knex), {
      fileName: 'Signed.odt',
      kind: 'text',
      signed: false,
      bytes: makeOdt({ body: '<text:p>Pier</text:p>' }),
    })
    const path = `/api/documents/${id}/sign-off`
    expect(await owner.says('POST', path, { version: 2 })).toEqual([
      409,
      expect.stringContaining('version 1 is the newest'),
    ])
    expect(await owner.status('POST', path, { version: 1 })).toBe(200)
    // Twice is once.
    expect(await owner.status('POST', path, { version: 1 })).toBe(200)
    const info = async () => owner.get<DocumentInfo>(`/api/documents/${id}`)
    expect((await info()).signOffs).toMatchObject([{ version: 1, person: 'desk' }])
    await addVersion(actingAs(knex), id, 1, {
      madeBy: 'edit',
      title: 'later',
      content: { bytes: makeOdt({ body: '<text:p>Quay</text:p>' }), ids: {} },
      plan: null,
    })
    expect(await info()).toMatchObject({ document: { version: 2 }, signOffs: [{ version: 1 }] })
    expect(await owner.status('DELETE', `${path}?version=2`)).toBe(404)
    expect(await owner.status('DELETE', `${path}?version=1`)).toBe(200)
    expect((await info()).signOffs).toEqual([])
    const kinds = (await owner.get<{ what: string }[]>('/api/people/log')).slice(0, 3).map(each => each.what)
    expect(kinds).toContain('sign-off taken back')
    expect(kinds).toContain('signed off')
  })
})

describe('a desk that is started to ask who is there', () => {
  it.each([
    ['--sign-in', { MORPHENE_SIGN_IN: '1' }],
    ['another address', { NITRO_HOST: '0.0.0.0' }],
  ])('lets nobody in without signing in, even with one person: %s', async (_, settings) => {
    const alone = 'morphene_asks_test'
    const own = await ownDatabase(alone)
    const other = beginServer(studio.port + 1, { MORPHENE_DB_NAME: alone, ...settings })
    const at = `http://127.0.0.1:${studio.port + 1}`
    try {
      expect(await until(async () => (await fetch(`${at}/api/health`)).ok, 30_000)).toBe(true)
      expect((await fetch(`${at}/api/shelf`)).status).toBe(401)
      const key = (await makeLink(actingAs(own), 'desk'))!
      const come = () =>
        fetch(`${at}/api/come-in`, {
          method: 'POST',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ key }),
        })
      const came = await come()
      expect(came.status).toBe(200)
      const cookie = came.headers.get('set-cookie')!.split(';', 1)[0]!
      expect((await fetch(`${at}/api/shelf`, { headers: { cookie } })).status).toBe(200)
      expect((await come()).status).toBe(404)
    } finally {
      await endServer(other)
      await dropDatabase(own, alone)
    }
  })
})

describe('a studio more', () => {
  it('has an owner of its own, who comes by a link and sees nothing that is there', async () => {
    const actor = await addStudio(knex, { id: 'third', name: 'Third studio', owner: 'T. Ridge' })
    const key = (await makeLink(actingAs(knex, actor), actor.person))!
    const ridge = studio.browser()
    expect(await ridge.status('POST', '/api/come-in', { key })).toBe(200)
    expect(await ridge.get<Me>('/api/me')).toMatchObject({ studio: 'Third studio', person: { name: 'T. Ridge' } })
    expect(await ridge.get('/api/folders')).toEqual([])
    expect(await ridge.status('PUT', '/api/people/studio', { name: 'Ridge and daughters' })).toBe(200)
    expect((await ridge.get<Me>('/api/me')).studio).toBe('Ridge and daughters')
    expect((await owner.get<Me>('/api/me')).studio).toBe('This desk')
  })
})
