import { fontAttributes } from '../../document/font-attributes'
import { replaceText } from '../../document/edit-text'
import { openParagraph } from '../../document/paragraph-spots'
import { colorReferences, setColor, type ColorKind, type ColorReference } from '../../document/color-references'
import { whyNotEdit } from '../../document/refusals'
import { faceName, type FaceRecord, pitchOf } from '../../font/face'
import type { Library } from '../../font/library'
import { asksNothing, type LookCriteria } from '../../census/criteria'
import { matchText, paragraphOwner, type Match } from '../../census/matching'
import { faceAsked, sizeAndLeading, voiceOf } from '../../census/voices'
import { slotAttributes, weightValue } from '../../style/properties'
import { plainNumber } from '../../style/describe'
import { emphasisGroups, typeGroups } from '../../style/groups'
import { styleTitle } from '../../style/reading'
import { PatternError } from '../../style/rule-matching'
import type { Numbered } from '../kind'
import { type Told, keyText, PlanError, type RowKey } from '../plan'
import { setLocally, type LocalLook } from '../local-look'
import type { Planner } from '../planner'
import type { Stretch } from '../scope'
import { applyParagraphStyle, applyTextStyle } from '../styles/assign'
import { settle } from '../styles/settle'
import { counted, grouped } from '../words'
import { changesNothing, changeWords, type RecastChange, type RecastWish } from './wish'

/** The key of a match's row: the wish that found it, and where it stands. */
export const matchKey = (wish: number, { paragraph, from }: Pick<Match, 'paragraph' | 'from'>): RowKey => ({
  what: 'match',
  wish,
  part: paragraph.part,
  node: paragraph.node,
  from,
})

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
    if (weight !== undefined) text[names.weight] = weightValue(weight)
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
      fonts: face ? { [piece.slot]: { family: face.family, pitch: pitchOf(face) } } : {},
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

/** Exchanges colours wherever they are named: all of a wish at once. */
function recolor(planner: Planner, { wish, index }: Numbered<RecastWish>): number {
  const groups = new Map<
    string,
    { key: RowKey; kind: ColorKind; from: string; to: string; owners: Set<string>; list: ColorReference[] }
  >()
  for (const reference of colorReferences(planner.document)) {
    const { color, kind, part } = reference
    const change = wish.colors.find(each => each.from.toLowerCase() === color && each.kinds.includes(kind))
    if (!change) continue
    const key: RowKey = { what: 'color', wish: index, color, kind, object: part.includes('/') ? part : '' }
    const to = change.to.toLowerCase()
    const group = groups.get(keyText(key)) ?? { key, kind, from: color, to, owners: new Set<string>(), list: [] }
    groups.set(keyText(key), group)
    group.owners.add(reference.owner)
    group.list.push(reference)
  }
  let places = 0
  for (const { key, kind, from, to, owners, list } of groups.values()) {
    const included = planner.row({
      key,
      stage: 'color',
      optional: true,
      title: `${kindTitles[kind]}: ${clipped([...owners].join(', '), 160)}`,
      count: list.length,
      before: from,
      after: to,
      page: -1,
    })
    if (!included) continue
    places += list.length
    for (const reference of list) setColor(planner.change.on(reference.part), reference, to)
  }
  return places
}

/** Rows are listed up to this many; those beyond come as one. */
const listedRows = 4000

/** What a wish found, and what of it is to be changed. */
interface Found extends Numbered<RecastWish> {
  readonly face: FaceRecord | null
  readonly included: readonly Match[]
}

/** @throws PlanError where a wish says nothing that could be done */
function check({ find, change, colors }: RecastWish): void {
  if (change.words !== undefined && find.words === undefined)
    throw new PlanError('New words need words that they come in place of. Nothing was changed.')
  if (asksNothing(find) && colors.length === 0 && find.scope.kind === 'document' && changesNothing(change))
    throw new PlanError('Say what shall be found, or what shall change. Nothing was changed.')
  if (change.face !== undefined && change.family === undefined)
    throw new PlanError('A face is one of a family: name the family, too. Nothing was changed.')
}

/** Finds what a wish is about, and lists it. @throws PlanError */
function findAll(planner: Planner, numbered: Numbered<RecastWish>, written: Match[]): Found {
  const { wish, index } = numbered
  check(wish)
  const { find, change } = wish
  const { document, reading, composition } = planner.session
  const face = faceFor(planner.library, change)
  let matches: Match[] = []
  // Colours alone ask for no text.
  if (!(wish.colors.length > 0 && asksNothing(find) && changesNothing(change))) {
    try {
      matches = matchText(reading, planner.library, composition, find)
    } catch (error) {
      throw error instanceof PatternError ? new PlanError(`${error.message} Nothing was changed.`) : error
    }
  }
  const included: Match[] = []
  const after = changeWords(change, name => styleTitle(reading, name)).join(', ')
  const others = [...written]
  matches.forEach((match, at) => {
    const { paragraph, from, to } = match
    let reason = whyNotEdit(document, document.parts.get(paragraph.part)!, paragraph.node)
    if (reason !== null && !changesNothing(change)) planner.note('text that may not be changed', reason)
    if (change.words !== undefined && others.some(other => overlaps(other, match)))
      reason = 'another wish writes these words'
    const key = matchKey(index, match)
    const inside = reason === null && !planner.leaves(key)
    if (inside) {
      included.push(match)
      if (change.words !== undefined) written.push(match)
    }
    if (at >= listedRows) return
    planner.row({
      key,
      stage: 'match',
      optional: true,
      title: paragraphOwner(reading, paragraph, match.story)?.displayName ?? 'no style',
      characters: [...match.text].length,
      page: match.page,
      reason,
      before: `“${shown(match.text)}” ${lookOf(match)}`,
      after:
        change.words === undefined
          ? after || 'as it is'
          : `“${shown(newWords(change.words, match))}”` +
            (after.includes(',') ? `, ${after.split(', ').slice(1).join(', ')}` : ''),
      places: [{ part: paragraph.part, node: paragraph.node, from, to }],
    })
  })
  const charts = document.subdocuments.filter(sub => sub.kind === 'chart').length
  if (charts > 0 && !asksNothing(find))
    planner.note(
      charts === 1 ? 'the text of a chart' : `the text of ${charts} charts`,
      'not looked at: charts have styles of their own. A swap and an exchange of colours reach them',
      charts,
    )
  if (matches.length > listedRows)
    planner.note(
      `${grouped(matches.length - listedRows)} more places`,
      'changed with the others, but not listed',
      matches.length - listedRows,
    )
  return { ...numbered, face, included }
}

const overlaps = (one: Match, other: Match): boolean =>
  one.paragraph.part === other.paragraph.part &&
  one.paragraph.node === other.paragraph.node &&
  one.from < other.to &&
  other.from < one.to

/** Changes the look of what a wish found; its words stay for now, so that offsets hold for all wishes. */
function changeLook(planner: Planner, { wish: { change }, included, face }: Found): void {
  const { document } = planner.session
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
  if (stretches.length === 0) return
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
}

/** Writes the new words of all wishes: later matches first, so that those before stay where they are. */
function writeWords(planner: Planner, found: readonly Found[]): void {
  const writes = found.flatMap(({ wish: { change }, included }) =>
    change.words === undefined ? [] : included.map(match => ({ match, text: newWords(change.words!, match) })),
  )
  const order = new Map([...planner.paragraphs()].map(({ paragraph }, at) => [paragraph, at]))
  const at = ({ match }: (typeof writes)[number]) => order.get(match.paragraph) ?? 0
  writes.sort((a, b) => at(b) - at(a) || b.match.from - a.match.from)
  for (const { match, text } of writes)
    replaceText(planner.change.on(match.paragraph.part), match.paragraph.node, match.from, match.to, text)
}

/**
 * Carries recasts out that act at once. Everything is found first and changed then, so that what is written is never
 * found again. @throws PlanError when a wish cannot be met at all
 */
export function planRecasts(planner: Planner, wishes: readonly Numbered<RecastWish>[]): Told {
  const written: Match[] = []
  const found = wishes.map(each => findAll(planner, each, written))
  // What the parts of a recast would list is told by its matches.
  planner.quietly(() => {
    for (const each of found) changeLook(planner, each)
    writeWords(planner, found)
  })
  const titleOf = (name: string) => styleTitle(planner.reading, name)
  let places = 0
  const titles = found.map(each => {
    const colors = recolor(planner, each)
    places += each.included.length + colors
    return recastTitle(each.wish, each.included.length, colors, titleOf)
  })
  const characters = found.flatMap(each => each.included).reduce((sum, match) => sum + [...match.text].length, 0)
  return { titles, places, characters }
}

function recastTitle(
  { change, colors }: RecastWish,
  places: number,
  colorPlaces: number,
  titleOf: (name: string) => string,
): string {
  const parts: string[] = []
  const changes = changeWords(change, titleOf)
  if (changes.length > 0) parts.push(`Recast ${counted(places, 'place')}: ${changes.join(', ')}`)
  if (colors.length > 0)
    parts.push(
      `${colors.map(each => `${each.from} becomes ${each.to}`).join(', ')} in ${counted(colorPlaces, 'place')}`,
    )
  return clipped(parts.join('; ') || `${counted(places, 'place')} found`, 400)
}

/** What text at a place looks like, as criteria: to begin a recast from what is selected. */
export function criteriaLike(match: Pick<Match, 'pieces'>): LookCriteria {
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
