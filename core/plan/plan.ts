import { z } from 'zod'
import type { Operation } from '../document/operations'
import type { ReferenceKind } from '../document/font-references'
import type { Effects } from './effects'

const family = z.string().trim().min(1).max(200)
const style = z.string().trim().min(1).max(100)

/** One exchange: a family, or one face of it, gives way to another. */
export const swapWishSchema = z.strictObject({
  from: z.strictObject({ family, style: style.optional() }),
  to: z.strictObject({ family, style: style.optional() }),
})
export type SwapWish = z.infer<typeof swapWishSchema>

/** What is asked of a swap: wishes that act at once, and what the person changed in the plan. */
export const swapRequestSchema = z.strictObject({
  wishes: z.array(swapWishSchema).min(1).max(20),
  /** Ids of rows that are struck: their places keep the old font. */
  struck: z.array(z.string().max(300)).max(2000).default([]),
  /** Faces chosen by hand: face key of the census to a style name of the new family. */
  faces: z.record(z.string().max(400), style).default({}),
  /** Fonts of signs too, though their characters are not letters. */
  symbols: z.boolean().default(false),
})
export type SwapRequest = z.infer<typeof swapRequestSchema>

/** One face and what takes its place. */
export interface FaceMapping {
  /** Key of the face in the census. */
  readonly key: string
  readonly from: { readonly family: string, readonly style: string, readonly weight: number, readonly italic: boolean }
  readonly to: { readonly family: string, readonly style: string, readonly weight: number, readonly italic: boolean, readonly hash: string }
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
  readonly places: readonly { readonly part: string, readonly node: number, readonly attribute: string | null }[]
}

export interface MissingGlyph { readonly codePoint: number, readonly character: string, readonly count: number, readonly face: string }

/** What a swap would do, as plain data: nothing has changed yet. It is kept as the record of the change. */
export interface SwapPlan {
  readonly kind: 'swap'
  readonly request: SwapRequest
  readonly title: string
  readonly mappings: readonly FaceMapping[]
  readonly rows: readonly PlanRow[]
  readonly missingGlyphs: readonly MissingGlyph[]
  /** What will still name the old font afterwards, and why. */
  readonly left: readonly { readonly what: string, readonly reason: string, readonly count: number }[]
  /** What goes stale with the change and is dropped: other programs draw it anew. */
  readonly stale: readonly string[]
  /** Places that change: references that get another font. */
  readonly places: number
  readonly characters: number
  readonly operations: readonly Operation[]
  /** What it does to the pages; null until they are composed. */
  readonly effects: Effects | null
}

/** A wish that cannot be planned: nothing changed. The message is for people. */
export class PlanError extends Error {}
