import { roleTitle } from '../../style/roles'
import { z } from 'zod'
import { asksNothing, criteriaSchema, type Criteria, type LookCriteria, type Range } from '../../census/criteria'
import { colorKinds } from '../../document/color-references'
import { plainNumber } from '../../style/describe'

/*
 * A recast: what to look for, and what to make of it. What is left out is left alone.
 */

const color = z.string().regex(/^#[0-9a-f]{6}$/i)
const styleName = z.string().min(1).max(500)

export const recastChangeSchema = z.strictObject({
  /** New words; of a regular expression $0 to $9 stand for what its groups took, and $$ for a dollar. */
  words: z.string().max(10_000).optional(),
  family: z.string().trim().min(1).max(200).optional(),
  /** A face of that family by its style name. */
  face: z.string().trim().min(1).max(100).optional(),
  /** Points, or percent of what is there. */
  size: z
    .union([
      z.strictObject({ points: z.number().min(0.5).max(2000) }),
      z.strictObject({ percent: z.number().min(10).max(1000) }),
    ])
    .optional(),
  /** 1 to 1000. */
  weight: z.int().min(1).max(1000).optional(),
  italic: z.boolean().optional(),
  /** Thousandths of an em. */
  tracking: z.number().min(-500).max(2000).optional(),
  color: color.optional(),
  background: z.union([color, z.literal('none')]).optional(),
  case: z.enum(['none', 'uppercase', 'lowercase', 'capitalize', 'small-caps']).optional(),
  underlined: z.boolean().optional(),
  language: z
    .string()
    .regex(/^[a-z]{2,3}(-[A-Z]{2})?$/)
    .optional(),
  /** Percent of the line, or points; of the paragraph that the text stands in. */
  leading: z
    .union([
      z.strictObject({ points: z.number().min(1).max(2000) }),
      z.strictObject({ percent: z.number().min(20).max(500) }),
    ])
    .optional(),
  paragraphStyle: styleName.optional(),
  /** null takes character styles away. */
  characterStyle: styleName.nullable().optional(),
  /** Takes local formatting away, so that the styles show through. */
  settle: z.boolean().optional(),
})
export type RecastChange = z.infer<typeof recastChangeSchema>

export const colorChangeSchema = z.strictObject({
  from: color,
  to: color,
  kinds: z
    .array(z.enum(colorKinds))
    .min(1)
    .max(colorKinds.length)
    .default([...colorKinds]),
})
export type ColorChange = z.infer<typeof colorChangeSchema>

export const recastSchema = z.strictObject({
  type: z.literal('recast'),
  find: criteriaSchema.default({ look: {}, scope: { kind: 'document' } }),
  change: recastChangeSchema.default({}),
  /** One colour for another wherever it is named: all at once, so that two can change places. */
  colors: z.array(colorChangeSchema).max(50).default([]),
})
export type RecastWish = z.infer<typeof recastSchema>

export const changesNothing = (change: RecastChange): boolean =>
  Object.values(change).every(value => value === undefined)

const rangeWords = (range: Range, unit: string): string =>
  range.least !== undefined && range.most !== undefined
    ? range.least === range.most
      ? `${plainNumber(range.least)}${unit}`
      : `${plainNumber(range.least)} to ${plainNumber(range.most)}${unit}`
    : range.least !== undefined
      ? `${plainNumber(range.least)}${unit} or more`
      : range.most !== undefined
        ? `${plainNumber(range.most)}${unit} or less`
        : 'any'

const statusWords = {
  present: 'a face of the library',
  alias: 'a face that another shows',
  absent: 'an absent face',
  unnamed: 'no named font',
} as const

/**
 * What is looked for, in words: “text in Jost, 9 to 10 pt, in the style Notes”. `titleOf` gives the display name of
 * a style.
 */
export function criteriaWords(
  find: Pick<Criteria, 'words' | 'look'>,
  titleOf: (name: string) => string = name => name,
): string {
  const { words, look } = find
  const parts: string[] = []
  const put = (condition: unknown, text: () => string) => {
    if (condition !== undefined) parts.push(text())
  }
  const l: LookCriteria = look
  put(l.family ?? l.face, () => `set in ${[l.family, l.face].filter(Boolean).join(' ')}`)
  put(l.status, () => `set in ${statusWords[l.status!]}`)
  put(l.size, () => `at ${rangeWords(l.size!, ' pt')}`)
  put(l.weight, () => `of weight ${rangeWords(l.weight!, '')}`)
  put(l.italic, () => (l.italic ? 'in italics' : 'upright'))
  put(l.tracking, () => `tracked ${rangeWords(l.tracking!, '')}`)
  put(l.color, () => `in the colour ${l.color}`)
  put(l.background, () => `on ${l.background}`)
  put(l.case, () => (l.case === 'small-caps' ? 'in small capitals' : `in ${l.case}`))
  put(l.underlined, () => (l.underlined ? 'underlined' : 'not underlined'))
  put(l.raised, () => (l.raised ? 'raised or lowered' : 'on the line'))
  put(l.paragraphStyle, () => `in the style ${titleOf(l.paragraphStyle!)}`)
  put(l.characterStyle, () => `in the character style ${titleOf(l.characterStyle!)}`)
  put(l.role, () => `that is ${/^[aeiou]/.test(roleTitle(l.role!)) ? 'an' : 'a'} ${roleTitle(l.role!)}`)
  put(l.language, () => `in the language ${l.language}`)
  put(l.slot, () =>
    l.slot === 'western' ? 'in western script' : l.slot === 'asian' ? 'in East Asian script' : 'in a complex script',
  )
  put(l.script, () => `in ${l.script} letters`)
  put(l.stray, () => (l.stray ? 'set by hand' : 'as its styles say'))
  put(
    l.place,
    () =>
      `in ${l.place === 'body' ? 'the body' : l.place === 'header' ? 'headers, footers and masters' : `${l.place}s`}`,
  )
  const subject = words
    ? words.expression
      ? `what matches ${words.text}`
      : `“${words.text}”${words.matchCase ? ', in this case alone' : ''}${words.wholeWords ? ', as whole words' : ''}`
    : asksNothing(find)
      ? 'all text'
      : 'text'
  return [subject, ...(parts.length > 0 ? [parts.join(', ')] : [])].join(' ')
}

/** Where is looked, in words. */
export function scopeWords({ scope }: Pick<Criteria, 'scope'>): string {
  switch (scope.kind) {
    case 'document':
      return 'in the whole document'
    case 'story':
      return 'in this text'
    case 'ranges':
      return 'in what is selected'
    case 'pages':
      return scope.from === scope.to ? `on page ${scope.from + 1}` : `on pages ${scope.from + 1} to ${scope.to + 1}`
  }
}

/** What is made of it, in words; [] where nothing is. */
export function changeWords(change: RecastChange, titleOf: (name: string) => string = name => name): string[] {
  const parts: string[] = []
  const look: string[] = []
  const put = (condition: unknown, text: () => string) => {
    if (condition !== undefined) look.push(text())
  }
  if (change.words !== undefined) parts.push(change.words === '' ? 'delete it' : `write “${change.words}”`)
  put(change.family ?? change.face, () => `in ${[change.family, change.face].filter(Boolean).join(' ')}`)
  put(change.size, () =>
    'points' in change.size!
      ? `at ${plainNumber(change.size.points)} pt`
      : `at ${plainNumber(change.size!.percent)} % of its size`,
  )
  put(change.weight, () => `in weight ${change.weight}`)
  put(change.italic, () => (change.italic ? 'in italics' : 'upright'))
  put(change.tracking, () => `tracked ${plainNumber(change.tracking!)}`)
  put(change.color, () => `in the colour ${change.color}`)
  put(change.background, () => (change.background === 'none' ? 'without a background' : `on ${change.background}`))
  put(change.case, () =>
    change.case === 'none'
      ? 'in the case it is written in'
      : change.case === 'small-caps'
        ? 'in small capitals'
        : `in ${change.case}`,
  )
  put(change.underlined, () => (change.underlined ? 'underlined' : 'not underlined'))
  put(
    change.leading,
    () =>
      `with leading of ${
        'points' in change.leading!
          ? `${plainNumber(change.leading.points)} pt`
          : `${plainNumber(change.leading!.percent)} %`
      }`,
  )
  if (look.length > 0) parts.push(`set it ${look.join(', ')}`)
  if (change.language !== undefined) parts.push(`call its language ${change.language}`)
  if (change.paragraphStyle !== undefined) parts.push(`give its paragraphs the style ${titleOf(change.paragraphStyle)}`)
  if (change.characterStyle !== undefined)
    parts.push(
      change.characterStyle === null
        ? 'take its character style away'
        : `give it the character style ${titleOf(change.characterStyle)}`,
    )
  if (change.settle) parts.push('take away what was set by hand')
  return parts
}

/** The whole wish as one sentence. */
export function recastSentence(
  request: Pick<RecastWish, 'change' | 'colors' | 'find'>,
  titleOf?: (name: string) => string,
): string {
  const colors = request.colors.map(
    each =>
      `${each.from} becomes ${each.to}${
        each.kinds.length < colorKinds.length
          ? ` in ${each.kinds.map(kind => (kind === 'text' ? 'text' : kind === 'page' ? 'page backgrounds' : `${kind}s`)).join(', ')}`
          : ' everywhere'
      }`,
  )
  const changes = changeWords(request.change, titleOf)
  const sentences: string[] = []
  if (changes.length > 0 || colors.length === 0) {
    const found = `${criteriaWords(request.find, titleOf)} ${scopeWords(request.find)}`
    sentences.push(
      changes.length === 0
        ? `Find ${found}, and leave it as it is.`
        : `Find ${found}, ${changes.length > 1 ? `${changes.slice(0, -1).join(', ')}, and ${changes.at(-1)}` : `and ${changes[0]}`}.`,
    )
  }
  if (colors.length > 0) sentences.push(`${colors.join('; ')}.`)
  return sentences.join(' ').replace(/^./, letter => letter.toUpperCase())
}
