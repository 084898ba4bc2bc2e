import { elementMarkup, subtreeIds } from '../../xml/edit'
import { writeElement } from '../../xml/write'
import { openParagraph } from '../../document/paragraph-spots'
import { splitSpansAt, unwrapSpan, wrapRange } from '../../document/spans'
import { findStyle, withParents, type Style } from '../../document/styles'
import { attributesOf, typeGroups, type GroupId } from '../../style/groups'
import type { Planner } from '../planner'
import type { Stretch } from '../scope'
import { settle } from './settle'

/**
 * The level of a paragraph of a style: its own or a parent's default outline level (ODF 1.4 part 3, 19.476); null
 * for body text.
 */
export function outlineLevel(planner: Planner, style: Style): number | null {
  let level: string | undefined
  for (const each of withParents(planner.scope, style)) level = each.attributes['style:default-outline-level'] ?? level
  const number = Number.parseInt(level ?? '', 10)
  return number >= 1 ? number : null
}

/** Makes a heading of a paragraph, or a paragraph of a heading: another element with the same content. */
function setOutline(planner: Planner, path: string, node: number, level: number | null): void {
  const draft = planner.change.on(path)
  const element = draft.part.element(node)
  if (level === null ? element.name === 'text:p' : element.name === 'text:h') {
    if (level !== null) draft.setAttributes(node, { 'text:outline-level': String(level) })
    return
  }
  const name = level === null ? 'text:p' : 'text:h'
  const {
    'text:outline-level': _,
    'text:is-list-header': __,
    'text:restart-numbering': ___,
    ...attributes
  } = element.attributes
  const inside = element.children.map(id => writeElement(draft.part, id)).join('')
  const known = Object.fromEntries(Object.entries(attributes).filter(([key]) => !key.startsWith('{')))
  const parent = draft.part.element(element.parent)
  const markup = elementMarkup(
    draft.part,
    parent,
    name,
    level === null ? known : { ...known, 'text:outline-level': String(level) },
    inside,
  )
  const index = draft.indexOf(node)
  const ids = subtreeIds(draft.part, node)
  draft.remove(node)
  draft.place(parent.id, index, markup, ids)
}

/** Gives paragraphs a style. Breaks, page styles and list levels stay; what was set by hand stays or goes. */
export function applyParagraphStyle(
  planner: Planner,
  stretches: readonly Stretch[],
  name: string,
  strays: 'keep' | 'settle',
  keep: readonly GroupId[],
): void {
  const style = planner.style('paragraph', name)
  const level = outlineLevel(planner, style)
  const gone = attributesOf([...typeGroups, 'setting'])
  const rows = new Map<string, Stretch[]>()
  for (const stretch of stretches) {
    const before = planner.titleOf(
      planner.reading.cascade.scope(stretch.paragraph.part),
      'paragraph',
      namedOf(planner, stretch),
    )
    rows.set(before, [...(rows.get(before) ?? []), stretch])
  }
  const included: Stretch[] = []
  for (const [before, list] of rows) {
    const inside = planner.row({
      key: { what: 'paragraphs', before, style: name },
      stage: 'text',
      optional: true,
      title: 'Paragraphs',
      count: list.length,
      characters: list.reduce((sum, each) => sum + each.to - each.from, 0),
      before,
      after: style.displayName,
      places: list.slice(0, 500).map(({ paragraph }) => ({ part: paragraph.part, node: paragraph.node })),
    })
    if (inside) included.push(...list)
  }
  for (const { paragraph } of included) {
    const draft = planner.change.on(paragraph.part)
    const automatic = planner.automatic(paragraph.part)
    const own = draft.part.element(paragraph.node).attributes['text:style-name'] ?? null
    const local = own === null ? undefined : automatic.find('paragraph', own)
    let next: string | null = name
    if (local) {
      const drop = (kind: 'text' | 'paragraph') => {
        const values = draft.part.first(local, `style:${kind}-properties`)?.attributes ?? {}
        return Object.fromEntries(
          Object.keys(values)
            .filter(each => gone[kind].has(each))
            .map(each => [each, null]),
        )
      }
      next = automatic.derive('paragraph', own, {
        parent: name,
        ...(strays === 'settle' ? { text: drop('text'), paragraph: drop('paragraph') } : {}),
      })
    }
    draft.setAttributes(paragraph.node, {
      'text:style-name': next,
      ...(draft.part.element(paragraph.node).attributes['text:cond-style-name'] === undefined
        ? {}
        : { 'text:cond-style-name': null }),
    })
    const inText = paragraph.holder === null && paragraph.place === 'body' && planner.document.kind === 'text'
    if (inText) setOutline(planner, paragraph.part, paragraph.node, level)
  }
  planner.sweep()
  if (strays === 'settle' && included.length > 0) {
    planner.reread()
    const nodes = new Set(included.map(({ paragraph }) => `${paragraph.part}#${paragraph.node}`))
    const again = [...planner.paragraphs()]
      .filter(({ paragraph }) => nodes.has(`${paragraph.part}#${paragraph.node}`))
      .map(({ paragraph, story }): Stretch => ({
        paragraph,
        role: story.role,
        from: 0,
        to: openParagraph(planner.change.part(paragraph.part), paragraph.node).text.length,
        whole: true,
      }))
    settle(planner, again, { groups: typeGroups, keep, idleOnly: false })
  }
}

const namedOf = (planner: Planner, { paragraph }: Stretch): string | null => {
  const style =
    paragraph.styleName === null
      ? undefined
      : findStyle(planner.reading.cascade.scope(paragraph.part), 'paragraph', paragraph.styleName)
  return style?.origin === 'automatic' ? style.parentName : paragraph.styleName
}

/** Gives words a character style, or with null takes theirs away. Links and what was set by hand stay unless asked. */
export function applyTextStyle(
  planner: Planner,
  stretches: readonly Stretch[],
  name: string | null,
  strays: 'keep' | 'settle',
  keep: readonly GroupId[],
): void {
  const title = name === null ? 'no character style' : planner.style('text', name).displayName
  const filled = stretches.filter(stretch => stretch.to > stretch.from)
  const included = planner.row({
    key: { what: 'words', style: name ?? '' },
    stage: 'text',
    optional: true,
    title: 'Words',
    count: filled.length,
    characters: filled.reduce((sum, each) => sum + each.to - each.from, 0),
    before: 'as they are',
    after: title,
    places: filled.slice(0, 500).map(({ paragraph }) => ({ part: paragraph.part, node: paragraph.node })),
  })
  if (!included) return
  if (strays === 'settle') settle(planner, filled, { groups: typeGroups, keep, idleOnly: false })
  // Later stretches of a paragraph first: offsets do not move, but the elements around them do.
  for (const { paragraph, from, to } of [...filled].reverse()) {
    const draft = planner.change.on(paragraph.part)
    splitSpansAt(draft, paragraph.node, from)
    splitSpansAt(draft, paragraph.node, to)
    const automatic = planner.automatic(paragraph.part)
    for (const span of spansWithin(planner, paragraph.part, paragraph.node, from, to)) {
      const own = draft.part.element(span).attributes['text:style-name']
      const local = own === undefined ? undefined : automatic.find('text', own)
      // A named character style gives way; what was set by hand on top of it stays by hand.
      const rest = local && own !== undefined ? automatic.derive('text', own, { parent: null }) : null
      if (rest === null && draft.part.element(span).name === 'text:span') unwrapSpan(draft, span)
      else draft.setAttributes(span, { 'text:style-name': rest })
    }
    if (name !== null) wrapRange(draft, paragraph.node, from, to, name, true)
  }
  planner.sweep()
}

/** Spans all of whose text lies in a stretch of a paragraph, outer ones first. */
export function spansWithin(planner: Planner, path: string, paragraph: number, from: number, to: number): number[] {
  const { part } = planner.change.on(path)
  const extents = new Map<number, { from: number; to: number }>()
  for (const piece of openParagraph(part, paragraph).pieces) {
    for (let id = part.node(piece.node).parent; id !== paragraph && id >= 0; id = part.node(id).parent) {
      if (part.element(id).name !== 'text:span') continue
      const known = extents.get(id)
      extents.set(id, { from: Math.min(known?.from ?? Infinity, piece.start), to: Math.max(known?.to ?? 0, piece.end) })
    }
  }
  return [...extents]
    .filter(([, extent]) => extent.from >= from && extent.to <= to && extent.to > extent.from)
    .map(([id]) => id)
    .sort((a, b) => depth(part, a) - depth(part, b))
}

const depth = (part: { node: (id: number) => { readonly parent: number } }, id: number): number => {
  let levels = 0
  for (let at = id; at >= 0; at = part.node(at).parent) levels++
  return levels
}

/**
 * Gives a frame a paragraph style: all that is in it, and what is written into it later (draw:text-style-name, ODF
 * 1.4 part 3, 19.217).
 */
export function applyToFrame(planner: Planner, path: string, node: number, name: string): void {
  const draft = planner.change.on(path)
  const element = draft.part.element(node)
  if (!element.name.startsWith('draw:')) return
  draft.setAttributes(node, { 'draw:text-style-name': name })
}
