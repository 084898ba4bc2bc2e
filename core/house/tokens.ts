import { z } from 'zod'
import { houseSchema, media, settingSchema, type House, type HouseRole, type Medium, type Setting } from './house'

/*
 * Houses as design tokens (Design Tokens Community Group, Format Module 2025.10): colours as `color` in sRGB, dimensions
 * in px (a point is 4/3 px, CSS Values 4, 6.2), how text is set as `typography`, which colour a role has as an alias.
 * What tokens have no type for stands under one extension.
 */

/** Why a file of tokens is no house. */
export class HouseFileError extends Error {}

const extension = 'morphene.house'

const round = (value: number, digits: number) => Math.round(value * 10 ** digits) / 10 ** digits
const px = (points: number) => ({ value: round((points * 4) / 3, 4), unit: 'px' })
const fromDimension = ({ value, unit }: { value: number; unit: 'px' | 'rem' }) =>
  round((value * (unit === 'rem' ? 16 : 1) * 3) / 4, 3)

/** Components of “#rrggbb” between 0 and 1, as a color token has them. */
const components = (color: string): number[] =>
  [1, 3, 5].map(at => round(Number.parseInt(color.slice(at, at + 2), 16) / 255, 5))
const hexOf = (parts: readonly number[]) =>
  `#${parts
    .map(part =>
      Math.round(Math.min(Math.max(part, 0), 1) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`

/** A setting as tokens; what is open has none. A whole one is a typography token, a part of one its single values. */
function settingTokens(setting: Setting): Record<string, unknown> {
  const { family, size, weight, tracking, leading, before, after, color } = setting
  const tokens: Record<string, unknown> = {}
  if (
    family !== undefined &&
    size !== undefined &&
    weight !== undefined &&
    tracking !== undefined &&
    leading !== undefined &&
    leading.unit !== 'own'
  )
    tokens.type = {
      $type: 'typography',
      $value: {
        fontFamily: family,
        fontSize: px(size),
        fontWeight: weight,
        letterSpacing: px((tracking / 1000) * size),
        lineHeight: round(leading.unit === 'percent' ? leading.value / 100 : leading.value / size, 6),
      },
    }
  else {
    if (family !== undefined) tokens.family = { $type: 'fontFamily', $value: family }
    if (size !== undefined) tokens.size = { $type: 'dimension', $value: px(size) }
    if (weight !== undefined) tokens.weight = { $type: 'fontWeight', $value: weight }
    if (leading !== undefined && leading.unit !== 'own')
      tokens.leading =
        leading.unit === 'percent'
          ? { $type: 'number', $value: round(leading.value / 100, 6) }
          : { $type: 'dimension', $value: px(leading.value) }
    if (tracking !== undefined) tokens.tracking = { $type: 'number', $value: tracking }
  }
  if (before !== undefined) tokens.before = { $type: 'dimension', $value: px(before) }
  if (after !== undefined) tokens.after = { $type: 'dimension', $value: px(after) }
  if (color !== undefined) tokens.color = { $type: 'color', $value: `{palette.${color}}` }
  return tokens
}

/** A house as a file of tokens. */
export function houseToTokens(house: House): string {
  const roleTokens = (role: HouseRole) => ({
    $description: role.title,
    ...Object.fromEntries(
      media.flatMap(medium => {
        const tokens = settingTokens(role[medium])
        return Object.keys(tokens).length === 0 ? [] : [[medium, tokens]]
      }),
    ),
    ...Object.fromEntries(
      role.levels.flatMap((level, at) => {
        const tokens = settingTokens(level)
        return Object.keys(tokens).length === 0 ? [] : [[`level-${at + 2}`, tokens]]
      }),
    ),
  })
  return `${JSON.stringify(
    {
      $description: house.name,
      palette: Object.fromEntries(
        house.palette.map(({ id, title, color }) => [
          id,
          {
            $type: 'color',
            $description: title,
            $value: { colorSpace: 'srgb', components: components(color), hex: color },
          },
        ]),
      ),
      role: Object.fromEntries(house.roles.map(role => [role.id, roleTokens(role)])),
      $extensions: { [extension]: house },
    },
    null,
    2,
  )}\n`
}

const colorToken = z.object({
  $description: z.string().optional(),
  $value: z.object({ colorSpace: z.literal('srgb'), components: z.array(z.number()).length(3) }),
})
const dimension = z.object({ $value: z.object({ value: z.number(), unit: z.enum(['px', 'rem']) }) })
const familyValue = z.union([z.string(), z.array(z.string()).min(1)])
const number = z.object({ $value: z.number() })
const named: Readonly<Record<string, number>> = {
  thin: 100,
  light: 300,
  normal: 400,
  regular: 400,
  medium: 500,
  bold: 700,
  black: 900,
}
const weightValue = z.union([z.number(), z.string()])
const settingTokensSchema = z.object({
  type: z
    .object({
      $value: z.object({
        fontFamily: familyValue,
        fontSize: dimension.shape.$value,
        fontWeight: weightValue,
        letterSpacing: dimension.shape.$value,
        lineHeight: z.number(),
      }),
    })
    .optional(),
  family: z.object({ $value: familyValue }).optional(),
  size: dimension.optional(),
  weight: z.object({ $value: weightValue }).optional(),
  leading: z.union([number, dimension]).optional(),
  tracking: number.optional(),
  before: dimension.optional(),
  after: dimension.optional(),
  color: z.object({ $value: z.string() }).optional(),
})

const firstFamily = (value: z.infer<typeof familyValue>) => (typeof value === 'string' ? value : value[0]!)
const weightOf = (value: z.infer<typeof weightValue>) => (typeof value === 'number' ? value : (named[value] ?? 400))

/** What tokens say of a setting; undefined where they say nothing that is known. */
function readSetting(value: unknown): Setting | undefined {
  const read = settingTokensSchema.safeParse(value).data
  if (!read) return undefined
  const { type, family, size, weight, leading, tracking, before, after, color } = read
  const setting: Record<string, unknown> = {}
  if (type) {
    const { fontFamily, fontSize, fontWeight, letterSpacing, lineHeight } = type.$value
    const points = fromDimension(fontSize)
    Object.assign(setting, {
      family: firstFamily(fontFamily),
      size: points,
      weight: weightOf(fontWeight),
      tracking: points > 0 ? round((fromDimension(letterSpacing) / points) * 1000, 1) : 0,
      leading: { value: round(lineHeight * 100, 3), unit: 'percent' },
    })
  }
  if (family) setting.family = firstFamily(family.$value)
  if (size) setting.size = fromDimension(size.$value)
  if (weight) setting.weight = weightOf(weight.$value)
  if (tracking) setting.tracking = tracking.$value
  if (leading)
    setting.leading =
      typeof leading.$value === 'number'
        ? { value: round(leading.$value * 100, 3), unit: 'percent' }
        : { value: fromDimension(leading.$value), unit: 'points' }
  if (before) setting.before = fromDimension(before.$value)
  if (after) setting.after = fromDimension(after.$value)
  const alias = /^\{palette\.([a-z][a-z0-9-]*)\}$/.exec(color?.$value ?? '')
  if (alias) setting.color = alias[1]
  return settingSchema.safeParse(setting).data
}

const fileSchema = z.object({
  $description: z.string().trim().min(1).max(120).optional(),
  palette: z.record(z.string(), z.unknown()).default({}),
  role: z.record(z.string(), z.unknown()).default({}),
  $extensions: z.record(z.string(), z.unknown()).default({}),
})

/** As large a file is read, in signs. */
const fileLimit = 4_000_000

/**
 * The house in a file of tokens. What the extension says is taken; what tokens have a type for is taken from them, so
 * that a file which another tool changed means what it says. @throws HouseFileError
 */
export function houseFromTokens(text: string): House {
  if (text.length > fileLimit) throw new HouseFileError('This file is too long for a house. Nothing was kept.')
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new HouseFileError('This file is no JSON. Nothing was kept.')
  }
  const file = fileSchema.safeParse(json).data
  if (!file) throw new HouseFileError('This file holds no design tokens. Nothing was kept.')
  const own = ownHouse(file.$extensions[extension])
  const roles = Object.entries(file.role).map(([id, value]) => readRole(id, value, own))
  const palette = Object.entries(file.palette).flatMap(([id, value]) => {
    const token = colorToken.safeParse(value).data
    if (!token) return []
    const known = own?.palette.find(each => each.id === id)
    return [
      {
        ...(known ?? { id, does: 'accent' as const }),
        title: token.$description ?? known?.title ?? id,
        color: hexOf(token.$value.components),
      },
    ]
  })
  if (roles.length === 0 && palette.length === 0 && own === null)
    throw new HouseFileError('This file has neither roles nor a palette: it is no house. Nothing was kept.')
  const house = houseSchema.safeParse({
    ...(own ?? {}),
    name: file.$description ?? own?.name ?? 'House without a name',
    roles,
    palette,
  })
  if (!house.success) throw unreadable(house.error)
  return house.data
}

/** What is wrong with a house first, and where. */
function unreadable({ issues: [first] }: z.ZodError): HouseFileError {
  const where = first?.path.length ? ` at ${first.path.join('.')}` : ''
  return new HouseFileError(
    `This house cannot be read${where}: ${first?.message ?? 'it is not as it should be'}. Nothing was kept.`,
  )
}

/**
 * What the extension says, where the file has one. One that cannot be read is refused: limits, stand-ins and frames stand in it
 * alone, and would be lost without a word. @throws HouseFileError
 */
function ownHouse(said: unknown): House | null {
  if (said === undefined) return null
  const own = houseSchema.safeParse(said)
  if (!own.success) throw unreadable(own.error)
  return own.data
}

/** A role by its tokens, on top of what the extension says of it. */
function readRole(id: string, value: unknown, own: House | null): Record<string, unknown> {
  const known = own?.roles.find(role => role.id === id)
  const group = z.record(z.string(), z.unknown()).safeParse(value).data ?? {}
  const merged = (key: Medium) => {
    const read = readSetting(group[key]) ?? {}
    return known ? overlaid(known[key], read) : read
  }
  const levels = Array.from({ length: 8 }, (_, at) => readSetting(group[`level-${at + 2}`]))
  const count = Math.max(known?.levels.length ?? 0, levels.findLastIndex(level => level !== undefined) + 1)
  return {
    id,
    title:
      typeof group.$description === 'string' && group.$description.trim()
        ? group.$description.trim()
        : (known?.title ?? id),
    text: merged('text'),
    deck: merged('deck'),
    sheet: merged('sheet'),
    levels: levels.slice(0, count).map((level, at) => overlaid(known?.levels[at] ?? {}, level ?? {})),
  }
}

/** What tokens have a type for. */
const typed = ['family', 'size', 'weight', 'tracking', 'leading', 'before', 'after', 'color'] as const

/** What the extension says without what tokens have a type for, and that as the tokens say it. */
function overlaid(known: Setting, read: Setting): Setting {
  const rest = Object.fromEntries(
    Object.entries(known).filter(([name]) => !(typed as readonly string[]).includes(name)),
  )
  const setting: Setting = { ...rest, ...read }
  if (known.leading?.unit === 'own' && read.leading === undefined) setting.leading = known.leading
  // Leading in points comes back from a typography token as its share of the size.
  if (known.leading?.unit === 'points' && read.leading?.unit === 'percent' && read.size !== undefined) {
    const points = (read.leading.value * read.size) / 100
    if (Math.abs(points - known.leading.value) < 0.01) setting.leading = known.leading
  }
  return setting
}
