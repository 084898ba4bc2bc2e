declare module 'wawoff2' {
  /** Unpacks a WOFF2 file. */
  export function decompress(file: Uint8Array): Promise<Uint8Array>
  /** Packs a font file. */
  export function compress(file: Uint8Array): Promise<Uint8Array>
}
