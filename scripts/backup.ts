/*
 * npm run backup -- FILE writes a backup of the desk, while people work; npm run restore -- FILE [--replace] reads one back.
 * Where no database is reached, that of this folder is started for the time. FILE is SQL text packed with gzip.
 */
import { existsSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { connect, databaseAddress } from '../server/store/database'
import { BackupError, replacedName, restoreBackup, writeBackup } from '../server/store/backup'
import { accountOf, startDatabase } from './database.mjs'
import { end, own, portFree } from './setup.mjs'

function give(sentence: string): never {
  console.error(`morphene: ${sentence}`)
  process.exit(2)
}

const { values, positionals } = parseArgs({
  options: { replace: { type: 'boolean', default: false } },
  allowPositionals: true,
})
const [verb, file] = positionals
if ((verb !== 'backup' && verb !== 'restore') || file === undefined || positionals.length > 2)
  give('say npm run backup -- FILE, or npm run restore -- FILE [--replace].')
const data = join(own, 'database')
// An address that is said elsewhere has its own account.
if (process.env.MORPHENE_DB_USER === undefined) Object.assign(process.env, accountOf(data, 'schema'))
const address = databaseAddress()
const local = process.env.MORPHENE_DB_HOST === undefined
if (verb === 'backup' && local && !existsSync(data)) give('there is no desk in this folder yet: npm start makes one.')
const started = local && (await portFree(address.port)) ? await startDatabase(data, address.port) : null
try {
  if (verb === 'backup') {
    await writeBackup(databaseAddress(), file)
    const knex = connect(databaseAddress(), 1)
    const counted = (await knex('documents').count({ n: '*' }).first()) as { n: number }
    await knex.destroy()
    console.log(`${file}: ${(statSync(file).size / 1048576).toFixed(1)} MB, ${counted.n} documents as they are now`)
  } else {
    const { documents, versions, pieces } = await restoreBackup(databaseAddress(), file, values)
    console.log(
      `${documents} documents with ${versions} versions are back; ${pieces} pieces held against their hashes.`,
    )
    console.log(`What was there before is kept in the database ${replacedName(address.database)} until the next time.`)
  }
} catch (error) {
  console.error(`morphene: ${error instanceof BackupError ? error.message : `it failed: ${(error as Error).message}`}`)
  process.exitCode = 1
} finally {
  await end(started)
}
