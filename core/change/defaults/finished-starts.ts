import { z } from 'zod'
import type { House } from '../../house/house'

/**
 * What text begins with that is added to finished PDFs: each value may be left to whoever is asked next (the document,
 * then its folder, then the desk). Sizes and leading in points; no leading is the face's own.
 */
export const finishedStartsSchema = z.strictObject({
  family: z.string().trim().min(1).max(200).optional(),
  size: z.number().min(1).max(2000).optional(),
  leading: z.number().min(1).max(5000).nullable().optional(),
  weight: z.int().min(100).max(900).optional(),
  italic: z.boolean().optional(),
  color: z
    .string()
    .regex(/^#[0-9a-f]{6}$/i)
    .optional(),
})
export type FinishedStarts = z.infer<typeof finishedStartsSchema>

/** Who says what added text begins with, the strongest first. */
export const finishedStartLevels = ['document', 'folder', 'desk'] as const
export type FinishedStartLevel = (typeof finishedStartLevels)[number]

/** What each of them says, and what the house says that the file is linked to. */
export interface FinishedStartLevels extends Readonly<Record<FinishedStartLevel, FinishedStarts>> {
  readonly house: FinishedStarts
}

/** What holds where nobody has said anything. */
export const usualFinishedStart: Required<FinishedStarts> = {
  family: 'Liberation Sans',
  size: 11,
  leading: null,
  weight: 400,
  italic: false,
  color: '#000000',
}

/** What holds for a document, value by value. */
export const finishedStartOf = ({ document, folder, desk, house }: FinishedStartLevels): Required<FinishedStarts> => ({
  ...usualFinishedStart,
  ...house,
  ...desk,
  ...folder,
  ...document,
})

/** What a house has added text begin with: its text for reading, in points and colours as that role has them. */
export function finishedStartOfHouse(house: House): FinishedStarts {
  const id = house.defaults.body ?? 'body'
  const text = house.roles.find(each => each.id === id)?.text
  if (!text) return {}
  const color = house.palette.find(each => each.id === text.color)?.color
  const leading =
    text.leading?.unit === 'points'
      ? text.leading.value
      : text.leading?.unit === 'percent' && text.size !== undefined
        ? Math.round(text.size * text.leading.value) / 100
        : undefined
  return finishedStartsSchema.parse({
    family: text.family,
    size: text.size,
    leading,
    weight: text.weight,
    italic: text.italic,
    color,
  })
}
