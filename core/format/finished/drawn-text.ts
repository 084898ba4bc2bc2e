import type { DisplayPage } from '../../typeset/display'
import { displayPage } from '../../typeset/display'
import type { Typesetter } from '../../typeset/look'
import { DocumentSession } from '../../session'
import { escapeXml, writePackage } from '../../package/new-package'
import { document, face, page, style } from '../odf/pieces'

/** A stretch of text that one family sets. */
export interface SetStretch {
  readonly text: string
  readonly family: string
}

/** Text to be set and put on a page of a finished PDF. Lengths in points. */
export interface AddedText {
  readonly text: string
  readonly family: string
  readonly size: number
  /** From baseline to baseline; null as the face has it. */
  readonly leading: number | null
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

/** A family, said for all three slots. */
const named = (family: string) => {
  const name = escapeXml(family)
  return `style:font-name="${name}" style:font-name-asian="${name}" style:font-name-complex="${name}" `
}

/**
 * Text as it is set: by the same engine as any document, on a sheet of its own.
 * @param stretches the text, cut where another family sets it
 */
export async function setText(
  added: AddedText,
  stretches: readonly SetStretch[],
  typesetter: Typesetter,
): Promise<DisplayPage> {
  const { family, size, weight, italic, color, width, leading } = added
  const [language, country] = added.language.split('-')
  const type =
    `<style:text-properties ${named(family)}` +
    `${slotted('size', `${size}pt`)}${slotted('weight', String(weight))}${slotted('style', italic ? 'italic' : 'normal')}` +
    `fo:color="${color}" style:letter-kerning="true"` +
    `${language ? ` fo:language="${escapeXml(language)}" fo:country="${escapeXml(country ?? 'none')}"` : ''}/>`
  const families = [...new Set([family, ...stretches.map(each => each.family)])]
  const lines = stretches
    .map(each =>
      each.text
        .split('\n')
        .map(
          part =>
            part &&
            `<text:span text:style-name="T${families.indexOf(each.family)}">${spaced(escapeXml(part))}</text:span>`,
        )
        .join('</text:p><text:p text:style-name="P">'),
    )
    .join('')
  const wide = width ?? 5000
  const faces = families.map(each => face(escapeXml(each), 'swiss')).join('')
  const body =
    `<draw:page draw:name="Sheet" draw:master-page-name="M"><draw:frame draw:style-name="F" svg:x="0pt" svg:y="0pt" ` +
    `svg:width="${wide}pt" svg:height="1pt"><draw:text-box><text:p text:style-name="P">${lines}</text:p></draw:text-box>` +
    `</draw:frame></draw:page>`
  const automatic =
    style(
      'P',
      'paragraph',
      `<style:paragraph-properties fo:margin="0pt" fo:text-align="start"` +
        `${leading === null ? '' : ` fo:line-height="${leading}pt"`}/>${type}`,
    ) +
    families.map((each, at) => style(`T${at}`, 'text', `<style:text-properties ${named(each)}/>`)).join('') +
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

/** Spaces that a reader of the format would take for one (ODF 1.4 part 3, 6.1.2), each as it was typed. */
const spaced = (text: string): string => text.replace(/^ +| {2,}| +$/g, spaces => `<text:s text:c="${spaces.length}"/>`)
