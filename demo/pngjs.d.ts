/** The part of the package that the tests use; it ships no types. */
declare module 'pngjs' {
  export class PNG {
    constructor(options: { width: number; height: number })
    readonly width: number
    readonly height: number
    /** Four bytes for every pixel: red, green, blue, opacity. */
    data: Buffer
    static sync: { write(png: PNG): Buffer; read(bytes: Buffer): PNG }
  }
}
