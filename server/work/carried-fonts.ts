import type { DocumentRow } from '../../shared/api'
import type { Acting } from '../store/acting'
import { versionContent } from '../store/versions'
import { droppedFonts } from '../store/dropped-fonts'
import type { Workers } from './pool'
import { foundIn, type FoundFont } from './unpacking'

/** A font file that a document brought along, inside its package or beside it in a zip, checked. */
export interface CarriedFont extends FoundFont {
  readonly from: 'package' | 'zip'
}

/**
 * Every font file that came with a document. The document is read as it was first put on the shelf, too: a change
 * may have let go of what it carried.
 */
export async function carriedFonts(acting: Acting, document: DocumentRow, pool: Workers): Promise<CarriedFont[]> {
  const found: CarriedFont[] = []
  for (const version of new Set([document.version, 1])) {
    const content = await versionContent(acting, document.id, version)
    for (const font of content ? await pool.run({ kind: 'carriedFonts', bytes: content.bytes }) : [])
      if (!found.some(each => each.path === font.path)) found.push({ ...font, from: 'package' })
  }
  for (const { path, bytes } of await droppedFonts(acting, document.id)) {
    try {
      for (const own of foundIn(path, await pool.run({ kind: 'font', bytes }))) found.push({ ...own, from: 'zip' })
    } catch (error) {
      found.push({
        path,
        bytes,
        face: null,
        problem: error instanceof Error ? error.message : String(error),
        from: 'zip',
      })
    }
  }
  return found
}
