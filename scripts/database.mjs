// The MariaDB of a desk: a process of its own on loopback, with accounts that may do no more than they must.
import { spawn, spawnSync } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { portFree, say, stop } from './setup.mjs'

/** What an account may do with the desk's databases: the server reads and writes rows; tables are made by another. */
const accounts = {
  server: { user: 'morphene', may: 'SELECT, INSERT, UPDATE, DELETE' },
  schema: { user: 'morphene_schema', may: 'ALL' },
}
/** The desk's own database, and those of tests, copies and restoring beside it. */
const patterns = ['morphene', 'morphene\\_%']
const secretFile = (data, name) => `${data}.${name}-secret`

/**
 * How an account of the database in a data folder is reached, as settings of the environment.
 * @param {string} data
 * @param {'server' | 'schema'} name
 */
export const accountOf = (data, name) => ({
  MORPHENE_DB_USER: accounts[name].user,
  MORPHENE_DB_PASSWORD_FILE: secretFile(data, name),
})

/** The secret of an account; made at the first start, and read by nobody else. */
function secretOf(data, name) {
  const file = secretFile(data, name)
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 })
  chmodSync(file, 0o600)
  return readFileSync(file, 'utf8').trim()
}

/**
 * What the database is told at every start, before anybody reaches it: its own accounts, each with the least it needs, from
 * loopback alone; root comes in through its socket as the system's root, and never over the network. Folders of before
 * these accounts get them, too.
 */
function accountStatements(data) {
  const made = Object.entries(accounts).flatMap(([name, { user, may }]) => {
    const who = `'${user}'@'127.0.0.1'`
    return [
      `CREATE USER IF NOT EXISTS ${who}`,
      `ALTER USER ${who} IDENTIFIED BY '${secretOf(data, name)}'`,
      ...patterns.map(pattern => `GRANT ${may} ON \`${pattern}\`.* TO ${who}`),
    ]
  })
  return [
    "DELETE FROM mysql.global_priv WHERE User IN ('', 'root') AND Host <> 'localhost'",
    'FLUSH PRIVILEGES',
    "ALTER USER 'root'@'localhost' IDENTIFIED VIA unix_socket",
    ...made,
  ]
    .map(each => `${each};\n`)
    .join('')
}

function makeFolder(data) {
  say('making a database folder')
  mkdirSync(data, { recursive: true })
  const init = spawnSync(
    'mariadb-install-db',
    [
      '--no-defaults',
      `--user=${process.getuid?.() === 0 ? 'root' : (process.env.USER ?? 'root')}`,
      `--datadir=${data}`,
      '--auth-root-authentication-method=socket',
      '--skip-test-db',
    ],
    { encoding: 'utf8' },
  )
  if (init.status !== 0) stop(`the database folder could not be made: ${init.stderr.slice(-500)}`)
}

/** What makes writes lasting, and what is said instead where nothing needs to outlive the machine: tests wait for no disk. */
const lastingArguments = ['--innodb-flush-log-at-trx-commit=1']
const passingArguments = [
  ...['--innodb-flush-log-at-trx-commit=2', '--innodb-flush-method=nosync', '--skip-innodb-doublewrite'],
  '--debug-no-sync',
]

/**
 * Starts a MariaDB with a data folder of its own; resolves with the process.
 * @param {string} data
 * @param {number} port
 * @param {{ lasting?: boolean }} options whether what is stored must outlive the machine, not the database alone
 */
export async function startDatabase(data, port, { lasting = true } = {}) {
  if (!(await portFree(port)))
    stop(`port ${port} for the database is taken. Is Morphene running already? Set MORPHENE_DB_PORT to another one.`)
  if (!existsSync(join(data, 'mysql'))) makeFolder(data)
  say(`starting MariaDB on 127.0.0.1:${port}`)
  const told = `${data}.accounts.sql`
  writeFileSync(told, accountStatements(data), { mode: 0o600 })
  const args = [
    '--no-defaults',
    ...(process.getuid?.() === 0 ? ['--user=root'] : []),
    `--datadir=${data}`,
    `--socket=${join(data, 's')}`,
    '--bind-address=127.0.0.1',
    `--port=${port}`,
    `--pid-file=${join(data, 'pid')}`,
    `--init-file=${told}`,
    '--skip-name-resolve',
    '--skip-log-bin',
    ...(lasting ? lastingArguments : passingArguments),
  ]
  const database = spawn('mariadbd', args, { stdio: ['ignore', 'ignore', 'pipe'], detached: true })
  // Whatever ends this program ends its database.
  process.once('exit', () => database.kill())
  let log = ''
  database.stderr.on('data', text => {
    log = (log + text).slice(-4000)
  })
  try {
    for (let tries = 0; tries < 300; tries++) {
      if (database.exitCode !== null) stop(`MariaDB did not start:\n${log}`)
      if (log.includes('ready for connections')) return database
      await new Promise(resolve => setTimeout(resolve, 100))
    }
    return stop(`MariaDB did not get ready in 30 s:\n${log}`)
  } finally {
    rmSync(told, { force: true })
  }
}

/** Takes a data folder away, with the secrets of its accounts. */
export function removeDatabase(data) {
  rmSync(data, { recursive: true, force: true })
  for (const name of Object.keys(accounts)) rmSync(secretFile(data, name), { force: true })
}
