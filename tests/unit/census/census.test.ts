import { describe, expect, it } from 'vitest'
import { censusCsv } from '../../../core/census/csv'
import { areTwins, sizeAndLeading, type VoiceLook } from '../../../core/census/voices'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, makeOdt, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { countCharacters } from '../../support/independent'

const guide = sailingGuide()
const { census, occurrences } = session(guide).detail

describe('frames', () => {
  it('are told by the lines that have no room, or the height they leave', () => {
    const frame = (name: string, lines: number) =>
      `<text:p><draw:frame draw:name="${name}" text:anchor-type="paragraph" svg:width="4cm" ` +
      `svg:height="2cm"><draw:text-box>${'<text:p>line</text:p>'.repeat(lines)}</draw:text-box>` +
      `</draw:frame></text:p>`
    const { frames } = sessionOf({ body: frame('Short', 1) + frame('Long', 9) }).detail.census
    expect(frames.map(each => each.name)).toEqual(['Long', 'Short'])
    expect(frames[0]).toMatchObject({ page: 0, room: 0 })
    expect(frames[0]!.lines).toBeGreaterThan(3)
    expect(frames[0]!.characters).toBe(frames[0]!.lines * 4)
    expect(frames[1]).toMatchObject({ page: null, lines: 0, characters: 0 })
    expect(frames[1]!.room).toBeGreaterThan(30)
  })
})

describe('the census of the demo', () => {
  it('counts what another counter on another parser counts', () => {
    expect(census.characters).toBe(countCharacters(guide))
    expect(census.faces.reduce((sum, each) => sum + each.characters, 0)).toBe(census.characters)
    expect(census.voices.reduce((sum, each) => sum + each.characters, 0)).toBe(census.characters)
    expect(census.document).toMatchObject({ kind: 'text', title: 'Sailing guide', pages: 24 })
  })

  it('finds the planted faults', () => {
    const find = (family: string, style = 'Regular') =>
      census.faces.find(each => each.family === family && each.style === style)!
    expect(find('Ovrelund Light')).toMatchObject({
      status: 'absent',
      characters: 1,
      onlySpaces: true,
      standIn: expect.any(String),
    })
    expect(find('Ovrelund Light').pages).toHaveLength(1)
    const skerrow = find('Skerrow')
    expect(skerrow.places.chart).toBeGreaterThan(0)
    expect(skerrow.places.frame).toBeGreaterThan(0)
    expect(skerrow.places.default).toBe(2)
    expect(skerrow.strayCharacters).toBeGreaterThan(0)
    expect(find('Zen Kaku Gothic New')).toMatchObject({ slot: 'asian', status: 'present' })
    expect(census.unused.map(each => each.family)).toContain('OpenSymbol')
    const twin = census.voices.find(voice => voice.size === 10 && voice.family === 'Spectral')!
    expect(twin.unowned).toBe(true)
    expect(census.voices.find(voice => voice.key === twin.twinOf)).toMatchObject({ size: 10.2, unowned: false })
    expect(census.settled).toBeGreaterThan(0.5)
    expect(census.settled).toBeLessThan(1)
  })

  it('knows every place of a face and the page it is on', () => {
    for (const each of census.faces) {
      const places = occurrences.filter(occurrence => occurrence.face === each.key)
      expect(places.length, each.key).toBeGreaterThan(0)
      expect([...new Set(places.map(place => place.page))].every(page => page < census.document.pages)).toBe(true)
    }
  })
})

describe('voices', () => {
  const look: VoiceLook = {
    family: 'Jost',
    style: 'Regular',
    slot: 'western',
    size: 11,
    leading: 'normal',
    tracking: '',
    case: '',
    color: '',
    position: '',
  }
  it('are twins within five percent of each other’s size', () => {
    expect(areTwins(look, { ...look, size: 10.9 })).toBe(true)
    expect(areTwins(look, { ...look, size: 10 })).toBe(false)
    expect(areTwins(look, look)).toBe(false)
    expect(areTwins(look, { ...look, size: 10.9, color: '#ff0000' })).toBe(false)
  })
  it('are written as a printer writes them', () => {
    expect([
      sizeAndLeading(look),
      sizeAndLeading({ ...look, leading: '14.4pt' }),
      sizeAndLeading({ ...look, leading: '120%' }),
    ]).toEqual(['11', '11 / 14.4', '11 / 120 %'])
  })
})

describe('characters', () => {
  it.each([
    ['one two', 7],
    ['  a   b  ', 3],
    ['a<text:s text:c="4"/>b', 6],
    ['a<text:tab/>b<text:line-break/>c', 5],
    ['😀', 1],
    ['<text:page-number>12</text:page-number>', 2],
    [
      'a<text:note text:note-class="footnote"><text:note-citation>3</text:note-citation>' +
        '<text:note-body><text:p>xyz</text:p></text:note-body></text:note>',
      5,
    ],
    ['a<office:annotation><dc:creator>Somebody</dc:creator><text:p>hm</text:p></office:annotation>', 3],
  ])('“%s” has %i', (body, count) => {
    const bytes = makeOdt({ body: `<text:p>${body}</text:p>` })
    expect(session(bytes).detail.census.characters).toBe(count)
    expect(countCharacters(bytes)).toBe(count)
  })

  it('an empty document is settled', () => {
    expect(sessionOf({ body: '<text:p/>' }).detail.census).toMatchObject({ characters: 0, settled: 1, faces: [] })
  })
})

describe('CSV', () => {
  it('cannot be made to run a formula, and quotes what must be quoted', () => {
    const { census: evil } = sessionOf({
      faces: face('=1+1', "'=HYPERLINK(&quot;x&quot;)'") + face('at', '@sum') + face('comma', "'a&quot;b'"),
      automatic:
        textStyle('T1', 'style:font-name="=1+1"') +
        textStyle('T2', 'style:font-name="at"') +
        textStyle('T3', 'style:font-name="comma"') +
        paragraphStyle('P', ''),
      body:
        '<text:p><text:span text:style-name="T1">a</text:span><text:span text:style-name="T2">b</text:span>' +
        '<text:span text:style-name="T3">c</text:span></text:p>',
    }).detail
    const csv = censusCsv(evil)
    const cells = csv.split('\r\n').flatMap(line => line.split(','))
    expect(cells.some(cell => /^"?[=+\-@]/.test(cell))).toBe(false)
    expect(csv).toContain("'@sum")
    expect(csv).toContain('"a""b"')
    expect(csv.trimEnd().split('\r\n')).toHaveLength(1 + evil.faces.length + evil.voices.length + evil.unused.length)
  })
})
