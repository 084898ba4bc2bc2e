import type { ChildProcess } from 'node:child_process'

/** Who is told of what ends by itself, and of what is given up; `now` gives the time in milliseconds. */
export interface Told {
  readonly say: (line: string) => unknown
  readonly gaveUp: (why: string) => unknown
  readonly now?: () => number
}

export function keepAlive(
  name: string,
  first: ChildProcess,
  again: () => Promise<ChildProcess>,
  told: Told,
): { readonly child: ChildProcess; stop(): void }
