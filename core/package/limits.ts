/** What a package may ask of the machine. Sizes in bytes. */
export interface PackageLimits {
  /** The zip file itself. */
  readonly fileSize: number
  readonly entries: number
  /** All parts together, inflated. */
  readonly inflatedSize: number
  /** One XML part, inflated: parsing needs a multiple of it in memory. */
  readonly xmlSize: number
  /** Inflated size over stored size, for parts above `ratioFrom`. Deflate reaches 1032 on one repeated byte. */
  readonly ratio: number
  readonly ratioFrom: number
  /** Nesting of XML elements. */
  readonly xmlDepth: number
  /** Elements, texts and other nodes of one XML part. */
  readonly xmlNodes: number
}

export const defaultLimits: PackageLimits = {
  fileSize: 200 * 1024 * 1024,
  entries: 10_000,
  inflatedSize: 1024 * 1024 * 1024,
  xmlSize: 256 * 1024 * 1024,
  ratio: 250,
  ratioFrom: 4 * 1024 * 1024,
  xmlDepth: 256,
  xmlNodes: 8_000_000,
}
