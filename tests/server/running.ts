import { spawn, type ChildProcess } from 'node:child_process'
import { join } from 'node:path'
import { projectFolder } from '../../server/library/files'

/** The database that `npm test` started; tests never make one up. */
export function testDatabase(): { port: number; name: string } {
  const port = Number(process.env.MORPHENE_DB_PORT)
  if (!port || process.env.MORPHENE_DB_NAME !== 'morphene_test')
    throw new Error('these tests need the database that `npm test` starts (MORPHENE_DB_PORT, MORPHENE_DB_NAME)')
  return { port, name: 'morphene_test' }
}

/** A server process of the built application on a port of its own. */
export async function startServer(port: number): Promise<ChildProcess> {
  const server = spawn(process.execPath, [join(projectFolder(), '.output/server/index.mjs')], {
    stdio: ['ignore', 'ignore', 'inherit'],
    env: {
      ...process.env,
      MORPHENE_FOLDER: projectFolder(),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      NODE_ENV: 'production',
    },
  })
  for (let tries = 0; tries < 200; tries++) {
    try {
      if ((await fetch(`http://127.0.0.1:${port}/api/health`)).ok) return server
    } catch {
      /* not yet */
    }
    await new Promise(resolve => setTimeout(resolve, 100))
  }
  throw new Error('the server did not answer')
}

/** Ends a server and waits until it is gone. */
export function endServer(server: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  return new Promise(resolve => {
    if (server.exitCode !== null || server.signalCode !== null) {
      resolve()
      return
    }
    server.once('exit', () => resolve())
    server.kill(signal)
  })
}
