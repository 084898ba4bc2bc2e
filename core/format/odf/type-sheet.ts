import { contrast } from '../../colour/contrast'
import { settingFor, type House, type HouseColor, type Medium } from '../../house/house'
import { sampleFor } from '../../house/samples'
import { limitWords, mediumPhrases, settingWords } from '../../house/setting-words'
import { escapeXml, writePackage } from '../../package/new-package'
import { houseFaces, settingProperties } from './house-template'
import { mimetypeOf } from './new-document'
import { document, page, paragraph, style, text } from './pieces'

/*
 * A house as a sheet of paper for those who have no desk: every role in itself at true size, with how it is set beside it,
 * then the palette, the faces and the limits.
 */

const white = '#ffffff'
const ink = '#1b2430'

/** Widths of the palette's columns, in centimetres: swatch, title, value, contrast, inks. */
const columns = [1.6, 3.2, 2, 3.6, 6.6] as const

/** Running text for roles that are read, so that leading and colour show. */
const reading =
  'Two boats a day go to every pier of the outer islands while the post and the weather allow it. Whoever waits at a ' +
  'pier box raises the flag; the boat that sees it answers with one long sound, and comes alongside.'
const isRead = (role: string) => role === 'body' || role === 'note' || role === 'lead'

const line = (styleName: string, words: string) => `<text:p text:style-name="${styleName}">${escapeXml(words)}</text:p>`

function inkWords({ ink: values }: HouseColor): string {
  if (!values) return ''
  return 'spot' in values ? values.spot : `cyan, magenta, yellow, black ${values.process.join(', ')} %`
}

function paletteTable(palette: readonly HouseColor[], ground: string): string {
  const cell = (inside: string, styleName = 'plain') =>
    `<table:table-cell table:style-name="${styleName}" office:value-type="string">${inside}</table:table-cell>`
  const rows = palette.map(({ id, title, color, does, ...each }) => {
    const against = does === 'ground' ? 'ground' : `${contrast(color, ground).toFixed(1)} : 1 on the ground`
    const more = inkWords({ id, title, color, does, ...each })
    return (
      `<table:table-row>${cell('<text:p text:style-name="label"/>', `c-${id}`)}` +
      [title, color, against, more].map(words => cell(line('label', words))).join('') +
      '</table:table-row>'
    )
  })
  return (
    '<table:table table:name="Palette" table:style-name="palette">' +
    columns.map((_, at) => `<table:table-column table:style-name="w${at}"/>`).join('') +
    `${rows.join('')}</table:table>`
  )
}

/** The automatic styles of the sheet: labels in the desk's own face, roles as the house says, cells in its colours. */
function stylesOf(house: House, roles: readonly Shown[], ground: string): string {
  const soft = contrast(ink, ground) >= contrast(white, ground) ? '#5b6470' : '#d5dae0'
  const strong = soft === '#5b6470' ? ink : white
  const own = (name: string, size: number, color: string, space: string) =>
    style(
      name,
      'paragraph',
      paragraph(space) + text(`fo:font-family="'Instrument Sans'" fo:font-size="${size}pt" fo:color="${color}"`),
    )
  return (
    own('head', 15, strong, 'fo:margin-bottom="2pt"') +
    own('label', 8, soft, 'fo:margin-top="0pt"') +
    own('said', 8, soft, 'fo:margin-top="12pt" fo:margin-bottom="2pt" fo:keep-with-next="always"') +
    own('part', 11, strong, 'fo:margin-top="20pt" fo:margin-bottom="4pt" fo:keep-with-next="always"') +
    roles.map(({ setting }, at) => style(`r${at}`, 'paragraph', settingProperties(house, setting))).join('') +
    house.palette
      .map(({ id, color }) =>
        style(
          `c-${id}`,
          'table-cell',
          `<style:table-cell-properties fo:background-color="${color}" fo:padding="4pt" fo:border="0.5pt solid ${soft}"/>`,
        ),
      )
      .join('') +
    style('plain', 'table-cell', '<style:table-cell-properties fo:padding="4pt"/>') +
    style('palette', 'table', '<style:table-properties style:width="17cm" table:align="left"/>') +
    columns
      .map((width, at) =>
        style(`w${at}`, 'table-column', `<style:table-column-properties style:column-width="${width}cm"/>`),
      )
      .join('')
  )
}

type Shown = ReturnType<typeof shownRoles>[number]

/** The roles of a house in a medium; in decks those of deeper levels, too. */
function shownRoles(house: House, medium: Medium) {
  return house.roles.flatMap(role => {
    const levels = medium === 'deck' ? role.levels.length + 1 : 1
    return Array.from({ length: levels }, (_, at) => ({
      role,
      title: at === 0 ? role.title : `${role.title}, level ${at + 1}`,
      setting: settingFor(house, role.id, medium, at + 1)!,
    }))
  })
}

/**
 * The type sheet of a house for a medium as an OpenDocument text, to be set as PDF.
 * @param said which state of the house it shows: “version 3, issued 4 May”
 */
export function makeTypeSheet(house: House, medium: Medium, said: string): Uint8Array {
  const ground = house.palette.find(each => each.does === 'ground')?.color ?? white
  const roles = shownRoles(house, medium)
  const phrase = mediumPhrases.find(([each]) => each === medium)![1]
  const limits = limitWords(house.limits, medium)
  const faces = house.faces.map(({ family, uses }) => (uses.length > 0 ? `${family} (${uses.join(', ')})` : family))
  const body = [
    line('head', house.name),
    line('label', `How type is set ${phrase}; ${said}`),
    ...(house.note === '' ? [] : [line('label', house.note)]),
    ...roles.flatMap(({ role, title, setting }, at) => [
      line('said', `${title}: ${settingWords(house, setting) || 'left open'}`),
      line(`r${at}`, isRead(role.id) && medium === 'text' ? reading : sampleFor(role)),
    ]),
    ...(house.palette.length === 0 ? [] : [line('part', 'Palette'), paletteTable(house.palette, ground)]),
    ...(faces.length === 0 ? [] : [line('part', 'Faces'), line('label', faces.join(' · '))]),
    ...(limits.length === 0 ? [] : [line('part', 'Limits'), line('label', limits.join(' · '))]),
  ].join('\n')
  const layout = `fo:page-width="210mm" fo:page-height="297mm" fo:margin="20mm" fo:background-color="${ground}"`
  return writePackage(mimetypeOf.text, [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: document(
        'content',
        `<office:automatic-styles>${stylesOf(house, roles, ground)}</office:automatic-styles>` +
          `<office:body><office:text>\n${body}\n</office:text></office:body>`,
        houseFaces(house),
      ),
    },
    {
      path: 'styles.xml',
      type: 'text/xml',
      content: document(
        'styles',
        `<office:automatic-styles>${page('pm1', layout)}</office:automatic-styles><office:master-styles>` +
          `<style:master-page style:name="Standard" style:page-layout-name="pm1"/></office:master-styles>`,
        '',
      ),
    },
  ])
}
