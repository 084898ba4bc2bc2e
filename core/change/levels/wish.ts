import { z } from 'zod'
import { settingSchema } from '../../house/house'

const placeholder = z.enum(['title', 'subtitle', 'outline', 'notes'])
export type Placeholder = z.infer<typeof placeholder>

/** How text of one placeholder, on one outline level, shall be set. */
const levelSchema = z.strictObject({
  placeholder,
  /** 1 and up; 1 for all but outlines. */
  level: z.int().min(1).max(9).default(1),
  /** Colours are those of the document; what is not said stays. */
  setting: settingSchema.omit({ color: true }),
})
export type LevelSetting = z.infer<typeof levelSchema>

/** Sets the placeholders of a deck anew, all levels at once: of one master, or of all. Loose frames stay as they are. */
export const levelsSchema = z.strictObject({
  type: z.literal('levels'),
  /** What the styles of the master begin with; null for all masters. */
  master: z.string().min(1).max(500).nullable().default(null),
  levels: z.array(levelSchema).min(1).max(40),
})
export type LevelsWish = z.infer<typeof levelsSchema>
