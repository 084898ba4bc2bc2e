import type { Values } from '../document/automatic-styles'
import type { Style } from '../document/styles'
import type { Planner } from './planner'

/**
 * Sets values on a style where it stands, or with null takes them away; its properties element is made where it has
 * none.
 */
export function setStyleValues(
  planner: Planner,
  style: Pick<Style, 'part' | 'node'>,
  kind: 'text' | 'paragraph',
  values: Values,
): void {
  const draft = planner.change.on(style.part)
  const properties = draft.part.first(draft.part.element(style.node), `style:${kind}-properties`)
  if (properties) {
    draft.setAttributes(properties.id, values)
    return
  }
  const set = Object.fromEntries(Object.entries(values).filter(([, value]) => value !== null))
  if (Object.keys(set).length > 0)
    draft.do({
      type: 'set-properties',
      part: style.part,
      node: style.node,
      properties: kind,
      set,
      id: draft.newIds(1)[0]!,
    })
}
