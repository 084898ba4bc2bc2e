import { pinsSchema, usualWays, waysSchema, type Pins, type Ways } from '../../shared/ways'
import { ownDocuments, type Acting } from './acting'

/** How the actor likes to work. */
export async function waysOf({ knex, actor }: Acting): Promise<Ways> {
  const row = await knex('people')
    .where({ id: actor.person, owner: actor.owner })
    .first<{ ways: string | null } | undefined>('ways')
  return row?.ways ? waysSchema.parse(JSON.parse(row.ways)) : usualWays
}

export async function setWays({ knex, actor }: Acting, ways: Ways): Promise<void> {
  await knex('people')
    .where({ id: actor.person, owner: actor.owner })
    .update({ ways: JSON.stringify(ways) })
}

/** The keys that the actor gave to styles of a document; null where they see none of that id. */
export async function pinsOf(acting: Acting, document: string): Promise<Pins | null> {
  if (!(await ownDocuments(acting).where({ id: document }).first('id'))) return null
  const row = await acting
    .knex('pins')
    .where({ document, person: acting.actor.person })
    .first<{ pins: string } | undefined>('pins')
  return row ? pinsSchema.parse(JSON.parse(row.pins)) : {}
}

/** Keeps them; false where the actor sees no document of that id. */
export async function setPins(acting: Acting, document: string, pins: Pins): Promise<boolean> {
  if (!(await ownDocuments(acting).where({ id: document }).first('id'))) return false
  const { knex, actor } = acting
  await knex('pins')
    .insert({ document, person: actor.person, pins: JSON.stringify(pins) })
    .onConflict(['document', 'person'])
    .merge()
  return true
}
