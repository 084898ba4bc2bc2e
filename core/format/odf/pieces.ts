import { namespaces } from '../../package/new-package'

/** Pieces of OpenDocument XML that new documents are written with. Style names may have spaces. */
export const encoded = (name: string) => name.replace(/ /g, '_20_')

export const face = (name: string, generic: string) =>
  `<style:font-face style:name="${name}" svg:font-family="${name.includes(' ') ? `&apos;${name}&apos;` : name}" ` +
  `style:font-family-generic="${generic}" style:font-pitch="variable"/>`
export const paragraph = (attributes: string) => `<style:paragraph-properties ${attributes}/>`
export const text = (attributes: string) => `<style:text-properties ${attributes}/>`

export function style(name: string, family: string, inside: string, parent = '', attributes = ''): string {
  return (
    `<style:style style:name="${encoded(name)}"${name.includes(' ') ? ` style:display-name="${name}"` : ''} ` +
    `style:family="${family}"${parent ? ` style:parent-style-name="${encoded(parent)}"` : ''}${attributes}>${inside}</style:style>`
  )
}

export function page(name: string, properties: string, attributes = '', inside = '', after = ''): string {
  return (
    `<style:page-layout style:name="${name}"${attributes}><style:page-layout-properties ${properties} ` +
    `style:print-orientation="portrait" style:num-format="1">${inside}</style:page-layout-properties>${after}</style:page-layout>`
  )
}

/** A whole part: content or styles. */
export function document(kind: 'content' | 'styles', inside: string, faces: string): string {
  return (
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-${kind}${namespaces} ` +
    `office:version="1.3"><office:font-face-decls>${faces}</office:font-face-decls>${inside}</office:document-${kind}>`
  )
}
