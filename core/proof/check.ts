import type { Mend } from '../change/mend/wish'
import type { RecastChange } from '../change/recast/wish'
import type { Wish } from '../change/registry'
import type { Severity } from '../house/checks'
import type { ProofText, Stretch, Subject } from './subject'

/** What checks are about. */
export const checkGroups = ['faces', 'consistency', 'words', 'setting', 'reading'] as const
export type CheckGroup = (typeof checkGroups)[number]

/** What puts a finding right: wishes, some given by what they do to places so that many become one. */
export interface Repair {
  /** Text that is to look otherwise. */
  readonly looks?: readonly { readonly at: Stretch; readonly change: RecastChange }[]
  /** Text set by hand that goes back to what its styles say. */
  readonly settle?: readonly Stretch[]
  readonly mends?: readonly Mend[]
  readonly wishes?: readonly Wish[]
  /** A frame whose text is brought to fit by trying what is gentlest. */
  readonly fit?: { readonly part: string; readonly node: number }
}

/** What a check found. Without a text it is about the document as a whole. */
export interface Found {
  readonly says: string
  readonly at?: { readonly text: ProofText; readonly from: number; readonly to: number }
  /** Instead of a place in text: the page, from 0, of what has none. */
  readonly page?: number
  readonly repair?: Repair
  /** Where it matters less or more than the check usually does. */
  readonly severity?: Severity
}

/** A number that a check goes by, which a checklist may set otherwise. */
export interface CheckLimit {
  readonly title: string
  readonly usual: number
  readonly least: number
  readonly most: number
}

/** What a check is, for people. */
export interface CheckDescription<L extends string = string> {
  readonly id: string
  readonly group: CheckGroup
  /** What it finds, in a few words: “Straight quotation marks”. */
  readonly title: string
  readonly severity: Severity
  /** What it looks for, and by which rule. */
  readonly looksFor: string
  /** Where the rule comes from. */
  readonly source: string
  /** What it cannot see. */
  readonly unseen: string
  readonly limits?: Readonly<Record<L, CheckLimit>>
  /** The stage of the desk where it is put right, where that is not done by a repair. */
  readonly stage?: 'absent' | 'house' | 'styles' | 'type' | 'swap' | 'pages'
}

/** One thing that a proof looks for. A new one is its file and its line in the registry. */
export interface Check<L extends string = string> extends CheckDescription<L> {
  /** Null between findings lets whoever waits go first. */
  find(subject: Subject, limits: Readonly<Record<L, number>>): Iterable<Found | null>
}

/** Says that an object is a check, with the limits it names. */
export const check = <L extends string = never>(own: Check<L>): Check => own as Check
