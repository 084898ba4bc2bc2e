/** What can be asked of a worker: by name, what is sent and what comes back. */
export type AskTable<A> = { readonly [N in keyof A]: { readonly ask: unknown; readonly answer: unknown } }

/** A question on its way to a worker. */
export interface Ask {
  readonly id: number
  readonly name: string
  readonly ask: unknown
}
/** What a worker posts: that it is ready, an answer, or why there is none. */
export type Answer =
  | { readonly ready: true }
  | { readonly id: number; readonly answer: unknown }
  | { readonly id: number; readonly failure: string }

/** The page's end of a worker: asks, and answers as promises. */
export class Engine<A extends AskTable<A>> {
  private readonly waiting = new Map<number, { resolve: (answer: never) => void; reject: (error: Error) => void }>()
  private readonly ready: Promise<void>
  private next = 1

  /** @param stopped what is said where the worker ends by itself */
  constructor(
    private readonly worker: Worker,
    stopped = 'The typesetting stopped. Reload the page; the document is safe.',
  ) {
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
      for (const { reject } of this.waiting.values()) reject(new Error(event.message || stopped))
      this.waiting.clear()
    }
  }

  async ask<N extends keyof A>(name: N, ask: A[N]['ask']): Promise<A[N]['answer']> {
    await this.ready
    const id = this.next++
    return new Promise<A[N]['answer']>((resolve, reject) => {
      this.waiting.set(id, { resolve: resolve as (answer: never) => void, reject })
      this.worker.postMessage({ id, name, ask })
    })
  }

  close(): void {
    this.worker.terminate()
  }
}
