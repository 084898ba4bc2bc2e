import { pitchOf } from '../../font/face'
import { fontAttributes } from '../../document/font-attributes'
import { replaceFamily, sameFamily, writeFontFamily } from '../../document/font-family'
import { fontReferences, objectTitle, type FontReference, type ReferenceKind } from '../../document/font-references'
import { partOf, type OdfDocument } from '../../document/open'
import type { Operation } from '../../document/operations'
import type { Library } from '../../font/library'
import { keyText, type PlanRow, type RowKey } from '../plan'
import type { Planner } from '../planner'
import type { PartDeclarations } from '../../document/part-declarations'
import { groupStyle } from './swap-within'
import type { TextUse } from './uses'
import type { SwapWish } from './wish'

/*
 * Whole families: every place that names the font, whatever bears it.
 */

const kindTitles: Readonly<Record<ReferenceKind, string>> = {
  declaration: 'Font declarations',
  default: 'Defaults',
  style: 'Style',
  stray: 'Local formatting',
  master: 'Headers, footers and masters',
  list: 'List labels',
  chart: 'Charts',
  formula: 'Formulas',
  setting: 'Formula settings',
  other: 'Other definitions',
}

/** The order in which rows are told. */
const order = Object.keys({
  style: 0,
  stray: 0,
  default: 0,
  master: 0,
  list: 0,
  chart: 0,
  formula: 0,
  setting: 0,
  other: 0,
})

/** A change to one place: set on an element, or its text. */
export interface ReferenceChange {
  readonly reference: FontReference
  readonly from: string
  readonly to: string
}

const signsReason = 'a font of signs: its characters are not letters'

/** The key of the row that a reference goes under: each style by itself, each object, all local formatting as one. */
function rowKey({ kind, family, owner, part, symbols }: FontReference, from: string): RowKey {
  const key = { what: 'references', of: kind, from, ...(symbols ? { signs: true } : {}) }
  if (kind === 'style' || kind === 'default' || kind === 'list') return { ...key, family, owner }
  if (kind === 'chart' || kind === 'formula' || kind === 'setting')
    return { ...key, object: part.slice(0, part.lastIndexOf('/')) }
  return key
}

/** Lists whole families: one row for each style, one for all local formatting, one for each object, and so on. */
export function familyRows(
  planner: Planner,
  references: readonly FontReference[],
  wishes: readonly SwapWish[],
  uses: readonly TextUse[],
  keptUses: readonly TextUse[],
): ReferenceChange[] {
  const changes: ReferenceChange[] = []
  const own = planner.rows.length
  for (const { key, symbols, list } of groupsOf(planner, references, wishes, keptUses)) {
    const [{ reference, to, from }] = list as [ReferenceChange]
    const reason = reference.symbols && !symbols ? signsReason : null
    const title = titleOfRow(planner.document, reference)
    const named = list.map(each => each.reference)
    const included = planner.row({
      key,
      stage: reference.kind,
      optional: true,
      reason,
      title,
      count: list.length,
      characters: charactersOf(named, uses),
      before: from,
      after: to,
      places: named.map(({ part, node, attribute }) => ({ part, node, attribute })),
    })
    if (included) changes.push(...list)
    else planner.note(title, reason ?? 'left out by hand', list.length)
  }
  const sorted = (planner.rows.splice(own) as PlanRow[]).sort(
    (a, b) =>
      order.indexOf(a.stage) - order.indexOf(b.stage) || b.characters - a.characters || a.title.localeCompare(b.title),
  )
  planner.rows.push(...sorted)
  return changes
}

/** References of one row. */
interface ReferenceGroup {
  readonly key: RowKey
  /** Whether fonts of signs are meant, too. */
  readonly symbols: boolean
  readonly list: ReferenceChange[]
}

/** References that name a family of a wish, by row. Styles whose text keeps the font keep their own word on it. */
function groupsOf(
  { library }: Planner,
  references: readonly FontReference[],
  wishes: readonly SwapWish[],
  keptUses: readonly TextUse[],
): ReferenceGroup[] {
  const keptNodes = new Set(
    keptUses.flatMap(use => {
      const style = groupStyle(use.style)
      const node = style?.propertyNodes['style:text-properties']
      return style && node !== undefined ? [`${style.part}#${node}`] : []
    }),
  )
  const grouped = new Map<string, ReferenceGroup>()
  for (const reference of references) {
    if (reference.kind === 'declaration' || keptNodes.has(`${reference.part}#${reference.node}`)) continue
    const from = reference.families.find(each => wishes.some(wish => sameFamily(wish.from.family, each)))
    if (from === undefined) continue
    const wish = wishes.find(each => sameFamily(each.from.family, from))!
    const key = rowKey(reference, wish.from.family)
    const group = grouped.get(keyText(key)) ?? { key, symbols: wish.symbols, list: [] }
    grouped.set(keyText(key), group)
    group.list.push({ reference, to: library.family(wish.to.family)[0]!.family, from })
  }
  return [...grouped.values()]
}

function titleOfRow(document: OdfDocument, reference: FontReference): string {
  const family =
    reference.family === 'text'
      ? 'Character'
      : reference.family === 'graphic'
        ? 'Frame'
        : reference.family === 'paragraph'
          ? 'Paragraph'
          : reference.family
  switch (reference.kind) {
    case 'style':
      return `${family.charAt(0).toUpperCase()}${family.slice(1)} style ${reference.owner}`
    case 'default':
      return `Default: ${reference.owner}`
    case 'list':
      return `List labels: ${reference.owner}`
    case 'chart':
    case 'formula':
    case 'setting':
      return `${objectTitle(document, reference.part)}${reference.kind === 'setting' ? ', settings' : ''}`
    default:
      return kindTitles[reference.kind]
  }
}

/** Characters whose font comes from one of these references. */
function charactersOf(references: readonly FontReference[], uses: readonly TextUse[]): number {
  const nodes = new Set(references.map(reference => `${reference.part}#${reference.node}#${reference.slot}`))
  let characters = 0
  for (const use of uses) {
    const layer = use.style.effective.layers[use.style.effective.slots[use.slot].font.layer]
    const node = layer?.style.propertyNodes['style:text-properties']
    if (layer && nodes.has(`${layer.style.part}#${node}#${use.slot}`)) characters += use.characters
  }
  return characters
}

/** The operation for one place. The compound changes together: what else the element says of the old font goes. */
export function changeOperations(
  document: OdfDocument,
  { reference, from, to }: ReferenceChange,
  declarations: ReadonlyMap<string, PartDeclarations>,
  library: Library,
): Operation[] {
  const face = library.family(to)[0]!
  const { part, node, attribute } = reference
  if (attribute === null) return [{ type: 'name-font-text', part, node, text: face.family }]
  // A list of fallbacks keeps its others.
  const list = replaceFamily(reference.value, from, face.family) ?? writeFontFamily(face.family)
  if (reference.slot === null) return [{ type: 'name-font', part, node, set: { [attribute]: list } }]
  const names = fontAttributes[reference.slot]
  const { attributes } = partOf(document, part).element(node)
  const set: Record<string, string | null> = {}
  if (attribute === names.name) set[attribute] = declarations.get(part)!.nameOf(face.family, pitchOf(face))
  else {
    set[attribute] = list
    if (attributes[names.pitch] !== undefined) set[names.pitch] = pitchOf(face)
    for (const stale of [names.generic, names.charset]) if (attributes[stale] !== undefined) set[stale] = null
  }
  if (attributes[names.styleName] !== undefined) set[names.styleName] = null
  return [{ type: 'name-font', part, node, set }]
}

/** What still names a family after a plan was applied: the proof that nothing of it is left, or the list of what is. */
export function remaining(
  document: OdfDocument,
  family: string,
): { readonly owner: string; readonly part: string; readonly value: string }[] {
  return fontReferences(document)
    .filter(reference => reference.families.some(each => sameFamily(each, family)))
    .map(reference => ({ owner: reference.owner, part: reference.part, value: reference.value }))
}
