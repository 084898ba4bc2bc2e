import { describe, expect, it } from 'vitest'
import { facesOfCollection } from '../../../core/font/collection'
import { PackageError } from '../../../core/package/errors'
import { checkFontFile, checkSingleFont } from '../../../server/library/font-file'
import { readFontFile } from '../../../server/library/files'
import { shippedFaces } from '../../../server/library/shipped'
import { collectionOf } from '../../support/collection'
import { numbersFrom } from '../../support/seeded'

const files = ['Prata', 'Courgette', 'PT Mono'].map(family =>
  readFontFile(shippedFaces().find(({ face }) => face.family === family)!.path),
)

describe('a collection', () => {
  it('opens into its faces, each measured as it is by itself', async () => {
    const found = await checkFontFile(collectionOf(files))
    const apart = await Promise.all(files.map(checkSingleFont))
    expect(found.map(each => each.face.fullName)).toEqual(apart.map(each => each.face.fullName))
    expect(found.map(each => each.face.measures)).toEqual(apart.map(each => each.face.measures))
    expect(new Set(found.map(each => each.face.hash)).size).toBe(3)
    // What comes of it is a file that stands by itself.
    for (const { bytes, face } of found) expect((await checkSingleFont(bytes)).face.fullName).toBe(face.fullName)
  })

  it('is no single face where one is needed', async () => {
    await expect(checkSingleFont(collectionOf(files))).rejects.toThrow(/several faces in one/)
    expect((await checkSingleFont(collectionOf(files.slice(0, 1)))).face.family).not.toBe('')
  })

  it('that is broken by chance ends with faces or a sentence', async () => {
    const whole = collectionOf(files.slice(1))
    const random = numbersFrom(11)
    const refused = new Set<string>()
    for (let round = 0; round < 120; round++) {
      const broken = whole.slice(0, round % 3 === 0 ? Math.floor(random() * whole.length) : whole.length)
      for (let hit = 0; hit < 4; hit++)
        broken[Math.floor(random() * Math.min(broken.length, 600))] = Math.floor(random() * 256)
      try {
        const found = await checkFontFile(broken)
        expect(found.length).toBeGreaterThan(0)
      } catch (error) {
        if (!(error instanceof PackageError)) throw new Error(`round ${round}`, { cause: error })
        expect(error.message).toMatch(/It was not added\.$/)
        refused.add(error.message)
      }
    }
    expect(refused.size).toBeGreaterThan(3)
  })

  it('that says it holds more faces than its list has room for is refused before any is looked for', () => {
    const short = new Uint8Array(60)
    short.set(new TextEncoder().encode('ttcf'))
    new DataView(short.buffer).setUint32(8, 60)
    expect(() => facesOfCollection(short)).toThrow(/says that it holds 60 faces/)
  })

  it('of which a table lies outside, in part or wholly, is refused', () => {
    const whole = collectionOf(files)
    const data = new DataView(whole.buffer)
    // The first table of the first face: its entry is behind the head of that face's directory.
    const entry = data.getUint32(12) + 12
    const offset = data.getUint32(entry + 8)
    const changed = (length: number) => {
      const bad = whole.slice()
      new DataView(bad.buffer).setUint32(entry + 12, length)
      return bad
    }
    expect(facesOfCollection(changed(whole.length - offset))).toHaveLength(3)
    for (const length of [whole.length - offset + 1, whole.length])
      expect(() => facesOfCollection(changed(length))).toThrow(/lies outside of it/)
  })

  it('that says too much of itself is refused', () => {
    const count = (faces: number) => {
      const bad = collectionOf(files)
      new DataView(bad.buffer).setUint32(8, faces)
      return bad
    }
    expect(() => facesOfCollection(count(0))).toThrow(/holds 0 faces/)
    expect(() => facesOfCollection(count(5000))).toThrow(/from one to 64 are taken/)
    expect(() => facesOfCollection(collectionOf(files).slice(0, 15))).toThrow(/cut off/)
  })
})
