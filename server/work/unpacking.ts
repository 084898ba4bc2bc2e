import { isBundled, bundleContents } from '../../core/format/handoff/bundle'
import type { FaceRecord } from '../../core/font/face'
import type { House } from '../../core/house/house'
import { houseFromTokens, HouseFileError } from '../../core/house/tokens'
import { partBytes, readContainer, type Container } from '../../core/package/container'
import { PackageError } from '../../core/package/errors'
import { checkFontFile, type CheckedFont } from '../library/font-file'

/* What comes in a zip that is no document: documents, font files and houses; and font files that a document carries. */

/** A font file that was found, with what it is; or what is wrong with it. */
export interface FoundFont {
  readonly path: string
  readonly bytes: Uint8Array
  readonly face: FaceRecord | null
  readonly problem: string
}

/** What was in a zip. */
export interface Unpacked {
  readonly documents: readonly { readonly name: string; readonly bytes: Uint8Array }[]
  readonly fonts: readonly FoundFont[]
  /** Houses that lie beside the documents, as tokens. */
  readonly houses: readonly House[]
  /** It is a bundle that a desk made: what lies beside the documents belongs to them. */
  readonly isBundle: boolean
  readonly left: readonly string[]
}

export const isFontPath = (path: string): boolean => /\.(ttf|otf|woff2?|ttc|otc)$/i.test(path)
/** More font files of one package or zip are passed over. */
export const fontLimit = 100

/** Faces of a file, each with a path of its own: those behind the first are told by their number. */
export const foundIn = (path: string, fonts: readonly CheckedFont[]): FoundFont[] =>
  fonts.map(({ bytes, face }, index) => ({
    path: index === 0 ? path : `${path} (${index + 1})`,
    bytes,
    face,
    problem: '',
  }))

export async function checkedFonts(
  files: readonly { readonly path: string; readonly bytes: Uint8Array }[],
): Promise<FoundFont[]> {
  const found: FoundFont[] = []
  for (const { path, bytes } of files) {
    try {
      found.push(...foundIn(path, await checkFontFile(bytes)))
    } catch (error) {
      found.push({ path, bytes, face: null, problem: error instanceof Error ? error.message : String(error) })
    }
  }
  return found
}

const isHousePath = (path: string): boolean => /\.tokens\.json$/i.test(path)
/** As many houses are read of one zip. */
const houseLimit = 20

/** The house in a file of tokens; none where it holds none. */
function houseIn(container: Container, path: string): { readonly path: string; readonly house: House }[] {
  try {
    return [{ path, house: houseFromTokens(new TextDecoder().decode(partBytes(container, path))) }]
  } catch (error) {
    if (error instanceof HouseFileError) return []
    throw error
  }
}

/** Takes documents, font files and houses out of a zip; the rest is named. @throws PackageError */
export async function unzip(bytes: Uint8Array): Promise<Unpacked> {
  const container = readContainer(bytes)
  const paths = container.entries
    .map(entry => entry.path)
    .filter(path => !path.endsWith('/') && !path.startsWith('__MACOSX/'))
  const isBundle = container.byPath.has(bundleContents)
  // PDFs that a bundle was made with are what its documents were handed on as.
  const documents = paths.filter(
    path => /\.od[tpg]$|\.ot[tpg]$/i.test(path) || (/\.pdf$/i.test(path) && !(isBundle && isBundled(path))),
  )
  if (documents.length === 0)
    throw new PackageError(
      'not-opendocument',
      'This zip holds no text, presentation, drawing or PDF. Nothing was kept.',
    )
  if (documents.length > 200)
    throw new PackageError(
      'too-large',
      `This zip holds ${documents.length} documents; 200 are taken at once. Nothing was kept.`,
    )
  const houses = paths
    .filter(isHousePath)
    .slice(0, houseLimit)
    .flatMap(path => houseIn(container, path))
  return {
    isBundle,
    houses: houses.map(each => each.house),
    documents: documents.map(path => ({
      name: path.slice(path.lastIndexOf('/') + 1),
      bytes: partBytes(container, path),
    })),
    fonts: await checkedFonts(
      paths
        .filter(isFontPath)
        .slice(0, fontLimit)
        .map(path => ({ path, bytes: partBytes(container, path) })),
    ),
    left: paths.filter(
      path =>
        !documents.includes(path) &&
        !isFontPath(path) &&
        !houses.some(house => house.path === path) &&
        !(isBundle && isBundled(path)),
    ),
  }
}
