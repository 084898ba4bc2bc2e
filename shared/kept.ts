import { z } from 'zod'
import { setPieceSchema } from '../core/style/set-piece'
import { registry } from '../core/change/registry'
import { heldLicenceSchema } from '../core/font/held-licence'
import { judgementSchema } from '../core/font/judgement'
import { paletteSchema } from '../core/house/palette'
import { checklistSchema } from '../core/proof/checklist'
import { keptPairSchema } from '../core/pairing/kept-pair'

/** A sort of thing that is kept under a name, and a heading where people sort it: what it holds, and how many there may be. */
export interface KeptSort<S extends z.ZodType = z.ZodType> {
  readonly data: S
  readonly most: number
  /** What several of them are called. */
  readonly called: string
  /** One of a name: what comes under it anew takes the place of what is there. */
  readonly oneOfName: boolean
  /** Why something is not kept; null where it is. */
  readonly refuses: (data: z.infer<S>) => string | null
}
const sort = <S extends z.ZodType>(
  data: S,
  most: number,
  called: string,
  more: Partial<Pick<KeptSort<S>, 'oneOfName' | 'refuses'>> = {},
): KeptSort<S> => ({ data, most, called, oneOfName: false, refuses: () => null, ...more })

/** Everything that is kept beside documents. A new sort is its line here. */
export const keptSorts = {
  wish: sort(registry.schema, 500, 'wishes', { oneOfName: true, refuses: request => registry.whyNotMany(request) }),
  frame: sort(setPieceSchema, 1000, 'frames'),
  pair: sort(keptPairSchema, 2000, 'pairs'),
  palette: sort(paletteSchema, 1000, 'palettes'),
  /** What proofs of the desk look for: the one of its name holds. */
  checklist: sort(checklistSchema, 200, 'checklists', { oneOfName: true }),
  licence: sort(heldLicenceSchema, 2000, 'licences'),
  judgement: sort(judgementSchema, 5000, 'judgements', { oneOfName: true }),
  /** Which lists of faces are switched on: for the desk, or for the folder whose id is the name. */
  'sets on': sort(z.array(z.uuid()).max(100), 5000, 'choices of sets', { oneOfName: true }),
  'face list': sort(z.array(z.string().trim().min(1).max(200)).min(1).max(2000), 500, 'lists of faces', {
    oneOfName: true,
  }),
} as const
export type KeptKind = keyof typeof keptSorts
export const keptKindSchema = z.enum(Object.keys(keptSorts) as [KeptKind, ...KeptKind[]])
export type KeptData<K extends KeptKind> = z.infer<(typeof keptSorts)[K]['data']>

/** Something that is kept. */
export interface Kept<K extends KeptKind = KeptKind> {
  readonly id: string
  /** '' where it stands under none. */
  readonly heading: string
  readonly name: string
  readonly data: KeptData<K>
}

export const headingSchema = z.string().trim().max(120)
export const keptNameSchema = z.string().trim().min(1).max(200)
