/*
 * Do the tests notice when a rule changes? A seeded sample of mutations of the core is made one by one in copies of the
 * project, and the tests that reach the place that changed are run: the likeliest first, until one of them fails.
 * `npm run mutate -- --count 200 --seed 1`; `--in census,style` takes some parts alone, `--in core/font/read.ts` some files,
 * `--at core/census/census.ts:12:5` single places, as survivors are told. Mutations that change nothing that
 * can be seen are listed, with why, in tests/mutate/equivalents.json, and count for nothing.
 */
import { spawn } from 'node:child_process'
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { basename, join } from 'node:path'
import { parseArgs } from 'node:util'
import { projectFolder } from '../server/library/files'
import { sampleOf } from '../tests/support/seeded'
import { mutated, mutationsIn, type Mutation } from './mutations'
import { inRounds, telling, testsAt, type Reached } from './reach'

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
const copies = Array.from({ length: availableParallelism() }, (_, index) =>
  join(root, '.morphene', `mutate-${index + 1}`),
)

interface Equivalent {
  readonly file: string
  readonly before: string
  readonly after: string
  /** The line of the source as it stands: line numbers move. */
  readonly line: string
  readonly why: string
}
const equivalents = JSON.parse(readFileSync(join(root, 'tests/mutate/equivalents.json'), 'utf8')) as Equivalent[]

function layCopy(copy: string): void {
  rmSync(copy, { recursive: true, force: true })
  mkdirSync(copy, { recursive: true })
  for (const name of ['app', 'cli', 'core', 'demo', 'server', 'shared', 'tests', 'scripts'])
    cpSync(join(root, name), join(copy, name), { recursive: true })
  for (const name of ['package.json', 'vitest.config.ts', 'tsconfig.json', 'tsconfig.core.json', 'tsconfig.node.json'])
    cpSync(join(root, name), join(copy, name))
  // The compiler's settings of the application are made by its build.
  for (const name of ['node_modules', '.nuxt']) symlinkSync(join(root, name), join(copy, name))
}

/** The sources of a part of the core, or one that is named itself. */
function sources(part: string): string[] {
  if (part.endsWith('.ts')) return [part]
  return readdirSync(join(root, 'core', part), { recursive: true, encoding: 'utf8' })
    .filter(name => name.endsWith('.ts'))
    .sort()
    .map(name => `core/${part}/${name}`)
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

/** Groups of processes that run. Whoever breaks it off leaves none behind. */
const running = new Set<number>()
process.once('exit', () => {
  for (const group of running) process.kill(-group, 'SIGKILL')
})
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.once(signal, () => process.exit(1))

/** Runs a tool in a copy to its end: whether all was well. What takes longer than `patience` milliseconds hangs, and is ended. */
function runs(
  copy: string,
  tool: string,
  args: readonly string[],
  patience: number,
  more: Record<string, string> = {},
) {
  const child = spawn(join(root, 'node_modules/.bin', tool), args, {
    cwd: copy,
    stdio: 'ignore',
    env: { ...process.env, MORPHENE_FOLDER: copy, ...more },
    // A group of its own: threads and programs that it started end with it.
    detached: true,
  })
  running.add(child.pid!)
  const end = setTimeout(() => process.kill(-child.pid!, 'SIGKILL'), patience)
  return new Promise<boolean>(resolve =>
    child.on('close', code => {
      clearTimeout(end)
      running.delete(child.pid!)
      resolve(code === 0)
    }),
  )
}

/** Sources are read in once for all runs in a copy. */
const vitest = (copy: string, args: readonly string[], patience: number, more?: Record<string, string>) => {
  const read = ['--experimental.fsModuleCache', `--experimental.fsModuleCachePath=${join(copy, 'read')}`]
  return runs(copy, 'vitest', ['run', '--project', 'unit', '--bail', '1', ...read, ...args], patience, more)
}

/** Faces are measured once, before tests ask for them: else each would wait for it, and be ended by its time. */
const measureFaces = (copy: string) => runs(copy, 'tsx', ['cli/main.ts', 'pairs', '--with', 'Inter'], 300_000)

for (const copy of copies) layCopy(copy)
await Promise.all(copies.map(measureFaces))
const texts = new Map(
  values.in
    .split(',')
    .flatMap(sources)
    .map(file => [file, readFileSync(join(root, file), 'utf8')]),
)
const all = [...texts].flatMap(([file, text]) =>
  mutationsIn(file, text).filter(mutation => !isEquivalent(mutation, text)),
)
const at = new Set(values.at)
const isAt = ({ file, line, column }: Mutation) => at.has(`${file}:${line}:${column}`)
const sample = at.size > 0 ? all.filter(isAt) : sampleOf(all, Number(values.count), Number(values.seed))

/** What each file of tests reaches of the sample, and how long it takes, in milliseconds. */
async function reach(): Promise<{ reached: Reached[]; times: Map<string, number>; took: number }> {
  const began = Date.now()
  const copy = copies[0]!
  const folder = join(copy, 'reach')
  const report = join(copy, 'report.json')
  mkdirSync(folder)
  for (const [file, text] of texts) {
    const places = sample.flatMap((each, number) => (each.file === file ? [{ ...each.expression, number }] : []))
    writeFileSync(join(copy, file), telling(text, places))
  }
  const args = ['--reporter=json', `--outputFile.json=${report}`]
  // Tests that fail without any mutation would notice each: then nothing is learnt.
  if (!(await vitest(copy, args, 3_600_000, { MORPHENE_REACH: folder })))
    throw new Error('the tests fail without any mutation: nothing can be learnt from them')
  for (const [file, text] of texts) writeFileSync(join(copy, file), text)
  const { testResults } = JSON.parse(readFileSync(report, 'utf8')) as {
    testResults: { name: string; startTime: number; endTime: number }[]
  }
  return {
    reached: readdirSync(folder).map(name => JSON.parse(readFileSync(join(folder, name), 'utf8')) as Reached),
    times: new Map(testResults.map(each => [each.name.slice(copy.length + 1), each.endTime - each.startTime])),
    took: Date.now() - began,
  }
}

console.log('the tests as they are, without any mutation …')
const { reached, times, took } = await reach()
/** Tests that may notice a mutation, in rounds. */
function testsOf({ file }: Mutation, number: number): string[][] {
  const rounds = inRounds(
    testsAt(reached, number),
    test => basename(test, '.test.ts') === basename(file, '.ts'),
    test => times.get(test) ?? 0,
  )
  // What is measured is kept in a file: who reads that calls nothing that measures.
  if (file.startsWith('core/font/measure/')) rounds.push(['tests/unit/font/type.test.ts'])
  return rounds
}

async function isNoticed(copy: string, mutation: Mutation, number: number): Promise<boolean> {
  const text = texts.get(mutation.file)!
  const rounds = testsOf(mutation, number)
  if (rounds.length === 0) return false
  writeFileSync(join(copy, mutation.file), mutated(text, mutation))
  try {
    if (mutation.file.startsWith('core/font/')) await measureFaces(copy)
    for (const tests of rounds) if (!(await vitest(copy, ['--maxWorkers=1', ...tests], 3 * took))) return true
    return false
  } finally {
    writeFileSync(join(copy, mutation.file), text)
  }
}

const survivors: Mutation[] = []
let next = 0
let done = 0
/** Each copy takes the next mutation when it is through with one. */
async function work(copy: string): Promise<void> {
  while (next < sample.length) {
    const number = next++
    const mutation = sample[number]!
    const noticed = await isNoticed(copy, mutation, number)
    const { file, line, column, before, after } = mutation
    console.log(
      `${String(++done).padStart(4)} of ${sample.length}  ${noticed ? 'noticed ' : 'SURVIVED'}  ` +
        `${file}:${line}:${column}  ${before.slice(0, 60)} -> ${after.slice(0, 60)}`,
    )
    if (!noticed) survivors.push(mutation)
  }
}
await Promise.all(copies.map(work))
for (const copy of copies) rmSync(copy, { recursive: true, force: true })
const share = sample.length === 0 ? 1 : (sample.length - survivors.length) / sample.length
console.log(
  `${sample.length - survivors.length} of ${sample.length} noticed (${Math.round(share * 100)} %), of ${all.length} there are; ` +
    `seed ${values.seed}`,
)
process.exitCode = share >= 0.85 ? 0 : 1
