import { z } from 'zod'
import { coveredScripts } from '../font/measure/covered-scripts'
import { roles } from '../document/rules'

/*
 * What text is looked for by. An empty criterion does not matter: it is left out of the object. All that are there must
 * hold at once.
 */

const part = z.string().min(1).max(500)
const node = z.int().nonnegative()
const offset = z.int().nonnegative().max(10_000_000)
const name = z.string().min(1).max(500)
const color = z.string().regex(/^#[0-9a-f]{6}$/i)

/** From least to most, both ends included; either may be open. */
const range = z
  .strictObject({
    least: z.number().min(-10_000).max(10_000).optional(),
    most: z.number().min(-10_000).max(10_000).optional(),
  })
  .refine(value => value.least === undefined || value.most === undefined || value.least <= value.most, {
    error: 'the least is more than the most',
  })
export type Range = z.infer<typeof range>

export const places = ['body', 'frame', 'table', 'header', 'note', 'chart', 'annotation'] as const

/** How text looks, and where it stands. */
export const lookCriteriaSchema = z.strictObject({
  family: z.string().trim().min(1).max(200).optional(),
  /** A face by its style name: “SemiBold Italic”. */
  face: z.string().trim().min(1).max(100).optional(),
  status: z.enum(['present', 'alias', 'absent', 'unnamed']).optional(),
  /** Points. */
  size: range.optional(),
  /** 1 to 1000. */
  weight: range.optional(),
  italic: z.boolean().optional(),
  /** Thousandths of an em. */
  tracking: range.optional(),
  color: color.optional(),
  background: color.optional(),
  case: z.enum(['uppercase', 'lowercase', 'capitalize', 'small-caps']).optional(),
  underlined: z.boolean().optional(),
  raised: z.boolean().optional(),
  /** Names of styles, as the file has them. */
  paragraphStyle: name.optional(),
  characterStyle: name.optional(),
  role: z.enum(roles).optional(),
  /** BCP 47, or its first part alone: “en” finds en-GB, too. */
  language: z.string().trim().min(1).max(40).optional(),
  slot: z.enum(['western', 'asian', 'complex']).optional(),
  script: z.enum(coveredScripts).optional(),
  /** Whether local formatting makes it depart from its styles. */
  stray: z.boolean().optional(),
  place: z.enum(places).optional(),
})
export type LookCriteria = z.infer<typeof lookCriteriaSchema>

/** Words: as they are, or a regular expression in RE2's syntax. */
export const wordCriteriaSchema = z.strictObject({
  text: z.string().min(1).max(1000),
  expression: z.boolean().default(false),
  matchCase: z.boolean().default(false),
  wholeWords: z.boolean().default(false),
})
export type WordCriteria = z.infer<typeof wordCriteriaSchema>

/** Where is looked: said always, and never narrowed unasked. */
export const matchScopeSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('document') }),
  z.strictObject({ kind: z.literal('story'), part, node }),
  z.strictObject({
    kind: z.literal('ranges'),
    ranges: z
      .array(z.strictObject({ part, node, from: offset, to: offset }))
      .min(1)
      .max(20_000),
  }),
  /** Pages, from 0, both ends included. */
  z.strictObject({ kind: z.literal('pages'), from: z.int().min(0).max(100_000), to: z.int().min(0).max(100_000) }),
])
export type MatchScope = z.infer<typeof matchScopeSchema>

export const criteriaSchema = z.strictObject({
  words: wordCriteriaSchema.optional(),
  look: lookCriteriaSchema.default({}),
  scope: matchScopeSchema.default({ kind: 'document' }),
})
export type Criteria = z.infer<typeof criteriaSchema>

/** Whether anything is asked for at all. */
export const asksNothing = ({ words, look }: Pick<Criteria, 'words' | 'look'>): boolean =>
  words === undefined && Object.values(look).every(value => value === undefined)
