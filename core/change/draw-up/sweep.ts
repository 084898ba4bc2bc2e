import { dropStyle } from '../../document/style-verbs'
import { referencesIn } from '../../document/style-references'
import type { Planner } from '../planner'

/**
 * Drops named paragraph and character styles that nothing goes by any more, those that only such styles went back to
 * included. What rules name stays.
 */
export function sweepStyles(planner: Planner): void {
  planner.reread()
  const draft = planner.common
  const { rules } = planner.reading.cascade
  const ruled = new Set([
    ...[...rules.features, ...rules.axes].map(({ style }) => `${style.family}\n${style.name}`),
    ...[...rules.patterns, ...rules.leadIns].flatMap(({ style, character }) => [
      `paragraph\n${style}`,
      `text\n${character}`,
    ]),
    ...rules.pairStyles.map(({ style }) => `text\n${style}`),
    ...Object.values(rules.starts).flatMap(start =>
      start.paragraph === undefined ? [] : [`paragraph\n${start.paragraph}`],
    ),
  ])
  const dropped: string[] = []
  for (;;) {
    const used = new Set<string>()
    for (const path of planner.reading.cascade.scopes.keys())
      for (const { family, names, node, attribute } of referencesIn(planner.change.part(path)))
        for (const name of names) {
          // A style that is followed by itself is not used by that.
          const own =
            attribute === 'style:next-style-name' &&
            draft.part.path === path &&
            draft.part.element(node).attributes['style:name'] === name
          if (!own) used.add(`${family}\n${name}`)
        }
    const holder = draft.part.first(draft.part.rootElement, 'office:styles')
    const spare = [...(holder ? draft.part.elements(holder, 'style:style') : [])].filter(({ attributes }) => {
      const key = `${attributes['style:family']}\n${attributes['style:name']}`
      const family = attributes['style:family']
      return (
        (family === 'paragraph' || family === 'text') &&
        !used.has(key) &&
        !ruled.has(key) &&
        attributes['style:name'] !== 'Standard'
      )
    })
    if (spare.length === 0) break
    for (const { id, attributes } of spare) {
      dropped.push(attributes['style:display-name'] ?? attributes['style:name'] ?? '')
      dropStyle(draft, id)
    }
  }
  if (dropped.length > 0)
    planner.row({
      key: { what: 'unused styles' },
      stage: 'sweep',
      title: 'Styles that nothing uses',
      count: dropped.length,
      before: dropped.slice(0, 12).join(', '),
      after: 'dropped',
    })
}
