import { z } from 'zod'
import { distanceOf } from '../colour/oklch'
import { houseColorSchema, type ColorDuty, type HouseColor } from './house'

/** A palette that is kept by itself: colours by what they do. */
export const paletteSchema = z.strictObject({ colors: z.array(houseColorSchema).min(1).max(60) })
export type Palette = z.infer<typeof paletteSchema>

/** Why a file holds no palette. */
export class PaletteFileError extends Error {}

const round = (value: number) => Math.round(value * 1e5) / 1e5
const componentsOf = (color: string) => [1, 3, 5].map(at => round(Number.parseInt(color.slice(at, at + 2), 16) / 255))
const hexOf = (parts: readonly number[]) =>
  `#${parts
    .map(part =>
      Math.round(Math.min(Math.max(part, 0), 1) * 255)
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`

const extension = 'morphene.palette'

/**
 * A palette as design tokens (Design Tokens Community Group, Color Module 2025.10: sRGB components between 0 and 1); what
 * each colour does, and its inks, stand under an extension.
 */
export function paletteToTokens(name: string, { colors }: Palette): string {
  const tokens = Object.fromEntries(
    colors.map(({ id, title, does, color, ink }) => [
      id,
      {
        $type: 'color',
        $description: title,
        $value: { colorSpace: 'srgb', components: componentsOf(color), hex: color },
        $extensions: { [extension]: { does, ...(ink ? { ink } : {}) } },
      },
    ]),
  )
  return `${JSON.stringify({ $description: name, palette: tokens }, null, 2)}\n`
}

const tokenSchema = z.object({
  $description: z.string().optional(),
  $value: z.union([
    z.object({ colorSpace: z.literal('srgb'), components: z.array(z.number()).length(3) }),
    z.string().regex(/^#[0-9a-f]{6}$/i),
  ]),
  $extensions: z.record(z.string(), z.unknown()).optional(),
})

/** All colour tokens of a file, wherever they stand, by the names they have there. */
function* colorTokens(
  value: unknown,
  name: string,
  depth: number,
): Generator<readonly [string, z.infer<typeof tokenSchema>]> {
  const token = tokenSchema.safeParse(value).data
  if (token) yield [name, token]
  else if (typeof value === 'object' && value !== null && !Array.isArray(value) && depth < 8)
    for (const [key, inside] of Object.entries(value))
      if (!key.startsWith('$')) yield* colorTokens(inside, key, depth + 1)
}

/** An id that the format takes, and that is not taken. */
function idOf(name: string, taken: ReadonlySet<string>): string {
  const plain =
    name
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^[^a-z]+|-+$/g, '')
      .slice(0, 32) || 'colour'
  let id = plain
  for (let number = 2; taken.has(id); number++) id = `${plain}-${number}`
  return id
}

/** The palette in a file of tokens: all colours that it holds, 60 at most. @throws PaletteFileError */
export function paletteFromTokens(text: string): { readonly name: string; readonly palette: Palette } {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new PaletteFileError('This file is no JSON. Nothing was kept.')
  }
  const colors: HouseColor[] = []
  const taken = new Set<string>()
  for (const [name, { $value, $description, $extensions }] of colorTokens(json, '', 0)) {
    if (colors.length >= 60) break
    const id = idOf(name, taken)
    taken.add(id)
    const more =
      houseColorSchema.pick({ does: true, ink: true }).partial().safeParse($extensions?.[extension]).data ?? {}
    colors.push({
      id,
      title: ($description ?? name).trim().slice(0, 100) || id,
      does: more.does ?? 'accent',
      color: typeof $value === 'string' ? $value.toLowerCase() : hexOf($value.components),
      ...(more.ink ? { ink: more.ink } : {}),
    })
  }
  if (colors.length === 0) throw new PaletteFileError('This file holds no colour tokens. Nothing was kept.')
  const described = z.object({ $description: z.string().trim().min(1).max(200) }).safeParse(json).data
  return { name: described?.$description ?? 'Palette', palette: { colors } }
}

/** A palette as CSS custom properties. */
export const paletteToCss = (name: string, { colors }: Palette): string =>
  `/* ${name.replace(/\*\//g, '* /')} */\n:root {\n${colors.map(({ id, color }) => `  --${id}: ${color};`).join('\n')}\n}\n`

/** A colour and the one of another palette that takes its place. */
export interface Exchanged {
  readonly from: HouseColor
  readonly to: HouseColor
}

/** How much farther a colour of another duty counts than one of the same. */
const otherDuty = 0.25

/** For each colour of a palette the nearest of another: those that do the same come first. */
export function nearestMatches({ colors }: Palette, other: Palette): Exchanged[] {
  const cost = (from: HouseColor, to: HouseColor) =>
    distanceOf(from.color, to.color) + (from.does === to.does ? 0 : otherDuty)
  return colors.map(from => ({
    from,
    to: other.colors.reduce((best, to) => (cost(from, to) < cost(from, best) ? to : best)),
  }))
}

/** What colours do, as people say it. */
export const dutyTitles: Readonly<Record<ColorDuty, string>> = {
  ground: 'ground',
  text: 'text',
  quiet: 'quiet text',
  accent: 'accent',
  warning: 'warning',
  series: 'chart series',
}
