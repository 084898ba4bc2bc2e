import { describe, expect, it } from 'vitest'
import { matchText } from '../../../core/census/matching'
import { occurrencesOf } from '../../../core/census/occurrences'
import { documentPairs } from '../../../core/census/pairs'
import { styleRoles } from '../../../core/census/style-roles'
import { voiceKey } from '../../../core/census/voices'
import { findUntidy } from '../../../core/change/clean-up/clean-up'
import { listLanguages } from '../../../core/change/languages/languages'
import { previewRule } from '../../../core/change/rules/rule-preview'
import { stretchesOf } from '../../../core/change/scope'
import { styleUses } from '../../../core/change/styles/style-uses'
import { styledPlaces } from '../../../core/desk/styled-text'
import { partOf } from '../../../core/document/open'
import { allParagraphs, standingParagraphs } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { writeXml } from '../../../core/xml/write'
import { winterService } from '../../../demo/houses'
import { face, library, paragraphStyle, sessionOf, textStyle, typesetter } from '../../support/fixtures'
import { quickly, swap } from '../../support/planning'

/*
 * What a tracked change deleted is kept in the file for whoever refuses the change. Nothing counts it, finds it or sets it:
 * with it or without, a document is the same to everything that asks for its text.
 */
const paragraphs =
  '<text:p text:style-name="Body">AV  2 kegs, <text:span text:style-name="T1">AV</text:span> "so"</text:p>' +
  '<text:p text:style-name="P1">AV 3 <text:span text:style-name="De">Fisch</text:span></text:p>' +
  '<text:h text:style-name="Head" text:outline-level="1">AV ahead</text:h>'
const deletion =
  `<text:tracked-changes text:track-changes="false"><text:changed-region text:id="c"><text:deletion>${paragraphs}</text:deletion>` +
  '</text:changed-region></text:tracked-changes>'
const make = (deleted: string) =>
  sessionOf({
    stylesFaces: face('Lora') + face('Jost'),
    faces: face('Lora') + face('Jost'),
    styles:
      '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Lora" fo:font-size="11pt" ' +
      'fo:language="en" fo:country="GB"/></style:default-style>' +
      paragraphStyle('Body') +
      paragraphStyle('Head', 'fo:font-size="18pt"') +
      textStyle('Words', 'fo:font-style="italic"') +
      textStyle('De', 'fo:language="de" fo:country="DE"'),
    automatic:
      paragraphStyle('P1', 'fo:font-size="9pt"', '', ' style:parent-style-name="Body"') +
      textStyle('T1', 'style:font-name="Jost" fo:font-size="9pt"'),
    body: deleted + paragraphs,
  })
const standing = make('')
const tracked = make(deletion)
const content = (of: DocumentSession) => writeXml(partOf(of.document, 'content.xml'))

/** What an answer says, whatever the numbers of its nodes. */
const said = (answer: unknown): unknown =>
  JSON.parse(JSON.stringify(answer, (key, value: unknown) => (key === 'node' ? undefined : value)))

describe('deleted text that a tracked change keeps', () => {
  it('is read, and stands apart', () => {
    expect([...allParagraphs(tracked.reading)]).toHaveLength(6)
    expect([...standingParagraphs(tracked.reading)].map(({ story }) => story.role)).toEqual(['body', 'body', 'body'])
  })

  it.each<[string, (of: DocumentSession) => unknown]>([
    [
      'a search',
      ({ reading }) =>
        matchText(reading, library, null, {
          words: { text: 'AV', expression: false, matchCase: true, wholeWords: false },
          look: {},
          scope: { kind: 'document' },
        }).map(each => [each.from, each.to]),
    ],
    [
      'the places of a voice',
      ({ reading, detail }) =>
        detail.census.voices.map(({ key }) => occurrencesOf(reading, key).map(({ from, to }) => [key, from, to])),
    ],
    ['the pairs of letters', ({ reading }) => documentPairs(reading, typesetter).map(each => each.pairs)],
    ['the roles of styles', ({ reading }) => [...styleRoles(reading)]],
    [
      'the uses of styles',
      ({ reading }) =>
        [...styleUses(reading, null)].map(([style, { paragraphs: count, characters, settled, level }]) => [
          style.name,
          count,
          characters,
          settled,
          level,
        ]),
    ],
    [
      'a rule that is being written',
      ({ composition }) =>
        previewRule(composition, {
          ignoreCase: false,
          id: 'r',
          title: 'Figures',
          on: true,
          style: 'Body',
          character: 'Words',
          pattern: '\\d',
        }),
    ],
    [
      'text of a style',
      ({ reading }) =>
        (['Body', 'Head'] as const).map(name =>
          stretchesOf(reading, { kind: 'style', family: 'paragraph', name }).map(({ from, to }) => [from, to]),
        ),
    ],
    ['the languages', ({ reading }) => listLanguages(reading)],
    [
      'a walk through a style',
      of => (['Body', 'Head'] as const).map(name => styledPlaces(of, 'paragraph', name).map(each => each.page)),
    ],
    ['a walk through words of a style', of => styledPlaces(of, 'text', 'De').length],
    ['words of a style', ({ reading }) => stretchesOf(reading, { kind: 'style', family: 'text', name: 'De' }).length],
  ])('does not count in %s', (_, ask) => {
    expect(said(ask(tracked))).toEqual(said(ask(standing)))
  })

  const voice = tracked.detail.census.voices.find(each => each.family === 'Jost')!
  const other = tracked.detail.census.voices.find(each => each.family === 'Lora')!
  it.each<[string, readonly object[]]>([
    [
      'a weight for words found',
      [{ type: 'recast', find: { words: { text: 'AV' }, look: {} }, change: { weight: 700 } }],
    ],
    ['local formatting settled', [{ type: 'settle', scope: { kind: 'document' }, groups: ['face', 'size'] }]],
    ['a voice folded', [{ type: 'fold-voice', from: voiceKey(voice), to: voiceKey(other) }]],
    [
      'rules',
      [
        {
          type: 'rules',
          style: 'Body',
          patterns: [{ id: 'r', title: 'Figures', on: true, style: 'Body', character: 'Words', pattern: '\\d' }],
          leadIns: [],
        },
      ],
    ],
    [
      'corrected pairs',
      [{ type: 'kern', pairs: [{ family: 'Lora', left: 'A', right: 'V', amount: -50 }], places: [] }],
    ],
    ['other languages hidden', [{ type: 'show', language: 'en-GB' }]],
    ['a house', [{ type: 'dress', house: winterService }]],
    ['styles drawn up', [{ type: 'draw-up' }]],
    [
      'a face on all text of a style',
      [{ type: 'set-type', to: { family: 'Jost' }, on: { kind: 'style', family: 'paragraph', name: 'Body' } }],
    ],
    [
      'a swap of some text',
      [swap('Lora', 'Jost', { within: { look: { paragraphStyle: 'Body' } }, size: { mode: 'x-height' } })],
    ],
  ])('is not set by %s', (_, wishes) => {
    const with_ = quickly(tracked, ...wishes)
    const without = quickly(standing, ...wishes)
    expect(
      said(with_.plan.rows.map(({ title, count, before, after, included }) => [title, count, before, after, included])),
    ).toEqual(
      said(
        without.plan.rows.map(({ title, count, before, after, included }) => [title, count, before, after, included]),
      ),
    )
    expect(with_.plan.left).toEqual(without.plan.left)
    expect(content(with_.after)).toContain(deletion)
    expect(without.plan.operations).not.toEqual([])
  })

  it('counts in the census as what it is: its fonts are in the file', () => {
    const lora = (of: DocumentSession) => of.detail.census.faces.find(each => each.family === 'Lora')!
    expect(lora(standing).places.deletion).toBe(0)
    expect(lora(tracked)).toMatchObject({ characters: lora(standing).characters * 2, places: { deletion: 4 } })
  })

  it('is not put in order', () => {
    const untidy = {
      emptyParagraphs: true,
      doubleSpaces: true,
      edgeSpaces: true,
      tabIndents: true,
      straightQuotes: true,
    }
    const places = (of: DocumentSession) => findUntidy(of.document, of.reading, untidy).places
    expect(places(standing)).toHaveLength(2)
    expect(said(places(tracked))).toEqual(said(places(standing)))
  })
})
