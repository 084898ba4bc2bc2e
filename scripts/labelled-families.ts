import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import type { FaceRecord } from '../core/font/face'
import { projectFolder } from '../server/library/files'
import { checkSingleFont } from '../server/library/font-file'

/*
 * Families that others have labelled, to hold the desk's own judgements against. They are named one by one in
 * tests/type/labelled-families.json; each package says its category beside its files. They are fetched once, kept in
 * .morphene, and never committed.
 */

const folder = join(projectFolder(), '.morphene', 'labelled-families')
const metadataSchema = z.object({ category: z.enum(['serif', 'sans-serif', 'monospace', 'handwriting', 'display']) })
export type Category = z.infer<typeof metadataSchema>['category']

export interface LabelledFamily {
  readonly name: string
  readonly category: Category
  readonly face: FaceRecord
}

/** A list of judgements made by hand, from tests/type. */
export const byHand = (name: string): unknown =>
  JSON.parse(readFileSync(join(projectFolder(), 'tests', 'type', name), 'utf8'))

/** A family's category and its regular Latin face, fetched where they are not there yet; null where it cannot be had. */
async function labelled(name: string): Promise<LabelledFamily | null> {
  const own = join(folder, name)
  const file = join(own, 'files', `${name}-latin-400-normal.woff2`)
  if (!existsSync(join(own, 'metadata.json'))) {
    mkdirSync(own, { recursive: true })
    spawnSync('npm', ['pack', `@fontsource/${name}`, '--silent', '--pack-destination', own], { cwd: own })
    const archive = readdirSync(own).find(each => each.endsWith('.tgz'))
    if (!archive) return null
    const wanted = ['package/metadata.json', `package/files/${name}-latin-400-normal.woff2`]
    spawnSync('tar', ['xzf', archive, '--strip-components=1', ...wanted], { cwd: own })
    rmSync(join(own, archive))
  }
  if (!existsSync(file)) return null
  const { category } = metadataSchema.parse(JSON.parse(readFileSync(join(own, 'metadata.json'), 'utf8')))
  return { name, category, face: (await checkSingleFont(new Uint8Array(readFileSync(file)))).face }
}

/** Both halves of the families: the one that limits were tuned on, and the other. */
export async function labelledFamilies(): Promise<{
  readonly tunedOn: readonly LabelledFamily[]
  readonly notTunedOn: readonly LabelledFamily[]
}> {
  const { tunedOn, notTunedOn } = z
    .object({ tunedOn: z.array(z.string()), notTunedOn: z.array(z.string()) })
    .parse(byHand('labelled-families.json'))
  const had = async (names: readonly string[]): Promise<LabelledFamily[]> => {
    const found: LabelledFamily[] = []
    for (const name of names) {
      const own = await labelled(name)
      if (own) found.push(own)
      else console.log(`${name}: not to be had`)
    }
    return found
  }
  return { tunedOn: await had(tunedOn), notTunedOn: await had(notTunedOn) }
}
