import { deflateSync, inflateSync } from 'fflate'
import { crc32 } from './crc32'
import { PackageError } from './errors'
import { defaultLimits, type PackageLimits } from './limits'

/**
 * One part of a package as the zip file holds it. The raw records are kept, so that a part nobody touches
 * is written back with its own date, flags, extra fields and compressed bytes.
 */
export interface PackageEntry {
  readonly path: string
  readonly method: number
  readonly crc32: number
  readonly compressedSize: number
  readonly size: number
  /** Offsets into the file: local header, compressed data, end of data and of the data descriptor if there is one. */
  readonly localStart: number
  readonly dataStart: number
  readonly localEnd: number
  /** Offsets of the central directory record. */
  readonly centralStart: number
  readonly centralEnd: number
}

/** A zip file taken apart, entries in the order of its central directory. The bytes are never changed. */
export interface Container {
  readonly bytes: Uint8Array
  readonly entries: readonly PackageEntry[]
  readonly byPath: ReadonlyMap<string, PackageEntry>
  /** Where the end-of-central-directory record starts. */
  readonly endStart: number
  readonly limits: PackageLimits
}

const localSignature = 0x04034b50
const centralSignature = 0x02014b50
const endSignature = 0x06054b50
const descriptorSignature = 0x08074b50
const encryptedFlag = 0x0001
const descriptorFlag = 0x0008
const utf8Flag = 0x0800

const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)

function checkName(path: string): void {
  const segments = path.split('/')
  const leaves =
    path.startsWith('/') ||
    path.includes('\\') ||
    path.includes('\0') ||
    /^[A-Za-z]:/.test(path) ||
    segments.some(segment => segment === '..' || segment === '.')
  if (leaves || path === '')
    throw new PackageError(
      'bad-name',
      'A part of this package has a name that points outside of it, so it was not opened. Nothing was kept.',
    )
}

function findEnd(bytes: Uint8Array, data: DataView): number {
  const first = Math.max(0, bytes.length - 22 - 0xffff)
  for (let at = bytes.length - 22; at >= first; at--)
    if (data.getUint32(at, true) === endSignature && at + 22 + data.getUint16(at + 20, true) <= bytes.length) return at
  const startsAsZip = bytes.length >= 4 && data.getUint32(0, true) === localSignature
  if (startsAsZip)
    throw new PackageError(
      'truncated',
      'The end of this file is missing; it was probably cut off while it was copied. Nothing was kept. Ask for it again.',
    )
  throw new PackageError('not-zip', 'This file is not an OpenDocument package: it is not a zip file. Nothing was kept.')
}

/** Where the directory of a zip file stands, and how many entries it has. */
interface Directory {
  readonly start: number
  readonly count: number
  /** Where the end record begins. */
  readonly end: number
}

/** @throws PackageError for what is no zip file, cut off, split or larger than what can be opened */
function readDirectory(bytes: Uint8Array, data: DataView, limits: PackageLimits): Directory {
  const end = findEnd(bytes, data)
  const count = data.getUint16(end + 10, true)
  const size = data.getUint32(end + 12, true)
  const start = data.getUint32(end + 16, true)
  if (count === 0xffff || start === 0xffffffff || data.getUint16(end + 4, true) !== 0)
    throw new PackageError(
      'unsupported',
      'This zip file is split or larger than 4 GB, which cannot be opened here. Nothing was kept.',
    )
  if (count > limits.entries)
    throw new PackageError(
      'too-many-parts',
      `This package has ${count} parts; at most ${limits.entries} can be opened here. Nothing was kept.`,
    )
  if (start + size > end)
    throw new PackageError(
      'truncated',
      'The directory of this zip file does not fit its length: it is cut off or damaged. Nothing was kept.',
    )
  return { start, count, end }
}

/** Reads one entry of the directory, and where its part stands. @throws PackageError */
function readEntry(bytes: Uint8Array, data: DataView, at: number, { start, end }: Directory): PackageEntry {
  if (at + 46 > end || data.getUint32(at, true) !== centralSignature)
    throw new PackageError('damaged', 'The directory of this zip file is damaged. Nothing was kept.')
  const method = data.getUint16(at + 10, true)
  const compressedSize = data.getUint32(at + 20, true)
  const size = data.getUint32(at + 24, true)
  const nameLength = data.getUint16(at + 28, true)
  const centralEnd = at + 46 + nameLength + data.getUint16(at + 30, true) + data.getUint16(at + 32, true)
  const localStart = data.getUint32(at + 42, true)
  const path = new TextDecoder('utf-8').decode(bytes.subarray(at + 46, at + 46 + nameLength))
  checkName(path)
  if (data.getUint16(at + 8, true) & encryptedFlag)
    throw new PackageError(
      'encrypted',
      'This package is locked with a password. Save a copy without the password and open that. Nothing was kept.',
    )
  if (method !== 0 && method !== 8)
    throw new PackageError(
      'unsupported',
      `The part “${path}” is packed in a way that OpenDocument does not allow. Nothing was kept.`,
    )
  if (compressedSize === 0xffffffff || size === 0xffffffff || localStart === 0xffffffff)
    throw new PackageError(
      'unsupported',
      'A part of this package is larger than 4 GB, which cannot be opened here. Nothing was kept.',
    )
  if (centralEnd > end || localStart + 30 > start || data.getUint32(localStart, true) !== localSignature)
    throw new PackageError('damaged', `The part “${path}” is not where the zip directory says. Nothing was kept.`)
  return {
    path,
    method,
    crc32: data.getUint32(at + 16, true),
    compressedSize,
    size,
    localStart,
    ...extentOf(data, path, localStart, compressedSize, start),
    centralStart: at,
    centralEnd,
  }
}

/** Where the bytes of a part begin, and where all that belongs to it ends. @throws PackageError where it is cut off */
function extentOf(data: DataView, path: string, localStart: number, compressedSize: number, directory: number) {
  const dataStart = localStart + 30 + data.getUint16(localStart + 26, true) + data.getUint16(localStart + 28, true)
  let localEnd = dataStart + compressedSize
  if (localEnd > directory) throw new PackageError('truncated', `The part “${path}” is cut off. Nothing was kept.`)
  if (data.getUint16(localStart + 6, true) & descriptorFlag) {
    const signed = localEnd + 4 <= directory && data.getUint32(localEnd, true) === descriptorSignature
    localEnd = Math.min(localEnd + (signed ? 16 : 12), directory)
  }
  return { dataStart, localEnd }
}

/** @throws PackageError where parts lie over one another */
function checkOverlaps(entries: readonly PackageEntry[]): void {
  const ordered = [...entries].sort((a, b) => a.localStart - b.localStart)
  for (let index = 1; index < ordered.length; index++)
    if (ordered[index]!.localStart < ordered[index - 1]!.dataStart + ordered[index - 1]!.compressedSize)
      throw new PackageError(
        'bomb',
        'Parts of this zip file lie over one another, which no document needs, so it was not opened. Nothing was kept.',
      )
}

/**
 * Reads the directory of a zip file (APPNOTE 6.3; what OpenDocument 1.4 part 2 section 2 allows of it) without
 * inflating anything. Sizes, names, overlaps and counts are checked against the limits before any part is read.
 * @throws PackageError
 */
export function readContainer(bytes: Uint8Array, limits: PackageLimits = defaultLimits): Container {
  if (bytes.length === 0) throw new PackageError('empty', 'This file is empty. Nothing was kept.')
  if (bytes.length > limits.fileSize)
    throw new PackageError(
      'too-large',
      `This file is larger than ${Math.round(limits.fileSize / 1048576)} MB, the most that can be opened here. Nothing was kept.`,
    )
  if (bytes.length < 22)
    throw new PackageError(
      'not-zip',
      'This file is not an OpenDocument package: it is not a zip file. Nothing was kept.',
    )
  const data = view(bytes)
  const directory = readDirectory(bytes, data, limits)
  const byPath = new Map<string, PackageEntry>()
  let at = directory.start
  let total = 0
  for (let index = 0; index < directory.count; index++) {
    const entry = readEntry(bytes, data, at, directory)
    const { path, size, compressedSize } = entry
    if (byPath.has(path))
      throw new PackageError(
        'damaged',
        `The part “${path}” is in this package twice, so it is unclear which one counts. Nothing was kept.`,
      )
    total += size
    if (total > limits.inflatedSize || (size > limits.ratioFrom && size > compressedSize * limits.ratio))
      throw new PackageError(
        'bomb',
        'Unpacked, this file would be far larger than a document is, so it was not opened. Nothing was kept.',
      )
    byPath.set(path, entry)
    at = entry.centralEnd
  }
  const entries = [...byPath.values()]
  checkOverlaps(entries)
  return { bytes, entries, byPath, endStart: directory.end, limits }
}

/**
 * The bytes of one part, inflated and checked against their length and CRC.
 * @throws PackageError when the part is missing or damaged
 */
export function partBytes(container: Container, path: string): Uint8Array {
  const entry = container.byPath.get(path)
  if (!entry) throw new PackageError('damaged', `The part “${path}” is missing from this package.`)
  const stored = container.bytes.subarray(entry.dataStart, entry.dataStart + entry.compressedSize)
  let bytes: Uint8Array
  try {
    // A buffer of the declared length: what inflates beyond it is dropped and then fails the CRC.
    bytes = entry.method === 0 ? stored : inflateSync(stored, { out: new Uint8Array(entry.size) })
  } catch {
    throw new PackageError('damaged', `The part “${path}” is damaged and cannot be unpacked. Nothing was kept.`)
  }
  if (bytes.length !== entry.size || crc32(bytes) !== entry.crc32)
    throw new PackageError('damaged', `The part “${path}” is damaged: its checksum does not match. Nothing was kept.`)
  return bytes
}

/** New bytes for a part, or null to leave it out. A path the package lacks is added at the end. */
export type PartChanges = ReadonlyMap<string, Uint8Array | null>

function addedRecord(path: string): { local: Uint8Array; central: Uint8Array } {
  const name = new TextEncoder().encode(path)
  const local = new Uint8Array(30 + name.length)
  const central = new Uint8Array(46 + name.length)
  view(local).setUint32(0, localSignature, true)
  view(central).setUint32(0, centralSignature, true)
  for (const [record, at] of [
    [local, 4],
    [central, 4],
    [central, 6],
  ] as const)
    view(record).setUint16(at, 20, true)
  for (const [record, at] of [
    [local, 6],
    [central, 8],
  ] as const) {
    view(record).setUint16(at, utf8Flag, true)
    view(record).setUint16(at + 2, 8, true)
    // 1 January 1980, the zip epoch: the same change always gives the same bytes.
    view(record).setUint16(at + 6, 0x21, true)
  }
  view(local).setUint16(26, name.length, true)
  view(central).setUint16(28, name.length, true)
  local.set(name, 30)
  central.set(name, 46)
  return { local, central }
}

function packed(local: Uint8Array, central: Uint8Array, content: Uint8Array): Uint8Array {
  const method = view(local).getUint16(8, true)
  const stored = method === 0 ? content : deflateSync(content, { level: 6 })
  const sum = crc32(content)
  for (const [record, flagsAt, sumAt] of [
    [local, 6, 14],
    [central, 8, 16],
  ] as const) {
    const data = view(record)
    // Sizes are known now, so no data descriptor follows; every other flag stays.
    data.setUint16(flagsAt, data.getUint16(flagsAt, true) & ~descriptorFlag, true)
    data.setUint32(sumAt, sum, true)
    data.setUint32(sumAt + 4, stored.length, true)
    data.setUint32(sumAt + 8, content.length, true)
  }
  return stored
}

/**
 * Writes the package with some parts replaced. Parts that are not named keep every byte: order, dates, flags, extra
 * fields and compressed data. With no changes the result is the file as it came.
 */
export function writeContainer(container: Container, changes: PartChanges): Uint8Array {
  if (changes.size === 0) return container.bytes
  const { bytes, entries, byPath, endStart } = container
  const pieces: Uint8Array[] = []
  const central = new Map<PackageEntry | string, Uint8Array>()
  let length = 0
  const push = (piece: Uint8Array) => {
    pieces.push(piece)
    length += piece.length
  }

  for (const entry of [...entries].sort((a, b) => a.localStart - b.localStart)) {
    const content = changes.get(entry.path)
    if (content === null) continue
    const record = bytes.slice(entry.centralStart, entry.centralEnd)
    view(record).setUint32(42, length, true)
    central.set(entry, record)
    if (content === undefined) {
      push(bytes.subarray(entry.localStart, entry.localEnd))
      continue
    }
    const local = bytes.slice(entry.localStart, entry.dataStart)
    const stored = packed(local, record, content)
    push(local)
    push(stored)
  }
  for (const [path, content] of changes) {
    if (content === null || byPath.has(path)) continue
    checkName(path)
    const record = addedRecord(path)
    view(record.central).setUint32(42, length, true)
    const stored = packed(record.local, record.central, content)
    push(record.local)
    push(stored)
    central.set(path, record.central)
  }
  const directoryStart = length
  for (const entry of entries) if (central.has(entry)) push(central.get(entry)!)
  for (const [key, record] of central) if (typeof key === 'string') push(record)
  const end = bytes.slice(endStart)
  view(end).setUint16(8, central.size, true)
  view(end).setUint16(10, central.size, true)
  view(end).setUint32(12, length - directoryStart, true)
  view(end).setUint32(16, directoryStart, true)
  push(end)
  const result = new Uint8Array(length)
  let at = 0
  for (const piece of pieces) {
    result.set(piece, at)
    at += piece.length
  }
  return result
}
