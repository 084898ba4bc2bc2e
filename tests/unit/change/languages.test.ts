import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { makeEdit } from '../../../core/change/make-edits'
import { DocumentSession } from '../../../core/session'
import { listLanguages } from '../../../core/change/languages/languages'
import type { Wish } from '../../../core/change/registry'
import { paragraphText } from '../../../core/style/runs'
import { displayPage } from '../../../core/typeset/display'
import {
  drawingOf,
  drawnPage,
  paragraphStyle,
  session,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
  typesetter,
} from '../../support/fixtures'
import { quickly } from '../../support/planning'

const styles =
  '<style:default-style style:family="graphic"><style:text-properties fo:language="en" ' +
  'fo:country="none" fo:font-size="10pt" fo:font-family="Spectral"/>' +
  '</style:default-style>' +
  paragraphStyle('De', 'fo:language="de" fo:country="none"') +
  textStyle('Fr', 'fo:language="fr" fo:country="none"')
const plan = (of: DocumentSession, wish: Wish) => quickly(of, wish)
const texts = (of: DocumentSession) =>
  of.reading.stories
    .flatMap(story => paragraphsOf(story.blocks))
    .filter(each => each.part === 'content.xml')
    .map(paragraphText)
const frame = (inside: string) => textFrame(shapeAt(1, 1, 6, 4), inside, 'draw:name="Box 1"')
const bilingual = () =>
  drawingOf({
    styles,
    automatic: textStyle('T1', 'fo:language="en" fo:country="none"'),
    pages: drawnPage(
      frame(
        '<text:p text:style-name="De">eins</text:p><text:p>one <text:span text:style-name="Fr">un</text:span>' +
          '</text:p><text:p text:style-name="De">zwei</text:p>',
      ) + textFrame(shapeAt(1, 6, 6, 2), '<text:p>alone</text:p>', 'draw:name="Other"'),
    ),
  })
const shown = (of: DocumentSession) =>
  displayPage(of.composition.pages[0]!)
    .runs.filter(run => run.glyphs.length > 0)
    .map(run => run.text)
    .join('|')

describe('text in several languages', () => {
  it('is counted by language', () => {
    expect(listLanguages(bilingual().reading)).toEqual([
      { language: 'en', characters: 9 },
      { language: 'de', characters: 8 },
      { language: 'fr', characters: 2 },
    ])
  })

  it('is split into frames of its own that lie where it was, line by line', () => {
    const open = bilingual()
    const { plan: made, after } = plan(open, { type: 'split', apart: { kind: 'language', language: 'de' } })
    expect(texts(after)).toEqual(['', 'one un', '', 'eins', '', 'zwei', 'alone'])
    const part = after.document.parts.get('content.xml')!
    const frames = [...part.descendants()].filter(each => each.name === 'draw:frame')
    expect(
      frames.map(each => [each.attributes['draw:name'], each.attributes['svg:x'], each.attributes['svg:width']]),
    ).toEqual([
      ['Box 1', '1cm', '6cm'],
      ['Box 2', '1cm', '6cm'],
      ['Other', '1cm', '6cm'],
    ])
    const lineOf = (of: DocumentSession, word: string) =>
      displayPage(of.composition.pages[0]!).runs.find(run => run.text === word)!.y
    expect(lineOf(after, 'zwei')).toBeCloseTo(lineOf(open, 'zwei'), 3)
    expect(made.rows).toMatchObject([{ count: 1, characters: 8 }])
    const again = session(saveDocument(after.document))
    expect(texts(again)).toEqual(texts(after))
    expect(saveDocument(applyAll(after.document, applyAll(open.document, made.operations).inverse).document)).toEqual(
      saveDocument(open.document),
    )
  })

  it('is split by character style, and refused where nothing is to be split', () => {
    const { after } = plan(bilingual(), { type: 'split', apart: { kind: 'style', name: 'Fr' } })
    expect(texts(after)).toEqual(['eins', 'one ', 'zwei', '', 'un', '', 'alone'])
    expect(() => plan(bilingual(), { type: 'split', apart: { kind: 'language', language: 'sv' } })).toThrow(
      /nothing to split/,
    )
  })

  it('is shown in one language alone, and all of it again', () => {
    const open = bilingual()
    const { after } = plan(open, { type: 'show', language: 'en' })
    expect(texts(after)).toEqual(texts(open))
    expect([shown(open), shown(after)]).toEqual([
      expect.stringContaining('eins'),
      expect.not.stringMatching(/eins|un|zwei/),
    ])
    expect(shown(after)).toContain('one')
    const german = plan(after, { type: 'show', language: 'de' }).after
    expect(shown(german)).toMatch(/eins.*zwei/)
    expect(shown(german)).not.toContain('one')
    const all = plan(german, { type: 'show', language: null }).after
    expect(shown(all)).toBe(shown(open))
    expect(all.reading.cascade.scope('styles.xml').common.size).toBe(
      open.reading.cascade.scope('styles.xml').common.size,
    )
    expect(() => plan(open, { type: 'show', language: null })).toThrow(/No text is hidden/)
    expect(() => plan(sessionOf({ body: '<text:p>x</text:p>' }), { type: 'show', language: 'en' })).toThrow(
      /or says no language/,
    )
  })
})

describe('a new frame', () => {
  it('begins in a style that is chosen for it', () => {
    const open = bilingual()
    const page = [...open.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:page')!
    const { document, made } = makeEdit(
      open.document,
      {
        type: 'add-frame',
        part: 'content.xml',
        node: page.id,
        place: { x: 0, y: 0, width: 50, height: 20 },
        text: { columns: 1, gap: 0, inset: 0 },
        style: 'De',
      },
      5000,
    )
    const after = new DocumentSession(document, typesetter)
    const own = after.reading.stories
      .flatMap(story => paragraphsOf(story.blocks))
      .find(each => each.holder?.kind === 'frame' && each.holder.node === made)!
    expect(own.styleName).toBe('De')
  })
})
