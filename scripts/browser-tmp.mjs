import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { buildApplication, end, folder, own, runTypeScript, startDatabase, startServer } from './setup.mjs'
if (!process.env.NOBUILD) buildApplication()
import { rmSync } from 'node:fs'
rmSync(join(own, 'test-database'), { recursive: true, force: true })
const database = await startDatabase(join(own, 'test-database'), 3417)
const environment = { MORPHENE_DB_PORT: '3417', MORPHENE_DB_NAME: 'morphene_test', MORPHENE_TEST_PORT: '3411' }
let server = null
try { runTypeScript('scripts/prepare.ts', [], environment); server = await startServer(3411, environment); spawnSync(join(folder, 'node_modules/.bin/playwright'), ['test', ...process.argv.slice(2)], { cwd: folder, stdio: 'inherit', env: { ...process.env, ...environment } }) }
finally { await end(server); await end(database) }
