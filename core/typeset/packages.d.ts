// Types for packages that ship none.
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string)
    nextBreak(): { position: number; required: boolean } | null
  }
}
declare module 'bidi-js' {
  interface Levels {
    levels: Uint8Array
    paragraphs: { start: number; end: number; level: number }[]
  }
  interface Bidi {
    getEmbeddingLevels(text: string, direction?: 'ltr' | 'rtl' | 'auto'): Levels
    getMirroredCharacter(character: string): string | null
  }
  export default function bidiFactory(): Bidi
}
declare module 'hyphen' {
  export default function createHyphenator(
    patterns: unknown,
    options: { async: false; hyphenChar: string; minWordLength?: number },
  ): (text: string) => string
}
declare module 'hyphen/patterns/*.js' {
  const patterns: unknown
  export default patterns
}
