/**
 * Namespaces of OpenDocument 1.4 part 3 section 1.4 and of the standards it builds on, with the prefix under which
 * core speaks of them. A file may bind other prefixes: names are told apart by namespace, never by prefix.
 */
const prefixOf = new Map<string, string>([
  ['urn:oasis:names:tc:opendocument:xmlns:office:1.0', 'office'],
  ['urn:oasis:names:tc:opendocument:xmlns:style:1.0', 'style'],
  ['urn:oasis:names:tc:opendocument:xmlns:text:1.0', 'text'],
  ['urn:oasis:names:tc:opendocument:xmlns:table:1.0', 'table'],
  ['urn:oasis:names:tc:opendocument:xmlns:drawing:1.0', 'draw'],
  ['urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0', 'fo'],
  ['urn:oasis:names:tc:opendocument:xmlns:svg-compatible:1.0', 'svg'],
  ['urn:oasis:names:tc:opendocument:xmlns:meta:1.0', 'meta'],
  ['urn:oasis:names:tc:opendocument:xmlns:datastyle:1.0', 'number'],
  ['urn:oasis:names:tc:opendocument:xmlns:chart:1.0', 'chart'],
  ['urn:oasis:names:tc:opendocument:xmlns:dr3d:1.0', 'dr3d'],
  ['urn:oasis:names:tc:opendocument:xmlns:form:1.0', 'form'],
  ['urn:oasis:names:tc:opendocument:xmlns:script:1.0', 'script'],
  ['urn:oasis:names:tc:opendocument:xmlns:config:1.0', 'config'],
  ['urn:oasis:names:tc:opendocument:xmlns:presentation:1.0', 'presentation'],
  ['urn:oasis:names:tc:opendocument:xmlns:animation:1.0', 'anim'],
  ['urn:oasis:names:tc:opendocument:xmlns:database:1.0', 'db'],
  ['urn:oasis:names:tc:opendocument:xmlns:manifest:1.0', 'manifest'],
  ['urn:oasis:names:tc:opendocument:xmlns:digitalsignature:1.0', 'dsig'],
  ['http://purl.org/dc/elements/1.1/', 'dc'],
  ['http://www.w3.org/1999/xlink', 'xlink'],
  ['http://www.w3.org/1998/Math/MathML', 'math'],
  ['http://www.w3.org/XML/1998/namespace', 'xml'],
  ['http://www.w3.org/1999/xhtml', 'xhtml'],
])

const namespaceOf = new Map([...prefixOf].map(([uri, prefix]) => [prefix, uri]))

/**
 * The name under which core speaks of an element or attribute: `style:name`, or `{uri}name` for a foreign
 * namespace.
 */
export function canonicalName(uri: string, local: string): string {
  if (uri === '') return local
  const prefix = prefixOf.get(uri)
  return prefix === undefined ? `{${uri}}${local}` : `${prefix}:${local}`
}

/** The namespace behind one of core's prefixes. */
export function namespaceFor(prefix: string): string {
  const uri = namespaceOf.get(prefix)
  if (uri === undefined) throw new Error(`no namespace is known for the prefix “${prefix}”`)
  return uri
}
