import type { ExtraRight, PersonRole } from '~~/shared/people'

/** What people are, as it is said on screen. */
export const roleWords: Readonly<Record<PersonRole, string>> = {
  owner: 'Owner',
  designer: 'Designer',
  reader: 'Reader',
}
/** What each may do. */
export const roleSays: Readonly<Record<PersonRole, string>> = {
  owner: 'may do everything, and says who else works here',
  designer: 'opens and changes documents, with the faces they need',
  reader: 'looks at pages, and changes nothing; no font file reaches their browser',
}
export const extraWords: Readonly<Record<ExtraRight, string>> = {
  take: 'takes files away',
  sign: 'signs versions off',
  issue: 'issues houses',
  purge: 'lets go for good',
}
