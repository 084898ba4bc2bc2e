import type { LicenceUse } from '../core/font/licence'
import { z } from 'zod'
import type { MadeStyle, Plan, WishList } from '../core/change/plan'
import { registry } from '../core/change/registry'
import type { DocumentKind } from '../core/document/open'
import type { StandIn } from '../core/font/library'
import { houseSchema, type House } from '../core/house/house'
import type { RoleShare } from '../core/house/to-style'
import type { Severity } from '../core/house/checks'
import type { FolderMember } from './people'
import type { Right } from './rights'
import { batchLimit, shelfSorts } from './shelf'

/*
 * What server and browser say to each other: bodies of requests with their schemas, and the shapes of answers. Dates come
 * to the browser as text in ISO 8601.
 */

/** What a document on the shelf is: one that is set here, or a PDF that somebody else finished. */
export type ShelfKind = DocumentKind | 'finished'

/** How a version came about. */
export type MadeBy = 'upload' | 'change' | 'edit' | 'undo' | 'redo'

/** A version as it is listed: what made it, and when. */
export interface VersionRow {
  readonly document: string
  readonly number: number
  readonly state: number
  readonly madeBy: MadeBy
  /** Who made it: a person's id. */
  readonly author: string
  readonly title: string
  readonly created: Date
}

export interface DocumentRow {
  readonly id: string
  readonly fileName: string
  readonly kind: ShelfKind
  readonly signed: boolean
  readonly version: number
  readonly created: Date
  /** The id of the folder it lies in. */
  readonly folder: string | null
  /** What it is made for: the uses that its faces must be licensed for; null where nobody has said. */
  readonly uses: readonly LicenceUse[] | null
  /** The id of the house that it is linked to. */
  readonly house: string | null
}

/** What came of putting a file on the shelf: the first document it brought, and what is to be said. */
export interface PutOnShelf {
  readonly id: string
  readonly job: string
  readonly signed: boolean
  /** What a conversion or unpacking left out or guessed. */
  readonly left: readonly { readonly what: string; readonly count: number }[]
}

/** A card on the shelf. */
export interface ShelfCard extends DocumentRow {
  readonly title: string
  readonly changed: Date
  readonly pages: number | null
  readonly characters: number | null
  readonly settled: number | null
  readonly faces: readonly {
    readonly family: string
    readonly style: string
    readonly status: string
    readonly characters: number
  }[]
  /** The version that the figures are of; null where none was counted yet. An older one where the newest waits. */
  readonly counted: number | null
  /** What the picture of its first page goes by; null where there is none. */
  readonly picture: string | null
}

/** What is asked of the shelf: words, a folder or certain documents, in some order, from `start` on. */
export const shelfQuerySchema = z.strictObject({
  find: z.string().trim().max(200).default(''),
  folder: z.uuid().optional(),
  ids: z
    .string()
    .max(200 * 37)
    .transform(ids => ids.split(','))
    .pipe(z.array(z.uuid()).max(200))
    .optional(),
  sort: z.enum(shelfSorts).default('changed'),
  start: z.coerce.number().int().min(0).max(1_000_000).default(0),
  count: z.coerce.number().int().min(1).max(200).default(60),
})
export type ShelfQuery = z.output<typeof shelfQuerySchema>

/** Some cards in their order, and how many answer to the query in all. */
export interface ShelfPage {
  readonly cards: readonly ShelfCard[]
  readonly total: number
}

/** A change that was made by a plan, as records list it. */
export interface RecordRow extends VersionRow {
  readonly fileName: string
}

/** What undo and redo would go to. */
export interface Step {
  readonly state: number
  readonly title: string
}

/** A version that somebody signed off: a person's id, and when. */
export interface SignOff {
  readonly version: number
  readonly person: string
  readonly at: Date
}
export const signOffBodySchema = z.strictObject({ version: z.int().min(1) })

/** A document with its versions. */
export interface DocumentInfo {
  readonly document: DocumentRow
  /** The folder it lies in. */
  readonly folder: Pick<Folder, 'id' | 'name'> | null
  /** What whoever asks may do with it. */
  readonly rights: readonly Right[]
  readonly versions: readonly VersionRow[]
  readonly signOffs: readonly SignOff[]
  readonly history: { readonly undo: Step | null; readonly redo: Step | null }
}

/** Stand-ins by whose they are: the strongest first. */
export interface StandInLevels {
  readonly document: readonly StandIn[]
  readonly folder: readonly StandIn[]
  /** Those of its house, which are set there. */
  readonly house: readonly StandIn[]
  readonly desk: readonly StandIn[]
}
/** Levels at which stand-ins are set for a document. */
export type SetStandInLevel = Exclude<keyof StandInLevels, 'house'>

/** Wishes to be carried out on a version. */
export const changeBodySchema = z.strictObject({ base: z.int().min(1), request: registry.schema })
export interface Changed {
  readonly version: VersionRow
  readonly made: readonly MadeStyle[]
}

/** A plan as it is kept: without its operations. */
export type RecordedPlan = Omit<Plan, 'operations'>

/** Wishes over many documents. */
export const batchBodySchema = z.strictObject({
  request: registry.schema,
  documents: z.array(z.uuid()).min(1).max(batchLimit),
})

export type BatchState = 'planning' | 'planned' | 'running' | 'paused' | 'done' | 'cancelled' | 'undone'
export type BatchDocumentState =
  'waiting' | 'planned' | 'nothing' | 'left-out' | 'done' | 'failed' | 'cancelled' | 'undone'

/** What the plan does to one document. */
export interface BatchEffects {
  readonly places: number
  readonly characters: number
  readonly pagesBefore: number
  readonly pagesAfter: number
  readonly paragraphsChanged: number
  readonly overset: number
  readonly missingGlyphs: number
  readonly left: number
}

export interface BatchDocument {
  readonly document: string
  readonly fileName: string
  readonly base: number
  readonly made: number | null
  readonly state: BatchDocumentState
  readonly message: string
  readonly effects: BatchEffects | null
}

export interface Batch {
  readonly id: string
  readonly title: string
  /** Who asked: a person's id. */
  readonly author: string
  readonly request: WishList
  readonly state: BatchState
  readonly created: Date
  readonly documents: readonly BatchDocument[]
}

/** A batch as it is listed, without its documents. */
export type ListedBatch = Omit<Batch, 'documents' | 'request'> & { readonly count: number; readonly done: number }

/** How much of something is in which documents. */
export interface SharedUse {
  readonly value: string
  readonly status: string
  readonly count: number
  readonly documents: readonly { readonly id: string; readonly count: number }[]
}

/**
 * The census over all documents as they are now: families by characters, sizes by characters, colours by how often
 * they are named.
 */
export interface ShelfCensus {
  readonly families: readonly SharedUse[]
  readonly sizes: readonly SharedUse[]
  readonly colors: readonly SharedUse[]
}

/** Work that waits in the database, so that several servers can share it. */
export interface Job {
  readonly id: string
  readonly kind: 'survey' | 'batch-plan' | 'batch-apply'
  readonly document: string
  readonly version: number
  readonly state: 'queued' | 'running' | 'paused' | 'done' | 'failed' | 'cancelled'
  readonly progress: number
  readonly message: string
  readonly batch: string | null
}

/** A family that the supplier has. */
export interface Offer {
  readonly id: string
  readonly family: string
  readonly designer: string
  readonly weights: readonly string[]
  readonly scripts: readonly string[]
  readonly licence: string
  /** In euros, for the family; 0 is free. */
  readonly price: number
  readonly said: string
}

/** The name of a folder of the shelf. */
const folderNameSchema = z
  .string()
  .trim()
  .min(1)
  .max(120)
  .regex(/^[^\u0000-\u001F/\\]+$/, 'a folder’s name has no slashes')
export const folderBodySchema = z.strictObject({ name: folderNameSchema })

/** A folder of the shelf: a project. */
export interface Folder {
  readonly id: string
  readonly name: string
  readonly documents: number
  /** For how many days after its last change a document is kept here; null for good. */
  readonly keepDays: number | null
  /** Those who see it, beside the owners of the desk; none where everybody of the studio does. */
  readonly members: readonly FolderMember[]
  /** What whoever asks may do in it. */
  readonly rights: readonly Right[]
  /** Whether they say who sees it. */
  readonly owns: boolean
}

/** So many days may something be kept, at the least and at the most. */
export const keepDaysSchema = z.int().min(1).max(3650)

/** A document in the trash. */
export interface TrashedDocument {
  readonly id: string
  readonly fileName: string
  readonly versions: number
  /** The name of the folder that it lay in. */
  readonly folder: string | null
  readonly trashed: Date
  /** When it is let go for good. */
  readonly until: Date
}

/** The trash as it is looked at. */
export interface Trash {
  readonly days: number
  readonly documents: readonly TrashedDocument[]
  readonly purges: readonly Purge[]
}

/** A document that was let go for good, and what is proven of it. */
export interface Purge {
  readonly id: string
  readonly fileName: string
  readonly versions: number
  /** How many pieces of content it was made of, each with a hash of its own. */
  readonly pieces: number
  /** Of them, those that other documents, versions or faces are made of, too; null until it is proven. */
  readonly shared: number | null
  /** Who let it go: a person's id; '' where its time was over. */
  readonly person: string
  readonly purged: Date
  /** When all was searched for by its hashes, and nothing of its own was found; null until then. */
  readonly proven: Date | null
}

/** A house as it is listed. */
export interface HouseRow {
  readonly id: string
  readonly name: string
  /** How often it was kept: whoever keeps it anew says which one they had. */
  readonly revision: number
  /** The number of its newest version; 0 while none was issued. */
  readonly issued: number
  /** The day on which a trial copy asks whether it is kept, ISO 8601; null for no trial. */
  readonly trialUntil: string | null
  readonly changed: Date
  readonly documents: number
}

/** A version of a house: who issued it when, and what changed. */
export interface HouseVersionRow {
  readonly number: number
  readonly author: string
  readonly issued: Date
  readonly changes: readonly string[]
}

/** A house with its working state and its versions, the newest first. */
export interface HouseInfo extends HouseRow {
  readonly working: House
  /** What issuing it now would change. */
  readonly pending: readonly string[]
  readonly versions: readonly HouseVersionRow[]
}

/** How much of a document was to style when it was measured. */
export interface MeasuredShare {
  readonly characters: number
  readonly toStyle: number
  readonly roles: readonly RoleShare[]
  /** The version of the house that the document was dressed in last; null for none. */
  readonly dressed: number | null
}

/** What a proof of a document found, check by check; what was accepted is counted apart. */
export interface ProofCounts {
  readonly error: number
  readonly warning: number
  readonly note: number
  readonly accepted: number
  readonly checks: readonly {
    readonly check: string
    readonly title: string
    readonly severity: Severity
    readonly count: number
    /** So many of them can be put right by a plan. */
    readonly mendable: number
  }[]
}

/** A document that is linked to a house; its share as it is now, null where it was not measured yet. */
export interface LinkedDocument {
  readonly id: string
  readonly fileName: string
  readonly kind: ShelfKind
  readonly version: number
  readonly share: MeasuredShare | null
}

/** How much of all linked documents was to style on a day. */
export interface ShareOnDay {
  readonly day: string
  readonly characters: number
  readonly toStyle: number
}

const dayPattern = /^\d{4}-\d{2}-\d{2}$/
export const houseBodySchema = z.strictObject({
  house: houseSchema,
  trialUntil: z.string().regex(dayPattern).nullable().default(null),
})
/** A house kept anew: `revision` is the one that it is made from. */
export const houseChangeSchema = z.strictObject({ ...houseBodySchema.shape, revision: z.int().min(1) })
export const issueBodySchema = z.strictObject({ revision: z.int().min(1) })
export const measureBodySchema = z.strictObject({ document: z.uuid() })
export const houseLinkSchema = z.strictObject({ house: z.uuid().nullable() })
export const houseFromDocumentsSchema = z.strictObject({
  name: z.string().trim().min(1).max(120),
  documents: z.array(z.uuid()).min(1).max(20),
})
