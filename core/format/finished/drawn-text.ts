import type { DisplayPage } from '../../typeset/display'
import { displayPage } from '../../typeset/display'
import type { Typesetter } from '../../typeset/look'
import { DocumentSession } from '../../session'
import { escapeXml, writePackage } from '../../package/new-package'
import { document, face, page, style } from '../odf/pieces'

/** Text to be set and put on a page of a finished PDF. Lengths in points. */
export interface AddedText {
  readonly text: string
  readonly family: string
  readonly size: number
  readonly weight: number
  readonly italic: boolean
  /** #rrggbb */
  readonly color: string
  /** Where its lines end, at the latest; null for one line. */
  readonly width: number | null
  /** BCP 47, '' where it is not told. */
  readonly language: string
}

/** A property of fonts, said for all three slots. */
const slotted = (property: string, value: string) =>
  `fo:font-${property}="${value}" style:font-${property}-asian="${value}" style:font-${property}-complex="${value}" `

/** Text as it is set: by the same engine as any document, on a sheet of its own. */
export async function setText(added: AddedText, typesetter: Typesetter): Promise<DisplayPage> {
  const { text, family, size, weight, italic, color, width } = added
  const name = escapeXml(family)
  const [language, country] = added.language.split('-')
  const type =
    `<style:text-properties style:font-name="${name}" style:font-name-asian="${name}" style:font-name-complex="${name}" ` +
    `${slotted('size', `${size}pt`)}${slotted('weight', String(weight))}${slotted('style', italic ? 'italic' : 'normal')}` +
    `fo:color="${color}" style:letter-kerning="true"` +
    `${language ? ` fo:language="${escapeXml(language)}" fo:country="${escapeXml(country ?? 'none')}"` : ''}/>`
  const lines = text.split('\n').map(line => `<text:p text:style-name="P">${escapeXml(line)}</text:p>`)
  const wide = width ?? 5000
  const faces = face(escapeXml(family), 'swiss')
  const body =
    `<draw:page draw:name="Sheet" draw:master-page-name="M"><draw:frame draw:style-name="F" svg:x="0pt" svg:y="0pt" ` +
    `svg:width="${wide}pt" svg:height="1pt"><draw:text-box>${lines.join('')}</draw:text-box></draw:frame></draw:page>`
  const automatic =
    style('P', 'paragraph', `<style:paragraph-properties fo:margin="0pt" fo:text-align="left"/>${type}`) +
    style(
      'F',
      'graphic',
      '<style:graphic-properties draw:stroke="none" draw:fill="none" fo:padding="0pt" draw:auto-grow-height="true" ' +
        'draw:auto-grow-width="false" draw:textarea-vertical-align="top"/>',
    )
  const bytes = writePackage('application/vnd.oasis.opendocument.graphics', [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: document(
        'content',
        `<office:automatic-styles>${automatic}</office:automatic-styles><office:body><office:drawing>${body}</office:drawing>` +
          '</office:body>',
        faces,
      ),
    },
    {
      path: 'styles.xml',
      type: 'text/xml',
      content: document(
        'styles',
        `<office:styles/><office:automatic-styles>${page('pm', `fo:page-width="${wide}pt" fo:page-height="5000pt" fo:margin="0pt"`)}` +
          `</office:automatic-styles><office:master-styles><style:master-page style:name="M" style:page-layout-name="pm"/>` +
          `</office:master-styles>`,
        faces,
      ),
    },
  ])
  const session = await DocumentSession.start(bytes, typesetter)
  return displayPage(session.composition.pages[0]!)
}
