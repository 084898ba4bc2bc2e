import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { writePdf, type Pdf, type PdfOptions } from '../../core/format/pdf/write'
import { DocumentSession } from '../../core/session'
import type { Typesetter } from '../../core/typeset/look'
import { startSubsetter } from '../../server/library/harfbuzz'
import { shippedLibrary } from '../../server/library/shipped'
import { typesetter } from './fixtures'

// Files of tests share this module: what it keeps goes when they are all done.
const folder = mkdtempSync(join(tmpdir(), 'morphene-pdf-'))
process.on('exit', () => {
  rmSync(folder, { recursive: true, force: true })
})
const { load } = shippedLibrary()
const subsetter = startSubsetter()
let count = 0

const run = (program: string, ...args: string[]) => spawnSync(program, args, { encoding: 'utf8', maxBuffer: 1 << 28 })

/** A PDF of a document, and what programs that nobody here wrote say of it. */
export interface MadePdf extends Pdf {
  readonly path: string
  readonly session: DocumentSession
  /** 0 where qpdf finds nothing wrong. */
  check(): number | null
  text(...more: string[]): string
  info(...more: string[]): string
  /** Its fonts, a line each, as pdffonts tells them. */
  fonts(): string[]
  /** Laid open by qpdf, byte for byte as characters. */
  source(): string
}

export async function madePdf(
  bytes: Uint8Array,
  options: Partial<PdfOptions> = {},
  own: Typesetter = typesetter,
): Promise<MadePdf> {
  const session = await DocumentSession.start(bytes, own)
  const plain = { bleed: 0, cropMarks: false, leaveOut: false, notes: false, made: 0 }
  const pdf = await writePdf(session.composition, own, load, subsetter, { ...plain, ...options })
  const path = join(folder, `${count++}.pdf`)
  writeFileSync(path, pdf.bytes)
  return {
    ...pdf,
    path,
    session,
    check: () => run('qpdf', '--check', path).status,
    text: (...more) => run('pdftotext', ...more, path, '-').stdout,
    fonts: () => run('pdffonts', path).stdout.trim().split('\n').slice(2),
    info: (...more) => run('pdfinfo', ...more, path).stdout,
    source: () =>
      spawnSync('qpdf', ['--qdf', '--object-streams=disable', path, '-'], {
        encoding: 'latin1',
        maxBuffer: 1 << 28,
      }).stdout,
  }
}
