import type { Role } from '../document/rules'

/** What is known of a style's text. */
export interface RoleSigns {
  readonly name: string
  /** Points, and those of the style that most text has. */
  readonly size: number
  readonly bodySize: number
  readonly bold: boolean
  readonly characters: number
  readonly paragraphs: number
  /** It is the style with the most text. */
  readonly most: boolean
  /** Its share of all text, 0 to 1. */
  readonly share: number
  /** It is set in a face of one width. */
  readonly fixed: boolean
  /** Outline level of its headings; null for none. */
  readonly level: number | null
  /** The first level that sections of the document have. */
  readonly topLevel: number
  /** Its headings stand once, in front of everything, and sections have deeper levels: they are the title. */
  readonly opens: boolean
  /** Share of its paragraphs that end in the number of a page, behind a tab: entries of a list of contents. */
  readonly entries: number
  /** Where most of its text stands. */
  readonly place: string
}

/** What a name says outright. */
const nameRoles: readonly (readonly [RegExp, Role])[] = [
  [/(?<!\p{L})(code|verbatim|listing|preformatted|source|quell(code|text))(?!\p{L})/iu, 'code'],
  [/\b(table|tabellen) ?(heading|header|head|überschrift)\b/i, 'label'],
  [/\b(contents|index|verzeichnis|sommaire|indice|índice) \d+\b/i, 'label'],
  [/\b(lead|intro(duction)?|standfirst|vorspann|chapeau)\b/i, 'lead'],
  [/\b(caption|legend|bildunterschrift|beschriftung)\b/i, 'caption'],
  [/\b(foot|end)?notes?\b|\bfu(ß|ss)note/i, 'note'],
  [/\bsub(title|heading|head)\b|\b(heading|überschrift|titre) [2-9]\b/i, 'subheading'],
  [/\btitle\b|\btitel\b/i, 'display'],
  [/\b(heading|überschrift|titre)\b/i, 'heading'],
  [/\b(table|timetable|figures|cell|tabelle)\b/i, 'data'],
  [/\b(header|footer|label|folio|kopfzeile|fu(ß|ss)zeile)\b/i, 'label'],
]

/** The role that a name says outright; null where it says none. */
export const roleByName = (name: string): Role | null => nameRoles.find(([pattern]) => pattern.test(name))?.[1] ?? null

/** Entries of a list of contents end in the number of a page, behind a tab. */
export const contentsEntry = /\t\s*[\divxlc]+\s*$/i

/** Whether there is so much small text that it is no aside: by its share of all text, and by its characters. */
export const isMuchText = (share: number, characters: number): boolean => share >= 0.04 && characters >= 3_000

/** How much larger a size is than the body's, to a thousandth: 11.2 points are 1.12 times ten, whatever fractions a computer has. */
export const sizeRatio = (size: number, bodySize: number): number => Math.round((size / bodySize) * 1000) / 1000

/**
 * What text of a style probably does, from its name where that says it, else from its size against the body's, its
 * length and its place; null where there is nothing to go by. The steps are those of a printers' scale, whose
 * neighbours are about 1.12 apart (Bringhurst, The Elements of Typographic Style, 3.1).
 */
export function proposeRole({
  name,
  size,
  bodySize,
  bold,
  characters,
  paragraphs,
  most,
  share,
  fixed,
  level,
  topLevel,
  opens,
  entries,
  place,
}: RoleSigns): Role | null {
  const heading = (): Role => (opens ? 'display' : level! <= topLevel ? 'heading' : 'subheading')
  if (characters === 0 || paragraphs === 0) return level === null ? null : heading()
  if (level !== null && (opens || level <= topLevel)) return heading()
  const named = roleByName(name)
  if (named) return named
  if (level !== null) return 'subheading'
  const ratio = sizeRatio(size, bodySize)
  const length = characters / paragraphs
  if (place === 'note') return 'note'
  if (place === 'header' || place === 'chart') return 'label'
  if (entries >= 0.5) return 'label'
  if (place === 'table') return 'data'
  if (most) return 'body'
  if (fixed) return 'code'
  if (ratio >= 2.2 && length < 90) return 'display'
  if (ratio >= 1.4 && length < 120) return 'heading'
  if (ratio >= 1.12) return length < 90 ? 'subheading' : 'lead'
  // What much of a document is set in is read as its text is: a paper within a book.
  if (ratio <= 0.9 && !(place === 'body' && isMuchText(share, characters))) return length < 160 ? 'caption' : 'note'
  if (bold && length < 90) return 'subheading'
  return length < 40 && place === 'frame' ? 'label' : 'body'
}

/** What a role is called on screen: the stored `lead` is shown as intro. */
export const roleTitle = (role: string): string => (role === 'lead' ? 'intro' : role)

/** Why a name says nothing of what a style is for; null where it does. */
export function nameHint(displayName: string): string | null {
  if (
    /^(new |untitled |unnamed )?(style|stil|absatz|para(graph)?|text)[ _-]*\d*$/i.test(displayName) ||
    /^(new |untitled |unnamed )?(char(acter)?|zeichen|format(vorlage)?|untitled|unnamed)[ _-]*\d*$/i.test(
      displayName,
    ) ||
    /^[a-z]{1,2}\d+$/i.test(displayName)
  )
    return 'says nothing of what it is for'
  if (/^(copy of|kopie von)\b|\b(copy|kopie)( ?\d+)?$/i.test(displayName)) return 'says only where it came from'
  if (/\b\d+([.,]\d+)? ?(pt|px|mm)\b|\b(bold|italic|red|blue|green|grey|gray)\b/i.test(displayName))
    return 'says how it looks, which may change'
  if (/^WW-|_20_|^_/.test(displayName)) return 'carries the traces of a conversion'
  return null
}
