import { declarationAttributes } from '../../document/font-attributes'
import { sameFamily, replaceFamily, writeFontFamily } from '../../document/font-family'
import { isSymbolFamily, type FontReference } from '../../document/font-references'
import type { OdfDocument } from '../../document/open'
import { partOf } from '../../document/open'
import type { Operation } from '../../document/operations'
import { readScopes, type FaceDeclaration } from '../../document/styles'
import type { FaceRecord } from '../../font/face'
import type { Planner } from '../planner'
import { declarationsKey, type SwapWish } from './wish'

/** What the declarations of one part come to in a plan. */
export class PartDeclarations {
  private readonly operations: Operation[] = []
  private readonly names = new Map<string, string>()
  private readonly spare: FaceDeclaration[]
  private readonly taken: Set<string>
  private nextId: number
  readonly droppedFiles: string[] = []

  /**
   * @param going declarations that nothing in the part will name any more
   * @param staying all others
   */
  constructor(
    private readonly document: OdfDocument,
    private readonly part: string,
    going: readonly FaceDeclaration[],
    private readonly staying: readonly FaceDeclaration[],
  ) {
    this.spare = [...going]
    this.taken = new Set(staying.map(face => face.name))
    this.nextId = partOf(document, part).nextId
  }

  /** The name under which the part declares a family after the change; declared now if it was not. */
  nameOf(family: string, face: FaceRecord): string {
    const known = this.names.get(family)
    if (known !== undefined) return known
    const existing = this.staying.find(
      each => sameFamily(each.families[0] ?? '', family) && each.attributes['style:font-charset'] !== 'x-symbol',
    )
    const name = existing ? existing.name : this.declare(family, face)
    this.names.set(family, name)
    return name
  }

  private declare(family: string, face: FaceRecord): string {
    let name = family
    for (let number = 1; this.taken.has(name); number++) name = `${family}${number}`
    this.taken.add(name)
    const attributes: Record<string, string> = {
      'style:name': name,
      'svg:font-family': writeFontFamily(family),
      'style:font-pitch': face.monospaced ? 'fixed' : 'variable',
    }
    // A declaration that goes is rewritten in place; one with a font file inside is not, or the old file would come with the new name.
    const reuse = this.spare.findIndex(each => each.files.length === 0)
    if (reuse >= 0) {
      const [old] = this.spare.splice(reuse, 1) as [FaceDeclaration]
      const set: Record<string, string | null> = { ...attributes }
      for (const attribute of declarationAttributes)
        if (old.attributes[attribute] !== undefined && set[attribute] === undefined) set[attribute] = null
      this.operations.push({ type: 'name-font', part: this.part, node: old.node, set })
    } else {
      const part = partOf(this.document, this.part)
      const holder = part.first(part.rootElement, 'office:font-face-decls') ? undefined : this.nextId++
      this.operations.push({ type: 'declare-face', part: this.part, id: this.nextId++, holder, attributes })
    }
    return name
  }

  /** Puts a family in place of another where it stands in a list of fallbacks. */
  fallback(face: FaceDeclaration, from: string, to: string): void {
    const value = replaceFamily(face.attributes['svg:font-family'] ?? '', from, to)
    if (value !== null)
      this.operations.push({ type: 'name-font', part: this.part, node: face.node, set: { 'svg:font-family': value } })
  }

  /** All operations; declarations that nothing names any more are dropped. */
  finish(): Operation[] {
    for (const face of this.spare) {
      this.operations.push({ type: 'drop-face', part: this.part, node: face.node })
      this.droppedFiles.push(...face.files)
    }
    this.spare.length = 0
    return this.operations
  }
}

/**
 * Lists font declarations, and font files that go with them. What is left out stays declared, though nothing names it.
 * Whether they go.
 */
export function declarationRows(
  planner: Planner,
  references: readonly FontReference[],
  wishes: readonly SwapWish[],
): boolean {
  const included = !planner.leaves(declarationsKey)
  const declared = wishes.flatMap(wish => {
    const own = references.filter(
      reference =>
        reference.kind === 'declaration' &&
        (wish.symbols || !reference.symbols) &&
        reference.families.some(family => sameFamily(family, wish.from.family)),
    )
    return own.length === 0 ? [] : [{ wish, own }]
  })
  if (declared.length === 0) return included
  const all = declared.flatMap(({ own }) => own)
  planner.row({
    key: declarationsKey,
    stage: 'declaration',
    optional: true,
    title: 'Font declarations',
    count: all.length,
    before: declared.map(({ wish }) => wish.from.family).join(', '),
    after: declared.map(({ wish }) => wish.to.family).join(', '),
    places: all.map(({ part, node, attribute }) => ({ part, node, attribute })),
  })
  for (const { wish, own } of declared) {
    const files = new Set(own.flatMap(reference => reference.declaration?.files ?? []))
    if (files.size > 0 && included)
      planner.row({
        key: { what: 'embedded files', family: wish.from.family },
        stage: 'declaration',
        title: `Embedded font files of ${wish.from.family}`,
        count: files.size,
        before: wish.from.family,
        after: 'no longer carried',
      })
  }
  if (!included) planner.note('Font declarations', 'left out by hand', all.length)
  return included
}

/** Sorts each part's declarations into those that go and those that stay. */
export function declarationsByPart(
  document: OdfDocument,
  references: readonly FontReference[],
  kept: ReadonlySet<FontReference>,
  wishes: readonly SwapWish[],
): Map<string, PartDeclarations> {
  const byPart = new Map<string, PartDeclarations>()
  for (const sub of document.subdocuments) {
    const { content, styles } = readScopes(document, sub)
    for (const scope of [content, styles]) {
      if (!scope) continue
      const path = scope.part.path
      const all = [...scope.faces.values()]
      const signs = (face: FaceDeclaration) =>
        isSymbolFamily(face.families[0] ?? '', face.attributes['style:font-charset'] ?? '')
      const swapped = (face: FaceDeclaration) =>
        wishes.some(wish => sameFamily(wish.from.family, face.families[0] ?? '') && (wish.symbols || !signs(face)))
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
