/** What an operator is given (ISO 32000-2, 7.8.2). */
export type Operand =
  | { readonly kind: 'number'; readonly value: number }
  | { readonly kind: 'name'; readonly value: string }
  | { readonly kind: 'string'; readonly bytes: Uint8Array }
  | { readonly kind: 'array'; readonly items: readonly Operand[] }
  | { readonly kind: 'other' }

/** An operator with what it is given, and where it stands in the content: `start` with its first operand. */
export interface Operator {
  readonly name: string
  readonly operands: readonly Operand[]
  readonly start: number
  readonly end: number
}

/** More operators of one content are not read. */
const operatorLimit = 3_000_000
const depthLimit = 50

const isSpace = (byte: number) => byte === 0x20 || (byte >= 0x09 && byte <= 0x0d) || byte === 0
const isDelimiter = (byte: number) => '()<>[]{}/%'.includes(String.fromCharCode(byte))
const isRegular = (byte: number) => !isSpace(byte) && !isDelimiter(byte)

/** Reads the operators of a page's content, one after the other. What cannot be read is passed over. */
export function readOperators(content: Uint8Array): Operator[] {
  return new ContentReader(content).all()
}

class ContentReader {
  private at = 0

  constructor(private readonly content: Uint8Array) {}

  all(): Operator[] {
    const found: Operator[] = []
    let operands: Operand[] = []
    let start = -1
    while (found.length < operatorLimit) {
      this.skip()
      if (this.at >= this.content.length) break
      const from = this.at
      if (start < 0) start = from
      const byte = this.content[from]!
      if (isRegular(byte) && !isNumberStart(byte)) {
        const name = this.word()
        if (name === 'BI') this.inlineImage()
        if (name === 'true' || name === 'false' || name === 'null') operands.push({ kind: 'other' })
        else {
          found.push({ name, operands, start, end: this.at })
          operands = []
          start = -1
        }
        continue
      }
      operands.push(this.operand(0))
      if (this.at === from) this.at++
      if (operands.length > 1000) operands = []
    }
    return found
  }

  private skip(): void {
    const { content } = this
    while (this.at < content.length) {
      const byte = content[this.at]!
      if (byte === 0x25)
        while (this.at < content.length && content[this.at] !== 10 && content[this.at] !== 13) this.at++
      else if (isSpace(byte)) this.at++
      else return
    }
  }

  private word(): string {
    const from = this.at
    while (this.at < this.content.length && isRegular(this.content[this.at]!)) this.at++
    return latin1(this.content.subarray(from, this.at))
  }

  private operand(depth: number): Operand {
    const byte = this.content[this.at]!
    if (byte === 0x28) return { kind: 'string', bytes: this.literal() }
    if (byte === 0x2f) {
      this.at++
      return {
        kind: 'name',
        value: this.word().replace(/#([0-9a-f]{2})/gi, (_, hex: string) => String.fromCharCode(parseInt(hex, 16))),
      }
    }
    if (byte === 0x3c && this.content[this.at + 1] !== 0x3c) return { kind: 'string', bytes: this.hexadecimal() }
    if (byte === 0x5b && depth < depthLimit) {
      this.at++
      return { kind: 'array', items: this.until(0x5d, depth) }
    }
    if (byte === 0x3c) {
      this.at += 2
      this.until(0x3e, depth)
      if (this.content[this.at] === 0x3e) this.at++
      return { kind: 'other' }
    }
    if (isNumberStart(byte)) {
      const value = Number.parseFloat(this.word())
      return { kind: 'number', value: Number.isFinite(value) ? value : 0 }
    }
    if (isRegular(byte)) this.word()
    else this.at++
    return { kind: 'other' }
  }

  private until(end: number, depth: number): Operand[] {
    const items: Operand[] = []
    for (;;) {
      this.skip()
      if (this.at >= this.content.length) return items
      if (this.content[this.at] === end) {
        this.at++
        return items
      }
      const from = this.at
      items.push(this.operand(depth + 1))
      if (this.at === from) this.at++
    }
  }

  /** A string in round brackets (7.3.4.2). */
  private literal(): Uint8Array {
    const { content } = this
    const bytes: number[] = []
    let depth = 1
    this.at++
    while (this.at < content.length) {
      const byte = content[this.at++]!
      if (byte === 0x5c) this.escaped(bytes)
      else if (byte === 0x28) {
        depth++
        bytes.push(byte)
      } else if (byte === 0x29) {
        if (--depth === 0) break
        bytes.push(byte)
      } else bytes.push(byte)
    }
    return Uint8Array.from(bytes)
  }

  private escaped(into: number[]): void {
    const { content } = this
    const byte = content[this.at++] ?? 0
    const plain = 'nrtbf'.indexOf(String.fromCharCode(byte))
    if (plain >= 0) into.push([10, 13, 9, 8, 12][plain]!)
    else if (byte >= 0x30 && byte <= 0x37) {
      let value = byte - 0x30
      for (let digit = 0; digit < 2 && content[this.at]! >= 0x30 && content[this.at]! <= 0x37; digit++)
        value = value * 8 + content[this.at++]! - 0x30
      into.push(value & 255)
    } else if (byte === 13) {
      if (content[this.at] === 10) this.at++
    } else if (byte !== 10) into.push(byte)
  }

  private hexadecimal(): Uint8Array {
    const { content } = this
    this.at++
    let digits = ''
    while (this.at < content.length && content[this.at] !== 0x3e) {
      const digit = String.fromCharCode(content[this.at++]!)
      if (/[0-9a-f]/i.test(digit)) digits += digit
    }
    this.at++
    if (digits.length % 2 === 1) digits += '0'
    return Uint8Array.from(digits.match(/../g) ?? [], pair => parseInt(pair, 16))
  }

  /** Passes over the bytes of a picture in the content (8.9.7): to an EI that stands by itself. */
  private inlineImage(): void {
    const { content } = this
    while (
      this.at < content.length &&
      !(content[this.at] === 0x49 && content[this.at + 1] === 0x44 && isSpace(content[this.at + 2] ?? 32))
    )
      this.at++
    for (this.at += 3; this.at < content.length; this.at++)
      if (
        content[this.at] === 0x45 &&
        content[this.at + 1] === 0x49 &&
        isSpace(content[this.at - 1] ?? 32) &&
        isSpace(content[this.at + 2] ?? 32)
      ) {
        this.at += 2
        return
      }
  }
}

const isNumberStart = (byte: number) =>
  (byte >= 0x30 && byte <= 0x39) || byte === 0x2b || byte === 0x2d || byte === 0x2e

export function latin1(bytes: Uint8Array): string {
  let text = ''
  for (let at = 0; at < bytes.length; at += 4096) text += String.fromCharCode(...bytes.subarray(at, at + 4096))
  return text
}
