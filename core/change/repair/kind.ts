import { oneByOne } from '../kind'
import { applyRepair, repairTitle } from './repairs'
import { repairWishSchema, type RepairWish } from './wish'

export const repairKind = oneByOne<RepairWish>({
  type: 'repair',
  schema: repairWishSchema,
  most: 5000,
  act(planner, { repair }) {
    if (!applyRepair(planner, repair)) planner.note('a repair', 'its place is no longer in the document')
    return 'mend what does not fit'
  },
  sentence: ({ repair }) => `Repair a ${repair.kind === 'height' ? 'frame' : 'place'} by ${repairTitle(repair)}.`,
  whyNotMany: () => 'Repairs and spared paragraphs belong to one document. Plan them there. Nothing was changed.',
})
