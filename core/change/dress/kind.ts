import { drawUp, needsDrawingUp } from '../draw-up/kind'
import { drawUpSchema } from '../draw-up/wish'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import { counted } from '../words'
import { dress } from './dress'
import { chartsDressed } from './dress-charts'
import { dressSchema, type DressWish } from './wish'

export const dressKind = oneByOne<DressWish>({
  type: 'dress',
  schema: dressSchema,
  most: 1,
  act(planner, wish) {
    let drawn = 0
    if (wish.drawUp && needsDrawingUp(planner.reading, planner.library)) {
      drawn = drawUp(planner, drawUpSchema.parse({ type: 'draw-up' }))
      planner.reread()
      planner.forgetAutomatic()
    }
    const own = planner.rows.length
    dress(planner, wish)
    const rows = planner.rows.slice(own).filter(row => row.key.what === 'dressed style')
    if (rows.length === 0)
      throw new NothingToPlan(
        'This document has no named styles that text goes by: draw up its styles first. Nothing was changed.',
      )
    const dressed = rows.filter(row => row.included).length
    const first = drawn > 0 ? `Draw up ${counted(drawn, 'style')}, and dress` : 'Dress'
    const what = [counted(dressed, 'style'), chartsDressed(planner, own)].filter(Boolean).join(' and ')
    return `${first} ${what} in ${wish.house.name}`
  },
  sentence: ({ house, keep }) =>
    `Set the styles of each role as the house ${house.name} says${keep.length > 0 ? `, but for ${counted(keep.length, 'role')}` : ''}.`,
  whyNotMany: ({ roles }) =>
    roles.length > 0
      ? 'What styles do was said for one document. Leave it out, or plan it there. Nothing was changed.'
      : null,
})
