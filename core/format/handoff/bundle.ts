import { licenceOf, type LicenceUse } from '../../font/licence'
import type { FaceRecord } from '../../font/face'
import { houseToTokens } from '../../house/tokens'
import { proofOf } from '../../proof/proof'
import { proofCsv, proofedFile } from '../../proof/report'
import type { Checklist } from '../../proof/checklist'
import { zipFiles } from '../../package/zip-files'
import type { DocumentSession } from '../../session'
import { displayPage } from '../../typeset/display'
import { finishedCensus } from '../finished/census'
import { openPdf } from '../finished/open'
import { handOff, type HandoffContext, type HandoffWorks } from './hand-off'
import { handoffSchema, type Handed } from './request'

/** What a bundle's own list of what is in it is called. */
export const bundleContents = 'Contents.txt'

/** Whether a file of a bundle is made of its documents: there is no need of it where they are. */
export const isBundled = (path: string): boolean => path === bundleContents || /^(PDF|Proof|Records)\//.test(path)

/** A document that goes into a bundle. */
export interface BundledDocument {
  readonly fileName: string
  readonly bytes: Uint8Array
  /** Null for a finished PDF, which goes as it is. */
  readonly session: DocumentSession | null
  /** Records of what was done to it, as files of their own. */
  readonly records: readonly { readonly name: string; readonly text: string }[]
  /** What it is made for; none where nobody has said. */
  readonly uses: readonly LicenceUse[]
}

export interface BundleContext extends Omit<HandoffContext, 'name'> {
  readonly checklist?: Checklist
}

/** Whether a face's file may go to somebody else, and why not where it may not. */
export function mayTravel(face: FaceRecord): { readonly may: boolean; readonly because: string } {
  const { open, name } = licenceOf(face)
  return open
    ? { may: true, because: name }
    : {
        may: false,
        because: 'its licence is not one that lets anybody pass the file on: the receiver needs one of their own',
      }
}

const counted = (count: number, what: string) => `${count} ${what}${count === 1 ? '' : 's'}`
const plainName = (text: string) => text.replace(/[\\/:*?"<>|\u0000-\u001F]+/g, ' ').trim() || 'Document'
const withoutEnding = (fileName: string) => fileName.replace(/\.\w+$/, '')

/**
 * Documents with what they need elsewhere, in one zip: the files as they are, the font files that may travel, their proofs,
 * records and PDFs, the house, and a list of what is in it, what is not, and why.
 * @throws PdfError never for a licence: faces that may not be embedded are named
 */
export async function writeBundle(
  documents: readonly BundledDocument[],
  context: BundleContext,
  works: HandoffWorks,
): Promise<Handed> {
  const files = new Map<string, Uint8Array>()
  const utf8 = (text: string) => new TextEncoder().encode(text)
  const said: string[] = []
  const left: string[] = []
  const list: string[] = []
  const put = (path: string, bytes: Uint8Array) => {
    let free = path
    for (let count = 2; files.has(free); count++) free = path.replace(/(\.\w+)?$/, ` ${count}$1`)
    files.set(free, bytes)
    return free
  }
  const faces = new Map<string, FaceRecord>()
  const absent = new Set<string>()
  const today = new Date(context.made).toISOString().slice(0, 10)
  for (const { fileName, bytes, session, records, uses } of documents) {
    const name = plainName(withoutEnding(fileName))
    const own = put(plainName(fileName), bytes)
    if (session === null) {
      list.push(`${own}: a finished PDF, as it is`)
      for (const font of finishedCensus(await openPdf(bytes)).fonts)
        if (!font.embedded && font.characters > 0) left.push(`${font.name}: it is not in ${own} itself`)
      continue
    }
    const pdf = await handOff(session, handoffSchema.parse({ as: 'pdf', leaveOut: true }), { ...context, name }, works)
    put(`PDF/${name}.pdf`, pdf.bytes)
    const proof = proofOf(session, {
      house: context.house,
      ...(context.checklist ? { checklist: context.checklist } : {}),
      madeFor: { uses, licences: context.licences, today },
    })
    const pageNumbers = session.composition.pages.map(page => page.number)
    put(`Proof/${name}.csv`, utf8(proofCsv([proofedFile(fileName, proof, pageNumbers)])))
    for (const record of records) put(`Records/${plainName(record.name)}.csv`, utf8(record.text))
    list.push(
      `${own}: ${pdf.said.join(', ')}; ${counted(proof.findings.length, 'finding')} of the proof`,
      ...pdf.left.map(each => `  ${each}`),
    )
    for (const face of facesOf(session)) faces.set(face.hash, face)
    for (const { family, status } of session.detail.census.faces) if (status === 'absent') absent.add(family)
  }
  const travels: string[] = []
  // What a variable file opens into travels as that file, once; a place that somebody chose on it travels as its own.
  const whole = new Set<string>()
  for (const face of [...faces.values()].sort((a, b) => a.fullName.localeCompare(b.fullName, 'en'))) {
    const { may, because } = mayTravel(face)
    const own = face.cutFrom ?? face.hash
    if (whole.has(own)) continue
    whole.add(own)
    const file = may ? works.load(own) : undefined
    if (!may) left.push(`${face.fullName}: ${because}`)
    else if (!file) left.push(`${face.fullName}: its file is not at hand`)
    else {
      const kind = String.fromCharCode(...file.subarray(0, 4)) === 'OTTO' ? 'otf' : 'ttf'
      const named = face.cutFrom || face.axes.length > 0 ? `${face.family}, variable` : face.fullName
      const path = put(`Fonts/${plainName(named)}.${kind}`, file)
      travels.push(`${path}: ${because}. ${face.licence === 'not stated' ? '' : face.licence}`.trim())
    }
  }
  for (const family of [...absent].sort()) left.push(`${family}: it is absent here, too`)
  if (context.house) put(`House/${plainName(context.house.name)}.tokens.json`, utf8(houseToTokens(context.house)))
  said.push(counted(documents.length, 'document'), counted(travels.length, 'font file'))
  const contents = contentsText(list, travels, left, context)
  files.set(bundleContents, utf8(contents))
  return {
    bytes: zipFiles(files, context.made),
    ending: 'zip',
    type: 'application/zip',
    said,
    left,
  }
}

/** The faces that a document's text is drawn in and that are its own: stand-ins for absent ones do not travel. */
function facesOf(session: DocumentSession): FaceRecord[] {
  const { composition, typesetter } = session
  const hashes = new Set<string>()
  for (const page of [...composition.pages, ...composition.notes])
    for (const run of displayPage(page).runs) if (run.glyphs.length > 0 && run.status !== 'absent') hashes.add(run.face)
  return [...hashes].flatMap(hash => typesetter.library.byHash(hash) ?? [])
}

function contentsText(
  documents: readonly string[],
  fonts: readonly string[],
  left: readonly string[],
  { made, house }: BundleContext,
): string {
  const part = (title: string, lines: readonly string[]) =>
    lines.length > 0 ? ['', title, ...lines.map(line => `  ${line}`)] : []
  return [
    `What is in this bundle, made on ${new Date(made).toISOString().slice(0, 10)}`,
    ...part('Documents', documents),
    ...part('Fonts', fonts),
    ...part('House', house ? [house.name] : []),
    ...part('Not in it', left),
    '',
  ].join('\n')
}
