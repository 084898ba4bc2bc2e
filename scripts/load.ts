/*
 * npm run load [-- --people 200 --seconds 60 --servers 1 --seed 1 --sign-in --json]: people act on a desk of its own on loopback,
 * each every five seconds on average: of a hundred acts 80 look, 15 type, 5 carry a plan out. Prints how long answers took,
 * what failed, and the memory. At most 500 people, 300 seconds and 4 servers. The application must be built.
 */
import { readFileSync } from 'node:fs'
import type { Knex } from 'knex'
import { parseArgs } from 'node:util'
import { deskOwner } from '../server/store/acting'
import { actorOf } from '../server/store/people'
import { beginSession } from '../server/store/sessions'
import { lookAgain, put, recast, type, type Own } from '../tests/support/people'
import { DeskProcess } from '../tests/support/desk-process'
import { numbersFrom } from '../tests/support/seeded'

const { values } = parseArgs({
  options: {
    people: { type: 'string', default: '200' },
    seconds: { type: 'string', default: '60' },
    servers: { type: 'string', default: '1' },
    seed: { type: 'string', default: '1' },
    'sign-in': { type: 'boolean', default: false },
    json: { type: 'boolean', default: false },
  },
})
const bounded = (said: string, most: number) => Math.min(most, Math.max(1, Math.floor(Number(said)) || 1))
const [people, seconds, servers] = [
  bounded(values.people, 500),
  bounded(values.seconds, 300),
  bounded(values.servers, 4),
]
/** How often each acts, on average. Milliseconds. */
const every = 5000

type Kind = 'look' | 'type' | 'plan'
interface Timed {
  readonly kind: Kind
  readonly took: number
  readonly failed: string | null
}

/** What people look at, about as often as at a desk. */
const looks: readonly ((own: Own, random: () => number) => string)[] = [
  () => '/api/shelf',
  () => '/api/shelf?find=sailing',
  own => `/api/documents/${own.id}`,
  own => `/api/documents/${own.id}/file`,
  own => `/api/documents/${own.id}/picture?version=1`,
  (own, random) => `/api/documents/${own.id}/page-picture?version=1&page=${Math.floor(random() * 3)}`,
  own => `/api/documents/${own.id}/census`,
  () => '/api/records',
]

/** One person's acts until the time is over. */
async function act(base: string, first: Own, random: () => number, until: number, timed: Timed[]): Promise<void> {
  let own = first
  let size = 0
  for (let step = 0; ; step++) {
    // Between two acts a person waits as long as it happens (exponential, so that acts fall like rain).
    const wait = -Math.log(1 - random()) * every
    if (Date.now() + wait > until) return
    await new Promise(resolve => setTimeout(resolve, wait))
    const what = random()
    const kind: Kind = what < 0.8 ? 'look' : what < 0.95 ? 'type' : 'plan'
    const began = performance.now()
    let failed: string | null = null
    try {
      if (kind === 'look') {
        const path = looks[Math.floor(random() * looks.length)]!(own, random)
        const response = await fetch(`${base}${path}`, {
          headers: own.cookie === undefined ? {} : { cookie: own.cookie },
          signal: AbortSignal.timeout(60_000),
        })
        await response.arrayBuffer()
        if (!response.ok) failed = `${path.split('?')[0]!.split('/').at(-1)} ${response.status}`
      } else if (kind === 'type') own = await type(base, own, `word${step}`)
      else {
        // Never the size that is there: a plan that changes nothing is refused.
        size = (size + 1 + Math.floor(random() * 19)) % 20
        own = await recast(base, own, 8 + size + 0.5)
      }
    } catch (error) {
      failed = error instanceof Error ? error.message.slice(0, 120) : String(error)
      own = await lookAgain(base, own).catch(() => own)
    }
    timed.push({ kind, took: performance.now() - began, failed })
  }
}

const share = (sorted: readonly number[], part: number): number =>
  Math.round(sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0)

/** Memory of a process that is resident, in MB. */
function memoryOf(pid: number | undefined): number {
  try {
    return Math.round(Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024)
  } catch {
    return 0
  }
}

/** Signs somebody in who may do what designers do: what their browser sends along. */
async function signedIn(knex: Knex, number: number): Promise<string> {
  const person = { id: `person-${number}`, owner: deskOwner, role: 'designer' as const, also: '[]' }
  await knex('people').insert({ ...person, name: `Person ${number}`, created: new Date() })
  return `morphene=${(await beginSession(knex, actorOf(person), 'load')).key}`
}

const desk = new DeskProcess(3441, 3447, {
  MORPHENE_RATE: 'off',
  ...(values['sign-in'] ? { MORPHENE_SIGN_IN: '1' } : {}),
})
try {
  await desk.begin({ demo: true, servers })
  const owns: Own[] = []
  const knex = desk.connect()
  for (let person = 0; person < people; person++) {
    const cookie = values['sign-in'] ? await signedIn(knex, person) : undefined
    owns.push(await put(desk.base(), `Letter ${person}`, 60, cookie))
  }
  // It begins once all is counted: people come to a desk that was there before.
  for (;;) {
    if (!(await knex('jobs').whereIn('state', ['queued', 'running']).first('id'))) break
    await new Promise(resolve => setTimeout(resolve, 500))
  }
  const timed: Timed[] = []
  const until = Date.now() + seconds * 1000
  let memory = 0
  const watching = setInterval(() => {
    for (let server = 0; server < servers; server++) memory = Math.max(memory, memoryOf(desk.processOf(server)))
  }, 1000)
  await Promise.all(
    owns.map((own, person) =>
      act(desk.base(person % servers), own, numbersFrom(Number(values.seed) * 1000 + person), until, timed),
    ),
  )
  clearInterval(watching)
  const waiting = (await knex('jobs').where({ state: 'queued' }).count({ n: '*' }).first()) as { n: number }
  await knex.destroy()
  const rows = (['look', 'type', 'plan'] as const).map(kind => {
    const took = timed
      .filter(each => each.kind === kind)
      .map(each => each.took)
      .sort((one, other) => one - other)
    return {
      kind,
      count: took.length,
      p50: share(took, 0.5),
      p95: share(took, 0.95),
      p99: share(took, 0.99),
      errors: timed.filter(each => each.kind === kind && each.failed !== null).length,
    }
  })
  const failures = [...new Set(timed.flatMap(each => each.failed ?? []))]
  if (values.json)
    console.log(JSON.stringify({ people, seconds, servers, rows, memory, waiting: Number(waiting.n), failures }))
  else {
    console.log(`${people} people for ${seconds} s on ${servers} server${servers > 1 ? 's' : ''}; milliseconds`)
    for (const { kind, count, p50, p95, p99, errors } of rows)
      console.log(`${kind.padEnd(5)} ${count} acts: p50 ${p50}, p95 ${p95}, p99 ${p99}, ${errors} failed`)
    console.log(`memory of a server at most ${memory} MB; ${waiting.n} versions wait to be counted`)
    for (const failure of failures) console.log(`failed: ${failure}`)
  }
  process.exitCode = failures.length === 0 ? 0 : 1
} finally {
  await desk.finish()
}
