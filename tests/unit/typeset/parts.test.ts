import { describe, expect, it } from 'vitest'
import type { Frame, Paragraph } from '../../../core/document/story-model'
import { analyse, isTab, kinds, mustEnd, softHyphen } from '../../../core/typeset/analysis'
import { framePlace, isObstructed, openColumn, roomAt, type Column } from '../../../core/typeset/columns'
import { parseFeatures } from '../../../core/typeset/look'
import { hyphenatedLanguages, hyphenPoints, prepareHyphenation } from '../../../core/typeset/hyphenate'
import { lineBreakTable, scriptCodes, scriptTable } from '../../../core/typeset/unicode-tables'
import { Words } from '../../../core/typeset/words'
import { splitRow } from '../../../core/typeset/tables'
import { BoxComposer } from '../../../core/typeset/boxes'
import { FrameChains } from '../../../core/typeset/frame-chains'
import { Composer } from '../../../core/typeset/compose'
import { readDocument } from '../../../core/style/reading'
import { displayPage, fontKey } from '../../../core/typeset/display'
import { pageSvg } from '../../../core/typeset/svg'
import { library, sessionOf, typesetter } from '../../support/fixtures'

const text = (words: string): Paragraph => ({
  kind: 'paragraph',
  part: 'content.xml',
  node: 1,
  place: 'body',
  styleName: null,
  classNames: [],
  heading: null,
  list: null,
  holder: null,
  inlines: [{ kind: 'text', node: 2, text: words, span: null, field: null }],
  mark: null,
})
const taken = (words: string) => analyse(text(words), new Words(), { rightToLeft: false, strict: true })
const units = (words: string) => {
  const analysis = taken(words)
  return Array.from({ length: analysis.units }, (_, at) =>
    words.slice(analysis.starts[analysis.first[at]!]!, analysis.starts[analysis.first[at + 1]!]!),
  )
}

describe('words', () => {
  it('have one number each, whoever asks', () => {
    const words = new Words()
    expect([words.number('sea'), words.number('pier'), words.number('sea')]).toEqual([0, 1, 0])
    expect([words.text(1), words.count]).toEqual(['pier', 2])
  })
})

describe('a text taken apart', () => {
  it('has units that end where lines may, with the spaces behind them', () => {
    expect(units('one two  three')).toEqual(['one ', 'two  ', 'three'])
    expect(units('well-known fact')).toEqual(['well-', 'known ', 'fact'])
    expect(units('a\tb')).toEqual(['a', '\t', 'b'])
    expect(units('日本語')).toEqual(['日', '本', '語'])
    expect(units('')).toEqual([])
  })

  it('knows what each segment is, and what a unit asks for', () => {
    const analysis = taken('a b\tc\u00ADd\ne')
    expect([...analysis.kind.slice(0, analysis.segments)]).toEqual([
      kinds.word,
      kinds.space,
      kinds.word,
      kinds.tab,
      kinds.word,
      kinds.word,
      kinds.lineBreak,
      kinds.word,
    ])
    expect([...analysis.flags].map(flag => flag & (isTab | mustEnd | softHyphen))).toEqual([
      0,
      0,
      isTab,
      softHyphen,
      mustEnd,
      0,
    ])
  })

  it('says which texts are plain', () => {
    expect([
      taken('one two').regular,
      taken('one  two').regular,
      taken('one\u00A0two').regular,
      taken('one').regular,
    ]).toEqual([true, false, false, true])
    expect([taken('one שלום').simple, taken('one').simple, taken('Привет мир').simple]).toEqual([false, true, false])
  })

  it('gives characters that many scripts share to the one before them, at the start to the one after', () => {
    const analysis = taken('(שלום) 12, мир!')
    const scripts = Array.from({ length: analysis.segments }, (_, at) => scriptCodes[analysis.script[at]!])
    expect(scripts[0]).toBe('Hebr')
    expect(scripts.at(-1)).toBe('Cyrl')
  })

  it('cuts endless stretches without parting surrogates', () => {
    const analysis = taken('😀'.repeat(900))
    for (let at = 0; at < analysis.segments; at++)
      expect(analysis.text.charCodeAt(analysis.starts[at]!) & 0xfc00).not.toBe(0xdc00)
    expect(analysis.starts[analysis.segments]).toBe(1800)
  })
})

describe('tables of Unicode', () => {
  it('know the classes and scripts of characters', () => {
    const lines = lineBreakTable()
    expect(
      ['A', ' ', '（', '日', '\u00AD', '7', '\u200B'].map(
        character => lines.names[lines.of[character.codePointAt(0)!]!],
      ),
    ).toEqual(['AL', 'SP', 'OPwide', 'ID', 'BA', 'NU', 'ZW'])
    const scripts = scriptTable()
    expect(
      ['A', 'я', 'א', 'ク', '漢', 'क', '1'].map(character => scripts.names[scripts.of[character.codePointAt(0)!]!]),
    ).toEqual(['Latn', 'Cyrl', 'Hebr', 'Kana', 'Hani', 'Deva', 'Zyyy'])
  })
})

describe('hyphenation', () => {
  it('knows the languages that there are patterns for, and fetches theirs when they are asked for', async () => {
    expect(hyphenatedLanguages.length).toBeGreaterThan(40)
    await prepareHyphenation(['sv-SE', 'fr', 'ru'])
    expect(hyphenPoints('användare', 'sv').length).toBeGreaterThan(0)
    expect(hyphenPoints('développement', 'fr-FR').length).toBeGreaterThan(1)
    expect(hyphenPoints('пароход', 'ru').length).toBeGreaterThan(0)
    for (const language of ['sv', 'fr', 'ru'])
      for (const point of hyphenPoints('abcdefghij', language)) expect(point > 0 && point < 10).toBe(true)
  })

  it('leaves words with soft hyphens of their own, and short ones, alone', () => {
    expect(hyphenPoints('consid\u00ADerations', 'en')).toEqual([])
    expect(hyphenPoints('boat', 'en')).toEqual([])
  })
})

describe('features in a font’s name', () => {
  it('are read as real files write them', () => {
    expect(parseFeatures('smcp&onum')).toEqual([
      ['smcp', 1],
      ['onum', 1],
    ])
    expect(parseFeatures('-liga&salt=2,ss01')).toEqual([
      ['liga', 0],
      ['salt', 2],
      ['ss01', 1],
    ])
    expect(parseFeatures('nonsense&&toolong=')).toEqual([])
    expect(parseFeatures('')).toEqual([])
  })
})

describe('columns', () => {
  const column: Column = { ...openColumn(200), x: 20, top: 10, bottom: 500 }
  const standing = (
    side: 'none' | 'left' | 'right' | 'both',
    x: number,
    y: number,
    width: number,
    height: number,
  ): Column => ({ ...column, ground: { ...column.ground, exclusions: [{ side, x, y, width, height }] } })

  it('have their whole width where nothing stands', () => {
    expect(roomAt(column, 100, 12)).toEqual({ x: 0, width: 200 })
    expect(isObstructed(column, 0)).toBe(false)
  })

  it('have the wider side of what stands in them, and none of it where it asks for both', () => {
    expect(roomAt(standing('both', 60, 50, 40, 40), 60, 12)).toEqual({ x: 80, width: 120 })
    expect(roomAt(standing('left', 60, 50, 40, 40), 60, 12)).toEqual({ x: 0, width: 40 })
    expect(roomAt(standing('right', 150, 50, 40, 40), 60, 12)).toEqual({ x: 170, width: 30 })
    expect(roomAt(standing('none', 60, 50, 40, 40), 60, 12)).toEqual({ skipTo: 90 })
    expect(roomAt(standing('both', 25, 50, 190, 40), 60, 12)).toEqual({ skipTo: 90 })
  })

  it('count a line as beside something as soon as they touch', () => {
    const obstructed = standing('none', 20, 50, 200, 40)
    expect(roomAt(obstructed, 37, 12)).toEqual({ x: 0, width: 200 })
    expect(roomAt(obstructed, 39, 12)).toEqual({ skipTo: 90 })
    expect(roomAt(obstructed, 90, 12)).toEqual({ x: 0, width: 200 })
    expect([isObstructed(obstructed, 80), isObstructed(obstructed, 95)]).toEqual([true, false])
  })
})

describe('places of frames', () => {
  const page: Column = {
    ...openColumn(300),
    x: 50,
    top: 60,
    bottom: 700,
    ground: {
      ...openColumn(300).ground,
      outer: { x: 0, y: 0, width: 400, height: 800 },
      inner: { x: 50, y: 60, width: 300, height: 640 },
    },
  }
  const frame = { anchor: 'paragraph' } as Frame
  const paragraph = { x: 50, y: 200, width: 300, height: 40 }
  const place = (properties: Record<string, string>, of = frame, ground = page) =>
    framePlace(of, properties, { width: 100, height: 50 }, { x: 7, y: 9 }, ground, paragraph, {
      x: 90,
      y: 214,
      height: 14,
    })

  it('count from what their relation names', () => {
    expect(place({})).toEqual({ x: 57, y: 209 })
    expect(place({ 'style:horizontal-pos': 'right', 'style:vertical-pos': 'bottom' })).toEqual({ x: 250, y: 190 })
    expect(
      place({
        'style:horizontal-pos': 'center',
        'style:horizontal-rel': 'page',
        'style:vertical-pos': 'middle',
        'style:vertical-rel': 'page',
      }),
    ).toEqual({ x: 150, y: 375 })
    expect(
      place({
        'style:horizontal-rel': 'page-content',
        'style:vertical-rel': 'page-content',
        'style:vertical-pos': 'top',
      }),
    ).toEqual({ x: 57, y: 60 })
    expect(place({ 'style:horizontal-rel': 'page-start-margin', 'style:horizontal-pos': 'left' }).x).toBe(0)
    expect(place({ 'style:vertical-rel': 'line', 'style:vertical-pos': 'below' }).y).toBe(228)
    expect(place({ 'style:horizontal-rel': 'char' }).x).toBe(97)
  })

  it('turn inside and outside round on left pages', () => {
    const left = { ...page, ground: { ...page.ground, mirrored: true } }
    expect([
      place({ 'style:horizontal-pos': 'outside' }).x,
      place({ 'style:horizontal-pos': 'outside' }, frame, left).x,
    ]).toEqual([250, 50])
    expect(place({ 'style:horizontal-pos': 'from-inside' }, frame, left).x).toBe(243)
  })

  it('count from the page where they are anchored to it', () => {
    expect(place({}, { anchor: 'page' } as Frame)).toEqual({ x: 7, y: 9 })
  })
})

describe('chains of frames', () => {
  const frame = (name: string) => ({ part: 'content.xml', name }) as Frame
  it('are told from any of their frames, and never loop', () => {
    const [a, b, c, d] = ['a', 'b', 'c', 'd'].map(frame) as [Frame, Frame, Frame, Frame]
    const chains = new FrameChains([a, b, c, d], each => ({ a: 'b', b: 'c', c: 'nowhere', d: 'd' })[each.name] ?? '')
    expect([chains.of(a), chains.of(c), chains.of(d)]).toEqual([[a, b, c], [a, b, c], null])
    const loop = new FrameChains([a, b], each => (each.name === 'a' ? 'b' : 'a'))
    expect([loop.of(a), loop.of(b)]).toEqual([null, null])
  })
})

describe('rows', () => {
  it('are split at a line, with nothing lost', () => {
    const { reading } = sessionOf({
      body:
        `<table:table><table:table-column table:number-columns-repeated="2"/><table:table-row>` +
        `<table:table-cell>${'<text:p>left</text:p>'.repeat(6)}</table:table-cell><table:table-cell>` +
        `<text:p>right</text:p></table:table-cell></table:table-row></table:table>`,
    })
    const block = reading.stories[0]!.blocks[0]!
    const boxes = new BoxComposer(
      {
        cascade: reading.cascade,
        typesetter,
        labels: new Map(),
        unlaid: () => {},
        fields: null,
        title: '',
        spacingAdds: false,
        rightToLeft: false,
        totalFit: true,
        pictureSize: () => null,
      },
      { title: () => '', compose: () => null, isShown: () => false },
      new FrameChains([], () => ''),
    )
    const [row] = boxes.table(block as Extract<typeof block, { kind: 'table' }>, 'body', 200).rows
    const lines = (fragments: readonly { kind: string }[]) =>
      fragments.filter(fragment => fragment.kind === 'lines').length
    const split = splitRow(row!, row!.height / 2)!
    expect(lines(split.head.fragments) + lines(split.tail.fragments)).toBe(7)
    expect(lines(split.head.fragments)).toBe(4)
    expect(split.tail.height).toBeCloseTo(row!.height / 2, 1)
    expect(splitRow(row!, 3)).toBeNull()
    expect(splitRow(row!, row!.height + 1)).toBeNull()
  })
})

describe('a reading after a change', () => {
  it('takes over what did not change, and knows when styles did', () => {
    const before = sessionOf({ body: '<text:p>one</text:p><text:p>two</text:p>' })
    const same = readDocument(before.document, before.reading)
    expect(same.stories[0]!.blocks.every((block, at) => block === before.reading.stories[0]!.blocks[at])).toBe(true)
    expect(same.cascade.sharesStyles(before.reading.cascade)).toBe(true)
    const other = sessionOf({ body: '<text:p>one</text:p><text:p>two</text:p>' })
    expect(readDocument(other.document).cascade.sharesStyles(before.reading.cascade)).toBe(false)
  })

  it('composes no further than it is asked', () => {
    const { reading } = sessionOf({ body: '<text:p>line</text:p>'.repeat(400) })
    const composer = new Composer(reading, typesetter)
    expect(composer.page(0)!.index).toBe(0)
    expect(composer.page(2)!.index).toBe(2)
    expect(composer.page(10_000)).toBeNull()
    expect(composer.finish().pages.length).toBeGreaterThan(20)
  })
})

describe('what is drawn', () => {
  it('tells fonts apart by their place on axes', () => {
    expect(fontKey({ face: 'abc', axes: [] })).toBe('abc')
    expect(fontKey({ face: 'abc', axes: [{ tag: 'wght', value: 550 }] })).toBe('abc@wght550')
  })

  it('is a picture of outlines, with every glyph once', () => {
    const page = displayPage(sessionOf({ body: '<text:p>aaa</text:p>' }).composition.pages[0]!)
    const svg = pageSvg(page, typesetter.shaper)
    expect(svg.match(/<path /g)).toHaveLength(1)
    expect(svg.match(/<use /g)).toHaveLength(3)
  })

  it('holds outlines in thousandths of an em, whatever the grid of the font', () => {
    const face = library.named('Jost', 'Regular')!
    const glyph = typesetter.shaper.engine.nominal(typesetter.shaper.font(face.hash)!, 0x48)!.glyph
    const heights = [...typesetter.shaper.outline(face.hash, glyph).matchAll(/[ML](-?[\d.]+) (-?[\d.]+)/g)].map(match =>
      Number(match[2]),
    )
    expect(Math.max(...heights)).toBeCloseTo(face.measures.capHeight, 0)
  })
})
