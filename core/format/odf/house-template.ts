import { rulesPath } from '../../document/rules'
import { encodeStyleName } from '../../document/style-names'
import { colorOf, settingFor, settingsOf, type House, type Setting } from '../../house/house'
import { escapeXml, namespaces, writePackage } from '../../package/new-package'
import { slotAttributes, weightValue } from '../../style/properties'
import { fontAttributes, slots } from '../../document/font-attributes'
import { document, face, page } from './pieces'

/*
 * A house as an OpenDocument text template: a named paragraph style for each role, set as the house says it for texts, with
 * a line of each. What OpenDocument has no place for (decks, limits, stand-ins) does not go along.
 */

const points = (value: number) => `${Math.round(value * 1000) / 1000}pt`
const attributes = (values: Readonly<Record<string, string>>) =>
  Object.entries(values)
    .map(([name, value]) => `${name}="${escapeXml(value)}"`)
    .join(' ')

/** Leading as a length: percent of the size become one, the face's own stay a percentage (ODF 1.4 part 3, 20.197). */
function leadingOf({ leading, size }: Setting): Record<string, string> {
  if (!leading) return {}
  if (leading.unit === 'points') return { 'fo:line-height': points(leading.value) }
  return {
    'fo:line-height':
      leading.unit === 'percent' && size !== undefined ? points((leading.value * size) / 100) : `${leading.value}%`,
  }
}

function paragraphOf(setting: Setting): Record<string, string> {
  const { before, after, align } = setting
  return {
    ...leadingOf(setting),
    ...(before === undefined ? {} : { 'fo:margin-top': points(before) }),
    ...(after === undefined ? {} : { 'fo:margin-bottom': points(after) }),
    ...(align === undefined ? {} : { 'fo:text-align': align }),
  }
}

function textOf(house: House, setting: Setting): Record<string, string> {
  const { family, weight, italic, size, tracking, color, hyphenate, scripts } = setting
  const values: Record<string, string> = {}
  const families = { western: family, asian: scripts?.asian?.family, complex: scripts?.complex?.family }
  for (const slot of slots) {
    const names = slotAttributes[slot]
    if (families[slot] !== undefined) values[fontAttributes[slot].name] = families[slot]
    const factor = slot === 'western' ? 1 : (scripts?.[slot]?.factor ?? 1)
    if (size !== undefined) values[names.size] = points(size * factor)
    if (weight !== undefined) values[names.weight] = weightValue(weight)
    if (italic !== undefined) values[names.style] = italic ? 'italic' : 'normal'
  }
  if (tracking !== undefined && size !== undefined)
    values['fo:letter-spacing'] = tracking === 0 ? 'normal' : points((tracking / 1000) * size)
  if (setting.case !== undefined) {
    values['fo:text-transform'] = setting.case === 'small-caps' ? 'none' : setting.case
    values['fo:font-variant'] = setting.case === 'small-caps' ? 'small-caps' : 'normal'
  }
  const ink = colorOf(house, color)
  if (ink !== null) values['fo:color'] = ink
  if (hyphenate !== undefined) values['fo:hyphenate'] = String(hyphenate)
  return values
}

/** What a style says of a setting: its paragraph and text properties. Fonts are named by `houseFaces`. */
export const settingProperties = (house: House, setting: Setting): string =>
  `<style:paragraph-properties ${attributes(paragraphOf(setting))}/>` +
  `<style:text-properties ${attributes(textOf(house, setting))}/>`

/** The font faces that the settings of a house name, declared. */
export function houseFaces(house: House): string {
  const families = house.roles
    .flatMap(settingsOf)
    .flatMap(({ family, scripts }) => [family, scripts?.asian?.family, scripts?.complex?.family])
  return [...new Set(families)]
    .filter(each => each !== undefined)
    .map(family => face(escapeXml(family), 'swiss'))
    .join('')
}

/** A house as an OpenDocument text template (.ott). */
export function houseToTemplate(house: House): Uint8Array {
  const roles = house.roles.map(role => ({ role, setting: settingFor(house, role.id, 'text')! }))
  const faces = houseFaces(house)
  const name = (title: string) => escapeXml(encodeStyleName(title))
  const styles = roles
    .map(
      ({ role, setting }) =>
        `<style:style style:name="${name(role.title)}" style:display-name="${escapeXml(role.title)}" style:family="paragraph" ` +
        `style:parent-style-name="Standard">${settingProperties(house, setting)}</style:style>`,
    )
    .join('')
  const body = roles
    .map(({ role }) => `<text:p text:style-name="${name(role.title)}">${escapeXml(role.title)}</text:p>`)
    .join('\n')
  const rules = {
    styles: roles.map(({ role }) => ({
      style: { family: 'paragraph', name: encodeStyleName(role.title) },
      role: role.id,
    })),
  }
  return writePackage('application/vnd.oasis.opendocument.text-template', [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: document('content', `<office:body><office:text>\n${body}\n</office:text></office:body>`, faces),
    },
    {
      path: 'styles.xml',
      type: 'text/xml',
      content: document(
        'styles',
        `<office:styles><style:default-style style:family="paragraph"/>` +
          `<style:style style:name="Standard" style:family="paragraph"/>${styles}</office:styles><office:automatic-styles>` +
          page('pm1', 'fo:page-width="21cm" fo:page-height="29.7cm" fo:margin="2.5cm"') +
          `</office:automatic-styles><office:master-styles><style:master-page style:name="Standard" ` +
          `style:page-layout-name="pm1"/></office:master-styles>`,
        faces,
      ),
    },
    {
      path: 'meta.xml',
      type: 'text/xml',
      content:
        `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-meta${namespaces} office:version="1.3"><office:meta>` +
        `<dc:title>${escapeXml(house.name)}</dc:title></office:meta></office:document-meta>`,
    },
    { path: rulesPath, type: 'application/json', content: `${JSON.stringify(rules, null, 1)}\n` },
  ])
}
