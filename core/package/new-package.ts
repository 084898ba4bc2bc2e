import { zipSync, type Zippable } from 'fflate'

/** Namespaces of new parts (OpenDocument 1.3 part 3, 1.4). */
export const namespaces =
  Object.entries({
    office: 'office',
    style: 'style',
    text: 'text',
    table: 'table',
    draw: 'drawing',
    fo: 'xsl-fo-compatible',
    svg: 'svg-compatible',
    meta: 'meta',
    chart: 'chart',
    number: 'datastyle',
    presentation: 'presentation',
  })
    .map(([prefix, name]) => ` xmlns:${prefix}="urn:oasis:names:tc:opendocument:xmlns:${name}:1.0"`)
    .join('') + ' xmlns:xlink="http://www.w3.org/1999/xlink" xmlns:dc="http://purl.org/dc/elements/1.1/"'

export const escapeXml = (text: string) =>
  text.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;').replace(/"/g, '&quot;')

/** One part of a package to write. */
export interface Part {
  readonly path: string
  readonly type: string
  readonly content: string | Uint8Array
}

/**
 * Writes an OpenDocument package (part 2, section 2): the mimetype first and stored. The same parts give the same
 * bytes.
 */
export function writePackage(
  mimetype: string,
  parts: readonly Part[],
  objects: readonly { path: string; type: string }[] = [],
): Uint8Array {
  const encoder = new TextEncoder()
  const entries = [{ path: '/', type: mimetype }, ...objects, ...parts]
  const manifest =
    `<?xml version="1.0" encoding="UTF-8"?>\n<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0" ` +
    `manifest:version="1.3">\n${entries
      .map(
        entry =>
          ` <manifest:file-entry manifest:full-path="${entry.path}"${entry.path === '/' ? ' manifest:version="1.3"' : ''} ` +
          `manifest:media-type="${entry.type}"/>`,
      )
      .join('\n')}\n</manifest:manifest>\n`
  const mtime = new Date(2026, 2, 1, 8, 0, 0)
  const files: Zippable = { mimetype: [encoder.encode(mimetype), { level: 0, mtime }] }
  for (const { path, content } of parts)
    files[path] = [typeof content === 'string' ? encoder.encode(content) : content, { level: 6, mtime }]
  files['META-INF/manifest.xml'] = [encoder.encode(manifest), { level: 6, mtime }]
  return zipSync(files)
}
