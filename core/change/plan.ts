import { z } from 'zod'
import type { Operation } from '../document/operations'
import type { ReferenceKind } from '../document/font-references'
import { lookCriteriaSchema, matchScopeSchema } from '../census/criteria'
import { leadingModes, sizeWishSchema } from './swap/optical-size'
import type { Effects } from './effects'

const family = z.string().trim().min(1).max(200)
const style = z.string().trim().min(1).max(100)

/** One exchange: a family, or one face of it, gives way to another. */
export const swapWishSchema = z.strictObject({
  from: z.strictObject({ family, style: style.optional() }),
  to: z.strictObject({ family, style: style.optional() }),
  /**
   * Only text that answers to this; without it everything that names the font: text, defaults, masters, charts,
   * declarations.
   */
  within: z
    .strictObject({ look: lookCriteriaSchema.default({}), scope: matchScopeSchema.default({ kind: 'document' }) })
    .optional(),
  size: sizeWishSchema.optional(),
  leading: z.enum(leadingModes).optional(),
})
export type SwapWish = z.infer<typeof swapWishSchema>

const place = { part: z.string().min(1).max(500), node: z.int().nonnegative() }

/** What is mended by hand where a change does not fit: on one paragraph, or on all text of one frame. */
export const repairSchema = z.discriminatedUnion('kind', [
  /** Thousandths of an em, added to what is there. */
  z.strictObject({ kind: z.literal('tracking'), ...place, amount: z.number().min(-200).max(200) }),
  /** Percent of the size, and of the leading. */
  z.strictObject({ kind: z.literal('size'), ...place, amount: z.number().min(50).max(150) }),
  z.strictObject({ kind: z.literal('leading'), ...place, amount: z.number().min(50).max(150) }),
  /** Points, added to the height of a frame. */
  z.strictObject({ kind: z.literal('height'), ...place, amount: z.number().min(-2000).max(2000) }),
])
export type Repair = z.infer<typeof repairSchema>

/** What is asked of a swap: wishes that act at once, and what the person changed in the plan. */
export const swapRequestSchema = z.strictObject({
  wishes: z.array(swapWishSchema).min(1).max(20),
  /** Ids of rows that are struck: their places keep the old font. */
  struck: z.array(z.string().max(300)).max(2000).default([]),
  /** Faces chosen by hand: face key of the census to a style name of the new family. */
  faces: z.record(z.string().max(400), style).default({}),
  /** Fonts of signs too, though their characters are not letters. */
  symbols: z.boolean().default(false),
  /** Groups of text, by role and style, that merely share the font and keep it: ids of the plan's groups. */
  kept: z.array(z.string().max(400)).max(500).default([]),
  /** Single paragraphs that keep the old font. */
  spared: z.array(z.strictObject(place)).max(5000).default([]),
  repairs: z.array(repairSchema).max(5000).default([]),
})
export type SwapRequest = z.infer<typeof swapRequestSchema>

/** One face and what takes its place. */
export interface FaceMapping {
  /** Key of the face in the census. */
  readonly key: string
  readonly from: { readonly family: string; readonly style: string; readonly weight: number; readonly italic: boolean }
  readonly to: {
    readonly family: string
    readonly style: string
    readonly weight: number
    readonly italic: boolean
    readonly hash: string
  }
  readonly same: boolean
  /** “same weight”, “nearest weight, 600”, “no italic in Oswald”, “chosen”. */
  readonly note: string
  readonly characters: number
}

/** What every row of every plan tells. */
export interface PlanLine {
  readonly id: string
  readonly title: string
  readonly count: number
  readonly characters: number
  readonly before: string
  readonly after: string
  /** Struck by hand, or left out with a reason. */
  readonly included: boolean
  /** Why it cannot be included; null where it can. */
  readonly leftOut: string | null
}

/** A row of a swap: places of one kind with one bearer. */
export interface PlanRow extends PlanLine {
  readonly kind: ReferenceKind
  readonly places: readonly { readonly part: string; readonly node: number; readonly attribute: string | null }[]
}

/** Text that goes by one named style: what merely shares the font is told apart by role and style. */
export interface SwapGroup {
  readonly id: string
  readonly style: string
  readonly role: string | null
  readonly characters: number
  readonly kept: boolean
}

/** By how much sizes go with a wish, in percent, and what that was measured on. */
export interface SizeChange {
  readonly wish: number
  readonly percent: number
  readonly said: string
}

export interface MissingGlyph {
  readonly codePoint: number
  readonly character: string
  readonly count: number
  readonly face: string
}

/** What every plan comes to, whatever was wished. */
export interface PlanOutcome {
  readonly title: string
  /** What stays as it is, and why: of a swap what will still name the old font. */
  readonly left: readonly { readonly what: string; readonly reason: string; readonly count: number }[]
  /** What goes stale with the change and is dropped: other programs draw it anew. */
  readonly stale: readonly string[]
  /** Places that change. */
  readonly places: number
  readonly characters: number
  readonly operations: readonly Operation[]
  /** What it does to the pages; null until they are composed. */
  readonly effects: Effects | null
}

/** What a swap would do, as plain data: nothing has changed yet. It is kept as the record of the change. */
export interface SwapPlan extends PlanOutcome {
  readonly kind: 'swap'
  readonly request: SwapRequest
  readonly mappings: readonly FaceMapping[]
  readonly rows: readonly PlanRow[]
  readonly groups: readonly SwapGroup[]
  readonly sizes: readonly SizeChange[]
  readonly missingGlyphs: readonly MissingGlyph[]
}

/** A wish that cannot be planned: nothing changed. The message is for people. */
export class PlanError extends Error {}

/** A wish that this document has nothing for: it names no such font, or no text answers. */
export class NothingToPlan extends PlanError {}
