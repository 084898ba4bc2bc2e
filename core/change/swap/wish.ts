import { z } from 'zod'
import { lookCriteriaSchema, matchScopeSchema } from '../../census/criteria'
import { sameFamily } from '../../document/font-family'
import { slots } from '../../document/font-attributes'
import type { RowKey } from '../plan'
import { leadingModes, sizeWishSchema } from './optical-size'

const family = z.string().trim().min(1).max(200)
const style = z.string().trim().min(1).max(100)

/** One exchange: a family, or one face of it, gives way to another. */
export const swapSchema = z.strictObject({
  type: z.literal('swap'),
  from: z.strictObject({ family, style: style.optional() }),
  to: z.strictObject({ family, style: style.optional() }),
  /** Only text that answers to this; without it everything that names the font: text, defaults, masters, charts, declarations. */
  within: z
    .strictObject({
      look: lookCriteriaSchema.default({}),
      scope: matchScopeSchema.default({ kind: 'document' }),
    })
    .optional(),
  size: sizeWishSchema.optional(),
  leading: z.enum(leadingModes).optional(),
  /** Faces chosen by hand: for a face of the old family one of the new, by their style names. */
  faces: z
    .array(z.strictObject({ style, slot: z.enum(slots), to: style }))
    .max(500)
    .default([]),
  /** Fonts of signs too, though their characters are not letters. */
  symbols: z.boolean().default(false),
})
export type SwapWish = z.infer<typeof swapSchema>

/** The key of a paragraph that is spared: it keeps the old font. */
export const sparedKey = (part: string, node: number): RowKey => ({ what: 'paragraph', part, node })

/** The key of all font declarations. */
export const declarationsKey: RowKey = { what: 'declarations' }

/** A wish in a few words: “Skerrow gives way to Work Sans”. */
export function swapTitle({ from, to, within }: SwapWish): string {
  const face = (each: SwapWish['from']) => `${each.family}${each.style ? ` ${each.style}` : ''}`
  return `${face(from)} gives way to ${face(to)}${within ? ' within limits' : ''}`
}

/** Which wish a face falls under: one for that very face before one for its family. */
export function wishFor<W extends Pick<SwapWish, 'from'>>(
  wishes: readonly W[],
  face: { readonly family: string; readonly style: string },
): W | undefined {
  const own = wishes.filter(wish => sameFamily(wish.from.family, face.family))
  return (
    own.find(wish => wish.from.style !== undefined && sameFamily(wish.from.style, face.style)) ??
    own.find(wish => wish.from.style === undefined)
  )
}
