import { describe, expect, it } from 'vitest'
import { planText } from '../../../cli/report'
import { openDocument, partOf } from '../../../core/document/open'
import { readScopes } from '../../../core/document/styles'
import { PartDeclarations } from '../../../core/document/part-declarations'
import { compareCompositions } from '../../../core/change/effects'
import { mapFaces } from '../../../core/change/swap/mapping'
import { swapSchema, wishFor } from '../../../core/change/swap/wish'
import { registry } from '../../../core/change/registry'
import { dropStale } from '../../../core/document/stale'
import { holderFor } from '../../../core/change/reach'
import { readDocument } from '../../../core/style/reading'
import { textUses } from '../../../core/change/swap/uses'
import { face, library, openOdt, paragraphStyle, sessionOf, textStyle } from '../../support/fixtures'
import { planned, request, swap } from '../../support/planning'

const wishes = (from: string, to: string, more: object = {}) => [swapSchema.parse(swap(from, to, more))]

describe('what a request may hold', () => {
  it.each([
    [{ wishes: [] }],
    [{ wishes: [swap('', 'Jost')] }],
    [{ wishes: [{ type: 'swap', from: { family: 'a' } }] }],
    [{ wishes: [{ ...swap('a', 'b'), type: 'unheard of' }] }],
    [{ wishes: [swap('a', 'b')], extra: 1 }],
    [{ wishes: Array.from({ length: 21 }, () => swap('a', 'b')) }],
    [{ wishes: [swap('a'.repeat(201), 'b')] }],
    [{ wishes: [swap('a', 'b')], leftOut: [{ part: 'content.xml' }] }],
    [{ wishes: [swap('a', 'b')], leftOut: ['style|Body'] }],
  ])('refuses %j', body => {
    expect(registry.schema.safeParse(body).success).toBe(false)
  })

  it('fills in what is not said', () => {
    expect(request([swap('a', 'b')])).toMatchObject({ leftOut: [], wishes: [{ faces: [], symbols: false }] })
  })
})

describe('mapping', () => {
  const session = sessionOf({
    stylesFaces: face('Jost'),
    styles:
      paragraphStyle('B', 'style:font-name="Jost"') +
      textStyle('S', 'fo:font-weight="bold"') +
      textStyle('I', 'fo:font-style="italic"'),
    body: '<text:p text:style-name="B">a<text:span text:style-name="S">b</text:span><text:span text:style-name="I">c</text:span></text:p>',
  })
  const { faces } = session.detail.census

  it('takes a wish for one face before the wish for its family', () => {
    const both = [
      ...wishes('Jost', 'Spectral'),
      swapSchema.parse({ ...swap('jost', 'Archivo'), from: { family: 'jost', style: 'bold' } }),
    ]
    expect([
      wishFor(both, { family: 'Jost', style: 'Bold' })!.to.family,
      wishFor(both, { family: 'Jost', style: 'Regular' })!.to.family,
      wishFor(both, { family: 'Spectral', style: 'Regular' }),
    ]).toEqual(['Archivo', 'Spectral', undefined])
  })

  it('says how near each face is', () => {
    const notes = (to: string) =>
      Object.fromEntries(
        mapFaces(faces, wishes('Jost', to), library).map(mapping => [mapping.from.style, mapping.note]),
      )
    expect(notes('Spectral')).toEqual({ Regular: 'same weight', Bold: 'same weight', Italic: 'same weight' })
    expect(notes('Oswald')).toEqual({ Regular: 'same weight', Bold: 'same weight', Italic: 'no italic in Oswald' })
    expect(notes('Abril Fatface')).toEqual({
      Regular: 'same weight',
      Bold: 'nearest weight, 400',
      Italic: 'no italic in Abril Fatface',
    })
  })

  it('takes a style whose name says no weight for a regular one', () => {
    const [odd] = mapFaces([{ ...faces[0]!, style: 'Harbour Cut' }], wishes('Jost', 'Abril Fatface'), library)
    expect(odd).toMatchObject({ from: { weight: 400 }, note: 'same weight' })
  })

  it('takes a face chosen by hand, which the family must have', () => {
    const { key } = faces.find(each => each.style === 'Bold')!
    expect(
      mapFaces(
        faces,
        wishes('Jost', 'Spectral', { faces: [{ style: 'Bold', slot: 'western', to: 'ExtraBold' }] }),
        library,
      ).find(mapping => mapping.key === key),
    ).toMatchObject({ note: 'chosen', to: { weight: 800 } })
    // What is told is the face's own name, not that of its weight.
    expect(
      mapFaces(
        faces,
        wishes('Jost', 'Lato', { faces: [{ style: 'Bold', slot: 'western', to: 'Hairline' }] }),
        library,
      ).find(mapping => mapping.key === key),
    ).toMatchObject({ to: { style: 'Hairline', weight: 100 } })
    expect(() =>
      mapFaces(faces, wishes('Jost', 'Spectral', { faces: [{ style: 'Bold', slot: 'western', to: 'Fat' }] }), library),
    ).toThrow(/has no face/)
  })
})

describe('where a property can be set so that it reaches some text and no other', () => {
  const document = openOdt({
    stylesFaces: face('Jost'),
    styles:
      paragraphStyle('A', 'style:font-name="Jost"') +
      paragraphStyle('B', 'fo:color="#000000"', '', ' style:parent-style-name="A"') +
      textStyle('S', 'fo:font-weight="bold"'),
    body:
      '<text:p text:style-name="A">one<text:span text:style-name="S">strong</text:span>' +
      '</text:p><text:p text:style-name="B">two</text:p>',
  })
  const uses = textUses(readDocument(document))
  const find = (text: string) =>
    uses.find(use => use.codePoints.has(text.codePointAt(0)!) && use.characters === text.length)!

  it('is the innermost style that speaks for that text alone', () => {
    expect(holderFor(find('strong'), new Set([find('strong')]), uses, 'style:font-name', [0, 1])!.style.name).toBe('S')
    expect(holderFor(find('two'), new Set([find('two')]), uses, 'style:font-name', [0, 1])!.style.name).toBe('B')
  })

  it('is nowhere where each style also speaks for other text', () => {
    expect(holderFor(find('one'), new Set([find('one')]), uses, 'style:font-name', [0])).toBeNull()
    expect(holderFor(find('one'), new Set(uses), uses, 'style:font-name', [0])!.style.name).toBe('A')
  })
})

describe('declarations', () => {
  const setup = (faces: string) => {
    const document = openOdt({ faces })
    const declared = [...readScopes(document, document.subdocuments[0]!).content!.faces.values()]
    return { document, declared, named: (name: string) => declared.filter(each => each.name === name) }
  }

  it('one that goes is rewritten in place, a second one dropped', () => {
    const { document, declared } = setup(face('Old', 'Old', ' style:font-charset="x-iscii"') + face('Old1', 'Old'))
    const own = new PartDeclarations(document, 'content.xml', declared, [])
    expect(own.nameOf('Jost', 'variable')).toBe('Jost')
    expect(own.nameOf('Jost', 'variable')).toBe('Jost')
    expect(own.finish().map(operation => [operation.type, 'set' in operation ? operation.set : null])).toEqual([
      [
        'name-font',
        { 'style:name': 'Jost', 'svg:font-family': 'Jost', 'style:font-pitch': 'variable', 'style:font-charset': null },
      ],
      ['drop-face', null],
    ])
  })

  it('one that is there already is used, and a name that is taken is numbered', () => {
    const there = setup(face('Already', 'Jost'))
    expect(new PartDeclarations(there.document, 'content.xml', [], there.declared).nameOf('Jost', 'variable')).toBe(
      'Already',
    )
    const taken = setup(face('Jost', 'Something Else'))
    const own = new PartDeclarations(taken.document, 'content.xml', [], taken.declared)
    expect(own.nameOf('Jost', 'variable')).toBe('Jost1')
    expect(own.finish()).toMatchObject([
      { type: 'declare-face', attributes: { 'style:name': 'Jost1', 'svg:font-family': 'Jost' } },
    ])
  })
})

describe('what goes stale', () => {
  it('is the picture of a changed object with the image that shows it, and only that', () => {
    const document = openOdt({
      body:
        '<text:p><draw:frame><draw:object xlink:href="./Object 1"/><draw:image xlink:href="./ObjectReplacements/Object ' +
        '1"/></draw:frame><draw:frame><draw:object xlink:href="./Object 2"/>' +
        '<draw:image xlink:href="./ObjectReplacements/Object 2"/></draw:frame></text:p>',
      parts: [1, 2].flatMap(number => [
        {
          path: `Object ${number}/content.xml`,
          type: 'text/xml',
          content: '<math xmlns="http://www.w3.org/1998/Math/MathML"/>',
        },
        { path: `ObjectReplacements/Object ${number}`, type: '', content: 'x' },
      ]),
      objects: [1, 2].map(number => ({
        path: `Object ${number}/`,
        type: 'application/vnd.oasis.opendocument.formula',
      })),
    })
    const { operations, said } = dropStale(document, new Set(['Object 2/content.xml']))
    expect(operations.map(operation => operation.type)).toEqual(['drop-replacement', 'drop-part'])
    const image = operations.find(operation => operation.type === 'drop-replacement')!
    expect(partOf(document, image.part).element(image.node).attributes['xlink:href']).toBe(
      './ObjectReplacements/Object 2',
    )
    expect(said).toEqual(['the picture that stood in for “Object 2”'])
    expect(dropStale(document, new Set()).operations).toEqual([])
  })
})

describe('effects', () => {
  const text = 'the quick morning boat crosses the wide grey sound '.repeat(12)
  const narrow = sessionOf({
    faces: face('Barlow Condensed') + face('Work Sans'),
    automatic: paragraphStyle('P', 'style:font-name="Barlow Condensed"'),
    body: `<text:p text:style-name="P">${text}</text:p><text:p>short</text:p>`,
  })

  it('tell gained lines and pages, and nothing of what stays', () => {
    const { plan } = planned(narrow, [swap('Barlow Condensed', 'Work Sans')])
    expect(plan.effects!.paragraphs).toHaveLength(1)
    const [paragraph] = plan.effects!.paragraphs
    expect(paragraph!.linesAfter).toBeGreaterThan(paragraph!.linesBefore)
    expect(plan.effects!.linesAfter - plan.effects!.linesBefore).toBe(paragraph!.linesAfter - paragraph!.linesBefore)
    expect(plan.effects!.pages).toEqual([
      { page: 0, paragraphs: 1, lines: paragraph!.linesAfter - paragraph!.linesBefore },
    ])
    expect(paragraph!.opening.startsWith('the quick morning')).toBe(true)
  })

  it('of nothing are none', () => {
    expect(compareCompositions(narrow.composition, narrow.composition)).toMatchObject({
      paragraphsChanged: 0,
      paragraphs: [],
      overset: [],
      pages: [],
    })
  })

  it('are reported in words', () => {
    const { plan } = planned(narrow, [swap('Barlow Condensed', 'Work Sans')])
    const report = planText({ ...plan, left: [{ what: 'a picture', reason: 'cannot be changed', count: 1 }] }, null)
    expect(report).toContain('Barlow Condensed gives way to Work Sans')
    expect(report).toContain('left: a picture (1): cannot be changed')
    expect(report).toContain('nothing was written')
    expect(report).toContain('no glyph is missing')
  })
})

it('opening a document twice gives the same ids', () => {
  const bytes = openOdt({}).container.bytes
  const ids = () =>
    [...openDocument(bytes).parts.get('content.xml')!.descendants()].map(element => `${element.id} ${element.name}`)
  expect(ids()).toEqual(ids())
})

describe('the text that a plan counts', () => {
  it('is in characters, whatever plane they are of; objects are none', () => {
    const document = openOdt({
      stylesFaces: face('Spectral'),
      styles:
        '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
        'style:font-name-asian="Spectral" style:font-name-complex="Spectral"/></style:default-style>',
      body: '<text:p>a😀漢漢b<draw:frame text:anchor-type="as-char" svg:width="1cm" svg:height="1cm"/>a</text:p>',
    })
    const counts = new Map<string, number>()
    let characters = 0
    for (const use of textUses(readDocument(document))) {
      characters += use.characters
      for (const [code, count] of use.codePoints)
        counts.set(String.fromCodePoint(code), (counts.get(String.fromCodePoint(code)) ?? 0) + count)
    }
    expect(Object.fromEntries(counts)).toEqual({ a: 2, b: 1, '😀': 1, 漢: 2 })
    expect(characters).toBe(6)
  })
})
