import { readFileSync } from 'node:fs'
import opentype from 'opentype.js'
import { describe, expect, it } from 'vitest'
import { alternatesOf } from '../../../core/font/alternates'
import { shippedFaces } from '../../../server/library/shipped'

const shipped = shippedFaces()
const regular = (family: string) => shipped.find(({ face }) => face.family === family && face.style === 'Regular')!
const found = (family: string) => {
  const { face, path } = regular(family)
  return alternatesOf(new Uint8Array(readFileSync(path)), face)
}
const formsOf = (list: ReturnType<typeof found>['list'], character: string) =>
  list.find(each => each.code === character.codePointAt(0))?.forms ?? []

describe('further forms of characters', () => {
  it('are told with the feature that gives them, each once', () => {
    const { list, looked, characters } = found('EB Garamond')
    expect(looked).toBe(characters)
    expect(formsOf(list, 'a').map(each => each.tag)).toContain('smcp')
    expect(formsOf(list, 'A').map(each => each.tag)).toContain('c2sc')
    // Capitals have no small capitals of their own by smcp.
    expect(formsOf(list, 'A').map(each => each.tag)).not.toContain('smcp')
    for (const { forms } of list) {
      const keys = forms.map(each => `${each.tag} ${each.value}`)
      expect(new Set(keys).size).toBe(keys.length)
    }
  })

  it('are those that a second reader of the table finds for single substitutions', () => {
    const { path } = regular('EB Garamond')
    const file = readFileSync(path)
    const font = opentype.parse(file.buffer.slice(file.byteOffset, file.byteOffset + file.byteLength))
    const { list } = found('EB Garamond')
    // The package reads the table but does not say so in its types.
    const { substitution } = font as unknown as {
      substitution: { getSingle: (feature: string, script: string) => { sub: number; by: number }[] }
    }
    const single = new Map(substitution.getSingle('smcp', 'latn').map(each => [each.sub, each.by]))
    for (const letter of 'abcdefghijklmnopqrstuvwxyz') {
      const has = formsOf(list, letter).some(each => each.tag === 'smcp')
      expect(has, letter).toBe(single.has(font.charToGlyphIndex(letter)))
    }
  })

  it('are none where no feature can be switched, and looking ends where it would be too much', () => {
    const { face, path } = regular('EB Garamond')
    const bytes = new Uint8Array(readFileSync(path))
    expect(alternatesOf(bytes, { ...face, features: ['kern', 'liga'] }).list).toEqual([])
    const many = alternatesOf(bytes, { features: ['zero'], ranges: [0x41, 0x41 + 150_000] })
    expect(many.characters).toBe(150_001)
    expect(many.looked).toBeLessThan(150_001)
    expect(many.looked).toBeGreaterThan(100_000)
  }, 60_000)
})
