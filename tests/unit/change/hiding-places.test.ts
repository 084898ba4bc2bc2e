import { describe, expect, it } from 'vitest'
import { saveDocument } from '../../../core/document/open'
import { namespaces, writePackage, type Part } from '../../../core/package/new-package'
import { session } from '../../support/fixtures'
import { planned, swap } from '../../support/planning'
import { familiesIn, otherDifferences, parts, xmlParts } from '../../support/independent'

/*
 * One package in which every kind of place names a family of its own: a swap that passes a kind of place over leaves
 * that place's family behind, and the test of that place fails. What is left is looked for by the second reading.
 */

type Where =
  | 'content-auto'
  | 'content-body'
  | 'styles-common'
  | 'styles-auto'
  | 'styles-master'
  | 'content-faces'
  | 'styles-faces'
  | 'chart-auto'
  | 'chart-faces'
  | 'chart-styles'
  | 'formula'
  | 'formula-settings'
  | 'nested-auto'
  | 'meta'
interface Hide {
  readonly what: string
  readonly where: Where
  readonly make: (family: string, style: string) => string
  readonly body?: (style: string) => string
}

const loose = (family: string) => `<style:text-properties fo:font-family="'${family}'"/>`
const style =
  (family: string, properties: (font: string) => string = loose, more = '') =>
  (font: string, name: string) =>
    `<style:style style:name="${name}" style:family="${family}"${more}>${properties(font)}</style:style>`
const used =
  (element: string, inside = 'text') =>
  (name: string) =>
    `<text:p><${element} text:style-name="${name}">${inside}</${element}></text:p>`
const level = (kind: string, more: string) => (font: string, name: string) =>
  `<text:list-style style:name="${name}"><text:list-level-style-${kind} ` +
  `text:level="1" ${more}>${loose(font)}</text:list-level-style-${kind}>` +
  `</text:list-style>`

const hides: readonly Hide[] = [
  {
    what: 'a declaration in the content',
    where: 'content-faces',
    make: font => `<style:font-face style:name="a ${font}" svg:font-family="'${font}'"/>`,
  },
  {
    what: 'a declaration in the styles',
    where: 'styles-faces',
    make: font => `<style:font-face style:name="b ${font}" svg:font-family="'${font}'"/>`,
  },
  {
    what: 'a second declaration of the same family',
    where: 'content-faces',
    make: font =>
      `<style:font-face style:name="c ${font}" svg:font-family="'${font}'"/><style:font-face ` +
      `style:name="c1 ${font}" svg:font-family="${font}" style:font-pitch="variable"/>`,
  },
  {
    what: 'a declaration without a family',
    where: 'content-faces',
    make: font => `<style:font-face style:name="${font}"/>`,
  },
  {
    what: 'a list of fallbacks in a declaration',
    where: 'styles-faces',
    make: font => `<style:font-face style:name="d ${font}" svg:font-family="'Jost', '${font}'"/>`,
  },
  {
    what: 'a declaration in a chart',
    where: 'chart-faces',
    make: font => `<style:font-face style:name="e ${font}" svg:font-family="'${font}'"/>`,
  },
  {
    what: 'the paragraph default',
    where: 'styles-common',
    make: font => `<style:default-style style:family="paragraph">${loose(font)}</style:default-style>`,
  },
  {
    what: 'the graphic default',
    where: 'styles-common',
    make: font => `<style:default-style style:family="graphic">${loose(font)}</style:default-style>`,
  },
  {
    what: 'the default of table cells',
    where: 'styles-common',
    make: font => `<style:default-style style:family="table-cell">${loose(font)}</style:default-style>`,
  },
  ...['paragraph', 'text', 'graphic', 'presentation', 'table-cell', 'chart', 'ruby', 'table-row', 'control'].map(
    (family): Hide => ({ what: `a named style of the family ${family}`, where: 'styles-common', make: style(family) }),
  ),
  ...['paragraph', 'text', 'graphic', 'presentation', 'table-cell', 'ruby'].map((family): Hide => ({
    what: `an automatic style of the family ${family} in the content`,
    where: 'content-auto',
    make: style(family),
  })),
  ...['paragraph', 'text', 'graphic', 'presentation'].map((family): Hide => ({
    what: `an automatic style of the family ${family} for masters`,
    where: 'styles-auto',
    make: style(family),
  })),
  {
    what: 'the western slot by name',
    where: 'content-auto',
    make: (font, name) => style('text', () => '<style:text-properties style:font-name="F western"/>')(font, name),
  },
  {
    what: 'the asian slot',
    where: 'content-auto',
    make: style('text', font => `<style:text-properties style:font-family-asian="'${font}'"/>`),
  },
  {
    what: 'the complex slot',
    where: 'content-auto',
    make: style('text', font => `<style:text-properties style:font-family-complex="'${font}'"/>`),
  },
  {
    what: 'a loose family with a style name',
    where: 'content-auto',
    make: style(
      'text',
      font =>
        `<style:text-properties fo:font-family="${font}" style:font-style-name="SemiBold" style:font-pitch="variable"/>`,
    ),
  },
  {
    what: 'a family with features behind a colon',
    where: 'content-auto',
    make: style('text', font => `<style:text-properties fo:font-family="'${font}:smcp&amp;onum'"/>`),
  },
  {
    what: 'a list of families',
    where: 'content-auto',
    make: style('text', font => `<style:text-properties fo:font-family="Jost; ${font}"/>`),
  },
  {
    what: 'a drop cap’s style',
    where: 'styles-common',
    make: style('text', loose),
    body: name => `<text:p text:style-name="Drop${name}">text</text:p>`,
  },
  { what: 'a bullet', where: 'styles-common', make: level('bullet', 'text:bullet-char="•"') },
  { what: 'a number', where: 'content-auto', make: level('number', 'style:num-format="1"') },
  {
    what: 'the numbers of headings',
    where: 'styles-common',
    make: font =>
      `<text:outline-style style:name="Outline"><text:outline-level-style text:level="1" ` +
      `style:num-format="1">${loose(font)}</text:outline-level-style></text:outline-style>`,
  },
  {
    what: 'text in ruby',
    where: 'content-auto',
    make: style('text'),
    body: name =>
      `<text:p><text:ruby><text:ruby-base>漢</text:ruby-base><text:ruby-text text:style-name="${name}">` +
      `kan</text:ruby-text></text:ruby></text:p>`,
  },
  {
    what: 'a note',
    where: 'content-auto',
    make: style('text'),
    body: name =>
      `<text:p>x<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>` +
      `<text:note-body>${used('text:span')(name)}</text:note-body></text:note></text:p>`,
  },
  {
    what: 'an annotation',
    where: 'content-auto',
    make: style('text'),
    body: name => `<text:p>x<office:annotation>${used('text:span')(name)}</office:annotation></text:p>`,
  },
  { what: 'a tracked deletion', where: 'content-auto', make: style('text'), body: () => '' },
  {
    what: 'a shape in a group',
    where: 'content-auto',
    make: style('graphic'),
    body: name =>
      `<text:p><draw:g text:anchor-type="paragraph"><draw:rect draw:style-name="${name}" ` +
      `svg:width="2cm" svg:height="1cm"><text:p>in a group</text:p></draw:rect></draw:g></text:p>`,
  },
  {
    what: 'a table in a frame',
    where: 'content-auto',
    make: style('table-cell'),
    body: name =>
      `<text:p><draw:frame text:anchor-type="paragraph" svg:width="4cm"><draw:text-box>` +
      `<table:table><table:table-column/><table:table-row><table:table-cell table:style-name="${name}">` +
      `<text:p>cell</text:p></table:table-cell></table:table-row></table:table></draw:text-box>` +
      `</draw:frame></text:p>`,
  },
  { what: 'a header', where: 'styles-auto', make: style('paragraph') },
  {
    what: 'a form control',
    where: 'content-auto',
    make: style('graphic'),
    body: name =>
      `<text:p><draw:control draw:style-name="${name}" text:anchor-type="paragraph" svg:width="2cm" svg:height="1cm"/></text:p>`,
  },
  {
    what: 'line numbers',
    where: 'styles-common',
    make: (font, name) => `${style('text')(font, name)}<text:linenumbering-configuration text:style-name="${name}"/>`,
  },
  {
    what: 'a table template’s cell',
    where: 'styles-common',
    make: (font, name) =>
      `${style('table-cell')(font, name)}<table:table-template table:name="Template">` +
      `<table:first-row table:style-name="${name}"/></table:table-template>`,
  },
  {
    what: 'an index’s entries',
    where: 'styles-common',
    make: style('text'),
    body: name =>
      `<text:table-of-content text:name="t"><text:table-of-content-source><text:table-of-content-entry-template ` +
      `text:outline-level="1" text:style-name="x"><text:index-entry-text text:style-name="${name}"/>` +
      `</text:table-of-content-entry-template></text:table-of-content-source><text:index-body/>` +
      `</text:table-of-content>`,
  },
  {
    what: 'a conditional style',
    where: 'styles-common',
    make: (font, name) =>
      `<style:style style:name="${name}" style:family="paragraph">${loose(font)}<style:map ` +
      `style:condition="table()" style:apply-style-name="Other"/></style:style>`,
  },
  { what: 'a chart’s style', where: 'chart-auto', make: style('chart') },
  { what: 'a named style of a chart', where: 'chart-styles', make: style('chart') },
  { what: 'a formula’s MathML', where: 'formula', make: font => `<math:mi fontfamily="${font}">x</math:mi>` },
  {
    what: 'a formula’s settings',
    where: 'formula-settings',
    make: font =>
      `<config:config-item config:name="FontNameVariables" config:type="string">${font}</config:config-item>`,
  },
  { what: 'a text object inside', where: 'nested-auto', make: style('text') },
]
const named = hides.map((hide, index) => ({
  ...hide,
  family: `Hid ${index < 10 ? '0' : ''}${index}`,
  name: `H${index}`,
}))
const western = named.find(hide => hide.what === 'the western slot by name')!

/** The package with all hiding places. */
function hiding(): Uint8Array {
  const at = (where: Where) =>
    named
      .filter(hide => hide.where === where)
      .map(hide => hide.make(hide.family, hide.name))
      .join('')
  const more =
    ' xmlns:math="http://www.w3.org/1998/Math/MathML" xmlns:config="urn:oasis:names:tc:opendocument:xmlns:config:1.0"'
  const part = (name: string, inside: string) =>
    `<?xml version="1.0" encoding="UTF-8"?>\n<office:document-${name}${namespaces}${more} ` +
    `office:version="1.3">${inside}</office:document-${name}>`
  const faces = (inside: string) => `<office:font-face-decls>${inside}</office:font-face-decls>`
  const spans = named
    .filter(
      hide =>
        hide.where === 'content-auto' &&
        hide.body === undefined &&
        / family (text)|slot|loose|features|list of/.test(hide.what),
    )
    .map(hide => used('text:span')(hide.name))
    .join('')
  const frames = ['Object 1', 'Object 2', 'Object 3']
    .map(
      path =>
        `<draw:frame text:anchor-type="as-char" svg:width="4cm" svg:height="3cm"><draw:object xlink:href="./${path}"/></draw:frame>`,
    )
    .join('')
  const tracked =
    `<text:tracked-changes><text:changed-region text:id="c"><text:deletion><text:p>` +
    `<text:span text:style-name="${named.find(hide => hide.what === 'a tracked deletion')!.name}">` +
    `gone</text:span></text:p></text:deletion></text:changed-region></text:tracked-changes>`
  const content = part(
    'content',
    `${faces(
      `${at('content-faces')}<style:font-face style:name="F western" ` + `svg:font-family="'${western.family}'"/>`,
    )}<office:automatic-styles>` +
      `${at('content-auto')}</office:automatic-styles>` +
      `<office:body><office:text>${tracked}${spans}${named.map(hide => hide.body?.(hide.name) ?? '').join('')}<text:p>${frames}</text:p>` +
      `</office:text></office:body>`,
  )
  const styles = part(
    'styles',
    `${faces(at('styles-faces'))}<office:styles>${at('styles-common')}</office:styles>` +
      `<office:automatic-styles><style:page-layout style:name="pm"><style:page-layout-properties ` +
      `fo:page-width="10cm" fo:page-height="10cm" fo:margin="1cm"/></style:page-layout>${at('styles-auto')}</office:automatic-styles>` +
      `<office:master-styles><style:master-page style:name="Standard" style:page-layout-name="pm">` +
      `<style:header>${named
        .filter(hide => hide.what === 'a header')
        .map(hide => `<text:p text:style-name="${hide.name}">head</text:p>`)
        .join('')}</style:header>` +
      `</style:master-page></office:master-styles>`,
  )
  const chart = part(
    'content',
    `${faces(at('chart-faces'))}<office:automatic-styles>${at('chart-auto')}</office:automatic-styles>` +
      `<office:body><office:chart><chart:chart chart:class="chart:bar" svg:width="4cm" ` +
      `svg:height="3cm"><chart:title chart:style-name="${named.find(hide => hide.where === 'chart-auto')!.name}">` +
      `<text:p>Title</text:p></chart:title><chart:plot-area/></chart:chart></office:chart>` +
      `</office:body>`,
  )
  const chartStyles = part('styles', `<office:styles>${at('chart-styles')}</office:styles>`)
  const formula =
    `<?xml version="1.0" encoding="UTF-8"?>\n<math:math xmlns:math="http://www.w3.org/1998/Math/MathML">` +
    `<math:semantics><math:mrow>${at('formula')}</math:mrow></math:semantics></math:math>`
  const settings = part(
    'settings',
    `<office:settings><config:config-item-set config:name="ooo:configuration-settings">${at('formula-settings')}</config:config-item-set>` +
      `</office:settings>`,
  )
  const nested = part(
    'content',
    `<office:automatic-styles>${at('nested-auto')}</office:automatic-styles><office:body><office:text>${named
      .filter(hide => hide.where === 'nested-auto')
      .map(hide => used('text:span')(hide.name))
      .join('')}</office:text></office:body>`,
  )
  const xml = (path: string, content: string): Part => ({ path, type: 'text/xml', content })
  return writePackage(
    'application/vnd.oasis.opendocument.text',
    [
      xml('content.xml', content),
      xml('styles.xml', styles),
      xml('Object 1/content.xml', chart),
      xml('Object 1/styles.xml', chartStyles),
      xml('Object 2/content.xml', formula),
      xml('Object 2/settings.xml', settings),
      xml('Object 3/content.xml', nested),
      { path: 'Pictures/map.svg', type: 'image/svg+xml', content: '<svg/>' },
    ],
    [
      { path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' },
      { path: 'Object 2/', type: 'application/vnd.oasis.opendocument.formula' },
      { path: 'Object 3/', type: 'application/vnd.oasis.opendocument.text' },
    ],
  )
}

const bytes = hiding()
const open = session(bytes)
const families = (file: Uint8Array): Set<string> => {
  const files = parts(file)
  return new Set(xmlParts(files).flatMap(path => [...familiesIn(files[path]!)]))
}

describe('every hiding place', () => {
  const before = families(bytes)
  const toInter = (...list: readonly string[]) => list.map(family => swap(family, 'Inter'))
  it.each(named.map(hide => [hide.what, hide.family] as const))('%s', (_what, family) => {
    expect(before.has(family.toLowerCase()), 'the fixture hides it').toBe(true)
    const { plan, after } = planned(open, toInter(family))
    const file = saveDocument(after.document)
    const left = families(file)
    expect(left.has(family.toLowerCase())).toBe(false)
    // All others are where they were.
    for (const other of named)
      if (other.family !== family) expect(left.has(other.family.toLowerCase()), other.what).toBe(true)
    const [old, now] = [parts(bytes), parts(file)]
    for (const path of xmlParts(old)) expect(otherDifferences(old[path]!, now[path]!), path).toEqual([])
    // Passed over, it would be seen.
    const rows = plan.rows.filter(row => row.included)
    if (rows.length > 0) {
      const other = named.find(each => each.family !== family && each.what.startsWith('a named style'))!.family
      const skipped = planned(
        open,
        toInter(family, other),
        rows.map(row => row.key),
      )
      expect(
        families(saveDocument(skipped.after.document)).has(family.toLowerCase()),
        'the check finds what is skipped',
      ).toBe(true)
    }
  })
  it('pictures can only be told of', () => {
    expect(planned(open, toInter(named[0]!.family)).plan.left).toContainEqual({
      what: 'Pictures/map.svg',
      reason: 'a picture: the fonts in it cannot be changed here',
      count: 1,
    })
  })
})
