/*
 * Does a proof find what is wrong? Faults of each kind are planted at places of real files, drawn by a seed, and looked for:
 * how many are found, and what else of the kind is told that was not there before.
 * npm run corpus:proof [FOLDER] [-- --seed 1] [-- --count 20]   Without a folder, the files that `npm run corpus` fetched.
 */
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { parseArgs } from 'node:util'
import { checklistSchema } from '../core/proof/checklist'
import type { Finding } from '../core/proof/finding'
import { proofOf } from '../core/proof/proof'
import { checks } from '../core/proof/registry'
import { DocumentSession } from '../core/session'
import { Typesetter } from '../core/typeset/look'
import { Shaper } from '../core/typeset/shaper'
import { projectFolder } from '../server/library/files'
import { startHarfBuzz } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import { numbersFrom, shuffled } from '../tests/support/seeded'
import { plant, plantings, type Planting } from './planting'

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: { seed: { type: 'string', default: '1' }, count: { type: 'string', default: '20' } },
})
const folder = positionals[0] ?? join(projectFolder(), '.morphene', 'corpus')
const wanted = Number(values.count)
/** So many of one kind go into one file. */
const perFile = 5

const { library, load } = shippedLibrary()
const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
const files = readdirSync(folder).filter(name => /\.odt$/i.test(name))
const sessions = new Map<string, DocumentSession>()
function open(name: string): DocumentSession {
  const known = sessions.get(name) ?? DocumentSession.open(new Uint8Array(readFileSync(join(folder, name))), typesetter)
  sessions.set(name, known)
  return known
}

/** What one check finds in a document. */
function findingsOf(check: string, session: DocumentSession): readonly Finding[] {
  const others = checks.filter(each => each.id !== check).map(each => [each.id, { runs: false }] as const)
  return proofOf(session, { checklist: checklistSchema.parse({ checks: Object.fromEntries(others) }) }).findings
}

/** The paragraphs that a finding is about: where it stands, and all that its repair would reach. */
const nodesOf = ({ place, repair }: Finding): string[] =>
  [
    ...(place ? [place] : []),
    ...(repair?.looks ?? []).map(each => each.at),
    ...(repair?.settle ?? []),
    ...(repair?.mends ?? []),
  ].map(({ part, node }) => `${part}#${node}`)

const sameFinding = ({ key }: Finding): string => JSON.stringify([key.text, key.around])

interface Tried {
  planted: number
  found: number
  others: number
  readonly missed: string[]
  readonly strange: string[]
}

function tryKind(planting: Planting, random: () => number): Tried {
  const tried: Tried = { planted: 0, found: 0, others: 0, missed: [], strange: [] }
  for (const name of shuffled(files, random)) {
    if (tried.planted >= wanted) break
    const before = open(name)
    const base = findingsOf(planting.check, before)
    // Where so much is told already, what is planted would lie beyond the limit.
    if (base.length > 500) continue
    const known = new Set(base.map(sameFinding))
    const planted = plant(before, planting, Math.min(perFile, wanted - tried.planted), random)
    if (!planted) continue
    const findings = findingsOf(planting.check, planted.session)
    const places = new Set(planted.places.map(({ part, node }) => `${part}#${node}`))
    const reached = new Set(findings.flatMap(nodesOf))
    tried.planted += places.size
    for (const place of places)
      if (reached.has(place)) tried.found++
      else tried.missed.push(`${name} ${place}`)
    for (const finding of findings) {
      if (known.has(sameFinding(finding)) || nodesOf(finding).some(node => places.has(node))) continue
      tried.others++
      tried.strange.push(`${name}: ${finding.says} “${finding.text.slice(0, 40)}”`)
    }
  }
  return tried
}

const random = numbersFrom(Number(values.seed))
let failed = false
console.log('check                  planted  found    others')
for (const planting of plantings) {
  const { planted, found, others, missed, strange } = tryKind(planting, random)
  const enough = planted > 0 && found >= planted * 0.95 && others <= (found + others) * 0.05
  failed ||= !enough
  console.log(
    `${planting.check.padEnd(22)} ${String(planted).padStart(7)}  ${String(found).padStart(5)}  ${String(others).padStart(8)}` +
      (enough ? '' : '   NOT ENOUGH'),
  )
  for (const each of missed.slice(0, 3)) console.log(`    missed: ${each}`)
  for (const each of strange.slice(0, 3)) console.log(`    else: ${each}`)
}
process.exitCode = failed ? 1 : 0
