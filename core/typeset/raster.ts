import { convertIndexedToRgb, decode as decodePng, type DecodedPng } from 'fast-png'
import { decode as decodeJpeg } from 'jpeg-js'
import { imageMeta } from 'image-meta'
import type { OdfDocument } from '../document/open'
import { partBytes, type Container } from '../package/container'

/** The pixels of a picture, made few: as many as it takes to tell what text stands on. */
export interface Raster {
  readonly width: number
  readonly height: number
  /** Red, green, blue (sRGB) and opacity of each pixel, 0 to 255, row by row from the top. */
  readonly data: Uint8Array
}

/** Pictures with more pixels are not looked into: a photograph of a good camera still is. */
const mostPixels = 24_000_000
const mostBytes = 64 * 1024 * 1024
/** What a decoder may take, in megabytes. */
const mostMemory = 512
/** So many pixels are kept of the longer side: fewer than a point each on most pages. */
const keptSide = 512
const known = new WeakMap<Container, Map<string, Raster | null>>()

/**
 * The pixels of a picture of the package, PNG or JPEG; null where the package has none there, where it is of another kind,
 * too large or broken. Each is decoded once.
 */
export function rasterOf(document: OdfDocument, href: string): Raster | null {
  const path = href.replace(/^\.\//, '')
  const { container } = document
  if (document.dropped.has(path)) return null
  let rasters = known.get(container)
  if (!rasters) known.set(container, (rasters = new Map()))
  let found = rasters.get(path)
  if (found === undefined) rasters.set(path, (found = read(container, path)))
  return found
}

function read(container: Container, path: string): Raster | null {
  const entry = container.byPath.get(path)
  if (!entry || entry.size > mostBytes) return null
  try {
    return reduced(decoded(partBytes(container, path)))
  } catch {
    // Whatever is wrong with it, it cannot be looked into: that is told of the text that stands on it.
    return null
  }
}

/** @throws Error for what is no picture that is known here, or too large a one */
function decoded(bytes: Uint8Array): Raster {
  const { type, width = 0, height = 0 } = imageMeta(bytes)
  if (width < 1 || height < 1 || width * height > mostPixels) throw new Error('Its size is none that is looked into.')
  if (type === 'png') return pngPixels(decodePng(bytes))
  if (type !== 'jpg') throw new Error('Pictures of this kind are not looked into.')
  return decodeJpeg(bytes, {
    useTArray: true,
    formatAsRGBA: true,
    maxResolutionInMP: mostPixels / 1e6,
    maxMemoryUsageInMB: mostMemory,
  })
}

/** A PNG of any depth and colour type as eight bits of red, green, blue and opacity (Portable Network Graphics, 6.1, 13.12). */
function pngPixels(png: DecodedPng): Raster {
  const { width, height, depth, channels, transparency } = png
  const greys = () =>
    Array.from({ length: 1 << depth }, (_, value) => Array(3).fill((value * 255) / ((1 << depth) - 1)))
  const isPacked = depth < 8 && !png.palette
  const isIndexed = png.palette !== undefined || isPacked
  const source = isIndexed ? convertIndexedToRgb(isPacked ? { ...png, palette: greys() } : png) : png.data
  const step = isIndexed ? source.length / (width * height) : channels
  const isGrey = step < 3
  const shift = depth === 16 ? 8 : 0
  const clear = !isIndexed && transparency && transparency.length > 0 ? transparency : null
  const data = new Uint8Array(width * height * 4)
  for (let from = 0, to = 0; to < data.length; from += step, to += 4) {
    data[to] = source[from]! >> shift
    data[to + 1] = source[isGrey ? from : from + 1]! >> shift
    data[to + 2] = source[isGrey ? from : from + 2]! >> shift
    const isClear = clear?.every((value, channel) => source[from + channel] === value)
    data[to + 3] = isClear ? 0 : step % 2 === 0 ? source[from + step - 1]! >> shift : 255
  }
  return { width, height, data }
}

/** Light of a value of sRGB, 0 to 1 (IEC 61966-2-1). */
const light = Float64Array.from({ length: 256 }, (_, value) => {
  const share = value / 255
  return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
})
const valueOf = (amount: number) =>
  Math.round(255 * (amount <= 0.0031308 ? amount * 12.92 : 1.055 * amount ** (1 / 2.4) - 0.055))

/** Made smaller, each pixel the mean light of those it comes of: what the eye makes of them from further away. */
function reduced({ width, height, data }: Raster): Raster {
  const share = Math.min(1, keptSide / Math.max(width, height))
  if (share === 1) return { width, height, data }
  const [columns, rows] = [Math.max(1, Math.round(width * share)), Math.max(1, Math.round(height * share))]
  // Light of the three colours weighed by opacity, then opacity itself, then how many.
  const sums = new Float64Array(columns * rows * 5)
  for (let y = 0, from = 0; y < height; y++) {
    const row = Math.floor((y * rows) / height) * columns
    for (let x = 0; x < width; x++, from += 4) {
      const to = (row + Math.floor((x * columns) / width)) * 5
      const opacity = data[from + 3]! / 255
      for (let channel = 0; channel < 3; channel++) sums[to + channel]! += light[data[from + channel]!]! * opacity
      sums[to + 3]! += opacity
      sums[to + 4]! += 1
    }
  }
  const out = new Uint8Array(columns * rows * 4)
  for (let from = 0, to = 0; to < out.length; from += 5, to += 4) {
    const opacity = sums[from + 3]!
    for (let channel = 0; channel < 3; channel++)
      out[to + channel] = opacity > 0 ? valueOf(sums[from + channel]! / opacity) : 0
    out[to + 3] = Math.round((255 * opacity) / sums[from + 4]!)
  }
  return { width: columns, height: rows, data: out }
}
