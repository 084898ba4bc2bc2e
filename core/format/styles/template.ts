import { manifestPath, type DocumentKind, type OdfDocument } from '../../document/open'
import { rulesPath } from '../../document/rules'
import { escapeXml, namespaces, writePackage, type Part } from '../../package/new-package'
import { partBytes } from '../../package/container'
import { writeXml } from '../../xml/write'
import { mimetypeOf } from '../odf/new-document'

/** What stands where a document's own text stood. */
const emptyBody: Readonly<Record<DocumentKind, (master: string) => string>> = {
  text: () => '<office:text><text:p/></office:text>',
  presentation: master => `<office:presentation>${emptyPage(master)}</office:presentation>`,
  drawing: master => `<office:drawing>${emptyPage(master)}</office:drawing>`,
}
const emptyPage = (master: string) => `<draw:page draw:name="Page 1" draw:master-page-name="${escapeXml(master)}"/>`

/**
 * The styles of a document alone, as an OpenDocument template: named styles, defaults, masters with what stands on them, the
 * document's own rules, and font files that it carries. Its text, pictures and objects stay behind.
 */
export function stylesTemplate(document: OdfDocument): Uint8Array {
  const { container, kind } = document
  const types = new Map<string, string>()
  const manifest = document.parts.get(manifestPath)
  if (manifest)
    for (const entry of manifest.descendants())
      types.set(entry.attributes['manifest:full-path'] ?? '', entry.attributes['manifest:media-type'] ?? '')
  const { styles: stylesPath } = document.subdocuments[0]!
  const styles = stylesPath ? document.parts.get(stylesPath)! : null
  const masters = styles?.first(styles.rootElement, 'office:master-styles')
  const first = masters && [...styles!.elements(masters, 'style:master-page')][0]
  const named = new Set(styles ? [...styles.descendants()].flatMap(each => each.attributes['xlink:href'] ?? []) : [])
  const parts: Part[] = [
    {
      path: 'content.xml',
      type: 'text/xml',
      content:
        `<?xml version="1.0" encoding="UTF-8"?>\n` +
        `<office:document-content${namespaces} office:version="1.3"><office:automatic-styles/><office:body>` +
        `${emptyBody[kind](first?.attributes['style:name'] ?? 'Standard')}</office:body></office:document-content>`,
    },
    ...(styles ? [{ path: 'styles.xml', type: 'text/xml', content: writeXml(styles) }] : []),
    {
      path: 'meta.xml',
      type: 'text/xml',
      content:
        `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3"><office:meta>` +
        `<dc:title>${escapeXml(document.title)}</dc:title></office:meta></office:document-meta>`,
    },
  ]
  for (const { path } of container.entries) {
    const goes = path === 'settings.xml' || path === rulesPath || path.startsWith('Fonts/') || isNamed(named, path)
    if (goes && !path.endsWith('/') && !document.dropped.has(path))
      parts.push({
        path,
        type: types.get(path) ?? '',
        content: document.written.get(path) ?? partBytes(container, path).slice(),
      })
  }
  return writePackage(`${mimetypeOf[kind]}-template`, parts)
}

const isNamed = (named: ReadonlySet<string>, path: string) => named.has(path) || named.has(`./${path}`)
