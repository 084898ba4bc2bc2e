/*
 * npm run type:classes: how the classes that the desk reads off outlines agree with those that others gave. The families are
 * named one by one in tests/type/labelled-families.json; each package says its category beside its files. They are fetched once,
 * kept in .morphene, and never committed. Limits were tuned on one half of them; what is told first is the other half.
 */
import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { z } from 'zod'
import { classify, type TypeClass } from '../core/font/classify'
import type { FaceRecord } from '../core/font/face'
import { projectFolder } from '../server/library/files'
import { checkFontFile } from '../server/library/font-file'
import { shippedFaces } from '../server/library/shipped'

const folder = join(projectFolder(), '.morphene', 'labelled-families')
const list = (name: string): unknown => JSON.parse(readFileSync(join(projectFolder(), 'tests', 'type', name), 'utf8'))
const metadataSchema = z.object({
  category: z.enum(['serif', 'sans-serif', 'monospace', 'handwriting', 'display']),
})
const expected = {
  serif: ['serif', 'slab'],
  'sans-serif': ['sans'],
  monospace: ['monospaced'],
  handwriting: ['script', 'display'],
  display: ['display'],
} as const satisfies Record<string, readonly TypeClass[]>
type Category = keyof typeof expected

/** The package's metadata and its regular Latin file, fetched where they are not there yet; null where it has none. */
function fetched(name: string): { readonly category: Category; readonly file: Uint8Array } | null {
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
  return { category, file: new Uint8Array(readFileSync(file)) }
}

interface Judged {
  readonly name: string
  readonly category: Category
  readonly found: TypeClass
  readonly right: boolean
}

function table(title: string, judged: readonly Judged[]): void {
  console.log(`\n${title}`)
  for (const category of Object.keys(expected) as Category[]) {
    const own = judged.filter(each => each.category === category)
    const right = own.filter(each => each.right).length
    const strict = own.filter(each => each.found === expected[category][0]).length
    const more = category === 'handwriting' ? `; strictly script ${strict}` : ''
    console.log(`  ${category.padEnd(12)} ${right} of ${own.length}${more}`)
  }
  for (const each of ['script', 'display'] as const) {
    const wrongly = judged.filter(
      one => one.found === each && !(expected[one.category] as readonly string[]).includes(each),
    )
    console.log(`  falsely ${each}: ${wrongly.length}${wrongly.map(one => ` ${one.name}`).join('')}`)
  }
  for (const { name, category, found } of judged.filter(each => !each.right))
    console.log(`    ${name}: ${category}, taken for ${found}`)
}

async function judge(names: readonly string[]): Promise<Judged[]> {
  const judged: Judged[] = []
  for (const name of names) {
    const own = fetched(name)
    if (!own) {
      console.log(`${name}: not to be had`)
      continue
    }
    const { face } = await checkFontFile(own.file)
    const found = classify(face.measures).class
    const right = (expected[own.category] as readonly string[]).includes(found)
    judged.push({ name, category: own.category, found, right })
  }
  return judged
}

const halves = z
  .object({ tunedOn: z.array(z.string()), notTunedOn: z.array(z.string()) })
  .parse(list('labelled-families.json'))
table('the half that nothing was tuned on', await judge(halves.notTunedOn))
table('the half that limits were tuned on', await judge(halves.tunedOn))

const labels = list('shipped-classes.json') as Record<string, readonly TypeClass[]>
const plainest = (faces: readonly FaceRecord[]): FaceRecord =>
  [...faces].sort((a, b) => b.slant.localeCompare(a.slant) || Math.abs(a.weight - 400) - Math.abs(b.weight - 400))[0]!
const families = new Map<string, FaceRecord[]>()
for (const { face } of shippedFaces()) families.set(face.family, [...(families.get(face.family) ?? []), face])
const shipped = [...families].filter(([family]) => labels[family])
const wrong = shipped.filter(([family, faces]) => !labels[family]!.includes(classify(plainest(faces).measures).class))
console.log(`\nfaces that ship: ${shipped.length - wrong.length} of ${shipped.length} as labelled by hand`)
for (const [family, faces] of wrong)
  console.log(`    ${family}: ${labels[family]!.join(' or ')}, taken for ${classify(plainest(faces).measures).class}`)
