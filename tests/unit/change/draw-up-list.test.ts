import { describe, expect, it } from 'vitest'
import { listProposals } from '../../../core/change/draw-up/list-proposals'
import { proposeStyles } from '../../../core/change/draw-up/propose'
import { vocabularyOf } from '../../../core/change/draw-up/vocabulary'
import { winterTariff } from '../../../demo/winter-tariff'
import {
  drawingOf,
  drawnPage,
  graphicStyle,
  library,
  paragraphStyle,
  session,
  sessionOf,
  shapeAt,
  smallPage,
  standardMaster,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { quickly } from '../../support/planning'

const nothing = { tolerance: 0, choices: [], dropped: () => false }
const parent = ' style:parent-style-name="Standard"'
const words = 'Zwei Boote am Tag fahren zu jedem Steg der äußeren Inseln, solange das Wetter und die Post es erlauben. '
/** The names that a body of paragraphs gets, in order of its styles. */
function named(automatic: string, body: string, language = 'en', more: Parameters<typeof sessionOf>[0] = {}) {
  const of = sessionOf({
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral" fo:font-size="10pt" ` +
      `fo:language="${language}" fo:country="none"/></style:default-style>${paragraphStyle('Standard')}`,
    automatic,
    body,
    ...more,
  })
  return proposeStyles(of.reading, nothing)
}

describe('what drawing up proposes, as a list', () => {
  it('shows each style with its text, its share and where it stands', () => {
    const { reading, composition } = session(winterTariff())
    const list = listProposals(reading, library, composition, nothing)
    const [body] = list
    expect(body).toMatchObject({
      displayName: 'Body',
      family: 'paragraph',
      role: 'body',
      count: 9,
      exists: false,
      parent: '',
    })
    expect(body!.words).toContain('Spectral, 10 pt')
    expect(body!.sample.length).toBeLessThanOrEqual(70)
    expect(body!.places[0]).toMatchObject({ start: 0, page: 0 })
    expect(list.reduce((sum, each) => sum + (each.family === 'paragraph' ? each.share : 0), 0)).toBeCloseTo(1, 2)
    const strong = list.find(each => each.displayName === 'Strong')!
    expect(strong).toMatchObject({ family: 'text', count: 3, sample: 'Children under seven' })
    expect(list.map(each => each.family).lastIndexOf('paragraph')).toBeLessThan(
      list.findIndex(each => each.family === 'text'),
    )
  })

  it('lists the graphic styles that loose frames of a deck lack', () => {
    const deck = drawingOf({
      styles: graphicStyle('standard', 'draw:fill="none"', 'fo:font-family="Spectral" fo:font-size="18pt"'),
      automatic: textStyle('T1', 'fo:font-family="Jost" fo:font-size="12pt"'),
      pages: ['Pier box', 'Long pier']
        .map(words =>
          drawnPage(
            textFrame(
              shapeAt(1, 1, 8, 2),
              `<text:p><text:span text:style-name="T1">${words}</text:span></text:p>`,
              'draw:style-name="standard"',
            ),
          ),
        )
        .join(''),
    })
    const list = listProposals(deck.reading, library, deck.composition, nothing)
    expect(list).toMatchObject([
      { family: 'graphic', parent: 'standard', count: 2, characters: 17, share: 1, exists: false, sample: 'Pier box' },
    ])
    expect(list[0]!.places.map(each => each.page)).toEqual([0, 1])
    expect(list[0]!.look).toMatchObject({ family: 'Jost', size: 12 })
  })

  it('lists what goes to a style that is there already as such', () => {
    const of = sessionOf({
      styles:
        paragraphStyle('Standard', 'fo:font-size="9pt"') + paragraphStyle('Aside', 'fo:font-size="8pt"', '', parent),
      automatic: paragraphStyle('P1', 'fo:font-size="8pt"', '', parent),
      body: `<text:p text:style-name="Aside">${words}</text:p><text:p text:style-name="P1">${words}</text:p>`,
    })
    expect(listProposals(of.reading, library, null, nothing)).toMatchObject([
      { displayName: 'Aside', exists: true, count: 1, places: [{ page: -1 }] },
    ])
  })
})

describe('names', () => {
  it('are given in the language of the document, with what tells styles apart', () => {
    const automatic =
      paragraphStyle('P1', 'fo:font-size="11pt"', '', parent) +
      paragraphStyle('P2', 'fo:font-size="16pt" fo:font-weight="bold"', '', parent) +
      paragraphStyle('P3', 'fo:font-size="11pt" fo:color="#224466"', '', parent) +
      textStyle('T1', 'fo:font-style="italic"')
    const part =
      `<text:p text:style-name="P2">Fahrplan</text:p><text:p text:style-name="P1">${words.repeat(3)}<text:span ` +
      `text:style-name="T1">Holm</text:span></text:p>`
    const { paragraphs, words: styles } = named(
      automatic,
      `${part.repeat(3)}<text:p text:style-name="P3">${words}</text:p>`,
      'de',
    )
    expect(paragraphs.map(each => each.displayName)).toEqual(['Grundtext', 'Grundtext, farbig', 'Überschrift 1'])
    expect(styles.map(each => each.displayName)).toEqual(['Hervorhebung'])
    expect(vocabularyOf('xx-YY').heading).toBe('Heading')
    expect(vocabularyOf('fr-CA').purposes.caption).toBe('Légende')
  })

  it('say what text is for, by where it stands and how it begins', () => {
    const automatic =
      ['8', '9', '11', '12'].map(size => paragraphStyle(`P${size}`, `fo:font-size="${size}pt"`, '', parent)).join('') +
      paragraphStyle('M', 'fo:font-family="Courier Prime"', '', parent) +
      paragraphStyle('C', 'fo:font-size="10.5pt"', '', parent)
    const body =
      `<text:p text:style-name="P11">${words.repeat(4)}</text:p><text:p text:style-name="M">make all</text:p><text:p ` +
      `text:style-name="M">make install</text:p>` +
      `<text:p text:style-name="P8">Figure 1: the pier</text:p><text:p text:style-name="C">Piers and tides<text:tab/>12</text:p><text:p ` +
      `text:style-name="C">Boats<text:tab/>14</text:p>` +
      `<table:table><table:table-column/><table:table-row><table:table-cell><text:p text:style-name="P9">7.35</text:p>` +
      `</table:table-cell></table:table-row></table:table><text:p text:style-name="P11">Text` +
      `<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation><text:note-body><text:p ` +
      `text:style-name="P12">A note.</text:p></text:note-body></text:note></text:p>`
    const kinds = new Map(
      named(automatic, body).paragraphs.map(each => [each.members[0]!.text.slice(0, 8), each.purpose.kind]),
    )
    expect(Object.fromEntries(kinds)).toEqual({
      'Zwei Boo': 'body',
      'make all': 'code',
      'Figure 1': 'caption',
      'Piers an': 'contents',
      '7.35': 'table',
      'A note.': 'note',
    })
  })
})

describe('headings', () => {
  const automatic =
    paragraphStyle('P1', 'fo:font-size="11pt"', '', parent) +
    paragraphStyle('P2', 'fo:font-size="16pt" fo:font-weight="bold"', '', parent) +
    paragraphStyle('P3', 'fo:font-size="13pt" fo:font-weight="bold"', '', parent)
  const body = ['Fares', 'Freight', 'Dogs']
    .map(
      title =>
        `<text:p text:style-name="P2">${title}</text:p><text:p text:style-name="P3">Of ${title}</text:p>` +
        `<text:p text:style-name="P1">${words.repeat(4)}</text:p>`,
    )
    .join('')
  const numbered = {
    styles:
      `${paragraphStyle('Standard', 'fo:font-size="10pt"')}<text:outline-style style:name="Outline"><text:outline-level-style ` +
      `text:level="1" style:num-format="1"/><text:outline-level-style text:level="2" style:num-format=""/></text:outline-style>`,
  }
  it('become headings where no number would appear, else by choice', () => {
    const of = () => sessionOf({ automatic, body, stylesAutomatic: smallPage, masters: standardMaster(), ...numbered })
    const levels = (after: ReturnType<typeof of>) =>
      after.reading.stories[0]!.blocks.map(block => (block.kind === 'paragraph' ? block.heading : null)).slice(0, 3)
    const safe = quickly(of(), { type: 'draw-up' })
    expect(levels(safe.after)).toEqual([null, 2, null])
    expect(safe.plan.left).toMatchObject([{ reason: 'as headings they would be numbered', count: 3 }])
    expect(levels(quickly(of(), { type: 'draw-up', headings: 'all' }).after)).toEqual([1, 2, null])
    expect(levels(quickly(of(), { type: 'draw-up', headings: 'none' }).after)).toEqual([null, null, null])
  })
})
