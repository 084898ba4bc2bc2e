import type { Census } from '../../core/census/census'
import { applyAll } from '../../core/document/apply'
import { editTitle, type Edits } from '../../core/document/edits'
import { openDocument, saveDocument, type DocumentIds, type DocumentKind, type OdfDocument } from '../../core/document/open'
import type { Operation } from '../../core/document/operations'
import type { ReadText } from '../../core/format/blocks'
import { fromTemplate } from '../../core/format/odf/from-template'
import { writeReadText } from '../../core/format/odf/new-document'
import { readForeign } from '../../core/format/read'
import { makeEdits } from '../../core/plan/make-edits'
import { dropStale } from '../../core/plan/stale'
import { recordPdf, type Recorded, type RecordOf } from '../../core/format/pdf/record'
import type { Subsetter } from '../../core/format/pdf/subset'
import { writePdf, type Pdf, type PdfOptions } from '../../core/format/pdf/write'
import type { Unlaid } from '../../core/typeset/compose'
import type { PackageFault } from '../../core/package/errors'
import type { SwapPlan, SwapRequest } from '../../core/plan/plan'
import { DocumentSession } from '../../core/plan/session'
import type { StylePlan } from '../../core/plan/styles/plan'
import { layOpen, type ListedStyle } from '../../core/plan/styles/style-list'
import type { StyleRequest } from '../../core/plan/styles/wishes'
import { displayPage } from '../../core/typeset/display'
import { Typesetter } from '../../core/typeset/look'
import { Shaper } from '../../core/typeset/shaper'
import { pageSvg } from '../../core/typeset/svg'
import { idRuns } from '../../core/xml/write'
import { startHarfBuzz, startSubsetter } from '../library/harfbuzz'
import { shippedLibrary } from '../library/shipped'

/** What the threads do. Plain data in and out. */
export type Task =
  | { readonly kind: 'check', readonly bytes: Uint8Array }
  /** Makes an OpenDocument text of a plain text, Markdown or HTML. */
  | { readonly kind: 'convert', readonly fileName: string, readonly bytes: Uint8Array }
  /** A new document with the content of another one, or of a template. */
  | { readonly kind: 'copy', readonly bytes: Uint8Array }
  | { readonly kind: 'edit', readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly edits: Edits }
  | { readonly kind: 'survey', readonly bytes: Uint8Array, readonly ids: DocumentIds }
  | { readonly kind: 'pdf', readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly options: PdfOptions }
  /** The record of the change that led from one version to the next, as PDF. */
  | { readonly kind: 'record', readonly before: { readonly bytes: Uint8Array, readonly ids: DocumentIds }, readonly after: { readonly bytes: Uint8Array, readonly ids: DocumentIds }, readonly recorded: Recorded, readonly of: RecordOf }
  /** The named styles of a document, laid open. */
  | { readonly kind: 'styleList', readonly bytes: Uint8Array, readonly ids: DocumentIds }
  | { readonly kind: 'styles', readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly request: StyleRequest }
  | { readonly kind: 'swap', readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly request: SwapRequest }

export interface Results {
  check: { readonly kind: DocumentKind, readonly signed: boolean, readonly title: string }
  convert: { readonly bytes: Uint8Array, readonly left: ReadText['left'] }
  copy: { readonly kind: DocumentKind, readonly bytes: Uint8Array }
  edit: { readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly operations: readonly Operation[], readonly title: string, readonly said: readonly string[] }
  survey: { readonly census: Census, readonly firstPage: string }
  pdf: Pdf & { readonly unlaid: Unlaid }
  record: Uint8Array
  styleList: ListedStyle[]
  styles: { readonly plan: StylePlan, readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly operations: readonly Operation[] }
  swap: { readonly plan: SwapPlan, readonly bytes: Uint8Array, readonly ids: DocumentIds, readonly operations: readonly Operation[] }
}

export interface TaskFailure { readonly name: 'PackageError' | 'PlanError' | 'PdfError' | 'EditRefusal' | 'Error', readonly fault: PackageFault | null, readonly message: string }

let shipped: ReturnType<typeof shippedLibrary> | null = null
let typesetter: Typesetter | null = null
let subsetter: Subsetter | null = null
/** Words that a thread keeps before it begins anew: they come from every document that passes through it. */
const keptWords = 300_000
function theTypesetter(): Typesetter {
  if (!typesetter || typesetter.words.count > keptWords) {
    const { library, load } = shipped ??= shippedLibrary()
    typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), load))
  }
  return typesetter
}

/** Ids of the nodes of changed parts, for the next session. */
export function documentIds(document: OdfDocument, before: DocumentIds): DocumentIds {
  const ids: Record<string, DocumentIds[string]> = { ...before }
  for (const [path, part] of document.parts) if (part.changed) ids[path] = idRuns(part)
  return ids
}

/** Carries a task out. @throws PackageError, PlanError */
export function carryOut<K extends Task['kind']>(task: Extract<Task, { kind: K }>): Promise<Results[K]>
export async function carryOut(task: Task): Promise<Results[Task['kind']]> {
  switch (task.kind) {
    case 'check': {
      const document = openDocument(task.bytes)
      return { kind: document.kind, signed: document.signed, title: document.title }
    }
    case 'convert': {
      const read = readForeign(task.fileName, task.bytes)
      return { bytes: writeReadText(read, task.fileName.replace(/\.\w+$/, '')), left: read.left }
    }
    case 'copy': return fromTemplate(task.bytes)
    case 'edit': {
      const before = openDocument(task.bytes, { ids: task.ids })
      const edited = makeEdits(before, task.edits)
      const stale = dropStale(edited.document, new Set(task.edits.map(({ edit }) => edit.part)))
      const { document } = applyAll(edited.document, stale.operations)
      return { bytes: saveDocument(document), ids: documentIds(document, task.ids), operations: [...edited.operations, ...stale.operations], title: editTitle(before, task.edits), said: stale.said }
    }
    case 'survey': {
      const session = await DocumentSession.start(task.bytes, theTypesetter(), { ids: task.ids })
      const first = session.composition.pages[0]
      return { census: session.detail.census, firstPage: first ? pageSvg(displayPage(first), session.typesetter.shaper) : '' }
    }
    case 'pdf': {
      const { composition, typesetter: own } = await DocumentSession.start(task.bytes, theTypesetter(), { ids: task.ids })
      const pdf = await writePdf(composition, own, shipped!.load, subsetter ??= startSubsetter(), task.options)
      return { ...pdf, unlaid: composition.unlaid }
    }
    case 'record': {
      const [before, after] = [await DocumentSession.start(task.before.bytes, theTypesetter(), { ids: task.before.ids }), await DocumentSession.start(task.after.bytes, theTypesetter(), { ids: task.after.ids })]
      return recordPdf(task.recorded, task.of, before.composition, after.composition, before.typesetter, shipped!.load, subsetter ??= startSubsetter())
    }
    case 'styleList': {
      const { reading, typesetter: own } = DocumentSession.open(task.bytes, theTypesetter(), { ids: task.ids })
      return layOpen(reading, own.library)
    }
    case 'styles': {
      const session = await DocumentSession.start(task.bytes, theTypesetter(), { ids: task.ids })
      const { plan, after } = session.planStyles(task.request)
      return { plan, bytes: saveDocument(after.document), ids: documentIds(after.document, task.ids), operations: plan.operations }
    }
    case 'swap': {
      const session = await DocumentSession.start(task.bytes, theTypesetter(), { ids: task.ids })
      const { plan, after } = session.plan(task.request)
      return { plan, bytes: saveDocument(after.document), ids: documentIds(after.document, task.ids), operations: plan.operations }
    }
  }
}
