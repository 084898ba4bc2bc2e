import { createHash, randomBytes } from 'node:crypto'

/*
 * Keys that browsers and links hold: 32 bytes of chance each, which nobody guesses; of each only its hash is kept, so that
 * whoever reads the database cannot come in by it (NIST SP 800-63B, 3.1.2.2: what has 112 bits of chance needs no slow hash).
 */

export interface NewKey {
  /** What its holder is given, once. */
  readonly key: string
  readonly hash: string
}

export const hashOfKey = (key: string): string => createHash('sha256').update(key).digest('hex')

export function newKey(): NewKey {
  const key = randomBytes(32).toString('base64url')
  return { key, hash: hashOfKey(key) }
}
