import { z } from 'zod'
import { sameFamily } from '../document/font-family'
import { typeClasses, typeKinds, type Classed, type TypeClass } from './classify'

/** What somebody says a family is, whatever was worked out of its measures. */
export const judgementSchema = z
  .strictObject({
    family: z.string().trim().min(1).max(200),
    class: z.enum(typeClasses),
    kind: z.string().min(1).max(60),
  })
  .refine(each => (typeKinds[each.class] as readonly string[]).includes(each.kind), {
    error: 'a class has kinds of its own',
  })
export type Judgement = z.infer<typeof judgementSchema>

/** The kinds of a class. */
export const kindsOf = (of: TypeClass): readonly string[] => typeKinds[of]

/** A family's class: as somebody judged it, else as it was worked out. */
export function judged(family: string, worked: Classed, all: readonly Judgement[]): Classed {
  const own = all.find(each => sameFamily(each.family, family))
  return own
    ? { ...worked, class: own.class, kind: own.kind as Classed['kind'], margin: 1, reasons: ['judged by hand'] }
    : worked
}
