import { sameFamily } from '../document/font-family'
import type { Style } from '../document/styles'
import { paragraphsOf, standingParagraphs } from '../document/stories'
import type { Paragraph, Story } from '../document/story-model'
import type { Slot } from '../document/font-attributes'
import type { Library } from '../font/library'
import type { TextStyle } from '../style/cascade'
import { points } from '../document/lengths'
import { matchGroups } from '../style/rule-matching'
import { objectSign, paragraphRuns, type TextRun } from '../style/runs'
import type { Composition } from '../typeset/compose'
import type { Reading } from '../style/reading'
import { pagesOf } from './text-pages'
import { resolutionOf } from './resolution'
import type { Criteria, LookCriteria, MatchScope, Range } from './criteria'
import { styleKey, styleRoles } from './style-roles'
import { faceAsked } from './voices'

/** A stretch of text of one style and slot. */
export interface Piece {
  readonly from: number
  readonly to: number
  readonly style: TextStyle
  readonly slot: Slot
}

/** Text that was found: a stretch of one paragraph. */
export interface Match {
  readonly paragraph: Paragraph
  readonly story: Story
  readonly from: number
  readonly to: number
  readonly text: string
  /** What the groups of a regular expression took, the whole first; null without one. */
  readonly groups: readonly (string | null)[] | null
  /** Page index from 0; -1 where none shows it. */
  readonly page: number
  readonly pieces: readonly Piece[]
}

const within = (value: number, range: Range | undefined): boolean =>
  range === undefined ||
  ((range.least === undefined || value >= range.least - 0.005) &&
    (range.most === undefined || value <= range.most + 0.005))

/** Tells whether a style in a slot looks as asked; what hangs on the single character is not asked here. */
export function lookMatcher(
  reading: Reading,
  library: Library,
  look: LookCriteria,
): (style: TextStyle, slot: Slot, paragraph: Paragraph, story: Story) => boolean {
  const known = new Map<TextStyle, Partial<Record<Slot, boolean>>>()
  const roles = look.role === undefined ? null : styleRoles(reading)
  const matches = (style: TextStyle, slot: Slot): boolean => {
    const values = style.effective.slots[slot]
    const { shared, layers } = style.effective
    if (look.family !== undefined && !sameFamily(values.font.family, look.family)) return false
    if (look.face !== undefined && !sameFamily(faceAsked(style, slot).style, look.face)) return false
    if (look.status !== undefined && resolutionOf(library, style, slot).status !== look.status) return false
    if (!within(values.size, look.size) || !within(values.weight, look.weight)) return false
    if (look.italic !== undefined && (values.posture !== 'normal') !== look.italic) return false
    if (
      look.tracking !== undefined &&
      !within(((points(shared['fo:letter-spacing']) ?? 0) / values.size) * 1000, look.tracking)
    )
      return false
    if (look.color !== undefined && colorOf(style) !== look.color.toLowerCase()) return false
    if (look.background !== undefined && shared['fo:background-color'].toLowerCase() !== look.background.toLowerCase())
      return false
    if (
      look.case !== undefined &&
      (look.case === 'small-caps'
        ? shared['fo:font-variant'] !== 'small-caps'
        : shared['fo:text-transform'] !== look.case)
    )
      return false
    if (
      look.underlined !== undefined &&
      (shared['style:text-underline-style'] !== 'none' && shared['style:text-underline-style'] !== '') !==
        look.underlined
    )
      return false
    if (look.raised !== undefined && !/^(0%|$)/.test(shared['style:text-position']) !== look.raised) return false
    if (look.language !== undefined && !languageIs(values.language, look.language)) return false
    if (look.stray !== undefined && style.settled(slot) === look.stray) return false
    if (
      look.characterStyle !== undefined &&
      !layers.some(
        layer =>
          layer.style.family === 'text' && layer.style.origin === 'common' && layer.style.name === look.characterStyle,
      )
    )
      return false
    return true
  }
  return (style, slot, paragraph, story) => {
    if (look.slot !== undefined && slot !== look.slot) return false
    if (look.place !== undefined && paragraph.place !== look.place) return false
    if (look.paragraphStyle !== undefined || roles !== null) {
      const owner = paragraphOwner(reading, paragraph, story)
      if (look.paragraphStyle !== undefined && owner?.name !== look.paragraphStyle) return false
      if (roles !== null && (owner === null ? undefined : roles.get(styleKey(owner))?.role) !== look.role) return false
    }
    let own = known.get(style)
    if (!own) known.set(style, (own = {}))
    return (own[slot] ??= matches(style, slot))
  }
}

/** The colour of text as it is shown: what no style colours is black. */
export function colorOf({ effective: { shared } }: TextStyle): string {
  return shared['style:use-window-font-color'] === 'true' || !/^#/.test(shared['fo:color'])
    ? '#000000'
    : shared['fo:color'].toLowerCase()
}

const languageIs = (own: string, asked: string): boolean =>
  own.toLowerCase() === asked.toLowerCase() || own.toLowerCase().startsWith(`${asked.toLowerCase()}-`)

/** The named paragraph, graphic or presentation style that a paragraph goes by; null for none. */
export function paragraphOwner(reading: Reading, paragraph: Paragraph, story: Story): Style | null {
  return reading.cascade.paragraph(paragraph, story.role).text.owner?.style ?? null
}

/** Parts of some runs whose letters are of a script; signs of no script go with the letters before them. */
function ofScript(runs: readonly TextRun[], text: string, script: string): Piece[] {
  const pattern = new RegExp(`\\p{Script=${script}}`, 'u')
  const weak = /[\p{Script=Common}\p{Script=Inherited}]/u
  const pieces: Piece[] = []
  for (const run of runs) {
    let inside = false
    let start = run.start
    let at = run.start
    for (const character of text.slice(run.start, run.end)) {
      const is: boolean = weak.test(character) ? inside : pattern.test(character)
      if (is !== inside) {
        if (inside) pieces.push({ from: start, to: at, style: run.style, slot: run.slot })
        start = at
        inside = is
      }
      at += character.length
    }
    if (inside) pieces.push({ from: start, to: run.end, style: run.style, slot: run.slot })
  }
  return pieces
}

/** For each paragraph in a scope, which stretch of it is meant; null where none is. */
function scopeTester(
  reading: Reading,
  scope: MatchScope,
  where: ReturnType<typeof pagesOf>,
): (paragraph: Paragraph, story: Story) => { readonly from: number; readonly to: number }[] {
  const whole = [{ from: 0, to: Infinity }]
  switch (scope.kind) {
    case 'document':
      return () => whole
    case 'story': {
      const own = reading.stories.find(story =>
        paragraphsOf(story.blocks).some(paragraph => paragraph.part === scope.part && paragraph.node === scope.node),
      )
      return (_, story) => (story === own ? whole : [])
    }
    case 'ranges': {
      const byKey = new Map<string, { from: number; to: number }[]>()
      for (const { part, node, from, to } of scope.ranges)
        byKey.set(`${part}#${node}`, [...(byKey.get(`${part}#${node}`) ?? []), { from, to }])
      return paragraph => byKey.get(`${paragraph.part}#${paragraph.node}`) ?? []
    }
    // Text that goes over to another page counts to the page where it begins.
    case 'pages':
      return paragraph => {
        const page = where(paragraph.part, paragraph.node, 0, 1)[0]
        return page !== undefined && page >= scope.from && page <= scope.to ? whole : []
      }
  }
}

/** More are not looked at: a wish that finds so many is too wide. */
export const matchLimit = 20_000

/**
 * All text of the document itself that answers to criteria, in reading order: stretches of one look, or words. Tracked
 * deletions are left out, and so is the text of objects, which has no styles of the document.
 */
export function matchText(
  reading: Reading,
  library: Library,
  composition: Composition | null,
  criteria: Pick<Criteria, 'words' | 'look' | 'scope'>,
): Match[] {
  const found: Match[] = []
  const where = pagesOf(composition)
  const inScope = scopeTester(reading, criteria.scope, where)
  const looksSo = lookMatcher(reading, library, criteria.look)
  const { words } = criteria
  for (const { paragraph, story } of standingParagraphs(reading)) {
    const scopes = inScope(paragraph, story)
    if (scopes.length === 0) continue
    const { text, runs } = paragraphRuns(paragraph, reading.cascade, story.role)
    const alike = runs.filter(
      run =>
        run.end > run.start &&
        text.slice(run.start, run.end) !== objectSign &&
        run.inline.kind !== 'note' &&
        looksSo(run.style, run.slot, paragraph, story),
    )
    if (alike.length === 0) continue
    const pieces: Piece[] =
      criteria.look.script === undefined
        ? alike.map(run => ({ from: run.start, to: run.end, style: run.style, slot: run.slot }))
        : ofScript(alike, text, criteria.look.script)
    const put = (from: number, to: number, groups: Match['groups']) => {
      const own = pieces
        .filter(piece => piece.from < to && piece.to > from)
        .map(piece => ({ ...piece, from: Math.max(piece.from, from), to: Math.min(piece.to, to) }))
      if (own.length > 0 && found.length < matchLimit)
        found.push({
          paragraph,
          story,
          from,
          to,
          text: text.slice(from, to),
          groups,
          page: where(paragraph.part, paragraph.node, from, Math.max(to, from + 1))[0] ?? -1,
          pieces: own,
        })
    }
    for (const scope of scopes) {
      if (words) {
        for (const match of matchGroups(words, text)) {
          if (match.from < scope.from || match.to > scope.to) continue
          // Every character of it must look as asked; what stands between is no text.
          const covered = pieces
            .filter(piece => piece.from < match.to && piece.to > match.from)
            .reduce((sum, piece) => sum + Math.min(piece.to, match.to) - Math.max(piece.from, match.from), 0)
          if (covered === match.to - match.from) put(match.from, match.to, match.groups)
        }
        continue
      }
      // Neighbours come as one.
      let from = -1
      let to = -1
      for (const piece of pieces) {
        const start = Math.max(piece.from, scope.from)
        const end = Math.min(piece.to, scope.to)
        if (start >= end) continue
        if (start === to) {
          to = end
          continue
        }
        if (from >= 0) put(from, to, null)
        from = start
        to = end
      }
      if (from >= 0) put(from, to, null)
    }
  }
  return found
}
