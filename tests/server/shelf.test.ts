import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { actingAs } from '../../server/store/acting'
import { addDocument } from '../../server/store/documents'
import { addFolder } from '../../server/store/folders'
import { shelfPage } from '../../server/store/shelf'
import { addVersion, storeSurvey, versionRecord } from '../../server/store/versions'
import { shelfQuerySchema } from '../../shared/api'
import { makeOdt, paragraphStyle, sessionOf } from '../support/fixtures'
import { dropDatabase, ownDatabase } from './running'

const database = 'morphene_shelf_test'
let knex: Knex
const acting = () => actingAs(knex)
const bytes = makeOdt({ body: '<text:p>x</text:p>' })
const ids: Record<string, string> = {}
let folder = ''

beforeAll(async () => {
  knex = await ownDatabase(database)
  folder = (await addFolder(acting(), 'Harbour works'))!
  const { census } = sessionOf({
    styles: paragraphStyle('A', 'fo:font-family="Jost"'),
    body: '<text:p text:style-name="A">one</text:p>',
  }).detail
  const shapes = [
    { name: 'Pier.odt', title: 'The long pier', pages: 3, settled: 0.5 },
    { name: 'anchor.odt', title: 'Anchors', pages: 30, settled: 1 },
    { name: '100%_sure.odt', title: '', pages: 1, settled: 0.25 },
  ]
  for (const [index, { name, title, pages, settled }] of shapes.entries()) {
    const { id } = await addDocument(acting(), {
      fileName: name,
      kind: 'text',
      signed: false,
      bytes,
      folder: index === 1 ? folder : null,
    })
    ids[name] = id
    await storeSurvey(acting(), id, 1, { ...census, settled, document: { ...census.document, title, pages } }, '<svg/>')
    await knex('documents')
      .where({ id })
      .update({ changed: new Date(2026, 0, index + 1) })
  }
  // One that is not counted yet.
  ids['new.odt'] = (await addDocument(acting(), { fileName: 'new.odt', kind: 'text', signed: false, bytes })).id
})
afterAll(async () => {
  await dropDatabase(knex, database)
})

const names = async (query: Record<string, unknown>) => {
  const page = await shelfPage(acting(), shelfQuerySchema.parse(query))
  return { names: page.cards.map(card => card.fileName), total: page.total }
}

describe('the shelf', () => {
  it('comes in the order that is asked for; what is not counted stands last where counts are the order', async () => {
    expect((await names({})).names).toEqual(['new.odt', '100%_sure.odt', 'anchor.odt', 'Pier.odt'])
    expect((await names({ sort: 'name' })).names).toEqual(['100%_sure.odt', 'anchor.odt', 'new.odt', 'Pier.odt'])
    expect((await names({ sort: 'pages' })).names).toEqual(['anchor.odt', 'Pier.odt', '100%_sure.odt', 'new.odt'])
    expect((await names({ sort: 'settled' })).names).toEqual(['100%_sure.odt', 'Pier.odt', 'anchor.odt', 'new.odt'])
  })

  it('comes in pages that neither overlap nor leave anything out', async () => {
    const first = await names({ sort: 'name', count: 3 })
    const second = await names({ sort: 'name', count: 3, start: 3 })
    expect([first.total, first.names.length, second.names]).toEqual([4, 3, ['Pier.odt']])
    expect(new Set([...first.names, ...second.names]).size).toBe(4)
  })

  it('is searched by words in names, titles, folders and families, each of which must be there', async () => {
    expect((await names({ find: 'PIER' })).names).toEqual(['Pier.odt'])
    expect((await names({ find: 'long pier' })).names).toEqual(['Pier.odt'])
    expect((await names({ find: 'pier anchors' })).total).toBe(0)
    expect((await names({ find: 'harbour' })).names).toEqual(['anchor.odt'])
    expect((await names({ find: 'jost' })).total).toBe(3)
    expect((await names({ find: 'jost harbour' })).names).toEqual(['anchor.odt'])
  })

  it('takes signs of patterns as what they are', async () => {
    expect((await names({ find: '%_' })).names).toEqual(['100%_sure.odt'])
    expect((await names({ find: '\\' })).total).toBe(0)
  })

  it('gives one folder, or certain documents', async () => {
    expect(await names({ folder })).toEqual({ names: ['anchor.odt'], total: 1 })
    expect((await names({ ids: `${ids['Pier.odt']},${ids['new.odt']}` })).names).toEqual(['new.odt', 'Pier.odt'])
  })

  it('says of each card what was counted last, and of which version', async () => {
    const card = async () => (await shelfPage(acting(), shelfQuerySchema.parse({ ids: ids['Pier.odt'] }))).cards[0]!
    expect(await card()).toMatchObject({
      title: 'The long pier',
      pages: 3,
      settled: 0.5,
      counted: 1,
      picture: expect.stringMatching(/^[0-9a-f]{16}$/) as string,
      folder: null,
      faces: [{ family: 'Jost', status: 'present' }],
    })
    const { created } = await addVersion(acting(), ids['Pier.odt']!, 1, {
      madeBy: 'change',
      title: 't',
      content: { bytes, ids: {} },
      plan: null,
    })
    const { picture } = await card()
    expect(await card()).toMatchObject({ version: 2, counted: 1, pages: 3, settled: 0.5, picture, changed: created })
    const record = (await versionRecord(acting(), ids['Pier.odt']!, 1))!
    await storeSurvey(acting(), ids['Pier.odt']!, 2, { ...record.census!, settled: 0.75 }, '<svg>2</svg>')
    expect(await card()).toMatchObject({ counted: 2, settled: 0.75 })
    expect((await card()).picture).not.toBe(picture)
    // A count that comes late does not take its place.
    await storeSurvey(acting(), ids['Pier.odt']!, 1, record.census!, '<svg/>')
    expect(await card()).toMatchObject({ counted: 2, settled: 0.75 })
    // Undoing shows the earlier content: it is counted already.
    await addVersion(acting(), ids['Pier.odt']!, 2, { madeBy: 'undo', title: 'u', content: { state: 1 }, plan: null })
    expect(await card()).toMatchObject({ version: 3, counted: 3, pages: 3, settled: 0.5, picture })
  })

  it('refuses what is no query', () => {
    for (const query of [{ sort: 'size' }, { count: 0 }, { count: 201 }, { ids: 'x' }, { folder: 'Winter' }])
      expect(shelfQuerySchema.safeParse(query).success).toBe(false)
  })
})
