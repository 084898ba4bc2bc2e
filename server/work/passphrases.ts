import { hash, verify } from '@node-rs/argon2'
import { dictionary } from '@zxcvbn-ts/language-common'
import { shortestPassphrase } from '../../shared/people'

/** Argon2id with 19 MiB, two passes and one lane (OWASP Password Storage Cheat Sheet; RFC 9106). */
const parameters = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const

let commonest: ReadonlySet<string> | null = null
/** Whether it is one that many people choose: those are tried first by whoever guesses. */
function isCommon(passphrase: string): boolean {
  commonest ??= new Set((dictionary['passwords-common'] as readonly string[]).map(each => each.toLowerCase()))
  const plain = passphrase.trim().toLowerCase()
  return (
    commonest.has(plain) ||
    commonest.has(plain.replace(/[\s\d\W_]+/g, '')) ||
    new Set(plain).size < 4 ||
    isRepeated(plain)
  )
}

/** Whether it is something short, again and again: that is no longer than it is once. */
function isRepeated(text: string): boolean {
  const period = (text + text).indexOf(text, 1)
  return period < text.length && period < shortestPassphrase
}

/** Why a passphrase is refused; null where it is taken. There are no rules but its length, and that it is no common one. */
export function whyNot(passphrase: string, signIn: string): string | null {
  if (passphrase.length < shortestPassphrase) return `A passphrase has ${shortestPassphrase} characters at least.`
  if (isCommon(passphrase)) return 'Many people use this passphrase, so that it is guessed first. Take another one.'
  if (passphrase.toLowerCase().includes(signIn.toLowerCase()) && passphrase.length < signIn.length + 8)
    return 'This passphrase is hardly more than the name you sign in by. Take another one.'
  return null
}

export const hashPassphrase = (passphrase: string): Promise<string> => hash(passphrase.normalize('NFKC'), parameters)

let nobody: Promise<string> | null = null
/** Whether a passphrase is the one of a hash. Where there is none it takes as long, so that time tells nothing of names. */
export async function isPassphrase(passphrase: string, kept: string | null): Promise<boolean> {
  const against = kept ?? (await (nobody ??= hashPassphrase('there is nobody of this name')))
  const is = await verify(against, passphrase.normalize('NFKC'))
  return is && kept !== null
}
