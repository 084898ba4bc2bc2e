import { manifestPath, openDocument, type DocumentKind } from '../../document/open'
import { writeContainer } from '../../package/container'
import { setAttributes } from '../../xml/edit'
import { writeXml } from '../../xml/write'
import { mimetypeOf } from './new-document'

/**
 * A document made from a template, or from another document: the same package, named as a document (ODF 1.4 part 2,
 * 3.3: the mimetype and the manifest's root entry say what a package is). Signatures do not hold for a copy and go.
 * @throws PackageError
 */
export function fromTemplate(bytes: Uint8Array): { readonly kind: DocumentKind; readonly bytes: Uint8Array } {
  const document = openDocument(bytes)
  const { kind, container } = document
  const changes = new Map<string, Uint8Array | null>()
  const encoder = new TextEncoder()
  if (document.template && container.byPath.has('mimetype')) changes.set('mimetype', encoder.encode(mimetypeOf[kind]))
  let manifest = document.parts.get(manifestPath)
  const root =
    manifest && [...manifest.elements(manifest.rootElement)].find(each => each.attributes['manifest:full-path'] === '/')
  if (manifest && root && root.attributes['manifest:media-type'] !== mimetypeOf[kind]) {
    manifest = setAttributes(manifest, root.id, { 'manifest:media-type': mimetypeOf[kind] })
    changes.set(manifestPath, encoder.encode(writeXml(manifest)))
  }
  if (document.signed) changes.set('META-INF/documentsignatures.xml', null)
  return { kind, bytes: changes.size === 0 ? bytes : writeContainer(container, changes) }
}
