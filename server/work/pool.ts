import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import PQueue from 'p-queue'
import { Piscina } from 'piscina'
import { projectFolder } from '../library/files'
import type { Actor } from '../store/acting'
import { log, wordsOf } from './log'
import { tellTask } from './metrics'
import type { Results, Task, TaskFailure } from './tasks/task'

/** A task that failed in its thread. */
export class TaskError extends Error {
  constructor(readonly failure: TaskFailure) {
    super(failure.message)
  }
}

/** What a thread answers: failures as plain data, since errors lose their class on the way. */
export type ThreadAnswer = { readonly result: unknown } | { readonly failure: TaskFailure }

/**
 * Where tasks are carried out: `quick` what people see come at once, `long` what they wait for, `background` what nobody
 * waits for. Each has threads of its own, so that none stands behind another.
 */
type Lane = 'quick' | 'long' | 'background'

/** What each kind of task is called, whom it stands beside, and how many seconds it may take. */
const kinds: Readonly<Record<Task['kind'], { readonly lane: Lane; readonly seconds: number; readonly what: string }>> =
  {
    check: { lane: 'quick', seconds: 20, what: 'Looking into this file' },
    font: { lane: 'quick', seconds: 90, what: 'Reading this font' },
    instance: { lane: 'quick', seconds: 30, what: 'Cutting this face' },
    alternates: { lane: 'quick', seconds: 30, what: 'Looking for further forms' },
    edit: { lane: 'quick', seconds: 30, what: 'Writing this change' },
    convert: { lane: 'quick', seconds: 30, what: 'Reading this text' },
    copy: { lane: 'quick', seconds: 30, what: 'Copying this document' },
    toStyle: { lane: 'quick', seconds: 45, what: 'Measuring this document' },
    finished: { lane: 'quick', seconds: 60, what: 'Changing this PDF' },
    proof: { lane: 'background', seconds: 120, what: 'Looking this document over' },
    houseFrom: { lane: 'long', seconds: 120, what: 'Drawing a house up' },
    styleList: { lane: 'quick', seconds: 30, what: 'Listing the styles' },
    pagePicture: { lane: 'quick', seconds: 45, what: 'Setting this page' },
    carriedFonts: { lane: 'long', seconds: 60, what: 'Reading the fonts in this document' },
    unzip: { lane: 'long', seconds: 60, what: 'Unpacking this file' },
    change: { lane: 'long', seconds: 90, what: 'Planning this' },
    handoff: { lane: 'long', seconds: 120, what: 'Writing this' },
    bundle: { lane: 'long', seconds: 300, what: 'Putting the bundle together' },
    record: { lane: 'long', seconds: 120, what: 'Writing the record' },
    proofReport: { lane: 'long', seconds: 180, what: 'Writing the proof' },
    comparison: { lane: 'long', seconds: 180, what: 'Writing the comparison' },
    survey: { lane: 'background', seconds: 120, what: 'Counting this document' },
  }
const queueLimit = 400
/** So many tasks of one person may be at work or wait in a lane. */
const personLimit = 200
/** What a thread may come to: of more memory (in MB) it is ended with its task. */
export interface ThreadLimits {
  /** How long any task may take, in place of its kind's own time. */
  readonly seconds?: number
  readonly memory?: number
}

/** A lane: its threads, begun with its first task, what waits for them, and how many tasks each person has in it. */
interface ThreadLane {
  readonly queue: PQueue
  readonly pool: () => Piscina
  readonly open: Map<string, number>
}

const tooMuch = 'The desk has too much to do just now. Nothing was changed; try again in a minute.'
const failed = (message: string) => new TaskError({ name: 'Error', fault: null, message })

/** Whatever carries tasks out: the server's threads, or what a test puts in their place. */
export interface Workers {
  run<K extends Task['kind']>(task: Extract<Task, { kind: K }>, signal?: AbortSignal): Promise<Results[K]>
}

/**
 * Threads that open, compose and change documents, so that the server keeps answering. What a person waits for never
 * stands behind counting and batches, and a page's picture never behind a plan.
 */
export class ThreadPool implements Workers {
  private readonly lanes: Readonly<Record<Lane, ThreadLane>>
  private readonly closing = new AbortController()
  private readonly begun: Piscina[] = []

  /**
   * @param size threads for what shall come at once, and as many for what may take longer; one more does the rest
   */
  constructor(
    script: string,
    size: number,
    private readonly limits: ThreadLimits = {},
  ) {
    const lane = (threads: number): ThreadLane => {
      let begun: Piscina | null = null
      const begin = () => {
        const pool = new Piscina({
          filename: script,
          // A thread that ends is made anew at once: what waits behind its task would wait for good.
          minThreads: threads,
          maxThreads: threads,
          // What a thread has read of faces and words serves the next task: it is kept.
          idleTimeout: Infinity,
          recordTiming: false,
          resourceLimits: { maxOldGenerationSizeMb: limits.memory ?? 1500 },
        })
        this.begun.push(pool)
        return pool
      }
      return {
        queue: new PQueue({ concurrency: threads }),
        open: new Map<string, number>(),
        pool: () => (begun ??= begin()),
      }
    }
    this.lanes = { quick: lane(size), long: lane(size), background: lane(1) }
  }

  /** Carries a task out for somebody who waits. A signal ends it. @throws TaskError */
  run<K extends Task['kind']>(task: Extract<Task, { kind: K }>, signal?: AbortSignal): Promise<Results[K]> {
    return this.for('').run(task, signal)
  }

  /**
   * The same pool for one person: whoever asks for much at once stands behind those who ask for little.
   * @param who whoever waits
   */
  for(who: string): Workers {
    return {
      run: (task, signal) => {
        const { lane } = kinds[task.kind]
        return this.start(lane === 'background' ? 'long' : lane, task, who, signal)
      },
    }
  }

  /** The same pool for work that nobody waits for. */
  get background(): Workers {
    return { run: (task, signal) => this.start('background', task, '', signal) }
  }

  private async start<K extends Task['kind']>(
    lane: Lane,
    task: Extract<Task, { kind: K }>,
    who: string,
    signal?: AbortSignal,
  ): Promise<Results[K]> {
    const { queue, pool, open } = this.lanes[lane]
    if (queue.size >= queueLimit) throw failed(tooMuch)
    const { what, seconds: own } = kinds[task.kind]
    const seconds = this.limits.seconds ?? own
    // The time of a task begins when a thread takes it up: what waits in line has not begun.
    let limit: AbortSignal | null = null
    const asked = performance.now()
    let begun = asked
    const begin = (): Promise<ThreadAnswer> => {
      begun = performance.now()
      limit = AbortSignal.timeout(seconds * 1000)
      return pool().run(task, { signal: signal ? AbortSignal.any([limit, signal]) : limit }) as Promise<ThreadAnswer>
    }
    const closed = this.closing.signal
    const tell = (ended: 'done' | 'refused' | 'ended') =>
      tellTask(task.kind, ended, (begun - asked) / 1000, (performance.now() - begun) / 1000)
    // The tenth that somebody asks for at once stands behind the first of anybody else.
    const before = open.get(who) ?? 0
    if (who !== '' && before >= personLimit) throw failed(tooMuch)
    open.set(who, before + 1)
    let answer: ThreadAnswer
    try {
      answer = await queue.add(begin, {
        signal: signal ? AbortSignal.any([closed, signal]) : closed,
        priority: -before,
      })
    } catch (error) {
      tell('ended')
      if (signal?.aborted) throw failed('This was given up. Nothing was changed.')
      if (!closed.aborted) log.error({ kind: task.kind, what: wordsOf(error) }, 'a thread failed')
      throw failed(
        (limit as AbortSignal | null)?.aborted
          ? `${what} took longer than ${seconds} seconds and was ended. Nothing was changed.`
          : `${what} took too much memory, or failed, and was ended. Nothing was changed.`,
      )
    } finally {
      const left = open.get(who)! - 1
      if (left === 0) open.delete(who)
      else open.set(who, left)
    }
    tell('failure' in answer ? 'refused' : 'done')
    if ('failure' in answer) throw new TaskError(answer.failure)
    return answer.result as Results[K]
  }

  /** Ends all threads: what they do, and what waits for them, fails. */
  async close(): Promise<void> {
    this.closing.abort()
    await Promise.all(this.begun.map(pool => pool.destroy()))
  }
}

let shared: ThreadPool | null = null

/** How many threads a lane has: what is said, else one less than there are processors, two at the least. */
function laneSize(): number {
  const said = Number(process.env.MORPHENE_THREADS)
  return Number.isInteger(said) && said > 0 ? said : Math.max(2, availableParallelism() - 1)
}

/** The server's pool. Its script is bundled by `npm run build:thread`. */
export function threads(): ThreadPool {
  const script = join(projectFolder(), '.morphene', 'build', 'thread.mjs')
  if (!existsSync(script)) throw new Error(`the thread script is not built: ${script}`)
  return (shared ??= new ThreadPool(script, laneSize()))
}

/** The server's pool for whoever asks. */
export const threadsFor = ({ actor }: { readonly actor: Actor }): Workers =>
  threads().for(JSON.stringify([actor.owner, actor.person]))
