import { PackageError } from '../core/package/errors'
import { PlanError } from '../core/change/plan'
import { PdfError } from '../core/format/pdf/write'
import { CommandError } from './call'
import { run } from './run'

try {
  const { text: printed, code } = await run(process.argv.slice(2))
  if (printed !== '') process.stdout.write(`${printed}\n`)
  process.exitCode = code
} catch (error) {
  const known =
    error instanceof CommandError ||
    error instanceof PackageError ||
    error instanceof PlanError ||
    error instanceof PdfError
  process.stderr.write(
    `morphene: ${known ? error.message : `this went wrong: ${error instanceof Error ? error.message : String(error)}`}\n`,
  )
  process.exitCode = 1
}
