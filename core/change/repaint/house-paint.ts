import { z } from 'zod'
import { namedColors } from '../../document/colours'
import type { OdfDocument } from '../../document/open'
import { readRules } from '../../document/rules'
import { houseColorSchema, type House } from '../../house/house'
import { houseBefore, paintsOf, proposePaints, usedColors, type HousePalette } from '../../house/house-paints'
import { oneByOne } from '../kind'
import { NothingToPlan } from '../plan'
import { paintAll } from './kind'

/**
 * Shapes, lines, grounds and charts take the colours of a house, each document as it is proposed for it. It is asked for before
 * dressing: what colours did in the house before is known from the document.
 */
const housePaintSchema = z.strictObject({
  type: z.literal('house-paint'),
  house: z.strictObject({ name: z.string().min(1).max(120), palette: z.array(houseColorSchema).max(100) }),
})
export type HousePaintWish = z.infer<typeof housePaintSchema>

/** What such a wish takes of a house. */
export const paletteOf = ({ name, palette }: House): HousePaintWish['house'] => ({ name, palette })

const proposedFor = (document: OdfDocument, house: HousePalette) =>
  paintsOf(proposePaints(usedColors(namedColors(document)), house, houseBefore(readRules(document))))

export const housePaintKind = oneByOne<HousePaintWish>({
  type: 'house-paint',
  schema: housePaintSchema,
  most: 1,
  act(planner, { house }) {
    const title = paintAll(planner, proposedFor(planner.document, house))
    if (title === null)
      throw new NothingToPlan(
        `No colour of this document would change in the house ${house.name}. Nothing was changed.`,
      )
    return title
  },
  sentence: ({ house }) =>
    `Give shapes, lines, grounds and charts the colours of the house ${house.name} that do what theirs did, or are nearest.`,
  applies: (document, { house }) => proposedFor(document, house).length > 0,
})
