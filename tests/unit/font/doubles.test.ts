import { describe, expect, it } from 'vitest'
import { catalogueOf } from '../../../core/font/catalogue'
import { doublesOf } from '../../../core/font/doubles'
import type { FaceRecord } from '../../../core/font/face'
import { Library } from '../../../core/font/library'
import { library } from '../../support/fixtures'

const lora = library.faces.filter(face => face.family === 'Lora')
const regular = lora.find(face => face.style === 'Regular')!
const renamed = (face: FaceRecord, family: string, more: Partial<FaceRecord> = {}): FaceRecord => ({
  ...face,
  family,
  hash: face.hash.replace(/^..../, family.length.toString(16).padStart(4, '0')),
  ...more,
})
const doubles = (faces: readonly FaceRecord[]) => doublesOf(catalogueOf(new Library(faces)))

describe('what is in a library twice', () => {
  it('one design under two names is told on both, by its measures, and near ones are not', () => {
    const near = renamed(regular, 'Nearly Lora', { measures: { ...regular.measures, stem: regular.measures.stem + 3 } })
    const found = doubles([...library.faces, renamed(regular, 'Harbour Serif'), near])
    expect(found.get('Lora')).toEqual([
      { kind: 'alike', said: 'drawn alike as Harbour Serif: one design under two names, by its measures' },
    ])
    expect(found.get('Harbour Serif')).toMatchObject([{ kind: 'alike' }])
    expect(found.has('Nearly Lora')).toBe(false)
  })

  it('two files that say they are one face are told with what they hold', () => {
    const fewer = { ...regular, hash: `f${regular.hash.slice(1)}`, ranges: [0x41, 0x5a] }
    expect(doubles([...lora, fewer]).get('Lora')).toMatchObject([
      {
        kind: 'clash',
        said: expect.stringMatching(
          /^two files are Lora Regular, of \d+ and 26 characters: the first is taken$/,
        ) as string,
      },
    ])
    const again = { ...regular, hash: `e${regular.hash.slice(1)}` }
    expect(doubles([...lora, again]).get('Lora')![0]!.said).toContain('with the same characters')
  })

  it('of what ships only designs that are one are told, and it takes little time', () => {
    const all = catalogueOf(library)
    const start = performance.now()
    const found = doublesOf(all)
    expect(performance.now() - start).toBeLessThan(200)
    for (const [family, own] of found)
      for (const { kind, said } of own) expect(kind, `${family}: ${said}`).toBe('alike')
    expect([...found.keys()].filter(family => ['Spectral', 'Inter', 'Lora', 'Jost'].includes(family))).toEqual([])
  })
})
