import { pino } from 'pino'

/**
 * What the server says, one JSON object a line, on standard error: never words or names of documents. `MORPHENE_LOG` says
 * from which level on (`debug`, `info`, `warn`, `error`, `silent`).
 */
export const log = pino(
  { level: process.env.MORPHENE_LOG ?? 'warn', base: null, timestamp: () => `,"time":"${new Date().toISOString()}"` },
  process.stderr,
)
