import { countAnew } from './faces'
import { randomUUID } from 'node:crypto'
import type { HouseInfo, HouseRow, HouseVersionRow, LinkedDocument, MeasuredShare, ShareOnDay } from '../../shared/api'
import { houseSchema, type House } from '../../core/house/house'
import { houseChanges } from '../../core/house/compare'
import { atOnce, ownDocuments, type Acting } from './acting'

/*
 * Houses: one that is worked on, and versions that were issued. Only what was issued reaches documents.
 */

const columns = {
  id: 'houses.id',
  name: 'houses.name',
  revision: 'houses.revision',
  issued: 'houses.issued',
  trialUntil: 'houses.trial_until',
  changed: 'houses.changed',
}

const read = (data: string): House => houseSchema.parse(JSON.parse(data))

/** As many houses are kept. */
const houseLimit = 200

/** The actor's houses by name, with how many documents are linked to each. */
export async function listHouses({ knex, actor }: Acting): Promise<HouseRow[]> {
  const rows = await knex('houses')
    .leftJoin('documents', join => join.on('documents.house', 'houses.id').andOnNull('documents.trashed'))
    .where('houses.owner', actor.owner)
    .groupBy('houses.id')
    .orderBy('houses.name')
    .select<(HouseRow & { documents: number | string })[]>(columns, knex.raw('count(documents.id) as documents'))
  return rows.map(row => ({ ...row, documents: Number(row.documents) }))
}

/** A house of the actor's with all its versions; undefined where there is none. */
export async function findHouse(acting: Acting, id: string): Promise<HouseInfo | undefined> {
  const { knex, actor } = acting
  const row = await knex('houses')
    .where({ id, owner: actor.owner })
    .first<(HouseRow & { data: string }) | undefined>({ ...columns, data: 'houses.data' })
  if (!row) return undefined
  const { data, ...house } = row
  const versions = await knex('house_versions')
    .where({ house: id })
    .orderBy('number', 'desc')
    .select<(Omit<HouseVersionRow, 'changes'> & { changes: string })[]>('number', 'author', 'issued', 'changes')
  const [documents] = await ownDocuments(acting).clearSelect().where({ house: id }).count<{ n: number }[]>({ n: 'id' })
  const working = read(data)
  const newest = house.issued === 0 ? null : await houseVersion(acting, id, house.issued)
  return {
    ...house,
    documents: Number(documents!.n),
    working,
    pending: JSON.stringify(newest) === JSON.stringify(working) ? [] : houseChanges(newest ?? null, working),
    versions: versions.map(each => ({ ...each, changes: JSON.parse(each.changes) as string[] })),
  }
}

/** Keeps a new house and answers its id; null where there are as many as are kept. */
export async function addHouse(acting: Acting, house: House, trialUntil: string | null): Promise<string | null> {
  const { owner } = acting.actor
  return atOnce(acting, async ({ knex }) => {
    const counted = await knex('houses').where({ owner }).count<{ n: number }[]>({ n: 'id' })
    if (Number(counted[0]!.n) >= houseLimit) return null
    const id = randomUUID()
    const created = new Date()
    await knex('houses').insert({
      id,
      owner,
      name: house.name,
      data: JSON.stringify(house),
      revision: 1,
      issued: 0,
      trial_until: trialUntil,
      created,
      changed: created,
    })
    return id
  })
}

/** Keeps the working house anew, where nobody did since: how it went, and the revision it is now. */
export async function changeHouse(
  acting: Acting,
  id: string,
  {
    house,
    trialUntil,
    revision,
  }: { readonly house: House; readonly trialUntil: string | null; readonly revision: number },
): Promise<'changed' | 'gone' | 'behind'> {
  const { owner } = acting.actor
  return atOnce(acting, async ({ knex }) => {
    const row = await knex('houses')
      .where({ id, owner })
      .forUpdate()
      .first<{ revision: number } | undefined>('revision')
    if (!row) return 'gone'
    if (row.revision !== revision) return 'behind'
    await knex('houses')
      .where({ id })
      .update({
        name: house.name,
        data: JSON.stringify(house),
        trial_until: trialUntil,
        revision: revision + 1,
        changed: new Date(),
      })
    return 'changed'
  })
}

/** Lets go of a house with its versions; its documents stay as they are, linked to none. Whether it was there. */
export async function removeHouse(acting: Acting, id: string): Promise<boolean> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    if ((await standInsWord(within, id)) !== '[]') await countAnew(within, { house: id })
    return (await knex('houses').where({ id, owner: actor.owner }).delete()) > 0
  })
}

/** Issues the working house as its next version: the number it has then. */
export async function issueHouse(
  acting: Acting,
  id: string,
  revision: number,
): Promise<'gone' | 'behind' | 'same' | { readonly number: number }> {
  const { owner, person } = acting.actor
  return atOnce(acting, async within => {
    const { knex } = within
    const row = await knex('houses')
      .where({ id, owner })
      .forUpdate()
      .first<{ revision: number; issued: number; data: string } | undefined>('revision', 'issued', 'data')
    if (!row) return 'gone'
    if (row.revision !== revision) return 'behind'
    const before = row.issued === 0 ? null : ((await houseVersion(within, id, row.issued)) ?? null)
    const house = read(row.data)
    if (JSON.stringify(before) === JSON.stringify(house)) return 'same'
    const number = row.issued + 1
    await knex('house_versions').insert({
      house: id,
      number,
      data: row.data,
      changes: JSON.stringify(houseChanges(before, house)),
      author: person,
      issued: new Date(),
    })
    await knex('houses').where({ id }).update({ issued: number })
    // What is absent is shown by others where its stand-ins changed.
    if (JSON.stringify(before?.standIns ?? []) !== JSON.stringify(house.standIns))
      await countAnew(within, { house: id })
    return { number }
  })
}

/** A house as it was issued; undefined where there is no such version. */
export async function houseVersion({ knex, actor }: Acting, id: string, number: number): Promise<House | undefined> {
  const row = await knex('house_versions')
    .join('houses', 'houses.id', 'house_versions.house')
    .where({ 'houses.id': id, 'houses.owner': actor.owner, 'house_versions.number': number })
    .first<{ data: string } | undefined>('house_versions.data')
  return row && read(row.data)
}

/** A house as it was issued last; undefined where it was not yet, or is not there. */
export async function issuedHouse({ knex, actor }: Acting, id: string): Promise<House | undefined> {
  const row = await knex('house_versions')
    .join('houses', 'houses.id', 'house_versions.house')
    .where({ 'houses.id': id, 'houses.owner': actor.owner })
    .where('house_versions.number', knex.ref('houses.issued'))
    .first<{ data: string } | undefined>('house_versions.data')
  return row && read(row.data)
}

/** The stand-ins of a house as one word, by which it is seen whether they differ. */
const standInsWord = async (acting: Acting, id: string | null): Promise<string> =>
  JSON.stringify(id === null ? [] : ((await issuedHouse(acting, id))?.standIns ?? []))

/** Links a document to a house, or with null to none; false where there is no such house. */
export async function linkHouse(acting: Acting, document: string, house: string | null): Promise<boolean> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    if (house !== null && !(await knex('houses').where({ id: house, owner: actor.owner }).first('id'))) return false
    const before = await ownDocuments(within)
      .clearSelect()
      .where({ id: document })
      .first<{ house: string | null } | undefined>('documents.house')
    await ownDocuments(within).clearSelect().where({ id: document }).update({ house })
    // Stand-ins come and go with a house.
    const [were, are] = [await standInsWord(within, before?.house ?? null), await standInsWord(within, house)]
    if (were !== are) await countAnew(within, { id: document })
    return true
  })
}

/** The documents that are linked to a house, with how much of each is to style by its version of a number. */
export async function linkedDocuments(acting: Acting, house: string, number: number): Promise<LinkedDocument[]> {
  const { knex } = acting
  const rows = await ownDocuments(acting)
    .clearSelect()
    .where('documents.house', house)
    .leftJoin('style_shares', join =>
      join
        .on('style_shares.document', 'documents.id')
        .andOn('style_shares.version', 'documents.version')
        .andOn('style_shares.house', 'documents.house')
        .andOn('style_shares.number', knex.raw('?', [number])),
    )
    .orderBy('documents.file_name')
    .select({
      id: 'documents.id',
      fileName: 'documents.file_name',
      kind: 'documents.kind',
      version: 'documents.version',
      characters: 'style_shares.characters',
      toStyle: 'style_shares.to_style',
      roles: 'style_shares.roles',
      dressed: 'style_shares.dressed',
    })
  type Row = Omit<LinkedDocument, 'share'> & {
    characters: number | null
    toStyle: number
    roles: string
    dressed: number | null
  }
  return (rows as Row[]).map(({ characters, toStyle, roles, dressed, ...document }) => ({
    ...document,
    share:
      characters === null ? null : { characters, toStyle, roles: JSON.parse(roles) as MeasuredShare['roles'], dressed },
  }))
}

/** Keeps how much of a version of a document is to style. */
export async function storeShare(
  acting: Acting,
  of: { readonly document: string; readonly version: number; readonly house: string; readonly number: number },
  { characters, toStyle, roles, dressed }: MeasuredShare,
): Promise<void> {
  await atOnce(acting, ({ knex }) =>
    knex('style_shares')
      .insert({ ...of, characters, to_style: toStyle, roles: JSON.stringify(roles), dressed, measured: new Date() })
      .onConflict(['document', 'version', 'house', 'number'])
      .merge(),
  )
}

/**
 * How much of the documents that are linked to a house was to style, day by day: of each document what was measured last
 * until then.
 */
export async function sharesByDay(acting: Acting, house: string): Promise<ShareOnDay[]> {
  const rows = (await ownDocuments(acting)
    .clearSelect()
    .join('style_shares', 'style_shares.document', 'documents.id')
    .where({ 'style_shares.house': house, 'documents.house': house })
    .orderBy('style_shares.measured')
    .limit(20_000)
    .select({
      document: 'style_shares.document',
      characters: 'style_shares.characters',
      toStyle: 'style_shares.to_style',
      measured: 'style_shares.measured',
    })) as { document: string; characters: number; toStyle: number; measured: Date }[]
  const days = new Map<string, ShareOnDay>()
  const last = new Map<string, { characters: number; toStyle: number }>()
  for (const { document, characters, toStyle, measured } of rows) {
    last.set(document, { characters, toStyle })
    const day = measured.toISOString().slice(0, 10)
    const all = [...last.values()]
    days.set(day, {
      day,
      characters: all.reduce((sum, each) => sum + each.characters, 0),
      toStyle: all.reduce((sum, each) => sum + each.toStyle, 0),
    })
  }
  return [...days.values()]
}
