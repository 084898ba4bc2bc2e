import type { ReportWorks } from '../core/format/pdf/report-file'
import { startSubsetter } from '../server/library/harfbuzz'
import { shippedLibrary } from '../server/library/shipped'
import type { DocumentSession } from '../core/session'
import { CommandError, single, type Call } from './call'
import { write } from './files'

/** Writes a report to where --report says, if it does, and tells so. @throws CommandError where it says no PDF */
export async function writeReport(
  call: Call,
  { typesetter }: Pick<DocumentSession, 'typesetter'>,
  make: (works: ReportWorks) => Promise<Uint8Array>,
): Promise<string> {
  const to = single(call, '--report')
  if (to === undefined) return ''
  if (!/\.pdf$/i.test(to)) throw new CommandError('--report takes the name of a PDF, for instance proof.pdf')
  write(to, await make({ typesetter, load: shippedLibrary().load, subsetter: startSubsetter(), made: Date.now() }))
  return `written: ${to}`
}
