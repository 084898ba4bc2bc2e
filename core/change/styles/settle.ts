import { unwrapSpan, splitSpansAt, wrapRange } from '../../document/spans'
import { openParagraph } from '../../document/paragraph-spots'
import { referencesIn } from '../../document/style-references'
import { findStyle, type Style } from '../../document/styles'
import { describeValues } from '../../style/describe'
import { looksSame } from '../../style/effective'
import { attributesOf, groupOf, type GroupId } from '../../style/groups'
import type { Layer } from '../../style/layers'
import { keyText, type RowKey } from '../plan'
import { grouped } from '../words'
import { emphasisName, emphasisOf, emphasisStyle } from './emphasis'
import type { Planner, StyleUsers } from '../planner'
import type { Stretch } from '../scope'

/** Of what text looked like, as much goes into the key of its row. */
const toldLength = 1_500

/** What of local formatting goes. */
export interface Settling {
  readonly groups: readonly GroupId[]
  readonly keep: readonly GroupId[]
  readonly idleOnly: boolean
}

/** An element that bears an automatic style. */
interface Bearer {
  readonly part: string
  readonly node: number
  readonly attribute: string
}

/** An automatic style with those of its bearers that are in the scope. */
interface Stray {
  readonly style: Style
  readonly bearers: Bearer[]
}

const without = (layer: Layer, style: Style, names: ReadonlySet<string>): Layer => {
  if (layer.style.node !== style.node || layer.style.part !== style.part) return layer
  const drop = (values: Layer['text']) =>
    Object.fromEntries(Object.entries(values).filter(([name]) => !names.has(name)))
  return { ...layer, text: drop(layer.text), paragraph: drop(layer.paragraph) }
}

/** Whether all text that goes through a style looks the same without some of its values. */
function changesNothing(users: StyleUsers | undefined, style: Style, names: readonly string[]): boolean {
  if (!users) return true
  const dropped = new Set(names)
  for (const [text, slots] of users.styles) {
    const after = text.resolvedWith(layer => without(layer, style, dropped))
    for (const slot of slots) if (!looksSame(text.effective, after, slot)) return false
  }
  return true
}

/** The automatic styles in a scope, with what bears them there. */
function straysIn(planner: Planner, stretches: readonly Stretch[] | null): Stray[] {
  const found = new Map<Style, Stray>()
  const put = (part: string, node: number, attribute: string, family: string, name: string) => {
    const scope = planner.reading.cascade.scope(part)
    const style = scope.automatic.get(`${family}\n${name}`)
    if (!style) return
    let stray = found.get(style)
    if (!stray) found.set(style, (stray = { style, bearers: [] }))
    if (!stray.bearers.some(bearer => bearer.node === node && bearer.attribute === attribute))
      stray.bearers.push({ part, node, attribute })
  }
  if (stretches === null) {
    for (const path of planner.reading.cascade.scopes.keys()) {
      const part = planner.change.part(path)
      for (const section of part.elements(part.rootElement)) {
        if (section.name !== 'office:body' && section.name !== 'office:master-styles') continue
        for (const reference of referencesIn(part, section)) {
          if (reference.list || inDeletion(planner, path, reference.node)) continue
          for (const name of reference.names) put(path, reference.node, reference.attribute, reference.family, name)
        }
      }
    }
    return [...found.values()]
  }
  for (const { paragraph, whole, from, to } of stretches) {
    const part = planner.change.part(paragraph.part)
    const element = part.element(paragraph.node)
    const own = element.attributes['text:style-name']
    if (whole && own) put(paragraph.part, paragraph.node, 'text:style-name', 'paragraph', own)
    for (const piece of openParagraph(part, paragraph.node).pieces) {
      if (piece.start < from || piece.end > to || piece.end === piece.start) continue
      for (let id = piece.node; id !== paragraph.node && id >= 0; id = part.node(id).parent) {
        const node = part.node(id)
        const name =
          node.kind === 'element' && (node.name === 'text:span' || node.name === 'text:a')
            ? node.attributes['text:style-name']
            : undefined
        if (name) put(paragraph.part, id, 'text:style-name', 'text', name)
      }
    }
    if (whole && paragraph.holder?.kind === 'cell' && paragraph.holder.styleName) {
      const cell = part.element(paragraph.holder.node)
      if (cell.attributes['table:style-name'])
        put(paragraph.part, cell.id, 'table:style-name', 'table-cell', cell.attributes['table:style-name'])
    }
  }
  return [...found.values()]
}

function inDeletion(planner: Planner, path: string, node: number): boolean {
  const part = planner.change.part(path)
  for (let id = node; id >= 0; id = part.node(id).parent) {
    const at = part.node(id)
    if (at.kind === 'element' && at.name === 'text:tracked-changes') return true
  }
  return false
}

/** How many elements of a part name each automatic style. */
function countBearers(planner: Planner): Map<string, number> {
  const counts = new Map<string, number>()
  for (const path of planner.reading.cascade.scopes.keys()) {
    for (const reference of referencesIn(planner.change.part(path)))
      for (const name of reference.names) {
        const key = `${path}\n${reference.family}\n${name}`
        counts.set(key, (counts.get(key) ?? 0) + 1)
      }
  }
  return counts
}

/**
 * Takes local formatting out of a scope. Styles that only speak for text of the scope are changed where they stand, so
 * that little is touched; others are departed from. What is meant (`keep`) goes on in character styles.
 */
export function settle(
  planner: Planner,
  stretches: readonly Stretch[] | null,
  { groups, keep, idleOnly }: Settling,
): void {
  const attributes = attributesOf(groups)
  let scope = stretches
  if (stretches?.some(stretch => !stretch.whole)) {
    // The spans that reach over the ends are cut in two: only what is inside is settled.
    for (const { paragraph, whole, from, to } of stretches) {
      if (whole) continue
      splitSpansAt(planner.change.on(paragraph.part), paragraph.node, from)
      splitSpansAt(planner.change.on(paragraph.part), paragraph.node, to)
    }
    scope = stretches
  }
  const counts = countBearers(planner)
  const rows = new Map<
    string,
    {
      key: RowKey
      title: string
      before: string
      after: string
      count: number
      characters: number
      places: { part: string; node: number }[]
      strays: { stray: Stray; text: readonly string[]; paragraph: readonly string[]; kept: Record<string, string> }[]
    }
  >()

  for (const stray of straysIn(planner, scope)) {
    const { style } = stray
    const users = planner.usersOf(style)
    let text = Object.keys(style.text).filter(name => attributes.text.has(name))
    let paragraph =
      style.family === 'paragraph' || style.family === 'graphic' || style.family === 'presentation'
        ? Object.keys(style.paragraph).filter(name => attributes.paragraph.has(name))
        : []
    if (idleOnly) {
      text = text.filter(name => changesNothing(users, style, [name]))
      paragraph = paragraph.filter(name => changesNothing(users, style, [name]))
      if (!changesNothing(users, style, [...text, ...paragraph])) continue
    }
    const inline = style.family === 'text' || style.family === 'paragraph'
    const meant = idleOnly
      ? []
      : keep
          .filter(group => groups.includes(group))
          .filter(group => {
            const names = groupOf(group).text.filter(name => style.text[name] !== undefined)
            return names.length > 0 && !changesNothing(users, style, names)
          })
    if (!inline) {
      // The emphasis of a whole frame or cell has no character style it could go to: it stays.
      const stays = new Set(meant.flatMap(group => groupOf(group).text))
      if (text.some(name => stays.has(name)))
        planner.note(
          `${meant.map(group => groupOf(group).title).join(' and ')} of a whole ${style.family === 'table-cell' ? 'cell' : 'frame'}`,
          'it is kept as it is, since it belongs to no words',
          stray.bearers.length,
        )
      text = text.filter(name => !stays.has(name))
    }
    if (text.length === 0 && paragraph.length === 0) continue
    const kept = inline ? emphasisOf(style.text, meant) : {}
    const home = planner.reading.cascade.scope(style.part)
    const pick = (values: Style['text'], names: readonly string[]) =>
      Object.fromEntries(names.map(name => [name, values[name]!]))
    const words = describeValues(pick(style.text, text), pick(style.paragraph, paragraph), home)
    const owner =
      style.parentName !== null
        ? planner.titleOf(home, style.family, style.parentName)
        : style.family === 'paragraph'
          ? 'no style'
          : ''
    const before = words.join(', ') || 'marks that are not seen'
    const after =
      Object.keys(kept).length > 0
        ? `character style ${emphasisName(kept)}`
        : owner
          ? `as ${owner} says`
          : 'as its styles say'
    const title =
      style.family === 'text'
        ? `Words set by hand${owner ? ` in ${owner}` : ''}`
        : style.family === 'paragraph'
          ? `Paragraphs of ${owner}`
          : style.family === 'table-cell'
            ? 'Cells'
            : 'Frames and shapes'
    const key: RowKey = { what: 'strays', family: style.family, owner, before: before.slice(0, toldLength), after }
    const named = keyText(key)
    let row = rows.get(named)
    if (!row) rows.set(named, (row = { key, title, before, after, count: 0, characters: 0, places: [], strays: [] }))
    row.count += stray.bearers.length
    row.characters += users?.characters ?? 0
    if (row.places.length < 500)
      row.places.push(...stray.bearers.slice(0, 500).map(({ part, node }) => ({ part, node })))
    row.strays.push({ stray, text, paragraph, kept })
  }

  for (const row of rows.values()) {
    const included = planner.row({
      key: row.key,
      stage: 'text',
      optional: true,
      title: row.title,
      count: row.count,
      characters: row.characters,
      before: row.before,
      after: row.after,
      places: row.places,
    })
    if (!included) continue
    for (const each of row.strays) removeStray(planner, each.stray, each, counts)
  }
  if (stretches?.some(stretch => !stretch.whole)) {
    const parts = stretches.filter(stretch => !stretch.whole && isLocal(planner, stretch))
    if (parts.length > 0) planner.note('formatting of whole paragraphs', 'only part of each is selected', parts.length)
  }
  planner.sweep()
}

const isLocal = (planner: Planner, { paragraph }: Stretch): boolean =>
  paragraph.styleName !== null &&
  findStyle(planner.reading.cascade.scope(paragraph.part), 'paragraph', paragraph.styleName)?.origin === 'automatic'

function removeStray(
  planner: Planner,
  { style, bearers }: Stray,
  {
    text,
    paragraph,
    kept,
  }: { readonly text: readonly string[]; readonly paragraph: readonly string[]; readonly kept: Record<string, string> },
  counts: ReadonlyMap<string, number>,
): void {
  const draft = planner.change.on(style.part)
  const automatic = planner.automatic(style.part)
  const nothing = (names: readonly string[]) => Object.fromEntries(names.map(name => [name, null]))
  const difference = {
    ...(text.length > 0 ? { text: nothing(text) } : {}),
    ...(paragraph.length > 0 ? { paragraph: nothing(paragraph) } : {}),
  }
  const all = counts.get(`${style.part}\n${style.family}\n${style.name}`) === bearers.length
  const hollow = all && automatic.strip(style.family, style.name, difference)
  const emphasis = Object.keys(kept).length > 0 ? emphasisStyle(planner, kept) : null
  for (const { node, attribute } of bearers) {
    if (!draft.part.find(node)) continue
    const name = !all ? automatic.derive(style.family, style.name, difference) : hollow ? style.parentName : style.name
    const element = draft.part.element(node)
    if (emphasis !== null) {
      if (style.family === 'paragraph') {
        const { length } = openParagraph(draft.part, node).text
        if (length > 0) wrapRange(draft, node, 0, length, emphasis, true)
      } else if (name === null && element.name === 'text:span') {
        draft.setAttributes(node, { [attribute]: emphasis })
        continue
      } else wrapContents(planner, style.part, node, emphasis)
    }
    if (
      name === null &&
      element.name === 'text:span' &&
      Object.keys(element.attributes).every(each => each === attribute)
    )
      unwrapSpan(draft, node)
    else draft.setAttributes(node, { [attribute]: name })
  }
}

/** A span inside another one, around all that it holds. */
function wrapContents(planner: Planner, path: string, span: number, styleName: string): void {
  const draft = planner.change.on(path)
  let paragraph = draft.part.element(span)
  while (paragraph.name !== 'text:p' && paragraph.name !== 'text:h') paragraph = draft.part.element(paragraph.parent)
  const within = openParagraph(draft.part, paragraph.id).pieces.filter(piece => {
    for (let id = piece.node; id >= 0 && id !== paragraph.id; id = draft.part.node(id).parent)
      if (id === span) return piece.end > piece.start
    return false
  })
  if (within.length > 0) wrapRange(draft, paragraph.id, within[0]!.start, within.at(-1)!.end, styleName)
}

/** What settling is called. */
export function settleTitle(groups: readonly GroupId[], idleOnly: boolean, places: number): string {
  const what = groups.length > 6 ? 'local formatting' : groups.map(group => groupOf(group).title).join(', ')
  return idleOnly
    ? `Sweep out ${what} that changes nothing`
    : `Settle ${what} in ${grouped(places)} ${places === 1 ? 'place' : 'places'}`
}
