import type { Change, Draft } from '../../document/draft'
import { isParagraph, openParagraph, type OpenParagraph } from '../../document/paragraph-spots'
import type { LeadInRule, PatternRule, Rules } from '../../document/rules'
import { reachesBeyond, spansAround, spansBy, styleNameAt } from '../../document/span-places'
import { unwrapSpan, wrapRange } from '../../document/spans'
import { findStyle, withParents, type StyleScope } from '../../document/styles'
import { groupOfAttribute } from '../../style/groups'
import { ruleMatches } from '../../style/rule-matching'

/*
 * Rules as spans: every other reader shows what a rule does. A rule has one text style, child of its character style;
 * by that style's name its spans are known again.
 */

const prefix = 'Rule_20_'

/** The name of a rule's text style. */
export const ruleStyleName = (id: string): string => `${prefix}${id}`

/** Whether a text style is that of a rule. */
export const isRuleStyle = (name: string): boolean => /^Rule_20_[a-z0-9]{1,12}$/.test(name)

/** Whether there is any rule that could act. */
export const hasRules = (rules: Rules): boolean => rules.patterns.length + rules.leadIns.length > 0

/** The rules that hold for a paragraph: those of its style and of the styles that one descends from. */
export function rulesFor(
  rules: Rules,
  scope: StyleScope,
  styleName: string | null,
): { readonly patterns: readonly PatternRule[]; readonly leadIns: readonly LeadInRule[] } {
  const style = styleName === null ? undefined : findStyle(scope, 'paragraph', styleName)
  const names = new Set(style ? withParents(scope, style).map(each => each.name) : [])
  return {
    patterns: rules.patterns.filter(rule => names.has(rule.style)),
    leadIns: rules.leadIns.filter(rule => names.has(rule.style)),
  }
}

interface Piece {
  readonly from: number
  readonly to: number
  readonly rule: string
}

const ruleOf = (open: OpenParagraph, span: number): string | null => {
  const name = styleNameAt(open.part, span) ?? ''
  return isRuleStyle(name) ? name.slice(prefix.length) : null
}

/** What rule spans there are, neighbours joined. */
function presentPieces(open: OpenParagraph): Piece[] {
  const found: Piece[] = []
  for (const piece of open.pieces) {
    if (piece.end === piece.start) continue
    const span = spansAround(open, piece).find(id => ruleOf(open, id) !== null)
    if (span !== undefined) join(found, { from: piece.start, to: piece.end, rule: ruleOf(open, span)! })
  }
  return found
}

function join(into: Piece[], piece: Piece): void {
  const last = into.at(-1)
  if (last && last.rule === piece.rule && last.to === piece.from) into[into.length - 1] = { ...last, to: piece.to }
  else into.push(piece)
}

/** Groups of properties that the style of a span speaks of. */
function groupsOf(scope: StyleScope, name: string | null | undefined): Set<string> {
  const style = name == null ? undefined : findStyle(scope, 'text', name)
  const groups = new Set<string>()
  for (const each of style ? withParents(scope, style) : [])
    for (const attribute in each.text) {
      const group = groupOfAttribute(attribute)
      if (group !== undefined && group !== 'revision') groups.add(group)
    }
  return groups
}

/**
 * What rules take, without what may not be in their spans: frames, notes, fields taken in part, and text in spans made
 * by hand that reach beyond the match and speak of what the rule speaks of: there the hand wins.
 */
function wantedPieces(
  open: OpenParagraph,
  scope: StyleScope,
  matches: readonly Piece[],
  characters: ReadonlyMap<string, string>,
): Piece[] {
  const wanted: Piece[] = []
  for (const match of matches) {
    const own = groupsOf(scope, characters.get(match.rule))
    for (const piece of open.pieces) {
      const from = Math.max(piece.start, match.from)
      const to = Math.min(piece.end, match.to)
      if (from >= to || piece.kind === 'frame' || piece.kind === 'note') continue
      if (piece.field !== null && (from > piece.start || to < piece.end)) continue
      const beyond = spansAround(open, piece).filter(
        id => ruleOf(open, id) === null && reachesBeyond(open, id, match.from, match.to),
      )
      if (beyond.some(id => [...groupsOf(scope, styleNameAt(open.part, id))].some(group => own.has(group)))) continue
      join(wanted, { from, to, rule: match.rule })
    }
  }
  return wanted
}

const same = (one: readonly Piece[], other: readonly Piece[]) =>
  one.length === other.length &&
  one.every(
    (piece, at) => piece.from === other[at]!.from && piece.to === other[at]!.to && piece.rule === other[at]!.rule,
  )

/** Brings the rule spans of a paragraph to what its rules say now. Whether anything had to change. */
export function refreshParagraph(
  draft: Draft,
  scope: StyleScope,
  rules: Rules,
  paragraph: number,
  lineEnd: number | null = null,
): boolean {
  const open = openParagraph(draft.part, paragraph)
  const own = rulesFor(rules, scope, styleNameAt(open.part, paragraph))
  const present = presentPieces(open)
  if (present.length === 0 && own.patterns.length + own.leadIns.length === 0) return false
  const characters = new Map([...rules.patterns, ...rules.leadIns].map(rule => [rule.id, rule.character]))
  const wanted = wantedPieces(open, scope, ruleMatches(open.text, own.patterns, own.leadIns, lineEnd), characters)
  if (same(present, wanted)) return false
  for (const span of spansBy(draft.part, isRuleStyle, paragraph)) unwrapSpan(draft, span)
  for (const piece of [...wanted].reverse())
    wrapRange(draft, paragraph, piece.from, piece.to, ruleStyleName(piece.rule), true)
  return true
}

/** Refreshes the rule spans of paragraphs that an edit touched: the layer between edits and styles. */
export function refreshAfterEdit(
  change: Change,
  scopes: ReadonlyMap<string, StyleScope>,
  rules: Rules,
  path: string,
  nodes: Iterable<number>,
): void {
  if (!hasRules(rules)) return
  const scope = scopes.get(path)
  if (!scope) return
  const draft = change.on(path)
  for (const node of nodes) {
    if (isParagraph(draft.part, node)) refreshParagraph(draft, scope, rules, node)
  }
}
