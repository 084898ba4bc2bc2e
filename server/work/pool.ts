import { existsSync } from 'node:fs'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { projectFolder } from '../library/files'
import type { Results, Task, TaskFailure } from './tasks'

/** A task that failed in its thread. */
export class TaskError extends Error {
  constructor(readonly failure: TaskFailure) {
    super(failure.message)
  }
}

interface Waiting {
  readonly id: number
  readonly task: Task
  readonly resolve: (result: never) => void
  readonly reject: (error: Error) => void
}
interface Thread {
  worker: Worker
  busy: Waiting | null
  timer: NodeJS.Timeout | null
}

/** A task that takes longer is ended with its thread: no file may hold the server up. Milliseconds. */
const taskTime = 180_000
const queueLimit = 200

/** A few threads that open, compose and change documents, so that the server keeps answering. */
export class ThreadPool {
  private readonly threads: Thread[] = []
  private readonly queue: Waiting[] = []
  private next = 1
  private closed = false

  constructor(
    private readonly script: string,
    private readonly size: number,
  ) {}

  run<K extends Task['kind']>(task: Extract<Task, { kind: K }>): Promise<Results[K]> {
    return new Promise<Results[K]>((resolve, reject) => {
      if (this.queue.length >= queueLimit) {
        reject(
          new TaskError({
            name: 'Error',
            fault: null,
            message: 'The desk has too much to do just now. Nothing was changed; try again in a minute.',
          }),
        )
        return
      }
      this.queue.push({ id: this.next++, task, resolve: resolve as (result: never) => void, reject })
      this.assign()
    })
  }

  private assign(): void {
    if (this.closed) return
    while (this.queue.length > 0) {
      let thread = this.threads.find(each => !each.busy)
      if (!thread) {
        if (this.threads.length >= this.size) return
        thread = this.start()
      }
      const waiting = this.queue.shift()!
      thread.busy = waiting
      thread.timer = setTimeout(() => {
        void thread.worker.terminate()
      }, taskTime)
      thread.worker.postMessage({ id: waiting.id, task: waiting.task })
    }
  }

  private start(): Thread {
    const worker = new Worker(this.script)
    const thread: Thread = { worker, busy: null, timer: null }
    const finish = (): Waiting | null => {
      const done = thread.busy
      thread.busy = null
      if (thread.timer) clearTimeout(thread.timer)
      return done
    }
    worker.on('message', (message: { id?: number; result?: unknown; failure?: TaskFailure }) => {
      if (message.id === undefined) return
      const done = finish()
      if (message.failure) done?.reject(new TaskError(message.failure))
      else done?.resolve(message.result as never)
      this.assign()
    })
    worker.on('error', error => {
      console.error('a thread failed:', error.message)
    })
    worker.on('exit', () => {
      this.threads.splice(this.threads.indexOf(thread), 1)
      finish()?.reject(
        new TaskError({
          name: 'Error',
          fault: null,
          message: 'This took too long or too much memory and was ended. Nothing was changed.',
        }),
      )
      this.assign()
    })
    this.threads.push(thread)
    return thread
  }

  async close(): Promise<void> {
    this.closed = true
    await Promise.all(this.threads.map(thread => thread.worker.terminate()))
  }
}

let shared: ThreadPool | null = null

/** The server's pool. Its script is bundled by `npm run build:thread`. */
export function threads(): ThreadPool {
  const script = process.env.MORPHENE_THREAD ?? join(projectFolder(), '.morphene', 'build', 'thread.mjs')
  if (!existsSync(script)) throw new Error(`the thread script is not built: ${script}`)
  return (shared ??= new ThreadPool(script, 2))
}
