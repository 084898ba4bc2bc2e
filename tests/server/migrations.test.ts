import type { Knex } from 'knex'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { recordCsv } from '../../core/change/record-csv'
import { registry } from '../../core/change/registry'
import { findBatch } from '../../server/store/batches'
import { migrate } from '../../server/store/database'
import { actingAs } from '../../server/store/acting'
import { listVersions, versionRecord } from '../../server/store/versions'
import { listKept } from '../../server/store/kept'
import { kept } from '../../server/store/migrations/007-kept'
import { migrations } from '../../server/store/migrations/list'
import { bareDatabase, dropDatabase } from './running'

let knex: Knex
const acting = () => actingAs(knex)
const id = '00000000-0000-4000-8000-000000000001'
const source = (list: typeof migrations): Knex.MigrationSource<(typeof migrations)[number]> => ({
  getMigrations: () => Promise.resolve(list),
  getMigrationName: each => each.name,
  getMigration: each => Promise.resolve(each),
})

/** A plan of a swap as it was kept before all kinds went by one door. */
const oldSwap = {
  kind: 'swap',
  title: 'Skerrow gives way to Work Sans',
  request: {
    wishes: [{ from: { family: 'Skerrow' }, to: { family: 'Work Sans' } }],
    struck: ['declarations', 'chart|Object 1|Skerrow'],
    faces: { 'Skerrow|Bold|western': 'SemiBold', 'Jost|Bold|western': 'Black' },
    symbols: true,
    kept: ['paragraph|Notice'],
    spared: [{ part: 'content.xml', node: 7 }],
    repairs: [{ kind: 'tracking', part: 'content.xml', node: 9, amount: -5 }],
  },
  mappings: [
    {
      key: 'Skerrow|Bold|western',
      from: { family: 'Skerrow', style: 'Bold', weight: 700, italic: false },
      to: { family: 'Work Sans', style: 'SemiBold', weight: 600, italic: false, hash: 'x' },
      same: false,
      note: 'chosen',
      characters: 12,
    },
  ],
  rows: [
    {
      id: 'style|paragraph Notice|Skerrow',
      kind: 'style',
      title: 'Paragraph style Notice',
      count: 3,
      characters: 40,
      before: 'Skerrow',
      after: 'Work Sans',
      included: true,
      leftOut: null,
      places: [{ part: 'styles.xml', node: 4, attribute: 'style:font-name' }],
    },
  ],
  groups: [{ id: 'paragraph|Notice', style: 'Notice', role: 'note', characters: 40, kept: false }],
  sizes: [],
  missingGlyphs: [],
  left: [{ what: 'Charts', reason: 'struck', count: 1 }],
  stale: ['the thumbnail'],
  places: 3,
  characters: 40,
  operations: [],
  effects: null,
}
const recast = {
  find: {
    words: { text: 'a', expression: false, matchCase: false, wholeWords: false },
    look: {},
    scope: { kind: 'document' },
  },
  change: { words: 'b' },
  colors: [],
  struck: [],
}
const styles = {
  wishes: [{ type: 'settle', scope: { kind: 'document' }, groups: ['size'], keep: [], idleOnly: false }],
  struck: ['settle|text|x|y|z'],
}

beforeAll(async () => {
  knex = await bareDatabase('morphene_migrations_test')
  await knex.migrate.latest({ migrationSource: source(migrations.slice(0, 3)) })
  const created = new Date()
  await knex('documents').insert({ id, file_name: 'Old.odt', kind: 'text', signed: false, version: 4, created })
  const version = (number: number, made_by: string, plan: object | null) => ({
    document: id,
    number,
    state: number,
    made_by,
    title: `v${number}`,
    pieces: '[]',
    ids: '{}',
    operations: plan && '[]',
    plan: plan && JSON.stringify(plan),
    created,
  })
  const plain = { rows: [], left: [], stale: [], places: 0, characters: 0, operations: [], effects: null }
  await knex('versions').insert([
    version(1, 'upload', null),
    version(2, 'swap', oldSwap),
    version(3, 'recast', {
      ...plain,
      kind: 'recast',
      title: 'Recast 1 place',
      sentence: 'Find “a”, and write “b”.',
      matches: 1,
      request: recast,
      rows: [{ ...oldSwap.rows[0], id: 'm|content.xml#3@0', kind: undefined, page: 2 }],
    }),
    version(4, 'styles', {
      ...plain,
      kind: 'style',
      title: 'Settled size in 2 places',
      request: styles,
      made: [{ family: 'text', name: 'A', displayName: 'A' }],
    }),
  ])
  await knex('kept_wishes').insert({ id, kind: 'recast', name: 'Letters', request: JSON.stringify(recast), created })
  await knex('set_pieces').insert({
    id: id.replace(/1$/, '2'),
    heading: 'Boxes',
    name: 'Notice',
    piece: '{"width":1}',
    created,
  })
  await knex('batches').insert({
    id,
    kind: 'swap',
    title: 'Old plan',
    state: 'done',
    request: JSON.stringify(oldSwap.request),
    created,
  })
  await migrate(knex)
})
afterAll(async () => {
  await dropDatabase(knex, 'morphene_migrations_test')
})

describe('what was kept before all wishes went by one door', () => {
  it('is read as it is asked today: kept wishes run again, requests of plans over documents stay', async () => {
    const [kept] = await listKept(acting(), 'wish')
    expect(registry.schema.parse(kept!.data)).toEqual(kept!.data)
    expect(kept!.data.wishes).toMatchObject([{ type: 'recast', change: { words: 'b' } }])
    const { request } = (await findBatch(acting(), id))!
    expect(registry.schema.safeParse(request).success).toBe(true)
    expect(request.wishes).toMatchObject([
      { type: 'swap', symbols: true, faces: [{ style: 'Bold', slot: 'western', to: 'SemiBold' }] },
      { type: 'repair', repair: { kind: 'tracking', node: 9 } },
    ])
    expect(request.leftOut).toContainEqual({ what: 'declarations' })
    expect(request.leftOut).toContainEqual({ what: 'paragraph', part: 'content.xml', node: 7 })
  })

  it('lies in one table now, and goes back into those of before', async () => {
    expect((await listKept(acting(), 'frame'))[0]).toMatchObject({
      heading: 'Boxes',
      name: 'Notice',
      data: { width: 1 },
    })
    await knex.transaction(kept.down)
    expect(await knex('kept_wishes').pluck('name')).toEqual(['Letters'])
    expect(await knex('set_pieces').first('heading', 'name', 'piece')).toEqual({
      heading: 'Boxes',
      name: 'Notice',
      piece: '{"width":1}',
    })
    await knex.transaction(kept.up)
    expect(await listKept(acting(), 'wish')).toHaveLength(1)
  })

  it('stays readable as a record: rows, faces, sentences, what stayed', async () => {
    expect((await listVersions(acting(), id)).map(version => version.madeBy)).toEqual([
      'upload',
      'change',
      'change',
      'change',
    ])
    const [swap, recasted, settled] = await Promise.all(
      [2, 3, 4].map(async number => (await versionRecord(acting(), id, number))!.plan!),
    )
    expect(swap!.rows).toMatchObject([
      { stage: 'style', title: 'Paragraph style Notice', count: 3, reason: null, included: true },
    ])
    expect(swap!.mappings[0]!.from).toMatchObject({ style: 'Bold', slot: 'western' })
    expect(recasted).toMatchObject({ sentences: ['Find “a”, and write “b”.'], rows: [{ page: 2 }] })
    expect(settled).toMatchObject({ title: 'Settled size in 2 places', made: [{ name: 'A' }], mappings: [] })
    const csv = recordCsv(swap!, { fileName: 'Old.odt', version: 2, made: new Date(0) })
    expect(csv).toContain('face,,,12,Skerrow Bold,Work Sans SemiBold,chosen')
    expect(csv).toContain('dropped,the thumbnail')
  })
})
