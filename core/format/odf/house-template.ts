import { rulesPath } from '../../document/rules'
import { encodeStyleName } from '../../document/style-names'
import { settingFor, settingsOf, type House, type Setting } from '../../house/house'
import { familiesOfSetting, paragraphValuesOf, textValuesOf } from '../../house/setting-values'
import { escapeXml, namespaces, writePackage } from '../../package/new-package'
import { fontAttributes, slots } from '../../document/font-attributes'
import { document, face, page } from './pieces'

/*
 * A house as an OpenDocument text template: a named paragraph style for each role, set as the house says it for texts, with
 * a line of each. What OpenDocument has no place for (decks, limits, stand-ins) does not go along.
 */

const attributes = (values: Readonly<Record<string, string>>) =>
  Object.entries(values)
    .map(([name, value]) => `${name}="${escapeXml(value)}"`)
    .join(' ')

/** The fonts that a setting asks for, by the names that `houseFaces` declares. */
function fontNames(setting: Setting): Record<string, string> {
  const families = familiesOfSetting(setting)
  return Object.fromEntries(
    slots.flatMap(slot => (families[slot] === undefined ? [] : [[fontAttributes[slot].name, families[slot]]])),
  )
}

/** What a style says of a setting: its paragraph and text properties. Fonts are named by `houseFaces`. */
export const settingProperties = (house: House, setting: Setting): string =>
  `<style:paragraph-properties ${attributes(paragraphValuesOf(setting))}/>` +
  `<style:text-properties ${attributes({ ...fontNames(setting), ...textValuesOf(house, setting) })}/>`

/** The font faces that the settings of a house name, declared. */
export function houseFaces(house: House): string {
  const families = house.roles.flatMap(settingsOf).flatMap(setting => Object.values(familiesOfSetting(setting)))
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
