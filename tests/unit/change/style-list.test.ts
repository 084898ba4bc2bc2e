import { describe, expect, it } from 'vitest'
import { occurrencesOf } from '../../../core/census/occurrences'
import { paragraphsOf } from '../../../core/document/stories'
import { deskStartsSchema, mergedStarts, noStarts, startWishes } from '../../../core/change/defaults/desk-starts'
import { previewRule } from '../../../core/change/rules/rule-preview'
import { styleDetail } from '../../../core/change/styles/style-detail'
import { layOpen, listStyles } from '../../../core/change/styles/style-list'
import { encodeStyleName } from '../../../core/document/style-names'
import { traceAt } from '../../../core/change/styles/trace-at'
import { registry } from '../../../core/change/registry'
import { listStarts } from '../../../core/change/defaults/start-list'
import { sailingGuide } from '../../../demo/sailing-guide'
import { seasonReview } from '../../../demo/season-review'
import { library, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { quickly } from '../../support/planning'

describe('the list of styles', () => {
  const guide = session(sailingGuide())
  const list = listStyles(guide.reading, library, guide.composition)
  const of = (name: string) => list.find(style => style.name === name)!

  it('is a tree of parents with what each does', () => {
    expect(
      list
        .filter(style => style.family === 'paragraph')
        .map(style => [style.displayName, style.depth])
        .slice(0, 4),
    ).toEqual([
      ['Standard', 0],
      ['Body', 1],
      ['Item', 2],
      ['Lead', 2],
    ])
    expect(of('Body')).toMatchObject({
      parent: 'Standard',
      role: 'body',
      proposed: true,
      hint: null,
      rules: 0,
      author: '',
    })
    expect(of('Body').pages.length).toBe(24)
    expect(of('Body').settledCharacters).toBeLessThan(of('Body').characters)
    expect(of('Lead')).toMatchObject({
      role: 'lead',
      sentence:
        'As Body, but 13 pt, leading 17.5 pt, italic, not hyphenated, set left, no first-line indent, 5.67 pt after, kept with the next.',
    })
    expect(of('Standard')).toMatchObject({ paragraphs: 0, characters: 0 })
    expect(of('Notice').look).toMatchObject({ status: 'absent', family: 'Skerrow', size: 9.5 })
    expect(of('Ship_20_name')).toMatchObject({ family: 'text', sentence: 'italic.', role: null })
    expect(of('Ship_20_name').characters).toBeGreaterThan(20)
  })

  it('counts every character of paragraphs once', () => {
    const paragraphs = list
      .filter(style => style.family === 'paragraph')
      .reduce((sum, style) => sum + style.paragraphs, 0)
    const all = guide.reading.stories
      .filter(story => story.role !== 'deletions')
      .flatMap(story => paragraphsOf(story.blocks))
      .filter(paragraph => paragraph.styleName !== null)
    expect(paragraphs).toBe(all.length)
  })

  it('leaves the styles of rules out, and keeps what was said of roles and authors', () => {
    const made = quickly(
      guide,
      { type: 'edit', family: 'paragraph', name: 'Notice', changes: { role: 'caption', author: 'Harbour office' } },
      {
        type: 'rules',
        style: 'Body',
        patterns: [
          {
            id: 'n1',
            style: 'Body',
            title: 'Figures',
            pattern: '\\p{Nd}+',
            ignoreCase: false,
            character: 'Ship_20_name',
            on: true,
          },
        ],
        leadIns: [],
      },
    ).after
    const after = listStyles(made.reading, library, null)
    expect(after.find(style => style.name === 'Notice')).toMatchObject({
      role: 'caption',
      proposed: false,
      author: 'Harbour office',
    })
    expect(after.find(style => style.name === 'Body')!.rules).toBe(1)
    expect(after.some(style => style.name.startsWith('Rule_20_'))).toBe(false)
    expect(layOpen(made.reading, library).find(each => each.summary.name === 'Body')!.detail.patterns).toHaveLength(1)
  })
})

describe('a style laid open', () => {
  it('tells what it sets itself from what it has, and from whom', () => {
    const open = sessionOf({
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties fo:font-size="20pt" ' +
        'fo:font-family="Inter"/></style:default-style>' +
        paragraphStyle('A', 'fo:font-size="50%" fo:color="#111111"', 'fo:margin-top="1cm"') +
        ('<style:style style:name="B" style:family="paragraph" style:parent-style-name="A" style:next-style-name="A" ' +
          'style:default-outline-level="2"><style:paragraph-properties fo:text-align="center">' +
          '<style:tab-stops><style:tab-stop style:position="1in" style:type="right" style:leader-text="."/>' +
          '</style:tab-stops><style:drop-cap style:lines="3" style:length="word" style:distance="2pt"/>' +
          '</style:paragraph-properties><style:text-properties fo:font-family="Jost"/>' +
          '</style:style>'),
    })
    const detail = styleDetail(open.reading, 'paragraph', 'B')!
    expect(detail).toMatchObject({
      parent: 'A',
      next: 'A',
      outlineLevel: 2,
      text: { 'fo:font-family': 'Jost' },
      paragraph: { 'fo:text-align': 'center' },
      size: 10,
      tabs: [{ position: 72, type: 'right', leader: '.' }],
      dropCap: { lines: 3, length: 'word', distance: 2, style: null },
    })
    expect(detail.inheritedText['fo:font-size']).toEqual({ value: '10pt', from: 'A' })
    expect(detail.inheritedText['fo:color']).toEqual({ value: '#111111', from: 'A' })
    expect(detail.inheritedParagraph['fo:margin-top']).toEqual({ value: '1cm', from: 'A' })
    expect(detail.fonts.western).toEqual({ own: 'Jost', inherited: { value: 'Inter', from: 'what text starts with' } })
    expect(styleDetail(open.reading, 'text', 'B')).toBeNull()
  })

  it('has a name that the file takes', () => {
    expect(encodeStyleName('Small print')).toBe('Small_20_print')
    expect(encodeStyleName('1st: “Lead”')).toMatch(/^_31_st_3a__20_/)
    expect(encodeStyleName('本文')).toBe('本文')
  })
})

describe('tracing and previews', () => {
  const open = sessionOf({
    styles: paragraphStyle('Body', 'fo:font-size="10pt"') + textStyle('Name', 'fo:font-style="italic"'),
    automatic: textStyle('T1', 'fo:color="#ff0000"'),
    body:
      '<text:p text:style-name="Body">ab<text:span text:style-name="Name">cd</text:span>' +
      '<text:span text:style-name="T1">ef</text:span></text:p><text:p>12 a 3</text:p>',
  })
  const node = paragraphsOf(open.reading.stories[0]!.blocks)[0]!.node
  it('finds the stretch at a place, and what it goes by', () => {
    expect(traceAt(open.reading, 'content.xml', node, 3)).toMatchObject({
      text: 'cd',
      from: 2,
      to: 4,
      settled: true,
      paragraphStyle: 'Body',
      textStyle: 'Name',
    })
    expect(traceAt(open.reading, 'content.xml', node, 6)).toMatchObject({ text: 'ef', settled: false, textStyle: null })
    // Where two meet it is the one that begins there; in front of the first it is that one.
    expect(traceAt(open.reading, 'content.xml', node, 2)).toMatchObject({ text: 'cd' })
    expect(traceAt(open.reading, 'content.xml', node, 0)).toMatchObject({ text: 'ab', from: 0 })
    expect(traceAt(open.reading, 'content.xml', 9999, 0)).toBeNull()
  })
  it('shows what a rule would take, and says why one cannot be run', () => {
    const rule = (pattern: string) => ({
      id: 'x',
      style: 'Body',
      title: 't',
      pattern,
      ignoreCase: false,
      character: 'Name',
      on: true,
    })
    expect(previewRule(open.composition, rule('[a-d]+')).places).toEqual([
      { part: 'content.xml', node, from: 0, to: 4, text: 'abcd' },
    ])
    expect(previewRule(open.composition, rule('['))).toMatchObject({
      places: [],
      message: expect.stringContaining('cannot be read') as string,
    })
    expect(
      previewRule(open.composition, {
        id: 'y',
        style: 'Body',
        title: 't',
        character: 'Name',
        on: true,
        what: { kind: 'first-line' },
      }).places,
    ).toMatchObject([{ from: 0, to: 6 }])
  })
  it('gathers the stretches of a voice', () => {
    const guide = session(sailingGuide())
    // The first voice has the signs of notes, too, which are no words.
    for (const voice of guide.detail.census.voices.slice(1, 5))
      expect(occurrencesOf(guide.reading, voice.key).reduce((sum, each) => sum + each.to - each.from, 0)).toBe(
        voice.characters,
      )
  })
})

describe('what new documents begin with', () => {
  const desk = deskStartsSchema.parse({
    kinds: { body: { fonts: { western: { family: 'Jost' } }, text: { 'fo:font-size': '10pt' } }, frame: { inset: 4 } },
    page: null,
  })
  it('is the folder’s over the desk’s, value by value', () => {
    const folder = deskStartsSchema.parse({
      kinds: { body: { text: { 'fo:color': '#123456' } } },
      page: { width: 148, height: 210, margins: { top: 10, bottom: 10, left: 10, right: 10 } },
    })
    expect(mergedStarts(desk, folder)).toMatchObject({
      kinds: {
        body: { fonts: { western: { family: 'Jost' } }, text: { 'fo:font-size': '10pt', 'fo:color': '#123456' } },
        frame: { inset: 4 },
      },
      page: { width: 148 },
    })
    expect(mergedStarts(desk, null)).toBe(desk)
    expect(startWishes(desk, 'text').map(wish => wish.type === 'start' && wish.kind)).toEqual(['body', 'frame'])
    expect(startWishes(desk, 'presentation').map(wish => wish.type === 'start' && wish.kind)).toEqual(['frame'])
    expect(startWishes(noStarts, 'text')).toEqual([])
  })
  it('is told kind by kind for a document', () => {
    const starts = listStarts(session(sailingGuide()).reading, library)
    expect(starts.find(start => start.kind === 'body')).toMatchObject({ live: true, family: 'Spectral', size: 10.2 })
    expect(starts.find(start => start.kind === 'frame')).toMatchObject({
      live: false,
      set: false,
      family: 'Skerrow',
      status: 'absent',
    })
    expect(listStarts(session(seasonReview()).reading, library).map(start => start.kind)).toEqual([
      'frame',
      'shape',
      'title',
      'outline1',
      'outline2',
      'outline3',
      'outline4',
      'outline5',
      'cell',
    ])
  })
})

describe('requests', () => {
  const edit = (changes: object) =>
    registry.schema.safeParse({ wishes: [{ type: 'edit', family: 'paragraph', name: 'Body', changes }] }).success
  it('are checked at the door', () => {
    expect(edit({ text: { 'fo:font-size': '10pt' }, paragraph: { 'fo:line-height': null } })).toBe(true)
    expect(edit({ text: { 'fo:color': 'a<b' } })).toBe(false)
    expect(edit({ text: { onclick: 'x' } })).toBe(false)
    expect(edit({ displayName: '' })).toBe(false)
    expect(edit({ dropCap: { lines: 200, length: 1, distance: 0, style: null } })).toBe(false)
    expect(edit({ unknown: 1 })).toBe(false)
    expect(
      registry.schema.safeParse({ wishes: Array.from({ length: 51 }, () => ({ type: 'show', language: null })) })
        .success,
    ).toBe(false)
    expect(
      registry.schema.safeParse({
        wishes: [
          {
            type: 'rules',
            style: 'Body',
            patterns: [{ id: 'NOT OK', style: 'Body', title: '', pattern: 'a', character: 'x' }],
            leadIns: [],
          },
        ],
      }).success,
    ).toBe(false)
  })
})
