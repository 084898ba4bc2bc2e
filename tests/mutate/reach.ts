import { writeFileSync } from 'node:fs'
import { Session, type Profiler } from 'node:inspector'
import { join } from 'node:path'
import { afterAll, expect } from 'vitest'
import { projectFolder } from '../../server/library/files'

/*
 * Which functions of the core a file of tests reaches: `npm run mutate` asks for it (MORPHENE_REACH, a folder) before it mutates
 * anything. V8 counts calls by function; each file of tests writes those that were called while it ran.
 */
const folder = process.env.MORPHENE_REACH!
const kept = globalThis as { reach?: Session }

function begin(): Session {
  const session = new Session()
  session.connect()
  session.post('Profiler.enable')
  session.post('Profiler.startPreciseCoverage', { callCount: true, detailed: false })
  return session
}

/** Calls since the last time it was asked. */
function called(session: Session): Profiler.ScriptCoverage[] {
  let found: Profiler.ScriptCoverage[] = []
  session.post('Profiler.takePreciseCoverage', (_, answer) => {
    found = answer.result
  })
  return found
}

// Files of one worker share it. What came before this file is not its own.
const session = (kept.reach ??= begin())
called(session)

afterAll(() => {
  const core = `${projectFolder()}/core/`
  const files = called(session).flatMap(({ url, functions }) => {
    const path = url.replace('file://', '')
    return path.startsWith(core)
      ? [
          {
            file: `core/${path.slice(core.length)}`,
            functions: functions
              .filter(each => each.functionName !== '' && each.ranges[0]!.count > 0)
              .map(each => each.functionName),
          },
        ]
      : []
  })
  const test = expect.getState().testPath!.slice(projectFolder().length + 1)
  writeFileSync(join(folder, `${test.replaceAll('/', '-')}.json`), JSON.stringify({ test, files }))
})
