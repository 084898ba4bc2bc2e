import type { Answer, Ask, AskTable } from './engine'

/** What a worker answers to each thing it may be asked. */
export type Answers<A extends AskTable<A>> = {
  readonly [N in keyof A]: (ask: A[N]['ask']) => A[N]['answer'] | Promise<A[N]['answer']>
}

/**
 * Answers what this worker is asked, failures in a sentence. Whoever made it waits for the word that is posted at the end:
 * a message that is sent before everything is loaded would be lost.
 */
export function answerAsks<A extends AskTable<A>>(answers: Answers<A>): void {
  const post = (answer: Answer) => {
    self.postMessage(answer)
  }
  self.onmessage = async ({ data }: MessageEvent<Ask>) => {
    try {
      const answer = await (answers as Readonly<Record<string, (ask: unknown) => unknown>>)[data.name]!(data.ask)
      post({ id: data.id, answer })
    } catch (error) {
      post({ id: data.id, failure: error instanceof Error ? error.message : String(error) })
    }
  }
  post({ ready: true })
}
