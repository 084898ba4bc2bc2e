import type { StandIn } from '../../core/font/library'
import type { Acting } from './acting'
import { issuedHouse } from './houses'

/** Whose stand-ins they are: a document's own, those of the folder it lies in, or the desk's. */
export type StandInLevel = 'document' | 'folder' | 'desk'

/** What they are chosen for: a document or a folder by its id, or the whole desk. */
export type StandInTarget = { readonly level: 'document' | 'folder'; readonly id: string } | { readonly level: 'desk' }

interface Row {
  readonly family: string
  readonly script: StandIn['script']
  readonly face_family: string
}

const rowKey = ({ actor }: Acting, target: StandInTarget) => ({
  owner: actor.owner,
  level: target.level,
  target: target.level === 'desk' ? '' : target.id,
})

/** The stand-ins of one level, in a stable order. */
export async function standInsOf(acting: Acting, target: StandInTarget): Promise<StandIn[]> {
  const rows = await acting
    .knex('stand_ins')
    .where(rowKey(acting, target))
    .orderBy(['family', 'script'])
    .select<Row[]>('*')
  return rows.map(row => ({ family: row.family, script: row.script, to: row.face_family }))
}

/** Those of a house in the version that was issued last; none where there is none. */
export const houseStandIns = async (acting: Acting, house: string | null): Promise<readonly StandIn[]> =>
  house === null ? [] : ((await issuedHouse(acting, house))?.standIns ?? [])

/** All that hold for a document, the strongest first: its own, its folder's, its house's, the desk's. */
export async function standInsFor(
  acting: Acting,
  document: { readonly id: string; readonly folder: string | null; readonly house: string | null },
): Promise<StandIn[]> {
  return [
    ...(await standInsOf(acting, { level: 'document', id: document.id })),
    ...(document.folder === null ? [] : await standInsOf(acting, { level: 'folder', id: document.folder })),
    ...(await houseStandIns(acting, document.house)),
    ...(await standInsOf(acting, { level: 'desk' })),
  ]
}

/** Sets or, with `to` null, takes away one stand-in. */
export async function setStandIn(
  acting: Acting,
  target: StandInTarget,
  standIn: { readonly family: string; readonly script: StandIn['script']; readonly to: string | null },
): Promise<void> {
  const { knex } = acting
  const key = { ...rowKey(acting, target), family: standIn.family, script: standIn.script }
  if (standIn.to === null) await knex('stand_ins').where(key).delete()
  else
    await knex('stand_ins')
      .insert({ ...key, face_family: standIn.to })
      .onConflict(['owner', 'level', 'target', 'family', 'script'])
      .merge()
}
