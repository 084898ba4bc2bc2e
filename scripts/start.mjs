// npm start: from a fresh machine to a running desk. Everything it makes is below .morphene; --fresh begins anew.
import { existsSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import {
  buildApplication,
  checkNode,
  end,
  installPackages,
  installSystem,
  own,
  portFree,
  runTypeScript,
  say,
  startDatabase,
  startServer,
  stop,
} from './setup.mjs'

const port = Number(process.env.MORPHENE_PORT ?? 3400)
const databasePort = Number(process.env.MORPHENE_DB_PORT ?? 3407)
const data = join(own, 'database')

checkNode()
if (!(await portFree(port)))
  stop(`port ${port} is taken. Is Morphene running already? Set MORPHENE_PORT to another one.`)
installSystem()
installPackages()
if (process.argv.includes('--fresh') && existsSync(data)) {
  if (!(await portFree(databasePort)))
    stop(
      `port ${databasePort} for the database is taken, so its folder cannot be cleared. Is Morphene running already?`,
    )
  say('clearing the database, as --fresh asks')
  rmSync(data, { recursive: true })
}
buildApplication()
const database = await startDatabase(data, databasePort)
const environment = { MORPHENE_DB_PORT: String(databasePort) }
let server = null
let ending = false
const finish = async () => {
  if (ending) return
  ending = true
  await end(server)
  await end(database)
  process.exit(0)
}
process.on('SIGINT', finish)
process.on('SIGTERM', finish)
process.on('exit', () => {
  database.kill()
})
runTypeScript('scripts/prepare.ts', ['--demo'], environment)
server = await startServer(port, environment)
server.once('exit', finish)
say(`Morphene is at http://127.0.0.1:${port}  (end it with Ctrl+C)`)
