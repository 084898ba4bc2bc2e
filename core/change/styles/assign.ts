import { openParagraph } from '../../document/paragraph-spots'
import { assignParagraph, assignStyle, setOutlineLevel } from '../../document/paragraph-verbs'
import { spansWithin, styleNameAt } from '../../document/span-places'
import { splitSpansAt, unwrapSpan, wrapRange } from '../../document/spans'
import { findStyle, outlineLevel, type Style } from '../../document/styles'
import type { Paragraph } from '../../document/story-model'
import { attributesOf, typeGroups, type GroupId } from '../../style/groups'
import type { Planner } from '../planner'
import type { Stretch } from '../scope'
import { settle } from './settle'

/** Gives paragraphs a style. Breaks, page styles and list levels stay; what was set by hand stays or goes. */
export function applyParagraphStyle(
  planner: Planner,
  stretches: readonly Stretch[],
  name: string,
  strays: 'keep' | 'settle',
  keep: readonly GroupId[],
): void {
  const style = planner.style('paragraph', name)
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
  for (const { paragraph } of included) assign(planner, paragraph, style, strays)
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

const typeAttributes = attributesOf([...typeGroups, 'setting'])

/** Gives one paragraph a style: of what was set on it by hand, its type goes where that is asked for. */
function assign(planner: Planner, paragraph: Paragraph, style: Style, strays: 'keep' | 'settle'): void {
  const draft = planner.change.on(paragraph.part)
  const automatic = planner.automatic(paragraph.part)
  const own = styleNameAt(draft.part, paragraph.node)
  const local = own === null ? null : automatic.valuesOf('paragraph', own)
  const dropped = (kind: 'text' | 'paragraph') =>
    Object.fromEntries(
      Object.keys(local![kind])
        .filter(each => typeAttributes[kind].has(each))
        .map(each => [each, null]),
    )
  const next = local
    ? automatic.derive('paragraph', own, {
        parent: style.name,
        ...(strays === 'settle' ? { text: dropped('text'), paragraph: dropped('paragraph') } : {}),
      })
    : style.name
  assignParagraph(draft, paragraph.node, next)
  const inText = paragraph.holder === null && paragraph.place === 'body' && planner.document.kind === 'text'
  if (inText) setOutlineLevel(draft, paragraph.node, outlineLevel(planner.scope, style))
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
    for (const span of spansWithin(draft.part, paragraph.node, from, to)) {
      const own = styleNameAt(draft.part, span)
      // A named character style gives way; what was set by hand on top of it stays by hand.
      const rest =
        own === null || !automatic.valuesOf('text', own) ? null : automatic.derive('text', own, { parent: null })
      if (rest === null) unwrapSpan(draft, span)
      else assignStyle(draft, span, rest)
    }
    if (name !== null) wrapRange(draft, paragraph.node, from, to, name, true)
  }
  planner.sweep()
}
