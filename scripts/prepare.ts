/* Brings the database up to date: schema, faces, and with --demo the demo's documents. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoDocuments, finishedDocuments } from '../demo/documents'
import { saltmereLine, winterService } from '../demo/houses'
import { Shaper } from '../core/typeset/shaper'
import { Typesetter } from '../core/typeset/look'
import { handoffWorks } from '../server/library/handoff-works'
import { startHarfBuzz, startSubsetter } from '../server/library/harfbuzz'
import { shippedFaces, shippedLibrary } from '../server/library/shipped'
import { connect, makeDatabase, migrate } from '../server/store/database'
import { actingAs } from '../server/store/acting'
import { addDocument } from '../server/store/documents'
import { addHouse, issueHouse, linkHouse } from '../server/store/houses'
import { storeShippedFaces } from '../server/store/faces'
import { carryOut } from '../server/work/tasks/carry-out'
import { projectFolder } from '../server/library/files'

function progress(what: string): (done: number, all: number) => void {
  let shown = -1
  return (done, all) => {
    const tenth = Math.floor((done / all) * 10)
    if (tenth !== shown) console.log(`        ${what}: ${done} of ${all}`)
    shown = tenth
  }
}

await makeDatabase()
const knex = connect()
await migrate(knex)
const faces = shippedFaces(progress('measuring faces'))
await storeShippedFaces(knex, faces, progress('storing faces'))
console.log(`        ${faces.length} faces in the library`)
const documents = new Map<string, string>()

/** The demo's houses, the first of them issued, with the documents that follow it. */
async function demoHouses(): Promise<void> {
  const acting = actingAs(knex)
  const line = (await addHouse(acting, saltmereLine, null))!
  await addHouse(acting, winterService, null)
  await issueHouse(acting, line, 1)
  for (const [fileName, id] of documents) if (!fileName.startsWith('Galley')) await linkHouse(acting, id, line)
  console.log('        demo: two houses')
}

if (process.argv.includes('--demo')) {
  const any = await knex('documents').first('id')
  const { library, load } = shippedLibrary()
  const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
  const works = handoffWorks(load, startSubsetter())
  const finished = finishedDocuments.map(({ fileName, make }) => ({ fileName, make: () => make(typesetter, works) }))
  for (const { fileName, make } of [...finished, ...demoDocuments]) {
    const bytes = await make()
    mkdirSync(join(projectFolder(), '.morphene', 'demo'), { recursive: true })
    writeFileSync(join(projectFolder(), '.morphene', 'demo', fileName), bytes)
    if (any) continue
    const { kind, signed } = await carryOut({ kind: 'check', bytes })
    const { id } = await addDocument(actingAs(knex), { fileName, kind, signed, bytes })
    documents.set(fileName, id)
    console.log(`        demo: ${fileName}`)
  }
  if (!any) await demoHouses()
}
await knex.destroy()
