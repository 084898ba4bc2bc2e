// The only globals core may use beyond the language: both are in browsers, workers and Node alike.
declare class TextDecoder {
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean })
  decode(input?: Uint8Array): string
}
declare class TextEncoder {
  encode(input?: string): Uint8Array<ArrayBuffer>
}
