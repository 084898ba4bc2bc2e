// npm start: from a fresh machine to a running desk. Everything it makes is below .morphene; --fresh begins anew.
import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { accountOf, removeDatabase, startDatabase } from './database.mjs'
import { keepAlive } from './keep-alive.mjs'
import {
  bindAddress,
  buildApplication,
  checkNode,
  end,
  installPackages,
  installSystem,
  own,
  portFree,
  runTypeScript,
  say,
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
  removeDatabase(data)
}
await buildApplication()
const signIn = process.argv.includes('--sign-in') || process.env.MORPHENE_SIGN_IN === '1'
const environment = {
  MORPHENE_DB_PORT: String(databasePort),
  ...accountOf(data, 'server'),
  ...(signIn ? { MORPHENE_SIGN_IN: '1' } : {}),
}
const told = {
  say,
  gaveUp: why => {
    say(`${why}: Morphene is ended. Nothing that was stored is lost.`)
    void finish(1)
  },
}
const database = keepAlive(
  'the database',
  await startDatabase(data, databasePort),
  () => startDatabase(data, databasePort),
  told,
)
let server = null
let ending = false
async function finish(code = 0) {
  if (ending) return
  ending = true
  server?.stop()
  database.stop()
  await end(server?.child ?? null)
  await end(database.child)
  process.exit(code)
}
process.on('SIGINT', () => void finish())
process.on('SIGTERM', () => void finish())
process.on('exit', () => {
  database.stop()
  database.child.kill()
  server?.stop()
  server?.child.kill()
})
await runTypeScript('scripts/prepare.ts', ['--demo'], { ...environment, ...accountOf(data, 'schema') })
server = keepAlive('the server', await startServer(port, environment), () => startServer(port, environment), told)
// Whoever starts a desk that asks who is there comes in by this, once.
if (signIn || !/^(127\.|localhost$|::1$)/.test(bindAddress))
  await runTypeScript('scripts/owner-link.ts', [`http://127.0.0.1:${port}`], {
    ...environment,
    ...accountOf(data, 'schema'),
  })
say(`Morphene is at http://127.0.0.1:${port}  (end it with Ctrl+C)`)
