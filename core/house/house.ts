import { z } from 'zod'
import { roleIdSchema, roles, rulesSchema, startKinds, type Role } from '../document/rules'
import { standInScripts } from '../font/library'
import { licenceUses } from '../font/licence'
import { setPieceSchema } from '../style/set-piece'
import { checksSchema } from './checks'

/*
 * A house style as data: what text ought to look like, by what it does. Anything may be left open. Lengths are points,
 * tracking is thousandths of an em.
 */

export const media = ['text', 'deck', 'sheet'] as const
/** What a document is: a text that reads on, a deck of slides, or a sheet with things placed on it. */
export type Medium = (typeof media)[number]

const colorId = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/)
const family = z.string().trim().min(1).max(200)
const length = z.number().min(0).max(1000)

export const leadingUnits = ['points', 'percent', 'own'] as const
/**
 * Leading: baseline to baseline in points, in percent of the size, or in percent of the face's own leading, which hangs on
 * the face.
 */
const leadingSchema = z.strictObject({ value: z.number().min(1).max(1000), unit: z.enum(leadingUnits) })

/** The face of another script, and how much larger or smaller it is set so that both look alike. */
const scriptSchema = z.strictObject({ family, factor: z.number().min(0.3).max(3).default(1) })

/** How text of a role is set in a medium. What is not there is left open: documents keep what they have. */
export const settingSchema = z.strictObject({
  family: family.optional(),
  weight: z.int().min(1).max(1000).optional(),
  italic: z.boolean().optional(),
  size: z.number().min(1).max(400).optional(),
  leading: leadingSchema.optional(),
  tracking: z.number().min(-500).max(1000).optional(),
  case: z.enum(['none', 'uppercase', 'lowercase', 'small-caps']).optional(),
  /** A colour of the palette. */
  color: colorId.optional(),
  before: length.optional(),
  after: length.optional(),
  align: z.enum(['start', 'center', 'end', 'justify']).optional(),
  hyphenate: z.boolean().optional(),
  scripts: z.strictObject({ asian: scriptSchema.optional(), complex: scriptSchema.optional() }).optional(),
})
export type Setting = z.infer<typeof settingSchema>

export const houseRoleSchema = z.strictObject({
  id: roleIdSchema,
  /** What it is called; styles of documents may take the name over. */
  title: z.string().trim().min(1).max(100),
  text: settingSchema.default({}),
  /** What differs in decks, and on sheets. */
  deck: settingSchema.default({}),
  sheet: settingSchema.default({}),
  /** In decks: what differs on the second outline level and below. */
  levels: z.array(settingSchema).max(8).default([]),
})
export type HouseRole = z.infer<typeof houseRoleSchema>

export const colorDuties = ['ground', 'text', 'quiet', 'accent', 'warning', 'series'] as const
/** What a colour does. */
export type ColorDuty = (typeof colorDuties)[number]

/** Ink values that a colour is printed with: shares of the process inks in percent, or a named spot. */
export const inkSchema = z.union([
  z.strictObject({ process: z.tuple([length, length, length, length]) }),
  z.strictObject({ spot: z.string().trim().min(1).max(100) }),
])
export type Ink = z.infer<typeof inkSchema>

export const houseColorSchema = z.strictObject({
  id: colorId,
  title: z.string().trim().min(1).max(100),
  does: z.enum(colorDuties),
  color: z.string().regex(/^#[0-9a-f]{6}$/),
  ink: inkSchema.optional(),
})
export type HouseColor = z.infer<typeof houseColorSchema>

export const limitsSchema = z.strictObject({
  smallest: z.partialRecord(z.enum(media), z.number().min(1).max(200)).default({}),
  families: z.int().min(1).max(50).optional(),
  contrast: z.number().min(1).max(21).optional(),
  deepestLevel: z.int().min(1).max(9).optional(),
  wordsPerSlide: z.int().min(1).max(2000).optional(),
  /** Letters in a line. */
  measure: z.strictObject({ least: z.int().min(1).max(500), most: z.int().min(1).max(500) }).optional(),
})

/** The room a deck is shown in: height of the screen and distance of the last row, in metres. */
export const roomSchema = z.strictObject({
  screenHeight: z.number().min(0.1).max(30),
  lastRow: z.number().min(0.5).max(200),
})
export type Room = z.infer<typeof roomSchema>

export const houseFrameSchema = z.strictObject({ name: z.string().trim().min(1).max(200), piece: setPieceSchema })
/** As many characters do the frames of a house hold together: a house goes wherever its documents do. */
const framesLimit = 2_000_000
/** A kept frame of a house. */
export type HouseFrame = z.infer<typeof houseFrameSchema>

const most = <T extends z.ZodType>(what: T, count: number) => z.array(what).max(count).default([])

export const houseSchema = z
  .strictObject({
    name: z.string().trim().min(1).max(120),
    note: z.string().max(2000).default(''),
    roles: most(houseRoleSchema, 60),
    palette: most(houseColorSchema, 100),
    /** Families that may be used, and for what; empty where the house says nothing of it. */
    faces: most(
      z.strictObject({ family, uses: z.array(z.enum(licenceUses)).max(licenceUses.length).default([]) }),
      200,
    ),
    limits: limitsSchema.default({ smallest: {} }),
    /** Which role new text begins in, by the kind of thing it stands in. */
    defaults: z.partialRecord(z.enum(startKinds), roleIdSchema).default({}),
    /** Who stands in for what is absent in its documents: for a family, or with '' for all, in a script or in any. */
    standIns: most(z.strictObject({ family: z.string().max(200), script: z.enum(standInScripts), to: family }), 200),
    kerning: rulesSchema.shape.kerning,
    /** Frames that its documents are made with: boxes, notes, labels. */
    frames: most(houseFrameSchema, 60),
    room: roomSchema.optional(),
    /** Which checks proofs of its documents run; left open where it is not there: the desk says. */
    checks: checksSchema.optional(),
  })
  .superRefine((house, context) => {
    const once = (ids: readonly string[], what: string) => {
      const twice = ids.find((id, at) => ids.indexOf(id) !== at)
      if (twice !== undefined) context.addIssue({ code: 'custom', message: `the ${what} “${twice}” is there twice` })
    }
    once(
      house.roles.map(role => role.id),
      'role',
    )
    once(
      house.palette.map(color => color.id),
      'colour',
    )
    once(
      house.frames.map(frame => frame.name),
      'frame',
    )
    const size = house.frames.reduce((sum, { piece }) => sum + JSON.stringify(piece).length, 0)
    if (size > framesLimit)
      context.addIssue({ code: 'custom', message: 'its frames hold more than two million characters together' })
    const colors = new Set(house.palette.map(color => color.id))
    for (const role of house.roles)
      for (const { color } of settingsOf(role))
        if (color !== undefined && !colors.has(color))
          context.addIssue({
            code: 'custom',
            message: `the role “${role.title}” has a colour “${color}” that is not in the palette`,
          })
  })
/** A house style. */
export type House = z.infer<typeof houseSchema>

/** All settings of a role, of whatever medium and level. */
export const settingsOf = ({ text, deck, sheet, levels }: HouseRole): readonly Setting[] => [
  text,
  deck,
  sheet,
  ...levels,
]

const titles: Readonly<Record<Role, string>> = {
  display: 'Title',
  heading: 'Heading',
  subheading: 'Subheading',
  lead: 'Intro',
  body: 'Body',
  caption: 'Caption',
  label: 'Label',
  data: 'Figures',
  note: 'Note',
  code: 'Code',
}

/** A role that every desk knows, open in all media. */
const openRole = (id: Role): HouseRole => houseRoleSchema.parse({ id, title: titles[id] })

/** The roles that every desk knows and a house does not have. */
export const rolesWithout = (house: Pick<House, 'roles'>): HouseRole[] =>
  roles.filter(id => !house.roles.some(role => role.id === id)).map(openRole)

/** A house that says nothing yet: the roles that every desk knows, all open. Few houses have code to set: it is added. */
export function emptyHouse(name: string): House {
  return houseSchema.parse({ name, roles: roles.filter(id => id !== 'code').map(openRole) })
}

/** How text of a role is set in a medium, and in decks on an outline level (1 and up); null for a role it does not have. */
export function settingFor(house: House, role: string, medium: Medium, level = 1): Setting | null {
  const own = house.roles.find(each => each.id === role)
  if (!own) return null
  const deeper = medium === 'deck' ? own.levels.slice(0, Math.max(level - 1, 0)) : []
  return Object.assign({}, own.text, medium === 'text' ? {} : own[medium], ...deeper) as Setting
}

/** The value of a colour of the palette; null for none. */
export const colorOf = (house: House, id: string | undefined): string | null =>
  house.palette.find(color => color.id === id)?.color ?? null

/** What a document is by its kind in OpenDocument. */
export const mediumOf = (kind: string): Medium =>
  kind === 'presentation' ? 'deck' : kind === 'text' ? 'text' : 'sheet'
