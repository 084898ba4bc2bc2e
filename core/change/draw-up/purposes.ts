import type { Role } from '../../document/rules'
import { fontAttributes } from '../../document/font-attributes'
import type { Holder, Paragraph, Place } from '../../document/story-model'
import { isFixedPitch } from '../../style/fixed-pitch'
import { contentsEntry, isMuchText, sizeRatio } from '../../style/roles'
import { points } from '../../document/lengths'
import { slotAttributes, weightNumber } from '../../style/properties'
import type { DrawnParagraph, Gathered } from './gather'
import type { Look } from './look'
import type { DrawnStyle } from './model'

/** What text of a drawn style is for. */
export type Purpose =
  | {
      readonly kind:
        | 'title'
        | 'body'
        | 'intro'
        | 'list'
        | 'caption'
        | 'code'
        | 'table'
        | 'table head'
        | 'note'
        | 'header'
        | 'label'
        | 'contents'
    }
  /** 1 to 10. */
  | { readonly kind: 'heading'; readonly level: number }

/** The role that goes with a purpose. */
export function roleOf(purpose: Purpose): Role {
  switch (purpose.kind) {
    case 'title':
      return 'display'
    case 'heading':
      return purpose.level === 1 ? 'heading' : 'subheading'
    case 'intro':
      return 'lead'
    case 'list':
    case 'body':
      return 'body'
    case 'caption':
      return 'caption'
    case 'table':
      return 'data'
    case 'table head':
    case 'header':
    case 'label':
    case 'contents':
      return 'label'
    case 'note':
      return 'note'
    case 'code':
      return 'code'
  }
}

/** What is measured of the text of a style. */
interface Signs {
  readonly style: DrawnStyle
  readonly size: number
  readonly weight: number
  readonly capitals: boolean
  readonly fixed: boolean
  readonly filled: readonly DrawnParagraph[]
  readonly characters: number
  /** Its share of all text, 0 to 1. */
  readonly share: number
  /** Letters of a paragraph, at the median. */
  readonly length: number
  /** The deepest level that its headings have in the file already; null for none. */
  readonly level: number | null
  /** Where most of it stands. */
  readonly place: Place
  /** It heads tables. */
  readonly heads: boolean
  /** Share of its paragraphs that are … */
  readonly inLists: number
  /** … followed by text of another style, … */
  readonly followed: number
  /** … without a full stop at the end, … */
  readonly open: number
  /** … and that begin like a caption. */
  readonly captions: number
  /** Its first paragraph among all that have text, from 0. */
  readonly first: number
  readonly numbered: number | null
  /** Share of its paragraphs that end in a page number behind a tab: entries of a list of contents. */
  readonly entries: number
}

/** What captions begin with, in the languages that styles are named in. */
const captionWords =
  'fig(?:ure|\\.)?|tab(?:le|\\.)?|abb(?:ildung|\\.)?|tabelle|tableau|illustration|figura|tabella|tabela|' +
  'rys(?:unek|\\.)?|figuur|afbeelding|tabel|figură|listing|example|photo|foto|図|表'
const captionStart = new RegExp(`^\\s*(?:${captionWords})\\s*[\\d.:–-]+`, 'i')
const unordered = /^\s*(\d+(?:\.\d+)*)\.?\s+\S/

const sizeOf = (look: Look): number => points(look[slotAttributes.western.size]) ?? 12
const median = (values: readonly number[]): number => [...values].sort((a, b) => a - b)[values.length >> 1] ?? 0
const shareOf = <T>(list: readonly T[], is: (each: T) => boolean): number =>
  list.length === 0 ? 0 : list.filter(is).length / list.length

/** Reading order of paragraphs that have text, with the style each gets. */
function orderOf(gathered: Gathered, styles: readonly DrawnStyle[]) {
  const of = new Map(styles.flatMap(style => style.members.map(member => [member, style] as const)))
  return gathered.paragraphs
    .filter(each => each.characters > 0)
    .map(member => ({ member, style: of.get(member) ?? null }))
}

/** Where a paragraph stands; a table of a deck stands in a frame. */
const placeOf = ({ place, holder }: Paragraph): Place =>
  place === 'frame' && holder?.kind === 'cell' ? 'table' : place

/** Whether most text stands in rows that head their tables by markup, or nearly all in the first of several rows. */
const headsTables = (holders: readonly Holder[]): boolean =>
  shareOf(holders, each => each.kind === 'cell' && each.heading) > 0.5 ||
  shareOf(holders, each => each.kind === 'cell' && each.first) > 0.9

function signsOf(gathered: Gathered, styles: readonly DrawnStyle[]): Signs[] {
  const order = orderOf(gathered, styles)
  const at = new Map(order.map(({ member }, index) => [member, index]))
  const all = gathered.paragraphs.reduce((sum, { characters }) => sum + characters, 0)
  return styles.map(style => {
    const filled = style.members.filter(member => member.characters > 0)
    const characters = filled.reduce((sum, member) => sum + member.characters, 0)
    const places = new Map<Place, number>()
    for (const { paragraph } of filled) {
      const at = placeOf(paragraph)
      places.set(at, (places.get(at) ?? 0) + 1)
    }
    const [place] = [...places].sort((a, b) => b[1] - a[1])[0] ?? ['body' as const]
    const levels = filled.flatMap(({ paragraph }) => (paragraph.heading === null ? [] : [paragraph.heading]))
    const numbers = filled.flatMap(({ text }) => unordered.exec(text)?.[1]?.split('.').length ?? [])
    const { effective } = style.members[0]!.voice
    const { font } = effective.slots.western
    return {
      style,
      size: sizeOf(style.look),
      weight: weightNumber(style.look[slotAttributes.western.weight]),
      capitals:
        style.look['fo:text-transform'] === 'uppercase' ||
        shareOf(filled, ({ text }) => text === text.toUpperCase() && /\p{Lu}/u.test(text)) > 0.8,
      fixed: isFixedPitch(font),
      filled,
      characters,
      share: characters / Math.max(all, 1),
      length: median(filled.map(member => member.characters)),
      level: levels.length * 2 > filled.length ? median(levels) : null,
      inLists: shareOf(filled, ({ paragraph }) => paragraph.list !== null),
      place,
      heads: headsTables(filled.flatMap(({ paragraph }) => paragraph.holder ?? [])),
      followed: shareOf(filled, member => {
        const next = order[at.get(member)! + 1]
        return next !== undefined && next.style !== style
      }),
      open: shareOf(filled, ({ text }) => !/[.;,。．]\s*$/.test(text)),
      captions: shareOf(filled, ({ text }) => captionStart.test(text)),
      first: Math.min(...filled.map(member => at.get(member)!), Infinity),
      entries: shareOf(filled, ({ text }) => contentsEntry.test(text)),
      numbered: numbers.length * 2 > filled.length ? median(numbers) : null,
    }
  })
}

/** Size and weight of the text that most of a document is: what all else is held against. */
function bodyOf(gathered: Gathered): {
  readonly size: number
  readonly weight: number
  readonly characters: number
  readonly key: string
} {
  const counts = new Map<string, { size: number; weight: number; characters: number }>()
  const read = gathered.paragraphs.filter(({ paragraph }) => paragraph.place === 'body' || paragraph.place === 'frame')
  // Text of programs is none that all else is held against, unless there is no other.
  const words = read.filter(({ voice }) => !isFixedPitch(voice.effective.slots.western.font))
  for (const { look, characters } of words.some(each => each.characters > 0) ? words : read) {
    const size = sizeOf(look)
    const weight = weightNumber(look[slotAttributes.western.weight])
    const key = `${size}|${weight}|${look[fontAttributes.western.name] ?? ''}`
    const known = counts.get(key) ?? { size, weight, characters: 0 }
    known.characters += characters
    counts.set(key, known)
  }
  const [best] = [...counts].sort((a, b) => b[1].characters - a[1].characters)
  return best ? { ...best[1], key: best[0] } : { size: 12, weight: 400, characters: 0, key: '' }
}

/**
 * What the text of each drawn style is for, by its size and weight against the text that most of the document is, its
 * length, where it stands and what follows it. The steps are those of a printers' scale, whose neighbours are about 1.12
 * apart (Bringhurst, The Elements of Typographic Style, 3.1).
 */
export function purposesOf(gathered: Gathered, styles: readonly DrawnStyle[]): ReadonlyMap<DrawnStyle, Purpose> {
  const body = bodyOf(gathered)
  const signs = signsOf(gathered, styles)
  const purposes = new Map<DrawnStyle, Purpose>()
  const headings: Signs[] = []
  for (const each of signs) {
    const purpose = plainPurpose(each, body)
    if (purpose === null) headings.push(each)
    else purposes.set(each.style, purpose)
  }
  const opening = openingAmong(headings, body.size)
  for (const each of opening) purposes.set(each.style, { kind: 'title' })
  const others = headings.filter(each => !opening.has(each))
  for (const [style, level] of levelsOf(others)) purposes.set(style, { kind: 'heading', level })
  return purposes
}

/** What text is for that is no heading; null for a heading. */
function plainPurpose(signs: Signs, body: { readonly size: number; readonly weight: number }): Purpose | null {
  const { place, length, size, weight, fixed, inLists, level, captions, open, followed, capitals } = signs
  if (level !== null) return null
  if (place === 'note') return { kind: 'note' }
  if (place === 'header') return { kind: 'header' }
  if (signs.entries >= 0.5) return { kind: 'contents' }
  if (fixed && inLists < 0.5) return { kind: 'code' }
  if (place === 'table') {
    const stands = weight >= 600 && body.weight < 600
    return length < 60 && (stands || signs.heads) ? { kind: 'table head' } : { kind: 'table' }
  }
  if (captions >= 0.5) return { kind: 'caption' }
  const ratio = sizeRatio(size, body.size)
  const stands = ratio >= 1.1 || (weight >= 600 && body.weight < 600) || (capitals && length < 60)
  if (stands && length > 0 && length < 100 && open >= 0.6 && followed >= (inLists >= 0.5 ? 0.8 : 0.5)) return null
  if (inLists >= 0.5) return { kind: 'list' }
  if (ratio >= 1.06 && length >= 90 && signs.filled.length <= 4 && signs.first < 12) return { kind: 'intro' }
  // What much of a document is set in is read as its text is: a paper within a book.
  const isAside = ratio <= 0.9 && !(place === 'body' && isMuchText(signs.share, signs.characters))
  if (isAside) return length < 160 ? { kind: 'caption' } : { kind: 'note' }
  return place === 'frame' && length < 40 ? { kind: 'label' } : { kind: 'body' }
}

/**
 * What stands on a title page: headings that come once or twice in front of all that come again, and what is larger than
 * all others at the very beginning.
 */
function openingAmong(headings: readonly Signs[], body: number): ReadonlySet<Signs> {
  const again = headings.filter(each => each.filled.length > 2 || each.level !== null)
  const begins = Math.min(...again.map(each => each.first), Infinity)
  const largest = Math.max(...again.map(each => each.size), 0)
  return new Set(
    headings.filter(
      ({ filled, first, level, size }) =>
        level === null &&
        filled.length <= 2 &&
        size >= body * 1.1 &&
        (first < begins && first < 40 ? again.length > 0 || size >= body * 1.4 : first < 8 && size > largest * 1.05),
    ),
  )
}

/** Sizes that are so near are one step of a hierarchy. */
const sameStep = 1.03

/**
 * Levels of headings: what the file says of some, and for all others by size and weight. Headings
 * that differ in colour or indents alone share a level; those that come seldom take that of the nearest that come
 * often.
 */
function levelsOf(headings: readonly Signs[]): Map<DrawnStyle, number> {
  // Numbers of their own tell apart what looks alike; by themselves they say nothing of headings that have none.
  const rank = ({ size, weight, capitals, numbered }: Signs) =>
    Math.round(Math.log(size) / Math.log(sameStep)) * 40 +
    (weight >= 600 ? 20 : 0) +
    (capitals ? 10 : 0) -
    Math.min(numbered ?? 1, 9)
  const most = Math.max(...headings.map(each => each.filled.length), 0)
  const often = headings.filter(each => each.filled.length >= Math.max(2, most / 10))
  const steps = [...new Set((often.length > 0 ? often : headings).map(rank))].sort((a, b) => b - a)
  const nearest = (own: number) =>
    steps.reduce((best, step, at) => (Math.abs(step - own) < Math.abs(steps[best]! - own) ? at : best), 0) + 1
  const levels = new Map<DrawnStyle, number>()
  for (const each of headings) levels.set(each.style, Math.min(each.level ?? nearest(rank(each)), 10))
  return levels
}
