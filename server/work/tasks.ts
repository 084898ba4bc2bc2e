import { applyAll } from '../../core/document/apply'
import { editTitle, type Edits } from '../../core/document/edits'
import {
  openDocument,
  saveDocument,
  type DocumentIds,
  type DocumentKind,
  type OdfDocument,
} from '../../core/document/open'
import type { ReadText } from '../../core/format/blocks'
import { fromTemplate } from '../../core/format/odf/from-template'
import { writeReadText } from '../../core/format/odf/new-document'
import { readForeign } from '../../core/format/read'
import { makeEdits } from '../../core/change/make-edits'
import { dropStale } from '../../core/document/stale'
import { compareDocuments } from '../../core/compare/compare'
import { comparisonPdf } from '../../core/format/pdf/comparison-report'
import { proofPdf, type ProofOf } from '../../core/format/pdf/proof-report'
import { recordPdf, type Recorded, type RecordOf } from '../../core/format/pdf/record'
import type { ReportWorks } from '../../core/format/pdf/report-file'
import type { Subsetter } from '../../core/format/pdf/subset'
import { writeBundle, type BundleContext, type BundledDocument } from '../../core/format/handoff/bundle'
import { changeFinished, type FinishedOutcome } from '../../core/format/finished/change'
import { finishedCensus } from '../../core/format/finished/census'
import { openPdf } from '../../core/format/finished/open'
import { finishedProofPdf } from '../../core/format/finished/proof-report'
import { proofOfFinished } from '../../core/format/finished/proof'
import { FinishedReader } from '../../core/format/finished/reader'
import { isPdf } from '../../core/format/finished/sections'
import type { WishedChange } from '../../core/format/finished/wish'
import { handOff, type HandoffContext } from '../../core/format/handoff/hand-off'
import type { Handed, Handoff } from '../../core/format/handoff/request'
import { DocumentSession } from '../../core/session'
import type { WishList } from '../../core/change/plan'
import { registry, type Registry } from '../../core/change/registry'
import type { MeasuredShare, ProofCounts, RecordedPlan, ShelfKind } from '../../shared/api'
import type { AnyCensus } from '../store/document-count'
import { layOpen, type ListedStyle } from '../../core/change/styles/style-list'
import { needsDrawingUp } from '../../core/change/draw-up/kind'
import { drawUpSchema } from '../../core/change/draw-up/wish'
import { alternatesOf, type FaceAlternates } from '../../core/font/alternates'
import type { AxisPlace } from '../../core/font/axes'
import type { FaceRecord } from '../../core/font/face'
import type { MadeFor } from '../../core/font/held-licence'
import type { House } from '../../core/house/house'
import { houseFromDocuments } from '../../core/house/make-house'
import type { Checklist } from '../../core/proof/checklist'
import type { Severity } from '../../core/house/checks'
import type { Finding } from '../../core/proof/finding'
import { proofOf } from '../../core/proof/proof'
import { measureToStyle } from '../../core/house/to-style'
import { displayPage } from '../../core/typeset/display'
import { Typesetter } from '../../core/typeset/look'
import { Shaper } from '../../core/typeset/shaper'
import { pageSvg } from '../../core/typeset/svg'
import { idRuns } from '../../core/xml/write'
import { Library, type StandIn } from '../../core/font/library'
import { partBytes } from '../../core/package/container'
import { PackageError, type PackageFault } from '../../core/package/errors'
import { readAddedFace, readList } from '../library/added'
import { checkFontFile, faceAt, type CheckedFont } from '../library/font-file'
import { startHarfBuzz, startSubsetter } from '../library/harfbuzz'
import { handoffWorks } from '../library/handoff-works'
import { pdfPicture } from '../library/pdf-pictures'
import { shippedLibrary } from '../library/shipped'
import { checkedFonts, fontLimit, isFontPath, unzip, type FoundFont, type Unpacked } from './unpacking'

/**
 * What text is set with beside the faces that ship: the name of a list of added faces that lies ready, or null for
 * none, and stand-ins that were chosen.
 */
export interface TypeSetting {
  readonly faces: string | null
  readonly standIns: readonly StandIn[]
}
/** A document to work on: its bytes, the ids of its nodes, and what its text is set with. */
export interface Content {
  readonly bytes: Uint8Array
  readonly ids: DocumentIds
  readonly setting?: TypeSetting
}

/** By what documents are looked over. */
interface ProofedBy {
  readonly house: House | null
  readonly checklist: Checklist
  readonly madeFor: MadeFor
}

/** What the threads do. Plain data in and out. */
export type Task =
  /** Checks a font file from outside, and measures its face. */
  | { readonly kind: 'font'; readonly bytes: Uint8Array }
  /** A face of its own at a place on the axes of a variable one. */
  | {
      readonly kind: 'instance'
      readonly variable: CheckedFont
      readonly family: string
      readonly style: string
      readonly place: AxisPlace
    }
  /** The forms that characters of a face have beside the usual one. */
  | { readonly kind: 'alternates'; readonly bytes: Uint8Array; readonly face: Pick<FaceRecord, 'features' | 'ranges'> }
  /** Font files that a document carries, checked each. */
  | { readonly kind: 'carriedFonts'; readonly bytes: Uint8Array }
  /** What is in a zip that is no document: documents and font files. */
  | { readonly kind: 'unzip'; readonly bytes: Uint8Array }
  /** Wishes of any kinds. `partly` leaves those out that the document has nothing for; without `effects` the plan says nothing of pages. */
  | (Content & {
      readonly kind: 'change'
      readonly request: WishList
      readonly partly?: boolean
      readonly effects?: boolean
    })
  /** One page of a version, as SVG. */
  | (Content & { readonly kind: 'pagePicture'; readonly page: number })
  | { readonly kind: 'check'; readonly bytes: Uint8Array }
  /** Makes an OpenDocument text of a plain text, Markdown or HTML. */
  | { readonly kind: 'convert'; readonly fileName: string; readonly bytes: Uint8Array }
  /** A new document with the content of another one, or of a template. */
  | { readonly kind: 'copy'; readonly bytes: Uint8Array }
  | {
      readonly kind: 'edit'
      readonly bytes: Uint8Array
      readonly ids: DocumentIds
      readonly setting?: TypeSetting
      readonly edits: Edits
    }
  | (Content & { readonly kind: 'survey' })
  /** A document as something else: a PDF, a book, a page for browsers, its styles alone. */
  | (Content & { readonly kind: 'handoff'; readonly request: Handoff; readonly context: HandoffContext })
  /** Documents with what they need elsewhere, in one zip. */
  | {
      readonly kind: 'bundle'
      readonly documents: readonly (Content & Pick<BundledDocument, 'fileName' | 'records' | 'uses'>)[]
      readonly context: BundleContext
    }
  /** The record of the change that led from one version to the next, as PDF. */
  | {
      readonly kind: 'record'
      readonly before: Content
      readonly after: Content
      readonly recorded: Recorded
      readonly of: RecordOf
      readonly made: number
    }
  /** The named styles of a document, laid open. */
  | (Content & { readonly kind: 'styleList' })
  /** How much of a document is as a house says. */
  | (Content & { readonly kind: 'toStyle'; readonly house: House; readonly of: string })
  /** Changes of a finished PDF. */
  | (Content & { readonly kind: 'finished'; readonly changes: readonly WishedChange[] })
  /** What a proof of a document finds. */
  | (Content & ProofedBy & { readonly kind: 'proof' })
  /** What a proof of a document finds, as PDF. */
  | (Content & ProofedBy & { readonly kind: 'proofReport'; readonly of: ProofOf; readonly made: number })
  /** In what two documents, or two versions of one, differ, as PDF. */
  | {
      readonly kind: 'comparison'
      readonly before: Content
      readonly after: Content
      readonly names: readonly [string, string]
      readonly made: number
    }
  /** A house drawn up from documents. */
  | { readonly kind: 'houseFrom'; readonly name: string; readonly documents: readonly Content[] }

export interface Results {
  /** The faces of a file: of a collection all of them. */
  font: readonly CheckedFont[]
  instance: CheckedFont
  alternates: FaceAlternates
  carriedFonts: FoundFont[]
  unzip: Unpacked
  /** `changes` says whether anything would change. Of the plan its operations are left out. */
  change: {
    readonly plan: RecordedPlan
    readonly bytes: Uint8Array
    readonly ids: DocumentIds
    readonly changes: boolean
  }
  pagePicture: { readonly svg: string; readonly pages: number }
  check: { readonly kind: ShelfKind; readonly signed: boolean; readonly title: string }
  convert: { readonly bytes: Uint8Array; readonly left: ReadText['left'] }
  copy: { readonly kind: DocumentKind; readonly bytes: Uint8Array }
  edit: {
    readonly bytes: Uint8Array
    readonly ids: DocumentIds
    readonly title: string
    readonly said: readonly string[]
  }
  survey: { readonly census: AnyCensus; readonly firstPage: string }
  handoff: Handed
  bundle: Handed
  record: Uint8Array
  proofReport: Uint8Array
  comparison: Uint8Array
  styleList: ListedStyle[]
  toStyle: MeasuredShare
  finished: FinishedOutcome
  proof: ProofCounts
  houseFrom: House
}

export interface TaskFailure {
  readonly name:
    | 'PackageError'
    | 'PlanError'
    | 'NothingToPlan'
    | 'PdfError'
    | 'MayNotEmbed'
    | 'HandoffError'
    | 'EditRefusal'
    | 'FinishedPdfError'
    | 'Error'
  readonly fault: PackageFault | null
  readonly message: string
}

let shipped: ReturnType<typeof shippedLibrary> | null = null
/** Typesetters by what they set with; the last few are kept, since most documents share one. */
const typesetters = new Map<string, Typesetter>()
const keptTypesetters = 3
let subsetter: Subsetter | null = null
/** Words that a thread keeps before it begins anew: they come from every document that passes through it. */
const keptWords = 300_000

/** The bytes of a face: of one that ships, or of one that was added, which whoever gave the task laid ready. */
function faceBytes(hash: string): Uint8Array | undefined {
  return (shipped ??= shippedLibrary()).load(hash) ?? readAddedFace(hash)
}

const theSubsetter = () => (subsetter ??= startSubsetter())
const works = () => handoffWorks(faceBytes, theSubsetter())
/** Reports are set in faces that ship, whatever the document is set in. */
const reportWorks = (made: number): ReportWorks => ({
  typesetter: theTypesetter(),
  load: faceBytes,
  subsetter: theSubsetter(),
  made,
})

function theTypesetter(setting?: TypeSetting): Typesetter {
  const key = JSON.stringify(setting ?? null)
  let own = typesetters.get(key)
  typesetters.delete(key)
  if (!own || own.words.count > keptWords) {
    const { library } = (shipped ??= shippedLibrary())
    const added = setting?.faces ? readList(setting.faces) : []
    own = new Typesetter(
      setting === undefined ? library : new Library([...library.faces, ...added], setting.standIns),
      new Shaper(startHarfBuzz(), faceBytes),
    )
  }
  typesetters.set(key, own)
  for (const old of [...typesetters.keys()].slice(0, -keptTypesetters)) typesetters.delete(old)
  return own
}

/** Ids of the nodes of changed parts, for the next session. */
export function documentIds(document: OdfDocument, before: DocumentIds): DocumentIds {
  const ids: Record<string, DocumentIds[string]> = { ...before }
  for (const [path, part] of document.parts) if (part.changed) ids[path] = idRuns(part)
  return ids
}

/** @throws PackageError where a finished PDF is asked for what only documents have that are set here */
function refuseFinished(bytes: Uint8Array): void {
  if (isPdf(bytes))
    throw new PackageError(
      'finished',
      'This is a finished PDF: it has no styles and is not set here, so that cannot be done with it. Text is added to it and ' +
        'put right on its own pages. Nothing was changed.',
    )
}

/** Opens what a task is about. @throws PackageError */
async function begin({ bytes, ids, setting }: Content): Promise<DocumentSession> {
  refuseFinished(bytes)
  return DocumentSession.start(bytes, theTypesetter(setting), { ids })
}

/** The same, without its pages. @throws PackageError */
function beginPlain({ bytes, ids, setting }: Content): DocumentSession {
  refuseFinished(bytes)
  return DocumentSession.open(bytes, theTypesetter(setting), { ids })
}

/** A document as it would be drawn up, where its own styles say too little. */
function drawnUp(session: DocumentSession, kinds: Registry): DocumentSession {
  if (!needsDrawingUp(session.reading, session.typesetter.library)) return session
  return kinds.plan(session, { wishes: [drawUpSchema.parse({ type: 'draw-up' })], leftOut: [] }, { effects: false })
    .after
}

/** A proof as the shelf tells it: how much was found, check by check. */
function proofCounts(
  findings: readonly (Pick<Finding, 'check' | 'title' | 'severity'> & {
    readonly repair: unknown
    readonly accepted?: string | null
  })[],
): ProofCounts {
  const checks = new Map<string, ProofCounts['checks'][number]>()
  const open = findings.filter(each => (each.accepted ?? null) === null)
  for (const { check, title, severity, repair } of open) {
    const known = checks.get(check) ?? { check, title, severity, count: 0, mendable: 0 }
    checks.set(check, { ...known, count: known.count + 1, mendable: known.mendable + (repair ? 1 : 0) })
  }
  const of = (severity: Severity) => open.filter(each => each.severity === severity).length
  return {
    error: of('error'),
    warning: of('warning'),
    note: of('note'),
    accepted: findings.length - open.length,
    checks: [...checks.values()],
  }
}

/** How wide pictures of finished pages are: on a card of the shelf, and to be read. Pixels. */
const cardWidth = 252
const readableWidth = 1_200

/** Counts a finished PDF; a first page that cannot be drawn leaves its card without a picture. */
async function surveyFinished(bytes: Uint8Array): Promise<Results['survey']> {
  const census = finishedCensus(await openPdf(bytes))
  const firstPage = await pdfPicture(bytes, 0, cardWidth).then(
    ({ svg }) => svg,
    () => '',
  )
  return { census, firstPage }
}

/** Carries a task out; wishes of a request are those of `kinds`. @throws PackageError, PlanError */
export function carryOut<K extends Task['kind']>(
  task: Extract<Task, { kind: K }>,
  kinds?: Registry,
): Promise<Results[K]>
export async function carryOut(task: Task, kinds: Registry = registry): Promise<Results[Task['kind']]> {
  switch (task.kind) {
    case 'check': {
      if (isPdf(task.bytes)) {
        const { signed, title } = await openPdf(task.bytes)
        return { kind: 'finished', signed, title }
      }
      const document = openDocument(task.bytes)
      return { kind: document.kind, signed: document.signed, title: document.title }
    }
    case 'font':
      return checkFontFile(task.bytes)
    case 'instance':
      return faceAt(task.variable, task.style, task.place, task.family)
    case 'alternates':
      return alternatesOf(task.bytes, task.face)
    case 'carriedFonts': {
      // What a PDF carries are parts of faces: no text can be set in them.
      if (isPdf(task.bytes)) return []
      const { container } = openDocument(task.bytes)
      return checkedFonts(
        container.entries
          .map(entry => entry.path)
          .filter(isFontPath)
          .slice(0, fontLimit)
          .map(path => ({ path, bytes: partBytes(container, path) })),
      )
    }
    case 'unzip':
      return unzip(task.bytes)
    case 'change': {
      const { request, partly, effects } = task
      const { plan, after } = kinds.plan(await begin(task), request, { partly, effects })
      const { operations, ...recorded } = plan
      return {
        plan: recorded,
        bytes: saveDocument(after.document),
        ids: documentIds(after.document, task.ids),
        changes: operations.length > 0,
      }
    }
    case 'pagePicture': {
      if (isPdf(task.bytes)) return pdfPicture(task.bytes, task.page, readableWidth)
      const session = await begin(task)
      const page = session.composition.pages[task.page]
      return {
        svg: page ? pageSvg(displayPage(page), session.typesetter.shaper) : '',
        pages: session.composition.pages.length,
      }
    }
    case 'convert': {
      const read = readForeign(task.fileName, task.bytes)
      return { bytes: writeReadText(read, task.fileName.replace(/\.\w+$/, '')), left: read.left }
    }
    case 'copy':
      refuseFinished(task.bytes)
      return fromTemplate(task.bytes)
    case 'edit': {
      refuseFinished(task.bytes)
      const before = openDocument(task.bytes, { ids: task.ids })
      const edited = makeEdits(before, task.edits)
      const stale = dropStale(edited.document, new Set(task.edits.map(({ edit }) => edit.part)))
      const { document } = applyAll(edited.document, stale.operations)
      return {
        bytes: saveDocument(document),
        ids: documentIds(document, task.ids),
        title: editTitle(before, task.edits),
        said: stale.said,
      }
    }
    case 'survey': {
      if (isPdf(task.bytes)) return surveyFinished(task.bytes)
      const session = await begin(task)
      const first = session.composition.pages[0]
      return {
        census: session.detail.census,
        firstPage: first ? pageSvg(displayPage(first), session.typesetter.shaper) : '',
      }
    }
    case 'handoff':
      return handOff(await begin(task), task.request, task.context, works())
    case 'bundle': {
      const documents: BundledDocument[] = []
      for (const { fileName, records, uses, ...content } of task.documents)
        documents.push({
          fileName,
          records,
          uses,
          bytes: content.bytes,
          session: isPdf(content.bytes) ? null : await begin(content),
        })
      return writeBundle(documents, task.context, works())
    }
    case 'record': {
      const [before, after] = [await begin(task.before), await begin(task.after)]
      return recordPdf(task.recorded, task.of, before, after, reportWorks(task.made))
    }
    case 'proofReport': {
      if (isPdf(task.bytes)) {
        const reader = new FinishedReader(await openPdf(task.bytes))
        const { library } = theTypesetter(task.setting)
        const findings = proofOfFinished({ reader, library, house: task.house, madeFor: task.madeFor }, task.checklist)
        return finishedProofPdf(findings, task.of, { bytes: task.bytes, reader }, reportWorks(task.made))
      }
      const session = await begin(task)
      return proofPdf(proofOf(session, task), task.of, session, reportWorks(task.made))
    }
    case 'comparison': {
      const [before, after] = [await begin(task.before), await begin(task.after)]
      return comparisonPdf(compareDocuments(before, after), task.names, before, after, reportWorks(task.made))
    }
    case 'styleList': {
      const { reading, typesetter: own } = beginPlain(task)
      return layOpen(reading, own.library)
    }
    case 'toStyle': {
      const { reading } = beginPlain(task)
      const { characters, toStyle, roles } = measureToStyle(reading, task.house)
      const { house: dressed } = reading.cascade.rules
      return { characters, toStyle, roles, dressed: dressed?.id === task.of ? dressed.version : null }
    }
    case 'finished':
      return changeFinished(task.bytes, task.changes, {
        typesetter: theTypesetter(task.setting),
        load: faceBytes,
        subsetter: theSubsetter(),
      })
    case 'proof':
      if (isPdf(task.bytes)) {
        const reader = new FinishedReader(await openPdf(task.bytes))
        const { library } = theTypesetter(task.setting)
        return proofCounts(
          proofOfFinished({ reader, library, house: task.house, madeFor: task.madeFor }, task.checklist),
        )
      }
      return proofCounts(proofOf(await begin(task), task).findings)
    case 'houseFrom': {
      const readings = task.documents.map(each => drawnUp(beginPlain(each), kinds).reading)
      return houseFromDocuments(task.name, readings)
    }
  }
}
