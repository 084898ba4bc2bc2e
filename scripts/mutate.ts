/*
 * Do the tests notice when a rule changes? A seeded sample of mutations of the core is made one by one in a copy of the
 * project, and the tests that call the function that changed are run: the likeliest first, until one of them fails.
 * `npm run mutate -- --count 200 --seed 1`; `--in census,style` takes some parts alone,
 * `--at core/census/census.ts:12:5` single places, as survivors are told. Mutations that change nothing that
 * can be seen are listed, with why, in tests/mutate/equivalents.json, and count for nothing.
 */
import { spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import { parseArgs } from 'node:util'
import { projectFolder } from '../server/library/files'
import { sampleOf } from '../tests/support/seeded'
import { mutated, mutationsIn, type Mutation } from './mutations'
import { inRounds, Reach, type Reached } from './reach'

/** Parts of the core that are tried. */
const parts = ['change', 'style', 'census', 'document', 'font'] as const
const { values } = parseArgs({
  options: {
    count: { type: 'string', default: '200' },
    seed: { type: 'string', default: '1' },
    in: { type: 'string', default: parts.join(',') },
    at: { type: 'string', multiple: true, default: [] },
  },
})
const root = projectFolder()
const copy = join(root, '.morphene', 'mutate')

interface Equivalent {
  readonly file: string
  readonly before: string
  readonly after: string
  /** The line of the source as it stands: line numbers move. */
  readonly line: string
  readonly why: string
}
const equivalents = JSON.parse(readFileSync(join(root, 'tests/mutate/equivalents.json'), 'utf8')) as Equivalent[]

function layCopy(): void {
  rmSync(copy, { recursive: true, force: true })
  mkdirSync(copy, { recursive: true })
  for (const name of ['app', 'cli', 'core', 'demo', 'server', 'shared', 'tests', 'scripts'])
    cpSync(join(root, name), join(copy, name), { recursive: true })
  for (const name of ['package.json', 'vitest.config.ts', 'tsconfig.json', 'tsconfig.core.json', 'tsconfig.node.json'])
    cpSync(join(root, name), join(copy, name))
  // The compiler's settings of the application are made by its build.
  for (const name of ['node_modules', '.nuxt']) symlinkSync(join(root, name), join(copy, name))
}

function sources(folder: string): string[] {
  return readdirSync(join(root, folder), { recursive: true, encoding: 'utf8' })
    .filter(name => name.endsWith('.ts'))
    .sort()
    .map(name => `${folder}/${name}`)
}

const lineOf = (mutation: Mutation, text: string) => text.split('\n')[mutation.line - 1]!.trim()
const isEquivalent = (mutation: Mutation, text: string): boolean =>
  equivalents.some(
    each =>
      each.file === mutation.file &&
      each.before === mutation.before &&
      each.after === mutation.after &&
      each.line === lineOf(mutation, text),
  )

/** Whether tests fail in the copy as it stands. What takes longer than `patience` hangs: that fails. Milliseconds. */
function fails(args: readonly string[], patience?: number, more: Record<string, string> = {}): boolean {
  const { status } = spawnSync(
    join(root, 'node_modules/.bin/vitest'),
    [...args, '--run', '--project', 'unit', '--bail', '1'],
    { cwd: copy, stdio: 'ignore', timeout: patience, env: { ...process.env, MORPHENE_FOLDER: copy, ...more } },
  )
  return status !== 0
}

/** Faces are measured once, before tests ask for them: else each would wait for it, and be ended by its time. */
function measureFaces(): void {
  spawnSync(join(root, 'node_modules/.bin/tsx'), ['cli/main.ts', 'pairs', '--with', 'Inter'], {
    cwd: copy,
    stdio: 'ignore',
    timeout: 300_000,
    env: { ...process.env, MORPHENE_FOLDER: copy },
  })
}

layCopy()
measureFaces()
const texts = new Map(
  values.in
    .split(',')
    .flatMap(part => sources(`core/${part}`))
    .map(file => [file, readFileSync(join(root, file), 'utf8')]),
)
const all = [...texts].flatMap(([file, text]) =>
  mutationsIn(file, text).filter(mutation => !isEquivalent(mutation, text)),
)
const at = new Set(values.at)
const isAt = ({ file, line, column }: Mutation) => at.has(`${file}:${line}:${column}`)
const sample = at.size > 0 ? all.filter(isAt) : sampleOf(all, Number(values.count), Number(values.seed))
// Tests that fail without any mutation would notice each: then nothing is learnt. What each reaches is told on the way.
const began = Date.now()
const reachFolder = join(copy, 'reach')
const report = join(copy, 'report.json')
mkdirSync(reachFolder)
console.log('the tests as they are, without any mutation …')
if (fails(['run', '--reporter=json', `--outputFile.json=${report}`], undefined, { MORPHENE_REACH: reachFolder })) {
  console.error('they fail: nothing can be learnt from them')
  process.exit(1)
}
const patience = 3 * (Date.now() - began)
const reach = new Reach(
  readdirSync(reachFolder).map(name => JSON.parse(readFileSync(join(reachFolder, name), 'utf8')) as Reached),
)
const { testResults } = JSON.parse(readFileSync(report, 'utf8')) as {
  testResults: { name: string; startTime: number; endTime: number }[]
}
const times = new Map(testResults.map(each => [each.name.slice(copy.length + 1), each.endTime - each.startTime]))
/**
 * Tests that may notice a mutation, in rounds. What stands outside of all functions is done once for all tests: those that
 * only look at what came of it are found by what they import.
 */
const testsOf = ({ file, within }: Mutation): string[][] => {
  const rounds = inRounds(
    reach.of(file, within),
    test => basename(test, '.test.ts') === basename(file, '.ts'),
    test => times.get(test) ?? 0,
  ).map(tests => ['run', ...tests])
  if (within === null) rounds.push(['related', file])
  // What is measured is kept in a file: who reads that calls nothing that measures.
  if (file.startsWith('core/font/measure/')) rounds.push(['run', 'tests/unit/font/type.test.ts'])
  return rounds
}
const survivors: Mutation[] = []
for (const [index, mutation] of sample.entries()) {
  const text = texts.get(mutation.file)!
  writeFileSync(join(copy, mutation.file), mutated(text, mutation))
  if (mutation.file.startsWith('core/font/')) measureFaces()
  const killed = testsOf(mutation).some(tests => fails(tests, patience))
  writeFileSync(join(copy, mutation.file), text)
  const { file, line, column, before, after } = mutation
  console.log(
    `${String(index + 1).padStart(4)} of ${sample.length}  ${killed ? 'noticed ' : 'SURVIVED'}  ` +
      `${file}:${line}:${column}  ${before.slice(0, 60)} -> ${after.slice(0, 60)}`,
  )
  if (!killed) survivors.push(mutation)
}
rmSync(copy, { recursive: true, force: true })
const share = sample.length === 0 ? 1 : (sample.length - survivors.length) / sample.length
console.log(
  `${sample.length - survivors.length} of ${sample.length} noticed (${Math.round(share * 100)} %), of ${all.length} there are; ` +
    `seed ${values.seed}`,
)
process.exitCode = share >= 0.85 ? 0 : 1
