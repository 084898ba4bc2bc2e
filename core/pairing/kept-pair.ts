import { z } from 'zod'
import { scaleRatios, typeScale, type ScaleStep } from './type-scale'

const family = z.string().trim().min(1).max(200)

/** A pair that is kept: its faces by role, the size of the body and the scale. */
export const keptPairSchema = z.strictObject({
  heading: family,
  body: family,
  /** A third face for labels and figures; without one they are set in the body's. */
  label: family.optional(),
  /** Points. */
  size: z.number().min(3).max(100),
  ratio: z.number().min(1.01).max(3),
})
export type KeptPair = z.infer<typeof keptPairSchema>

/** Which face of a pair each step of its scale is set in. */
const faceOf: Readonly<Record<ScaleStep['role'], 'heading' | 'body'>> = {
  display: 'heading',
  heading: 'heading',
  subheading: 'heading',
  intro: 'body',
  body: 'body',
  caption: 'body',
}
/** Lines of text are set wider apart than those of headings. */
const leadingOf = (role: ScaleStep['role']) => (faceOf[role] === 'heading' ? 1.15 : 1.42)

/** A step of a pair: its role, face, size in points and leading as a multiple of it. */
export interface PairStep {
  readonly role: ScaleStep['role'] | 'label'
  readonly family: string
  readonly size: number
  readonly leading: number
}

/** All steps of a pair. */
export function stepsOf(pair: KeptPair): PairStep[] {
  const steps: PairStep[] = typeScale(pair.size, pair.ratio).map(({ role, size }) => ({
    role,
    family: pair[faceOf[role]],
    size,
    leading: leadingOf(role),
  }))
  const caption = steps.find(step => step.role === 'caption')!
  return [...steps, { role: 'label', family: pair.label ?? pair.body, size: caption.size, leading: 1.25 }]
}

/** A pair under its name. */
export interface NamedPair {
  readonly name: string
  readonly pair: KeptPair
}

/**
 * Pairs as design tokens (Design Tokens Community Group, Format Module: groups by name, font families and typography as
 * composite values, dimensions in px; a point is 4/3 px, CSS Values 4, 6.2).
 */
export function toTokens(pairs: readonly NamedPair[]): string {
  const px = (points: number) => ({ value: Math.round((points * 400) / 3) / 100, unit: 'px' })
  const groups = pairs.map(({ name, pair }) => [
    tokenName(name),
    {
      $description: name,
      face: {
        $type: 'fontFamily',
        heading: { $value: pair.heading },
        body: { $value: pair.body },
        ...(pair.label === undefined ? {} : { label: { $value: pair.label } }),
      },
      scale: { ratio: { $type: 'number', $value: pair.ratio }, body: { $type: 'dimension', $value: px(pair.size) } },
      type: {
        $type: 'typography',
        ...Object.fromEntries(
          stepsOf(pair).map(step => [
            step.role,
            {
              $value: {
                fontFamily: step.family,
                fontSize: px(step.size),
                fontWeight: 400,
                letterSpacing: { value: 0, unit: 'px' },
                lineHeight: step.leading,
              },
            },
          ]),
        ),
      },
    },
  ])
  return `${JSON.stringify(Object.fromEntries(groups), null, 2)}\n`
}

/** Names of tokens may hold no dot, braces or leading dollar sign (Format Module, “Character restrictions”). */
const tokenName = (name: string): string => name.replace(/[.{}]/g, ' ').replace(/^\$+/, '').trim() || 'pair'

const familyToken = z.union([family, z.array(family).min(1).max(20)])
const tokenGroup = z.object({
  $description: z.string().max(500).optional(),
  face: z.object({
    heading: z.object({ $value: familyToken }),
    body: z.object({ $value: familyToken }),
    label: z.object({ $value: familyToken }).optional(),
  }),
  scale: z
    .object({
      ratio: z.object({ $value: z.number() }),
      body: z.object({ $value: z.object({ value: z.number(), unit: z.enum(['px', 'rem']) }) }),
    })
    .optional(),
})

/** Why a file of pairs cannot be read. */
export class PairFileError extends Error {}

/** As many pairs are read from one file. */
const pairsInFile = 500

/** Pairs of a file of tokens; groups that are none are passed over. @throws PairFileError where it holds no pair */
export function fromTokens(text: string): NamedPair[] {
  let read: unknown
  try {
    read = JSON.parse(text)
  } catch {
    throw new PairFileError('This file is no JSON. Nothing was kept.')
  }
  const found: NamedPair[] = []
  for (const [key, value] of Object.entries(z.record(z.string(), z.unknown()).safeParse(read).data ?? {})) {
    const group = tokenGroup.safeParse(value).data
    if (!group || found.length >= pairsInFile) continue
    const first = (token: z.infer<typeof familyToken>) => (typeof token === 'string' ? token : token[0]!)
    const { scale, face } = group
    const size = scale ? (scale.body.$value.value * (scale.body.$value.unit === 'rem' ? 16 : 1) * 3) / 4 : 10
    const pair = keptPairSchema.safeParse({
      heading: first(face.heading.$value),
      body: first(face.body.$value),
      ...(face.label ? { label: first(face.label.$value) } : {}),
      size: Math.round(size * 100) / 100,
      ratio: scale?.ratio.$value ?? scaleRatios[1].ratio,
    })
    if (pair.success) found.push({ name: (group.$description ?? key).slice(0, 200), pair: pair.data })
  }
  if (found.length === 0)
    throw new PairFileError(
      'This file has no pairs: no group with a face for headings and one for body. Nothing was kept.',
    )
  return found
}

/** A CSS string (CSS Syntax 3, 4.3.5): quotes, backslashes and line ends escaped. */
const cssString = (text: string) =>
  `"${text.replace(/["\\\n\r\f]/g, sign => `\\${sign.codePointAt(0)!.toString(16)} `)}"`
const cssName = (name: string) =>
  name
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '') || 'pair'

/** A pair as CSS: custom properties for its faces and sizes, and a class for each step. */
export function toCss({ name, pair }: NamedPair): string {
  const own = cssName(name)
  const lines = [
    `/* ${name.replace(/\*\//g, '* /')} */`,
    ':root {',
    `  --${own}-name: ${cssString(name)};`,
    `  --${own}-heading: ${cssString(pair.heading)};`,
    `  --${own}-body: ${cssString(pair.body)};`,
    ...(pair.label === undefined ? [] : [`  --${own}-label: ${cssString(pair.label)};`]),
    `  --${own}-size: ${pair.size}pt;`,
    `  --${own}-ratio: ${pair.ratio};`,
    '}',
    ...stepsOf(pair).flatMap(step => [
      `.${own}-${step.role} {`,
      `  font-family: ${cssString(step.family)};`,
      `  font-size: ${step.size}pt;`,
      `  line-height: ${step.leading};`,
      '}',
    ]),
  ]
  return `${lines.join('\n')}\n`
}

const unquoted = (value: string) =>
  value
    .trim()
    .replace(/^(["'])(.*)\1$/s, '$2')
    .replace(/\\([0-9a-f]{1,6})\s?/gi, (_, code: string) =>
      String.fromCodePoint(Math.min(parseInt(code, 16), 0x10ffff)),
    )

/** A pair's own name, or where it says none that of its properties. */
const nameOf = (own: string, values: ReadonlyMap<string, string>): string =>
  unquoted(values.get('name') ?? '')
    .trim()
    .slice(0, 200) || own.replace(/-/g, ' ')

/** Pairs of a style sheet that was written here: by its custom properties. @throws PairFileError where it holds none */
export function fromCss(text: string): NamedPair[] {
  const values = new Map<string, Map<string, string>>()
  for (const [, own, what, value] of text.matchAll(
    /--([a-z0-9-]{1,200})-(name|heading|body|label|size|ratio)\s*:\s*([^;}]{1,300})/g,
  )) {
    const pair = values.get(own!) ?? new Map<string, string>()
    pair.set(what!, value!)
    values.set(own!, pair)
  }
  const found = [...values].slice(0, pairsInFile).flatMap(([own, pair]): NamedPair[] => {
    const label = pair.get('label')
    const read = keptPairSchema.safeParse({
      heading: unquoted(pair.get('heading') ?? ''),
      body: unquoted(pair.get('body') ?? ''),
      ...(label === undefined ? {} : { label: unquoted(label) }),
      size: parseFloat(pair.get('size') ?? '10'),
      ratio: parseFloat(pair.get('ratio') ?? String(scaleRatios[1].ratio)),
    })
    return read.success ? [{ name: nameOf(own, pair), pair: read.data }] : []
  })
  if (found.length === 0)
    throw new PairFileError('This style sheet has no pairs that were written by this desk. Nothing was kept.')
  return found
}

/** Pairs of a file, by what it holds. @throws PairFileError */
export const readPairs = (text: string): NamedPair[] => (/^\s*\{/.test(text) ? fromTokens(text) : fromCss(text))
