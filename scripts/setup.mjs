// What the start and test commands share: packages, MariaDB, the build. Plain JavaScript, since it runs before anything is installed.
import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

export const folder = join(dirname(fileURLToPath(import.meta.url)), '..')
export const own = join(folder, '.morphene')
const started = Date.now()

/** Says a step, with the seconds since the start. */
export function say(text) {
  console.log(`${String(Math.round((Date.now() - started) / 1000)).padStart(4)} s  ${text}`)
}

/** Ends with a clear word. */
export function stop(text) {
  console.error(`\nmorphene: ${text}`)
  process.exit(1)
}

export function checkNode() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19))
    stop(`Node 20.19 or newer is needed; this is ${process.versions.node}.`)
}

/**
 * Installs npm packages when the lock file is not the one they were installed from. Not `npm ci`: it refuses where a
 * registry lacks the optional packages of other systems, though nothing here needs them.
 */
export function installPackages() {
  const lock = createHash('sha256')
    .update(readFileSync(join(folder, 'package-lock.json')))
    .digest('hex')
  const mark = join(folder, 'node_modules', '.morphene-lock')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === lock) return
  say('installing npm packages (the first time takes some minutes)')
  const result = spawnSync(
    'npm',
    ['install', '--no-save', '--no-progress', '--no-audit', '--no-fund', '--loglevel=error'],
    { cwd: folder, stdio: 'inherit' },
  )
  if (result.status !== 0) stop('the npm packages could not be installed; see above.')
  writeFileSync(mark, lock)
}

const packageOf = [
  ['/usr/sbin/mariadbd', 'mariadb-server'],
  ['/usr/share/fonts/truetype/liberation', 'fonts-liberation'],
  ['/usr/share/fonts/truetype/dejavu', 'fonts-dejavu-core'],
  ['/usr/share/fonts/truetype/crosextra/Carlito-Regular.ttf', 'fonts-crosextra-carlito'],
  ['/usr/share/fonts/truetype/crosextra/Caladea-Regular.ttf', 'fonts-crosextra-caladea'],
]

/** Installs Debian packages that are missing. */
export function installSystem(more = []) {
  const missing = [...packageOf, ...more].filter(([path]) => !existsSync(path)).map(([, name]) => name)
  if (missing.length === 0) return
  if (process.getuid?.() !== 0)
    stop(
      `these Debian packages are missing: ${missing.join(' ')}. Install them with apt-get as root, then start again.`,
    )
  say(`installing Debian packages: ${missing.join(' ')}`)
  const environment = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  const quiet = { stdio: ['ignore', 'ignore', 'inherit'], env: environment }
  if (spawnSync('apt-get', ['update', '-qq'], quiet).status !== 0) stop('apt-get update failed; see above.')
  // Debian would start a database of its own beside ours; a policy that refuses is put there for the time of the install.
  const policy = '/usr/sbin/policy-rc.d'
  const had = existsSync(policy)
  if (!had) writeFileSync(policy, '#!/bin/sh\nexit 101\n', { mode: 0o755 })
  const result = spawnSync('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...missing], quiet)
  if (!had) execFileSync('rm', ['-f', policy])
  if (result.status !== 0) stop('the Debian packages could not be installed; see above.')
}

/** Whether a loopback port is free. */
export function portFree(port) {
  return new Promise(resolve => {
    const server = createServer()
    server.once('error', () => resolve(false))
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)))
  })
}

/** Starts a MariaDB with a data folder of its own; resolves with the process. */
export async function startDatabase(data, port) {
  if (!(await portFree(port)))
    stop(`port ${port} for the database is taken. Is Morphene running already? Set MORPHENE_DB_PORT to another one.`)
  if (!existsSync(join(data, 'mysql'))) {
    say('making a database folder')
    mkdirSync(data, { recursive: true })
    const init = spawnSync(
      'mariadb-install-db',
      [
        '--no-defaults',
        `--user=${process.getuid?.() === 0 ? 'root' : (process.env.USER ?? 'root')}`,
        `--datadir=${data}`,
        '--auth-root-authentication-method=normal',
        '--skip-test-db',
      ],
      { encoding: 'utf8' },
    )
    if (init.status !== 0) stop(`the database folder could not be made: ${init.stderr.slice(-500)}`)
  }
  say(`starting MariaDB on 127.0.0.1:${port}`)
  const args = [
    '--no-defaults',
    ...(process.getuid?.() === 0 ? ['--user=root'] : []),
    `--datadir=${data}`,
    `--socket=${join(data, 's')}`,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    `--pid-file=${join(data, 'pid')}`,
    '--skip-log-bin',
    '--innodb-flush-log-at-trx-commit=1',
  ]
  const database = spawn('mariadbd', args, { stdio: ['ignore', 'ignore', 'pipe'], detached: true })
  let log = ''
  database.stderr.on('data', text => {
    log = (log + text).slice(-4000)
  })
  for (let tries = 0; tries < 300; tries++) {
    if (database.exitCode !== null) stop(`MariaDB did not start:\n${log}`)
    if (log.includes('ready for connections')) return database
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return stop(`MariaDB did not get ready in 30 s:\n${log}`)
}

/** Ends a process we started, and waits until it is gone. */
export function end(child, signal = 'SIGTERM') {
  return new Promise(resolve => {
    if (!child || child.exitCode !== null || child.signalCode !== null) {
      resolve()
      return
    }
    child.once('exit', () => resolve())
    child.kill(signal)
    setTimeout(() => child.kill('SIGKILL'), 15_000).unref()
  })
}

function sources(path) {
  const full = join(folder, path)
  if (!existsSync(full)) return []
  return statSync(full).isDirectory()
    ? readdirSync(full)
        .sort()
        .flatMap(name => sources(join(path, name)))
    : [path]
}

/** Builds the application when a source has changed since the last time. */
export function buildApplication() {
  const hash = createHash('sha256')
  for (const path of [
    'app',
    'core',
    'shared',
    'server',
    'nuxt.config.ts',
    'package-lock.json',
    'scripts/build-thread.mjs',
  ].flatMap(sources))
    hash.update(path).update(readFileSync(join(folder, path)))
  const mark = join(own, 'built')
  const state = hash.digest('hex')
  if (existsSync(mark) && readFileSync(mark, 'utf8') === state && existsSync(join(folder, '.output/server/index.mjs')))
    return
  say('building the application (about a minute)')
  const built = spawnSync(join(folder, 'node_modules/.bin/nuxt'), ['build', '--logLevel=silent'], {
    cwd: folder,
    encoding: 'utf8',
    env: { ...process.env, NODE_ENV: 'production' },
  })
  if (built.status !== 0) stop(`the build failed:\n${built.stdout.slice(-3000)}${built.stderr.slice(-3000)}`)
  const thread = spawnSync('node', ['scripts/build-thread.mjs'], { cwd: folder, stdio: 'inherit' })
  if (thread.status !== 0) stop('the thread script could not be built; see above.')
  mkdirSync(own, { recursive: true })
  writeFileSync(mark, state)
}

/** Runs a TypeScript program of the project and waits. */
export function runTypeScript(file, args, environment) {
  const result = spawnSync(process.execPath, ['--import', 'tsx', join(folder, file), ...args], {
    cwd: folder,
    stdio: 'inherit',
    env: { ...process.env, ...environment },
  })
  if (result.status !== 0) stop(`${file} failed; see above.`)
}

/** Starts the built server and waits until it answers. */
export async function startServer(port, environment) {
  if (!(await portFree(port)))
    stop(`port ${port} is taken. Is Morphene running already? Set MORPHENE_PORT to another one.`)
  const server = spawn(process.execPath, [join(folder, '.output/server/index.mjs')], {
    cwd: folder,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: {
      ...process.env,
      ...environment,
      MORPHENE_FOLDER: folder,
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
    },
  })
  for (let tries = 0; tries < 300; tries++) {
    if (server.exitCode !== null) stop('the server did not start; see above.')
    try {
      if ((await fetch(`http://127.0.0.1:${port}/api/health`)).ok) return server
    } catch {
      /* not yet */
    }
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return stop('the server did not answer in 30 s.')
}
