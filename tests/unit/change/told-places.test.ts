import { describe, expect, it } from 'vitest'
import { partOf } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { writeXml } from '../../../core/xml/write'
import { listStyles } from '../../../core/change/styles/style-list'
import type { DocumentSession } from '../../../core/session'
import { saltmereLine } from '../../../demo/houses'
import { namespaces } from '../../../core/package/new-package'
import { face, library, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { quickly, swap } from '../../support/planning'

const faces = face('Spectral') + face('Jost')
const base =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" fo:font-size="10pt"/>' +
  '</style:default-style>'
const content = (of: DocumentSession) => writeXml(partOf(of.document, 'content.xml'))

describe('rules of a style', () => {
  const body = (inside: string) => `<text:p text:style-name="Body">${inside}</text:p>`
  const ruled = (inside: string, pattern: string) => {
    const of = sessionOf({
      styles: base + paragraphStyle('Body') + textStyle('Words', 'fo:font-style="italic"'),
      body: body(inside),
    })
    const rule = { id: 'r', title: 'Figures', on: true, style: 'Body', character: 'Words', pattern }
    const { after } = quickly(of, { type: 'rules', style: 'Body', patterns: [rule], leadIns: [] })
    return /<office:text>(.*)<\/office:text>/.exec(content(after))![1]!.replace(/ text:style-name="[^"]*"/g, '')
  }

  it.each([
    ['on 12 May', '\\d+', 'on <text:span>12</text:span> May'],
    // A field goes as a whole or not at all.
    ['on <text:date>12</text:date> May', '\\d+', 'on <text:span><text:date>12</text:date></text:span> May'],
    ['on <text:date>12</text:date> May', '2', 'on <text:date>12</text:date> May'],
    ['on <text:date>12</text:date> May', '1', 'on <text:date>12</text:date> May'],
    ['on <text:date>12</text:date> May', 'n 12', 'o<text:span>n <text:date>12</text:date></text:span> May'],
  ])('take of %s what matches %s', (inside, pattern, expected) => {
    expect(ruled(inside, pattern)).toBe(`<text:p>${expected}</text:p>`)
  })
})

describe('many places', () => {
  it('are counted all, and led to five hundred of them', () => {
    const of = sessionOf({
      styles: base + paragraphStyle('Body') + textStyle('Words', 'fo:font-style="italic"'),
      body: '<text:p text:style-name="Body">kelp</text:p>'.repeat(501),
    })
    const ranges = paragraphsOf(of.reading.stories[0]!.blocks).map(({ part, node }) => ({ part, node, from: 0, to: 2 }))
    const scope = { kind: 'ranges', ranges }
    const words = quickly(of, { type: 'apply', style: { family: 'text', name: 'Words' }, scope, strays: 'keep' }).plan
    expect(words.rows).toMatchObject([{ title: 'Words', count: 501, characters: 1002 }])
    expect(words.rows[0]!.places).toHaveLength(500)
  })
})

describe('a style that names an Asian font alone', () => {
  it('is shown in that, others in their western one', () => {
    const of = sessionOf({
      stylesFaces: faces + face('BIZ UDPGothic'),
      styles:
        base +
        paragraphStyle('Kana', 'style:font-name-asian="BIZ UDPGothic"') +
        paragraphStyle('Both', 'style:font-name="Jost" style:font-name-asian="BIZ UDPGothic"') +
        paragraphStyle('Plain', 'style:font-name="Jost"'),
      body: ['Kana', 'Both', 'Plain'].map(name => `<text:p text:style-name="${name}">a</text:p>`).join(''),
    })
    const looks = Object.fromEntries(
      listStyles(of.reading, library, of.composition).map(each => [each.name, each.look.family]),
    )
    expect(looks).toMatchObject({ Kana: 'BIZ UDPGothic', Both: 'Jost', Plain: 'Jost' })
  })
})

describe('a swap', () => {
  it('tells each style, each default and each list by itself, and what is set by hand as one', () => {
    const level = (name: string) =>
      `<text:list-style style:name="${name}"><text:list-level-style-bullet text:level="1" text:bullet-char="x">` +
      '<style:text-properties style:font-name="Jost"/></text:list-level-style-bullet></text:list-style>'
    const of = sessionOf({
      stylesFaces: faces,
      faces,
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Jost"/></style:default-style>' +
        '<style:default-style style:family="table-cell"><style:text-properties style:font-name="Jost"/></style:default-style>' +
        paragraphStyle('One', 'style:font-name="Jost"') +
        paragraphStyle('Two', 'style:font-name="Jost"') +
        level('L1') +
        level('L2'),
      automatic:
        textStyle('T1', 'style:font-name="Jost"') + textStyle('T2', 'style:font-name="Jost" fo:color="#111111"'),
      body:
        '<text:p text:style-name="One">one <text:span text:style-name="T1">by</text:span> ' +
        '<text:span text:style-name="T2">hand</text:span></text:p>' +
        '<text:p text:style-name="Two">two</text:p>',
    })
    const { rows } = quickly(of, swap('Jost', 'Spectral')).plan
    expect(
      rows
        .filter(row => row.stage !== 'declaration')
        .map(row => [row.title, row.count])
        .sort(),
    ).toEqual(
      [
        ['Default: paragraph default', 1],
        ['Default: table-cell default', 1],
        ['List labels: level 1 of list L1', 1],
        ['List labels: level 1 of list L2', 1],
        ['Paragraph style One', 1],
        ['Paragraph style Two', 1],
        ['Local formatting', 2],
      ].sort(),
    )
  })

  it('of some words sets no size where sizes stay, and the size that they would have where they follow', () => {
    const of = sessionOf({
      stylesFaces: faces,
      faces,
      styles: base + paragraphStyle('Body'),
      body: '<text:p text:style-name="Body">kelp and weed</text:p>',
    })
    const [paragraph] = paragraphsOf(of.reading.stories[0]!.blocks)
    const scope = { kind: 'ranges', ranges: [{ part: paragraph!.part, node: paragraph!.node, from: 0, to: 4 }] }
    const made = (more: object) =>
      /<style:style [^>]*family="text".*?<\/style:style>/.exec(
        content(quickly(of, swap('Spectral', 'Jost', { within: { scope }, ...more })).after),
      )![0]
    expect(made({})).toContain('style:font-name="Jost"')
    expect(made({})).not.toContain('fo:font-size')
    expect(made({ size: { mode: 'percent', percent: 90 } })).toContain('fo:font-size="9pt"')
  })
})

describe('a house on a chart', () => {
  it('tells text that goes by no style of the chart', () => {
    const chart = (style: string) =>
      `<office:document-content${namespaces} office:version="1.3"><office:automatic-styles>` +
      '<style:style style:name="ch1" style:family="chart"/></office:automatic-styles><office:body><office:chart>' +
      `<chart:chart chart:class="chart:bar"><chart:title${style}><text:p>Fares</text:p></chart:title></chart:chart>` +
      '</office:chart></office:body></office:document-content>'
    const left = (style: string) => {
      const of = sessionOf({
        stylesFaces: faces,
        styles: base + paragraphStyle('Body'),
        body: '<text:p text:style-name="Body">Saltmere, two boats a day to every pier</text:p>',
        parts: [{ path: 'Object 1/content.xml', type: 'text/xml', content: chart(style) }],
        objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
      })
      return quickly(of, { type: 'dress', house: saltmereLine }).plan.left.filter(
        each => each.what === 'text of a chart',
      )
    }
    expect(left('')).toEqual([{ what: 'text of a chart', reason: 'the chart has no style that it goes by', count: 1 }])
    expect(left(' chart:style-name="ch1"')).toEqual([])
  })
})
