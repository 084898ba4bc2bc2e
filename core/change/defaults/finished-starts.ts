import { z } from 'zod'

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

/** Whose defaults they are, the strongest first. */
export interface FinishedStartLevels {
  readonly document: FinishedStarts
  readonly folder: FinishedStarts
  readonly desk: FinishedStarts
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
export const finishedStartOf = ({ document, folder, desk }: FinishedStartLevels): Required<FinishedStarts> => ({
  ...usualFinishedStart,
  ...desk,
  ...folder,
  ...document,
})
