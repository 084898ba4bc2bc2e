import { z } from 'zod'
import type { Operation } from '../document/operations'
import type { Effects } from './effects'

/*
 * What every plan is, whatever was wished: plain data that lists each place, what it does to the pages, and what stays.
 * Nothing here knows a kind of wish.
 */

/** A wish of any kind; its kind says what else it holds. */
export interface AnyWish {
  readonly type: string
}

/**
 * What a row is about, by which it is left out: `what` names the sort of place, the other members tell it from its
 * like. Whoever makes rows of a sort chooses the members; two keys are one where all members agree.
 */
export type RowKey = Readonly<{ what: string } & Record<string, string | number | boolean>>

/** Names of styles may be 500 letters long, and how text looked is told in words. */
const memberLength = 2_000

export const rowKeySchema = z
  .object({ what: z.string().min(1).max(40) })
  .catchall(z.union([z.string().max(memberLength), z.number(), z.boolean()]))
  .refine(key => Object.keys(key).length <= 12, { error: 'a key of a row has at most 12 members' }) as z.ZodType<RowKey>

/** At most this many rows are left out of one plan. */
export const leftOutLimit = 20_000

/** A key as one string, for sets and lists: equal where the keys are. Nothing reads it. */
export function keyText(key: RowKey): string {
  return JSON.stringify(Object.entries(key).sort(([one], [other]) => (one < other ? -1 : one > other ? 1 : 0)))
}

/** What is asked: wishes of any kinds, and the places that keep what they have. */
export interface WishList<W extends AnyWish = AnyWish> {
  readonly wishes: readonly W[]
  readonly leftOut: readonly RowKey[]
}

/** What carrying wishes out came to: what each is called, and how much changes. */
export interface Told {
  readonly titles: readonly string[]
  readonly places: number
  readonly characters: number
}

/** One place in the document. Offsets are of the paragraph's text. */
export interface PlanPlace {
  readonly part: string
  readonly node: number
  readonly attribute?: string | null
  readonly from?: number
  readonly to?: number
}

/** Places of one sort that change alike. */
export interface PlanRow {
  readonly key: RowKey
  /** Rows of one stage are told, and left out, together: “style”, “match”, “repair”. */
  readonly stage: string
  readonly title: string
  readonly count: number
  readonly characters: number
  readonly before: string
  readonly after: string
  /** It changes with the plan. */
  readonly included: boolean
  /** Why it cannot be included; null where it can. */
  readonly reason: string | null
  /** Whether it may be left out by hand. */
  readonly optional: boolean
  readonly places: readonly PlanPlace[]
  /** The page of its first place, from 0; -1 where none shows it. */
  readonly page?: number
}

/** One face and what takes its place. */
export interface FaceMapping {
  /** Key of the face in the census. */
  readonly key: string
  readonly from: {
    readonly family: string
    readonly style: string
    readonly slot: string
    readonly weight: number
    readonly italic: boolean
  }
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

/** Text that goes by one named style: what merely shares a font is told apart by role and style. */
export interface TextGroup {
  readonly key: RowKey
  readonly style: string
  readonly role: string | null
  readonly characters: number
  /** It keeps what it has. */
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

/** A style that the plan makes. */
export interface MadeStyle {
  readonly family: string
  readonly name: string
  readonly displayName: string
}

/** What stays as it is, and why. */
export interface LeftPlace {
  readonly what: string
  readonly reason: string
  readonly count: number
}

/** What wishes would do, as plain data: nothing has changed yet. It is kept as the record of the change. */
export interface Plan<W extends AnyWish = AnyWish> {
  readonly request: WishList<W>
  /** What it would do, in a few words; also the name of the version that comes of it. */
  readonly title: string
  /** The wishes in whole sentences. */
  readonly sentences: readonly string[]
  readonly rows: readonly PlanRow[]
  readonly left: readonly LeftPlace[]
  /** What goes stale with the change and is dropped: other programs draw it anew. */
  readonly stale: readonly string[]
  /** Places that change. */
  readonly places: number
  readonly characters: number
  readonly operations: readonly Operation[]
  /** What it does to the pages; null until they are composed. */
  readonly effects: Effects | null
  readonly mappings: readonly FaceMapping[]
  readonly groups: readonly TextGroup[]
  readonly sizes: readonly SizeChange[]
  readonly missingGlyphs: readonly MissingGlyph[]
  readonly made: readonly MadeStyle[]
}

/** A wish that cannot be planned: nothing changed. The message is for people. */
export class PlanError extends Error {}

/** A wish that this document has nothing for: it names no such font, or no text answers. */
export class NothingToPlan extends PlanError {}
