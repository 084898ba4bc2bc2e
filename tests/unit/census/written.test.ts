import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { demoDocuments } from '../../../demo/documents'
import { session } from '../../support/fixtures'
import { countedAs } from '../../written/counted'

const told = join(import.meta.dirname, '../../written/counted')
// The handbook is long, and has nothing that the others have not.
const documents = demoDocuments.filter(({ fileName }) => !fileName.startsWith('Crew'))

describe('what a document is read and counted as', () => {
  it.each(documents)('is told line by line: $fileName', async ({ fileName, make }) => {
    await expect(`${countedAs(session(make()))}\n`).toMatchFileSnapshot(join(told, `${fileName}.txt`))
  })
})
