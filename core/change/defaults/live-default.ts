import type { Style } from '../../document/styles'
import { uniqueName } from '../../document/style-names'
import { moveFromDefault, type DefaultFamily } from '../../document/style-users'
import { addDefaultStyle, addStyle, setParentStyle, setStyleValues } from '../../document/style-verbs'
import type { Values } from '../../document/automatic-styles'
import { PlanError } from '../plan'
import type { Planner } from '../planner'

/**
 * What holds where no style says anything, for values that would otherwise change with a default (ODF 1.4 part 3,
 * 20, and CSS where it leaves them open).
 */
const initial: Readonly<Record<string, string>> = {
  'fo:font-size': '12pt',
  'style:font-size-asian': '12pt',
  'style:font-size-complex': '12pt',
  'fo:font-weight': 'normal',
  'fo:font-style': 'normal',
  'fo:letter-spacing': 'normal',
  'fo:hyphenate': 'false',
  'fo:line-height': 'normal',
  'fo:text-align': 'start',
  'fo:color': '#000000',
  'fo:background-color': 'transparent',
  'style:letter-kerning': 'false',
  'fo:text-transform': 'none',
}

/** The default styles that speak for a kind, and the common one that new objects are based on. */
function targetsOf(planner: Planner, family: DefaultFamily): Style[] {
  const { scope } = planner
  const common = [...scope.common.values()].find(style => style.family === family && /^standard$/i.test(style.name))
  const fallback = scope.defaults.get(family)
  return [...(fallback ? [fallback] : []), ...(common ? [common] : [])]
}

/** What a default shall say. */
export interface LiveValues {
  readonly text: Values
  readonly paragraph: Values
}

/** Values that a style shall say itself. */
interface Pins {
  readonly text: Record<string, string>
  readonly paragraph: Record<string, string>
}

/**
 * Sets what a live default says, and pins all text that is there to what it said: styles that took values from the
 * default say them themselves, and text that went by the default alone gets a style of its own. @throws PlanError
 */
export function setLive(planner: Planner, family: DefaultFamily, values: LiveValues): void {
  const targets = targetsMade(planner, family)
  const pinned = pinStyles(planner, family, targets, values)
  const moved = moveText(planner, family, targets, values)
  for (const target of targets) {
    // The default says it all; a common style above it only where it would say otherwise.
    const set = (kind: 'text' | 'paragraph') =>
      target.origin === 'default'
        ? values[kind]
        : Object.fromEntries(Object.entries(values[kind]).filter(([name]) => target[kind][name] !== undefined))
    setStyleValues(planner.common, target.node, 'paragraph', set('paragraph'))
    setStyleValues(planner.common, target.node, 'text', set('text'))
  }
  planner.row({
    key: { what: 'existing text', family },
    stage: 'default',
    title: 'Existing text',
    count: pinned + moved,
    before: 'goes by the default',
    after: 'keeps its look',
  })
}

/** The targets, with a default style where the document had none. */
function targetsMade(planner: Planner, family: DefaultFamily): Style[] {
  const targets = targetsOf(planner, family)
  if (targets[0]?.origin === 'default') return targets
  if (!addDefaultStyle(planner.common, family))
    throw new PlanError('This document has no part for styles. Nothing was changed.')
  planner.reread()
  return targetsOf(planner, family)
}

/**
 * What a style would no longer have from the targets, up to and with one of them, once they say other values: the last
 * that says something now, but for what the style says itself.
 */
function pinsOf(targets: readonly Style[], values: LiveValues, upTo: Style, own: Style | null): Pins {
  const above = targets.slice(0, targets.indexOf(upTo) + 1)
  const pick = (kind: 'text' | 'paragraph') =>
    Object.fromEntries(
      Object.keys(values[kind]).flatMap(name => {
        const value = above.findLast(target => target[kind][name] !== undefined)?.[kind][name] ?? initial[name]
        return own?.[kind][name] !== undefined || value === undefined ? [] : [[name, value]]
      }),
    )
  return { text: pick('text'), paragraph: pick('paragraph') }
}

/** Lets common styles right below the targets say themselves what they had from them. Returns how many had to. */
function pinStyles(planner: Planner, family: DefaultFamily, targets: readonly Style[], values: LiveValues): number {
  const nodes = new Set(targets.map(style => style.node))
  const standard = targets.find(style => style.origin === 'common') ?? null
  const families = family === 'graphic' ? ['graphic', 'presentation'] : ['paragraph']
  const { common } = planner.scope
  let pinned = 0
  for (const style of common.values()) {
    if (!families.includes(style.family) || nodes.has(style.node)) continue
    const parent = style.parentName === null ? null : (common.get(`${style.family}\n${style.parentName}`) ?? null)
    if (parent !== null && parent !== standard) continue
    if (!planner.usersOf(style)) continue
    const own = pinsOf(targets, values, parent ?? targets[0]!, style)
    setStyleValues(planner.common, style.node, 'paragraph', own.paragraph)
    setStyleValues(planner.common, style.node, 'text', own.text)
    if (Object.keys(own.text).length + Object.keys(own.paragraph).length > 0) pinned++
  }
  return pinned
}

/** Moves text that goes by the targets alone, with or without a style by hand in between, to styles that are made. */
function moveText(planner: Planner, family: DefaultFamily, targets: readonly Style[], values: LiveValues): number {
  const standard = targets.find(style => style.origin === 'common') ?? null
  const made = new Map<Style | null, string>()
  const pinnedStyle = (base: Style | null): string => {
    let name = made.get(base)
    if (name === undefined)
      made.set(base, (name = makePinned(planner, family, base, pinsOf(targets, values, base ?? targets[0]!, null))))
    return name
  }
  let moved = 0
  for (const path of planner.reading.cascade.scopes.keys()) {
    const draft = planner.change.on(path)
    const scope = planner.reading.cascade.scope(path)
    for (const style of scope.automatic.values()) {
      if (style.family !== family) continue
      const base = style.parentName === null ? null : style.parentName === standard?.name ? standard : undefined
      if (base === undefined || !planner.usersOf(style)) continue
      setParentStyle(draft, style.node, pinnedStyle(base))
      moved++
    }
    moved += moveFromDefault(draft, scope, family, standard, pinnedStyle)
  }
  return moved
}

/** Makes the style that says what a target said. Returns its name. */
function makePinned(planner: Planner, family: DefaultFamily, base: Style | null, pins: Pins): string {
  const draft = planner.common
  const title = base ? `${base.displayName} as before` : family === 'paragraph' ? 'Text as before' : 'Shapes as before'
  const name = uniqueName(draft.part, family, title)
  const node = addStyle(draft, family, name, { parent: base?.name ?? null, ...pins })
  planner.row({
    key: { what: 'pinned style', key: base?.name ?? '' },
    stage: 'default',
    title: `New style ${name.displayName}`,
    before: 'text that went by the default alone',
    after: 'keeps its look',
    places: [{ part: draft.path, node }],
  })
  return name.name
}
