import type { Reading } from '../../typeset/compose'
import type { Census } from '../../census/census'
import { applyAll } from '../../document/apply'
import { fontAttributes } from '../../document/font-attributes'
import { replaceFamily, sameFamily, writeFontFamily } from '../../document/font-family'
import {
  fontReferences,
  isSymbolFamily,
  objectTitle,
  type FontReference,
  type ReferenceKind,
} from '../../document/font-references'
import { partOf, type OdfDocument } from '../../document/open'
import type { Operation } from '../../document/operations'
import { readScopes, type FaceDeclaration } from '../../document/styles'
import { covers, needsNoGlyph } from '../../font/face'
import type { Library } from '../../font/library'
import { slotAttributes } from '../../style/properties'
import { PartDeclarations } from './declarations'
import { mapFaces, wishFor } from './mapping'
import {
  NothingToPlan,
  PlanError,
  type FaceMapping,
  type MissingGlyph,
  type PlanRow,
  type SizeChange,
  type SwapPlan,
  type SwapRequest,
} from '../plan'
import { faceKey, voiceOf } from '../../census/voices'
import { dropStale } from '../stale'
import { readDocument } from '../../typeset/compose'
import type { Composition } from '../../typeset/compose'
import { setLocally } from '../local-look'
import { limited, sizeFactor } from './optical-size'
import { holderFor } from '../reach'
import { applyRepairs } from '../repair/repairs'
import { StylePlanner } from '../planner'
import { setSizes, type LocalSize } from './swap-sizes'
import {
  groupStyle,
  isKept,
  looksFor,
  pinKept,
  shownFace,
  sparedLooks,
  swapGroups,
  swapWithin,
  withinMatches,
} from './swap-within'
import { textUses, type TextUse } from './uses'

const kindTitles: Readonly<Record<ReferenceKind, string>> = {
  declaration: 'Font declarations',
  default: 'Starting type',
  style: 'Style',
  stray: 'Local formatting',
  master: 'Headers, footers and masters',
  list: 'List labels',
  chart: 'Charts',
  formula: 'Formulas',
  setting: 'Formula settings',
  other: 'Other definitions',
}

/** A change to one place: set on an element, or its text. */
interface Change {
  readonly reference: FontReference
  readonly from: string
  readonly to: string
}
interface Left {
  what: string
  reason: string
  count: number
}

/** What a plan may know beside the document: where text stands on pages, and sizes that were found by trying. */
export interface SwapKnowledge {
  readonly reading?: Reading
  /** Needed where a wish is about pages. */
  readonly composition?: Composition
  /** By how much the sizes of a wish change, by its index: in place of what is worked out from the faces. */
  readonly factors?: ReadonlyMap<number, number>
}

/**
 * Plans an exchange of faces: every place that names them, in styles of all kinds, defaults, masters, lists, charts,
 * formulas and declarations, in all three slots. A wish within limits changes only the text it is about. All act at
 * once: each looks at the document as it was. A pure function: the document is not changed; applying the plan's
 * operations does that. @throws PlanError when a wish cannot be met at all
 */
export function planSwap(
  document: OdfDocument,
  census: Census,
  request: SwapRequest,
  library: Library,
  knowledge: SwapKnowledge = {},
): SwapPlan {
  const references = fontReferences(document)
  const reading = knowledge.reading ?? readDocument(document)
  for (const { from, to } of request.wishes) {
    const known = references.some(reference => reference.families.some(family => sameFamily(family, from.family)))
    if (!known)
      throw new NothingToPlan(
        `“${from.family}” is not named anywhere in this document, so there is nothing to swap. Nothing was changed.`,
      )
    if (
      from.style !== undefined &&
      !census.faces.some(face => sameFamily(face.family, from.family) && sameFamily(face.style, from.style!))
    )
      throw new PlanError(`No text of this document is set in ${from.family} ${from.style}. Nothing was changed.`)
    if (sameFamily(from.family, to.family) && from.style === to.style)
      throw new PlanError(`${from.family} would give way to itself. Nothing was changed.`)
  }
  const everywhere: SwapRequest = { ...request, wishes: request.wishes.filter(wish => wish.within === undefined) }
  const mappings = mapFaces(census.faces, everywhere, library)
  const uses = textUses(document, reading)
  const whole = everywhere.wishes.filter(wish => wish.from.style === undefined)
  // Text that a wish within limits takes is no longer the other's.
  const going = uses.filter(use => wishFor(everywhere.wishes, ...familyAndStyle(use)) !== undefined)
  const keptUses = going.filter(use => isKept(use, request))
  const keepsText = keptUses.length + request.spared.length > 0
  const left: Left[] = []
  const note = (what: string, reason: string, count = 1) => {
    const known = left.find(each => each.what === what && each.reason === reason)
    if (known) known.count += count
    else left.push({ what, reason, count })
  }

  const { rows, changes } = familyRows(document, references, whole, request, library, uses, keptUses, note)
  const operations = new Map<string, Operation[]>()
  const push = (part: string, ...list: Operation[]) => {
    operations.set(part, [...(operations.get(part) ?? []), ...list])
  }

  const kept = new Set(references.filter(reference => !changes.some(change => change.reference === reference)))
  const declared = declarationRows(references, whole, request, note)
  const declarations = declarationsByPart(
    document,
    references,
    kept,
    keepsText || !declared.included ? [] : whole,
    request.symbols,
  )
  rows.push(...declared.rows)
  for (const change of changes)
    for (const operation of changeOperations(document, change, declarations, library))
      push(change.reference.part, operation)
  const faceChanges = faceOperations(
    mappings,
    uses.filter(use => !keptUses.includes(use)),
    uses,
    everywhere,
    declarations,
    library,
    note,
  )
  for (const [part, list] of faceChanges.operations) push(part, ...list)
  rows.push(...faceChanges.rows)
  const dropped = new Set<string>()
  for (const [part, own] of declarations) {
    push(part, ...own.finish())
    for (const file of own.droppedFiles) if (document.container.byPath.has(file)) dropped.add(file)
  }
  const base = [...operations.values()].flat()
  for (const path of dropped) base.push({ type: 'drop-part', path })
  const more = textChanges(
    { document, census, request, library, reading, knowledge, uses, going, keptUses, mappings, rows },
    base,
    note,
  )
  const all = [...base, ...more.operations]
  if (all.length === 0)
    throw new NothingToPlan('Nothing in the plan would change: every place is struck or left out. Nothing was changed.')
  const changed = new Set([...operations].filter(([, list]) => list.length > 0).map(([part]) => part))
  for (const part of more.parts) changed.add(part)
  const stale = dropStale(document, changed)
  all.push(...stale.operations)
  for (const picture of census.pictures) note(picture, 'a picture: the fonts in it cannot be changed here')
  const keptCharacters = keptUses.reduce((sum, use) => sum + use.characters, 0)
  const affected = mappings.reduce((sum, mapping) => sum + mapping.characters, 0) - keptCharacters + more.characters
  const allMappings = [...mappings, ...more.mappings]
  return {
    kind: 'swap',
    request,
    title: titleOfAll(request.wishes),
    mappings: allMappings,
    rows,
    groups: swapGroups(document, reading, going, request),
    sizes: more.sizes,
    missingGlyphs: missingGlyphs(allMappings, uses, library),
    left,
    stale: stale.said,
    places: changes.length + faceChanges.count + more.count,
    characters: affected,
    operations: all,
    effects: null,
  }
}

/** A plan's title, in which a family that gives way to several is named once. */
function titleOfAll(wishes: SwapRequest['wishes']): string {
  const titles = [...new Set(wishes.map(titleOf))]
  return titles.length > 3 ? `${titles.slice(0, 2).join('; ')}; and ${titles.length - 2} more` : titles.join('; ')
}

const familyAndStyle = (use: TextUse): [string, string] => {
  const [family, style] = use.face.split('|') as [string, string]
  return [family, style]
}

interface TextStage {
  readonly document: OdfDocument
  readonly census: Census
  readonly request: SwapRequest
  readonly library: Library
  readonly reading: Reading
  readonly knowledge: SwapKnowledge
  readonly uses: readonly TextUse[]
  readonly going: readonly TextUse[]
  readonly keptUses: readonly TextUse[]
  readonly mappings: readonly FaceMapping[]
  readonly rows: PlanRow[]
}
interface TextChanges {
  readonly operations: readonly Operation[]
  readonly parts: ReadonlySet<string>
  readonly mappings: readonly FaceMapping[]
  readonly sizes: SizeChange[]
  readonly characters: number
  readonly count: number
}

/**
 * What goes beyond exchanging names: sizes, text that keeps its font, wishes within limits, and repairs. Works on
 * the document with the names exchanged.
 */
function textChanges(
  { document, census, request, library, reading, knowledge, uses, going, keptUses, rows }: TextStage,
  base: readonly Operation[],
  note: (what: string, reason: string, count?: number) => void,
): TextChanges {
  const limits = request.wishes.map((wish, index) => ({ wish, index })).filter(({ wish }) => wish.within !== undefined)
  const sized = request.wishes
    .map((wish, index) => ({ wish, index }))
    .filter(
      ({ wish }) =>
        wish.within === undefined &&
        ((wish.size !== undefined && wish.size.mode !== 'keep') || (wish.leading ?? 'as-is') !== 'as-is'),
    )
  const nothing: TextChanges = { operations: [], parts: new Set(), mappings: [], sizes: [], characters: 0, count: 0 }
  if (limits.length + sized.length + keptUses.length + request.spared.length + request.repairs.length === 0)
    return nothing
  const applied = applyAll(document, base)
  const planner = new StylePlanner(applied.document, reading, library, request.struck)
  const sizes: SizeChange[] = []
  const factorOf = (wish: SwapRequest['wishes'][number], index: number, affected: readonly TextUse[]): number => {
    const size = wish.size ?? { mode: 'keep' as const, step: 0.1, least: 75, most: 125 }
    const shown = shownFace(library, affected)
    if (size.mode === 'keep' || !shown) return 1
    const to =
      library.byHash(
        mapFaces(census.faces, { ...request, wishes: [{ ...wish, within: undefined }] }, library).sort(
          (a, b) => b.characters - a.characters,
        )[0]?.to.hash ?? '',
      ) ?? library.family(wish.to.family)[0]!
    const factor = limited(size, knowledge.factors?.get(index) ?? sizeFactor(size, library.byHash(shown.hash)!, to))
    sizes.push({
      wish: index,
      percent: Math.round(factor * 1000) / 10,
      said: shown.absent
        ? `measured on ${library.byHash(shown.hash)!.fullName}, which stands in for ${wish.from.family}`
        : `measured on ${library.byHash(shown.hash)!.fullName} and ${to.fullName}`,
    })
    return factor
  }
  const locals: LocalSize[] = pinKept(planner, uses, keptUses, rows)
  const pinned = looksFor(reading, locals, (style, slot) => ({ family: style.effective.slots[slot].font.family }))
  const sizeLocals: LocalSize[] = []
  for (const { wish, index } of sized) {
    const affected = going.filter(
      use =>
        !keptUses.includes(use) &&
        wishFor(
          request.wishes.filter(each => each.within === undefined),
          ...familyAndStyle(use),
        ) === wish,
    )
    if (affected.length === 0) continue
    const factor = factorOf(wish, index, affected)
    if (wish.size && wish.size.mode !== 'keep')
      sizeLocals.push(...setSizes(planner, wish, factor, affected, uses, library, rows))
    else if (wish.leading === 'stay')
      sizeLocals.push(...setSizes(planner, { ...wish, size: undefined }, 1, affected, uses, library, rows))
  }
  setLocally(planner, [...pinned, ...looksFor(reading, sizeLocals, () => null)])
  const mappings: FaceMapping[] = []
  let characters = 0
  let count = 0
  for (const { wish, index } of limits) {
    const matches = withinMatches(reading, knowledge.composition ?? null, library, wish)
    if (matches.length === 0) {
      note(`${wish.from.family} within limits`, 'no text answers to them')
      continue
    }
    const faces = new Map<string, number>()
    for (const match of matches)
      for (const piece of match.pieces) {
        const key = faceKey(voiceOf(piece.style, piece.slot))
        faces.set(
          key,
          (faces.get(key) ?? 0) + [...match.text.slice(piece.from - match.from, piece.to - match.from)].length,
        )
      }
    const own = mapFaces(
      census.faces.filter(face => faces.has(face.key)).map(face => ({ ...face, characters: faces.get(face.key)! })),
      { ...request, wishes: [{ ...wish, within: undefined }] },
      library,
    )
    mappings.push(...own)
    const about = new Set(matches.flatMap(match => match.pieces.map(piece => piece.style)))
    const result = swapWithin(
      planner,
      reading,
      index,
      wish,
      matches,
      own,
      uses,
      wish.size && wish.size.mode !== 'keep'
        ? factorOf(
            wish,
            index,
            uses.filter(use => about.has(use.style)),
          )
        : 1,
      library,
    )
    rows.push(...result.rows)
    characters += result.characters
    count += result.count
  }
  setLocally(
    planner,
    sparedLooks(
      reading,
      request.spared,
      request.wishes.map(wish => wish.from.family),
    ),
  )
  if (request.spared.length > 0) note(`${request.spared.length} paragraphs`, 'spared by hand: they keep the old font')
  if (request.repairs.length > 0) {
    rows.push(...applyRepairs(planner, request.repairs))
    count += request.repairs.length
  }
  const parts = planner.change.changedParts(applied.document)
  return {
    operations: planner.change.operations,
    parts,
    mappings,
    sizes,
    characters,
    count:
      count +
      rows.filter(row => row.included && /^(size|leading)\|/.test(row.id)).reduce((sum, row) => sum + row.count, 0),
  }
}

const titleOf = (wish: SwapRequest['wishes'][number]) =>
  `${wish.from.family}${wish.from.style ? ` ${wish.from.style}` : ''} gives way ` +
  `to ${wish.to.family}${wish.to.style ? ` ${wish.to.style}` : ''}${wish.within ? ' within limits' : ''}`

/** Rows for whole families: one for each style, one for all local formatting, one for each object, and so on. */
function familyRows(
  document: OdfDocument,
  references: readonly FontReference[],
  wishes: SwapRequest['wishes'],
  request: SwapRequest,
  library: Library,
  uses: readonly TextUse[],
  keptUses: readonly TextUse[],
  note: (what: string, reason: string, count?: number) => void,
): { rows: PlanRow[]; changes: Change[] } {
  // Styles whose text keeps the font keep their own word on it, too.
  const keptNodes = new Set(
    keptUses.flatMap(use => {
      const style = groupStyle(use.style)
      const node = style?.propertyNodes['style:text-properties']
      return style && node !== undefined ? [`${style.part}#${node}`] : []
    }),
  )
  const grouped = new Map<string, { reference: FontReference; to: string; from: string }[]>()
  for (const reference of references) {
    if (reference.kind === 'declaration' || keptNodes.has(`${reference.part}#${reference.node}`)) continue
    const family = reference.families.find(each => wishes.some(wish => sameFamily(wish.from.family, each)))
    if (family === undefined) continue
    const wish = wishes.find(each => sameFamily(each.from.family, family))!
    const embedded = reference.kind === 'chart' || reference.kind === 'formula' || reference.kind === 'setting'
    const bearer =
      reference.kind === 'style' || reference.kind === 'default' || reference.kind === 'list'
        ? `${reference.family} ${reference.owner}`
        : embedded
          ? objectTitle(document, reference.part)
          : ''
    const id = `${reference.kind}|${bearer}|${wish.from.family}${reference.symbols ? '|signs' : ''}`
    grouped.set(id, [
      ...(grouped.get(id) ?? []),
      { reference, to: library.family(wish.to.family)[0]!.family, from: family },
    ])
  }
  const rows: PlanRow[] = []
  const changes: Change[] = []
  for (const [id, group] of grouped) {
    const [{ reference, to, from }] = group as [(typeof group)[number]]
    const struck = request.struck.includes(id)
    const signs = reference.symbols && !request.symbols
    const leftOut = signs ? 'a font of signs: its characters are not letters' : null
    const included = !struck && !signs
    const title = titleOfRow(document, reference)
    rows.push({
      id,
      kind: reference.kind,
      title,
      count: group.length,
      characters: charactersOf(
        group.map(each => each.reference),
        uses,
      ),
      before: from,
      after: to,
      included,
      leftOut,
      places: group.map(each => ({
        part: each.reference.part,
        node: each.reference.node,
        attribute: each.reference.attribute,
      })),
    })
    if (included) for (const each of group) changes.push(each)
    else note(title, struck ? 'struck' : leftOut!, group.length)
  }
  const order: readonly ReferenceKind[] = [
    'style',
    'stray',
    'default',
    'master',
    'list',
    'chart',
    'formula',
    'setting',
    'other',
    'declaration',
  ]
  rows.sort(
    (a, b) =>
      order.indexOf(a.kind) - order.indexOf(b.kind) || b.characters - a.characters || a.title.localeCompare(b.title),
  )
  return { rows, changes }
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
      return `Starting type: ${reference.owner}`
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

/**
 * Lines of their own for font declarations, and for font files that go with them. What is struck stays declared,
 * though nothing names it.
 */
function declarationRows(
  references: readonly FontReference[],
  wishes: SwapRequest['wishes'],
  request: SwapRequest,
  note: (what: string, reason: string, count?: number) => void,
): { readonly rows: PlanRow[]; readonly included: boolean } {
  const included = !request.struck.includes('declarations')
  const rows: PlanRow[] = []
  for (const wish of wishes) {
    const own = references.filter(
      reference =>
        reference.kind === 'declaration' &&
        (request.symbols || !reference.symbols) &&
        reference.families.some(family => sameFamily(family, wish.from.family)),
    )
    if (own.length === 0) continue
    const line = {
      kind: 'declaration' as const,
      characters: 0,
      before: wish.from.family,
      after: wish.to.family,
      included,
      leftOut: null,
    }
    const known = rows.find(row => row.id === 'declarations')
    const places = own.map(({ part, node, attribute }) => ({ part, node, attribute }))
    if (known)
      rows[rows.indexOf(known)] = {
        ...known,
        count: known.count + own.length,
        before: `${known.before}, ${line.before}`,
        after: `${known.after}, ${line.after}`,
        places: [...known.places, ...places],
      }
    else rows.push({ ...line, id: 'declarations', title: 'Font declarations', count: own.length, places })
    const files = new Set(own.flatMap(reference => reference.declaration?.files ?? []))
    if (files.size > 0)
      rows.push({
        ...line,
        id: `embedded|${wish.from.family}`,
        title: `Embedded font files of ${wish.from.family}`,
        count: files.size,
        after: 'no longer carried',
        places: [],
      })
  }
  if (!included && rows.length > 0) note('Font declarations', 'struck', rows[0]!.count)
  return { rows, included }
}

/** Sorts each part's declarations into those that go and those that stay. */
function declarationsByPart(
  document: OdfDocument,
  references: readonly FontReference[],
  kept: ReadonlySet<FontReference>,
  wishes: SwapRequest['wishes'],
  symbols: boolean,
): Map<string, PartDeclarations> {
  const byPart = new Map<string, PartDeclarations>()
  for (const sub of document.subdocuments) {
    const { content, styles } = readScopes(document, sub)
    for (const scope of [content, styles]) {
      if (!scope) continue
      const path = scope.part.path
      const all = [...scope.faces.values()]
      const swapped = (face: FaceDeclaration) =>
        (symbols || !isSymbolFamily(face.families[0] ?? '', face.attributes['style:font-charset'] ?? '')) &&
        wishes.some(wish => sameFamily(wish.from.family, face.families[0] ?? ''))
      const stillNamed = (face: FaceDeclaration) =>
        references.some(
          reference =>
            kept.has(reference) &&
            reference.kind !== 'declaration' &&
            reference.part === path &&
            reference.declaration?.node === face.node,
        )
      const going = all.filter(face => swapped(face) && !stillNamed(face))
      const own = new PartDeclarations(
        document,
        path,
        going,
        all.filter(face => !going.includes(face)),
      )
      byPart.set(path, own)
      for (const face of all.filter(each => !going.includes(each))) {
        for (const wish of wishes)
          if (face.families.slice(1).some(family => sameFamily(family, wish.from.family)))
            own.fallback(face, wish.from.family, wish.to.family)
      }
    }
  }
  return byPart
}

/** The operation for one place. The compound changes together: what else the element says of the old font goes. */
function changeOperations(
  document: OdfDocument,
  { reference, from, to }: Change,
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
  if (attribute === names.name) set[attribute] = declarations.get(part)!.nameOf(face.family, face)
  else {
    set[attribute] = list
    if (attributes[names.pitch] !== undefined) set[names.pitch] = face.monospaced ? 'fixed' : 'variable'
    for (const stale of [names.generic, names.charset]) if (attributes[stale] !== undefined) set[stale] = null
  }
  if (attributes[names.styleName] !== undefined) set[names.styleName] = null
  return [{ type: 'name-font', part, node, set }]
}

interface FaceChanges {
  operations: Map<string, Operation[]>
  rows: PlanRow[]
  count: number
}

/**
 * What single faces need beyond the family: a face that is swapped alone gets its font where only it is reached; a
 * face whose weight or posture changes gets that written, so that no reader invents a bold. Where every style that
 * could say so also speaks for other text, nothing is set, and it is said.
 */
function faceOperations(
  mappings: readonly FaceMapping[],
  meant: readonly TextUse[],
  uses: readonly TextUse[],
  request: SwapRequest,
  declarations: ReadonlyMap<string, PartDeclarations>,
  library: Library,
  note: (what: string, reason: string, count?: number) => void,
): FaceChanges {
  const result: FaceChanges = { operations: new Map(), rows: [], count: 0 }
  const done = new Set<string>()
  for (const mapping of mappings) {
    const wish = wishFor(request.wishes, mapping.from.family, mapping.from.style)!
    const single = wish.from.style !== undefined
    const wanted = new Set(meant.filter(use => use.face === mapping.key))
    if (wanted.size === 0 || (!single && mapping.same)) continue
    const id = `face|${mapping.key}`
    const struck = request.struck.includes(id)
    const places: { part: string; node: number; attribute: string | null }[] = []
    for (const use of wanted) {
      const { winners, slots: values } = use.style.effective
      const names = fontAttributes[use.slot]
      const type = slotAttributes[use.slot]
      const deciding = [values[use.slot].font.layer, winners[type.weight] ?? -1, winners[type.style] ?? -1]
      const needs: { attribute: string; value: string }[] = []
      if (single) needs.push({ attribute: names.name, value: '' })
      if (mapping.to.weight !== mapping.from.weight)
        needs.push({
          attribute: type.weight,
          value: mapping.to.weight === 400 ? 'normal' : mapping.to.weight === 700 ? 'bold' : String(mapping.to.weight),
        })
      if (mapping.to.italic !== mapping.from.italic)
        needs.push({ attribute: type.style, value: mapping.to.italic ? 'italic' : 'normal' })
      if (struck) {
        note(`${mapping.from.family} ${mapping.from.style}`, 'struck', 1)
        continue
      }
      for (const { attribute, value } of needs) {
        const layer = holderFor(use, wanted, uses, attribute, deciding)
        if (!layer) {
          note(
            `${mapping.from.family} ${mapping.from.style}, ${use.characters} characters`,
            attribute === names.name
              ? 'its styles also speak for other text, which would change with it'
              : `asks for ${mapping.from.style}, which ${mapping.to.family} lacks; the style that asks also speaks for other text`,
          )
          continue
        }
        const node = layer.style.propertyNodes['style:text-properties']!
        const key = `${layer.style.part}#${node}#${attribute}`
        places.push({ part: layer.style.part, node, attribute })
        if (done.has(key)) continue
        done.add(key)
        result.count++
        const { part } = layer.style
        const list = result.operations.get(part) ?? []
        result.operations.set(part, list)
        if (attribute === names.name) {
          const face = library.byHash(mapping.to.hash)!
          const set: Record<string, string | null> = { [names.name]: declarations.get(part)!.nameOf(face.family, face) }
          for (const stale of [names.family, names.styleName, names.generic, names.pitch, names.charset])
            if (layer.text[stale] !== undefined) set[stale] = null
          list.push({ type: 'name-font', part, node, set })
        } else
          list.push({
            type: 'set-properties',
            part,
            node: layer.style.node,
            properties: 'text',
            set: { [attribute]: value },
          })
      }
    }
    const unique = [...new Map(places.map(place => [`${place.part}#${place.node}#${place.attribute}`, place])).values()]
    if (unique.length > 0 || struck) {
      result.rows.push({
        id,
        kind: 'style',
        title: single
          ? `Styles that ask for ${mapping.from.family} ${mapping.from.style}`
          : `Weight and posture of ${mapping.from.style} text`,
        count: unique.length,
        characters: mapping.characters,
        before: `${mapping.from.family} ${mapping.from.style}`,
        after: `${mapping.to.family} ${mapping.to.style}`,
        included: !struck,
        leftOut: null,
        places: unique,
      })
    }
  }
  return result
}

/** Signs of the affected text that the new faces lack: readers will take them from other fonts. */
function missingGlyphs(mappings: readonly FaceMapping[], uses: readonly TextUse[], library: Library): MissingGlyph[] {
  const missing = new Map<string, { codePoint: number; character: string; count: number; face: string }>()
  for (const mapping of mappings) {
    const face = library.byHash(mapping.to.hash)!
    for (const use of uses) {
      if (use.face !== mapping.key) continue
      for (const [codePoint, count] of use.codePoints) {
        if (needsNoGlyph(codePoint) || covers(face, codePoint)) continue
        const key = `${codePoint}|${face.hash}`
        const known = missing.get(key)
        if (known) known.count += count
        else
          missing.set(key, {
            codePoint,
            character: String.fromCodePoint(codePoint),
            count,
            face: `${face.family} ${face.style}`,
          })
      }
    }
  }
  return [...missing.values()].sort((a, b) => b.count - a.count || a.codePoint - b.codePoint)
}

/**
 * The wishes of a request whose font a document names: of many documents each is asked what it can be.
 * @throws PlanError where there are none
 */
export function wishesThatApply(document: OdfDocument, request: SwapRequest): SwapRequest {
  const references = fontReferences(document)
  const wishes = request.wishes.filter(wish =>
    references.some(reference => reference.families.some(family => sameFamily(family, wish.from.family))),
  )
  if (wishes.length === 0)
    throw new NothingToPlan(
      `This document names none of ${request.wishes.map(wish => wish.from.family).join(', ')}. Nothing was changed.`,
    )
  return { ...request, wishes }
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

/** Applies a plan: a new document, and the operations that undo it. */
export function applyPlan(document: OdfDocument, plan: SwapPlan): ReturnType<typeof applyAll> {
  return applyAll(document, plan.operations)
}
