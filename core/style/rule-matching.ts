import { RE2JS } from 're2js'
import type { LeadInRule, PatternRule } from '../document/rules'

/*
 * Which text a rule takes. Patterns are run by an engine whose time grows linearly with the text whatever the pattern
 * (Cox, Regular Expression Matching Can Be Simple And Fast, 2007): a file's own rules cannot hang the desk.
 */

/** A pattern that cannot be run. The sentence says why. */
export class PatternError extends Error {}

/** A part to pick for a pattern, with what it takes in words. */
export interface PatternPart {
  readonly title: string
  readonly pattern: string
  readonly example: string
}

const kana = '\\p{Hiragana}\\p{Katakana}ー゛゜'
const japanese = `${kana}\\p{Han}々〆〇`
/** What a number may hold, with marks of thousands and decimals between its figures. */
const figures = "\\p{Nd}+(?:[.,\u00A0\u202F’'][\\p{Nd}]+)*"

export const patternParts: readonly PatternPart[] = [
  { title: 'Latin letters', pattern: "[\\p{Latin}\\p{M}]+(?:[’'-][\\p{Latin}\\p{M}]+)*", example: 'Saltmere' },
  {
    title: 'Latin text with figures and signs between',
    pattern:
      "[\\p{Latin}\\p{Nd}\\p{M}](?:[\\p{Latin}\\p{Nd}\\p{M}\\p{Sc} .,:;!?&’'“”()/%+-]*[\\p{Latin}\\p{Nd}\\p{M}\\p{Sc}.!?)%])?",
    example: 'Saltmere Line, pier 2',
  },
  { title: 'Greek letters', pattern: '[\\p{Greek}\\p{M}]+', example: 'Αιγαίο' },
  { title: 'Cyrillic letters', pattern: '[\\p{Cyrillic}\\p{M}]+', example: 'паром' },
  { title: 'Kana', pattern: `[${kana}]+`, example: 'フェリー' },
  {
    title: 'Japanese text with its signs and figures',
    pattern:
      `[${japanese}「『（［【](?:[${japanese}\\x{3000}-\\x{303F}\\x{FF00}-\\x{FFEF}\\p{Nd}\\p{Sc}.,:%~〜・ ` +
      `]*[${japanese}\\x{3001}-\\x{303F}\\x{FF01}-\\x{FFEF}\\p{Nd}])?`,
    example: '大人1,200円。',
  },
  { title: 'Han characters', pattern: '[\\p{Han}々〆〇]+', example: '港' },
  { title: 'Hangul', pattern: '\\p{Hangul}+', example: '항구' },
  { title: 'Hebrew text', pattern: '[\\p{Hebrew}\\p{M}]+(?:[ \u05BE][\\p{Hebrew}\\p{M}]+)*', example: 'נמל' },
  { title: 'Arabic text', pattern: '[\\p{Arabic}\\p{M}]+(?: [\\p{Arabic}\\p{M}]+)*', example: 'ميناء' },
  { title: 'Devanagari', pattern: '[\\p{Devanagari}\\p{M}]+', example: 'बंदरगाह' },
  { title: 'Figures', pattern: figures, example: '1,250.50' },
  {
    title: 'Amounts of money',
    pattern: `(?:\\p{Sc}[ \u00A0\u202F]?${figures}|${figures}[ \u00A0\u202F]?(?:\\p{Sc}|円|EUR|GBP|USD|JPY|CHF|SEK|NOK|DKK))`,
    example: '£12.50, 1,200円',
  },
  { title: 'Times of day', pattern: '\\b(?:[01]?[0-9]|2[0-3])[.:][0-5][0-9]\\b', example: '8.45' },
  {
    title: 'In quotation marks',
    pattern: '“[^“”]*”|„[^„“]*“|«[^«»]*»|‘[^‘’]*’|「[^「」]*」|"[^"]*"',
    example: '“Cormorant”',
  },
  { title: 'In brackets', pattern: '\\([^()]*\\)|\\[[^\\[\\]]*\\]|（[^（）]*）', example: '(by launch)' },
  {
    title: 'E-mail addresses',
    pattern: '[\\p{L}\\p{Nd}._%+-]+@[\\p{L}\\p{Nd}-]+(?:\\.[\\p{L}\\p{Nd}-]+)+',
    example: 'pier@saltmere.example',
  },
  {
    title: 'Web addresses',
    pattern: '(?:https?://|www\\.)[^\\s<>"“”]*[^\\s<>"“”.,;:!?)\\]]',
    example: 'www.saltmere.example',
  },
  { title: 'Capitals only', pattern: '\\b\\p{Lu}{2,}\\b', example: 'CREW' },
]

/** A pattern for any of some words, as whole words. */
export function wordListPattern(words: readonly string[]): string {
  const quoted = [...new Set(words.map(word => word.trim()).filter(word => word !== ''))]
    .sort((a, b) => b.length - a.length)
    .map(word => word.replace(/[\\^$.*+?()[\]{}|]/g, '\\$&'))
  return quoted.length === 0 ? '' : `\\b(?:${quoted.join('|')})\\b`
}

/** Patterns that were asked for, ready to run or with why they cannot be: a file may ask for one at each paragraph. */
const compiled = new Map<string, RE2JS | PatternError>()
/** Instructions that a pattern may come to: each may be looked at for each letter of a text. */
const patternSize = 2000

/**
 * A pattern, ready to run. Scripts may be written as in ECMAScript, too: \p{Script=Han}.
 * @throws PatternError where it cannot be read, or is too large
 */
function compile(pattern: string, ignoreCase: boolean): RE2JS {
  const key = `${ignoreCase ? 'i' : ''}/${pattern}`
  let known = compiled.get(key)
  if (!known) {
    if (compiled.size > 500) compiled.clear()
    compiled.set(key, (known = compileAnew(pattern, ignoreCase)))
  }
  if (known instanceof PatternError) throw known
  return known
}

function compileAnew(pattern: string, ignoreCase: boolean): RE2JS | PatternError {
  let ready: RE2JS
  try {
    ready = RE2JS.compile(
      pattern.replace(/\\([pP])\{(?:Script|sc|scx|Script_Extensions|General_Category|gc)=/g, '\\$1{'),
      ignoreCase ? RE2JS.CASE_INSENSITIVE : 0,
    )
  } catch (error) {
    const said = (error as Error).message.replace(/^error parsing regexp: /, '')
    return new PatternError(
      /\(\?<?[=!]/.test(pattern)
        ? 'This pattern looks at what stands before or behind a match, which cannot be run in time ' +
            'that is bounded. Write what shall be taken itself.'
        : `This pattern cannot be read: ${said}.`,
    )
  }
  const size = ready.programSize()
  if (size <= patternSize) return ready
  return new PatternError(
    `This pattern would take too long: for each letter of a text it asks up to ${size.toLocaleString('en-GB')} ` +
      `questions, and ${patternSize.toLocaleString('en-GB')} are the most. Repeat less of it, or look for less at once.`,
  )
}

/** @throws PatternError */
export function checkPattern(pattern: string): void {
  compile(pattern, false)
}

/** A stretch of text that a rule takes. */
export interface RuleMatch {
  readonly rule: string
  readonly from: number
  readonly to: number
}

/** All matches of a pattern in a text, empty ones left out. @throws PatternError */
export function matchesOf(
  pattern: string,
  text: string,
  ignoreCase = false,
): { readonly from: number; readonly to: number }[] {
  const found: { from: number; to: number }[] = []
  const matcher = compile(pattern, ignoreCase).matcher(text)
  while (matcher.find()) if (matcher.end() > matcher.start()) found.push({ from: matcher.start(), to: matcher.end() })
  return found
}

/** A match with what its groups took, the whole first; null for a group that took nothing. */
export interface GroupedMatch {
  readonly from: number
  readonly to: number
  readonly groups: readonly (string | null)[] | null
}

const quotedPattern = (text: string) => text.replace(/[\\^$.*+?()[\]{}|/-]/g, '\\$&')

/** Words that are looked for, in a text: as they are or as a pattern, empty matches left out. @throws PatternError */
export function matchGroups(
  words: {
    readonly text: string
    readonly expression: boolean
    readonly matchCase: boolean
    readonly wholeWords: boolean
  },
  text: string,
): GroupedMatch[] {
  const found: GroupedMatch[] = []
  const matcher = compile(words.expression ? words.text : quotedPattern(words.text), !words.matchCase).matcher(text)
  const letter = (at: number) => /[\p{L}\p{N}\p{M}_]/u.test(text.slice(at, at + 1))
  while (matcher.find()) {
    const [from, to] = [matcher.start(), matcher.end()]
    if (to <= from || (words.wholeWords && ((letter(from - 1) && from > 0) || letter(to)))) continue
    found.push({
      from,
      to,
      groups: words.expression
        ? Array.from({ length: matcher.groupCount() + 1 }, (_, index) => matcher.group(index) ?? null)
        : null,
    })
  }
  return found
}

/** The first letter with the punctuation about it (CSS Pseudo-Elements 4, 2.2.1). */
const firstLetter =
  '^\\s*[\\p{Ps}\\p{Pe}\\p{Pi}\\p{Pf}\\p{Po}]*[\\p{L}\\p{N}\\p{S}]\\p{M}*[\\p{Ps}\\p{Pe}\\p{Pi}\\p{Pf}\\p{Po}]*'

/**
 * What a lead-in rule takes of a text; null where there is nothing. `lineEnd` is where the first line ends, where
 * that is known.
 * @throws PatternError
 */
export function leadInOf(
  rule: LeadInRule,
  text: string,
  lineEnd: number | null,
): { readonly from: number; readonly to: number } | null {
  const { what } = rule
  const start = text.length - text.trimStart().length
  const at = (to: number) => (to > start ? { from: start, to } : null)
  switch (what.kind) {
    case 'first-letter': {
      const [match] = matchesOf(firstLetter, text)
      return match ? at(match.to) : null
    }
    case 'first-line':
      return lineEnd === null
        ? null
        : at(Math.min(lineEnd, text.length) - (text.slice(0, lineEnd).length - text.slice(0, lineEnd).trimEnd().length))
    case 'words': {
      const match = new RegExp(`^\\s*\\S+(?:\\s+\\S+){0,${what.count - 1}}`).exec(text)
      return match ? at(match[0].length) : null
    }
    case 'through': {
      const found = text.indexOf(what.sign)
      return found < 0 ? null : at(found + what.sign.length)
    }
    case 'pattern': {
      const match = matchesOf(what.pattern, text).find(each => each.from <= start)
      return match ? at(match.to) : null
    }
  }
}

/**
 * What the rules of a paragraph take of its text: lead-ins first, then patterns in their order. Where two would take the
 * same text the first has it. A rule whose pattern cannot be run takes nothing.
 */
export function ruleMatches(
  text: string,
  patterns: readonly PatternRule[],
  leadIns: readonly LeadInRule[],
  lineEnd: number | null = null,
): RuleMatch[] {
  const taken: RuleMatch[] = []
  const put = (rule: string, from: number, to: number) => {
    // What is free of it, in pieces.
    let at = from
    for (const other of taken.filter(each => each.from < to && each.to > from).sort((a, b) => a.from - b.from)) {
      if (other.from > at) taken.push({ rule, from: at, to: other.from })
      at = Math.max(at, other.to)
    }
    if (at < to) taken.push({ rule, from: at, to })
  }
  const guarded = (run: () => void) => {
    try {
      run()
    } catch (error) {
      if (!(error instanceof PatternError)) throw error
    }
  }
  for (const rule of leadIns)
    if (rule.on)
      guarded(() => {
        const match = leadInOf(rule, text, lineEnd)
        if (match) put(rule.id, match.from, match.to)
      })
  for (const rule of patterns)
    if (rule.on)
      guarded(() => {
        for (const match of matchesOf(rule.pattern, text, rule.ignoreCase)) put(rule.id, match.from, match.to)
      })
  return taken.sort((a, b) => a.from - b.from)
}
