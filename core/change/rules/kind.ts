import { z } from 'zod'
import { leadInSchema, patternSchema } from '../../document/rules'
import { oneByOne } from '../kind'
import { setRules } from './plan-rules'

/** Gives a paragraph style its pattern and lead-in rules, in place of those it has. */
const rulesSchema = z.strictObject({
  type: z.literal('rules'),
  style: z.string().min(1).max(500),
  patterns: z.array(patternSchema).max(200),
  leadIns: z.array(leadInSchema).max(200),
})
export type RulesWish = z.infer<typeof rulesSchema>

const title = ({ patterns, leadIns }: RulesWish, style: string) =>
  patterns.length + leadIns.length === 0 ? `Take the rules of ${style} away` : `Set the rules of ${style}`

export const rulesKind = oneByOne<RulesWish>({
  type: 'rules',
  schema: rulesSchema,
  most: 50,
  act(planner, wish) {
    setRules(planner, wish.style, wish.patterns, wish.leadIns)
    return title(wish, planner.style('paragraph', wish.style).displayName)
  },
  sentence: (wish, titleOf = name => name) => `${title(wish, titleOf(wish.style))}.`,
})
