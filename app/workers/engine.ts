import type { Answer, AskName, Asks } from './messages'

/** The page's end of the worker: asks, and answers as promises. */
export class Engine {
  private readonly worker = new Worker(new URL('./desk.worker.ts', import.meta.url), { type: 'module' })
  private readonly waiting = new Map<number, { resolve: (answer: never) => void; reject: (error: Error) => void }>()
  private readonly ready: Promise<void>
  private next = 1

  constructor() {
    this.ready = new Promise(resolve => {
      this.worker.onmessage = ({ data }: MessageEvent<Answer>) => {
        if ('ready' in data) {
          resolve()
          return
        }
        const waiting = this.waiting.get(data.id)
        this.waiting.delete(data.id)
        if ('failure' in data) waiting?.reject(new Error(data.failure))
        else waiting?.resolve(data.answer as never)
      }
    })
    this.worker.onerror = event => {
      for (const { reject } of this.waiting.values())
        reject(new Error(event.message || 'The typesetting stopped. Reload the page; the document is safe.'))
      this.waiting.clear()
    }
  }

  async ask<N extends AskName>(name: N, ask: Asks[N]['ask']): Promise<Asks[N]['answer']> {
    await this.ready
    const id = this.next++
    return new Promise<Asks[N]['answer']>((resolve, reject) => {
      this.waiting.set(id, { resolve: resolve as (answer: never) => void, reject })
      this.worker.postMessage({ id, name, ask })
    })
  }

  close(): void {
    this.worker.terminate()
  }
}
