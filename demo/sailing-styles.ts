import { namespaces } from '../core/package/new-package'

const face = (name: string, generic: string, more = '') =>
  `<style:font-face style:name="${name}" svg:font-family="${name.includes(' ') ? `&apos;${name}&apos;` : name}" ` +
  `style:font-family-generic="${generic}" style:font-pitch="variable"${more}/>`

/** Faces of the house, the two that are absent, and the signs of its bullets. */
export const declarations =
  `<office:font-face-decls>${face('Spectral', 'roman')}${face('Spectral SemiBold', 'roman')}` +
  `${face('Jost', 'swiss')}${face('Jost Medium', 'swiss')}${face('Zen Kaku Gothic New', 'system')}` +
  `${face('Skerrow', 'swiss')}${face('Ovrelund Light', 'roman')}` +
  `${face('OpenSymbol', 'system', ' style:font-charset="x-symbol"')}</office:font-face-decls>`

const style = (name: string, family: string, inside: string, attributes = '') =>
  `<style:style style:name="${name.replace(/ /g, '_20_')}"${name.includes(' ') ? ` style:display-name="${name}"` : ''} ` +
  `style:family="${family}"${attributes}>${inside}</style:style>`
const parent = (name: string) => ` style:parent-style-name="${name.replace(/ /g, '_20_')}"`
const paragraph = (attributes: string) => `<style:paragraph-properties ${attributes}/>`
const text = (attributes: string) => `<style:text-properties ${attributes}/>`

/** Styles by hand: the strays, twins and the lone space. */
export const automaticStyles = [
  style('P1', 'paragraph', paragraph('fo:break-before="page"'), parent('Heading 1')),
  style('P2', 'paragraph', text('fo:font-size="10pt"'), parent('Body')),
  style('T1', 'text', text('style:font-name="Skerrow" fo:font-size="9.5pt"')),
  style('T2', 'text', text('style:font-name="Spectral SemiBold"')),
  style('T3', 'text', text('fo:letter-spacing="-0.1pt"')),
  style('T4', 'text', text('fo:font-size="9.8pt"')),
  style('T5', 'text', text('style:font-name="Ovrelund Light"')),
  style(
    'fr1',
    'graphic',
    '<style:graphic-properties style:wrap="none" style:vertical-pos="from-top" style:vertical-rel="paragraph" ' +
      'style:horizontal-pos="left" style:horizontal-rel="paragraph" fo:padding="0.2cm" fo:border="0.8pt ' +
      'solid #1b2430"/>',
    parent('Frame'),
  ),
  style(
    'fr2',
    'graphic',
    '<style:graphic-properties style:vertical-pos="top" style:vertical-rel="baseline"/>',
    parent('Graphics'),
  ),
  style(
    'Table1',
    'table',
    '<style:table-properties style:width="9cm" table:align="left" fo:margin-top="0.15cm" fo:margin-bottom="0.3cm"/>',
  ),
  style('Column first', 'table-column', '<style:table-column-properties style:column-width="3.9cm"/>'),
  style('Column', 'table-column', '<style:table-column-properties style:column-width="1.7cm"/>'),
  style(
    'Cell',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.06cm" fo:border-bottom="0.4pt solid #d9d4c7"/>',
  ),
  style(
    'Cell head',
    'table-cell',
    '<style:table-cell-properties fo:padding="0.06cm" fo:border-bottom="0.8pt solid #1b2430"/>',
  ),
].join('')

const named = [
  // What new text starts with still names the retired face.
  `<style:default-style style:family="paragraph">${paragraph('fo:hyphenation-ladder-count="no-limit" style:tab-stop-distance="1cm"')}` +
    `${text(
      'style:font-name="Skerrow" fo:font-size="10pt" fo:language="en" fo:country="GB" style:letter-kerning="true" ' +
        'style:font-name-asian="Zen Kaku Gothic New" style:font-size-asian="9.5pt" style:language-asian="ja" ' +
        'style:country-asian="JP" style:font-name-complex="Spectral" style:font-size-complex="10pt"',
    )}</style:default-style>`,
  `<style:default-style style:family="graphic">${text('style:font-name="Skerrow" fo:font-size="10pt"')}</style:default-style>`,
  style('Standard', 'paragraph', text('style:font-name="Spectral" fo:font-size="10.2pt"')),
  style(
    'Body',
    'paragraph',
    paragraph('fo:line-height="14.4pt" fo:text-align="justify" fo:text-indent="0.4cm" fo:widows="2" fo:orphans="2"') +
      text('fo:hyphenate="true" fo:color="#1b2430"'),
    parent('Standard'),
  ),
  style('Item', 'paragraph', paragraph('fo:text-align="start" fo:text-indent="0cm"'), parent('Body')),
  style(
    'Lead',
    'paragraph',
    paragraph(
      'fo:line-height="17.5pt" fo:text-align="start" fo:text-indent="0cm" fo:margin-bottom="0.2cm" fo:keep-with-next="always"',
    ) + text('fo:font-size="13pt" fo:font-style="italic" fo:hyphenate="false"'),
    parent('Body'),
  ),
  style(
    'Heading 1',
    'paragraph',
    paragraph('fo:line-height="27pt" fo:margin-bottom="0.2cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="25pt" fo:color="#1b2430"'),
    `${parent('Standard')} style:next-style-name="Lead" style:default-outline-level="1"`,
  ),
  style(
    'Heading 2',
    'paragraph',
    paragraph('fo:line-height="15pt" fo:margin-top="0.32cm" fo:margin-bottom="0.05cm" fo:keep-with-next="always"') +
      text('style:font-name="Jost Medium" fo:font-size="12pt" fo:color="#1b2430"'),
    `${parent('Standard')} style:next-style-name="Body" style:default-outline-level="2"`,
  ),
  style(
    'Notice',
    'paragraph',
    paragraph('fo:line-height="13pt"') + text('style:font-name="Skerrow" fo:font-size="9.5pt"'),
    parent('Standard'),
  ),
  style(
    'Timetable',
    'paragraph',
    paragraph('fo:line-height="12.5pt"') + text('style:font-name="Jost" fo:font-size="9pt"'),
    parent('Standard'),
  ),
  style('Timetable figures', 'paragraph', paragraph('fo:text-align="end"'), parent('Timetable')),
  style('Footnote', 'paragraph', paragraph('fo:line-height="11pt"') + text('fo:font-size="8.5pt"'), parent('Standard')),
  style(
    'Header',
    'paragraph',
    paragraph('fo:text-align="start"') + text('style:font-name="Jost" fo:font-size="8pt" fo:color="#5b6470"'),
    parent('Standard'),
  ),
  style('Footer', 'paragraph', paragraph('fo:text-align="center"'), parent('Header')),
  style('Ship name', 'text', text('fo:font-style="italic"')),
  style('Column head', 'text', text('style:font-name="Jost Medium"')),
  style('Welcome Japanese', 'text', text('style:font-name-asian="Zen Kaku Gothic New" style:font-size-asian="9.5pt"')),
  style('Bullet signs', 'text', text('style:font-name="OpenSymbol"')),
  style('Frame', 'graphic', ''),
  style('Graphics', 'graphic', ''),
  `<text:list-style style:name="Dots"><text:list-level-style-bullet text:level="1" ` +
    `text:style-name="Bullet_20_signs" text:bullet-char="•"><style:list-level-properties ` +
    `text:list-level-position-and-space-mode="label-alignment"><style:list-level-label-alignment ` +
    `text:label-followed-by="listtab" text:list-tab-stop-position="0.5cm" fo:text-indent="-0.5cm" ` +
    `fo:margin-left="0.5cm"/></style:list-level-properties></text:list-level-style-bullet>` +
    `</text:list-style>`,
].join('')

/** styles.xml: the house style with its page. */
export const sailingStyles =
  `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-styles${namespaces} ` +
  `office:version="1.3">${declarations}<office:styles>${named}</office:styles>` +
  ('<office:automatic-styles><style:page-layout style:name="pm1">' +
    '<style:page-layout-properties fo:page-width="12.2cm" fo:page-height="17.2cm" style:print-orientation="portrait" ' +
    'fo:margin-top="1.2cm" fo:margin-bottom="1.1cm" fo:margin-left="1.6cm" fo:margin-right="1.6cm" ' +
    'style:num-format="1"/>') +
  ('<style:header-style><style:header-footer-properties fo:min-height="1.2cm" fo:margin-bottom="0.7cm"/>' +
    '</style:header-style><style:footer-style><style:header-footer-properties fo:min-height="1cm" ' +
    'fo:margin-top="0.5cm"/></style:footer-style></style:page-layout>' +
    '</office:automatic-styles>') +
  ('<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="pm1">' +
    '<style:header><text:p text:style-name="Header">Saltmere Line, sailing guide</text:p>' +
    '</style:header><style:footer><text:p text:style-name="Footer">' +
    '<text:page-number text:select-page="current">1</text:page-number>' +
    '</text:p></style:footer></style:master-page></office:master-styles>' +
    '</office:document-styles>')
