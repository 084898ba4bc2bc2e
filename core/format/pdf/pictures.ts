import { PDFName, type PDFDocument, type PDFImage } from '@cantoo/pdf-lib'
import { inflateSync } from 'fflate'
import { partBytes, type Container } from '../../package/container'

/** Profiles that are larger than this are left out. */
const profileLimit = 4_000_000

/** The pictures of a package as a PDF holds them: each once, with the profile that it came with. */
export class Pictures {
  /** Pictures of kinds that are not written, and those that cannot be read. */
  readonly left = new Set<string>()
  private readonly known = new Map<string, PDFImage | null>()

  constructor(
    private readonly pdf: PDFDocument,
    private readonly container: Container,
  ) {}

  /** A picture by the reference that the file has of it; null where it cannot be written. */
  async of(href: string): Promise<PDFImage | null> {
    const path = href.replace(/^\.\//, '')
    let image = this.known.get(path)
    if (image === undefined) this.known.set(path, (image = await this.embed(path)))
    return image
  }

  private async embed(path: string): Promise<PDFImage | null> {
    const { container, pdf } = this
    if (container.byPath.has(path)) {
      try {
        // A copy: pictures that are stored as they are lie within the bytes of the whole package.
        const bytes = partBytes(container, path).slice()
        const png = bytes[0] === 0x89 && bytes[1] === 0x50
        if (png || (bytes[0] === 0xff && bytes[1] === 0xd8)) {
          const image = png ? await pdf.embedPng(bytes) : await pdf.embedJpg(bytes)
          await image.embed()
          this.withProfile(image, png ? pngProfile(bytes) : jpegProfile(bytes))
          return image
        }
      } catch (error) {
        this.left.add(`${path} (${error instanceof Error ? error.message.slice(0, 80) : 'it cannot be read'})`)
        return null
      }
    }
    this.left.add(path || 'a picture without a file')
    return null
  }

  /** Puts a picture's own profile in place of the plain colour space of as many channels (ISO 32000-2, 8.6.5.5). */
  private withProfile(image: PDFImage, profile: Uint8Array | null): void {
    const { context } = this.pdf
    const stream = context.lookup(image.ref)
    if (!profile || profile.length > profileLimit || !stream || !('dict' in stream)) return
    const dict = (stream as { readonly dict: { get(key: PDFName): unknown; set(key: PDFName, value: unknown): void } })
      .dict
    const plain: Readonly<Record<string, readonly [number, string]>> = {
      '/DeviceRGB': [3, 'RGB '],
      '/DeviceGray': [1, 'GRAY'],
      '/DeviceCMYK': [4, 'CMYK'],
    }
    const name = String(dict.get(PDFName.of('ColorSpace')))
    const [channels, signature] = plain[name] ?? [0, '']
    if (channels === 0 || String.fromCharCode(...profile.subarray(16, 20)) !== signature) return
    const source = context.register(context.flateStream(profile, { N: channels, Alternate: PDFName.of(name.slice(1)) }))
    dict.set(PDFName.of('ColorSpace'), context.obj(['ICCBased', source]))
  }
}

const textOf = (bytes: Uint8Array) => String.fromCharCode(...bytes)
const numberAt = (bytes: Uint8Array, at: number) =>
  ((bytes[at]! << 24) | (bytes[at + 1]! << 16) | (bytes[at + 2]! << 8) | bytes[at + 3]!) >>> 0

/** The profile in a PNG's iCCP chunk (Portable Network Graphics, 11.3.2.3); null where it has none. */
export function pngProfile(bytes: Uint8Array): Uint8Array | null {
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = numberAt(bytes, at)
    const kind = textOf(bytes.subarray(at + 4, at + 8))
    const data = bytes.subarray(at + 8, at + 8 + length)
    if (kind === 'iCCP') {
      const name = data.indexOf(0)
      // Behind the name and the method: zlib's two bytes of head, and four of sum at the end.
      return name < 0 ? null : inflateSync(data.subarray(name + 4, data.length - 4))
    }
    if (kind === 'IDAT' || kind === 'IEND') return null
    at += 12 + length
  }
  return null
}

/** The profile in a JPEG's APP2 segments (ICC.1:2022, B.4), which may be cut into pieces; null where it has none. */
export function jpegProfile(bytes: Uint8Array): Uint8Array | null {
  const pieces: { readonly index: number; readonly data: Uint8Array }[] = []
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1]!
    if (marker === 0xda || marker === 0xd9) break
    const length = (bytes[at + 2]! << 8) | bytes[at + 3]!
    const data = bytes.subarray(at + 4, at + 2 + length)
    if (marker === 0xe2 && textOf(data.subarray(0, 12)) === 'ICC_PROFILE\0')
      pieces.push({ index: data[12]!, data: data.subarray(14) })
    at += 2 + Math.max(length, 2)
  }
  if (pieces.length === 0) return null
  const whole = new Uint8Array(pieces.reduce((sum, each) => sum + each.data.length, 0))
  let at = 0
  for (const { data } of pieces.sort((a, b) => a.index - b.index)) {
    whole.set(data, at)
    at += data.length
  }
  return whole
}
