/*
 * What every kind of wish writes, as hashes: over the demo's documents and a folder of others.
 *   npm run written [FOLDER]            compares with tests/written/hashes.json
 *   npm run written [FOLDER] -- --save  writes that file: only for what was meant to change
 * Documents of the folder are known by the hash of their bytes.
 */
import { createHash } from 'node:crypto'
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoDocuments } from '../demo/documents'
import { DocumentSession } from '../core/session'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { everyWish } from '../tests/written/cases'

const save = process.argv.includes('--save')
const [folder] = process.argv.slice(2).filter(each => !each.startsWith('--'))
const path = join(projectFolder(), 'tests', 'written', 'hashes.json')
const known = (existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : {}) as Record<string, Record<string, string>>
const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))

const documents = [
  ...demoDocuments.map(({ fileName, make }) => ({ name: fileName, bytes: make() })),
  ...(folder === undefined
    ? []
    : readdirSync(folder)
        .filter(name => /\.od[tpg]$/.test(name))
        .sort()
        .map(name => {
          const bytes = new Uint8Array(readFileSync(join(folder, name)))
          return { name: createHash('sha256').update(bytes).digest('hex').slice(0, 16), bytes }
        })),
]
let count = 0
let different = 0
for (const { name, bytes } of documents) {
  const hashes: Record<string, string> = {}
  for (const { wish, hash } of everyWish(await DocumentSession.start(bytes, typesetter))) {
    count++
    hashes[wish] = hash
    const before = known[name]?.[wish]
    if (!save && before !== hash) {
      different++
      console.log(`DIFFERS  ${name}: ${wish}${before === undefined ? ' was not there' : ''}`)
    }
  }
  for (const wish of Object.keys(known[name] ?? {}))
    if (!save && hashes[wish] === undefined) {
      different++
      console.log(`GONE     ${name}: ${wish}`)
    }
  if (save) known[name] = hashes
  console.log(
    `${name}: ${Object.keys(hashes).length} wishes, ${Object.values(hashes).filter(hash => hash === 'refused').length} refused`,
  )
}
if (save) writeFileSync(path, `${JSON.stringify(known, null, 1)}\n`)
console.log(`${documents.length} documents, ${count} wishes, ${different} different`)
process.exitCode = different > 0 ? 1 : 0
