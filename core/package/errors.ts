/** Why a file cannot be opened. Stable, for programs; the sentence beside it is for people. */
export type PackageFault =
  | 'empty'
  | 'not-zip'
  | 'truncated'
  | 'damaged'
  | 'too-large'
  | 'too-many-parts'
  | 'bomb'
  | 'bad-name'
  | 'not-opendocument'
  | 'finished'
  | 'not-text'
  | 'encrypted'
  | 'unsupported'
  | 'bad-xml'
  | 'too-deep'
  | 'too-many-nodes'
  | 'dtd'
  | 'entity'

/** A file was refused. `message` is a sentence a designer understands; nothing was kept of the file. */
export class PackageError extends Error {
  readonly fault: PackageFault

  constructor(fault: PackageFault, message: string) {
    super(message)
    this.name = 'PackageError'
    this.fault = fault
  }
}
