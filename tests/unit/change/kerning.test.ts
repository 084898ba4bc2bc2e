import { describe, expect, it } from 'vitest'
import { listKerning } from '../../../core/census/kerning'
import { documentPairs, pairsIn } from '../../../core/census/pairs'
import { makeEdit } from '../../../core/change/make-edits'
import { PlanError } from '../../../core/change/plan'
import { listStyles } from '../../../core/change/styles/style-list'
import { registry } from '../../../core/change/registry'
import { partOf, saveDocument } from '../../../core/document/open'
import { readRules } from '../../../core/document/rules'
import { paragraphsOf } from '../../../core/document/stories'
import { writeXml } from '../../../core/xml/write'
import { DocumentSession } from '../../../core/session'
import { eachLines } from '../../../core/typeset/compose'
import { pairSource } from '../../../core/typeset/pair-source'
import {
  drawingOf,
  drawnPage,
  face,
  library,
  paragraphStyle,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
  typesetter,
} from '../../support/fixtures'
import { planned, quickly, request, swap } from '../../support/planning'

const styles =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Lora" fo:font-size="20pt" ' +
  'style:letter-kerning="true" fo:language="en" fo:country="GB"/></style:default-style>' +
  paragraphStyle('Body') +
  paragraphStyle('Small', 'fo:font-size="10pt"', '', ' style:parent-style-name="Body"') +
  textStyle('Strong', 'fo:font-weight="bold"')
const p = (style: string, inside: string) => `<text:p text:style-name="${style}">${inside}</text:p>`
const strong = (inside: string) => `<text:span text:style-name="Strong">${inside}</text:span>`
const make = (body: string) => sessionOf({ stylesFaces: face('Lora'), faces: face('Lora'), styles, body })
const kern = (pairs: readonly object[], places: readonly object[] = []) => ({ type: 'kern', pairs, places })
const pair = (left: string, right: string, amount: number, more: object = { style: 'Regular' }) => ({
  family: 'Lora',
  left,
  right,
  amount,
  ...more,
})
const content = (of: DocumentSession) => writeXml(partOf(of.document, 'content.xml'))
/** Widths of the first lines of all paragraphs, in points. */
const widths = (of: DocumentSession): number[] => {
  const found: number[] = []
  for (const page of of.composition.pages)
    eachLines(page, ({ layout, from, to }) => {
      for (let at = from; at < to; at++) found.push(layout.lines[at]!.width)
    })
  return found
}
const apart = (one: DocumentSession, other: DocumentSession) =>
  widths(one).map((width, at) => Math.round((widths(other)[at]! - width) * 100) / 100)

describe('correcting a pair in a face', () => {
  const of = make(p('Body', `AVAST, ${strong('AV')} and AV`) + p('Small', 'An AV again') + p('Body', 'Nothing'))

  it('moves it wherever it stands, by its size, and nothing else', () => {
    const { plan, after } = planned(of, [kern([pair('A', 'V', -100)])])
    // Two at 20 points, one at 10; the bold one is another face.
    expect(apart(of, after)).toEqual([-4, -1, 0])
    expect(plan.rows.filter(row => row.key.what === 'pair')).toMatchObject([
      { title: '“AV” in Lora Regular', count: 3, before: 'as the face has it', after: '−100/1000 em', included: true },
    ])
    expect(plan.title).toBe('Set “AV” in Lora Regular −100/1000 em')
    expect(plan.effects).not.toBeNull()
  })

  it('counts all paragraphs in which spans change, and leads to the first five hundred', () => {
    const { plan } = quickly(make(p('Body', 'AV').repeat(503)), kern([pair('A', 'V', -100)]))
    const spans = plan.rows.find(row => row.key.what === 'spans of pairs')!
    expect([spans.count, spans.places.length]).toEqual([503, 500])
  })

  it('is written as spans that every reader shows, with what the face itself does, and are no strays', () => {
    const { after } = quickly(of, kern([pair('A', 'V', -100)]))
    const own = pairSource(
      typesetter.shaper,
      library.faces.find(each => each.family === 'Lora' && each.style === 'Regular')!,
    )!
    const spacing = (size: number) => Math.round(((own.kern('A', 'V')! - 100) * size) / 10) / 100
    const spans = [...content(after).matchAll(/<text:span text:style-name="([^"]+)">A<\/text:span>V/g)].map(
      match => match[1],
    )
    expect(spans).toHaveLength(3)
    const rules = readRules(after.document)
    expect(rules.kerning).toEqual([pair('A', 'V', -100)])
    expect(rules.pairStyles.map(each => each.spacing).sort()).toEqual([spacing(20), spacing(10)].sort())
    for (const { style, spacing: set } of rules.pairStyles)
      expect(writeXml(partOf(after.document, 'styles.xml'))).toMatch(
        new RegExp(`style:name="${style}"[^>]*><style:text-properties fo:letter-spacing="${set}pt"`),
      )
    expect(after.detail.census.settled).toBe(of.detail.census.settled)
    expect(after.detail.census.voices.map(voice => voice.characters)).toEqual(
      of.detail.census.voices.map(voice => voice.characters),
    )
    const names = (each: DocumentSession) => listStyles(each.reading, library, null).map(style => style.name)
    expect(names(after)).toEqual(names(of))
  })

  it('holds in the saved file, and goes without a trace when it is taken back', () => {
    const { after } = quickly(of, kern([pair('A', 'V', -100), pair('n', 'd', 40)]))
    const opened = DocumentSession.open(saveDocument(after.document), typesetter)
    expect(widths(opened)).toEqual(widths(after))
    const back = quickly(opened, kern([pair('A', 'V', 0), pair('n', 'd', 0)])).after
    expect(content(back)).toBe(content(of))
    expect(writeXml(partOf(back.document, 'styles.xml'))).toBe(writeXml(partOf(of.document, 'styles.xml')))
    expect(readRules(back.document)).toMatchObject({ kerning: [], pairStyles: [] })
  })

  it('may be left out pair by pair, and is refused where it is so already', () => {
    const { plan } = planned(
      of,
      [kern([pair('A', 'V', -100), pair('n', 'd', 40)])],
      [{ what: 'pair', family: 'Lora', style: 'Regular', left: 'A', right: 'V' }],
    )
    expect(plan.rows.filter(row => row.key.what === 'pair').map(row => row.included)).toEqual([false, true])
    const { after } = quickly(of, kern([pair('A', 'V', -100)]))
    expect(quickly(after, kern([pair('A', 'V', -100)])).plan.operations).toEqual([])
  })

  it('goes for all faces of a family, and one face may differ from them', () => {
    const family = quickly(of, kern([pair('A', 'V', -100, {})])).after
    expect(apart(of, family)).toEqual([-6, -1, 0])
    const both = quickly(family, kern([pair('A', 'V', 50, { style: 'Bold' })])).after
    expect(apart(of, both)).toEqual([-3, -1, 0])
    expect(readRules(both.document).kerning).toHaveLength(2)
  })

  it('is asked of many documents; a place is not', () => {
    expect(registry.whyNotMany(request([kern([pair('A', 'V', -10)])]))).toBeNull()
    expect(registry.whyNotMany(request([kern([], [{ part: 'content.xml', node: 1, from: 0, amount: 5 }])]))).toContain(
      'one document',
    )
    expect(registry.sentences(request([kern([pair('A', 'V', -10), pair('n', 'd', 4)])]))).toEqual([
      'Correct 2 pairs of letters.',
    ])
  })
})

describe('correcting a pair at one place', () => {
  const of = make(p('Body', 'AV and AV'))
  const node = paragraphsOf(of.reading.stories[0]!.blocks)[0]!.node
  const place = (from: number, amount: number) => ({ part: 'content.xml', node, from, amount })

  it('moves that one, keeps it when the face is corrected, and lets it go again', () => {
    const here = quickly(of, kern([], [place(7, 200)])).after
    expect(apart(of, here)).toEqual([4])
    const face = quickly(here, kern([pair('A', 'V', -100)])).after
    expect(apart(of, face)).toEqual([2])
    const back = quickly(face, kern([], [place(7, 0)])).after
    expect(apart(of, back)).toEqual([-4])
    expect(content(quickly(back, kern([pair('A', 'V', 0)])).after)).toBe(content(of))
  })

  it('holds there alone: the pair that begins where it ends goes by the face', () => {
    const next = make(p('Body', 'AVA'))
    const { node: own } = paragraphsOf(next.reading.stories[0]!.blocks)[0]!
    const here = quickly(next, kern([], [{ ...place(0, 200), node: own }])).after
    expect(apart(here, quickly(here, kern([pair('V', 'A', -100)])).after)).toEqual([-2])
    expect(apart(here, quickly(here, kern([pair('A', 'V', -100)])).after)).toEqual([0])
  })

  it('is refused where there is no pair any more', () => {
    expect(() => quickly(of, kern([], [place(1, 50)]))).toThrow(PlanError)
    expect(() => quickly(of, kern([], [{ ...place(0, 50), node: 99_999 }]))).toThrow('not at that place')
  })
})

describe('what is typed where a face differs from its family', () => {
  it('goes by the face, as its spans do, in whatever order the two were corrected', () => {
    for (const order of [
      [pair('A', 'V', -100, {}), pair('A', 'V', 50)],
      [pair('A', 'V', 50), pair('A', 'V', -100, {})],
    ]) {
      const of = quickly(make(p('Body', 'AV and')), kern(order)).after
      const paragraph = paragraphsOf(of.reading.stories[0]!.blocks)[0]!
      const edit = { type: 'text', part: paragraph.part, node: paragraph.node, from: 6, to: 6, text: ' AV' } as const
      const typed = new DocumentSession(makeEdit(of.document, edit, 90_000).document, typesetter, of)
      const spanned = quickly(typed, kern([pair('n', 'd', 0), pair('O', 'x', 5)])).after
      expect(apart(typed, spanned)).toEqual([0])
    }
  })
})

describe('corrected pairs and what else happens to a document', () => {
  const of = quickly(make(p('Body', 'AV and AV') + p('Small', 'Off it')), kern([pair('A', 'V', -100)])).after

  it('follow a change of size, and go where the face goes', () => {
    const larger = quickly(of, {
      type: 'edit',
      family: 'paragraph',
      name: 'Body',
      changes: { text: { 'fo:font-size': '40pt' } },
    })
    const without = quickly(larger.after, kern([pair('A', 'V', 0)])).after
    expect(apart(without, larger.after)).toEqual([-8, 0])
    const swapped = quickly(of, swap('Lora', 'Inter')).after
    expect(content(swapped)).not.toContain('Pair')
    expect(readRules(swapped.document).kerning).toHaveLength(1)
  })

  it('act at once on what is typed, before there are spans', () => {
    const paragraph = paragraphsOf(of.reading.stories[0]!.blocks)[1]!
    const typed = makeEdit(
      of.document,
      { type: 'text', part: paragraph.part, node: paragraph.node, from: 0, to: 0, text: 'AV ' },
      90_000,
    )
    const after = new DocumentSession(typed.document, typesetter, of)
    const without = quickly(after, kern([pair('A', 'V', 0)])).after
    expect(apart(without, after)).toEqual([-4, -1])
    // The next plan writes them: whatever it is about, and the lines stay where they are.
    const next = quickly(after, kern([pair('f', 'f', 0), pair('O', 'f', 30)])).after
    expect(content(next)).toMatch(/<text:span text:style-name="Pair[^"]*">A<\/text:span>V <\/?/)
    expect(apart(after, next)[0]).toBe(0)
  })

  it('are found in decks, in text that a style sets in capitals, and not in fields', () => {
    const deck = drawingOf({
      pages: drawnPage(textFrame(shapeAt(1, 1, 8, 3), '<text:p text:style-name="P">AVAST</text:p>')),
      automatic: paragraphStyle('P', 'fo:font-family="Lora" fo:font-size="20pt" style:letter-kerning="true"'),
    })
    expect(documentPairs(deck.reading, typesetter)[0]!.pairs.map(each => each.left + each.right)).toEqual([
      'AV',
      'VA',
      'AS',
      'ST',
    ])
    const capitals = sessionOf({
      stylesFaces: face('Lora'),
      styles,
      automatic: textStyle('T1', 'fo:text-transform="uppercase"'),
      body: p('Body', '<text:span text:style-name="T1">av</text:span><text:title>AV</text:title>'),
    })
    const [story] = capitals.reading.stories
    const found = [...pairsIn(paragraphsOf(story!.blocks)[0]!, story!.role, capitals.reading.cascade, typesetter)]
    expect(found.map(each => each.left + each.right)).toEqual(['AV'])
  })

  it('are told with how often they stand, in which words and sizes', () => {
    const [lora] = documentPairs(make(p('Body', 'Avast! Avert') + p('Small', 'An Ave')).reading, typesetter)
    const av = lora!.pairs.find(each => each.left + each.right === 'Av')!
    expect([lora!.face.family, av.count]).toEqual(['Lora', 3])
    expect(av.places.map(({ word, at, size }) => [word, at, size])).toEqual([
      ['Avast!', 0, 20],
      ['Avert', 0, 20],
      ['Ave', 0, 10],
    ])
  })
})

describe('the pairs of a document’s faces', () => {
  it('are told face by face, the oddest of the document first, with what corrects them', () => {
    const of = quickly(
      make(p('Body', 'AVAST AV') + p('Small', `Two ${strong('AV')}`)),
      kern([pair('A', 'V', -100)]),
    ).after
    const faces = [...listKerning(of.reading, typesetter)]
    expect(faces.map(each => [each.family, each.style, each.count])).toEqual([
      ['Lora', 'Regular', 7],
      ['Lora', 'Bold', 1],
    ])
    const [regular] = faces
    expect(regular!.usual!.kerned).toBeGreaterThan(0.9)
    const rows = regular!.rows.filter(each => each.count > 0)
    expect(rows.map(each => each.left + each.right).sort()).toEqual(['AS', 'AV', 'ST', 'Tw', 'VA', 'wo'].sort())
    expect(rows.find(each => each.left + each.right === 'AV')).toMatchObject({ count: 2, inFace: -100, inFamily: null })
    const far = rows.map(each => Math.abs(each.oddness ?? 0))
    expect(far).toEqual([...far].sort((a, b) => b - a))
  })
})
