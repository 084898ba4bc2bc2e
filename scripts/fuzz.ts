/*
 * Broken files by chance, through the threads that the server has: `npm run fuzz -- --count 5000 --seed 1`. Each package,
 * PDF and font must end within ten seconds with a result or a sentence, in under a gigabyte. Needs the thread script:
 * `npm start` or `npm test` has built it.
 */
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { demoDocuments, finishedDocuments } from '../demo/documents'
import { finishedChangesSchema } from '../core/format/finished/wish'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { projectFolder } from '../server/library/files'
import { handoffWorks } from '../server/library/handoff-works'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { TaskError, ThreadPool } from '../server/work/pool'
import { brokenFont, brokenPackage, brokenPdf, fontKinds, soundFonts } from '../tests/support/broken-files'

const { values } = parseArgs({
  options: { count: { type: 'string', default: '5000' }, seed: { type: 'string', default: '1' } },
})
const [count, seed] = [Number(values.count), Number(values.seed)]
const script = join(projectFolder(), '.morphene', 'build', 'thread.mjs')
if (!existsSync(script)) throw new Error('the thread script is not built: run npm test once')
// All faces are measured before: a thread that has to do it first would be late with its first file.
const { library, load } = shippedLibrary()
const side = 2
const pool = new ThreadPool(script, side, { seconds: 10, memory: 1000 })
const packages = demoDocuments.map(({ make }) => make())
const fonts = await soundFonts()
// A thread takes some seconds to begin: that is no file's fault.
await Promise.allSettled(
  Array.from({ length: side * 2 }, () => pool.run({ kind: 'survey', bytes: packages[0]!, ids: {} })),
)

/** How the tasks ended: results, sentences, and what is neither. */
const ended = { results: 0, sentences: 0 }
const faults: string[] = []
let slowest = 0

async function tried(name: string, run: () => Promise<unknown>): Promise<void> {
  const began = performance.now()
  try {
    await run()
    ended.results++
  } catch (error) {
    if (error instanceof TaskError && error.failure.name !== 'Error') ended.sentences++
    else faults.push(`${name}: ${(error as Error).message}`)
  }
  slowest = Math.max(slowest, performance.now() - began)
}

/** Carries many out, so many at once, and says from time to time how far it is. */
async function through(name: string, one: (seed: number) => Promise<unknown>): Promise<void> {
  let next = seed
  const last = seed + count
  const began = performance.now()
  await Promise.all(
    Array.from({ length: side }, async () => {
      while (next < last) {
        const own = next++
        await tried(`${name} ${own}`, () => one(own))
        if ((own - seed + 1) % 500 === 0) console.log(`${name}: ${own - seed + 1} of ${count}, ${faults.length} faults`)
      }
    }),
  )
  console.log(`${name}: ${count} in ${Math.round((performance.now() - began) / 1000)} s`)
}

await through('packages', own =>
  pool.run({ kind: 'survey', bytes: brokenPackage(packages[own % packages.length]!, own), ids: {} }),
)
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const works = handoffWorks(load, startSubsetter())
const pdfs = await Promise.all(finishedDocuments.map(({ make }) => make(typesetter, works)))
const changes = finishedChangesSchema.parse([
  { type: 'put-right', page: 1, line: 3, from: 0, to: 3, words: 'A' },
  {
    ...{
      type: 'add-text',
      page: 1,
      x: 20,
      y: 20,
      width: null,
      height: null,
      text: 'Seen',
      family: 'Spectral',
      size: 11,
    },
    ...{ leading: null, weight: 400, italic: false, color: '#000000', language: '' },
  },
])
await through('pdfs', async own => {
  const bytes = brokenPdf(pdfs[own % pdfs.length]!, own)
  await pool.run({ kind: 'survey', bytes, ids: {} })
  await pool.run({ kind: 'finished', bytes, ids: {}, changes })
})
await through('fonts', own =>
  pool.run({ kind: 'font', bytes: brokenFont(fonts[fontKinds[own % fontKinds.length]!], own) }),
)
await pool.close()
for (const fault of faults) console.log(`FAULT  ${fault}`)
console.log(
  `${ended.results} with a result, ${ended.sentences} with a sentence, ${faults.length} faults; the slowest took ` +
    `${Math.round(slowest)} ms`,
)
process.exitCode = faults.length === 0 ? 0 : 1
