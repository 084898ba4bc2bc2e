import type { AuditLine } from '../../shared/people'
import type { Acting } from './acting'

/** What is told of people: coming in and going, rights, what was taken away or let go. Never words of documents. */
export const auditWords = {
  'signed in': 'came in by passphrase, link or provider',
  'sign-in refused': 'a passphrase that was not theirs',
  'signed out': 'ended a session',
  'sign-in changed': 'chose a new name to sign in by, or a new passphrase',
  connected: 'signs in through a provider from now on',
  disconnected: 'signs in through a provider no more',
  invited: 'asked somebody to come',
  'invitation withdrawn': 'took an invitation back',
  joined: 'came by an invitation',
  'rights changed': 'gave somebody other rights',
  'folder members': 'said who sees a folder',
  'person ended': 'let somebody’s access end',
  'link made': 'made a link by which somebody comes in again',
  'key made': 'made a key for a program',
  'key ended': 'ended a key of a program',
  'signed off': 'signed a version off',
  'sign-off taken back': 'took a sign-off back',
  taken: 'took something away',
  'studio taken': 'took the whole studio away as a package',
  purged: 'let something go for good',
} as const
export type AuditKind = keyof typeof auditWords

/** As many lines are listed; older ones stay kept. */
const listed = 5_000

/** Writes a line of the log, within whatever transaction it is about. */
export async function tellAudit({ knex, actor }: Acting, what: AuditKind, about = ''): Promise<void> {
  await knex('audit').insert({
    owner: actor.owner,
    person: actor.person,
    what,
    about: about.slice(0, 500),
    at: new Date(),
  })
}

/** The log of the studio, newest first. */
export async function auditLog({ knex, actor }: Acting): Promise<AuditLine[]> {
  return knex('audit')
    .where({ owner: actor.owner })
    .orderBy('id', 'desc')
    .limit(listed)
    .select<AuditLine[]>('at', 'person', 'what', 'about')
}
