import { log, wordsOf } from './log'
import { tellComplaint } from './metrics'

/** What was said last of each part of the work, and when. */
const said = new Map<string, { readonly what: string; readonly at: number }>()
const minute = 60_000

/** Says what went wrong in work that nobody waits for, but not the same over and over: the database may be away for long. */
export function complain(of: string, error: unknown): void {
  const what = wordsOf(error)
  tellComplaint(of)
  const last = said.get(of)
  if (last?.what === what && Date.now() - last.at < minute) return
  said.set(of, { what, at: Date.now() })
  log.error({ of, what }, 'went wrong')
}
