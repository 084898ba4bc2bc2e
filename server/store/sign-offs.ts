import type { SignOff } from '../../shared/api'
import { atOnce, ownDocuments, type Acting } from './acting'
import { tellAudit } from './audit'

/** Who signed which versions of a document off, in the order in which they did. */
export async function signOffsOf(acting: Acting, document: string): Promise<SignOff[]> {
  return acting
    .knex('sign_offs')
    .where({ document })
    .whereIn('document', ownDocuments(acting))
    .orderBy(['at', 'version'])
    .select<SignOff[]>('version', 'person', 'at')
}

/** Signs a version off; whoever did already has. */
export async function signOff(acting: Acting, document: string, version: number): Promise<void> {
  await atOnce(acting, async within => {
    const own = await ownDocuments(within)
      .clearSelect()
      .where({ id: document })
      .first<{ file_name: string }>('file_name')
    if (!own) return
    await within
      .knex('sign_offs')
      .insert({ document, version, person: acting.actor.person, at: new Date() })
      .onConflict(['document', 'version', 'person'])
      .ignore()
    await tellAudit(within, 'signed off', `${own.file_name}, version ${version}`)
  })
}

/** Takes one's own sign-off back; false where there is none. */
export async function takeSignOffBack(acting: Acting, document: string, version: number): Promise<boolean> {
  return atOnce(acting, async within => {
    const gone: number = await within
      .knex('sign_offs')
      .where({ document, version, person: acting.actor.person })
      .whereIn('document', ownDocuments(within))
      .delete()
    if (gone > 0) await tellAudit(within, 'sign-off taken back', `version ${version}`)
    return gone > 0
  })
}
