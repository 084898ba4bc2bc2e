import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { accountOf, removeDatabase, startDatabase } from '../../scripts/database.mjs'
import { end, runTypeScript } from '../../scripts/setup.mjs'
import { projectFolder } from '../../server/library/files'
import { connect, databaseAddress, type DatabaseAddress } from '../../server/store/database'

/** Asks until something is so, or the time is over. Milliseconds. */
export async function until(what: () => Promise<boolean>, within: number): Promise<boolean> {
  for (const over = Date.now() + within; Date.now() < over;) {
    if (await what().catch(() => false)) return true
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  return false
}

/** The name of its database. */
const name = 'morphene'

/**
 * A whole desk of its own, database and servers, on ports and in a folder of its own: to be killed and begun again, or to
 * be asked for much. The application must be built.
 */
export class DeskProcess {
  private readonly data = join(mkdtempSync(join(tmpdir(), 'morphene-desk-')), 'database')
  private database: ChildProcess | null = null
  private readonly servers: (ChildProcess | null)[] = []

  /**
   * @param port of the first server; those that follow have the next ones
   * @param databasePort of its database
   * @param settings more settings of the environment for its servers
   */
  constructor(
    private readonly port: number,
    private readonly databasePort: number,
    private readonly settings: Readonly<Record<string, string>> = {},
  ) {}

  /** How its database is reached, with the account that makes tables. */
  get address(): DatabaseAddress {
    const { MORPHENE_DB_USER: user, MORPHENE_DB_PASSWORD_FILE: file } = accountOf(this.data, 'schema')
    return databaseAddress({
      MORPHENE_DB_NAME: name,
      MORPHENE_DB_PORT: String(this.databasePort),
      MORPHENE_DB_USER: user,
      MORPHENE_DB_PASSWORD_FILE: file,
    })
  }

  /** Where a server of the desk is asked. */
  base(server = 0): string {
    return `http://127.0.0.1:${this.port + server}`
  }

  /** Makes the desk, with the demo's documents where they are asked for, and starts its servers. */
  async begin({
    demo = false,
    servers = 1,
  }: { readonly demo?: boolean; readonly servers?: number } = {}): Promise<void> {
    await this.startDatabase()
    await runTypeScript('scripts/prepare.ts', demo ? ['--demo'] : [], {
      MORPHENE_DB_NAME: name,
      MORPHENE_DB_PORT: String(this.databasePort),
      ...accountOf(this.data, 'schema'),
    })
    for (let server = 0; server < servers; server++) await this.startServer(server)
  }

  async startDatabase(): Promise<void> {
    this.database = await startDatabase(this.data, this.databasePort)
  }

  /** Starts a server and waits until it answers. @throws Error where it does not within 30 s */
  async startServer(server = 0): Promise<void> {
    this.servers[server] = spawn(process.execPath, [join(projectFolder(), '.output/server/index.mjs')], {
      stdio: ['ignore', 'ignore', 'ignore'],
      env: {
        ...process.env,
        MORPHENE_FOLDER: projectFolder(),
        MORPHENE_DB_NAME: name,
        MORPHENE_DB_PORT: String(this.databasePort),
        ...accountOf(this.data, 'server'),
        NITRO_HOST: '127.0.0.1',
        NITRO_PORT: String(this.port + server),
        NODE_ENV: 'production',
        ...this.settings,
      },
    })
    if (!(await until(() => this.ready(server), 30_000))) throw new Error('the server did not answer in 30 s')
  }

  /** Whether a server answers and reaches its database. */
  async ready(server = 0): Promise<boolean> {
    return (await fetch(`${this.base(server)}/api/health`)).ok
  }

  /** The process of a server. */
  processOf(server = 0): number | undefined {
    return this.servers[server]?.pid
  }

  async killServer(server = 0): Promise<void> {
    await end(this.servers[server] ?? null, 'SIGKILL')
  }

  async killDatabase(): Promise<void> {
    await end(this.database, 'SIGKILL')
  }

  /** A way to its database. */
  connect() {
    return connect(this.address, 2)
  }

  /** Ends all of it and leaves nothing behind. */
  async finish(): Promise<void> {
    for (const server of this.servers) await end(server)
    await end(this.database)
    removeDatabase(this.data)
  }
}
