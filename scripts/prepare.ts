/* Brings the database up to date: schema, faces, and with --demo the demo's documents. */
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { demoDocuments } from '../demo/documents'
import { shippedFaces } from '../server/library/shipped'
import { connect, makeDatabase, migrate } from '../server/store/database'
import { actingAs } from '../server/store/acting'
import { addDocument } from '../server/store/documents'
import { storeShippedFaces } from '../server/store/faces'
import { carryOut } from '../server/work/tasks'
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
if (process.argv.includes('--demo')) {
  const any = await knex('documents').first('id')
  for (const { fileName, make } of demoDocuments) {
    const bytes = make()
    mkdirSync(join(projectFolder(), '.morphene', 'demo'), { recursive: true })
    writeFileSync(join(projectFolder(), '.morphene', 'demo', fileName), bytes)
    if (any) continue
    const { kind, signed } = await carryOut({ kind: 'check', bytes })
    await addDocument(actingAs(knex), { fileName, kind, signed, bytes })
    console.log(`        demo: ${fileName}`)
  }
}
await knex.destroy()
