import { describe, expect, it } from 'vitest'
import { faceKey, voiceKey, voiceOf } from '../../../core/census/voices'
import { face, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'

const census = (automatic: string, body: string, more = {}) =>
  sessionOf({ faces: face('Jost') + face('Spectral') + face('Gone'), automatic, body, ...more }).detail

describe('places', () => {
  it('are counted by kind, a stretch of text each', () => {
    const { census: result } = census(
      paragraphStyle('P', 'style:font-name="Gone"'),
      '<text:p text:style-name="P">a</text:p><text:p>x</text:p><text:p text:style-name="P">b</text:p>' +
        '<table:table><table:table-column/><table:table-row><table:table-cell>' +
        '<text:p text:style-name="P">c</text:p></table:table-cell></table:table-row>' +
        '</table:table><text:p><draw:frame svg:width="3cm"><draw:text-box>' +
        '<text:p text:style-name="P">d</text:p></draw:text-box></draw:frame></text:p>',
    )
    const gone = result.faces.find(each => each.family === 'Gone')!
    expect(gone.places).toMatchObject({ body: 2, table: 1, frame: 1, header: 0, note: 0 })
    expect(gone).toMatchObject({ status: 'absent', characters: 4, strayCharacters: 4 })
  })

  it('join where one voice goes on, and part where it stops', () => {
    const { occurrences } = census(
      textStyle('T', 'style:font-name="Gone"'),
      '<text:p>a<text:span text:style-name="T">bc</text:span><text:span text:style-name="T">de</text:span>f<text:span ' +
        'text:style-name="T">g</text:span></text:p>',
    )
    expect(occurrences.filter(each => each.face.startsWith('Gone')).map(each => [each.start, each.end])).toEqual([
      [1, 5],
      [6, 7],
    ])
  })

  it('know on which page each is, over a page’s end too', () => {
    const { census: result, occurrences } = census(
      paragraphStyle('P', 'style:font-name="Jost"', 'fo:break-before="page"') +
        textStyle('T', 'style:font-name="Gone"'),
      '<text:p>a</text:p><text:p text:style-name="P">b</text:p><text:p text:style-name="P">c<text:span ' +
        'text:style-name="T"> </text:span></text:p>',
    )
    expect(result.document.pages).toBe(3)
    expect(result.faces.find(each => each.family === 'Jost')!.pages).toEqual([1, 2])
    expect(occurrences.map(each => each.page)).toEqual([0, 1, 2])
  })
})

describe('voices', () => {
  it('tell text apart by everything a reader sees', () => {
    const looks = [
      'fo:font-size="11pt"',
      'fo:color="#ff0000"',
      'fo:letter-spacing="1pt"',
      'fo:text-transform="uppercase"',
      'fo:font-variant="small-caps"',
      'style:text-position="super 58%"',
      'fo:font-weight="bold"',
      '',
    ]
    const { census: result } = census(
      looks.map((text, at) => textStyle(`T${at}`, text)).join(''),
      `<text:p>${looks.map((_, at) => `<text:span text:style-name="T${at}">x</text:span>`).join('')}</text:p>`,
    )
    expect(result.voices).toHaveLength(looks.length)
    expect(new Set(result.voices.map(voice => voice.key)).size).toBe(looks.length)
  })

  it('are nobody’s where only local formatting says so', () => {
    const { census: result } = census(
      textStyle('T1', 'fo:font-size="11pt"') + textStyle('T2', 'fo:font-size="12pt"'),
      '<text:p><text:span text:style-name="T1">abc</text:span><text:span text:style-name="T2">de</text:span></text:p>',
    )
    expect(result.voices.map(voice => [voice.size, voice.unowned, voice.settledCharacters])).toEqual([
      [11, true, 0],
      [12, false, 2],
    ])
    expect(result.settled).toBeCloseTo(0.4)
  })

  it('have keys that agree with their face', () => {
    const { style } = { style: sessionOf({ body: '<text:p>a</text:p>' }).reading }
    const text = style.cascade.paragraph(style.stories[0]!.blocks[0] as never).text
    const look = voiceOf(text, 'western')
    expect(voiceKey(look).startsWith(faceKey(look))).toBe(true)
    expect(voiceOf(text, 'western')).toBe(look)
  })
})

describe('charts', () => {
  const chart = (text: string) =>
    `<?xml version="1.0"?><office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ` +
    `xmlns:style="urn:oasis:names:tc:opendocument:xmlns:style:1.0" xmlns:text="urn:oasis:names:tc:opendocument:xmlns:text:1.0" ` +
    (`xmlns:chart="urn:oasis:names:tc:opendocument:xmlns:chart:1.0" ` +
      `xmlns:fo="urn:oasis:names:tc:opendocument:xmlns:xsl-fo-compatible:1.0">`) +
    `<office:automatic-styles><style:style style:name="c" style:family="chart"><style:text-properties ` +
    `fo:font-family="${text}"/></style:style></office:automatic-styles><office:body>` +
    `<office:chart><chart:chart chart:style-name="c"><chart:title><text:p>Title</text:p>` +
    `</chart:title></chart:chart></office:chart></office:body></office:document-content>`

  it('are counted with the page of the frame they stand in', () => {
    const { census: result } = census(
      paragraphStyle('P', '', 'fo:break-before="page"'),
      '<text:p>a</text:p><text:p text:style-name="P"><draw:frame text:anchor-type="as-char" ' +
        'svg:width="3cm" svg:height="2cm"><draw:object xlink:href="./Object 1"/>' +
        '</draw:frame></text:p>',
      {
        parts: [{ path: 'Object 1/content.xml', type: 'text/xml', content: chart('Gone') }],
        objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
      },
    )
    expect(result.faces.find(each => each.family === 'Gone')).toMatchObject({
      characters: 5,
      pages: [1],
      places: { chart: 1, body: 0 },
    })
    expect(result.document.unlaid).toEqual([])
  })

  it('that name no font are told as unnamed, not as absent', () => {
    const { census: result } = census('', '<text:p>a</text:p>', {
      parts: [{ path: 'Object 1/content.xml', type: 'text/xml', content: chart('') }],
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
    })
    expect(result.faces.every(each => each.status === 'unnamed')).toBe(true)
  })
})
