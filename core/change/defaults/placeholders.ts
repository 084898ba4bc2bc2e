import type { Values } from '../../document/automatic-styles'
import type { StartKind } from '../../document/rules'
import { movePlaceholder, placeholderUses } from '../../document/style-users'
import { copyStyle, setStyleValues } from '../../document/style-verbs'
import type { Style, StyleScope } from '../../document/styles'
import { PlanError } from '../plan'
import type { Planner } from '../planner'

/** The presentation styles of titles, or of all outline levels, by the prefix that a master's styles share. */
export function placeholderStyles({ common }: StyleScope, kind: StartKind): ReadonlyMap<string, readonly Style[]> {
  const own = kind === 'title' ? /-title$/ : /-outline[1-9]$/
  const masters = new Map<string, Style[]>()
  for (const style of common.values()) {
    if (style.family !== 'presentation' || !own.test(style.name)) continue
    const master = style.name.replace(own, '')
    masters.set(master, [...(masters.get(master) ?? []), style])
  }
  return masters
}

/**
 * Sets the presentation styles of a placeholder on every master. Frames that are there go over to copies that say what
 * the styles said: of an outline all levels together, since text finds its level's style by name (ODF 1.4 part 3,
 * 16.40.2). @throws PlanError where the masters have none
 */
export function setPlaceholder(planner: Planner, kind: StartKind, text: Values, paragraph: Values): void {
  const masters = placeholderStyles(planner.scope, kind)
  if (masters.size === 0)
    throw new PlanError(
      `The masters of this presentation have no styles for ${kind === 'title' ? 'titles' : 'outlines'}. Nothing was changed.`,
    )
  let moved = 0
  for (const [master, styles] of masters) {
    moved += moveAway(planner, master, styles)
    const target = styles.find(style => style.name === `${master}-${kind}`)
    if (!target) continue
    pinLevels(planner, styles, target, { text, paragraph })
    setStyleValues(planner.common, target.node, 'paragraph', paragraph)
    setStyleValues(planner.common, target.node, 'text', text)
  }
  planner.row({
    key: { what: 'existing placeholders', kind },
    stage: 'default',
    title: 'Existing placeholders',
    count: moved,
    before: 'go by the master',
    after: 'keep their look',
  })
}

/** Lets whatever goes by the styles of a master in the pages go by copies of them. Returns how many places did. */
function moveAway(planner: Planner, master: string, styles: readonly Style[]): number {
  const draft = planner.common
  const names = new Set(styles.map(style => style.name))
  const uses = [...planner.reading.cascade.scopes.keys()]
    .filter(path => path !== draft.path)
    .flatMap(path => placeholderUses(planner.change.part(path), planner.reading.cascade.scope(path), names))
  if (uses.length === 0) return 0
  const taken = new Set([...planner.scope.common.values()].map(style => style.name))
  let before = `${master}_20_as_20_before`
  for (let number = 2; [...names].some(name => taken.has(name.replace(master, before))); number++)
    before = `${master}_20_as_20_before_20_${number}`
  const renamed = (name: string) => (names.has(name) ? `${before}${name.slice(master.length)}` : name)
  for (const style of styles)
    copyStyle(draft, style.node, renamed(style.name), style.parentName === null ? undefined : renamed(style.parentName))
  for (const use of uses) movePlaceholder(planner.change.on(use.part), use, renamed(use.name))
  return uses.length
}

/** Lets deeper levels say themselves what they had from one, so that it alone changes. */
function pinLevels(
  planner: Planner,
  styles: readonly Style[],
  target: Style,
  values: { readonly text: Values; readonly paragraph: Values },
): void {
  for (const style of styles) {
    if (style.parentName !== target.name) continue
    const pick = (kind: 'text' | 'paragraph') =>
      Object.fromEntries(
        Object.keys(values[kind]).flatMap(name => {
          const value = target[kind][name]
          return style[kind][name] !== undefined || value === undefined ? [] : [[name, value]]
        }),
      )
    setStyleValues(planner.common, style.node, 'paragraph', pick('paragraph'))
    setStyleValues(planner.common, style.node, 'text', pick('text'))
  }
}
