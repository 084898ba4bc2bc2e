import type { z } from 'zod'
import type { OdfDocument } from '../document/open'
import type { AnyWish, Told } from './plan'
import type { Planner } from './planner'

/** A wish with its number in the request. */
export interface Numbered<W> {
  readonly wish: W
  readonly index: number
}

/**
 * A kind of wish: everything that is particular to it. Planning, previewing, leaving out, applying, batches, records
 * and the command line know wishes by this alone; a new kind is a folder and a line in the registry.
 */
export interface Kind<W extends AnyWish = AnyWish> {
  readonly type: W['type']
  /** What such a wish looks like. It is read with this wherever it comes in. */
  readonly schema: z.ZodObject<z.ZodRawShape>
  /** As many of them are taken in one request. */
  readonly most: number
  /**
   * Neighbours of such kinds act at once, on the text as it was before any of them: those that write words come last.
   * All other wishes act one after the other, each on what the one before left.
   */
  readonly atOnce?: 'first' | 'last'
  /** Carries wishes out on the planner's document. Of kinds that do not act at once it gets one. @throws PlanError */
  plan(planner: Planner, wishes: readonly Numbered<W>[]): Told
  /** The wish as one sentence, before anything is known of a document. `titleOf` gives the title of a style by its name. */
  sentence(wish: W, titleOf?: (name: string) => string): string
  /** Why it cannot be asked of many documents: it is about places of one. Null where it can. */
  whyNotMany(wish: W): string | null
  /** Whether a document has anything that it could be about; of many documents each is asked only what applies. */
  applies?(document: OdfDocument, wish: W): boolean
}

/** What a kind that acts by itself says of one wish. */
type OneByOne<W extends AnyWish> = Omit<Kind<W>, 'plan' | 'atOnce' | 'whyNotMany'> & {
  /** Carries one wish out and says what it is called; what it comes to is told by the rows. @throws PlanError */
  act(planner: Planner, wish: W): string
  whyNotMany?(wish: W): string | null
}

/** A kind whose wishes act one after the other, each on what the one before left. */
export function oneByOne<W extends AnyWish>(kind: OneByOne<W>): Kind<W> {
  return {
    whyNotMany: () => null,
    ...kind,
    plan(planner, wishes) {
      const own = planner.rows.length
      const titles = wishes.map(({ wish }) => kind.act(planner, wish))
      return { titles, ...planner.totals(own) }
    },
  }
}
