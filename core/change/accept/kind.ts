import { z } from 'zod'
import { acceptedKeySchema, acceptedLimit, type AcceptedKey } from '../../document/rules'
import { oneByOne, type Kind } from '../kind'
import { PlanError } from '../plan'
import { counted } from '../words'

const findings = z.array(acceptedKeySchema).min(1).max(acceptedLimit)

/** What a proof found is accepted as it is, with a reason, until its place changes. */
export const acceptSchema = z.strictObject({
  type: z.literal('accept'),
  findings,
  reason: z.string().trim().min(1).max(500),
})
export type AcceptWish = z.infer<typeof acceptSchema>

/** What was accepted is told again. */
export const reopenSchema = z.strictObject({ type: z.literal('reopen'), findings })
export type ReopenWish = z.infer<typeof reopenSchema>

const same = (one: AcceptedKey, other: AcceptedKey): boolean =>
  one.check === other.check && one.says === other.says && one.text === other.text && one.around === other.around
const rowOf = ({ check, says, text }: AcceptedKey, before: string, after: string) => ({
  key: { what: 'accepted', check, says, text: text.slice(0, 200) },
  stage: 'accepted',
  title: says,
  before: text === '' ? before : `${before}: “${text.slice(0, 60)}”`,
  after,
})
const whyNotMany = () => 'What is accepted belongs to one document. Accept it there. Nothing was changed.'

export const acceptKind = oneByOne<AcceptWish>({
  type: 'accept',
  schema: acceptSchema,
  most: 20,
  act(planner, { findings: wanted, reason }) {
    const rules = planner.currentRules
    const others = rules.accepted.filter(each => !wanted.some(key => same(each, key)))
    if (others.length + wanted.length > acceptedLimit)
      throw new PlanError(`A document keeps ${acceptedLimit} accepted findings at most. Nothing was changed.`)
    planner.rules = { ...rules, accepted: [...others, ...wanted.map(key => ({ ...key, reason }))] }
    for (const key of wanted) planner.row(rowOf(key, 'told', `accepted: ${reason}`))
    return `Accept ${counted(wanted.length, 'finding')}`
  },
  sentence: ({ findings: wanted, reason }) => `Accept ${counted(wanted.length, 'finding')}: ${reason}.`,
  whyNotMany,
})

export const reopenKind = oneByOne<ReopenWish>({
  type: 'reopen',
  schema: reopenSchema,
  most: 20,
  act(planner, { findings: wanted }) {
    const rules = planner.currentRules
    const gone = rules.accepted.filter(each => wanted.some(key => same(each, key)))
    planner.rules = { ...rules, accepted: rules.accepted.filter(each => !gone.includes(each)) }
    for (const key of gone) planner.row(rowOf(key, `accepted: ${key.reason}`, 'told again'))
    return `Tell ${counted(gone.length, 'accepted finding')} again`
  },
  sentence: ({ findings: wanted }) => `Tell ${counted(wanted.length, 'accepted finding')} again.`,
  whyNotMany,
})

export const acceptKinds: readonly Kind[] = [acceptKind, reopenKind]
