import { elementMarkup } from '../xml/edit'
import type { Change } from './draft'
import { manifestPath } from './open'
import { rulesPath } from './rules'

/** Lists the document's rules in its manifest where they are not listed yet. */
export function listRules(change: Change): void {
  const manifest = change.document.parts.get(manifestPath)
  if (!manifest) return
  const root = manifest.rootElement
  if ([...manifest.elements(root)].some(each => each.attributes['manifest:full-path'] === rulesPath)) return
  change.on(manifestPath).insert(
    root.id,
    root.children.length,
    elementMarkup(manifest, root, 'manifest:file-entry', {
      'manifest:full-path': rulesPath,
      'manifest:media-type': 'application/json',
    }),
    1,
  )
}
