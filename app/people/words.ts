import { wayFaults, type ExtraRight, type PersonRole, type WayFault } from '~~/shared/people'

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

export const isWayFault = (said: unknown): said is WayFault => wayFaults.includes(said as WayFault)
/** Why nobody was let in who came back from the provider, which people know by its name. */
export const providerFaults = (provider: string): Readonly<Record<WayFault, string>> => ({
  lost: `The way through ${provider} was begun in another browser, was used already, or took more than ten minutes. Try again.`,
  refused: `${provider} did not say who you are. Nothing was changed.`,
  unproven: `What ${provider} said could not be believed, and nobody was let in. Tell whoever runs this desk.`,
  away: `${provider} does not answer just now. Try again, or sign in by your passphrase.`,
  unknown:
    `${provider} knows you, but nobody here signs in as that. Join by an invitation, or sign in by your passphrase and ` +
    `say on People that you come through ${provider}.`,
  'no-link': 'The invitation does not hold any more. Ask whoever gave it to you for another one.',
  taken: `Somebody here signs in through ${provider} as that already. Nothing was changed.`,
})
