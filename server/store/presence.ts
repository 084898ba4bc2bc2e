import { atOnce, ownDocuments, type Acting } from './acting'

/** Whoever said nothing for longer is not there any more: two words of a page may be lost. Milliseconds. */
export const presentFor = 60_000

/** Says that the actor is at a document. Answers who else is, those who came last first; null where there is none such. */
export async function beAt(acting: Acting, document: string, now = new Date()): Promise<string[] | null> {
  return atOnce(acting, async within => {
    const { knex, actor } = within
    if (!(await ownDocuments(within).where({ id: document }).first())) return null
    await knex('presence')
      .insert({ document, person: actor.person, seen: now })
      .onConflict(['document', 'person'])
      .merge(['seen'])
    const others = await knex('presence')
      .where({ document })
      .whereNot({ person: actor.person })
      .where('seen', '>', new Date(now.getTime() - presentFor))
      .orderBy([{ column: 'seen', order: 'desc' }, 'person'])
      .select<{ person: string }[]>('person')
    return others.map(each => each.person)
  })
}

/** Says that the actor has left a document. */
export async function leave({ knex, actor }: Acting, document: string): Promise<void> {
  await knex('presence').where({ document, person: actor.person }).delete()
}
