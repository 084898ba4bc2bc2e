import type { CatalogueEntry } from '../catalogue'
import { nameKey, slipsBetween } from '../near-names'
import { looks, type Look } from './looks'
import { boundsSaid, readMeasure } from './measures'

/** How much of a look is asked for. */
export type Amount = 'so' | 'very' | 'a bit' | 'not'

/** One thing that a search asks, as it was understood. */
export interface SearchPart {
  /** The words it was read from: taking them out of what was typed takes the part away. */
  readonly words: string
  readonly from: number
  readonly to: number
  readonly kind: 'look' | 'measure' | 'name' | 'unknown'
  /** What it was taken to mean. */
  readonly said: string
}

interface Read extends SearchPart {
  degree(entry: CatalogueEntry): number
}

export interface SearchResult {
  readonly parts: readonly SearchPart[]
  /** Families that answer every part, the most fitting first. */
  readonly found: readonly CatalogueEntry[]
}

/** Longer searches are cut. */
export const searchLimit = 300

const bare: ReadonlySet<string> = new Set(
  'a an and the with of for in on but or , ; . face faces font fonts typeface typefaces family something one'.split(
    ' ',
  ),
)
const amounts: readonly (readonly [string, Amount])[] = [
  ['a little bit', 'a bit'],
  ['a little', 'a bit'],
  ['a bit', 'a bit'],
  ['slightly', 'a bit'],
  ['somewhat', 'a bit'],
  ['rather', 'so'],
  ['quite', 'so'],
  ['very', 'very'],
  ['extremely', 'very'],
  ['extra', 'very'],
  ['not too', 'not'],
  ['not very', 'not'],
  ['not', 'not'],
  ['no', 'not'],
  ['without', 'not'],
]
/** Longest first, so that “slab serif” is not read as “serif”. */
const phrases: readonly (readonly [string, Look])[] = looks
  .flatMap(look => look.words.map((words): readonly [string, Look] => [words, look]))
  .sort(([one], [other]) => other.length - one.length)

const startsWithWord = (text: string, word: string): boolean =>
  text.startsWith(word) && !/^[\p{L}\p{N}-]/u.test(text.slice(word.length))

const saidWith: Readonly<Record<Amount, (said: string) => string>> = {
  so: said => said,
  very: said => `very ${said}`,
  'a bit': said => `a bit ${said}`,
  not: said => `not ${said}`,
}
const degreeWith: Readonly<Record<Amount, (degree: number) => number>> = {
  so: degree => degree,
  very: degree => degree - 0.5,
  // A bit of it is some, the less the better, down to where it cannot be seen.
  'a bit': degree => (degree < 0.25 ? 0 : degree > 0.9 ? 0.5 : 1 - Math.abs(degree - 0.5)),
  not: degree => 1 - Math.min(degree, 1),
}

/** A measure, or a look with its amount, at a place of what was typed. */
function readAt(text: string, from: number): Read | null {
  const rest = text.slice(from)
  const measure = readMeasure(rest)
  if (measure) {
    const { least, most } = measure.bounds
    return {
      words: rest.slice(0, measure.length),
      from,
      to: from + measure.length,
      kind: 'measure',
      said: boundsSaid(measure),
      degree: entry => {
        const value = measure.measure.of(entry)
        return value !== null && (least === null || value >= least) && (most === null || value <= most) ? 1 : 0
      },
    }
  }
  const whole = phrases.find(([words]) => startsWithWord(rest, words))
  const amount = whole ? undefined : amounts.find(([words]) => startsWithWord(rest, words))
  const skip = amount ? amount[0].length + (/^\s*/.exec(rest.slice(amount[0].length))?.[0].length ?? 0) : 0
  const found = whole ?? phrases.find(([words]) => startsWithWord(rest.slice(skip), words))
  if (!found) return null
  const [words, look] = found
  const how = amount?.[1] ?? 'so'
  return {
    words: rest.slice(0, skip + words.length),
    from,
    to: from + skip + words.length,
    kind: 'look',
    said: saidWith[how](look.said),
    degree: entry => degreeWith[how](look.degree(entry)),
  }
}

/** Words that are no look are a name, or a part of one. Names that nobody has are nearly somebody's, or unknown. */
function nameOf(words: string, from: number, entries: readonly CatalogueEntry[]): Read {
  const key = nameKey(words)
  const to = from + words.length
  const within = (entry: CatalogueEntry) => nameKey(entry.family).includes(key)
  if (entries.some(within))
    return {
      words,
      from,
      to,
      kind: 'name',
      said: `called “${words}”`,
      degree: entry => {
        const name = nameKey(entry.family)
        // The whole name before its beginning, and that before what holds it.
        return name === key ? 2 : name.startsWith(key) ? 1 : name.includes(key) ? 0.8 : 0
      },
    }
  const limit = key.length < 5 ? 1 : 2
  const near = (entry: CatalogueEntry) =>
    [nameKey(entry.family), ...entry.family.split(' ').map(nameKey)].some(
      name => slipsBetween(name, key, limit) <= limit,
    )
  if (entries.some(near))
    return { words, from, to, kind: 'name', said: `called nearly “${words}”`, degree: entry => (near(entry) ? 0.9 : 0) }
  return {
    words,
    from,
    to,
    kind: 'unknown',
    said: `“${words}” is no name here and no word for a look`,
    degree: () => 1,
  }
}

/** What was typed, taken apart. Names are looked for among the entries. */
function read(typed: string, entries: readonly CatalogueEntry[]): Read[] {
  const text = typed.slice(0, searchLimit).toLowerCase()
  const parts: Read[] = []
  const open: { name: { readonly from: number; readonly to: number } | null } = { name: null }
  const endName = () => {
    if (open.name) parts.push(nameOf(typed.slice(open.name.from, open.name.to), open.name.from, entries))
    open.name = null
  }
  for (let at = 0; at < text.length;) {
    const space = /^[\s,;]+/.exec(text.slice(at))?.[0].length ?? 0
    if (space > 0) {
      if (/[,;]/.test(text.slice(at, at + space))) endName()
      at += space
      continue
    }
    const word = /^[^\s,;]+/.exec(text.slice(at))![0]
    // A family called as a look is called (“Work Sans”) is meant by its whole name.
    const whole = wholeNameAt(text, at, entries)
    const part = whole === null ? readAt(text, at) : null
    if (whole !== null) {
      endName()
      parts.push(nameOf(typed.slice(at, at + whole), at, entries))
      at += whole
    } else if (part) {
      endName()
      parts.push(part)
      at = part.to
    } else if (bare.has(word) && open.name === null) at += word.length
    else {
      open.name = { from: open.name?.from ?? at, to: at + word.length }
      at += word.length
    }
  }
  endName()
  return parts
}

function wholeNameAt(text: string, at: number, entries: readonly CatalogueEntry[]): number | null {
  const rest = text.slice(at)
  let most: number | null = null
  for (const { family } of entries) {
    const name = family.toLowerCase()
    if (name.includes(' ') && startsWithWord(rest, name) && (most === null || name.length > most)) most = name.length
  }
  return most
}

/** From this degree on a family counts as answering a part. */
const answers = 0.5

/**
 * Families by name, class, look, figures, scripts and uses together: “rough condensed”, “humanist sans x-height over 520”,
 * “two-storey a, old-style figures, Cyrillic”. Says how each part was understood; what was not understood limits nothing.
 */
export function search(entries: readonly CatalogueEntry[], typed: string): SearchResult {
  const parts = read(typed, entries)
  if (parts.length === 0) return { parts: [], found: entries }
  const found = entries
    .map(entry => ({ entry, degrees: parts.map(part => part.degree(entry)) }))
    .filter(({ degrees }) => degrees.every(degree => degree >= answers))
    .map(({ entry, degrees }) => ({ entry, sum: degrees.reduce((sum, degree) => sum + degree, 0) }))
    .sort(
      (a, b) =>
        b.sum - a.sum ||
        // Of equals, what has more to choose from.
        b.entry.faces.length - a.entry.faces.length ||
        a.entry.family.localeCompare(b.entry.family),
    )
    .map(({ entry }) => entry)
  return { parts: parts.map(({ words, from, to, kind, said }) => ({ words, from, to, kind, said })), found }
}

/** What was typed without one of its parts. */
export function withoutPart(typed: string, { from, to }: Pick<SearchPart, 'from' | 'to'>): string {
  return `${typed.slice(0, from)} ${typed.slice(to)}`
    .replace(/\s*([,;])(?:\s*[,;])+/g, '$1')
    .replace(/^[\s,;]+|[\s,;]+$/g, '')
    .replace(/\s+/g, ' ')
}
