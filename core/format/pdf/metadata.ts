/** What a PDF says of itself, as XMP (ISO 16684-1). */
export interface Metadata {
  readonly title: string
  readonly language: string
  /** Milliseconds since 1970. */
  readonly made: number
  /** It keeps what PDF/UA-1 (ISO 14289-1, 5) asks for. */
  readonly accessible: boolean
  /** It keeps what PDF/X-4 (ISO 15930-7, 6.19) asks for. */
  readonly print: boolean
  /** Two versions of one document differ in it, two writings of one version do not. */
  readonly identifier: string
}

const escaped = (text: string) =>
  text
    .replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '')
    .replace(/&/g, '&amp;')
    .replace(/</g, '&lt;')
    .replace(/>/g, '&gt;')

/** The metadata as a packet. */
export function metadataPacket({ title, language, made, accessible, print, identifier }: Metadata): string {
  const when = new Date(made).toISOString().replace(/\.\d+Z/, 'Z')
  const facts = [
    `<dc:format>application/pdf</dc:format>`,
    `<dc:title><rdf:Alt><rdf:li xml:lang="x-default">${escaped(title)}</rdf:li></rdf:Alt></dc:title>`,
    ...(language ? [`<dc:language><rdf:Bag><rdf:li>${escaped(language)}</rdf:li></rdf:Bag></dc:language>`] : []),
    `<xmp:CreatorTool>Morphene</xmp:CreatorTool>`,
    `<xmp:CreateDate>${when}</xmp:CreateDate>`,
    `<xmp:ModifyDate>${when}</xmp:ModifyDate>`,
    `<xmp:MetadataDate>${when}</xmp:MetadataDate>`,
    `<pdf:Producer>Morphene</pdf:Producer>`,
    `<xmpMM:DocumentID>uuid:${identifier}</xmpMM:DocumentID>`,
    `<xmpMM:VersionID>1</xmpMM:VersionID>`,
    `<xmpMM:RenditionClass>default</xmpMM:RenditionClass>`,
    ...(accessible ? [`<pdfuaid:part>1</pdfuaid:part>`] : []),
    ...(print ? [`<pdfxid:GTS_PDFXVersion>PDF/X-4</pdfxid:GTS_PDFXVersion>`, `<pdf:Trapped>False</pdf:Trapped>`] : []),
  ]
  return (
    `<?xpacket begin="\uFEFF" id="W5M0MpCehiHzreSzNTczkc9d"?>\n` +
    `<x:xmpmeta xmlns:x="adobe:ns:meta/"><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#">` +
    `<rdf:Description rdf:about="" xmlns:dc="http://purl.org/dc/elements/1.1/" ` +
    `xmlns:xmp="http://ns.adobe.com/xap/1.0/" xmlns:pdf="http://ns.adobe.com/pdf/1.3/" ` +
    `xmlns:xmpMM="http://ns.adobe.com/xap/1.0/mm/" xmlns:pdfuaid="http://www.aiim.org/pdfua/ns/id/" ` +
    `xmlns:pdfxid="http://www.npes.org/pdfx/ns/id/">\n${facts.join('\n')}\n</rdf:Description></rdf:RDF></x:xmpmeta>\n` +
    `<?xpacket end="r"?>`
  )
}
