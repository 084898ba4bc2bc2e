import { z } from 'zod'
import { leadInSchema, patternSchema, startKinds } from '../../document/rules'
import { attribute, displayName, font, styleChangesSchema, value } from './style-changes'
import { setPieceSchema } from './set-piece'
import { groupIds } from '../../style/groups'

const name = z.string().min(1).max(500)
const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)
const family = z.enum(['paragraph', 'text'])
const group = z.enum(groupIds)

export const rangeSchema = z.strictObject({ part, node, from: offset, to: offset })

/** Which text a wish is about. */
export const textScopeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('document') }),
  /** The whole text that a paragraph stands in: a body with its frames, a header, a page. */
  z.strictObject({ kind: z.literal('story'), part, node }),
  z.strictObject({ kind: z.literal('style'), family, name }),
  /** All text of a voice of the census. */
  z.strictObject({ kind: z.literal('voice'), key: z.string().max(600) }),
  /** Everything in a frame or shape, and what is written into it later. */
  z.strictObject({ kind: z.literal('frame'), part, node }),
  /** All text frames and shapes that follow no placeholder of a master. */
  z.strictObject({ kind: z.literal('loose-frames') }),
  z.strictObject({ kind: z.literal('ranges'), ranges: z.array(rangeSchema).min(1).max(20_000) }),
])
export type TextScope = z.infer<typeof textScopeSchema>

/** What new text begins with. */
export const startValuesSchema = z.strictObject({
  fonts: z.strictObject({ western: font.optional(), asian: font.optional(), complex: font.optional() }).optional(),
  text: z.record(attribute, value).optional(),
  paragraph: z.record(attribute, value).optional(),
  /** Of frames: how far text keeps off the edges, in points, and their fill; null for none. */
  inset: z.number().min(0).max(500).optional(),
  fill: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .nullable()
    .optional(),
})
export type StartValues = z.infer<typeof startValuesSchema>

const strays = z.enum(['keep', 'settle'])
const keep = z.array(group).max(20).default([])

export const styleWishSchema = z.discriminatedUnion('type', [
  /** Takes local formatting away: of some groups of properties, or of them only what changes nothing. */
  z.strictObject({
    type: z.literal('settle'),
    scope: textScopeSchema,
    groups: z.array(group).min(1).max(20),
    keep,
    idleOnly: z.boolean().default(false),
  }),
  z.strictObject({
    type: z.literal('apply'),
    style: z.strictObject({ family, name: name.nullable() }),
    scope: textScopeSchema,
    strays,
    keep,
  }),
  /** Makes a style from how text looks, and gives it to that text. */
  z.strictObject({ type: z.literal('adopt'), family, displayName, scope: textScopeSchema }),
  /** Makes the style of some text take over what the text looks like. */
  z.strictObject({ type: z.literal('teach'), scope: textScopeSchema }),
  z.strictObject({ type: z.literal('edit'), family, name, changes: styleChangesSchema }),
  z.strictObject({ type: z.literal('make'), family, displayName, changes: styleChangesSchema }),
  /** Replaces a style by another everywhere, or by none, and drops it. */
  z.strictObject({ type: z.literal('fold'), family, from: name, to: name.nullable() }),
  /** Gives a paragraph style its pattern and lead-in rules, in place of those it has. */
  z.strictObject({
    type: z.literal('rules'),
    style: name,
    patterns: z.array(patternSchema).max(200),
    leadIns: z.array(leadInSchema).max(200),
  }),
  /** Sets what new text of a kind begins with; what is there keeps its look. */
  z.strictObject({ type: z.literal('start'), kind: z.enum(startKinds), values: startValuesSchema }),
  /** The same by example: what the text at a place looks like. */
  z.strictObject({ type: z.literal('start-like'), kind: z.enum(startKinds), part, node, offset }),
  /** Takes text of a language or character style out of its frames, into frames of its own. */
  z.strictObject({
    type: z.literal('split'),
    apart: z.discriminatedUnion('kind', [
      z.strictObject({ kind: z.literal('language'), language: z.string().max(40) }),
      z.strictObject({ kind: z.literal('style'), name }),
    ]),
  }),
  /** Hides text in other languages than one; with null all is shown again. */
  z.strictObject({ type: z.literal('show'), language: z.string().min(1).max(40).nullable() }),
  /** Puts a set piece on a page or at a paragraph. */
  z.strictObject({
    type: z.literal('piece'),
    part,
    node,
    x: z.number().min(-20_000).max(20_000),
    y: z.number().min(-20_000).max(20_000),
    withText: z.boolean(),
    piece: setPieceSchema,
  }),
  /** Makes one voice speak as another: strays go, or the styles that say otherwise take the other's values. */
  z.strictObject({ type: z.literal('fold-voice'), from: z.string().max(600), to: z.string().max(600) }),
])
export type StyleWish = z.infer<typeof styleWishSchema>

export const styleRequestSchema = z.strictObject({
  wishes: z.array(styleWishSchema).min(1).max(50),
  /** Ids of rows that are struck: their places stay as they are. */
  struck: z.array(z.string().max(400)).max(5000).default([]),
})
export type StyleRequest = z.infer<typeof styleRequestSchema>
