import { sameFamily } from '../../document/font-family'
import { isSymbolFamily, type FontReference } from '../../document/font-references'
import type { OdfDocument } from '../../document/open'
import { PartDeclarations } from '../../document/part-declarations'
import { readScopes, type FaceDeclaration } from '../../document/styles'
import type { Planner } from '../planner'
import { declarationsKey, type SwapWish } from './wish'

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
