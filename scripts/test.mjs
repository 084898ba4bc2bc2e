/*
 * npm test: everything. Types, lint, unit, server against a real MariaDB, browser. Beside the build is done what reads sources;
 * then come tests before a browser, tests of the server, which wait for servers more than they work, and one after another all
 * else: what is timed goes first where all want a processor. Tests of the server and those before a browser have databases of
 * their own in one MariaDB, and ports that do not meet. Ends with one line: N passed, N failed.
 */
import { spawn } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { accountOf, removeDatabase, startDatabase } from './database.mjs'
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
  startServer,
  stop,
} from './setup.mjs'

process.setMaxListeners(50)
// Whoever breaks it off leaves nothing behind: what runs is ended as this ends.
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, () => process.exit(1))
const databasePort = Number(process.env.MORPHENE_TEST_DB_PORT ?? 3417)
const port = Number(process.env.MORPHENE_TEST_PORT ?? 3411)
/** Servers that tests of the server start are counted up from here; those beside the browser, from the port itself. */
const serverTestsPort = port + 200
const data = join(own, 'test-database')
const environment = (name, from) => ({
  MORPHENE_DB_PORT: String(databasePort),
  MORPHENE_DB_NAME: name,
  MORPHENE_TEST_PORT: String(from),
})
const beforeBrowser = environment('morphene_browser_test', port)
// Tests make databases of their own; the servers that they start may not.
const asSchema = settings => ({
  ...settings,
  ...accountOf(data, 'schema'),
  MORPHENE_SERVER_SECRET: accountOf(data, 'server').MORPHENE_DB_PASSWORD_FILE,
})
let passed = 0
let failed = 0

function endGroup({ pid, exitCode, signalCode }) {
  if (exitCode !== null || signalCode !== null) return
  try {
    process.kill(-pid)
  } catch {
    // It has ended meanwhile.
  }
}

/** Runs a tool of the project to its end, `behind` others by so many steps: its output is shown by whoever asked for it. */
function run(tool, args, { more = {}, behind = 0 } = {}) {
  const command = join(folder, 'node_modules/.bin', tool)
  const child = spawn('nice', ['-n', String(behind), command, ...args], {
    cwd: folder,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...more },
    // A group of its own: what it started itself ends with it, servers of tests among them.
    detached: true,
  })
  process.once('exit', () => endGroup(child))
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', chunk => {
      said += chunk
      if (behind === 0) process.stdout.write(chunk)
    })
  return new Promise(resolve => child.on('close', code => resolve({ code, said })))
}

async function check(name, tool, args) {
  say(name)
  const { code, said } = await run(tool, args, { behind: 10 })
  if (code === 0) passed++
  else {
    failed++
    console.log(`${name}:\n${said.slice(-6000)}`)
  }
}

/** The tests of a project of vitest: each counts. A file that cannot be run has no failed test of its own. */
async function tests(project, { more = {}, behind }) {
  const name = `${project} tests`
  say(name)
  const report = join(own, `${project}.json`)
  rmSync(report, { force: true })
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${report}`]
  const { code, said } = await run('vitest', ['run', '--project', project, ...reporters], { more, behind })
  console.log(said)
  if (existsSync(report)) {
    const { numPassedTests, numFailedTests, numFailedTestSuites } = JSON.parse(readFileSync(report, 'utf8'))
    passed += numPassedTests
    failed += numFailedTests || (code === 0 ? 0 : Math.max(numFailedTestSuites, 1))
  } else failed++
  say(`${name}: done`)
}

async function browserTests() {
  say('browser tests')
  const report = join(own, 'browser.json')
  rmSync(report, { force: true })
  const { code } = await run('playwright', ['test'], { more: asSchema(beforeBrowser) })
  if (existsSync(report)) {
    const { stats } = JSON.parse(readFileSync(report, 'utf8'))
    passed += stats.expected
    failed += stats.unexpected + stats.flaky || (code === 0 ? 0 : 1)
  } else failed++
}

/** Tests of the server, with a database and ports of their own. One thread of a kind does for each of their many servers. */
async function serverTests(built, database) {
  await database
  const settings = asSchema(environment('morphene_server_test', serverTestsPort))
  await runTypeScript('scripts/prepare.ts', [], settings)
  await built
  await tests('server', { more: { ...settings, MORPHENE_THREADS: '1' }, behind: 5 })
}

/** What reads sources alone, then what waits for the build, one after another. */
async function sources(built) {
  await check('types of core', 'tsc', ['-p', 'tsconfig.core.json'])
  await check('lint', 'eslint', ['.', '--max-warnings', '0'])
  await tests('unit', { behind: 10 })
  // Settings of the compiler are made by the build.
  await built
  await check('types of programs, server and tests', 'tsc', ['-p', 'tsconfig.node.json'])
  // What is shared is among the types of programs.
  await check('types of the application', 'vue-tsc', ['--noEmit', '-p', '.nuxt/tsconfig.app.json'])
}

/** The desk at work, and the browser before it. */
async function desk(ready) {
  await ready
  const server = await startServer(port, { ...beforeBrowser, ...accountOf(data, 'server') })
  try {
    await browserTests()
  } finally {
    await end(server)
  }
}

checkNode()
for (const taken of [databasePort, port, serverTestsPort])
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
removeDatabase(data)
const built = buildApplication()
// Beside the build: all of it waits for the disk more than for a processor.
const database = startDatabase(data, databasePort, { lasting: false })
const prepared = database.then(() => runTypeScript('scripts/prepare.ts', [], asSchema(beforeBrowser)))
try {
  // Faces are measured once: the other database is made when the first one is.
  await Promise.all([sources(built), desk(Promise.all([built, prepared])), serverTests(built, prepared)])
} finally {
  await end(await database)
  removeDatabase(data)
}
say('done')
console.log(`${passed} passed, ${failed} failed`)
process.exit(failed === 0 ? 0 : 1)
