import { describe, expect, it } from 'vitest'
import { registry } from '../../../core/change/registry'
import { applyEdit } from '../../../core/document/edits'
import { EditRefusal } from '../../../core/document/refusals'
import { paragraphsOf } from '../../../core/document/stories'
import { DocumentSession } from '../../../core/session'
import { paragraphRuns, paragraphText } from '../../../core/style/runs'
import { saltmereLine } from '../../../demo/houses'
import { drawingOf, drawnPage, paragraphStyle, sessionOf, shapeAt } from '../../support/fixtures'
import { quickly, request, swap } from '../../support/planning'

/* What plans say of themselves, and edits of objects to the letter. */

const body = (of: DocumentSession) => paragraphsOf(of.reading.stories.find(each => each.role === 'body')!.blocks)

describe('plans say', () => {
  it('what goes and what comes where words are put in order', () => {
    const of = sessionOf({ body: '<text:p>one<text:s/> "two"<text:s/></text:p>' })
    const wish = {
      emptyParagraphs: false,
      doubleSpaces: true,
      edgeSpaces: true,
      tabIndents: false,
      straightQuotes: true,
    }
    const { rows } = quickly(of, { type: 'clean-up', ...wish }).plan
    expect(rows.map(row => [row.key['kind'], row.after])).toEqual([
      ['doubleSpaces', '“␣”'],
      ['straightQuotes', '““”'],
      ['straightQuotes', '“””'],
      ['edgeSpaces', 'gone'],
    ])
  })

  it('how many roles keep their look where a document is dressed', () => {
    const said = (keep: string[]) =>
      registry.sentences(request([{ type: 'dress', house: saltmereLine, keep, roles: [] }]))[0]
    expect(said([])).toBe('Set the styles of each role as the house Saltmere Line says.')
    expect(said(['body'])).toBe('Set the styles of each role as the house Saltmere Line says, but for 1 role.')
  })

  it('how much text they change, to the letter', () => {
    const of = sessionOf({
      body: '<text:p text:style-name="A">Kelda</text:p><text:p>Rona</text:p>',
      styles: paragraphStyle('A', 'fo:font-family="Jost"'),
    })
    const { plan } = quickly(of, swap('Jost', 'Spectral'))
    expect([plan.places, plan.characters]).toEqual([1, 5])
  })

  it('what several wishes come to: the first two, and how many more', () => {
    const titled = (...kinds: string[]) => {
      const of = sessionOf({ body: '<text:p text:style-name="A">x</text:p>', styles: paragraphStyle('A') })
      const make = (displayName: string) => ({ type: 'make', family: 'paragraph', displayName, changes: {} })
      return quickly(of, ...kinds.map(make)).plan.title
    }
    expect(titled('B', 'C', 'D').split('; ')).toHaveLength(3)
    const four = titled('B', 'C', 'D', 'E').split('; ')
    expect(four).toHaveLength(3)
    expect(four[2]).toBe('and 2 more')
  })

  it('which language is shown, or that all are', () => {
    const said = (language: string | null) => registry.sentences(request([{ type: 'show', language }]))
    expect([said('de'), said(null)]).toEqual([['Show text in de alone.'], ['Show text in all languages.']])
  })

  it('which masters levels are set for', () => {
    const said = (master: string | null) =>
      registry.sentences(
        request([{ type: 'levels', master, levels: [{ placeholder: 'title', setting: { size: 30 } }] }]),
      )[0]
    expect(said(null)).toBe('Set 1 placeholder of all masters anew.')
    expect(said('Quay')).toBe('Set 1 placeholder of Quay anew.')
  })
})

describe('a recast of case', () => {
  const set = (wanted: string) => {
    const of = sessionOf({
      body: '<text:p text:style-name="P">Quay</text:p>',
      styles: paragraphStyle('P', 'fo:text-transform="uppercase" fo:font-variant="small-caps"'),
    })
    const { after } = quickly(of, {
      type: 'recast',
      find: { scope: { kind: 'pages', from: 0, to: 0 } },
      change: { case: wanted },
    })
    const [paragraph] = body(after)
    const { shared } = paragraphRuns(paragraph!, after.reading.cascade).runs[0]!.style.effective
    return [shared['fo:text-transform'], shared['fo:font-variant']]
  }
  it('sets both of its properties, so that none of the other is left', () => {
    expect(set('small-caps')).toEqual(['none', 'small-caps'])
    expect(set('lowercase')).toEqual(['lowercase', 'normal'])
    expect(set('none')).toEqual(['none', 'normal'])
  })
})

describe('twins that are folded', () => {
  const of = (leading: string) =>
    sessionOf({
      body: `<text:p text:style-name="A">${'The launch goes out. '.repeat(9)}</text:p><text:p text:style-name="B">Nearly alike</text:p>`,
      styles:
        paragraphStyle('A', 'fo:font-family="Jost" fo:font-size="10pt"', 'fo:line-height="14pt"') +
        paragraphStyle('B', 'fo:font-family="Jost" fo:font-size="10.2pt"', `fo:line-height="${leading}"`),
    })
  const folded = (from: DocumentSession) => {
    const { voices } = from.detail.census
    const twin = voices.find(each => each.twinOf !== null)!
    const { after } = quickly(from, { type: 'fold-voice', from: twin.key, to: twin.twinOf! })
    const style = after.reading.cascade.scope('styles.xml').common.get('paragraph\nB')!
    return [style.text['fo:font-size'], style.paragraph['fo:line-height'], after.detail.census.voices.length]
  }
  it('take the size alone where their leading is the same, and both where it is not', () => {
    expect(folded(of('14pt'))).toEqual(['10pt', '14pt', 1])
    expect(folded(of('15pt'))).toEqual(['10pt', '14pt', 1])
  })
})

describe('edits of pages and objects', () => {
  const edited = (of: DocumentSession, edit: Parameters<typeof applyEdit>[1]) =>
    new DocumentSession(
      applyEdit(of.document, edit, of.document.parts.get('content.xml')!.nextId).document,
      of.typesetter,
    )
  const pages = (of: DocumentSession) =>
    [...of.document.parts.get('content.xml')!.descendants()].filter(each => each.name === 'draw:page')

  it('take one of two pages away, and never the last', () => {
    const of = drawingOf({ pages: drawnPage('') + drawnPage('') })
    const one = edited(of, { type: 'remove-page', part: 'content.xml', node: pages(of)[0]!.id })
    expect(pages(one).length).toBe(1)
    expect(() => edited(one, { type: 'remove-page', part: 'content.xml', node: pages(one)[0]!.id })).toThrow(
      EditRefusal,
    )
  })

  it('make an ellipse of a circle that is stretched, with half its sides as radii', () => {
    const of = drawingOf({
      pages: drawnPage(`<draw:circle ${shapeAt(1, 1, 2, 2)} svg:cx="2cm" svg:cy="2cm" svg:r="1cm"/>`),
    })
    const circle = [...of.document.parts.get('content.xml')!.descendants()].find(each => each.name === 'draw:circle')!
    const now = edited(of, {
      type: 'place-frame',
      part: 'content.xml',
      node: circle.id,
      from: { x: 28.35, y: 28.35, width: 56.7, height: 56.7 },
      to: { x: 28.35, y: 28.35, width: 113.4, height: 56.7 },
    })
    const { attributes } = now.document.parts.get('content.xml')!.element(circle.id)
    expect(attributes['svg:r']).toBeUndefined()
    const half = (value: string | undefined) => Number.parseFloat(value ?? '')
    expect(half(attributes['svg:rx']) / half(attributes['svg:ry'])).toBeCloseTo(2, 2)
    // Whichever of its two ways of saying so is read, it lies at the same place.
    expect(half(attributes['svg:cx']) - half(attributes['svg:rx'])).toBeCloseTo(28.35, 1)
    expect([half(attributes['svg:width']), half(attributes['svg:x'])]).toEqual([113.4, 1])
  })

  it('put a note where it is asked for: before the first word, inside one, behind the last', () => {
    const of = sessionOf({ body: '<text:p>Quay side</text:p>' })
    const [paragraph] = body(of)
    for (const at of [0, 2, 9]) {
      const now = edited(of, { type: 'add-note', part: 'content.xml', node: paragraph!.node, at, endnote: false })
      expect(paragraphText(body(now)[0]!).indexOf('\uFFFC')).toBe(at)
    }
  })
})
