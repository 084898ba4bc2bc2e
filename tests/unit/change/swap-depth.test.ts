import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { fontReferences } from '../../../core/document/font-references'
import { paragraphsOf } from '../../../core/document/stories'
import { sizeFactor, roundedSize } from '../../../core/change/swap/optical-size'
import type { RowKey } from '../../../core/change/plan'
import { sparedKey } from '../../../core/change/swap/wish'
import { findRepairs } from '../../../core/change/repair/find-repairs'
import { usualLimits, type RepairTarget } from '../../../core/change/repair/target'
import { repairTitle } from '../../../core/change/repair/repairs'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
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
import { planned, quickly, swap } from '../../support/planning'

/** What text is set in: family and size of every run, by its words. */
function setIn(of: DocumentSession): Record<string, string> {
  const found: Record<string, string> = {}
  for (const story of of.reading.stories) {
    for (const paragraph of paragraphsOf(story.blocks)) {
      const { text, runs } = paragraphRuns(paragraph, of.reading.cascade, story.role)
      for (const run of runs) {
        const { font, size } = run.style.effective.slots[run.slot]
        found[text.slice(run.start, run.end)] = `${font.family} ${Math.round(size * 100) / 100}`
      }
    }
  }
  return found
}
const head: RowKey = { what: 'group', family: 'paragraph', name: 'Head' }
/** Repairs after a plan, each tried as one more wish of it. */
const repairsFor = (before: DocumentSession, after: DocumentSession, target: RepairTarget) =>
  findRepairs(before, after, target, repair => quickly(after, repair).after)
const xHeight = (family: string) =>
  library.family(family).find(each => each.weight === 400 && each.slant === 'upright')!.measures.xHeight

const declared = face('Spectral') + face('Jost') + face('Inter')
const styled = (body: string, more: object = {}) =>
  sessionOf({
    stylesFaces: declared,
    faces: declared,
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
      (`fo:font-size="10pt"/></style:default-style>${paragraphStyle('Body')}` +
        `${paragraphStyle('Head', 'fo:font-size="20pt"')}${paragraphStyle(
          'Note',
          'fo:font-size="80%"',
          '',
          ' style:parent-style-name="Body"',
        )}` +
        `${paragraphStyle('Mono', 'style:font-name="Jost" fo:font-size="10pt"')}`),
    body,
    ...more,
  })
const p = (style: string, inside: string) => `<text:p text:style-name="${style}">${inside}</text:p>`

describe('sizes that look alike', () => {
  it('equal x-height, cap height and width follow from the measures, within limits', () => {
    const [one, other] = ['Spectral', 'Inter'].map(family =>
      library.family(family).find(each => each.weight === 400 && each.slant === 'upright')!,
    ) as [(typeof library.faces)[0], (typeof library.faces)[0]]
    const of = (mode: string, limits = {}) =>
      sizeFactor({ mode: mode as 'keep', step: 0.1, least: 50, most: 200, ...limits }, one, other, 'Latin')
    expect(of('keep')).toBe(1)
    expect(of('x-height')).toBeCloseTo(one.measures.xHeight / other.measures.xHeight, 5)
    expect(of('cap-height')).toBeCloseTo(one.measures.capHeight / other.measures.capHeight, 5)
    expect(of('width')).toBeCloseTo(one.measures.averageWidth / other.measures.averageWidth, 5)
    expect(of('x-height', { least: 95 })).toBe(0.95)
    expect(
      sizeFactor(
        { mode: 'x-height', step: 0.1, least: 50, most: 200 },
        one,
        { ...other, measures: { ...other.measures, measuredOn: 'Arabic', scripts: {} } },
        'Latin',
      ),
    ).toBe(1)
    expect(roundedSize(10.274, 0.25)).toBe(10.25)
    expect(roundedSize(0.01, 0.5)).toBe(0.5)
  })

  it('are set where the size is said, percentages follow, and nothing else is touched', () => {
    const before = styled(p('Body', 'body text') + p('Head', 'a heading') + p('Note', 'a note') + p('Mono', 'other'))
    const { plan, after } = planned(before, [swap('Spectral', 'Inter', { size: { mode: 'x-height' } })])
    const factor = xHeight('Spectral') / xHeight('Inter')
    const size = (points: number) => Math.round(points * factor * 10) / 10
    const is = setIn(after)
    expect(is['body text']).toBe(`Inter ${size(10)}`)
    expect(is['a heading']).toBe(`Inter ${size(20)}`)
    expect(is['a note']).toBe(`Inter ${Math.round(size(10) * 80) / 100}`)
    expect(is.other).toBe('Jost 10')
    expect(plan.sizes).toMatchObject([{ wish: 0, percent: Math.round(factor * 1000) / 10 }])
    expect(plan.sizes[0]!.said).toBe('measured on Spectral Regular and Inter Regular')
    // Undone, every byte is back.
    const applied = applyAll(before.document, plan.operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(saveDocument(before.document))
  })

  it('where a default also speaks for other text the size goes further in, by hand at last', () => {
    const before = styled(
      p('Body', 'body <text:span text:style-name="T1">inside</text:span> text') + p('Plain', 'no style'),
      {
        styles:
          `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
          `fo:font-size="10pt"/></style:default-style>${paragraphStyle('Body')}${paragraphStyle('Plain')}`,
        automatic: textStyle('T1', 'style:font-name="Jost"'),
      },
    )
    const { plan, after } = planned(before, [swap('Jost', 'Inter', { size: { mode: 'x-height' } })])
    const is = setIn(after)
    expect(is['body ']).toBe('Spectral 10')
    expect(is.inside).toBe(`Inter ${Math.round(((10 * xHeight('Jost')) / xHeight('Inter')) * 10) / 10}`)
    expect(is['no style']).toBe('Spectral 10')
    expect(plan.rows.filter(row => row.stage === 'size').length).toBe(1)
  })

  it('leading that no style can say for this text alone is set by hand, and says what it keeps', () => {
    const told = (leading: string, body = '') => {
      const before = styled(p('Set', 'body <text:span text:style-name="T1">inside</text:span> text'), {
        styles: paragraphStyle('Set', 'style:font-name="Spectral" fo:font-size="10pt"', body),
        automatic: textStyle('T1', 'style:font-name="Jost"'),
      })
      const { rows } = planned(before, [swap('Jost', 'Inter', { size: { mode: 'x-height' }, leading })]).plan
      return rows.filter(row => row.title.startsWith('Leading')).map(row => [row.title, row.after])
    }
    const title = 'Leading of text whose styles also speak for other text, set by hand'
    const factor = Math.round((xHeight('Jost') / xHeight('Inter')) * 10_000) / 100
    expect(told('stay')).toEqual([[title, 'the same distance']])
    expect(told('follow', 'fo:line-height="14pt"')).toEqual([[title, `${factor} %`]])
    expect([told('follow'), told('as-is'), told('stay', 'fo:line-height="14pt"')]).toEqual([[], [], []])
  })

  it('keep the lines where that is asked, and say by how much', () => {
    const words =
      'The launch leaves at seven and again at nine, and whoever misses both may walk along the shore to the next pier. '.repeat(
        6,
      )
    const before = styled(p('Body', words) + p('Body', words))
    const plain = planned(before, [swap('Spectral', 'Work Sans')]).plan
    expect(plain.effects!.linesAfter).toBeGreaterThan(plain.effects!.linesBefore)
    const { plan } = planned(before, [swap('Spectral', 'Work Sans', { size: { mode: 'lines' } })])
    expect(plan.effects!.linesAfter).toBeLessThanOrEqual(plan.effects!.linesBefore)
    expect(plan.sizes[0]!.percent).toBeLessThan(100)
    expect(plan.sizes[0]!.percent).toBeGreaterThanOrEqual(75)
  })

  it('leading in points follows the size, or the distance of lines stays in spite of it', () => {
    const styles =
      `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
      (`fo:font-size="10pt"/></style:default-style>${paragraphStyle('Body', 'fo:font-size="10pt"', 'fo:line-height="14pt"')}` +
        `${paragraphStyle('Head', 'fo:font-size="20pt"', 'fo:line-height="120%"')}`)
    const lead = (of: DocumentSession, style: string) =>
      of.reading.cascade.named('content.xml', 'paragraph', style).effective.leading['fo:line-height']
    const before = styled(p('Body', 'body') + p('Head', 'head'), { styles })
    const factor = xHeight('Spectral') / xHeight('Inter')
    const follow = planned(before, [swap('Spectral', 'Inter', { size: { mode: 'x-height' }, leading: 'follow' })]).after
    expect(lead(follow, 'Body')).toBe(`${Math.round(14 * factor * 10) / 10}pt`)
    expect(lead(follow, 'Head')).toBe('120%')
    const { plan, after: stay } = planned(before, [
      swap('Spectral', 'Inter', { size: { mode: 'x-height' }, leading: 'stay' }),
    ])
    expect(lead(stay, 'Body')).toBe('14pt')
    const { lineAscent, lineDescent, lineGap } = library.family('Spectral').find(each => each.weight === 400)!.measures
    expect(lead(stay, 'Head')).toBe(
      `${Math.round((((lineAscent + lineDescent + lineGap) * 20 * 1.2) / 1000) * 10) / 10}pt`,
    )
    const told = plan.rows.filter(row => row.key.what === 'leading').map(row => [row.before, row.after])
    expect(told).toEqual([['120%', lead(stay, 'Head')]])
  })
})

describe('swaps within limits', () => {
  const body =
    p('Body', 'body text') +
    p('Head', 'a heading') +
    p(
      'Body',
      '<text:span text:style-name="T1">日本</text:span> und <text:span text:style-name="T2">deutsch</text:span>',
    )
  const automatic =
    textStyle('T1', 'style:font-name-asian="Spectral"') + textStyle('T2', 'fo:language="de" fo:country="DE"')
  it('by style: the style itself says it, the default stays', () => {
    const { plan, after } = planned(styled(body, { automatic }), [
      swap('Spectral', 'Inter', { within: { look: { paragraphStyle: 'Head' } } }),
    ])
    const is = setIn(after)
    expect(is['a heading']).toBe('Inter 20')
    expect(is['body text']).toBe('Spectral 10')
    expect(plan.rows.filter(row => row.included).map(row => row.title)).toEqual(['Head, heading'])
    expect(
      fontReferences(after.document).some(
        reference => reference.kind === 'stray' && reference.families.includes('Inter'),
      ),
    ).toBe(false)
  })
  it('by role, by language, by script, by selection: text that merely shares the font stays', () => {
    const by = (within: object) =>
      setIn(planned(styled(body, { automatic }), [swap('Spectral', 'Inter', { within })]).after)
    expect(by({ look: { role: 'heading' } })).toMatchObject({ 'a heading': 'Inter 20', 'body text': 'Spectral 10' })
    expect(by({ look: { language: 'de' } })).toMatchObject({ deutsch: 'Inter 10', 'body text': 'Spectral 10' })
    expect(by({ look: { slot: 'asian' } })).toMatchObject({ 日本: 'Inter 12', deutsch: 'Spectral 10' })
    const of = styled(body, { automatic })
    const { part, node } = paragraphsOf(of.reading.stories[0]!.blocks)[0]!
    const is = setIn(
      planned(of, [
        swap('Spectral', 'Inter', {
          within: { scope: { kind: 'ranges', ranges: [{ part, node, from: 0, to: 4 }] } },
        }),
      ]).after,
    )
    expect(is).toMatchObject({ body: 'Inter 10', ' text': 'Spectral 10', 'a heading': 'Spectral 20' })
  })
  it('sets no size where sizes stay, and weights only where the new family has another', () => {
    const of = styled(body, { automatic })
    const { part, node } = paragraphsOf(of.reading.stories[0]!.blocks)[0]!
    const within = { scope: { kind: 'ranges', ranges: [{ part, node, from: 0, to: 4 }] } }
    const { after } = planned(of, [swap('Spectral', 'Inter', { within })])
    const own = [...after.reading.cascade.scope('content.xml').automatic.values()]
    const made = own.filter(style => JSON.stringify(style.text).includes('Inter'))
    expect(made.map(style => Object.keys(style.text).filter(name => /size|weight|fo:font-style/.test(name)))).toEqual([
      [],
    ])
  })
  it('a style whose font speaks for nothing else, but whose size does, gets the font and not the size', () => {
    const styles =
      paragraphStyle('Ground', 'fo:font-family="Spectral" fo:font-size="10pt"') +
      paragraphStyle('Other', 'fo:font-family="Jost"', '', ' style:parent-style-name="Ground"')
    const swapped = (more: object) =>
      planned(styled(p('Ground', 'Kelda') + p('Other', 'Rona'), { styles }), [
        swap('Spectral', 'Inter', { within: { look: { paragraphStyle: 'Ground' } }, ...more }),
      ]).after
    const factor = xHeight('Spectral') / xHeight('Inter')
    expect(setIn(swapped({ size: { mode: 'x-height' } }))).toEqual({
      Kelda: `Inter ${Math.round(100 * factor) / 10}`,
      Rona: 'Jost 10',
    })
    const plain = swapped({})
    expect(setIn(plain)).toEqual({ Kelda: 'Inter 10', Rona: 'Jost 10' })
    expect([...plain.reading.cascade.scope('content.xml').automatic.values()]).toEqual([])
  })
  it('by pages', () => {
    const pages = styled(p('Body', 'first page') + '<text:p text:style-name="Brk">second page</text:p>', {
      automatic: paragraphStyle('Brk', '', 'fo:break-before="page"', ' style:parent-style-name="Body"'),
    })
    const is = setIn(
      planned(pages, [swap('Spectral', 'Inter', { within: { scope: { kind: 'pages', from: 1, to: 1 } } })]).after,
    )
    expect(is).toEqual({ 'first page': 'Spectral 10', 'second page': 'Inter 10' })
  })
  it('a pair for a pair, one of them within limits, act at once', () => {
    const { after } = planned(styled(body + p('Mono', 'other'), { automatic }), [
      swap('Spectral', 'Jost', { within: { look: { paragraphStyle: 'Head' } } }),
      swap('Jost', 'Spectral'),
    ])
    expect(setIn(after)).toMatchObject({ 'a heading': 'Jost 20', 'body text': 'Spectral 10', other: 'Spectral 10' })
  })
  it('rows that are left out and texts that nothing finds are told', () => {
    const of = styled(body, { automatic })
    const struck = planned(
      of,
      [swap('Spectral', 'Inter', { within: {} })],
      [{ what: 'within', wish: 0, family: 'paragraph', name: 'Head' }],
    )
    expect(setIn(struck.after)).toMatchObject({ 'a heading': 'Spectral 20', 'body text': 'Inter 10' })
    expect(planned(of, [swap('Spectral', 'Inter', { within: { look: { role: 'caption' } } })]).plan).toMatchObject({
      places: 0,
      left: [{ what: 'Spectral within limits', reason: 'no text answers to them' }],
    })
  })
})

describe('text that merely shares the font', () => {
  it('is told apart by role and style, and kept as a group', () => {
    const of = styled(p('Body', 'body text') + p('Head', 'a heading') + p('Mono', 'other'))
    const all = planned(of, [swap('Spectral', 'Inter')]).plan
    expect(all.groups.map(group => [group.style, group.role, group.kept])).toEqual(
      expect.arrayContaining([
        ['Body', 'body', false],
        ['Head', 'heading', false],
      ]),
    )
    const { plan, after } = planned(of, [swap('Spectral', 'Inter')], [head])
    expect(setIn(after)).toEqual({ 'body text': 'Inter 10', 'a heading': 'Spectral 20', other: 'Jost 10' })
    expect(plan.groups.find(group => group.style === 'Head')!.kept).toBe(true)
  })
  it('keeps its generic family where the old font is said outright', () => {
    const of = sessionOf({
      styles: paragraphStyle('Body', 'fo:font-family="Spectral" style:font-family-generic="roman"'),
      body: p('Body', 'one') + p('Body', 'two'),
    })
    const [, second] = paragraphsOf(of.reading.stories[0]!.blocks)
    const { after } = planned(of, [swap('Spectral', 'Inter')], [sparedKey(second!.part, second!.node)])
    const [one, two] = paragraphsOf(after.reading.stories[0]!.blocks).map(
      each => paragraphRuns(each, after.reading.cascade).runs[0]!.style.effective.slots.western.font,
    )
    expect([one!.family, two!.family, two!.generic]).toEqual(['Inter', 'Spectral', 'roman'])
  })
  it('single paragraphs can be spared', () => {
    const of = styled(p('Body', 'one') + p('Body', 'two'))
    const [, second] = paragraphsOf(of.reading.stories[0]!.blocks)
    const { after } = planned(of, [swap('Spectral', 'Inter')], [sparedKey(second!.part, second!.node)])
    expect(setIn(after)).toEqual({ one: 'Inter 10', two: 'Spectral 10' })
  })
})

describe('what it does to the pages, and repairs', () => {
  const words = 'The launch leaves at seven and again at nine, and whoever misses both may walk along the shore. '
  const frames = () =>
    drawingOf({
      automatic: graphicStyle(
        'F',
        'draw:fill="none" draw:auto-grow-height="false" fo:padding="0cm"',
        'fo:font-size="10pt"',
      ),
      pages: drawnPage(
        textFrame(
          shapeAt(1, 1, 8, 1.95),
          `<text:p>${words.repeat(2)}</text:p>`,
          'draw:style-name="F" draw:name="Full"',
        ) +
          textFrame(
            shapeAt(1, 5, 8, 4),
            `<text:p>${words.repeat(2)}</text:p>`,
            'draw:style-name="F" draw:name="Roomy"',
          ),
      ),
    })
  it('frames that run over, frames that are fuller, tables that grow, titles that wrap anew', () => {
    const { plan } = planned(frames(), [swap('Spectral', 'Work Sans')])
    expect(plan.effects!.overset.map(frame => frame.name)).toEqual(['Full'])
    expect(plan.effects!.frames.map(frame => frame.name)).toEqual(['Roomy'])
    expect(plan.effects!.frames[0]!.roomAfter).not.toBe(plan.effects!.frames[0]!.roomBefore)
    const table = styled(
      `<table:table table:name="T"><table:table-column/><table:table-column/><table:table-row>` +
        (`<table:table-cell>${p('Body', 'Departures from the pier')}</table:table-cell>` +
          `<table:table-cell>${p('Body', '7')}</table:table-cell>`) +
        `</table:table-row></table:table>${p('Head', 'A heading that is as wide')}${p('Body', words)}`,
    )
    const grown = planned(table, [swap('Spectral', 'Space Mono')]).plan.effects!
    expect(grown.tables).toHaveLength(1)
    expect(grown.tables[0]).toMatchObject({ rows: 1, opening: expect.stringContaining('Departures') as string })
    expect(grown.tables[0]!.heightAfter).toBeGreaterThan(grown.tables[0]!.heightBefore)
    expect(grown.paragraphs.find(each => each.opening.startsWith('A heading'))).toMatchObject({ title: true })
    expect(grown.paragraphs.find(each => each.opening.startsWith('Departures'))).toMatchObject({ title: false })
  })
  it('a frame that had room and runs over as one that runs over, and not as one that is fuller', () => {
    const frame = (name: string, height: number) =>
      textFrame(
        shapeAt(1, 1 + height, 8, height),
        `<text:p>${words}</text:p>`,
        `draw:style-name="F" draw:name="${name}"`,
      )
    const of = drawingOf({
      styles: graphicStyle('F', 'draw:fill="none" draw:auto-grow-height="false" fo:padding="0cm"'),
      pages: drawnPage([0.9, 1.3, 1.7, 2.1, 2.5].map(height => frame(`of ${height}`, height)).join('')),
    })
    const room = new Map(of.composition.fills.map(fill => [fill.name, fill.room]))
    const { overset, frames: told } = planned(of, [swap('Spectral', 'Space Mono')]).plan.effects!
    expect(overset.some(each => room.get(each.name)! > 5)).toBe(true)
    expect(told.length).toBeGreaterThan(0)
    expect(told.filter(each => overset.some(over => over.name === each.name))).toEqual([])
  })
  it('a heading without a style as a title', () => {
    const of = sessionOf({
      body: `<text:h text:outline-level="1">${words}</text:h><text:p>${words}</text:p>`,
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties fo:font-family="Spectral"/></style:default-style>',
    })
    const { paragraphs } = planned(of, [swap('Spectral', 'Space Mono')]).plan.effects!
    expect(paragraphs.map(each => each.title)).toEqual([true, false])
  })
  it('finds the gentlest repair of each kind, and applying it does what was said', () => {
    const before = frames()
    const { plan, after } = planned(before, [swap('Spectral', 'Work Sans')])
    const [over] = plan.effects!.overset
    const options = repairsFor(before, after, {
      part: over!.part,
      node: over!.node,
      of: 'frame',
      limits: { ...usualLimits, size: 80 },
    })
    expect(options.map(each => each.repair.kind)).toEqual(expect.arrayContaining(['size', 'height']))
    for (const option of options) {
      const repaired = planned(before, [swap('Spectral', 'Work Sans'), { type: 'repair', repair: option.repair }])
      expect(
        repaired.plan.effects!.overset.find(frame => frame.node === over!.node)?.lines ?? 0,
        repairTitle(option.repair),
      ).toBe(option.lines)
      expect(repaired.plan.rows.at(-1)!.title).toBe(`Repair: ${repairTitle(option.repair)}`)
    }
    expect(options.find(each => each.repair.kind === 'height')!.mends).toBe(true)
  })
  it('a paragraph gets its lines back by tracking or size', () => {
    const before = styled(p('Body', words.repeat(3)))
    const { plan, after } = planned(before, [swap('Spectral', 'Work Sans')])
    const [grown] = plan.effects!.paragraphs
    const options = repairsFor(before, after, {
      part: grown!.part,
      node: grown!.node,
      of: 'paragraph',
      limits: { ...usualLimits, size: 80, tracking: -60 },
    })
    const size = options.find(each => each.repair.kind === 'size')!
    expect(size).toMatchObject({ mends: true, linesBefore: grown!.linesAfter })
    expect(
      planned(before, [swap('Spectral', 'Work Sans'), { type: 'repair', repair: size.repair }]).plan.effects!
        .paragraphs,
    ).toEqual([])
  })
  it('says what repairs are called', () => {
    expect([
      repairTitle({ kind: 'tracking', amount: -10 }),
      repairTitle({ kind: 'size', amount: 96.5 }),
      repairTitle({ kind: 'height', amount: 12 }),
    ]).toEqual(['tracking −10', 'size 96.5 %', 'height +12 pt'])
  })
})

describe('a file', () => {
  it('saved after a swap with everything asked at once reads again as the plan said', () => {
    const before = styled(p('Body', 'body text') + p('Head', 'a heading') + p('Note', 'a note'))
    const { after } = planned(
      before,
      [swap('Spectral', 'Inter', { size: { mode: 'cap-height', step: 0.5 }, leading: 'stay' })],
      [{ ...head, name: 'Note' }],
    )
    const again = session(saveDocument(after.document))
    expect(setIn(again)).toEqual(setIn(after))
    expect(setIn(again)['a note']).toMatch(/^Spectral 8/)
  })
})
