import { declarationAttributes } from './font-attributes'
import { replaceFamily, sameFamily, writeFontFamily } from './font-family'
import { partOf, type OdfDocument } from './open'
import type { Operation } from './operations'
import type { FaceDeclaration } from './styles'

/** What becomes of the declarations of one part when fonts are swapped. */
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
  nameOf(family: string, pitch: 'fixed' | 'variable'): string {
    const known = this.names.get(family)
    if (known !== undefined) return known
    const existing = this.staying.find(
      each => sameFamily(each.families[0] ?? '', family) && each.attributes['style:font-charset'] !== 'x-symbol',
    )
    const name = existing ? existing.name : this.declare(family, pitch)
    this.names.set(family, name)
    return name
  }

  private declare(family: string, pitch: 'fixed' | 'variable'): string {
    let name = family
    for (let number = 1; this.taken.has(name); number++) name = `${family}${number}`
    this.taken.add(name)
    const attributes: Record<string, string> = {
      'style:name': name,
      'svg:font-family': writeFontFamily(family),
      'style:font-pitch': pitch,
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
