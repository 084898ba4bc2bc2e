import { z } from 'zod'
import { roleIdSchema, startKinds } from '../../document/rules'
import { roleTitle } from '../../style/roles'
import { kindTitles } from '../../style/start-titles'
import { rangeSchema, scopeWords } from '../scope'
import { familyName, styleFamilies } from '../../style/families'

const family = z.string().trim().min(1).max(200)
const face = z.string().trim().min(1).max(100)
const part = z.string().min(1).max(500)
const node = z.int().nonnegative()

/** What a face is set on. */
export const typeTargetSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('ranges'), ranges: z.array(rangeSchema).min(1).max(20_000) }),
  z.strictObject({ kind: z.literal('frame'), part, node }),
  z.strictObject({
    kind: z.literal('style'),
    family: z.enum(styleFamilies),
    name: z.string().min(1).max(500),
  }),
  /** All named paragraph styles that do one thing: body, heading … */
  z.strictObject({ kind: z.literal('role'), role: roleIdSchema }),
  /** All text in a family, wherever it stands. */
  z.strictObject({ kind: z.literal('family'), family }),
  z.strictObject({ kind: z.literal('default'), start: z.enum(startKinds) }),
])
export type TypeTarget = z.infer<typeof typeTargetSchema>

/** Sets a face on something, at the size that is there or as large as it looked. */
export const setTypeSchema = z.strictObject({
  type: z.literal('set-type'),
  to: z.strictObject({ family, face: face.optional() }),
  on: typeTargetSchema,
  /** `equal` gives the size at which small letters are as high as before. */
  size: z.enum(['keep', 'equal']).default('keep'),
})
export type SetTypeWish = z.infer<typeof setTypeSchema>

/** What a face is set on, in words. */
export function targetWords(on: TypeTarget, titleOf: (name: string) => string = name => name): string {
  switch (on.kind) {
    case 'ranges':
      return 'the selected text'
    case 'frame':
      return 'one frame'
    case 'style':
      return `the ${familyName(on.family)} ${titleOf(on.name)}`
    case 'role':
      return `all ${roleTitle(on.role)} styles`
    case 'family':
      return `all text in ${on.family}`
    case 'default':
      return `what ${kindTitles[on.start].toLowerCase()} begins with`
  }
}

/** The wish in a few words. */
export function setTypeTitle({ to, on, size }: SetTypeWish, titleOf?: (name: string) => string): string {
  const face = to.face === undefined ? to.family : `${to.family} ${to.face}`
  return `Set ${face} on ${targetWords(on, titleOf)}${size === 'equal' ? ', as large as before' : ''}`
}

/** Why a target is about one document alone; null where it can be asked of many. */
export const boundTarget = (on: TypeTarget): string | null =>
  on.kind === 'ranges' || on.kind === 'frame'
    ? `What is set ${scopeWords(on)} belongs to one document. Plan it there. Nothing was changed.`
    : null
