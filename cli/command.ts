import { PackageError } from '../core/package/errors'
import { PlanError } from '../core/change/plan'
import { PdfError } from '../core/format/pdf/write'
import type { Registry } from '../core/change/registry'
import { CommandError } from './call'
import { run } from './run'

/** What a command comes to: what it prints, what it complains of, and the code it ends with. */
export interface Ended {
  readonly stdout: string
  readonly stderr: string
  readonly status: number
}

/** Carries a command out. Whatever goes wrong is one line on the second stream, and code 1. */
export async function command(words: readonly string[], known?: Registry): Promise<Ended> {
  try {
    const { text, code } = await run(words, known)
    return { stdout: text === '' ? '' : `${text}\n`, stderr: '', status: code }
  } catch (error) {
    const told =
      error instanceof CommandError ||
      error instanceof PackageError ||
      error instanceof PlanError ||
      error instanceof PdfError
    const message = error instanceof Error ? error.message : String(error)
    return { stdout: '', stderr: `morphene: ${told ? message : `this went wrong: ${message}`}\n`, status: 1 }
  }
}
