import { z } from 'zod'
import { rights, type Right } from './rights'
import type { Ways } from './ways'

/*
 * Who works at a desk and what they may do there, as server and browser say it to each other.
 */

/** What people are at a desk. */
export const roles = ['owner', 'designer', 'reader'] as const
export type PersonRole = (typeof roles)[number]

/** What each may do by being it. */
export const rightsOf: Readonly<Record<PersonRole, readonly Right[]>> = {
  owner: rights,
  designer: ['look', 'remark', 'take', 'change', 'arrange', 'fonts', 'faces'],
  reader: ['look', 'remark'],
}

/** What may be given to somebody beyond that. */
export const extraRights = ['take', 'sign', 'issue', 'purge'] as const satisfies readonly Right[]
export type ExtraRight = (typeof extraRights)[number]

/** What whoever works on a folder may do with the documents in it, whatever they are at the desk. */
export const rightsOfWork: readonly Right[] = ['look', 'remark', 'take', 'change', 'fonts']

/** What somebody may do in a folder, by what they may at the desk and what they are there; null where they are nothing. */
export const rightsIn = (own: readonly Right[], role: PersonRole | null): readonly Right[] =>
  role === null
    ? own
    : role === 'reader'
      ? own.filter(right => rightsOf.reader.includes(right))
      : [...new Set([...own, ...rightsOfWork])]

/** Somebody of the studio. */
export interface Person {
  readonly id: string
  readonly name: string
  /** What they sign in by; null where they have not chosen it yet: the one person of a desk of one. */
  readonly signIn: string | null
  readonly role: PersonRole
  readonly also: readonly ExtraRight[]
  readonly created: Date
  /** When they were last at work here; null where that is not known. */
  readonly seen: Date | null
}

/** Somebody who is asked to come: known by nobody but whoever has the link. */
export interface Invitation {
  readonly id: string
  readonly name: string
  readonly role: PersonRole
  readonly also: readonly ExtraRight[]
  readonly until: Date
}

/** A browser that somebody is signed in by. */
export interface Session {
  readonly id: string
  /** What the browser says of itself, cut short. */
  readonly agent: string
  readonly created: Date
  readonly seen: Date
  readonly until: Date
  /** It is the one that asks. */
  readonly own: boolean
}

/** What a key of a program may be for, and what it lets do: never more than its person may. */
export const keyRights = {
  look: ['look'],
  take: ['look', 'take'],
  change: ['look', 'remark', 'take', 'change', 'arrange'],
} as const satisfies Readonly<Record<string, readonly Right[]>>
export type KeyRight = keyof typeof keyRights

/** A key by which a program asks for its person. The key itself is told once, when it is made. */
export interface ProgramKey {
  readonly id: string
  readonly name: string
  readonly may: KeyRight
  readonly created: Date
  /** When it was last used; null where it never was. */
  readonly seen: Date | null
  readonly until: Date
}

/** Who asks, as the desk sees them. */
export interface Me {
  /** Whether signing in is asked of everybody. */
  readonly signInNeeded: boolean
  /** Null where nobody is signed in, and somebody must be. */
  readonly person: Person | null
  readonly rights: readonly Right[]
  /** How they like to work; null where nobody is signed in. */
  readonly ways: Ways | null
  /** The name of the studio. */
  readonly studio: string
  /** What the provider is called through which people sign in; null where there is none. */
  readonly provider: string | null
  /** Whether whoever asks signs in through it. */
  readonly connected: boolean
  /** Everybody of the studio by id, those who left included: versions and records name them. */
  readonly names: Readonly<Record<string, string>>
  /** Those of them who work here now. */
  readonly here: readonly string[]
}

/** Passphrases are long; there are no other rules, but that the commonest are refused. */
export const shortestPassphrase = 12
const nameSchema = z.string().trim().min(1).max(120)
const signInSchema = z
  .string()
  .trim()
  .toLowerCase()
  .min(2)
  .max(120)
  .regex(/^[^\s\p{Cc}]+$/u, 'it has no spaces')
const passphraseSchema = z.string().min(shortestPassphrase).max(500)

export const signInBodySchema = z.strictObject({ signIn: z.string().max(200), passphrase: z.string().max(500) })
export const keyBodySchema = z.strictObject({ key: z.string().min(20).max(200) })
/** One's own name, and what one signs in by; a new passphrase takes the old one. */
export const ownBodySchema = z.strictObject({
  name: nameSchema,
  /** None where one signs in through the provider alone. */
  signIn: signInSchema.nullable(),
  passphrase: passphraseSchema.nullable().default(null),
  old: z.string().max(500).default(''),
})
export const personRightsSchema = z.strictObject({
  role: z.enum(roles),
  also: z.array(z.enum(extraRights)).max(extraRights.length).default([]),
})
export const inviteBodySchema = z.strictObject({ name: nameSchema, ...personRightsSchema.shape })
/** A key for a program: what it is called, what it may do, and for how many days. */
export const keyForBodySchema = z.strictObject({
  name: nameSchema,
  may: z.enum(Object.keys(keyRights) as [KeyRight, ...KeyRight[]]),
  days: z.int().min(1).max(366),
})
/**
 * Somebody who sees a folder, and what they do there: a designer works on its documents, an owner also says who else sees it,
 * a reader looks and writes remarks.
 */
const folderMemberSchema = z.strictObject({ person: z.string().min(1).max(36), role: z.enum(roles) })
export type FolderMember = z.infer<typeof folderMemberSchema>
/** Who sees a folder, beside the owners of the desk; none: everybody. */
export const folderMembersSchema = z.strictObject({ people: z.array(folderMemberSchema).max(500) })
/** Which document somebody is at, or has left. */
export const atBodySchema = z.strictObject({ document: z.uuid(), left: z.boolean().default(false) })
export const studioBodySchema = z.strictObject({ name: nameSchema })
export const joinBodySchema = z.strictObject({
  key: z.string().min(20).max(200),
  name: nameSchema,
  signIn: signInSchema,
  passphrase: passphraseSchema,
})

/** What somebody goes to the provider for: to sign in, to join by an invitation, or to be known by it from now on. */
export const wayBodySchema = z.discriminatedUnion('for', [
  z.strictObject({ for: z.literal('sign-in'), to: z.string().max(500).default('/') }),
  z.strictObject({ for: z.literal('join'), key: z.string().min(20).max(200), name: nameSchema }),
  z.strictObject({ for: z.literal('connect') }),
])

/** A way within this desk; the desk itself for all others. A backslash is a slash to a browser. */
export const wayWithin = (to: string): string => (/^\/(?![/\\])/.test(to) ? to : '/')

/** Why nobody was let in who came back from the provider. */
export const wayFaults = ['lost', 'refused', 'unproven', 'away', 'unknown', 'no-link', 'taken'] as const
export type WayFault = (typeof wayFaults)[number]

/** What the audit log tells: a line each. */
export interface AuditLine {
  readonly at: Date
  readonly person: string
  readonly what: string
  readonly about: string
}
