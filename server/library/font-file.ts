/// <reference path="./wawoff2.d.ts" />
import type { FaceRecord } from '../../core/font/face'
import { facesOfCollection } from '../../core/font/collection'
import { checkTables, fontFileKind, unpackWoff } from '../../core/font/file-check'
import { namesOf } from '../../core/font/names'
import { fontFileLimit, readFace } from '../../core/font/read'
import { samePlace, usualPlace, type AxisPlace } from '../../core/font/axes'
import { atUsualPlace, familyName, instancesIn, namedCut } from '../../core/font/variable'
import type { Subsetter } from '../../core/format/pdf/subset'
import { PackageError } from '../../core/package/errors'
import { contentHash } from './files'
import { startSubsetter } from './harfbuzz'

/** A font file that was checked: unpacked, with what was read of it. */
export interface CheckedFont {
  readonly bytes: Uint8Array
  readonly face: FaceRecord
}

/** A file as its faces, unpacked: of a collection all of them, else one. @throws PackageError */
async function facesIn(file: Uint8Array): Promise<Uint8Array[]> {
  switch (fontFileKind(file)) {
    case 'sfnt':
      return [file]
    case 'woff':
      return [unpackWoff(file)]
    case 'woff2': {
      // The size that it says it unpacks to is checked before anything is unpacked (WOFF2, W3C 2022, section 4).
      if (file.length < 48 || new DataView(file.buffer, file.byteOffset, file.byteLength).getUint32(16) > fontFileLimit)
        throw new PackageError(
          'damaged',
          'This font file is cut off, or too large when it is unpacked. It was not added.',
        )
      // Its program is large, and most threads read no such file.
      const { decompress } = await import('wawoff2')
      let bytes: Uint8Array
      try {
        bytes = new Uint8Array(await decompress(file))
      } catch {
        throw new PackageError('damaged', 'This font file cannot be unpacked. It was not added.')
      }
      return fontFileKind(bytes) === 'collection' ? facesOfCollection(bytes) : [bytes]
    }
    case 'collection':
      return facesOfCollection(file)
    case 'other':
      throw new PackageError('unsupported', 'This is not a TrueType, OpenType, WOFF or WOFF2 font. It was not added.')
  }
}

/**
 * Checks a font file from outside: TrueType, OpenType, WOFF, WOFF2, or a collection, which opens into its faces; all of
 * them or none. Runs in a thread, so that a bad file harms nothing else.
 * @throws PackageError
 */
export async function checkFontFile(file: Uint8Array): Promise<CheckedFont[]> {
  if (file.length > fontFileLimit) throw new PackageError('too-large', 'This font file is too large. It was not added.')
  return (await facesIn(file)).flatMap(bytes => {
    checkTables(bytes)
    return openedVariable({ bytes, face: readChecked(bytes) })
  })
}

let subsetter: Subsetter | null = null

/** A face of its own at a place on the axes of a variable file. @throws PackageError where it cannot be cut */
export function faceAt(
  variable: CheckedFont,
  style: string,
  place: AxisPlace,
  family = variable.face.family,
): CheckedFont {
  const axes = Object.entries(place).map(([tag, value]) => ({ tag, value }))
  const cut = (subsetter ??= startSubsetter()).instance(variable.bytes, axes)
  if (!cut)
    throw new PackageError('damaged', `No face can be cut from this variable file at “${style}”. It was not added.`)
  const bytes = namedCut(cut, variable.bytes, family, style)
  return { bytes, face: readChecked(bytes) }
}

/** A variable file opens into the faces it names: it is the one at its usual place, and all others are cut from it. */
function openedVariable(font: CheckedFont): CheckedFont[] {
  const instances = instancesIn(font.bytes, font.face)
  if (instances.length === 0) return [font]
  const family = familyName(namesOf(font.bytes), instances)
  const variable = { bytes: font.bytes, face: atUsualPlace(font.face, family, instances) }
  const usual = usualPlace(font.face.axes)
  return [
    variable,
    ...instances
      .filter(each => !samePlace(each.place, usual))
      .flatMap(({ style, place }) => {
        try {
          const { bytes, face } = faceAt(variable, style, place)
          return [{ bytes, face: { ...face, cutFrom: variable.face.hash } }]
        } catch (error) {
          // A place that cannot be cut takes nothing from the others: the file itself is there.
          if (error instanceof PackageError) return []
          throw error
        }
      }),
  ]
}

/** The same of a file that holds one face. @throws PackageError */
export async function checkSingleFont(file: Uint8Array): Promise<CheckedFont> {
  const [first, ...others] = await checkFontFile(file)
  if (!first || others.length > 0)
    throw new PackageError('unsupported', 'This file holds several faces in one. One is needed here. It was not added.')
  return first
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

/** A font file packed as WOFF2 (W3C, WOFF File Format 2.0). */
export async function packFace(file: Uint8Array): Promise<Uint8Array> {
  const { compress } = await import('wawoff2')
  return new Uint8Array(await compress(file))
}
