import { describe, expect, it } from 'vitest'
import { compareDocuments, type Difference } from '../../../core/compare/compare'
import { pairParagraphs, comparedParagraphs } from '../../../core/compare/sequence'
import { applyEdit } from '../../../core/document/edits'
import { paragraphsOf } from '../../../core/document/stories'
import { DocumentSession } from '../../../core/session'
import { paragraphText } from '../../../core/style/runs'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { numbersFrom } from '../../support/seeded'
import { quickly } from '../../support/planning'

const p = (text: string, style = 'Body') => `<text:p text:style-name="${style}">${text}</text:p>`
const styles =
  paragraphStyle('Body', 'fo:font-family="Spectral" fo:font-size="11pt"') +
  paragraphStyle('Note', 'fo:font-family="Jost" fo:font-size="9pt"', '', ' style:parent-style-name="Body"')
const of = (...paragraphs: string[]) => sessionOf({ body: paragraphs.join(''), styles })
const told = (before: DocumentSession, after: DocumentSession) =>
  compareDocuments(before, after).differences.map(({ kind, one, other }) => [kind, one, other])

const quay = 'The launch goes from the old quay at eight.'
const pier = 'Tickets are sold at the pier, and on board.'
const slip = 'Nobody is left behind who holds one.'

describe('two documents', () => {
  it('that are alike differ in nothing', () => {
    const {
      differences,
      voices,
      styles: changed,
      more,
    } = compareDocuments(session(sailingGuide()), session(sailingGuide()))
    expect([differences, voices, changed, more]).toEqual([[], [], [], 0])
  })

  it('are told apart by words, where each has them', () => {
    const [before, after] = [of(p(quay), p(pier)), of(p(quay.replace('old quay', 'new pier')), p(pier))]
    const [one, ...others] = compareDocuments(before, after).differences
    expect(one).toMatchObject({ kind: 'words', one: 'old quay', other: 'new pier', before: { start: 25, end: 33 } })
    expect(one!.after).toMatchObject({ start: 25, end: 33, page: 0 })
    expect(others).toEqual([])
  })

  it('are told apart by paragraphs that came and went', () => {
    expect(told(of(p(quay), p(pier)), of(p(quay), p(slip), p(pier)))).toEqual([['came', '', slip]])
    expect(told(of(p(quay), p(slip), p(pier)), of(p(quay), p(pier)))).toEqual([['went', slip, '']])
    expect(told(of(p(quay), p(pier)), of(p(slip), p(pier)))).toEqual([
      ['went', quay, ''],
      ['came', '', slip],
    ])
  })

  it('are told apart by styles, levels and setting', () => {
    const after = of(`<text:h text:style-name="Body" text:outline-level="2">${quay}</text:h>`, p(pier, 'Note'))
    expect(told(of(p(quay), p(pier)), after)).toEqual([
      ['style', 'Body', 'Body, heading 2'],
      ['look', 'Spectral Regular 11', 'Jost Regular 9'],
      ['style', 'Body', 'Note'],
    ])
    const centred = sessionOf({
      body: p(quay, 'C'),
      styles,
      automatic: paragraphStyle('C', '', 'fo:text-align="center"', ' style:parent-style-name="Body"'),
    })
    expect(told(of(p(quay)), centred)).toEqual([['setting', 'as usual', 'centred']])
  })

  it('are told apart by what their styles say, and by their voices', () => {
    const before = of(p(quay), p(pier, 'Note'))
    const { after } = quickly(before, {
      type: 'edit',
      family: 'paragraph',
      name: 'Note',
      changes: { text: { 'fo:font-size': '10pt' } },
    })
    const { styles: changed, voices } = compareDocuments(before, after)
    expect(changed).toMatchObject([{ what: 'Note', one: 'as Body, Jost, 9 pt', other: 'as Body, Jost, 10 pt' }])
    expect(new Set(voices.map(each => each.key)).size).toBe(2)
    expect(voices).toMatchObject([
      { what: 'Jost Regular 9', one: `${pier.length} characters`, other: null },
      { what: 'Jost Regular 10', one: null, other: `${pier.length} characters` },
    ])
  })

  it('tell styles of two kinds with one name apart', () => {
    const both = (size: number) =>
      sessionOf({
        body: p(quay),
        styles:
          paragraphStyle('Ferry', `fo:font-size="${size}pt"`) + textStyle('Ferry', `fo:font-size="${size + 1}pt"`),
      })
    const { styles: changed } = compareDocuments(both(9), both(10))
    expect(changed.map(each => each.what).sort()).toEqual(['Ferry (character style)', 'Ferry (paragraph style)'])
    expect(new Set(changed.map(each => each.key)).size).toBe(2)
  })

  it('say where text begins to stand on other pages, and no more of it', () => {
    const lines = Array.from({ length: 40 }, (_, at) => p(`Line ${at + 1} of the timetable`))
    const more = Array.from({ length: 20 }, (_, at) => p(`New ${at + 1}`))
    const pages = compareDocuments(of(...lines), of(...more, ...lines)).differences.filter(each => each.kind === 'page')
    expect(pages.length).toBeGreaterThan(0)
    expect(pages.length).toBeLessThan(6)
    expect(pages[0]!.other).not.toBe(pages[0]!.one)
  })

  it('pair every paragraph once, however they were moved about', () => {
    const random = numbersFrom(7)
    for (let round = 0; round < 30; round++) {
      const texts = Array.from(
        { length: 30 },
        (_, at) => `Paragraph ${at} of the ${['quay', 'pier', 'slip'][at % 3]} list`,
      )
      const other = texts.flatMap(text => (random() < 0.2 ? [] : random() < 0.2 ? [text, `${text} and more`] : [text]))
      const [before, after] = [
        comparedParagraphs(of(...texts.map(each => p(each)))),
        comparedParagraphs(of(...other.map(each => p(each)))),
      ]
      const pairs = pairParagraphs(before, after)
      expect(pairs.flatMap(each => each.before ?? [])).toEqual(before)
      expect(pairs.flatMap(each => each.after ?? [])).toEqual(after)
    }
  })
})

describe('edits made by a script', () => {
  const before = session(sailingGuide())
  const body = before.reading.stories.find(story => story.role === 'body')!
  const long = paragraphsOf(body.blocks).filter(each => each.place === 'body' && paragraphText(each).length > 120)
  const at = (index: number) => ({ part: long[index]!.part, node: long[index]!.node })
  const range = (index: number, from: number, to: number) => ({ kind: 'ranges', ranges: [{ ...at(index), from, to }] })
  const recast = (index: number, change: object) => ({
    type: 'recast',
    find: { look: {}, scope: range(index, 4, 30) },
    change,
  })
  const found = (after: DocumentSession): Difference[] => [...compareDocuments(before, after).differences]
  const kindsAt = (list: readonly Difference[], index: number) =>
    list.filter(each => each.after?.node === at(index).node).map(each => each.kind)

  it('are all found, and nothing else', () => {
    const { after: recasted } = quickly(
      before,
      recast(1, { family: 'Jost' }),
      recast(5, { size: { points: 12 } }),
      recast(9, { color: '#b4361e' }),
      {
        type: 'apply',
        style: { family: 'paragraph', name: 'Lead' },
        scope: range(13, 0, 10_000),
        strays: 'keep',
        keep: [],
      },
    )
    const words = { type: 'text' as const, ...at(17), from: 0, to: 3, text: 'Every' }
    const written = applyEdit(recasted.document, words, recasted.document.parts.get(at(17).part)!.nextId).document
    const after = new DocumentSession(written, before.typesetter)
    const all = found(after).filter(each => each.kind !== 'page')
    // Words that were set apart before are told by themselves.
    for (const index of [1, 5, 9]) expect([...new Set(kindsAt(all, index))]).toEqual(['look'])
    expect(kindsAt(all, 13)).toContain('style')
    expect(kindsAt(all, 17)).toEqual(['words'])
    const touched = new Set([1, 5, 9, 13, 17].map(index => at(index).node))
    expect(all.filter(each => !touched.has(each.after?.node ?? -1))).toEqual([])
    expect(all.find(each => each.after?.node === at(5).node)!.other).toMatch(/ 12 \//)
  })

  it('to a slide are found on that slide', () => {
    const deck = session(seasonReview())
    const { after } = quickly(deck, { type: 'levels', levels: [{ placeholder: 'title', setting: { size: 33 } }] })
    const { differences, styles: changed } = compareDocuments(deck, after)
    expect(changed.map(each => each.what)).toEqual(['Saltmere-title'])
    expect(differences.every(each => each.kind === 'look' && / 33/.test(each.other))).toBe(true)
    expect(new Set(differences.map(each => each.after!.page)).size).toBeGreaterThan(5)
  })
})
