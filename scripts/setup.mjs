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
  ['/usr/share/color/icc/FOGRA39L.ti3', 'icc-profiles-free'],
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

/** Runs a program to its end; what it says is shown where it is to be, else kept. */
function carryOut(command, args, { shown = false, environment = {} } = {}) {
  const child = spawn(command, args, {
    cwd: folder,
    stdio: shown ? ['ignore', 'inherit', 'inherit'] : ['ignore', 'pipe', 'pipe'],
    env: { ...process.env, ...environment },
  })
  let said = ''
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', chunk => {
      said += chunk
    })
  return new Promise(resolve => child.on('close', code => resolve({ code, said })))
}

/** Builds the application when a source has changed since the last time. */
export async function buildApplication() {
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
  const nuxt = join(folder, 'node_modules/.bin/nuxt')
  const built = await carryOut(nuxt, ['build', '--logLevel=silent'], { environment: { NODE_ENV: 'production' } })
  if (built.code !== 0) stop(`the build failed:\n${built.said.slice(-6000)}`)
  const thread = await carryOut('node', ['scripts/build-thread.mjs'], { shown: true })
  if (thread.code !== 0) stop('the thread script could not be built; see above.')
  mkdirSync(own, { recursive: true })
  writeFileSync(mark, state)
  say('built')
}

/** Runs a TypeScript program of the project and waits. */
export async function runTypeScript(file, args, environment) {
  const program = ['--import', 'tsx', join(folder, file), ...args]
  const { code } = await carryOut(process.execPath, program, { shown: true, environment })
  if (code !== 0) stop(`${file} failed; see above.`)
}

/** The address that the desk is reached at: of this machine alone where nothing else is said. */
export const bindAddress = process.env.MORPHENE_BIND ?? '127.0.0.1'

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
      NITRO_HOST: bindAddress,
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
    },
  })
  process.once('exit', () => server.kill())
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
