import { slots } from '../../document/font-attributes'
import { takenNames, uniqueName, type StyleName } from '../../document/style-names'
import {
  addStyle,
  setDropCap,
  setLabelStyle,
  setStyleHead,
  setStyleValues,
  setTabStops,
} from '../../document/style-verbs'
import { listStyleOf, withParents, type Style } from '../../document/styles'
import { describeHolder, describeValues, plainNumber } from '../../style/describe'
import { PlanError } from '../plan'
import { fontValues } from '../../document/face-verbs'
import type { Planner } from '../planner'
import { familyName, familyTitle, isTextFamily, type StyleFamily, type TextFamily } from '../../style/families'
import type { StyleChanges } from '../../style/style-changes'

const points = (value: number) => `${plainNumber(value)}pt`

/** @throws PlanError where another style of the family is called so */
function checkName(planner: Planner, family: StyleFamily, name: string | null, displayName: string): void {
  for (const [other, shown] of takenNames(planner.common.part, family)) {
    if (other !== name && shown.toLowerCase() === displayName.toLowerCase())
      throw new PlanError(
        `There is a ${familyName(family)} “${shown}” already. Give this one another name. Nothing was changed.`,
      )
  }
}

/** Changes a named style where it is defined: everything that uses it follows. @throws PlanError */
export function editStyle(planner: Planner, family: StyleFamily, name: string, changes: StyleChanges): void {
  const style = planner.style(family, name)
  if (!isTextFamily(family)) checkHeld(family, changes)
  setHead(planner, style, changes)
  setValues(planner, style, changes)
  const { tabs, dropCap } = changes
  if (tabs !== undefined)
    setTabStops(planner.common, style.node, tabs && tabs.map(tab => ({ ...tab, position: points(tab.position) })))
  if (dropCap !== undefined) {
    if (dropCap?.style != null) planner.style('text', dropCap.style)
    setDropCap(
      planner.common,
      style.node,
      dropCap && { ...dropCap, distance: points(dropCap.distance), style: dropCap.style ?? null },
    )
  }
  if (changes.listLabel !== undefined) setListLabel(planner, style, changes)
  if (isTextFamily(family)) setFeatures(planner, { family, name }, changes)
  setRole(planner, { family, name }, changes)
  const users = planner.counts ? planner.usersOf(style) : undefined
  planner.row({
    key: { what: 'style', family, name },
    stage: 'style',
    title: `${familyTitle(family)} ${style.displayName}`,
    characters: users?.characters ?? 0,
    before: saidOf(planner, style),
    after: changedWords(planner, changes),
    places: [{ part: style.part, node: style.node }],
  })
}

/** What is said of paragraphs, or kept in the document's own part for them, has no place in a style of what holds text. */
function checkHeld(family: StyleFamily, changes: StyleChanges): void {
  const { next, outlineLevel, listStyle, listLabel, tabs, dropCap, features } = changes
  const ofText = [next, outlineLevel, listStyle, listLabel, tabs, dropCap, features]
  if (ofText.some(each => each !== undefined))
    throw new PlanError(
      `A ${familyName(family)} sets type, spacing and ground alone: levels, lists, tab stops and features ` +
        'belong to paragraph styles. Nothing was changed.',
    )
}

/** What a style is called, what it goes back to and what follows it. @throws PlanError */
function setHead(planner: Planner, style: Style, changes: StyleChanges): void {
  const { name } = style
  const family = style.family as StyleFamily
  if (changes.displayName !== undefined && changes.displayName !== style.displayName)
    checkName(planner, family, name, changes.displayName)
  if (changes.parent != null) {
    const parent = planner.style(family, changes.parent)
    if (withParents(planner.scope, parent).some(each => each.name === name))
      throw new PlanError(
        `“${parent.displayName}” goes back to “${style.displayName}” itself, so it cannot be its parent. Nothing was changed.`,
      )
  }
  if (changes.next != null) planner.style('paragraph', changes.next)
  setStyleHead(planner.common, style.node, changes)
}

/** Its values, with the declarations that its fonts need. @throws PlanError */
function setValues(planner: Planner, style: Style, changes: StyleChanges): void {
  const draft = planner.common
  const text: Record<string, string | null> = { ...changes.text }
  for (const slot of slots)
    if (changes.fonts?.[slot] !== undefined) Object.assign(text, fontValues(draft, slot, changes.fonts[slot] ?? null))
  const paragraph = changes.paragraph ?? {}
  if (style.family === 'text' && Object.keys(paragraph).length > 0)
    throw new PlanError('A character style has no paragraph formatting. Nothing was changed.')
  setStyleValues(draft, style.node, 'text', text)
  setStyleValues(draft, style.node, 'paragraph', paragraph)
  const holder = changes.holder ?? {}
  if (isTextFamily(style.family as StyleFamily) && Object.keys(holder).length > 0)
    throw new PlanError('This style speaks of text: it has no frame or cell around it. Nothing was changed.')
  setStyleValues(draft, style.node, style.family === 'table-cell' ? 'table-cell' : 'graphic', holder)
}

type Of<F extends StyleFamily> = { readonly family: F; readonly name: string }
const isOf =
  ({ family, name }: Of<StyleFamily>) =>
  (each: { readonly style: Of<StyleFamily> }) =>
    each.style.family === family && each.style.name === name

/** Features of its font, for which the format has no place: in the document's own part. */
function setFeatures(planner: Planner, key: Of<TextFamily>, { features }: StyleChanges): void {
  if (features === undefined) return
  const rules = planner.currentRules
  const others = rules.features.filter(each => !isOf(key)(each))
  const own = features && Object.keys(features).length > 0 ? [{ style: key, features }] : []
  planner.rules = { ...rules, features: [...others, ...own] }
}

/** What a style is for and who made it, in the document's own part, too. */
function setRole(planner: Planner, key: Of<StyleFamily>, changes: StyleChanges): void {
  if (changes.role === undefined && changes.author === undefined) return
  const rules = planner.currentRules
  const known = rules.styles.find(isOf(key))
  const role = changes.role === undefined ? known?.role : (changes.role ?? undefined)
  const author = changes.author === undefined ? known?.author : changes.author || undefined
  const others = rules.styles.filter(each => !isOf(key)(each))
  const own = role || author ? [{ style: key, ...(role ? { role } : {}), ...(author ? { author } : {}) }] : []
  planner.rules = { ...rules, styles: [...others, ...own] }
}

const saidOf = (planner: Planner, style: Style) =>
  [
    ...describeValues(style.text, style.paragraph, planner.scope),
    ...describeHolder({ ...style.graphic, ...style.cell }),
  ].join(', ') ||
  (style.parentName
    ? `as ${planner.titleOf(planner.scope, style.family, style.parentName)}`
    : 'says nothing of its own')

/** What changes say, in words. */
function changedWords(planner: Planner, changes: StyleChanges): string {
  const set = (values: Readonly<Record<string, string | null>> | undefined) =>
    Object.fromEntries(Object.entries(values ?? {}).filter((entry): entry is [string, string] => entry[1] !== null))
  const words = [
    ...slots.flatMap(slot =>
      changes.fonts?.[slot] ? [`${slot === 'western' ? '' : `${slot} text in `}${changes.fonts[slot].family}`] : [],
    ),
    ...describeValues(set(changes.text), set(changes.paragraph), planner.scope),
    ...describeHolder(set(changes.holder)),
  ]
  const freed = [
    ...Object.values(changes.text ?? {}),
    ...Object.values(changes.paragraph ?? {}),
    ...Object.values(changes.holder ?? {}),
    ...Object.values(changes.fonts ?? {}),
  ].filter(value => value === null).length
  if (freed > 0) words.push(`${freed} ${freed === 1 ? 'value' : 'values'} let go`)
  if (changes.displayName !== undefined) words.push(`called ${changes.displayName}`)
  if (changes.parent !== undefined)
    words.push(
      changes.parent === null ? 'no parent' : `parent ${planner.titleOf(planner.scope, 'paragraph', changes.parent)}`,
    )
  if (changes.tabs) words.push(`${changes.tabs.length} tab ${changes.tabs.length === 1 ? 'stop' : 'stops'}`)
  if (changes.listLabel !== undefined)
    words.push(
      changes.listLabel === null
        ? 'labels in the type of the item'
        : `labels in ${planner.titleOf(planner.scope, 'text', changes.listLabel)}`,
    )
  if (changes.dropCap) words.push(`drop cap over ${changes.dropCap.lines} lines`)
  if (changes.features) words.push(`features ${Object.keys(changes.features).join(', ') || 'none'}`)
  if (changes.role) words.push(`role ${changes.role}`)
  return words.join(', ') || 'the same'
}

/**
 * Gives the labels of a style's list a character style (text:style-name of its levels, ODF 1.4 part 3, 19.876).
 * @throws PlanError where it has no list of the document's named ones
 */
function setListLabel(planner: Planner, style: Style, changes: StyleChanges): void {
  const list = changes.listStyle === undefined ? listStyleOf(planner.scope, style) : changes.listStyle
  const found = list === null ? undefined : planner.scope.lists.get(list)
  const draft = planner.common
  if (!found || found.part.path !== draft.path)
    throw new PlanError(
      `“${style.displayName}” has no list whose labels could be set: choose a list for it first. Nothing was changed.`,
    )
  if (changes.listLabel != null) planner.style('text', changes.listLabel)
  setLabelStyle(draft, found.element.id, changes.listLabel ?? null)
}

/** Makes a style. @throws PlanError where the name is taken */
export function makeStyle(planner: Planner, family: TextFamily, displayName: string, changes: StyleChanges): StyleName {
  checkName(planner, family, null, displayName)
  const made = uniqueName(planner.common.part, family, displayName)
  const parent = changes.parent ?? null
  if (parent !== null) planner.style(family, parent)
  addStyle(planner.common, family, made, { parent })
  planner.reread()
  editStyle(planner, family, made.name, { ...changes, displayName: undefined, parent: undefined })
  const row = planner.rows.pop()!
  planner.rows.push({
    ...row,
    key: { ...row.key, what: 'new style' },
    title: `New ${familyName(family)} ${made.displayName}`,
    before: parent === null ? 'not there yet' : `as ${planner.titleOf(planner.scope, family, parent)}`,
  })
  return made
}
