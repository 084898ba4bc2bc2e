import { describe, expect, it } from 'vitest'
import { PackageError } from '../../../core/package/errors'
import { checkSingleFont } from '../../../server/library/font-file'
import { brokenFont, fontKinds, soundFonts } from '../../support/broken-files'
import { processorTime } from '../../support/processor-time'

const fonts = await soundFonts()

describe('font files', () => {
  it('are read in every kind that is taken', async () => {
    for (const kind of fontKinds) {
      const { face } = await checkSingleFont(fonts[kind])
      expect([kind, face.family]).toEqual([kind, kind === 'cff' ? 'Drawn Again' : 'Arvo'])
      // The same letters are as high, whatever their outlines are written in.
      expect(face.measures.xHeight).toBeCloseTo((await checkSingleFont(fonts.truetype)).face.measures.xHeight, 0)
    }
  })

  it('that are broken end with a face or a sentence, and in moments: 200 by chance', { timeout: 60_000 }, async () => {
    const refused = new Set<string>()
    let read = 0
    for (let seed = 0; seed < 200; seed++) {
      const kind = fontKinds[seed % fontKinds.length]!
      const taken = processorTime()
      try {
        const { face } = await checkSingleFont(brokenFont(fonts[kind], seed))
        expect(face.family).not.toBe('')
        for (const value of Object.values(face.measures))
          expect([seed, typeof value === 'number' && !Number.isFinite(value)]).toEqual([seed, false])
        read++
      } catch (error) {
        if (!(error instanceof PackageError)) throw new Error(`seed ${seed}`, { cause: error })
        expect(error.message).toMatch(/It was not added\.$/)
        refused.add(error.message)
      }
      expect(taken()).toBeLessThan(10_000)
    }
    expect(read).toBeGreaterThan(20)
    expect(refused.size).toBeGreaterThan(3)
  })

  it('with tables shorter than their fields are refused or read without them, never with a fault of ours', async () => {
    const { truetype } = fonts
    const data = new DataView(truetype.buffer, truetype.byteOffset, truetype.byteLength)
    for (let entry = 12; entry < 12 + data.getUint16(4) * 16; entry += 16)
      for (const size of [0, 1, 4, 13, 40]) {
        const cut = truetype.slice()
        new DataView(cut.buffer).setUint32(entry + 12, size)
        const tag = String.fromCharCode(...cut.subarray(entry, entry + 4))
        const outcome = await checkSingleFont(cut).then(
          ({ face }) => face.family,
          (error: unknown) => (error instanceof PackageError ? error.message : `FAULT ${String(error)}`),
        )
        expect(`${tag} ${size}: ${outcome}`).toMatch(/: Arvo|It was not added/)
      }
  })
})
