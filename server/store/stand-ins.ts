import type { Knex } from 'knex'
import type { StandIn } from '../../core/font/library'

/** Whose stand-ins they are: a document's own, those of the folder it lies in, which is its house, or the desk's. */
export type StandInLevel = 'document' | 'folder' | 'desk'

interface Row {
  readonly level: StandInLevel
  readonly owner: string
  readonly family: string
  readonly script: StandIn['script']
  readonly face_family: string
}

/** The stand-ins of one level, in a stable order. */
export async function standInsOf(knex: Knex, level: StandInLevel, owner: string): Promise<StandIn[]> {
  const rows = await knex('stand_ins').where({ level, owner }).orderBy(['family', 'script']).select<Row[]>('*')
  return rows.map(row => ({ family: row.family, script: row.script, to: row.face_family }))
}

/** All that hold for a document, the strongest first: its own, its folder's, the desk's. */
export async function standInsFor(
  knex: Knex,
  document: { readonly id: string; readonly folder: string | null },
): Promise<StandIn[]> {
  return [
    ...(await standInsOf(knex, 'document', document.id)),
    ...(document.folder === null ? [] : await standInsOf(knex, 'folder', document.folder)),
    ...(await standInsOf(knex, 'desk', '')),
  ]
}

/** Sets or, with `to` null, takes away one stand-in. */
export async function setStandIn(
  knex: Knex,
  level: StandInLevel,
  owner: string,
  standIn: { readonly family: string; readonly script: StandIn['script']; readonly to: string | null },
): Promise<void> {
  const key = { level, owner, family: standIn.family, script: standIn.script }
  if (standIn.to === null) await knex('stand_ins').where(key).delete()
  else
    await knex('stand_ins')
      .insert({ ...key, face_family: standIn.to })
      .onConflict(['level', 'owner', 'family', 'script'])
      .merge()
}
