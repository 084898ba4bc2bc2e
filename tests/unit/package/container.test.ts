import { zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { partBytes, readContainer, writeContainer } from '../../../core/package/container'
import { crc32 } from '../../../core/package/crc32'
import { defaultLimits } from '../../../core/package/limits'
import { PackageError } from '../../../core/package/errors'
import { parts } from '../../support/independent'

const text = (value: string) => new TextEncoder().encode(value)
const sample = () =>
  zipSync({
    'content.xml': [text('<a/>'.repeat(500)), { level: 6, mtime: new Date(2020, 1, 2, 3, 4, 6) }],
    'Pictures/one.png': [text('not really'), { level: 0 }],
    'empty/': [new Uint8Array(0), { level: 0 }],
    mimetype: [text('application/vnd.oasis.opendocument.text'), { level: 0 }],
  })
const fault = (bytes: Uint8Array, limits = defaultLimits): string => {
  try {
    readContainer(bytes, limits)
  } catch (error) {
    if (error instanceof PackageError) return error.fault
    throw error
  }
  return 'none'
}
const view = (bytes: Uint8Array) => new DataView(bytes.buffer, bytes.byteOffset)
/** Patches the first central record. */
function patched(offset: number, value: number, size: 2 | 4 = 2): Uint8Array {
  const bytes = sample()
  const central = view(bytes).getUint32(bytes.length - 22 + 16, true)
  if (size === 2) view(bytes).setUint16(central + offset, value, true)
  else view(bytes).setUint32(central + offset, value, true)
  return bytes
}

describe('a package that cannot be trusted is refused before anything of it is inflated', () => {
  it.each<[string, string, () => Uint8Array]>([
    ['an empty file', 'empty', () => new Uint8Array(0)],
    ['a file that is no zip', 'not-zip', () => text('Dear customer, '.repeat(20))],
    ['a zip cut off in the middle', 'truncated', () => sample().subarray(0, 90)],
    ['a name that climbs out', 'bad-name', () => zipSync({ '../../etc/passwd': text('x') })],
    ['an absolute name', 'bad-name', () => zipSync({ '/etc/passwd': text('x') })],
    ['a name with a drive', 'bad-name', () => zipSync({ 'C:/x': text('x') })],
    ['a name with a backslash', 'bad-name', () => zipSync({ 'a\\b': text('x') })],
    ['an encrypted part', 'encrypted', () => patched(8, 1)],
    ['an unknown compression', 'unsupported', () => patched(10, 12)],
    ['a directory that points nowhere', 'damaged', () => patched(42, 3, 4)],
    ['a bomb by its ratio', 'bomb', () => zipSync({ 'content.xml': new Uint8Array(16 * 1024 * 1024) })],
    ['a bomb by its declared size', 'bomb', () => patched(24, 0x7fffffff, 4)],
  ])('%s', (_name, expected, make) => {
    expect(fault(make())).toBe(expected)
  })

  it('parts that lie over one another', () => {
    const bytes = zipSync({ a: [text('same same same'), { level: 0 }], b: [text('same same same'), { level: 0 }] })
    const data = view(bytes)
    const central = data.getUint32(bytes.length - 22 + 16, true)
    data.setUint32(central + 47 + 42, 0, true)
    expect(fault(bytes)).toBe('bomb')
  })

  it('more parts, or a larger file, than the limits allow', () => {
    expect(fault(sample(), { ...defaultLimits, entries: 3 })).toBe('too-many-parts')
    expect(fault(sample(), { ...defaultLimits, fileSize: 100 })).toBe('too-large')
  })

  it('a part whose checksum is wrong, when it is read', () => {
    const container = readContainer(patched(16, 1234, 4))
    expect(() => partBytes(container, 'content.xml')).toThrow(/checksum/)
    expect(() => partBytes(container, 'nowhere')).toThrow(/missing/)
  })

  it('inflating never gives more than was declared', () => {
    const container = readContainer(patched(24, 8, 4))
    expect(() => partBytes(container, 'content.xml')).toThrow(/damaged/)
  })
})

describe('writing', () => {
  it('gives the very bytes back when nothing changed', () => {
    const bytes = sample()
    expect(writeContainer(readContainer(bytes), new Map())).toBe(bytes)
  })

  it('rewrites one part and keeps order, dates and every other byte', () => {
    const bytes = sample()
    const before = readContainer(bytes)
    const after = readContainer(writeContainer(before, new Map([['content.xml', text('<b/>')]])))
    expect(after.entries.map(entry => entry.path)).toEqual(before.entries.map(entry => entry.path))
    expect(new TextDecoder().decode(partBytes(after, 'content.xml'))).toBe('<b/>')
    const old = before.byPath.get('Pictures/one.png')!
    const now = after.byPath.get('Pictures/one.png')!
    expect(after.bytes.slice(now.localStart, now.localEnd)).toEqual(before.bytes.slice(old.localStart, old.localEnd))
    const date = (container: typeof before) =>
      view(container.bytes).getUint32(container.byPath.get('content.xml')!.centralStart + 12, true)
    expect(date(after)).toBe(date(before))
  })

  it('is read by another zip reader after parts were changed, added and dropped', () => {
    const written = writeContainer(
      readContainer(sample()),
      new Map<string, Uint8Array | null>([
        ['content.xml', text('<c/>')],
        ['Morphene/rules.json', text('{}')],
        ['Pictures/one.png', null],
      ]),
    )
    const files = parts(written)
    expect(Object.keys(files)).toEqual(['content.xml', 'empty/', 'mimetype', 'Morphene/rules.json'])
    expect(new TextDecoder().decode(files['Morphene/rules.json'])).toBe('{}')
  })

  it('refuses to add a part with a name that leaves the package', () => {
    expect(() => writeContainer(readContainer(sample()), new Map([['../x', text('x')]]))).toThrow(PackageError)
  })
})

it('crc32 gives the check value of its polynomial', () => {
  expect(crc32(text('123456789'))).toBe(0xcbf43926)
})
