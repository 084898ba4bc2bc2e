import { openDocument } from '../../../core/document/open'
import { alternatesOf } from '../../../core/font/alternates'
import { isPdf } from '../../../core/format/finished/sections'
import { partBytes } from '../../../core/package/container'
import { checkFontFile, faceAt } from '../../library/font-file'
import { checkedFonts, fontLimit, isFontPath } from '../unpacking'
import type { Carriers } from './task'

/** Font files, and the faces in them. */
export const fontTasks: Carriers<'font' | 'instance' | 'alternates' | 'carriedFonts'> = {
  font: ({ bytes }) => checkFontFile(bytes),
  instance: ({ variable, style, place, family }) => faceAt(variable, style, place, family),
  alternates: ({ bytes, face }) => alternatesOf(bytes, face),
  carriedFonts({ bytes }) {
    // What a PDF carries are parts of faces: no text can be set in them.
    if (isPdf(bytes)) return []
    const { container } = openDocument(bytes)
    return checkedFonts(
      container.entries
        .map(entry => entry.path)
        .filter(isFontPath)
        .slice(0, fontLimit)
        .map(path => ({ path, bytes: partBytes(container, path) })),
    )
  },
}
