import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { saveDocument } from '../../../core/document/open'
import { operationsSchema } from '../../../core/document/operations'
import { PlanError, type WishList } from '../../../core/change/plan'
import { registry } from '../../../core/change/registry'
import { remaining } from '../../../core/change/swap/references'
import type { DocumentSession } from '../../../core/session'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { familiesIn, otherDifferences, parts, xmlParts } from '../../support/independent'

const guide = sailingGuide()
const open = session(guide)
const request = (...wishes: [string, string, string?, string?][]): WishList =>
  registry.schema.parse({
    wishes: wishes.map(([from, to, fromFace, toFace]) => ({
      type: 'swap',
      from: { family: from, ...(fromFace ? { style: fromFace } : {}) },
      to: { family: to, ...(toFace ? { style: toFace } : {}) },
    })),
  })
const planOf = (of: DocumentSession, asked: WishList) => registry.plan(of, asked)
/** A request with more said of its first wish. */
const withMore = (asked: WishList, more: object): WishList =>
  registry.schema.parse({ ...asked, wishes: asked.wishes.map((wish, at) => (at === 0 ? { ...wish, ...more } : wish)) })
const named = (of: DocumentSession, family: string) => {
  const files = parts(saveDocument(of.document))
  return xmlParts(files).filter(path => familiesIn(files[path]!).has(family.toLowerCase()))
}

describe('a swap of a family', () => {
  const { plan, after } = planOf(open, request(['Skerrow', 'Work Sans']))

  it('reaches styles, strays, defaults and the chart, and leaves nothing', () => {
    expect(new Set(plan.rows.map(row => row.stage))).toEqual(
      new Set(['style', 'stray', 'default', 'chart', 'declaration']),
    )
    expect(remaining(after.document, 'Skerrow')).toEqual([])
    expect(named(open, 'Skerrow').length).toBeGreaterThan(2)
    expect(named(after, 'Skerrow')).toEqual([])
    expect(after.detail.census.faces.some(each => each.family === 'Skerrow')).toBe(false)
  })

  it('changes nothing else: another reading finds only font attributes changed', () => {
    const old = parts(guide)
    const now = parts(saveDocument(after.document))
    for (const path of xmlParts(old)) expect(otherDifferences(old[path]!, now[path]!), path).toEqual([])
  })

  it('says what it does to the pages', () => {
    expect(plan.effects).toMatchObject({ pagesBefore: 24, pagesAfter: 24 })
    expect(plan.effects!.overset).toMatchObject([{ name: 'Notice 1', lines: 1, linesBefore: 0 }])
    expect(plan.effects!.paragraphs.every(each => each.linesAfter !== each.linesBefore)).toBe(true)
    expect(plan.effects!.unlaid).toEqual([])
  })

  it('is plain operations that undo to the byte', () => {
    expect(operationsSchema.safeParse(plan.operations).success).toBe(true)
    const { document, inverse } = applyAll(
      open.document,
      JSON.parse(JSON.stringify(plan.operations)) as typeof plan.operations,
    )
    expect(saveDocument(document)).toEqual(saveDocument(after.document))
    expect(saveDocument(applyAll(document, JSON.parse(JSON.stringify(inverse)) as typeof inverse).document)).toEqual(
      guide,
    )
  })

  it('keeps rows that are left out and says so', () => {
    const chart = plan.rows.find(row => row.stage === 'chart')!
    const struck = planOf(open, { ...request(['Skerrow', 'Work Sans']), leftOut: [chart.key] })
    expect(struck.plan.left).toContainEqual({ what: chart.title, reason: 'left out by hand', count: chart.count })
    expect(named(struck.after, 'Skerrow').every(path => path.startsWith('Object 1/'))).toBe(true)
    expect(named(struck.after, 'Skerrow').length).toBeGreaterThan(0)
  })
})

describe('several wishes act at once', () => {
  it('a pair changes places', () => {
    const counts = (of: DocumentSession, family: string) =>
      of.detail.census.faces.filter(each => each.family === family).reduce((sum, each) => sum + each.characters, 0)
    const { after } = planOf(open, request(['Skerrow', 'Spectral'], ['Spectral', 'Work Sans']))
    expect(counts(after, 'Spectral')).toBe(counts(open, 'Skerrow'))
    expect(counts(after, 'Work Sans')).toBe(counts(open, 'Spectral'))
  })

  it('A to B and B to A', () => {
    const both = sessionOf({
      faces: face('Jost') + face('Spectral'),
      automatic: paragraphStyle('P1', 'style:font-name="Jost"') + paragraphStyle('P2', 'style:font-name="Spectral"'),
      body: '<text:p text:style-name="P1">aaa</text:p><text:p text:style-name="P2">b</text:p>',
    })
    const { after } = planOf(both, request(['Jost', 'Spectral'], ['Spectral', 'Jost']))
    expect(after.detail.census.faces.map(each => [each.family, each.characters])).toEqual([
      ['Spectral', 3],
      ['Jost', 1],
    ])
  })
})

describe('faces', () => {
  const weights = (more = '') =>
    sessionOf({
      stylesFaces: face('Jost'),
      styles:
        paragraphStyle('Body', 'style:font-name="Jost"') +
        textStyle('Strong', 'fo:font-weight="bold"') +
        textStyle('Heavy', 'fo:font-weight="800"') +
        more,
      body:
        '<text:p text:style-name="Body">plain <text:span text:style-name="Strong">bold</text:span> ' +
        '<text:span text:style-name="Heavy">heavy</text:span></text:p>',
    })

  it('are mapped weight by weight, and no weight is invented', () => {
    const { plan, after } = planOf(weights(), request(['Jost', 'Carlito']))
    expect(plan.mappings.map(each => [each.from.style, each.to.style, each.note])).toEqual(
      expect.arrayContaining([
        ['Regular', 'Regular', 'same weight'],
        ['Bold', 'Bold', 'same weight'],
        ['ExtraBold', 'Bold', 'nearest weight, 700'],
      ]),
    )
    // The style that asked for 800 now asks for what there is.
    expect(new TextDecoder().decode(parts(saveDocument(after.document))['styles.xml'])).toContain(
      'fo:font-weight="bold"/></style:style><style:style style:name="Heavy"',
    )
    expect(after.detail.census.faces.map(each => each.style).sort()).toEqual(['Bold', 'Regular'])
  })

  it('can be chosen by hand', () => {
    const key = weights().detail.census.faces.find(each => each.style === 'Bold')!.key
    const { plan, after } = planOf(
      weights(),
      withMore(request(['Jost', 'Spectral']), { faces: [{ style: 'Bold', slot: 'western', to: 'SemiBold' }] }),
    )
    expect(plan.mappings.find(each => each.key === key)).toMatchObject({ note: 'chosen', to: { weight: 600 } })
    expect(after.detail.census.faces.some(each => each.style === 'SemiBold')).toBe(true)
  })

  it('are swapped alone where only they are reached', () => {
    const { plan, after } = planOf(weights(), request(['Jost', 'Spectral', 'Bold', 'ExtraBold']))
    expect(plan.places).toBe(2)
    expect(after.detail.census.faces.map(each => `${each.family} ${each.style}`).sort()).toEqual([
      'Jost ExtraBold',
      'Jost Regular',
      'Spectral ExtraBold',
    ])
  })

  it('are left, and it is said, where their style speaks for other text too', () => {
    const shared = sessionOf({
      stylesFaces: face('Jost') + face('Spectral'),
      styles:
        paragraphStyle('A', 'style:font-name="Jost"') +
        paragraphStyle('B', 'style:font-name="Spectral"') +
        textStyle('Strong', 'fo:font-weight="bold"'),
      body:
        '<text:p text:style-name="A">x<text:span text:style-name="Strong">one</text:span>' +
        '</text:p><text:p text:style-name="B">y<text:span text:style-name="Strong">two</text:span></text:p>',
    })
    // Abril Fatface has no bold; Strong also speaks for Spectral, which must not change.
    const { plan, after } = planOf(shared, request(['Jost', 'Abril Fatface']))
    expect(plan.left).toContainEqual(
      expect.objectContaining({ reason: expect.stringContaining('also speaks for other text') }),
    )
    expect(after.detail.census.faces.find(each => each.family === 'Spectral' && each.style === 'Bold')).toBeDefined()
  })
})

describe('what a plan tells beforehand', () => {
  it('signs that the new face lacks', () => {
    const greek = sessionOf({
      faces: face('Liberation Serif'),
      automatic: paragraphStyle('P', 'style:font-name="Liberation Serif"'),
      body: '<text:p text:style-name="P">Ωmega Ω</text:p>',
    })
    expect(planOf(greek, request(['Liberation Serif', 'Special Elite'])).plan.missingGlyphs).toEqual([
      { codePoint: 0x3a9, character: 'Ω', count: 2, face: 'Special Elite Regular' },
    ])
  })

  it('fonts of signs stay, unless they are asked for', () => {
    expect(planOf(open, request(['OpenSymbol', 'Jost'])).plan).toMatchObject({ places: 0, operations: [] })
    const { plan, after } = planOf(open, withMore(request(['OpenSymbol', 'Jost']), { symbols: true }))
    expect(plan.places).toBe(1)
    expect(named(after, 'OpenSymbol')).toEqual([])
  })

  it('embedded font files go with the declaration that brought them', () => {
    const embedded = sessionOf({
      faces:
        `<style:font-face style:name="Own" svg:font-family="Own"><svg:font-face-src><svg:font-face-uri ` +
        `xlink:href="Fonts/own.ttf" xlink:type="simple"/></svg:font-face-src></style:font-face>`,
      automatic: paragraphStyle('P', 'style:font-name="Own"'),
      body: '<text:p text:style-name="P">x</text:p>',
      parts: [{ path: 'Fonts/own.ttf', type: 'application/x-font-ttf', content: 'font' }],
    })
    const files = parts(saveDocument(planOf(embedded, request(['Own', 'Jost'])).after.document))
    expect(Object.keys(files)).not.toContain('Fonts/own.ttf')
    expect(new TextDecoder().decode(files['content.xml'])).not.toContain('own.ttf')
  })

  it('pictures of changed objects and the thumbnail are dropped, and that is said', () => {
    const stale = sessionOf({
      faces: face('Own'),
      automatic: paragraphStyle('P', 'style:font-name="Own"'),
      body: '<text:p text:style-name="P">x</text:p>',
      parts: [{ path: 'Thumbnails/thumbnail.png', type: 'image/png', content: 'p' }],
    })
    const { plan, after } = planOf(stale, request(['Own', 'Jost']))
    expect(plan.stale).toEqual(['the thumbnail'])
    expect(Object.keys(parts(saveDocument(after.document)))).not.toContain('Thumbnails/thumbnail.png')
  })

  it('fallbacks in lists and loose families are exchanged in place', () => {
    const loose = sessionOf({
      faces: face('T', "Tahoma, 'Own Face'"),
      automatic:
        paragraphStyle(
          'P',
          'fo:font-family="\'Own Face\', serif" style:font-family-generic="roman" style:font-style-name="Heavy" ' +
            'style:font-charset="x-iscii"',
        ) + paragraphStyle('Q', 'style:font-name="T"'),
      body: '<text:p text:style-name="P">x</text:p>',
    })
    const xml = new TextDecoder().decode(
      parts(saveDocument(planOf(loose, request(['Own Face', 'Work Sans'])).after.document))['content.xml'],
    )
    expect(xml).toContain('svg:font-family="Tahoma, \'Work Sans\'"')
    expect(xml).toContain('<style:text-properties fo:font-family="\'Work Sans\', serif"/>')
  })
})

describe('wishes that cannot be met', () => {
  it.each<[string, WishList, RegExp]>([
    ['a family that is not there', request(['Nowhere', 'Jost']), /not named anywhere/],
    ['a face that is not used', request(['Jost', 'Spectral', 'Black']), /No text/],
    ['a family that the library lacks', request(['Skerrow', 'Nowhere']), /not in the library/],
    ['a face it lacks', request(['Skerrow', 'Caladea', undefined, 'Black']), /has no face/],
    ['itself', request(['Jost', 'jost']), /itself/],
  ])('%s', (_name, wish, message) => {
    expect(() => planOf(open, wish)).toThrow(PlanError)
    expect(() => planOf(open, wish)).toThrow(message)
  })
})
