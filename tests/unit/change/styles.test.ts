import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { openDocument, saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { settleAll } from '../../../core/change/styles/wishes'
import type { Wish } from '../../../core/change/registry'
import type { DocumentSession } from '../../../core/session'
import { paragraphText } from '../../../core/style/runs'
import { writeElement } from '../../../core/xml/write'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import {
  drawingOf,
  drawnPage,
  face,
  graphicStyle,
  paragraphStyle,
  session,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { planned, quickly } from '../../support/planning'

const parent = (name: string) => ` style:parent-style-name="${name}"`
const texts = (of: DocumentSession) =>
  of.reading.stories.flatMap(story => paragraphsOf(story.blocks)).map(paragraphText)
const plan = (of: DocumentSession, ...wishes: Wish[]) => quickly(of, ...wishes)
/** The paragraphs of the body as they are written, with short names. */
function body(of: DocumentSession): string[] {
  const part = of.document.parts.get('content.xml')!
  return of.reading.stories
    .filter(story => story.role === 'body')
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraph =>
      writeElement(part, paragraph.node)
        .replaceAll('text:style-name', 's')
        .replaceAll('text:span', 'span')
        .replace(/<(\/?)text:/g, '<$1'),
    )
}
const automatic = (of: DocumentSession) =>
  [...of.reading.cascade.scopes.values()].flatMap(scope => [...scope.automatic.values()].map(style => style.name))
const common = (of: DocumentSession, name: string) =>
  [...[...of.reading.cascade.scopes.values()][0]!.common.values()].find(style => style.name === name)
const nodes = (of: DocumentSession) =>
  of.reading.stories
    .filter(story => story.role === 'body')
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraph => paragraph.node)
const range = (of: DocumentSession, paragraph: number, from = 0, to = 1e6) => ({
  kind: 'ranges' as const,
  ranges: [{ part: 'content.xml', node: nodes(of)[paragraph]!, from, to }],
})

const styles =
  paragraphStyle('Body', 'fo:font-family="Spectral" fo:font-size="10pt"') +
  paragraphStyle(
    'Head',
    'fo:font-size="14pt" fo:font-weight="bold"',
    'fo:keep-with-next="always"',
    `${parent('Body')} style:default-outline-level="1"`,
  ) +
  paragraphStyle('Quote', 'fo:font-style="italic"', 'fo:margin-left="1cm"', parent('Body')) +
  textStyle('Name', 'fo:font-style="italic"')

describe('settling', () => {
  it('leaves what the styles say, drops spans and styles that nothing needs, and keeps breaks', () => {
    const open = sessionOf({
      styles,
      automatic:
        paragraphStyle('P1', 'fo:font-size="11pt"', 'fo:break-before="page"', parent('Body')) +
        paragraphStyle('P2', 'fo:font-size="11pt"', '', parent('Body')) +
        textStyle('T1', 'fo:color="#ff0000"') +
        textStyle('T2', 'fo:font-size="9pt"', parent('Name')),
      body:
        '<text:p text:style-name="P1">a<text:span text:style-name="T1">b</text:span>c</text:p>' +
        '<text:p text:style-name="P2">d<text:span text:style-name="T2">e</text:span></text:p>',
    })
    const { plan: made, after } = plan(open, settleAll)
    expect(body(after)).toEqual(['<p s="P1">abc</p>', '<p s="Body">d<span s="Name">e</span></p>'])
    expect(automatic(after)).toEqual(['P1'])
    expect(after.detail.census.settled).toBe(1)
    expect(made.rows.map(row => [row.title, row.count, row.before, row.after])).toEqual([
      ['Paragraphs of Body', 2, '11 pt', 'as Body says'],
      ['Words set by hand', 1, '#ff0000', 'as its styles say'],
      ['Words set by hand in Name', 1, '9 pt', 'as Name says'],
    ])
  })

  it('turns what is meant into character styles: one style for one emphasis', () => {
    const open = sessionOf({
      styles,
      automatic:
        textStyle('T1', 'fo:font-style="italic" fo:color="#ff0000"') +
        textStyle('T2', 'fo:font-style="italic"') +
        textStyle('T3', 'style:text-position="super 58%"') +
        paragraphStyle('P1', 'fo:font-weight="bold"', '', parent('Body')) +
        textStyle('T4', 'fo:font-weight="bold"'),
      body:
        '<text:p text:style-name="Body"><text:span text:style-name="T1">a</text:span>b<text:span ' +
        'text:style-name="T2">c</text:span><text:span text:style-name="T3">d</text:span>' +
        '</text:p><text:p text:style-name="P1">x<text:span text:style-name="T2">y</text:span>' +
        '</text:p><text:p text:style-name="Head"><text:span text:style-name="T4">idle</text:span></text:p>',
    })
    const { after } = plan(open, settleAll)
    expect(body(after)).toEqual([
      '<p s="Body"><span s="Emphasis">a</span>b<span s="Emphasis">c</span><span s="Superior">d</span></p>',
      '<p s="Body"><span s="Strong">x<span s="Emphasis">y</span></span></p>',
      '<p s="Head">idle</p>',
    ])
    expect(common(after, 'Emphasis')!.text).toEqual({
      'fo:font-style': 'italic',
      'style:font-style-asian': 'italic',
      'style:font-style-complex': 'italic',
    })
    expect(after.detail.census.settled).toBe(1)
    const looks = (of: DocumentSession) =>
      of.detail.census.voices
        .filter(voice => voice.color === '')
        .map(voice => `${voice.style} ${voice.position}`)
        .sort()
    expect(looks(after)).toEqual(looks(open))
  })

  it('takes one property only, or only what changes nothing', () => {
    const fixture = {
      styles,
      automatic:
        textStyle('T1', 'fo:font-size="9pt" fo:color="#ff0000"') +
        textStyle('T2', 'fo:font-size="10pt" fo:color="#00ff00"'),
      body:
        '<text:p text:style-name="Body"><text:span text:style-name="T1">a</text:span>' +
        '<text:span text:style-name="T2">b</text:span></text:p>',
    }
    const open = sessionOf(fixture)
    const one = plan(open, { ...settleAll, groups: ['color'] } as Wish).after
    expect(one.detail.census.voices.map(voice => [voice.size, voice.color])).toEqual([
      [10, ''],
      [9, ''],
    ])
    const idle = plan(open, { ...settleAll, idleOnly: true } as Wish)
    expect(idle.plan.rows.map(row => row.before)).toEqual(['10 pt'])
    expect(idle.after.detail.census.voices).toEqual(open.detail.census.voices)
  })

  it('settles a selection alone: spans are cut at its ends, others of the style stay', () => {
    const open = sessionOf({
      styles,
      automatic: textStyle('T1', 'fo:color="#ff0000"'),
      body:
        '<text:p text:style-name="Body"><text:span text:style-name="T1">abcd</text:span>' +
        '</text:p><text:p><text:span text:style-name="T1">e</text:span></text:p>',
    })
    const { after } = plan(open, { ...settleAll, scope: range(open, 0, 1, 3) } as Wish)
    expect(body(after)).toEqual([
      '<p s="Body"><span s="T1">a</span>bc<span s="T1">d</span></p>',
      '<p><span s="T1">e</span></p>',
    ])
  })

  it('settles frames and cells, but leaves the emphasis of a whole frame and says so', () => {
    const open = drawingOf({
      automatic: graphicStyle('gr1', 'draw:fill="none"', 'fo:font-size="20pt" fo:font-weight="bold"'),
      pages: drawnPage(textFrame(shapeAt(0, 0, 5, 2), '<text:p>a</text:p>', 'draw:style-name="gr1"')),
    })
    const { plan: made, after } = plan(open, settleAll)
    expect(after.detail.census.voices.map(voice => [voice.size, voice.style])).toEqual([[10, 'Bold']])
    expect(made.left).toMatchObject([{ what: 'weight of a whole frame', count: 1 }])
  })

  it('keeps rows that are left out', () => {
    const open = sessionOf({
      styles,
      automatic: textStyle('T1', 'fo:color="#ff0000"') + textStyle('T2', 'fo:font-size="9pt"'),
      body: '<text:p><text:span text:style-name="T1">a</text:span><text:span text:style-name="T2">b</text:span></text:p>',
    })
    const { plan: made } = plan(open, settleAll)
    const { after } = planned(open, [settleAll], [made.rows[0]!.key])
    expect(body(after)).toEqual(['<p><span s="T1">a</span>b</p>'])
  })

  it('brings the Sailing guide to 100 % without twins, and its pages stay', () => {
    const open = session(sailingGuide())
    expect(open.detail.census.settled).toBeLessThan(0.9)
    const { plan: made, after } = planned(open, [settleAll])
    expect([
      after.detail.census.settled,
      after.detail.census.voices.filter(voice => voice.twinOf !== null).length,
    ]).toEqual([1, 0])
    expect(texts(after)).toEqual(texts(open))
    expect([made.effects!.pagesBefore, made.effects!.pagesAfter]).toEqual([24, 24])
    expect(session(saveDocument(after.document)).detail.census).toEqual(after.detail.census)
    expect(saveDocument(applyAll(after.document, applyAll(open.document, made.operations).inverse).document)).toEqual(
      sailingGuide(),
    )
  })
})

describe('applying styles', () => {
  it('keeps strays or settles them, and makes headings of paragraphs', () => {
    const open = sessionOf({
      styles,
      automatic:
        paragraphStyle('P1', 'fo:color="#ff0000"', 'fo:break-before="page"', parent('Body')) +
        textStyle('T1', 'fo:font-size="8pt"'),
      body:
        '<text:p text:style-name="P1">a<text:span text:style-name="T1">b</text:span>' +
        '</text:p><text:h text:style-name="Head" text:outline-level="1">c</text:h>',
    })
    const keep = plan(open, {
      type: 'apply',
      style: { family: 'paragraph', name: 'Head' },
      scope: range(open, 0),
      strays: 'keep',
      keep: [],
    }).after
    expect(body(keep)[0]).toMatch(/^<h s="P\d" text:outline-level="1">a<span s="T1">b<\/span><\/h>$/)
    const voice = keep.detail.census.voices.find(each => each.size === 14 && each.color === '#ff0000')
    expect(voice).toBeDefined()
    const settled = plan(open, {
      type: 'apply',
      style: { family: 'paragraph', name: 'Head' },
      scope: range(open, 0),
      strays: 'settle',
      keep: [],
    }).after
    expect(settled.detail.census.settled).toBe(1)
    const [first] = settled.reading.stories[0]!.blocks
    expect(first?.kind === 'paragraph' && settled.reading.cascade.paragraph(first).properties['fo:break-before']).toBe(
      'page',
    )
    const down = plan(open, {
      type: 'apply',
      style: { family: 'paragraph', name: 'Quote' },
      scope: range(open, 1),
      strays: 'settle',
      keep: [],
    }).after
    expect(body(down)[1]).toBe('<p s="Quote">c</p>')
  })

  it('gives words a character style in place of another, and takes it away', () => {
    const open = sessionOf({
      styles: styles + textStyle('Loud', 'fo:font-weight="bold"'),
      automatic: textStyle('T1', 'fo:color="#ff0000"', parent('Name')),
      body: '<text:p>a<text:span text:style-name="Name">bc</text:span><text:span text:style-name="T1">d</text:span></text:p>',
    })
    const wish = (name: string | null, from: number, to: number, strays: 'keep' | 'settle' = 'keep'): Wish => ({
      type: 'apply',
      style: { family: 'text', name },
      scope: range(open, 0, from, to),
      strays,
      keep: [],
    })
    expect(body(plan(open, wish('Loud', 0, 2)).after)).toEqual([
      '<p><span s="Loud">ab</span><span s="Name">c</span><span s="T1">d</span></p>',
    ])
    const kept = plan(open, wish('Loud', 1, 4)).after
    expect(body(kept)).toEqual(['<p>a<span s="Loud">bc<span s="T2">d</span></span></p>'])
    expect(kept.detail.census.voices.map(voice => [voice.style, voice.color, voice.characters])).toContainEqual([
      'Bold',
      '#ff0000',
      1,
    ])
    expect(body(plan(open, wish('Loud', 1, 4, 'settle')).after)).toEqual(['<p>a<span s="Loud">bcd</span></p>'])
    expect(body(plan(open, wish(null, 1, 4, 'settle')).after)).toEqual(['<p>abcd</p>'])
  })

  it('styles a frame with what is written into it later, and all of a voice', () => {
    const open = drawingOf({
      styles: paragraphStyle('Label', 'fo:font-size="7pt"'),
      pages: drawnPage(textFrame(shapeAt(0, 0, 5, 2), '<text:p>a</text:p><text:p>b</text:p>')),
    })
    const frame = [...open.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:frame')!
    const { after } = plan(open, {
      type: 'apply',
      style: { family: 'paragraph', name: 'Label' },
      scope: { kind: 'frame', part: 'content.xml', node: frame.id },
      strays: 'settle',
      keep: [],
    })
    expect(after.detail.census.voices.map(voice => [voice.size, voice.characters])).toEqual([[7, 2]])
    expect(after.document.parts.get('content.xml')!.element(frame.id).attributes['draw:text-style-name']).toBe('Label')
    const key = open.detail.census.voices[0]!.key
    expect(
      plan(open, {
        type: 'apply',
        style: { family: 'paragraph', name: 'Label' },
        scope: { kind: 'voice', key },
        strays: 'settle',
        keep: [],
      }).plan.rows[0]!.count,
    ).toBe(2)
  })

  it('reaches all loose frames at once, and leaves those that follow a placeholder', () => {
    const open = drawingOf({
      styles: paragraphStyle('Label', 'fo:font-size="7pt"'),
      pages: drawnPage(
        textFrame(shapeAt(0, 0, 5, 2), '<text:p>a</text:p>') +
          `<draw:rect ${shapeAt(0, 3, 5, 2)}><text:p>b</text:p></draw:rect>` +
          textFrame(shapeAt(0, 6, 5, 2), '<text:p>title</text:p>', 'presentation:class="title"'),
      ),
    })
    const { plan: made, after } = plan(open, {
      type: 'apply',
      style: { family: 'paragraph', name: 'Label' },
      scope: { kind: 'loose-frames' },
      strays: 'settle',
      keep: [],
    })
    expect(made.rows[0]!.count).toBe(2)
    expect(after.detail.census.voices.map(voice => [voice.size, voice.characters])).toEqual([
      [10, 5],
      [7, 2],
    ])
  })
})

describe('making, adopting and teaching styles', () => {
  const fixture = {
    styles,
    faces: face('Jost'),
    automatic:
      paragraphStyle('P1', 'style:font-name="Jost" fo:font-size="150%"', 'fo:text-align="center"', parent('Body')) +
      textStyle('T1', 'fo:color="#ff0000" fo:font-size="8pt"'),
    body:
      '<text:p text:style-name="P1">one</text:p><text:p text:style-name="Body">x<text:span ' +
      'text:style-name="T1">y</text:span></text:p><text:p text:style-name="P1">two</text:p>',
  }
  it('adopts a paragraph style of a voice: its fonts are declared, sizes are absolute, all its text has it', () => {
    const open = sessionOf(fixture)
    const voice = open.detail.census.voices.find(each => each.family === 'Jost')!
    const { plan: made, after } = plan(open, {
      type: 'adopt',
      family: 'paragraph',
      displayName: 'Entry head',
      scope: { kind: 'voice', key: voice.key },
    })
    expect(body(after)).toEqual([
      '<p s="Entry_20_head">one</p>',
      '<p s="Body">x<span s="T1">y</span></p>',
      '<p s="Entry_20_head">two</p>',
    ])
    expect(common(after, 'Entry_20_head')).toMatchObject({
      displayName: 'Entry head',
      parentName: 'Body',
      text: { 'style:font-name': 'Jost', 'fo:font-size': '15pt' },
      paragraph: { 'fo:text-align': 'center' },
    })
    expect(after.detail.census.voices.find(each => each.family === 'Jost')).toMatchObject({
      size: 15,
      settledCharacters: 6,
    })
    expect(made.made).toEqual([{ family: 'paragraph', name: 'Entry_20_head', displayName: 'Entry head' }])
  })

  it('adopts a character style of selected words', () => {
    const open = sessionOf(fixture)
    const { after } = plan(open, { type: 'adopt', family: 'text', displayName: 'Price', scope: range(open, 1, 1, 2) })
    expect(body(after)[1]).toBe('<p s="Body">x<span s="Price">y</span></p>')
    expect(after.detail.census.voices.find(each => each.color === '#ff0000')).toMatchObject({
      size: 8,
      settledCharacters: 1,
    })
    expect(() =>
      plan(open, { type: 'adopt', family: 'text', displayName: 'Price', scope: range(open, 1, 0, 1) }),
    ).toThrow(/looks as its style “Body” says/)
    expect(() =>
      plan(open, { type: 'adopt', family: 'paragraph', displayName: 'body', scope: range(open, 0) }),
    ).toThrow(/There is a paragraph style “Body” already/)
  })

  it('teaches the style of a paragraph, which then speaks for all of its text', () => {
    const open = sessionOf(fixture)
    const { plan: made, after } = plan(open, { type: 'teach', scope: range(open, 0) })
    expect(made.title).toBe('Teach the style Body how text looks')
    expect(common(after, 'Body')!.text).toMatchObject({ 'style:font-name': 'Jost', 'fo:font-size': '15pt' })
    expect(body(after)[0]).toBe('<p s="Body">one</p>')
    expect(after.detail.census.voices.every(voice => voice.family === 'Jost')).toBe(true)
  })

  it('makes a style from a parent, edits it, renames it, and refuses what cannot be', () => {
    const open = sessionOf(fixture)
    const { after } = plan(open, {
      type: 'make',
      family: 'paragraph',
      displayName: 'Box / text',
      changes: {
        parent: 'Body',
        fonts: { western: { family: 'Work Sans' } },
        text: { 'fo:font-size': '9pt' },
        paragraph: { 'fo:margin-left': '12pt' },
        tabs: [{ position: 36, type: 'right', leader: '.' }],
        dropCap: { lines: 3, length: 1, distance: 2, style: 'Name' },
        features: { smcp: 1 },
        role: 'caption',
        author: 'Office',
      },
    })
    const style = common(after, 'Box_20__2f__20_text')!
    expect(style).toMatchObject({
      displayName: 'Box / text',
      parentName: 'Body',
      text: { 'style:font-name': 'Work Sans', 'fo:font-size': '9pt' },
      paragraph: { 'fo:margin-left': '12pt' },
    })
    expect(writeElement(after.document.parts.get('styles.xml')!, style.node)).toContain(
      '<style:drop-cap style:lines="3" style:length="1" style:distance="2pt" style:style-name="Name"/>' +
        '<style:tab-stops><style:tab-stop style:position="36pt" style:type="right" style:leader-style="dotted" ' +
        'style:leader-text="."/></style:tab-stops>',
    )
    expect(after.reading.cascade.rules).toMatchObject({
      features: [{ style: { name: style.name }, features: { smcp: 1 } }],
      styles: [{ role: 'caption', author: 'Office' }],
    })
    const again = session(saveDocument(after.document))
    expect(again.reading.cascade.rules).toEqual(after.reading.cascade.rules)
    // Features that one style gets take none from another.
    const changes = { features: { onum: 1 } }
    expect(
      plan(again, {
        type: 'edit',
        family: 'paragraph',
        name: 'Body',
        changes,
      }).after.reading.cascade.rules.features.map(each => [each.style.name, each.features]),
    ).toEqual([
      [style.name, { smcp: 1 }],
      ['Body', { onum: 1 }],
    ])
    // Words take those of their own styles, and of no others.
    const ruled = (name: string) => again.reading.cascade.named('styles.xml', 'paragraph', name).ruled.features
    expect([ruled(style.name), ruled('Body'), ruled('Quote')]).toEqual([{ smcp: 1 }, {}, {}])
    // Nor from one of another family with its name.
    const twin = plan(again, { type: 'make', family: 'text', displayName: 'Box / text', changes }).after
    const bold = plan(twin, {
      type: 'edit',
      family: 'text',
      name: style.name,
      changes: { features: { c2sc: 1 }, role: 'code' },
    })
    const { features, styles: roles } = bold.after.reading.cascade.rules
    expect(features.map(each => [each.style.family, each.features])).toEqual([
      ['paragraph', { smcp: 1 }],
      ['text', { c2sc: 1 }],
    ])
    expect(roles.map(each => [each.style.family, each.role])).toEqual([
      ['paragraph', 'caption'],
      ['text', 'code'],
    ])
    const renamed = plan(again, {
      type: 'edit',
      family: 'paragraph',
      name: style.name,
      changes: { displayName: 'Box text', tabs: null, text: { 'fo:font-size': null } },
    })
    expect(renamed.plan.title).toBe('Rename the style Box / text to Box text')
    expect(common(renamed.after, style.name)).toMatchObject({
      displayName: 'Box text',
      text: { 'style:font-name': 'Work Sans' },
    })
    const edit = (changes: object) => () => plan(open, { type: 'edit', family: 'paragraph', name: 'Body', changes })
    expect(edit({ parent: 'Quote' })).toThrow(/goes back to “Body” itself/)
    expect(edit({ displayName: 'Quote' })).toThrow(/already/)
    expect(edit({ parent: 'Nobody' })).toThrow(/has no paragraph style “Nobody”/)
    expect(() =>
      plan(open, { type: 'edit', family: 'text', name: 'Name', changes: { paragraph: { 'fo:margin-left': '1cm' } } }),
    ).toThrow(/character style has no paragraph/)
  })
})

describe('the labels of a list', () => {
  it('take a face of their own through a character style', () => {
    const list =
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="1"/>' +
      '<text:list-level-style-bullet text:level="2" text:bullet-char="–"/>' +
      '</text:list-style>'
    const open = sessionOf({
      styles: `${styles}${list}${paragraphStyle('Item', '', '', `${parent('Body')} style:list-style-name="L"`)}`,
      body: '<text:p text:style-name="Item">a</text:p>',
    })
    const { after } = plan(open, { type: 'edit', family: 'paragraph', name: 'Item', changes: { listLabel: 'Name' } })
    const part = after.document.parts.get('styles.xml')!
    expect(
      [...part.descendants()]
        .filter(each => each.name.startsWith('text:list-level-style'))
        .map(each => each.attributes['text:style-name']),
    ).toEqual(['Name', 'Name'])
    expect(() =>
      plan(open, { type: 'edit', family: 'paragraph', name: 'Body', changes: { listLabel: 'Name' } }),
    ).toThrow(/has no list whose labels/)
  })
})

describe('folding', () => {
  it('replaces a style everywhere, its children and rules with it, and drops it', () => {
    const open = sessionOf({
      styles: `${styles}${paragraphStyle('Next', '', '', `${parent('Quote')} style:next-style-name="Quote"`)}`,
      automatic: paragraphStyle('P1', 'fo:color="#ff0000"', '', parent('Quote')),
      body: '<text:p text:style-name="Quote">a</text:p><text:p text:style-name="P1">b</text:p><text:p text:style-name="Next">c</text:p>',
    })
    const { plan: made, after } = plan(open, { type: 'fold', family: 'paragraph', from: 'Quote', to: 'Head' })
    expect(made.title).toBe('Fold the style Quote into Head')
    expect(common(after, 'Quote')).toBeUndefined()
    expect(common(after, 'Next')).toMatchObject({ parentName: 'Head', attributes: { 'style:next-style-name': 'Head' } })
    expect(after.reading.cascade.scope('content.xml').automatic.get('paragraph\nP1')!.parentName).toBe('Head')
    expect(body(after)[0]).toBe('<p s="Head">a</p>')
    const gone = plan(open, { type: 'fold', family: 'paragraph', from: 'Body', to: 'Quote' }).after
    expect(common(gone, 'Quote')!.parentName).toBe(null)
    expect(common(gone, 'Head')!.parentName).toBe('Quote')
    expect(body(plan(open, { type: 'fold', family: 'text', from: 'Name', to: null }).after)).toEqual(body(open))
    expect(() => plan(open, { type: 'fold', family: 'paragraph', from: 'Quote', to: 'Quote' })).toThrow(/into itself/)
  })

  it('folds a voice whose leading or size nobody says: the style that its text goes by says it then', () => {
    const open = sessionOf({
      stylesFaces: face('Spectral'),
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
        'fo:font-size="12pt"/></style:default-style>' +
        paragraphStyle('Plain') +
        paragraphStyle('Open', '', 'fo:line-height="120%"') +
        paragraphStyle('Large', 'fo:font-size="14pt"') +
        textStyle('Strong', 'fo:font-weight="bold"'),
      body:
        '<text:p text:style-name="Plain">plain <text:span text:style-name="Strong">strong</text:span></text:p>' +
        '<text:p text:style-name="Open">open</text:p><text:p text:style-name="Large">large</text:p>',
    })
    const voice = (size: number, leading: string) =>
      open.detail.census.voices.find(
        each => each.size === size && each.leading === leading && each.style === 'Regular',
      )!.key
    const [plain, opened, large] = [voice(12, 'normal'), voice(12, '120%'), voice(14, 'normal')]
    const said = (to: string) => common(plan(open, { type: 'fold-voice', from: plain, to }).after, 'Plain')!
    expect(said(opened)).toMatchObject({ text: {}, paragraph: { 'fo:line-height': '120%' } })
    expect(said(large)).toMatchObject({ text: { 'fo:font-size': '14pt' }, paragraph: {} })
  })

  it('folds a voice set by hand and one that a style says', () => {
    const open = sessionOf({
      styles: `${styles}${paragraphStyle('Near', 'fo:font-size="10.2pt"', '', parent('Body'))}`,
      automatic: textStyle('T1', 'fo:font-size="9.9pt"'),
      body:
        '<text:p text:style-name="Body">many words of the body</text:p>' +
        '<text:p text:style-name="Body"><text:span text:style-name="T1">by hand</text:span>' +
        '</text:p><text:p text:style-name="Near">by style</text:p>',
    })
    const voices = open.detail.census.voices
    const key = (size: number) => voices.find(voice => voice.size === size)!.key
    expect(voices.filter(voice => voice.twinOf).length).toBe(2)
    const { after } = plan(
      open,
      { type: 'fold-voice', from: key(9.9), to: key(10) },
      { type: 'fold-voice', from: key(10.2), to: key(10) },
    )
    expect(after.detail.census.voices.map(voice => voice.size)).toEqual([10])
    expect(common(after, 'Near')!.text).toEqual({ 'fo:font-size': '10pt' })
    expect(after.detail.census.settled).toBe(1)
  })
})

describe('many actions', () => {
  it('undoes a hundred mixed ones to the byte', () => {
    for (const make of [sailingGuide, seasonReview]) {
      const bytes = make()
      let seed = 11
      const random = (below: number) => {
        seed = (seed * 1103515245 + 12345) % 2147483648
        return Math.floor(seed / 7) % below
      }
      let at = session(bytes)
      const words = texts(at)
      const inverses: ReturnType<typeof applyAll>['inverse'][] = []
      let refused = 0
      while (inverses.length < 50) {
        const all = at.reading.stories.flatMap(story => paragraphsOf(story.blocks))
        const some = all[random(all.length)]!
        const length = paragraphText(some).length
        const from = random(length + 1)
        const scope = {
          kind: 'ranges' as const,
          ranges: [{ part: some.part, node: some.node, from: random(2) * from, to: from + random(length - from + 1) }],
        }
        const scopeOf = at.reading.cascade.scope('styles.xml')
        const pick = (family: string) => {
          const list = [...scopeOf.common.values()].filter(style => style.family === family)
          return list[random(list.length)]?.name ?? 'x'
        }
        const number = inverses.length + refused
        const wishes: Wish[] = [
          { ...settleAll, scope } as Wish,
          {
            type: 'apply',
            style: { family: 'paragraph', name: pick('paragraph') },
            scope,
            strays: random(2) ? 'keep' : 'settle',
            keep: [],
          },
          {
            type: 'apply',
            style: { family: 'text', name: random(5) ? pick('text') : null },
            scope,
            strays: random(2) ? 'keep' : 'settle',
            keep: ['posture'],
          },
          { type: 'adopt', family: random(2) ? 'text' : 'paragraph', displayName: `Style ${number}`, scope },
          { type: 'teach', scope },
          {
            type: 'edit',
            family: 'paragraph',
            name: pick('paragraph'),
            changes: {
              text: { 'fo:font-size': `${8 + random(8)}pt` },
              paragraph: { 'fo:margin-top': `${random(9)}pt` },
              fonts: { western: { family: ['Jost', 'Literata', 'Inter'][random(3)]! } },
            },
          },
          {
            type: 'make',
            family: random(2) ? 'text' : 'paragraph',
            displayName: `New ${number}`,
            changes: { text: { 'fo:color': '#123456' }, role: 'body' },
          },
          { type: 'fold', family: 'text', from: pick('text'), to: pick('text') },
          { ...settleAll, scope, groups: ['size', 'color'], idleOnly: random(2) === 0 } as Wish,
        ]
        try {
          const { plan: made, after } = plan(at, wishes[random(wishes.length)]!)
          const applied = applyAll(at.document, made.operations)
          expect(saveDocument(applied.document)).toEqual(saveDocument(after.document))
          inverses.push(applied.inverse)
          at = after
        } catch (error) {
          if ((error as Error).constructor.name !== 'PlanError') throw error
          refused++
        }
      }
      expect(texts(at)).toEqual(words)
      expect(texts(session(saveDocument(at.document)))).toEqual(words)
      let { document } = at
      for (const inverse of inverses.reverse()) document = applyAll(document, inverse).document
      expect(saveDocument(document)).toEqual(bytes)
      expect(openDocument(saveDocument(document)).written.size).toBe(0)
    }
  }, 120_000)
})
