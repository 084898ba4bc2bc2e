import type { OdfDocument } from './open'
import type { Operation } from './operations'

/** Operations that drop what no longer shows the document, and what to say about it. */
export interface Stale {
  readonly operations: readonly Operation[]
  readonly said: readonly string[]
}

/**
 * Pictures that stand in for changed objects, the thumbnail, and a layout cache go stale when fonts change. Other
 * programs draw them anew; kept, they would show the old font.
 */
export function dropStale(document: OdfDocument, changedParts: ReadonlySet<string>): Stale {
  const operations: Operation[] = []
  const said: string[] = []
  const has = (path: string) => document.container.byPath.has(path) && !document.dropped.has(path)
  const dropped = new Set<string>()
  const changed = document.subdocuments.filter(
    sub =>
      sub.prefix !== '' &&
      [sub.content, sub.styles, sub.settings].some(path => path !== null && changedParts.has(path)),
  )
  for (const sub of changed) {
    const replacement = `ObjectReplacements/${sub.prefix.slice(0, -1)}`
    for (const part of document.parts.values()) {
      if (!/(^|\/)(content|styles)\.xml$/.test(part.path)) continue
      for (const element of part.descendants()) {
        if (element.name === 'draw:image' && element.attributes['xlink:href']?.replace(/^\.\//, '') === replacement)
          operations.push({ type: 'drop-replacement', part: part.path, node: element.id })
      }
    }
    if (has(replacement)) {
      operations.push({ type: 'drop-part', path: replacement })
      dropped.add(replacement)
      said.push(`the picture that stood in for “${sub.prefix.slice(0, -1)}”`)
    }
  }
  if (changedParts.size > 0) {
    if (has('Thumbnails/thumbnail.png')) {
      operations.push({ type: 'drop-part', path: 'Thumbnails/thumbnail.png' })
      said.push('the thumbnail')
    }
    if (has('layout-cache')) {
      operations.push({ type: 'drop-part', path: 'layout-cache' })
      said.push('the cache of page positions')
    }
  }
  return { operations, said }
}
