import { describe, expect, it } from 'vitest'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import type { DocumentSession } from '../../../core/session'
import { importWishes, type OwnStyle, type StyleChoice } from '../../../core/change/styles/import-styles'
import { takePiece } from '../../../core/change/kept-frame/set-piece'
import { setPieceSchema } from '../../../core/style/set-piece'
import { styleDetail, type StyleDetail } from '../../../core/change/styles/style-detail'
import { isOfText } from '../../../core/style/families'
import { listStyles } from '../../../core/change/styles/style-list'
import { readFrameText } from '../../../core/style/frame-text'
import { paragraphText } from '../../../core/style/runs'
import { harbourNotice } from '../../../demo/harbour-notice'
import { sailingGuide } from '../../../demo/sailing-guide'
import {
  drawingOf,
  drawnPage,
  face,
  graphicStyle,
  library,
  paragraphStyle,
  session,
  sessionOf,
  shapeAt,
  textFrame,
  textStyle,
} from '../../support/fixtures'
import { quickly } from '../../support/planning'

const details = (of: DocumentSession): StyleDetail[] =>
  listStyles(of.reading, library, null)
    .filter(isOfText)
    .map(style => styleDetail(of.reading, style.family, style.name)!)
const own = (of: DocumentSession): OwnStyle[] =>
  details(of).map(({ family, name, displayName, text, paragraph }) => ({ family, name, displayName, text, paragraph }))
const common = (of: DocumentSession, displayName: string) =>
  [...of.reading.cascade.scope('styles.xml').common.values()].find(style => style.displayName === displayName)
const look = (of: DocumentSession, displayName: string) => {
  const style = common(of, displayName)!
  const { effective } = of.reading.cascade.named('styles.xml', style.family, style.name)
  const { font, size, weight } = effective.slots.western
  return [font.family, size, weight, effective.leading['fo:line-height'], effective.shared['fo:color']]
}
const parent = (name: string) => ` style:parent-style-name="${name}"`
const bring = (from: DocumentSession, to: DocumentSession, choices: StyleChoice[]) => {
  return quickly(to, ...importWishes(details(from), own(to), choices, 'Notice'))
}

describe('styles from elsewhere', () => {
  const theirs = sessionOf({
    styles:
      paragraphStyle('Base', 'style:font-name="J" fo:font-size="20pt" fo:color="#123456"', 'fo:line-height="24pt"') +
      paragraphStyle('Head', 'fo:font-size="50%" fo:font-weight="bold"', '', parent('Base')) +
      paragraphStyle('Same', 'fo:font-size="7pt"') +
      paragraphStyle('Tabbed').replace(
        '</style:style>',
        '<style:paragraph-properties><style:tab-stops><style:tab-stop style:position="72pt" style:type="right"/>' +
          '</style:tab-stops></style:paragraph-properties></style:style>',
      ) +
      textStyle('Loud', 'fo:font-weight="bold"') +
      paragraphStyle('Low', 'fo:font-weight="normal"', '', parent('Head')) +
      paragraphStyle('Lowest', 'fo:letter-spacing="1pt"', '', parent('Low')),
    stylesFaces: face('J', 'Jost'),
  })
  const mine = sessionOf({
    styles:
      paragraphStyle('Same', 'fo:font-size="9pt" fo:font-style="italic"', 'fo:margin-left="1cm"') +
      paragraphStyle('Child', '', '', parent('Same')),
    body: '<text:p text:style-name="Child">x</text:p>',
  })

  it('come with what they look like: with their parent, or with its values', () => {
    const alone = bring(theirs, mine, [{ family: 'paragraph', name: 'Head', how: 'both' }]).after
    expect(look(alone, 'Head')).toEqual(['Jost', 6, 700, '24pt', '#123456'])
    // However far above them they stand who say it, and as far as the nearest that comes along.
    const low = bring(theirs, mine, [{ family: 'paragraph', name: 'Lowest', how: 'both' }]).after
    expect(look(low, 'Lowest')).toEqual(['Jost', 6, 400, '24pt', '#123456'])
    const kin = ['Lowest', 'Base'].map(name => ({ family: 'paragraph' as const, name, how: 'both' as const }))
    expect(common(bring(theirs, mine, kin).after, 'Lowest')).toMatchObject({ parentName: 'Base' })
    const both = bring(theirs, mine, [
      { family: 'paragraph', name: 'Head', how: 'both' },
      { family: 'paragraph', name: 'Base', how: 'both' },
      { family: 'text', name: 'Loud', how: 'both' },
    ]).after
    expect(look(both, 'Head')).toEqual(look(theirs, 'Head'))
    expect(common(both, 'Head')!.parentName).toBe('Base')
    expect(common(both, 'Loud')!.text['fo:font-weight']).toBe('bold')
    const tabbed = bring(theirs, mine, [{ family: 'paragraph', name: 'Tabbed', how: 'both' }]).after
    expect(styleDetail(tabbed.reading, 'paragraph', 'Tabbed')!.tabs).toMatchObject([{ position: 72, type: 'right' }])
    expect(styleDetail(both.reading, 'paragraph', 'Head')!.tabs).toBeNull()
    expect(session(saveDocument(both.document)).reading.cascade.scope('styles.xml').common.size).toBe(5)
  })

  it('keep mine, take theirs or stand side by side where a name is taken', () => {
    const choice = (how: StyleChoice['how']) => bring(theirs, mine, [{ family: 'paragraph', name: 'Same', how }])
    expect(
      importWishes(details(theirs), own(mine), [{ family: 'paragraph', name: 'Same', how: 'mine' }], 'Notice'),
    ).toEqual([])
    const taken = choice('theirs').after
    expect(common(taken, 'Same')).toMatchObject({ text: { 'fo:font-size': '7pt' }, paragraph: {} })
    expect(Object.keys(common(taken, 'Same')!.text)).toEqual(['fo:font-size'])
    expect(taken.detail.census.voices[0]).toMatchObject({ size: 7, style: 'Regular' })
    const side = choice('both').after
    expect([look(side, 'Same')[1], look(side, 'Same, Notice')[1]]).toEqual([9, 7])
  })

  it('brings all styles of one demo document into another, each looking as it did', () => {
    const from = session(harbourNotice())
    const to = session(sailingGuide())
    const { after } = bring(
      from,
      to,
      details(from).map(({ family, name }) => ({ family, name, how: 'both' as const })),
    )
    for (const style of details(from)) {
      const there = from.reading.cascade.named('styles.xml', style.family, style.name).effective
      const made = common(after, `${style.displayName}, Notice`) ?? common(after, style.displayName)!
      const here = after.reading.cascade.named('styles.xml', made.family, made.name).effective
      if (Object.keys(style.text).some(name => name.startsWith('style:font-name')) || style.fonts.western.own)
        expect([style.displayName, here.slots.western.font.family]).toEqual([
          style.displayName,
          there.slots.western.font.family,
        ])
      if (style.text['fo:font-size'] !== undefined)
        expect([style.displayName, here.slots.western.size]).toEqual([style.displayName, there.slots.western.size])
    }
    expect(after.detail.census.voices).toEqual(to.detail.census.voices)
  })
})

describe('set pieces', () => {
  const fixture = {
    styles:
      paragraphStyle('Ground', 'fo:font-family="Jost"') +
      paragraphStyle('Box', 'fo:font-size="8pt"', '', parent('Ground')) +
      textStyle('Loud', 'fo:font-weight="bold"'),
    automatic:
      graphicStyle('g', 'draw:fill="solid" draw:fill-color="#eeddcc" fo:padding="5pt"').replace(
        'draw:fill="solid" draw:fill-color="#eeddcc" fo:padding="5pt"/>',
        'draw:fill="solid" draw:fill-color="#eeddcc" fo:padding="5pt">' +
          '<style:columns fo:column-count="2" fo:column-gap="4pt"/></style:graphic-properties>',
      ) + paragraphStyle('P1', 'fo:color="#ff0000"', '', parent('Box')),
    pages: drawnPage(
      textFrame(
        shapeAt(1, 1, 4, 2),
        '<text:p text:style-name="P1">Fares &amp; <text:span text:style-name="Loud">times</text:span></text:p>',
        'draw:name="Fares 1" draw:style-name="g"',
      ),
    ),
  }
  const from = drawingOf(fixture)
  const frameOf = (of: DocumentSession, at = -1) =>
    [...of.document.parts.get('content.xml')!.descendants()].filter(each => each.name === 'draw:frame').at(at)!
  const piece = setPieceSchema.parse(
    JSON.parse(JSON.stringify(takePiece(from.reading, 'content.xml', frameOf(from).id))),
  )
  const put = (into: DocumentSession, holder: number, withText: boolean) =>
    quickly(into, { type: 'piece', part: 'content.xml', node: holder, x: 30, y: 40, withText, piece }).after

  it('go into another document with columns, insets, fill and styles', () => {
    expect(piece.styles.map(style => style.displayName).sort()).toEqual(['Box', 'Ground', 'Loud'])
    const into = sessionOf({ body: '<text:p>x</text:p>' })
    const [paragraph] = paragraphsOf(into.reading.stories[0]!.blocks)
    const after = session(saveDocument(put(into, paragraph!.node, true).document))
    const frame = frameOf(after)
    expect(readFrameText(after.reading.cascade.scope('content.xml'), frame.id)).toMatchObject({
      columns: 2,
      gap: 4,
      inset: 5,
    })
    expect(
      after.detail.census.voices
        .filter(voice => voice.family === 'Jost')
        .map(voice => [voice.size, voice.color, voice.style, voice.characters]),
    ).toEqual([
      [8, '#ff0000', 'Regular', 8],
      [8, '#ff0000', 'Bold', 5],
    ])
    expect(frame.attributes).toMatchObject({ 'svg:x': '30pt', 'svg:y': '40pt', 'text:anchor-type': 'paragraph' })
  })

  it('go in without their text, which then begins in their style', () => {
    const page = [...from.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:page')!
    const after = put(from, page.id, false)
    const texts = after.reading.stories
      .flatMap(story => paragraphsOf(story.blocks))
      .filter(each => each.part === 'content.xml')
    expect(texts.map(paragraphText)).toEqual(['Fares & times', ''])
    expect(after.reading.cascade.paragraph(texts[1]!, 'page').text.effective.slots.western.font.family).toBe('Jost')
    expect(frameOf(after).attributes['draw:name']).toBe('Fares 2')
  })

  it('are refused where there are pictures, and where nothing can hold them', () => {
    const picture = drawingOf({
      pages: drawnPage(`<draw:frame ${shapeAt(0, 0, 2, 2)}><draw:image xlink:href="Pictures/x.png"/></draw:frame>`),
    })
    expect(() => takePiece(picture.reading, 'content.xml', frameOf(picture).id)).toThrow(/holds a picture/)
    expect(() => put(from, frameOf(from).id, true)).toThrow(/put on a page or at a paragraph/)
  })
})
