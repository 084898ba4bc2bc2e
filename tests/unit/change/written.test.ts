import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { demoDocuments } from '../../../demo/documents'
import { session } from '../../support/fixtures'
import { everyWish } from '../../written/cases'

const written = join(import.meta.dirname, '../../written')
const known = JSON.parse(readFileSync(join(written, 'hashes.json'), 'utf8')) as Record<string, Record<string, string>>

describe('what every kind of wish writes into', () => {
  // A hundred plans over 200 pages, on whatever machine.
  const timeout = 240_000
  it.each(demoDocuments)(
    '$fileName is byte for byte what it was, and told as it was',
    { timeout },
    async ({ fileName, make }) => {
      const all = [...everyWish(session(make()))]
      const told = all.map(each => `${[each.wish, ...each.told].join('\n  ')}\n`).join('')
      // Told in words first: where something differs, they say what.
      await expect(told).toMatchFileSnapshot(join(written, 'told', `${fileName}.txt`))
      expect(Object.fromEntries(all.map(({ wish, hash }) => [wish, hash]))).toEqual(known[fileName])
    },
  )
})
