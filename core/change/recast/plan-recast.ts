import { fontAttributes } from '../../document/font-attributes'
import { replaceText } from '../../document/edit-text'
import { openParagraph } from '../../document/paragraph-spots'
import { colorReferences, withColor, type ColorKind } from '../../document/color-references'
import { whyNotEdit } from '../../document/refusals'
import type { OdfDocument } from '../../document/open'
import { faceName } from '../../font/face'
import type { FaceRecord } from '../../font/face'
import type { Library } from '../../font/library'
import { asksNothing } from '../../census/criteria'
import { matchText, paragraphOwner, type Match } from '../../census/matching'
import { faceAsked, sizeAndLeading, voiceOf } from '../../census/voices'
import { slotAttributes } from '../../style/properties'
import { plainNumber } from '../../style/describe'
import { emphasisGroups, typeGroups } from '../../style/groups'
import { PatternError } from '../../style/rule-matching'
import type { Composition, Reading } from '../../typeset/compose'
import { setLocally, type LocalLook } from '../local-look'
import { PlanError, type PlanLine, type PlanOutcome } from '../plan'
import { dropStale } from '../stale'
import { StylePlanner, type Stretch } from '../planner'
import { applyParagraphStyle, applyTextStyle } from '../styles/assign'
import { syncRules } from '../rules/plan-rules'
import { settle } from '../styles/settle'
import { grouped } from '../words'
import { changesNothing, changeWords, recastSentence, type RecastChange, type RecastRequest } from './request'

/** A row: one match, or one colour in one kind of place. `page` is -1 where none shows it. */
export interface RecastRow extends PlanLine {
  readonly page: number
  readonly places: readonly {
    readonly part: string
    readonly node: number
    readonly from: number
    readonly to: number
  }[]
}

/** What a recast would do, as plain data: nothing has changed yet. It is kept as the record of the change. */
export interface RecastPlan extends PlanOutcome {
  readonly kind: 'recast'
  readonly request: RecastRequest
  readonly sentence: string
  /** Matches in all, whether listed or not. */
  readonly matches: number
  readonly rows: readonly RecastRow[]
}

export interface PlannedRecast {
  readonly plan: RecastPlan
  readonly document: OdfDocument
}

/** What a plan may know beside the document. */
export interface RecastKnowledge {
  readonly reading: Reading
  readonly composition: Composition | null
}

export const matchId = (match: Pick<Match, 'paragraph' | 'from'>): string =>
  `m|${match.paragraph.part}#${match.paragraph.node}@${match.from}`

/** What a match looks like, and what stands there: told before and after. */
function lookOf(match: Match): string {
  const [piece] = match.pieces
  const voice = voiceOf(piece!.style, piece!.slot)
  return (
    `${faceName(voice.family, voice.style)} ${sizeAndLeading(voice)}` +
    `${match.pieces.some(each => each.style !== piece!.style) ? ' …' : ''}`
  )
}

const clipped = (text: string, length = 60): string => (text.length > length ? `${text.slice(0, length - 1)}…` : text)
/** White space is shown by signs, so that a lone space can be read. */
const shown = (text: string): string =>
  clipped(
    text
      .replace(/\t/g, '⇥')
      .replace(/\n/g, '⏎')
      .replace(/^ +| +$/g, spaces => '␣'.repeat(spaces.length)),
  )

/** The new words of a match: groups of an expression put in where it asks for them. */
export function newWords(template: string, match: Pick<Match, 'text' | 'groups'>): string {
  if (match.groups === null) return template
  return template.replace(/\$(\$|\d)/g, (_, sign: string) => (sign === '$' ? '$' : (match.groups![Number(sign)] ?? '')))
}

/** The face that a change asks for. @throws PlanError */
function faceFor(library: Library, change: RecastChange): FaceRecord | null {
  if (change.family === undefined) return null
  const faces = library.family(change.family)
  if (faces.length === 0)
    throw new PlanError(`“${change.family}” is not in the library, so nothing can be set in it. Nothing was changed.`)
  if (change.face === undefined) return faces[0]!
  const face = library.named(change.family, change.face)
  if (!face)
    throw new PlanError(
      `${faces[0]!.family} has no face “${change.face}”. It has ${faces.map(each => each.style).join(', ')}. Nothing was changed.`,
    )
  return face
}

/** Local formatting that a change of look comes to, for the pieces of a match. */
function looksOf(match: Match, change: RecastChange, face: FaceRecord | null): LocalLook[] {
  const setting: Record<string, string> = change.leading
    ? {
        'fo:line-height':
          'points' in change.leading
            ? `${plainNumber(change.leading.points)}pt`
            : `${plainNumber(change.leading.percent)}%`,
      }
    : {}
  return match.pieces.map((piece): LocalLook => {
    const names = slotAttributes[piece.slot]
    const { size } = piece.style.effective.slots[piece.slot]
    const next =
      change.size === undefined
        ? size
        : 'points' in change.size
          ? change.size.points
          : (size * change.size.percent) / 100
    const weight = change.weight ?? (face && change.face !== undefined ? face.weight : undefined)
    const italic = change.italic ?? (face && change.face !== undefined ? face.slant === 'italic' : undefined)
    const text: Record<string, string | null> = {}
    if (change.size !== undefined) text[names.size] = `${plainNumber(next)}pt`
    if (weight !== undefined) text[names.weight] = weight === 400 ? 'normal' : weight === 700 ? 'bold' : String(weight)
    if (italic !== undefined) text[names.style] = italic ? 'italic' : 'normal'
    if (change.tracking !== undefined)
      text['fo:letter-spacing'] = change.tracking === 0 ? 'normal' : `${Math.round(next * change.tracking) / 1000}pt`
    if (change.color !== undefined) {
      text['fo:color'] = change.color.toLowerCase()
      text['style:use-window-font-color'] = null
    }
    if (change.background !== undefined)
      text['fo:background-color'] = change.background === 'none' ? 'transparent' : change.background.toLowerCase()
    if (change.case !== undefined) {
      text['fo:text-transform'] = change.case === 'small-caps' ? 'none' : change.case
      text['fo:font-variant'] = change.case === 'small-caps' ? 'small-caps' : 'normal'
    }
    if (change.underlined !== undefined) {
      text['style:text-underline-style'] = change.underlined ? 'solid' : 'none'
      if (change.underlined) {
        text['style:text-underline-width'] = 'auto'
        text['style:text-underline-color'] = 'font-color'
      }
    }
    if (change.language !== undefined) {
      const [language, country] = change.language.split('-')
      text[names.language] = language!
      text[names.country] = country ?? 'none'
    }
    // A style name that stood beside the old font is none of the new one's.
    if (face && change.family !== undefined) text[fontAttributes[piece.slot].styleName] = null
    return {
      paragraph: match.paragraph,
      from: piece.from,
      to: piece.to,
      text,
      fonts: face ? { [piece.slot]: { family: face.family, pitch: face.monospaced ? 'fixed' : 'variable' } } : {},
      setting,
    }
  })
}

const changesLook = (change: RecastChange): boolean =>
  Object.entries(change).some(
    ([key, value]) =>
      value !== undefined && !['words', 'paragraphStyle', 'characterStyle', 'settle', 'face'].includes(key),
  ) ||
  (change.face !== undefined && change.family !== undefined)

const kindTitles: Readonly<Record<ColorKind, string>> = {
  text: 'Text',
  fill: 'Fills',
  page: 'Page backgrounds',
  line: 'Lines and borders',
}

/** Exchanges colours wherever they are named: all at once. */
function recolor(planner: StylePlanner, request: RecastRequest, rows: RecastRow[]): void {
  const references = colorReferences(planner.document)
  const groups = new Map<
    string,
    {
      row: Omit<RecastRow, 'count'> & { count: number }
      owners: Set<string>
      to: string
      list: (typeof references)[number][]
    }
  >()
  for (const reference of references) {
    const change = request.colors.find(
      each => each.from.toLowerCase() === reference.color && each.kinds.includes(reference.kind),
    )
    if (!change) continue
    const id = `color|${reference.color}|${reference.kind}|${reference.part.includes('/') ? reference.part : ''}`
    const group = groups.get(id) ?? {
      owners: new Set<string>(),
      to: change.to.toLowerCase(),
      list: [],
      row: {
        id,
        title: kindTitles[reference.kind],
        count: 0,
        characters: 0,
        before: reference.color,
        after: change.to.toLowerCase(),
        included: !request.struck.includes(id),
        leftOut: null,
        page: -1,
        places: [],
      },
    }
    groups.set(id, group)
    group.row.count++
    group.owners.add(reference.owner)
    group.list.push(reference)
  }
  for (const { row, owners, to, list } of groups.values()) {
    rows.push({ ...row, title: `${row.title}: ${clipped([...owners].join(', '), 160)}` })
    if (row.included)
      for (const { part, node, attribute, value } of list)
        planner.change.on(part).setAttributes(node, { [attribute]: withColor(value, to) })
  }
}

/** Rows are listed up to this many; those beyond come as one. */
const listedRows = 4000

/**
 * Plans a recast. A pure function: the document given is not changed. Everything is found first and changed then, so that
 * what is written is never found again.
 * @throws PlanError when the wish cannot be met at all
 */
export function planRecast(
  document: OdfDocument,
  request: RecastRequest,
  library: Library,
  { reading, composition }: RecastKnowledge,
): PlannedRecast {
  const { find } = request
  const { change } = request
  const styleTitle = (name: string) =>
    [...reading.cascade.scopes.values()].flatMap(scope => [...scope.common.values()]).find(style => style.name === name)
      ?.displayName ?? name
  if (change.words !== undefined && find.words === undefined)
    throw new PlanError('New words need words that they come in place of. Nothing was changed.')
  if (asksNothing(find) && request.colors.length === 0 && find.scope.kind === 'document' && changesNothing(change))
    throw new PlanError('Say what shall be found, or what shall change. Nothing was changed.')
  if (change.face !== undefined && change.family === undefined)
    throw new PlanError('A face is one of a family: name the family, too. Nothing was changed.')
  const planner = new StylePlanner(document, reading, library, request.struck)
  const rows: RecastRow[] = []
  const left: { what: string; reason: string; count: number }[] = []
  const face = faceFor(library, change)
  let matches: Match[] = []
  // Colours alone ask for no text.
  if (!(request.colors.length > 0 && asksNothing(find) && changesNothing(change))) {
    try {
      matches = matchText(reading, library, composition, find)
    } catch (error) {
      throw error instanceof PatternError ? new PlanError(`${error.message} Nothing was changed.`) : error
    }
  }
  const included: Match[] = []
  const after = changeWords(change, styleTitle).join(', ')
  for (const match of matches) {
    const id = matchId(match)
    const reason = whyNotEdit(document, document.parts.get(match.paragraph.part)!, match.paragraph.node)
    if (reason !== null && !changesNothing(change)) {
      const known = left.find(each => each.reason === reason)
      if (known) known.count++
      else left.push({ what: 'text that may not be changed', reason, count: 1 })
    }
    const inside = !request.struck.includes(id) && reason === null
    if (inside) included.push(match)
    if (rows.length >= listedRows) continue
    const { paragraph, from, to } = match
    const owner = paragraphOwner(reading, paragraph, match.story)
    rows.push({
      id,
      title: owner?.displayName ?? 'no style',
      count: 1,
      characters: [...match.text].length,
      page: match.page,
      included: inside,
      leftOut: reason,
      before: `“${shown(match.text)}” ${lookOf(match)}`,
      after:
        change.words === undefined
          ? after || 'as it is'
          : `“${shown(newWords(change.words, match))}”${after.includes(',') ? `, ${after.split(', ').slice(1).join(', ')}` : ''}`,
      places: [{ part: paragraph.part, node: paragraph.node, from, to }],
    })
  }
  const charts = document.subdocuments.filter(sub => sub.kind === 'chart').length
  if (charts > 0 && !asksNothing(find))
    left.push({
      what: charts === 1 ? 'the text of a chart' : `the text of ${charts} charts`,
      reason: 'not looked at: charts have styles of their own. A swap and an exchange of colours reach them',
      count: charts,
    })
  if (matches.length > listedRows)
    left.push({
      what: `${grouped(matches.length - listedRows)} more places`,
      reason: 'changed with the others, but not listed',
      count: matches.length - listedRows,
    })
  const stretches = included.map(({ paragraph, story, from, to, pieces }): Stretch => ({
    paragraph,
    role: story.role,
    from,
    to,
    whole:
      from === 0 &&
      to >= (pieces.at(-1)?.to ?? 0) &&
      to >= openParagraph(document.parts.get(paragraph.part)!, paragraph.node).text.length,
  }))
  if (stretches.length > 0) {
    const own = planner.rows.length
    if (change.settle)
      settle(planner, stretches, {
        groups: typeGroups,
        keep: change.paragraphStyle === undefined ? [] : [...emphasisGroups],
        idleOnly: false,
      })
    if (change.paragraphStyle !== undefined) {
      const unique = new Map(
        stretches.map(each => [
          `${each.paragraph.part}#${each.paragraph.node}`,
          {
            ...each,
            from: 0,
            to: openParagraph(planner.change.part(each.paragraph.part), each.paragraph.node).text.length,
            whole: true,
          },
        ]),
      )
      applyParagraphStyle(planner, [...unique.values()], change.paragraphStyle, 'keep', [])
    }
    if (change.characterStyle !== undefined) applyTextStyle(planner, stretches, change.characterStyle, 'keep', [])
    if (changesLook(change))
      setLocally(
        planner,
        included.flatMap(match => looksOf(match, change, face)),
      )
    if (change.words !== undefined) {
      // Later matches of a paragraph first: those before stay where they are.
      for (const match of [...included].reverse())
        replaceText(
          planner.change.on(match.paragraph.part),
          match.paragraph.node,
          match.from,
          match.to,
          newWords(change.words, match),
        )
    }
    // The rows of the parts are told by the matches.
    planner.rows.length = own
  }
  recolor(planner, request, rows)
  if (planner.change.operations.length > 0) {
    planner.reread()
    syncRules(planner, () => null)
  }
  const stale =
    planner.change.operations.length === 0
      ? { operations: [], said: [] }
      : dropStale(planner.document, planner.change.changedParts(document))
  for (const operation of stale.operations) planner.change.do(operation)
  const colorRows = rows.filter(row => row.id.startsWith('color|') && row.included)
  return {
    document: planner.document,
    plan: {
      kind: 'recast',
      request,
      sentence: recastSentence(request, styleTitle),
      title: titleOf(
        request,
        included.length,
        colorRows.reduce((sum, row) => sum + row.count, 0),
        styleTitle,
      ),
      matches: matches.length,
      rows,
      left: [...left, ...planner.left],
      stale: stale.said,
      places: included.length + colorRows.reduce((sum, row) => sum + row.count, 0),
      characters: included.reduce((sum, match) => sum + [...match.text].length, 0),
      operations: planner.change.operations,
      effects: null,
    },
  }
}

function titleOf(request: RecastRequest, places: number, colors: number, styleTitle: (name: string) => string): string {
  const parts: string[] = []
  const changes = changeWords(request.change, styleTitle)
  if (changes.length > 0)
    parts.push(`Recast ${grouped(places)} ${places === 1 ? 'place' : 'places'}: ${changes.join(', ')}`)
  if (request.colors.length > 0)
    parts.push(
      `${request.colors.map(each => `${each.from} became ${each.to}`).join(', ')} ` +
        `in ${grouped(colors)} ${colors === 1 ? 'place' : 'places'}`,
    )
  return clipped(parts.join('; ') || `Found ${grouped(places)} places`, 400)
}

/** What text at a place looks like, as criteria: to begin a recast from what is selected. */
export function criteriaLike(match: Pick<Match, 'pieces'>): RecastRequest['find']['look'] {
  const [piece] = match.pieces
  if (!piece) return {}
  const { size } = piece.style.effective.slots[piece.slot]
  const { family, style } = faceAsked(piece.style, piece.slot)
  const owner = piece.style.owner?.style
  return {
    family,
    face: style,
    size: { least: size, most: size },
    ...(owner?.family === 'paragraph' ? { paragraphStyle: owner.name } : {}),
    ...(owner?.family === 'text' ? { characterStyle: owner.name } : {}),
  }
}
