import { strToU8, zipSync } from 'fflate'
import { makeOdt, odt } from './fixtures'

const packed = (files: Record<string, string | Uint8Array>) =>
  zipSync(
    Object.fromEntries(
      Object.entries(files).map(([path, content]) => [path, typeof content === 'string' ? strToU8(content) : content]),
    ),
  )
const manifest = (inside: string) =>
  `<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0">` +
  `<manifest:file-entry manifest:full-path="/" manifest:media-type="${odt}"/>${inside}</manifest:manifest>`
const withContent = (content: string) =>
  packed({ mimetype: odt, 'content.xml': content, 'META-INF/manifest.xml': manifest('') })

/** Files that must be refused, with a word that the sentence must hold. */
export const badFiles: readonly (readonly [name: string, make: () => Uint8Array, word: RegExp])[] = [
  ['an empty file', () => new Uint8Array(0), /empty/],
  ['not a zip', () => strToU8('Dear all, please find attached. '.repeat(50)), /not an OpenDocument/],
  ['a truncated zip', () => makeOdt({}).slice(0, 600), /cut off/],
  ['a zip that is no OpenDocument', () => packed({ 'word/document.txt': 'x' }), /not an OpenDocument/],
  [
    'an encrypted package',
    () =>
      packed({
        mimetype: odt,
        'content.xml': 'xx',
        'META-INF/manifest.xml': manifest(
          '<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml">' +
            '<manifest:encryption-data/></manifest:file-entry>',
        ),
      }),
    /password/,
  ],
  ['a zip bomb', () => packed({ mimetype: odt, 'content.xml': new Uint8Array(64 * 1024 * 1024) }), /far larger/],
  ['endlessly deep XML', () => withContent('<a>'.repeat(200_000)), /nests/],
  [
    'a DTD with entities',
    () => withContent('<!DOCTYPE a [<!ENTITY b "bb"><!ENTITY c "&b;&b;&b;">]><a>&c;</a>'),
    /document type/,
  ],
  ['names that leave the package', () => packed({ mimetype: odt, '../../content.xml': '<a/>' }), /outside/],
  [
    'a spreadsheet',
    () => makeOdt({ mimetype: 'application/vnd.oasis.opendocument.spreadsheet' }),
    /OpenDocument spreadsheet/,
  ],
]
