import { z } from 'zod'
import { meantGroups, groupIds, typeGroups } from '../../style/groups'
import { textScopeSchema } from '../scope'
import { styleFamilies, textFamilies } from '../../style/families'
import { displayName, styleChangesSchema } from '../../style/style-changes'

/* What can be asked of styles. */

const name = z.string().min(1).max(500)
const family = z.enum(textFamilies)
const group = z.enum(groupIds)
const strays = z.enum(['keep', 'settle'])
const keep = z.array(group).max(20).default([])

/** Takes local formatting away: of some groups of properties, or of them only what changes nothing. */
export const settleSchema = z.strictObject({
  type: z.literal('settle'),
  scope: textScopeSchema,
  groups: z.array(group).min(1).max(20),
  keep,
  idleOnly: z.boolean().default(false),
})
export type SettleWish = z.infer<typeof settleSchema>

/** Gives text a style, or takes its character style away. */
export const applySchema = z.strictObject({
  type: z.literal('apply'),
  style: z.strictObject({ family, name: name.nullable() }),
  scope: textScopeSchema,
  strays,
  keep,
})
export type ApplyWish = z.infer<typeof applySchema>

/** Makes a style from how text looks, and gives it to that text. */
export const adoptSchema = z.strictObject({ type: z.literal('adopt'), family, displayName, scope: textScopeSchema })
export type AdoptWish = z.infer<typeof adoptSchema>

/** Makes the style of some text take over what the text looks like. */
export const teachSchema = z.strictObject({ type: z.literal('teach'), scope: textScopeSchema })
export type TeachWish = z.infer<typeof teachSchema>

export const editSchema = z.strictObject({
  type: z.literal('edit'),
  family: z.enum(styleFamilies),
  name,
  changes: styleChangesSchema,
})
export type EditWish = z.infer<typeof editSchema>

export const makeSchema = z.strictObject({ type: z.literal('make'), family, displayName, changes: styleChangesSchema })
export type MakeWish = z.infer<typeof makeSchema>

/** Replaces a style by another everywhere, or by none, and drops it. */
export const foldSchema = z.strictObject({ type: z.literal('fold'), family, from: name, to: name.nullable() })
export type FoldWish = z.infer<typeof foldSchema>

/** Makes one voice speak as another: strays go, or the styles that say otherwise take the other's values. */
export const foldVoiceSchema = z.strictObject({
  type: z.literal('fold-voice'),
  from: z.string().max(2_000),
  to: z.string().max(2_000),
})
export type FoldVoiceWish = z.infer<typeof foldVoiceSchema>

export type StyleWish = SettleWish | ApplyWish | AdoptWish | TeachWish | EditWish | MakeWish | FoldWish | FoldVoiceWish

/** Everything settled that can be, with what is meant kept: the wish that most plans begin with. */
export const settleAll: SettleWish = {
  type: 'settle',
  scope: { kind: 'document' },
  groups: [...typeGroups],
  keep: [...meantGroups],
  idleOnly: false,
}
