import { readContainer, partBytes, writeContainer, type Container } from '../package/container'
import { PackageError } from '../package/errors'
import { defaultLimits, type PackageLimits } from '../package/limits'
import { parseXml } from '../xml/parse'
import type { IdRuns, XmlPart } from '../xml/tree'
import { writeXml } from '../xml/write'

export type DocumentKind = 'text' | 'presentation' | 'drawing'
export type ObjectKind = DocumentKind | 'chart' | 'formula' | 'spreadsheet' | 'other'

/** The document itself (prefix '') or an object embedded in it (prefix 'Object 1/'), with its parsed parts. */
export interface Subdocument {
  readonly prefix: string
  readonly kind: ObjectKind
  /** Paths of parsed parts; null where the package has none or an empty one. */
  readonly content: string | null
  readonly styles: string | null
  readonly settings: string | null
}

/** An OpenDocument package, opened. Immutable: operations give a new one (apply.ts). */
export interface OdfDocument {
  readonly kind: DocumentKind
  readonly template: boolean
  readonly container: Container
  /** Parsed parts by path. All others are only ever copied. */
  readonly parts: ReadonlyMap<string, XmlPart>
  /** Parts taken out since the package was read. */
  readonly dropped: ReadonlySet<string>
  /** Parts that were written as a whole since the package was read, by path: Morphene's own. */
  readonly written: ReadonlyMap<string, string>
  readonly subdocuments: readonly Subdocument[]
  /** The package carries digital signatures, which any change makes void (ODF 1.4 part 2 section 5). */
  readonly signed: boolean
  readonly title: string
}

export const manifestPath = 'META-INF/manifest.xml'
const mimetypes: Readonly<Record<string, { kind: ObjectKind; template: boolean }>> = {
  'application/vnd.oasis.opendocument.text': { kind: 'text', template: false },
  'application/vnd.oasis.opendocument.text-template': { kind: 'text', template: true },
  'application/vnd.oasis.opendocument.presentation': { kind: 'presentation', template: false },
  'application/vnd.oasis.opendocument.presentation-template': { kind: 'presentation', template: true },
  'application/vnd.oasis.opendocument.graphics': { kind: 'drawing', template: false },
  'application/vnd.oasis.opendocument.graphics-template': { kind: 'drawing', template: true },
  'application/vnd.oasis.opendocument.chart': { kind: 'chart', template: false },
  'application/vnd.oasis.opendocument.formula': { kind: 'formula', template: false },
  'application/vnd.oasis.opendocument.spreadsheet': { kind: 'spreadsheet', template: false },
}

function decodeXml(path: string, bytes: Uint8Array): string {
  try {
    // A byte order mark is kept as the first character, so that it is written back.
    return new TextDecoder('utf-8', { fatal: true, ignoreBOM: true }).decode(bytes)
  } catch {
    throw new PackageError('bad-xml', `The part “${path}” is not written in UTF-8. Nothing was kept.`)
  }
}

function readPart(container: Container, path: string, ids: IdRuns | undefined): XmlPart | null {
  const entry = container.byPath.get(path)
  // Zero-byte XML parts occur in real packages; they say nothing and are kept as they are.
  if (!entry || entry.size === 0) return null
  const { xmlSize, xmlDepth, xmlNodes } = container.limits
  if (entry.size > xmlSize)
    throw new PackageError(
      'too-large',
      `The part “${path}” is larger than ${Math.round(xmlSize / 1048576)} MB. Nothing was kept.`,
    )
  return parseXml(path, decodeXml(path, partBytes(container, path)), { ids, depth: xmlDepth, nodes: xmlNodes })
}

interface Listed {
  mimetype: string
  objects: { prefix: string; mimetype: string }[]
}

function readManifest(manifest: XmlPart | null): Listed {
  const listed: Listed = { mimetype: '', objects: [] }
  if (!manifest) return listed
  for (const entry of manifest.descendants()) {
    if (entry.name === 'manifest:encryption-data')
      throw new PackageError(
        'encrypted',
        'This document is locked with a password. Save a copy without the password and open that. Nothing was kept.',
      )
    if (entry.name !== 'manifest:file-entry') continue
    const path = entry.attributes['manifest:full-path'] ?? ''
    const mimetype = entry.attributes['manifest:media-type'] ?? ''
    if (path === '/') listed.mimetype = mimetype
    else if (path.endsWith('/') && mimetype in mimetypes)
      listed.objects.push({ prefix: path.replace(/^\.\//, ''), mimetype })
  }
  return listed
}

/** Ids of a version's parts, by path, where parts were changed in an earlier session; see idRuns in xml/write.ts. */
export type DocumentIds = Readonly<Record<string, IdRuns>>

/**
 * Opens a package. Parsed are the manifest, and content, styles, settings and meta of the document and its objects.
 * @throws PackageError when the file is refused
 */
export function openDocument(
  bytes: Uint8Array,
  options: { ids?: DocumentIds; limits?: PackageLimits } = {},
): OdfDocument {
  const container = readContainer(bytes, options.limits ?? defaultLimits)
  const parts = new Map<string, XmlPart>()
  const open = (path: string): string | null => {
    const part = readPart(container, path, options.ids?.[path])
    if (part) parts.set(path, part)
    return part ? path : null
  }
  const manifest = open(manifestPath)
  const listed = readManifest(manifest ? parts.get(manifest)! : null)
  const written = container.byPath.has('mimetype')
    ? new TextDecoder('utf-8').decode(partBytes(container, 'mimetype')).trim()
    : ''
  const known = mimetypes[written] ?? mimetypes[listed.mimetype]
  if (!known || !container.byPath.has('content.xml'))
    throw new PackageError(
      'not-opendocument',
      'This zip file is not an OpenDocument text, presentation or drawing. Nothing was kept.',
    )
  if (known.kind !== 'text' && known.kind !== 'presentation' && known.kind !== 'drawing')
    throw new PackageError(
      'not-opendocument',
      `This is an OpenDocument ${known.kind}; texts, presentations and drawings can be opened here. Nothing was kept.`,
    )

  const subdocument = (prefix: string, kind: ObjectKind): Subdocument => ({
    prefix,
    kind,
    content: open(`${prefix}content.xml`),
    styles: open(`${prefix}styles.xml`),
    settings: open(`${prefix}settings.xml`),
  })
  const subdocuments = [subdocument('', known.kind)]
  for (const object of listed.objects) subdocuments.push(subdocument(object.prefix, mimetypes[object.mimetype]!.kind))
  open('meta.xml')
  if (!subdocuments[0]!.content)
    throw new PackageError('damaged', 'The content of this document is empty. Nothing was kept.')
  return {
    kind: known.kind,
    template: known.template,
    container,
    parts,
    dropped: new Set(),
    written: new Map(),
    subdocuments,
    signed: container.byPath.has('META-INF/documentsignatures.xml'),
    title: titleOf(parts.get('meta.xml')),
  }
}

function titleOf(meta: XmlPart | undefined): string {
  if (!meta) return ''
  for (const element of meta.descendants()) if (element.name === 'dc:title') return meta.textOf(element.id).trim()
  return ''
}

/** The package as a file. A document without changes gives back the very bytes it was opened from. */
export function saveDocument(document: OdfDocument): Uint8Array {
  const changes = new Map<string, Uint8Array | null>()
  for (const path of document.dropped) changes.set(path, null)
  for (const [path, part] of document.parts) {
    if (!part.changed || document.dropped.has(path)) continue
    const written = writeXml(part)
    if (written !== part.source) changes.set(path, new TextEncoder().encode(written))
  }
  for (const [path, text] of document.written)
    if (!document.dropped.has(path)) changes.set(path, new TextEncoder().encode(text))
  return writeContainer(document.container, changes)
}

/** The part, which must be one that is parsed. */
export function partOf(document: OdfDocument, path: string): XmlPart {
  const part = document.parts.get(path)
  if (!part) throw new RangeError(`the document has no parsed part “${path}”`)
  return part
}

/** The document part of a subdocument that holds a path, for instance 'Object 1/' for 'Object 1/styles.xml'. */
export function subdocumentOf(document: OdfDocument, path: string): Subdocument {
  const owner = document.subdocuments.find(sub => sub.content === path || sub.styles === path || sub.settings === path)
  if (!owner) throw new RangeError(`no document or object has the part “${path}”`)
  return owner
}
