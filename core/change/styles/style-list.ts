import { roleOfStyle } from '../../census/style-roles'
import { resolutionOf } from '../../census/resolution'
import type { Slot } from '../../document/font-attributes'
import type { RoleId } from '../../document/rules'
import { decodeStyleName, nextStyle, type Style, type StyleScope } from '../../document/styles'
import type { Library } from '../../font/library'
import { describeHolder, describeValues } from '../../style/describe'
import { nameHint } from '../../style/roles'
import type { Composition } from '../../typeset/compose'
import type { TextStyle } from '../../style/cascade'
import type { Reading } from '../../style/reading'
import { isOfText, styleFamilies, type StyleFamily, type TextFamily } from '../../style/families'
import { isRuleStyle } from '../rules/rule-spans'
import { styleDetail, type StyleDetail } from './style-detail'
import { styleUses, type StyleUse } from './style-uses'

/** How text of a style looks, for drawing its name in itself. */
export interface StyleLook {
  readonly face: string
  readonly family: string
  readonly status: string
  readonly size: number
  readonly weight: number
  readonly italic: boolean
  readonly color: string
  readonly tracking: string
  readonly case: string
  readonly decoration: string
}

/** A named style, with what it does in the document. */
export interface StyleSummary<F extends StyleFamily = StyleFamily> {
  readonly family: F
  readonly name: string
  readonly displayName: string
  readonly parent: string | null
  /** How many parents it has. */
  readonly depth: number
  readonly next: string | null
  readonly paragraphs: number
  readonly characters: number
  readonly settledCharacters: number
  readonly pages: readonly number[]
  readonly role: RoleId | null
  /** The role is worked out, not confirmed. */
  readonly proposed: boolean
  readonly author: string
  /** How it departs from its parent, in a sentence. */
  readonly sentence: string
  /** Parts of table templates that it is, in words: “first row of Timetable”. */
  readonly templateParts: readonly string[]
  /** Why its name says nothing; null where it does. */
  readonly hint: string | null
  readonly rules: number
  readonly look: StyleLook
}

/** What the summaries of all styles share. */
interface Listing {
  readonly reading: Reading
  readonly library: Library
  readonly scope: StyleScope
  readonly uses: ReadonlyMap<Style, StyleUse>
}

/** Named styles of the document. Those of rules and of corrected pairs are left out: they belong to what made them. */
export function listedStyles({ cascade }: Reading): Style[] {
  const ofPairs = new Set(cascade.rules.pairStyles.map(each => each.style))
  return [...([...cascade.scopes.values()].at(-1)?.common.values() ?? [])].filter(
    style =>
      styleFamilies.some(family => family === style.family) && !isRuleStyle(style.name) && !ofPairs.has(style.name),
  )
}

/** Named styles of the document by family, parents before their children. */
export function listStyles(reading: Reading, library: Library, composition: Composition | null): StyleSummary[] {
  const scope = [...reading.cascade.scopes.values()].at(-1)
  if (!scope) return []
  const uses = styleUses(reading, composition)
  const styles = listedStyles(reading)
  const listing: Listing = { reading, library, scope, uses }
  return styleFamilies.flatMap(family => inOrder(listing, styles, family))
}

/** Styles of a family by name, each followed by its children. What is its own ancestor is listed once, or not at all. */
function inOrder(listing: Listing, styles: readonly Style[], family: StyleFamily): StyleSummary[] {
  const children = new Map<string | null, Style[]>()
  for (const style of styles) {
    if (style.family !== family) continue
    const known = style.parentName !== null && parentOf(listing.scope, style) !== undefined
    const parent = known ? style.parentName : null
    children.set(parent, [...(children.get(parent) ?? []), style])
  }
  const listed: StyleSummary[] = []
  const seen = new Set<Style>()
  const list = (parent: string | null, depth: number): void => {
    const own = [...(children.get(parent) ?? [])].sort((a, b) => a.displayName.localeCompare(b.displayName))
    for (const style of own) {
      if (seen.has(style)) continue
      seen.add(style)
      listed.push(summaryOf(listing, style, family, depth))
      list(style.name, depth + 1)
    }
  }
  list(null, 0)
  return listed
}

const parentOf = (scope: StyleScope, style: Style): Style | undefined =>
  style.parentName === null ? undefined : scope.common.get(`${style.family}\n${style.parentName}`)

function summaryOf(listing: Listing, style: Style, family: StyleFamily, depth: number): StyleSummary {
  const { reading, scope, uses } = listing
  const { rules } = reading.cascade
  const use = uses.get(style)
  const parent = parentOf(scope, style)
  const look = lookOf(listing, style)
  const kept = rules.styles.find(each => each.style.family === family && each.style.name === style.name)
  const isOf = (rule: { readonly style: string }) => family === 'paragraph' && rule.style === style.name
  return {
    family,
    name: style.name,
    displayName: style.displayName,
    parent: parent?.name ?? null,
    depth,
    next: nextStyle(style),
    paragraphs: use?.paragraphs ?? 0,
    characters: use?.characters ?? 0,
    settledCharacters: use?.settled ?? 0,
    pages: [...(use?.pages ?? [])].sort((a, b) => a - b),
    role: kept?.role ?? (family === 'text' ? null : roleOfStyle(reading, style)),
    proposed: kept?.role === undefined,
    author: kept?.author ?? '',
    sentence: sentenceOf(
      [...describeValues(style.text, style.paragraph, scope), ...describeHolder({ ...style.graphic, ...style.cell })],
      parent?.displayName,
    ),
    templateParts: family === 'table-cell' ? templatePartsOf(scope, style.name) : [],
    hint: nameHint(style.displayName),
    rules: rules.patterns.filter(isOf).length + rules.leadIns.filter(isOf).length,
    look,
  }
}

/** Which parts of table templates go by a cell style (table:table-template, ODF 1.4 part 3, 16.18). */
const templatePartsOf = ({ templates }: StyleScope, name: string): string[] =>
  [...templates].flatMap(([template, parts]) =>
    Object.entries(parts).flatMap(([part, style]) =>
      style === name ? [`${part.replaceAll('-', ' ')} of ${decodeStyleName(template)}`] : [],
    ),
  )

function sentenceOf(words: readonly string[], parent: string | undefined): string {
  if (words.length === 0) return parent === undefined ? 'Says nothing of its own.' : `As ${parent}.`
  return parent === undefined ? `${words.join(', ')}.` : `As ${parent}, but ${words.join(', ')}.`
}

/** How text of a style looks: in its Asian font where it names that alone. */
function lookOf({ reading, library, scope }: Listing, style: Style): StyleLook {
  const text = reading.cascade.named(scope.part.path, style.family, style.name)
  const asian = style.text['style:font-name-asian'] !== undefined && style.text['style:font-name'] === undefined
  return drawnLook(library, text, asian ? 'asian' : 'western')
}

/** How text of a slot looks, for drawing a name in it. */
export function drawnLook(library: Library, text: TextStyle, slot: Slot): StyleLook {
  const { font, size, weight, posture } = text.effective.slots[slot]
  const resolution = resolutionOf(library, text, slot)
  const { shared } = text.effective
  const struck = shared['style:text-line-through-style'] !== 'none' ? 'line-through' : ''
  return {
    face: resolution.face.hash,
    family: font.family,
    status: resolution.status,
    size,
    weight,
    italic: posture !== 'normal',
    color: /^#[0-9a-f]{6}$/i.test(shared['fo:color']) ? shared['fo:color'] : '',
    tracking: shared['fo:letter-spacing'],
    case: shared['fo:font-variant'] === 'small-caps' ? 'small-caps' : shared['fo:text-transform'],
    decoration: shared['style:text-underline-style'] !== 'none' ? 'underline' : struck,
  }
}

/** A style with its summary, laid open. */
export interface ListedStyle {
  readonly summary: StyleSummary<TextFamily>
  readonly detail: StyleDetail
}

/** All named styles laid open, for taking some of them over into another document. */
export function layOpen(reading: Reading, library: Library): ListedStyle[] {
  return listStyles(reading, library, null).flatMap(summary => {
    if (!isOfText(summary)) return []
    const detail = styleDetail(reading, summary.family, summary.name)
    return detail ? [{ summary, detail }] : []
  })
}
