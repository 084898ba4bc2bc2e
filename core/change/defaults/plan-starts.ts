import { slots } from '../../document/font-attributes'
import type { StartKind } from '../../document/rules'
import type { Style } from '../../document/styles'
import { elementMarkup, subtreeIds } from '../../xml/edit'
import { writeElement } from '../../xml/write'
import { describeValues, plainNumber } from '../../style/describe'
import { points, slotAttributes } from '../../style/properties'
import { paragraphRuns } from '../../style/runs'
import type { XmlElement } from '../../xml/tree'
import { PlanError } from '../plan'
import { fontValues } from '../styles/fonts'
import type { Planner } from '../planner'
import { styleMarkup, uniqueName } from '../styles/style-markup'
import type { StartValues } from './wishes'

/** What kinds of objects a document can begin new text in. */
export function startKindsOf(kind: string): readonly StartKind[] {
  if (kind === 'text') return ['body', 'frame', 'shape', 'cell', 'note', 'header']
  return kind === 'presentation'
    ? ['frame', 'shape', 'title', 'outline1', 'outline2', 'outline3', 'outline4', 'outline5', 'cell']
    : ['frame', 'shape', 'cell']
}

/** Whether a kind is a placeholder of a presentation's masters. */
export const isPlaceholder = (kind: StartKind): boolean => kind === 'title' || kind.startsWith('outline')

/**
 * Whether a kind begins with what OpenDocument's own default says; all others begin with a style that the rules
 * part names.
 */
export function isLive(documentKind: string, kind: StartKind): boolean {
  return documentKind === 'text'
    ? kind === 'body' || kind === 'shape'
    : kind === 'frame' || kind === 'shape' || isPlaceholder(kind)
}

const kindTitles: Readonly<Record<StartKind, string>> = {
  body: 'Body text',
  frame: 'Frame text',
  shape: 'Shape label',
  title: 'Title',
  outline1: 'Outline level 1',
  outline2: 'Outline level 2',
  outline3: 'Outline level 3',
  outline4: 'Outline level 4',
  outline5: 'Outline level 5',
  cell: 'Table text',
  note: 'Note text',
  header: 'Header and footer text',
}

/** The default styles that speak for a kind, and the common one that new objects are based on. */
function targetsOf(planner: Planner, family: 'paragraph' | 'graphic'): Style[] {
  const { scope } = planner
  const common = [...scope.common.values()].find(style => style.family === family && /^standard$/i.test(style.name))
  const fallback = scope.defaults.get(family)
  return [...(fallback ? [fallback] : []), ...(common ? [common] : [])]
}

/** Sets values in a style's element, which gets the properties it lacks. */
function setValues(
  planner: Planner,
  node: number,
  kind: 'text' | 'paragraph' | 'graphic',
  values: Readonly<Record<string, string | null>>,
): void {
  if (Object.keys(values).length === 0) return
  const draft = planner.common
  const element = draft.part.element(node)
  const name = `style:${kind}-properties`
  const existing = draft.part.first(element, name)
  if (existing) {
    draft.setAttributes(existing.id, values)
    return
  }
  const set = Object.fromEntries(Object.entries(values).filter((entry): entry is [string, string] => entry[1] !== null))
  if (Object.keys(set).length === 0) return
  const order = ['style:graphic-properties', 'style:paragraph-properties', 'style:text-properties']
  const before = [...draft.part.elements(element)].find(
    child => order.indexOf(child.name) > order.indexOf(name) || child.name === 'style:map',
  )
  draft.insert(
    node,
    before ? element.children.indexOf(before.id) : element.children.length,
    elementMarkup(draft.part, element, name, set),
    1,
  )
}

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

/**
 * Sets what a live default says, and pins all text that is there to what it said: styles that took values from the
 * default say them themselves, and text that went by the default alone gets a style of its own.
 */
function setLive(
  planner: Planner,
  family: 'paragraph' | 'graphic',
  text: Readonly<Record<string, string | null>>,
  paragraph: Readonly<Record<string, string | null>>,
): void {
  let targets = targetsOf(planner, family)
  const draft = planner.common
  if (targets.length === 0 || targets[0]!.origin !== 'default') {
    const holder = draft.part.first(draft.part.rootElement, 'office:styles')
    if (!holder) throw new PlanError('This document has no part for styles. Nothing was changed.')
    draft.insert(holder.id, 0, elementMarkup(draft.part, holder, 'style:default-style', { 'style:family': family }), 1)
    planner.reread()
    targets = targetsOf(planner, family)
  }
  const names = { text: Object.keys(text), paragraph: Object.keys(paragraph) }
  const nodes = new Set(targets.map(style => style.node))
  /** What the targets say now: the last that says something. */
  const said = (kind: 'text' | 'paragraph', name: string, upTo: Style | null) => {
    let value: string | undefined = undefined
    for (const target of targets) {
      value = target[kind][name] ?? value
      if (target === upTo) break
    }
    return value ?? initial[name]
  }
  const pins = (upTo: Style, own: Style | null) => {
    const pick = (kind: 'text' | 'paragraph') =>
      Object.fromEntries(
        names[kind].flatMap(name => {
          const value = said(kind, name, upTo)
          return own?.[kind][name] !== undefined || value === undefined ? [] : [[name, value]]
        }),
      )
    return { text: pick('text'), paragraph: pick('paragraph') }
  }
  const standard = targets.find(style => style.origin === 'common') ?? null
  const families = family === 'graphic' ? ['graphic', 'presentation'] : ['paragraph']
  let pinned = 0
  for (const style of planner.scope.common.values()) {
    if (!families.includes(style.family) || nodes.has(style.node)) continue
    const parent =
      style.parentName === null ? null : (planner.scope.common.get(`${style.family}\n${style.parentName}`) ?? null)
    if (parent !== null && parent !== standard) continue
    if (!planner.usersOf(style)) continue
    const own = pins(parent ?? targets[0]!, style)
    setValues(planner, style.node, 'paragraph', own.paragraph)
    setValues(planner, style.node, 'text', own.text)
    if (Object.keys(own.text).length + Object.keys(own.paragraph).length > 0) pinned++
  }
  // Text that goes by the targets alone, with or without a style by hand in between.
  const made = new Map<string, string>()
  const pinnedStyle = (base: Style | null): string => {
    const key = base?.name ?? ''
    const known = made.get(key)
    if (known !== undefined) return known
    const name = uniqueName(
      planner,
      family,
      base ? `${base.displayName} as before` : family === 'paragraph' ? 'Text as before' : 'Shapes as before',
    )
    const own = pins(base ?? targets[0]!, null)
    const node = styleMarkup(planner, family, name, {
      parent: base?.name ?? null,
      text: own.text,
      paragraph: own.paragraph,
    })
    made.set(key, name.name)
    planner.row({
      key: { what: 'pinned style', key },
      stage: 'default',
      title: `New style ${name.displayName}`,
      before: 'text that went by the default alone',
      after: 'keeps its look',
      places: [{ part: draft.path, node }],
    })
    return name.name
  }
  let moved = 0
  for (const path of planner.reading.cascade.scopes.keys()) {
    const own = planner.change.on(path)
    const scope = planner.reading.cascade.scope(path)
    for (const style of scope.automatic.values()) {
      if (style.family !== family) continue
      const base = style.parentName === null ? null : style.parentName === standard?.name ? standard : undefined
      if (base === undefined || !planner.usersOf(style)) continue
      own.setAttributes(style.node, { 'style:parent-style-name': pinnedStyle(base) })
      moved++
    }
    const sections = [...own.part.elements(own.part.rootElement)].filter(
      each => each.name === 'office:body' || each.name === 'office:master-styles',
    )
    for (const section of sections) {
      for (const element of [...own.part.descendants(section)]) {
        const base = goesByTarget(element, family, standard, scope.automatic)
        if (base === undefined) continue
        own.setAttributes(element.id, {
          [family === 'paragraph' ? 'text:style-name' : 'draw:style-name']: pinnedStyle(base),
        })
        moved++
      }
    }
  }
  for (const target of targets) {
    // The default says it all; a common style above it only where it would say otherwise.
    const set = (kind: 'text' | 'paragraph', values: Readonly<Record<string, string | null>>) =>
      target.origin === 'default'
        ? values
        : Object.fromEntries(Object.entries(values).filter(([name]) => target[kind][name] !== undefined))
    setValues(planner, target.node, 'paragraph', set('paragraph', paragraph))
    setValues(planner, target.node, 'text', set('text', text))
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

/**
 * The target that an element goes by without a style between: null for the default itself, undefined where it goes
 * by another style.
 */
function goesByTarget(
  element: XmlElement,
  family: 'paragraph' | 'graphic',
  standard: Style | null,
  automatic: ReadonlyMap<string, Style>,
): Style | null | undefined {
  if (family === 'paragraph') {
    if (element.name !== 'text:p' && element.name !== 'text:h') return undefined
    const name = element.attributes['text:style-name']
    if (name === undefined) return null
    return standard && name === standard.name && !automatic.has(`paragraph\n${name}`) ? standard : undefined
  }
  if (
    !/^draw:(frame|rect|ellipse|circle|custom-shape|polygon|polyline|path|line|connector|caption|regular-polygon|measure)$/.test(
      element.name,
    )
  )
    return undefined
  if (element.attributes['presentation:style-name'] !== undefined) return undefined
  const name = element.attributes['draw:style-name']
  if (name === undefined) return null
  return standard && name === standard.name && !automatic.has(`graphic\n${name}`) ? standard : undefined
}

/**
 * Sets the presentation styles of a placeholder on every master. Frames that are there go over to copies that say what
 * the styles said: of an outline all levels together, since text finds its level's style by name (16.40.2).
 */
function setPlaceholder(
  planner: Planner,
  kind: StartKind,
  text: Readonly<Record<string, string | null>>,
  paragraph: Readonly<Record<string, string | null>>,
): void {
  const draft = planner.common
  const own = kind === 'title' ? /-title$/ : /-outline[1-9]$/
  const masters = new Map<string, Style[]>()
  for (const style of planner.scope.common.values())
    if (style.family === 'presentation' && own.test(style.name))
      masters.set(style.name.replace(own, ''), [...(masters.get(style.name.replace(own, '')) ?? []), style])
  if (masters.size === 0)
    throw new PlanError(
      `The masters of this presentation have no styles for ${kind === 'title' ? 'titles' : 'outlines'}. Nothing was changed.`,
    )
  let moved = 0
  for (const [master, styles] of masters) {
    const names = new Set(styles.map(style => style.name))
    // Whatever goes by one of them in the pages themselves, by hand or directly.
    const users: { part: string; node: number; attribute: string; name: string }[] = []
    for (const path of planner.reading.cascade.scopes.keys()) {
      if (path === draft.path) continue
      for (const style of planner.reading.cascade.scope(path).automatic.values())
        if (style.family === 'presentation' && style.parentName !== null && names.has(style.parentName))
          users.push({ part: path, node: style.node, attribute: 'style:parent-style-name', name: style.parentName })
      const part = planner.change.part(path)
      for (const element of part.descendants()) {
        const name = element.attributes['presentation:style-name']
        if (name !== undefined && names.has(name))
          users.push({ part: path, node: element.id, attribute: 'presentation:style-name', name })
      }
    }
    if (users.length > 0) {
      const taken = new Set([...planner.scope.common.values()].map(style => style.name))
      let before = `${master}_20_as_20_before`
      for (let number = 2; [...names].some(name => taken.has(name.replace(master, before))); number++)
        before = `${master}_20_as_20_before_20_${number}`
      const renamed = (name: string) => (names.has(name) ? `${before}${name.slice(master.length)}` : name)
      for (const style of styles) {
        const element = draft.part.element(style.node)
        const copy = draft.newIds(subtreeIds(draft.part, style.node).length)
        draft.place(element.parent, draft.indexOf(style.node) + 1, writeElement(draft.part, style.node), copy)
        const parent = element.attributes['style:parent-style-name']
        draft.setAttributes(copy[0]!, {
          'style:name': renamed(style.name),
          'style:display-name': null,
          ...(parent === undefined ? {} : { 'style:parent-style-name': renamed(parent) }),
        })
      }
      for (const user of users)
        planner.change.on(user.part).setAttributes(user.node, { [user.attribute]: renamed(user.name) })
      moved += users.length
    }
    const target = styles.find(style => style.name === `${master}-${kind}`)
    if (!target) continue
    // Deeper levels say themselves what they had from this one, so that it alone changes.
    for (const style of styles) {
      if (style.parentName !== target.name) continue
      const pick = (which: 'text' | 'paragraph', set: Readonly<Record<string, string | null>>) =>
        Object.fromEntries(
          Object.keys(set).flatMap(name => {
            const value = target[which][name]
            return style[which][name] !== undefined || value === undefined ? [] : [[name, value]]
          }),
        )
      setValues(planner, style.node, 'paragraph', pick('paragraph', paragraph))
      setValues(planner, style.node, 'text', pick('text', text))
    }
    setValues(planner, target.node, 'paragraph', paragraph)
    setValues(planner, target.node, 'text', text)
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

/** Sets what new text of a kind begins with. Existing text stays as it looks. @throws PlanError */
export function setStart(planner: Planner, kind: StartKind, values: StartValues): void {
  const { kind: documentKind } = planner.document
  if (!startKindsOf(documentKind).includes(kind))
    throw new PlanError(
      `A ${documentKind} has no ${
        kind === 'body' ? 'body text' : kind === 'note' ? 'notes at the foot of a page' : 'headers of this kind'
      }. ` + `Nothing was changed.`,
    )
  const draft = planner.common
  const text: Record<string, string | null> = { ...values.text }
  for (const slot of slots) {
    const font = values.fonts?.[slot]
    if (font !== undefined) Object.assign(text, fontValues(draft, slot, font))
  }
  const paragraph = { ...values.paragraph }
  const graphic: Record<string, string | null> = {
    ...(values.inset === undefined ? {} : { 'fo:padding': `${values.inset}pt` }),
    ...(values.fill === undefined
      ? {}
      : values.fill === null
        ? { 'draw:fill': 'none' }
        : { 'draw:fill': 'solid', 'draw:fill-color': values.fill }),
  }
  const only = (set: Readonly<Record<string, string | null>>) =>
    Object.fromEntries(Object.entries(set).filter((entry): entry is [string, string] => entry[1] !== null))
  const words = describeValues(only(text), only(paragraph), planner.scope).join(', ')
  const live = isLive(documentKind, kind)
  if (isPlaceholder(kind)) setPlaceholder(planner, kind, text, paragraph)
  else if (live) setLive(planner, kind === 'body' ? 'paragraph' : 'graphic', text, paragraph)
  const rules = planner.currentRules
  const known = rules.starts[kind]
  let next = { ...known }
  if (!live) {
    const existing =
      known?.paragraph === undefined ? undefined : planner.scope.common.get(`paragraph\n${known.paragraph}`)
    const used = existing ? planner.usersOf(existing) !== undefined : false
    let name = existing?.name
    let node = existing?.node
    if (!existing || used) {
      // Text that began with the style before keeps it; what is new begins with another.
      const base =
        existing ??
        [...planner.scope.common.values()].find(
          style =>
            style.family === 'paragraph' &&
            (kind === 'note' ? /^(footnote|fußnote)/i : kind === 'header' ? /^header$/i : /^standard$/i).test(
              style.displayName,
            ),
        )
      const made = uniqueName(planner, 'paragraph', kindTitles[kind])
      node = styleMarkup(planner, 'paragraph', made, { parent: base?.name ?? null })
      name = made.name
    }
    setValues(planner, node!, 'paragraph', paragraph)
    setValues(planner, node!, 'text', text)
    next = { ...next, paragraph: name! }
    if (kind === 'note')
      for (const element of [...draft.part.descendants()])
        if (element.name === 'text:notes-configuration')
          draft.setAttributes(element.id, { 'text:default-style-name': name! })
  }
  if (kind === 'frame' && Object.keys(graphic).length > 0) {
    const made = uniqueName(planner, 'graphic', 'Text frame')
    const node = styleMarkup(planner, 'graphic', made, {})
    setValues(planner, node, 'graphic', { 'draw:fill': 'none', 'draw:stroke': 'none', 'fo:border': 'none', ...graphic })
    next = { ...next, frame: made.name }
  }
  planner.rules = {
    ...planner.currentRules,
    starts: { ...rules.starts, ...(Object.keys(next).length > 0 ? { [kind]: next } : {}) },
  }
  planner.row({
    key: { what: 'default', kind },
    stage: 'default',
    title: `What ${kindTitles[kind].toLowerCase()} begins with`,
    before: live ? 'the default of the document' : known ? 'its own style' : 'what the document’s defaults say',
    after: words || 'as set',
  })
  if (!live)
    planner.note(
      'other programs',
      kind === 'note'
        ? 'OpenDocument gives notes the name of a style, which is set: most programs follow it'
        : 'OpenDocument has no default for this kind, so they begin such text in their own way',
    )
}

/**
 * What the text at a place looks like, as values to begin with: a finished object becomes the start of its kind.
 * @throws PlanError
 */
export function valuesLike(planner: Planner, part: string, node: number, offset: number): StartValues {
  for (const { paragraph, story } of planner.paragraphs()) {
    if (paragraph.part !== part || paragraph.node !== node) continue
    const { cascade } = planner.reading
    const { runs } = paragraphRuns(paragraph, cascade, story.role)
    const style =
      (runs.find(run => run.start <= offset && run.end > offset) ?? runs.at(-1))?.style ??
      cascade.paragraph(paragraph, story.role).text
    const { effective } = style
    const fonts = Object.fromEntries(
      slots.flatMap(slot => {
        const { family, generic, pitch } = effective.slots[slot].font
        return family === '' ? [] : [[slot, { family, ...(generic ? { generic } : {}), ...(pitch ? { pitch } : {}) }]]
      }),
    )
    const text: Record<string, string> = {}
    for (const slot of slots) {
      const own = effective.slots[slot]
      text[slotAttributes[slot].size] = `${plainNumber(own.size)}pt`
      text[slotAttributes[slot].weight] =
        own.weight === 400 ? 'normal' : own.weight === 700 ? 'bold' : String(own.weight)
      text[slotAttributes[slot].style] = own.posture
    }
    for (const name of ['fo:color', 'fo:letter-spacing', 'fo:hyphenate'] as const)
      if (effective.shared[name] !== '') text[name] = effective.shared[name]
    const leading = effective.leading['fo:line-height']
    const frame = [...effective.layers]
      .reverse()
      .find(layer => layer.from === 'frame' && layer.style.graphic['fo:padding'] !== undefined)
    const inset = points(frame?.style.graphic['fo:padding'])
    const filled = [...effective.layers]
      .reverse()
      .find(layer => layer.from === 'frame' && layer.style.graphic['draw:fill'] !== undefined)?.style.graphic
    return {
      fonts,
      text,
      paragraph: leading === undefined ? {} : { 'fo:line-height': leading },
      ...(inset === null ? {} : { inset }),
      ...(filled
        ? {
            fill:
              filled['draw:fill'] === 'solid' && /^#[0-9a-f]{6}$/i.test(filled['draw:fill-color'] ?? '')
                ? filled['draw:fill-color']!
                : null,
          }
        : {}),
    }
  }
  throw new PlanError('The text that was to be the example is no longer there. Nothing was changed.')
}
