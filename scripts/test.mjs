// npm test: everything. Types, lint, unit, server against a real MariaDB, browser. Ends with one line: N passed, N failed.
import { spawn, spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import {
  buildApplication,
  checkNode,
  end,
  folder,
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

const databasePort = Number(process.env.MORPHENE_TEST_DB_PORT ?? 3417)
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411)
let passed = 0
let failed = 0
const check = (name, command, args) =>
  new Promise(resolve => {
    say(name)
    const child = spawn(join(folder, 'node_modules/.bin', command), args, { cwd: folder })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', chunk => {
        said += chunk
      })
    child.on('close', code => {
      if (code === 0) passed++
      else {
        failed++
        console.log(`${name}:\n${said.slice(-6000)}`)
      }
      resolve()
    })
  })

checkNode()
for (const taken of [databasePort, port])
  if (!(await portFree(taken)))
    stop(`port ${taken} is taken; set MORPHENE_TEST_DB_PORT or MORPHENE_TEST_PORT to another one.`)
installSystem([
  ['/usr/bin/chromium', 'chromium'],
  ['/usr/share/unicode/LineBreak.txt', 'unicode-data'],
  ['/usr/bin/hb-shape', 'libharfbuzz-bin'],
  ['/usr/bin/qpdf', 'qpdf'],
  ['/usr/bin/pdftotext', 'poppler-utils'],
])
installPackages()
mkdirSync(own, { recursive: true })
buildApplication()
// Two at a time: as many as there are processors on a small machine.
const types = check('types of the application', 'nuxt', ['typecheck'])
await check('types of core', 'tsc', ['-p', 'tsconfig.core.json'])
await check('types of programs and tests', 'tsc', ['-p', 'tsconfig.node.json'])
await check('lint', 'eslint', ['.', '--max-warnings', '0'])
await types

const data = join(own, 'test-database')
rmSync(data, { recursive: true, force: true })
const database = await startDatabase(data, databasePort)
let server = null
const environment = {
  MORPHENE_DB_PORT: String(databasePort),
  MORPHENE_DB_NAME: 'morphene_test',
  MORPHENE_TEST_PORT: String(port),
}
try {
  runTypeScript('scripts/prepare.ts', [], environment)
  say('unit and server tests')
  const report = join(own, 'vitest.json')
  rmSync(report, { force: true })
  const vitest = spawnSync(
    join(folder, 'node_modules/.bin/vitest'),
    ['run', '--reporter=default', '--reporter=json', `--outputFile.json=${report}`],
    { cwd: folder, stdio: ['ignore', 'inherit', 'inherit'], env: { ...process.env, ...environment } },
  )
  if (existsSync(report)) {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(report, 'utf8'))
    passed += numPassedTests
    // A file that cannot be run has no failed test of its own.
    failed += numFailedTests || (vitest.status === 0 ? 0 : Math.max(numFailedTestSuites, 1))
  } else failed++

  say('browser tests')
  server = await startServer(port, environment)
  const browserReport = join(own, 'browser.json')
  rmSync(browserReport, { force: true })
  const browser = spawnSync(join(folder, 'node_modules/.bin/playwright'), ['test'], {
    cwd: folder,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, ...environment },
  })
  if (existsSync(browserReport)) {
    const { stats } = JSON.parse(readFileSync(browserReport, 'utf8'))
    passed += stats.expected
    failed += stats.unexpected + stats.flaky || (browser.status === 0 ? 0 : 1)
  } else failed++
} finally {
  await end(server)
  await end(database)
  rmSync(data, { recursive: true, force: true })
}
say('done')
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
