import { check, type Found } from '../check'
import type { Subject } from '../subject'

const wide = '\u00A0'
const narrow = '\u202F'

interface Rule {
  /** Languages it holds in; every one without. */
  readonly in?: readonly string[]
  /** Its match is the space. */
  readonly space: RegExp
  readonly by: string
  readonly says: string
}

const units =
  '(?:km|cm|mm|m|kg|g|mg|t|l|ml|h|min|s|°C|°F|kWh|kW|W|V|Hz|kHz|MHz|GHz|kn|nm|%|€|£|\\$|kr|EUR|USD|GBP|CHF|MB|GB|TB|kB|pt)'

/**
 * A space between two things. The space comes first in the pattern: what is looked for at every letter of a long text would
 * take a time that grows with its square.
 */
const between = (before: string, after: string): RegExp => new RegExp(` (?<=${before} )(?=${after})`, 'gu')

const word = '(?:\\p{L}|\\p{N}|[)»”])'
const rules: readonly Rule[] = [
  {
    space: between('(?:^|[^\\p{L}\\p{N}])\\d[\\d.,]{0,20}', `${units}(?![\\p{L}\\p{N}])`),
    by: wide,
    says: 'A number apart from its unit',
  },
  {
    space: between(
      '(?:^|[^\\p{L}])(?:p|pp|No|Nos|Nr|Fig|Figs|Tab|Abb|Vol|vol|Dr|Mr|Mrs|Ms|St|Bd)\\.',
      '[\\p{N}\\p{Lu}]',
    ),
    by: wide,
    says: 'An abbreviation apart from what it belongs to',
  },
  { space: between('[§¶№]', '\\d'), by: wide, says: 'A sign apart from its number' },
  {
    in: ['de'],
    space: between('(?:^|[^\\p{L}])(?:z\\.|d\\.|u\\.|i\\.|o\\.|s\\.|v\\.)', '(?:B|h|a|d|R|Ä|o|u|T)\\.'),
    by: narrow,
    says: 'Parts of an abbreviation apart',
  },
  { in: ['fr'], space: between(word, '[;!?»]'), by: narrow, says: 'A sign apart from its word' },
  { in: ['fr'], space: between(word, ':'), by: wide, says: 'A colon apart from its word' },
  { in: ['fr'], space: between('«', '\\S'), by: narrow, says: 'A quotation mark apart from its words' },
  {
    in: ['cs', 'sk'],
    space: between('(?:^|[\\s(„])[ksvzouiaKSVZOUIA]', '[\\p{L}\\p{N}]'),
    by: wide,
    says: 'A preposition of one letter apart from its word',
  },
  {
    in: ['pl'],
    space: between('(?:^|[\\s(„])[wzouiaWZOUIA]', '[\\p{L}\\p{N}]'),
    by: wide,
    says: 'A word of one letter apart from the next',
  },
]

/** What stands before a space that the rules of all languages are about: most paragraphs have none. */
const beforeAny = /[\d.§¶№] /

function* apart({ texts }: Subject): Generator<Found> {
  for (const text of texts) {
    const language = text.language.split('-')[0]!
    if (text.isCode || text.text.length < 3) continue
    const any = beforeAny.test(text.text)
    for (const rule of rules) {
      if (rule.in ? !rule.in.includes(language) : !any) continue
      for (const { index } of text.text.matchAll(rule.space)) {
        const { part, node } = text.paragraph
        yield {
          says: rule.says,
          at: { text, from: Math.max(0, index - 3), to: Math.min(text.text.length, index + 4) },
          repair: {
            mends: [{ kind: 'words', part, node, from: index, to: index + 1, before: ' ', after: rule.by }],
          },
        }
      }
    }
  }
}

export const noBreakSpaces = check({
  id: 'no-break-space',
  group: 'words',
  title: 'Space that must not break',
  severity: 'note',
  looksFor:
    'Plain spaces between a number and its unit, an abbreviation and its name, and where a language binds words.',
  source: 'The SI Brochure, 5.4.3, for units; national usage for French, German, Czech, Slovak and Polish.',
  unseen: 'Units and abbreviations that it does not know; thousands set apart by spaces.',
  find: apart,
})
