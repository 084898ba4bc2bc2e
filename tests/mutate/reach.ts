import { writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, expect } from 'vitest'
import { projectFolder } from '../../server/library/files'

/*
 * Which places of the core a file of tests reaches: `npm run mutate` asks for it (MORPHENE_REACH, a folder) before it mutates
 * anything, of sources that tell it. What they do when they are loaded counts, too: each file of tests then loads its own.
 */
const folder = process.env.MORPHENE_REACH!
const places = new Set<number>()
Object.assign(globalThis, { reachedPlace: (place: number) => places.add(place) })

afterAll(() => {
  const test = expect.getState().testPath!.slice(projectFolder().length + 1)
  writeFileSync(join(folder, `${test.replaceAll('/', '-')}.json`), JSON.stringify({ test, places: [...places] }))
})
