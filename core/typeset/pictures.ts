import { imageMeta } from 'image-meta'
import type { OdfDocument } from '../document/open'
import { partBytes, type Container } from '../package/container'

/** A picture of a package as far as it can be told from its first bytes: what it is, and its size in points. */
export interface PictureFacts {
  /** As the readers of pictures name it: png, jpg, gif, webp, svg …; null for what none of them knows. */
  readonly type: string | null
  readonly width: number
  readonly height: number
}

/** How large a picture of the package is by itself, in points; null where it cannot be told. */
export type PictureSize = (href: string) => { readonly width: number; readonly height: number } | null

/** Kinds that screens show. */
const shown = new Set(['png', 'jpg', 'gif', 'webp', 'svg', 'bmp'])
/** CSS pixels to points (CSS Values 3, 5.2): a picture that says no density has 96 to the inch. */
const pixel = 72 / 96
/** Larger pictures are not looked into. */
const largest = 64 * 1024 * 1024
const known = new WeakMap<Container, Map<string, PictureFacts | null>>()

/** What a picture is; null where the package has none there, or where it cannot be read. */
export function pictureFacts(document: OdfDocument, href: string): PictureFacts | null {
  const path = href.replace(/^\.\//, '')
  const { container } = document
  if (document.dropped.has(path)) return null
  let facts = known.get(container)
  if (!facts) known.set(container, (facts = new Map()))
  let found = facts.get(path)
  if (found === undefined) facts.set(path, (found = read(container, path)))
  return found
}

function read(container: Container, path: string): PictureFacts | null {
  const entry = container.byPath.get(path)
  if (!entry || entry.size > largest) return null
  try {
    const { type, width, height } = imageMeta(partBytes(container, path))
    return { type: type ?? null, width: width * pixel, height: height * pixel }
  } catch {
    // Not a picture of any kind that is known: it is named where it should be shown.
    return { type: null, width: 0, height: 0 }
  }
}

/** How large a picture is by itself, in points; null where it cannot be told. */
export function pictureSize(document: OdfDocument, href: string): ReturnType<PictureSize> {
  const facts = pictureFacts(document, href)
  return facts && facts.width > 0 && facts.height > 0 ? facts : null
}

/** Whether screens can show a picture of the package. */
export const canBeShown = (document: OdfDocument, href: string): boolean =>
  shown.has(pictureFacts(document, href)?.type ?? '')
