import { describe, expect, it } from 'vitest'
import { hashOfKey, newKey } from '../../../server/store/keys'
import { hashPassphrase, isPassphrase, whyNot } from '../../../server/work/passphrases'

describe('a passphrase', () => {
  it.each([
    ['seven lamps', 'teal', /12 characters/],
    ['Password1234', 'teal', /guessed first/],
    ['qwertyuiop123', 'teal', /guessed first/],
    ['iloveyouiloveyou', 'teal', /guessed first/],
    ['lampslampslamps', 'teal', /guessed first/],
    ['aaaaabbbbbaaaaa', 'teal', /guessed first/],
    ['captain-teal-22', 'captain-teal', /hardly more than the name/],
  ])('“%s” is refused, and why is said', (passphrase, signIn, why) => {
    expect(whyNot(passphrase, signIn)).toMatch(why)
  })

  it.each(['seven lamps at the pier', 'Die Boje liegt im Nebel', 'καράβια στην προβλήτα', 'teal sails at low water'])(
    '“%s” is taken: there are no rules but length',
    passphrase => {
      expect(whyNot(passphrase, 'teal')).toBeNull()
    },
  )

  it('is known again by its hash, however its letters are put together, and by no other', async () => {
    const kept = await hashPassphrase('caf\u00e9 at the end of the pier')
    expect(kept).toMatch(/^\$argon2id\$/)
    expect(await isPassphrase('cafe\u0301 at the end of the pier', kept)).toBe(true)
    expect(await isPassphrase('cafe at the end of the pier', kept)).toBe(false)
    // The same one twice is kept under two hashes.
    expect(await hashPassphrase('caf\u00e9 at the end of the pier')).not.toBe(kept)
  })

  it('of nobody is checked all the same, and is never right', async () => {
    expect(await isPassphrase('there is nobody of this name', null)).toBe(false)
    const timeOf = async (kept: string | null) => {
      const began = performance.now()
      await isPassphrase('wrong wrong wrong', kept)
      return performance.now() - began
    }
    const kept = await hashPassphrase('seven lamps at the pier')
    // In turn, and the quickest of each: other work on the machine makes some slower, none quicker.
    const [somebody, nobody]: [number[], number[]] = [[], []]
    for (let count = 0; count < 6; count++) {
      somebody.push(await timeOf(kept))
      nobody.push(await timeOf(null))
    }
    expect(Math.min(...nobody)).toBeGreaterThan(Math.min(...somebody) / 2)
  })
})

describe('a key', () => {
  it('has 32 bytes of chance, and its hash tells nothing of it', () => {
    const keys = Array.from({ length: 50 }, newKey)
    expect(new Set(keys.map(each => each.key)).size).toBe(50)
    for (const { key, hash } of keys) {
      expect(Buffer.from(key, 'base64url')).toHaveLength(32)
      expect(hash).toMatch(/^[0-9a-f]{64}$/)
      expect(hash).toBe(hashOfKey(key))
      expect(hash).not.toContain(key)
    }
  })
})
