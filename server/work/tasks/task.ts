import type { Edits } from '../../../core/document/edits'
import type { DocumentIds, DocumentKind } from '../../../core/document/open'
import type { ReadText } from '../../../core/format/blocks'
import type { ProofOf } from '../../../core/format/pdf/proof-report'
import type { Recorded, RecordOf } from '../../../core/format/pdf/record'
import type { BundleContext, BundledDocument } from '../../../core/format/handoff/bundle'
import type { FinishedOutcome } from '../../../core/format/finished/change'
import type { WishedChange } from '../../../core/format/finished/wish'
import type { HandoffContext } from '../../../core/format/handoff/hand-off'
import type { Handed, Handoff } from '../../../core/format/handoff/request'
import type { WishList } from '../../../core/change/plan'
import type { Registry } from '../../../core/change/registry'
import type { MeasuredShare, ProofCounts, RecordedPlan, ShelfKind } from '../../../shared/api'
import type { AnyCensus } from '../../store/document-count'
import type { ListedStyle } from '../../../core/change/styles/style-list'
import type { FaceAlternates } from '../../../core/font/alternates'
import type { AxisPlace } from '../../../core/font/axes'
import type { FaceRecord } from '../../../core/font/face'
import type { MadeFor } from '../../../core/font/held-licence'
import type { House } from '../../../core/house/house'
import type { Checklist } from '../../../core/proof/checklist'
import type { StandIn } from '../../../core/font/library'
import type { PackageFault } from '../../../core/package/errors'
import type { CheckedFont } from '../../library/font-file'
import type { FoundFont, Unpacked } from '../unpacking'

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

/** The tasks of one kind. */
export type TaskOf<K extends Task['kind']> = Extract<Task, { readonly kind: K }>

/** What carries tasks of some kinds out, by kind; wishes of a request are those of `kinds`. @throws PackageError, PlanError */
export type Carriers<K extends Task['kind']> = {
  readonly [Each in K]: (task: TaskOf<Each>, kinds: Registry) => Results[Each] | Promise<Results[Each]>
}
