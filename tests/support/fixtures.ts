import { namespaces, writePackage, type Part } from '../../core/package/new-package'
import { openDocument, type OdfDocument } from '../../core/document/open'
import { DocumentSession } from '../../core/session'
import { Shaper } from '../../core/typeset/shaper'
import { Typesetter } from '../../core/typeset/look'
import { startHarfBuzz } from '../../server/library/harfbuzz'
import { shippedLibrary } from '../../server/library/shipped'

const head = '<?xml version="1.0" encoding="UTF-8"?>\n'
export const odt = 'application/vnd.oasis.opendocument.text'

export interface Fixture {
  readonly body?: string
  readonly automatic?: string
  readonly faces?: string
  readonly styles?: string
  readonly stylesAutomatic?: string
  readonly masters?: string
  readonly stylesFaces?: string
  readonly parts?: readonly Part[]
  readonly objects?: readonly { path: string; type: string }[]
  readonly mimetype?: string
}

const faceDeclarations = (faces: string | undefined) =>
  `<office:font-face-decls>${faces ?? ''}</office:font-face-decls>`
export const face = (name: string, family = name, more = '') =>
  `<style:font-face style:name="${name}" svg:font-family="${family}"${more}/>`
export const paragraphStyle = (name: string, text = '', paragraph = '', more = '') =>
  `<style:style style:name="${name}" style:family="paragraph"${more}>` +
  `${paragraph && `<style:paragraph-properties ${paragraph}/>`}${text && `<style:text-properties ${text}/>`}</style:style>`
export const textStyle = (name: string, text: string, more = '') =>
  `<style:style style:name="${name}" style:family="text"${more}><style:text-properties ${text}/></style:style>`

/** A page of 10 by 10 cm with margins of 1 cm. */
export const smallPage =
  '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ' +
  'fo:page-height="10cm" fo:margin="1cm" style:num-format="1"/>' +
  '</style:page-layout>'
export const standardMaster = (inside = '') =>
  `<style:master-page style:name="Standard" style:page-layout-name="pm">${inside}</style:master-page>`

/** Settings that a document carries for whoever lays it out. */
export const settingsPart = (values: Record<string, string>): Part => ({
  path: 'settings.xml',
  type: 'text/xml',
  content:
    '<office:document-settings xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
    'xmlns:config="urn:oasis:names:tc:opendocument:xmlns:config:1.0"><office:settings><config:config-item-set>' +
    Object.entries(values)
      .map(([name, value]) => `<config:config-item config:name="${name}">${value}</config:config-item>`)
      .join('') +
    '</config:config-item-set></office:settings></office:document-settings>',
})

/** A small text document. */
export function makeOdt(fixture: Fixture): Uint8Array {
  const content =
    `${head}<office:document-content${namespaces} office:version="1.3">` +
    `${faceDeclarations(fixture.faces)}<office:automatic-styles>${fixture.automatic ?? ''}</office:automatic-styles>` +
    `<office:body><office:text>${fixture.body ?? '<text:p>Hello</text:p>'}</office:text>` +
    `</office:body></office:document-content>`
  const styles =
    `${head}<office:document-styles${namespaces} office:version="1.3">` +
    `${faceDeclarations(fixture.stylesFaces)}<office:styles>${fixture.styles ?? ''}</office:styles>` +
    `<office:automatic-styles>${fixture.stylesAutomatic ?? smallPage}</office:automatic-styles>` +
    `<office:master-styles>${fixture.masters ?? standardMaster()}</office:master-styles>` +
    `</office:document-styles>`
  return writePackage(
    fixture.mimetype ?? odt,
    [
      { path: 'content.xml', type: 'text/xml', content },
      { path: 'styles.xml', type: 'text/xml', content: styles },
      ...(fixture.parts ?? []),
    ],
    fixture.objects,
  )
}

export const openOdt = (fixture: Fixture): OdfDocument => openDocument(makeOdt(fixture))

const shipped = shippedLibrary()
export const library = shipped.library
export const typesetter = new Typesetter(library, new Shaper(startHarfBuzz(), shipped.load))
export const session = (bytes: Uint8Array): DocumentSession => DocumentSession.open(bytes, typesetter)
export const sessionOf = (fixture: Fixture): DocumentSession => session(makeOdt(fixture))

/** A small presentation or drawing: pages of 10 by 10 cm on a master without margins. */
export interface DrawingFixture {
  readonly kind?: 'presentation' | 'drawing'
  readonly pages: string
  readonly automatic?: string
  readonly styles?: string
  readonly masters?: string
  readonly stylesAutomatic?: string
  readonly before?: string
  readonly parts?: readonly Part[]
  readonly objects?: readonly { path: string; type: string }[]
}

export const drawnLayout =
  '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ' +
  'fo:page-height="10cm" fo:margin="0cm" style:num-format="1"/>' +
  '</style:page-layout>'
export const drawnMaster = (inside = '', name = 'M', more = '') =>
  `<style:master-page style:name="${name}" style:page-layout-name="pm"${more}>${inside}</style:master-page>`
/** A graphic style. */
export const graphicStyle = (name: string, graphic: string, text = '', paragraph = '', more = '', family = 'graphic') =>
  `<style:style style:name="${name}" style:family="${family}"${more}>` +
  (`<style:graphic-properties ${graphic}/>${paragraph && `<style:paragraph-properties ${paragraph}/>`}` +
    `${text && `<style:text-properties ${text}/>`}</style:style>`)
export const shapeAt = (x: number, y: number, width: number, height: number) =>
  `svg:x="${x}cm" svg:y="${y}cm" svg:width="${width}cm" svg:height="${height}cm"`
export const textFrame = (place: string, inside: string, more = '', box = '') =>
  `<draw:frame ${place} ${more}><draw:text-box${box}>${inside}</draw:text-box></draw:frame>`

export function makeDrawing(fixture: DrawingFixture): Uint8Array {
  const kind = fixture.kind ?? 'presentation'
  const body =
    kind === 'presentation'
      ? `<office:presentation>${fixture.before ?? ''}${fixture.pages}</office:presentation>`
      : `<office:drawing>${fixture.pages}</office:drawing>`
  const content =
    `${head}<office:document-content${namespaces} office:version="1.3">` +
    `${faceDeclarations(undefined)}<office:automatic-styles>${fixture.automatic ?? ''}</office:automatic-styles>` +
    `<office:body>${body}</office:body></office:document-content>`
  const styles =
    `${head}<office:document-styles${namespaces} office:version="1.3">${faceDeclarations(undefined)}<office:styles>` +
    `<style:default-style style:family="graphic"><style:graphic-properties draw:fill="none" ` +
    `draw:stroke="none"/><style:text-properties fo:font-family="Spectral" fo:font-size="10pt"/>` +
    (`</style:default-style>${fixture.styles ?? ''}</office:styles>` +
      `<office:automatic-styles>${drawnLayout}${fixture.stylesAutomatic ?? ''}</office:automatic-styles>`) +
    `<office:master-styles>${fixture.masters ?? drawnMaster()}</office:master-styles>` +
    `</office:document-styles>`
  return writePackage(
    `application/vnd.oasis.opendocument.${kind === 'presentation' ? 'presentation' : 'graphics'}`,
    [
      { path: 'content.xml', type: 'text/xml', content },
      { path: 'styles.xml', type: 'text/xml', content: styles },
      ...(fixture.parts ?? []),
    ],
    fixture.objects,
  )
}

export const drawnPage = (inside: string, more = '') =>
  `<draw:page draw:name="p" draw:master-page-name="M"${more}>${inside}</draw:page>`
export const drawingOf = (fixture: DrawingFixture): DocumentSession => session(makeDrawing(fixture))
