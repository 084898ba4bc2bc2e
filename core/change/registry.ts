import { z } from 'zod'
import type { DocumentSession } from '../session'
import { acceptKinds, type AcceptWish, type ReopenWish } from './accept/kind'
import { chartTextKind } from './chart-text/kind'
import type { ChartTextWish } from './chart-text/wish'
import { cleanUpKind, type CleanUpWish } from './clean-up/kind'
import { defaultKinds } from './defaults/kinds'
import type { StartLikeWish, StartWish } from './defaults/wishes'
import { dressKind } from './dress/kind'
import type { DressWish } from './dress/wish'
import { drawUpKind } from './draw-up/kind'
import type { DrawUpWish } from './draw-up/wish'
import { keptFrameKind, type KeptFrameWish } from './kept-frame/kind'
import type { Kind } from './kind'
import { kernKind } from './kerning/kind'
import type { KernWish } from './kerning/wish'
import { levelsKind } from './levels/kind'
import type { LevelsWish } from './levels/wish'
import { mendKind } from './mend/kind'
import type { MendWish } from './mend/wish'
import { languageKinds, type ShowWish, type SplitWish } from './languages/kinds'
import { leftOutLimit, rowKeySchema, type AnyWish, type WishList } from './plan'
import { planChange, type Planned, type PlanOptions } from './plan-change'
import { recastKind } from './recast/kind'
import type { RecastWish } from './recast/wish'
import { housePaintKind, type HousePaintWish } from './repaint/house-paint'
import { repaintKind } from './repaint/kind'
import type { RepaintWish } from './repaint/wish'
import { repairKind } from './repair/kind'
import type { RepairWish } from './repair/wish'
import { rulesKind, type RulesWish } from './rules/kind'
import { styleKinds } from './styles/kinds'
import type { StyleWish } from './styles/wishes'
import { setTypeKind } from './set-type/kind'
import type { SetTypeWish } from './set-type/wish'
import { swapKind } from './swap/kind'
import type { SwapWish } from './swap/wish'

/** What can be wished, and how requests of such wishes are read and planned. */
export interface Registry {
  readonly kinds: readonly Kind[]
  /** What a request looks like: the door through which every one comes in. */
  readonly schema: z.ZodType<WishList>
  /** What one wish looks like. */
  readonly wishSchema: z.ZodType<AnyWish>
  /** @throws PlanError */
  plan(session: DocumentSession, request: WishList, options?: PlanOptions): Planned
  /** A request in whole sentences, before anything is known of a document. */
  sentences(request: WishList, titleOf?: (name: string) => string): string[]
  /** Why a request cannot be asked of many documents; null where it can. */
  whyNotMany(request: WishList): string | null
}

/** As many wishes are taken in one request, repairs among them. */
const wishLimit = 5_200

/** Makes the registry of some kinds. */
export function registryOf(kinds: readonly Kind[]): Registry {
  const kindOf = (wish: AnyWish) => kinds.find(kind => kind.type === wish.type)!
  type Option = z.ZodObject<{ type: z.ZodLiteral<string> }>
  const [first, ...others] = kinds.map(kind => kind.schema as unknown as Option) as [Option, ...Option[]]
  const wishSchema = z.discriminatedUnion('type', [first, ...others]) as unknown as z.ZodType<AnyWish>
  const schema = z.strictObject({
    wishes: z
      .array(wishSchema)
      .min(1)
      .max(wishLimit)
      .superRefine((wishes, context) => {
        for (const kind of kinds) {
          const count = wishes.filter(wish => wish.type === kind.type).length
          if (count > kind.most)
            context.addIssue({
              code: 'custom',
              message: `${count} wishes of the kind ${kind.type}; ${kind.most} are taken`,
            })
        }
      }),
    /** Places that keep what they have: keys of rows, groups and paragraphs. */
    leftOut: z.array(rowKeySchema).max(leftOutLimit).default([]),
  })
  return {
    kinds,
    schema: schema as unknown as z.ZodType<WishList>,
    wishSchema,
    plan: (session, request, options) => planChange(kinds, session, request, options),
    sentences: (request, titleOf) => request.wishes.map(wish => kindOf(wish).sentence(wish, titleOf)),
    whyNotMany(request) {
      for (const wish of request.wishes) {
        const reason = kindOf(wish).whyNotMany(wish)
        if (reason !== null) return reason
      }
      return request.leftOut.some(key => 'node' in key)
        ? 'Repairs and spared paragraphs belong to one document. Plan them there. Nothing was changed.'
        : null
    },
  }
}

/** A wish of any of the kinds that the desk has. */
export type Wish =
  | SwapWish
  | SetTypeWish
  | KernWish
  | RecastWish
  | RepairWish
  | MendWish
  | AcceptWish
  | ReopenWish
  | CleanUpWish
  | RulesWish
  | KeptFrameWish
  | StyleWish
  | DrawUpWish
  | DressWish
  | LevelsWish
  | StartWish
  | StartLikeWish
  | RepaintWish
  | ChartTextWish
  | HousePaintWish
  | SplitWish
  | ShowWish

/** All kinds of wish. A new one is its folder and its line here. */
export const registry = registryOf([
  swapKind,
  setTypeKind,
  kernKind,
  recastKind,
  repairKind,
  repaintKind,
  chartTextKind,
  housePaintKind,
  mendKind,
  ...acceptKinds,
  cleanUpKind,
  rulesKind,
  keptFrameKind,
  ...styleKinds,
  drawUpKind,
  dressKind,
  levelsKind,
  ...defaultKinds,
  ...languageKinds,
])
