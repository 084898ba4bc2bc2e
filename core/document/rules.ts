import { chartTexts } from './chart-texts'
import { z } from 'zod'
import { partBytes } from '../package/container'
import { PackageError } from '../package/errors'
import type { OdfDocument } from './open'

/** The one part that is Morphene's own: what OpenDocument has no place for. Other readers pass it over. */
export const rulesPath = 'Morphene/rules.json'

/** A style by family and name, as style:name has it. */
const styleKeySchema = z.strictObject({ family: z.enum(['paragraph', 'text']), name: z.string().min(1).max(500) })
const ownerFamilies = ['paragraph', 'text', 'graphic', 'presentation', 'table-cell'] as const
/** Families of styles that text goes by. */
export type OwnerFamily = (typeof ownerFamilies)[number]
const ownerKeySchema = z.strictObject({ family: z.enum(ownerFamilies), name: z.string().min(1).max(500) })
const tagSchema = z.string().regex(/^[\x20-\x7E]{4}$/)

export const roles = [
  'display',
  'heading',
  'subheading',
  'lead',
  'body',
  'caption',
  'label',
  'data',
  'note',
  'code',
] as const
/** What text does. */
export type Role = (typeof roles)[number]

/** A role by its id: one that every desk knows, or one that a house adds. */
export const roleIdSchema = z.string().regex(/^[a-z][a-z0-9-]{0,39}$/)
export type RoleId = z.infer<typeof roleIdSchema>

const ruleId = z.string().regex(/^[a-z0-9]{1,12}$/)
const listLimit = 500

/**
 * Text of a paragraph style that matches a regular expression takes a character style. RE2 syntax: a match takes
 * time linear in the text.
 */
export const patternSchema = z.strictObject({
  id: ruleId,
  style: z.string().min(1).max(500),
  title: z.string().max(200),
  pattern: z.string().min(1).max(2000),
  ignoreCase: z.boolean().default(false),
  character: z.string().min(1).max(500),
  on: z.boolean().default(true),
})
export type PatternRule = z.infer<typeof patternSchema>

/**
 * The same at a paragraph's start only: a pattern, so many words or sentences, or the first letter or line as CSS
 * has them (CSS Pseudo-Elements 4, 2.1 and 2.2).
 */
export const leadInSchema = z.strictObject({
  id: ruleId,
  style: z.string().min(1).max(500),
  title: z.string().max(200),
  character: z.string().min(1).max(500),
  on: z.boolean().default(true),
  what: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('first-letter') }),
    z.strictObject({ kind: z.literal('first-line') }),
    z.strictObject({ kind: z.literal('words'), count: z.int().min(1).max(100) }),
    z.strictObject({ kind: z.literal('through'), sign: z.string().min(1).max(10) }),
    z.strictObject({ kind: z.literal('pattern'), pattern: z.string().min(1).max(2000) }),
  ]),
})
export type LeadInRule = z.infer<typeof leadInSchema>

export const startKinds = [
  'body',
  'frame',
  'shape',
  'title',
  'outline1',
  'outline2',
  'outline3',
  'outline4',
  'outline5',
  'cell',
  'note',
  'header',
] as const
export type StartKind = (typeof startKinds)[number]

/**
 * What rules.json holds. Unknown members are kept in the file and passed over here: a newer desk may have written
 * them.
 */
const startSchema = z.strictObject({
  paragraph: z.string().max(500).optional(),
  frame: z.string().max(500).optional(),
})
/** The names of the styles that new objects of a kind begin with. */
export type RuleStart = z.infer<typeof startSchema>

/** As many accepted findings a document keeps. */
export const acceptedLimit = 5_000

/** What a finding is known by when the document is proofed again: what was said, of which words, in which paragraph. */
export const acceptedKeySchema = z.strictObject({
  check: z.string().min(1).max(60),
  says: z.string().max(500),
  text: z.string().max(300),
  around: z.string().max(300),
})
export type AcceptedKey = z.infer<typeof acceptedKeySchema>

export const rulesSchema = z.object({
  /**
   * Distance between two characters in one face, in thousandths of an em; without `style` in all faces of the
   * family.
   */
  kerning: z
    .array(
      z.strictObject({
        family: z.string().max(200),
        style: z.string().max(200).optional(),
        left: z.string().min(1).max(8),
        right: z.string().min(1).max(8),
        amount: z.number().min(-1000).max(1000),
      }),
    )
    .max(5000)
    .default([]),
  /**
   * Text styles that spans of corrected pairs go by, so that every reader shows them: the span holds the left one of the
   * pair. `spacing` is what it sets, in points. A correction that holds at one place alone is `here`.
   */
  pairStyles: z
    .array(
      z.strictObject({
        style: z.string().min(1).max(500),
        spacing: z.number().min(-1000).max(1000),
        here: z.boolean(),
      }),
    )
    .max(5000)
    .default([]),
  /** OpenType features by tag: 0 is off, 1 on, higher numbers choose alternates. */
  features: z
    .array(z.strictObject({ style: styleKeySchema, features: z.record(tagSchema, z.int().min(0).max(255)) }))
    .max(5000)
    .default([]),
  /** Places on the axes of variable faces, by tag. */
  axes: z
    .array(z.strictObject({ style: styleKeySchema, axes: z.record(tagSchema, z.number().min(-32768).max(32768)) }))
    .max(5000)
    .default([]),
  /** What is known of styles that the file format has no place for. */
  styles: z
    .array(
      z.strictObject({ style: ownerKeySchema, role: roleIdSchema.optional(), author: z.string().max(100).optional() }),
    )
    .max(5000)
    .default([]),
  /** What text of charts does, where it is said by hand: charts know no named styles that could say it. */
  charts: z
    .array(z.strictObject({ of: z.enum(chartTexts), role: roleIdSchema }))
    .max(chartTexts.length)
    .optional(),
  /** What a proof found and somebody accepted as it is, with why. */
  accepted: z
    .array(acceptedKeySchema.extend({ reason: z.string().max(500) }))
    .max(acceptedLimit)
    .default([]),
  /**
   * The house that the document was dressed in last, which version of it, and its palette: the next house is told by it what
   * the colours of shapes, grounds and charts did.
   */
  house: z
    .strictObject({
      id: z.string().min(1).max(60),
      name: z.string().max(120),
      version: z.int().min(0),
      palette: z
        .array(
          z.strictObject({
            title: z.string().max(100),
            does: z.string().max(40),
            color: z.string().regex(/^#[0-9a-f]{6}$/),
          }),
        )
        .max(100)
        .optional(),
    })
    .optional(),
  /** In the order in which they act: where two would take the same text, the first has it. */
  patterns: z.array(patternSchema).max(listLimit).default([]),
  leadIns: z.array(leadInSchema).max(listLimit).default([]),
  /** Styles that new objects begin with, by kind: for kinds that OpenDocument has no default for. */
  starts: z.partialRecord(z.enum(startKinds), startSchema).default({}),
})
export type Rules = z.infer<typeof rulesSchema>

export const noRules: Rules = {
  kerning: [],
  pairStyles: [],
  features: [],
  axes: [],
  styles: [],
  accepted: [],
  patterns: [],
  leadIns: [],
  starts: {},
}

const unreadable = () =>
  new PackageError(
    'damaged',
    'The rules that this document carries for Morphene (Morphene/rules.json) cannot be read. ' +
      'Take that part out of the package to open it without them. Nothing was kept.',
  )

/** The text of the rules part as it is now; null where there is none. @throws PackageError */
function rulesText(document: OdfDocument): string | null {
  const written = document.written.get(rulesPath)
  if (written !== undefined) return written
  if (!document.container.byPath.has(rulesPath) || document.dropped.has(rulesPath)) return null
  return new TextDecoder('utf-8', { fatal: true }).decode(partBytes(document.container, rulesPath))
}

/** The rules of a document. @throws PackageError where the part is there and cannot be read */
export function readRules(document: OdfDocument): Rules {
  try {
    const text = rulesText(document)
    return text === null ? noRules : rulesSchema.parse(JSON.parse(text))
  } catch (error) {
    if (error instanceof PackageError) throw error
    throw unreadable()
  }
}

/** The rules part with other rules; members that this desk does not know stay as they are. @throws PackageError */
export function rulesWith(document: OdfDocument, rules: Rules): string {
  const text = rulesText(document)
  let known: unknown = {}
  try {
    known = text === null ? {} : JSON.parse(text)
  } catch {
    throw unreadable()
  }
  return `${JSON.stringify({ ...(known as object), ...rules }, null, 1)}\n`
}
