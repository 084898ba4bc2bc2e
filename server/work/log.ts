import { pino } from 'pino'

/**
 * What the server says, one JSON object a line, on standard error: never words or names of documents. `MORPHENE_LOG` says
 * from which level on (`debug`, `info`, `warn`, `error`, `silent`).
 */
export const log = pino(
  { level: process.env.MORPHENE_LOG ?? 'warn', base: null, timestamp: () => `,"time":"${new Date().toISOString()}"` },
  process.stderr,
)

/**
 * What an error says that may be told. What the database refused is told by its code alone: its message holds the values of
 * the statement, names of documents among them.
 */
export function wordsOf(error: unknown): string {
  if (!(error instanceof Error)) return String(error)
  const { code, sql } = error as Error & { readonly code?: string; readonly sql?: string }
  return sql === undefined ? error.message : `the database refused: ${code ?? 'without a code'}`
}
