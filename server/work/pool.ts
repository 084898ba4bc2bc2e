import { existsSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { Piscina } from 'piscina'
import { projectFolder } from '../library/files'
import type { Results, Task, TaskFailure } from './tasks'

/** A task that failed in its thread. */
export class TaskError extends Error {
  constructor(readonly failure: TaskFailure) {
    super(failure.message)
  }
}

/** What a thread answers: failures as plain data, since errors lose their class on the way. */
export type ThreadAnswer = { readonly result: unknown } | { readonly failure: TaskFailure }

/** Who waits for a task: a person, or nobody just now. */
export type Urgency = 'person' | 'background'

/** A task that takes longer is ended with its thread: no file may hold the server up. Milliseconds. */
const taskTime = 180_000
const queueLimit = 200

const tooLong = 'This took too long or too much memory and was ended. Nothing was changed.'
const tooMuch = 'The desk has too much to do just now. Nothing was changed; try again in a minute.'
const failed = (message: string) => new TaskError({ name: 'Error', fault: null, message })

/** Whatever carries tasks out: the server's threads, or what a test puts in their place. */
export interface Workers {
  run<K extends Task['kind']>(task: Extract<Task, { kind: K }>, signal?: AbortSignal): Promise<Results[K]>
}

/**
 * Threads that open, compose and change documents, so that the server keeps answering. What a person waits for has
 * threads of its own: it never stands behind counting and batches.
 */
export class ThreadPool implements Workers {
  private readonly pools: Readonly<Record<Urgency, Piscina>>
  private closing = false

  /** @param size threads for what people wait for; one more does the rest */
  constructor(script: string, size: number) {
    const pool = (maxThreads: number) =>
      new Piscina({
        filename: script,
        // A thread that ends is made anew at once: what waits behind its task would wait for good.
        minThreads: maxThreads,
        maxThreads,
        maxQueue: queueLimit,
        // What a thread has read of faces and words serves the next task: it is kept.
        idleTimeout: Infinity,
        recordTiming: false,
      })
    this.pools = { person: pool(size), background: pool(1) }
  }

  /** Carries a task out for somebody who waits. A signal ends it. @throws TaskError */
  run<K extends Task['kind']>(task: Extract<Task, { kind: K }>, signal?: AbortSignal): Promise<Results[K]> {
    return this.start('person', task, signal)
  }

  /** The same pool for work that nobody waits for. */
  get background(): Workers {
    return { run: (task, signal) => this.start('background', task, signal) }
  }

  private async start<K extends Task['kind']>(
    urgency: Urgency,
    task: Extract<Task, { kind: K }>,
    signal?: AbortSignal,
  ): Promise<Results[K]> {
    const pool = this.pools[urgency]
    if (pool.queueSize >= queueLimit) throw failed(tooMuch)
    const limit = AbortSignal.timeout(taskTime)
    let answer: ThreadAnswer
    try {
      answer = (await pool.run(task, { signal: signal ? AbortSignal.any([limit, signal]) : limit })) as ThreadAnswer
    } catch (error) {
      if (signal?.aborted) throw failed('This was given up. Nothing was changed.')
      if (!this.closing) console.error('a thread failed:', error instanceof Error ? error.message : error)
      throw failed(tooLong)
    }
    if ('failure' in answer) throw new TaskError(answer.failure)
    return answer.result as Results[K]
  }

  async close(): Promise<void> {
    this.closing = true
    await Promise.all(Object.values(this.pools).map(pool => pool.destroy()))
  }
}

let shared: ThreadPool | null = null

/** The server's pool. Its script is bundled by `npm run build:thread`. */
export function threads(): ThreadPool {
  const script = process.env.MORPHENE_THREAD ?? join(projectFolder(), '.morphene', 'build', 'thread.mjs')
  if (!existsSync(script)) throw new Error(`the thread script is not built: ${script}`)
  return (shared ??= new ThreadPool(script, Math.max(2, availableParallelism() - 1)))
}
