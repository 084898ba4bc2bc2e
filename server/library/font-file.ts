/// <reference path="./wawoff2.d.ts" />
import { decompress } from 'wawoff2'
import type { FaceRecord } from '../../core/font/face'
import { checkTables, fontFileKind, unpackWoff } from '../../core/font/file-check'
import { fontFileLimit, readFace } from '../../core/font/read'
import { PackageError } from '../../core/package/errors'
import { contentHash } from './files'

/** A font file that was checked: unpacked, with what was read of it. */
export interface CheckedFont {
  readonly bytes: Uint8Array
  readonly face: FaceRecord
}

/**
 * Checks a font file from outside: TrueType, OpenType, WOFF or WOFF2, one face. Runs in a thread, so that a bad
 * file harms nothing else.
 * @throws PackageError
 */
export async function checkFontFile(file: Uint8Array): Promise<CheckedFont> {
  if (file.length > fontFileLimit) throw new PackageError('too-large', 'This font file is too large. It was not added.')
  let bytes = file
  switch (fontFileKind(file)) {
    case 'sfnt':
      break
    case 'woff':
      bytes = unpackWoff(file)
      break
    case 'woff2': {
      // The size that it says it unpacks to is checked before anything is unpacked (WOFF2, W3C 2022, section 4).
      if (file.length < 48 || new DataView(file.buffer, file.byteOffset, file.byteLength).getUint32(16) > fontFileLimit)
        throw new PackageError(
          'damaged',
          'This font file is cut off, or too large when it is unpacked. It was not added.',
        )
      try {
        bytes = new Uint8Array(await decompress(file))
      } catch {
        throw new PackageError('damaged', 'This font file cannot be unpacked. It was not added.')
      }
      break
    }
    case 'collection':
      throw new PackageError(
        'unsupported',
        'This file holds several faces in one (a collection). Take them apart, and add each. It was not added.',
      )
    case 'other':
      throw new PackageError('unsupported', 'This is not a TrueType, OpenType, WOFF or WOFF2 font. It was not added.')
  }
  checkTables(bytes)
  return { bytes, face: readChecked(bytes) }
}

/** What the engine cannot read is damaged: what it says of it is for nobody. @throws PackageError */
function readChecked(bytes: Uint8Array): FaceRecord {
  try {
    return readFace(bytes, contentHash(bytes), 'added')
  } catch (error) {
    if (error instanceof PackageError) throw error
    throw new PackageError('damaged', 'This font file is damaged: its tables do not agree. It was not added.')
  }
}
