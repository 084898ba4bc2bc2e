import { randomUUID } from 'node:crypto'
import type { Folder } from '../../shared/api'
import { deskStartsSchema, noStarts, type DeskStarts } from '../../core/change/defaults/desk-starts'
import { rightsIn, roles, type FolderMember, type PersonRole } from '../../shared/people'
import type { Right } from '../../shared/rights'
import { atOnce, ownDocuments, withinReach, type Acting } from './acting'
import { tellAudit } from './audit'

/** The folders that the actor sees by name, with how many documents lie in each, and who else sees those that are closed. */
export async function listFolders(acting: Acting): Promise<Folder[]> {
  const { knex, actor } = acting
  const found = knex('folders')
    .leftJoin('documents', join => join.on('documents.folder', 'folders.id').andOnNull('documents.trashed'))
    .where('folders.owner', actor.owner)
  const rows = await withinReach(acting, found, 'folders.id')
    .groupBy('folders.id', 'folders.name', 'folders.keep_days')
    .orderBy('folders.name')
    .select<(Omit<Folder, 'documents' | 'members' | 'rights' | 'owns'> & { documents: number | string })[]>(
      'folders.id as id',
      'folders.name as name',
      'folders.keep_days as keepDays',
      knex.raw('count(documents.id) as documents'),
    )
  const rolesIn = await folderRolesOf(acting)
  const members = await knex('folder_members')
    .whereIn(
      'folder',
      rows.map(row => row.id),
    )
    .orderBy('person')
    .select<(FolderMember & { folder: string })[]>('folder', 'person', 'role')
  return rows.map(row => ({
    ...row,
    documents: Number(row.documents),
    members: members.filter(each => each.folder === row.id).map(({ person, role }) => ({ person, role })),
    rights: rightsIn([...actor.rights], rolesIn.get(row.id) ?? null),
    owns: actor.rights.has('people') || (actor.rights.has('arrange') && rolesIn.get(row.id) === 'owner'),
  }))
}

/** What the actor is in folders of which they are a member, by their ids; whoever sees to people is none of them. */
async function folderRolesOf({ knex, actor }: Acting): Promise<ReadonlyMap<string, PersonRole>> {
  if (actor.rights.has('people')) return new Map()
  const rows = await knex('folder_members')
    .where({ person: actor.person })
    .select<{ folder: string; role: PersonRole }[]>('folder', 'role')
  return new Map(rows.map(({ folder, role }) => [folder, role]))
}

/** What the actor may do with what lies in a folder, or in none. */
export async function rightsInFolder(acting: Acting, folder: string | null): Promise<readonly Right[]> {
  const own = [...acting.actor.rights]
  return folder === null ? own : rightsIn(own, (await folderRolesOf(acting)).get(folder) ?? null)
}

/** A folder that the actor reaches, by its id. */
export async function findFolder(
  acting: Acting,
  id: string,
): Promise<{ readonly id: string; readonly name: string } | undefined> {
  const { knex, actor } = acting
  return withinReach(acting, knex('folders').where({ id, owner: actor.owner }), 'folders.id').first<
    { id: string; name: string } | undefined
  >('id', 'name')
}

/**
 * Says who sees a folder and what lies in it, and what they do there, beside those who see to people; nobody in particular
 * opens it to all. Says where there is no such folder or somebody does not work here, and where the actor is no owner of it.
 */
export async function setFolderMembers(
  acting: Acting,
  id: string,
  people: readonly FolderMember[],
): Promise<'set' | 'gone' | 'not yours'> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    const folder = await findFolder(within, id)
    if (!folder) return 'gone'
    if (!actor.rights.has('people') && (await folderRolesOf(within)).get(id) !== 'owner') return 'not yours'
    const members = [...new Map(people.map(each => [each.person, each.role]))]
    const here = await knex('people')
      .whereIn(
        'id',
        members.map(([person]) => person),
      )
      .where({ owner: actor.owner })
      .whereNull('ended')
      .select('id')
    if (here.length < members.length) return 'gone'
    await knex('folder_members').where({ folder: id }).delete()
    if (members.length > 0)
      await knex('folder_members').insert(members.map(([person, role]) => ({ folder: id, person, role })))
    const count = (role: PersonRole) => members.filter(each => each[1] === role).length
    const told = roles.flatMap(role => (count(role) === 0 ? [] : [`${role} ${count(role)}`])).join(', ')
    await tellAudit(within, 'folder members', `${folder.name}: ${told || 'everybody'}`)
    return 'set'
  })
}

/** Makes a folder and answers its id; null where there is one of that name. */
export async function addFolder(acting: Acting, name: string): Promise<string | null> {
  const { owner } = acting.actor
  return atOnce(acting, async ({ knex }) => {
    if (await knex('folders').where({ owner, name }).first('id')) return null
    const id = randomUUID()
    await knex('folders').insert({ id, owner, name, created: new Date() })
    return id
  })
}

/** Gives a folder another name; says where there is no such folder, or one of that name already. */
export async function renameFolder(acting: Acting, id: string, name: string): Promise<'renamed' | 'gone' | 'taken'> {
  const { owner } = acting.actor
  return atOnce(acting, async within => {
    const { knex } = within
    if (!(await findFolder(within, id))) return 'gone'
    if (await knex('folders').where({ owner, name }).whereNot({ id }).first('id')) return 'taken'
    await knex('folders').where({ id, owner }).update({ name })
    return 'renamed'
  })
}

/**
 * Says for how many days after its last change a document of a folder is kept, from now on; null for good. False where
 * there is no such folder.
 */
export async function keepInFolder(acting: Acting, id: string, days: number | null): Promise<boolean> {
  const { knex, actor } = acting
  if (!(await findFolder(acting, id))) return false
  const done: number = await knex('folders')
    .where({ id, owner: actor.owner })
    .update({ keep_days: days, keep_since: days === null ? null : new Date() })
  return done > 0
}

/**
 * Takes a folder away with its defaults and stand-ins; its documents stay on the shelf, outside of any folder. False
 * where there is none.
 */
export async function removeFolder(acting: Acting, id: string): Promise<boolean> {
  const { owner } = acting.actor
  return atOnce(acting, async within => {
    const { knex } = within
    if (!(await findFolder(within, id))) return false
    await knex('documents').where({ owner, folder: id }).update({ folder: null })
    await knex('starts').where({ owner, folder: id }).delete()
    await knex('stand_ins').where({ owner, level: 'folder', target: id }).delete()
    await knex('folders').where({ owner, id }).delete()
    return true
  })
}

/** Puts a document into a folder, or with null out of any; false where there is no such folder. */
export async function moveToFolder(acting: Acting, document: string, folder: string | null): Promise<boolean> {
  return atOnce(acting, async within => {
    if (folder !== null && !(await findFolder(within, folder))) return false
    await ownDocuments(within).where({ id: document }).update({ folder, placed: new Date() })
    return true
  })
}

/** What new documents begin with: in a folder by its id, or with null on the whole desk. */
export async function startsOf({ knex, actor }: Acting, folder: string | null): Promise<DeskStarts> {
  const row = await knex('starts')
    .where({ owner: actor.owner, folder: folder ?? '' })
    .first<{ starts: string } | undefined>('starts')
  return row ? deskStartsSchema.parse(JSON.parse(row.starts)) : noStarts
}

/** Keeps what new documents begin with. */
export async function storeStarts({ knex, actor }: Acting, folder: string | null, starts: DeskStarts): Promise<void> {
  await knex('starts')
    .insert({ owner: actor.owner, folder: folder ?? '', starts: JSON.stringify(starts), changed: new Date() })
    .onConflict(['owner', 'folder'])
    .merge()
}
