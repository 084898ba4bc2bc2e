import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import type { OdfDocument } from '../../../core/document/open'
import { saveDocument } from '../../../core/document/open'
import type { Operation } from '../../../core/document/operations'
import { paragraphsOf, readStories } from '../../../core/document/stories'
import { readDocument } from '../../../core/style/reading'
import { seasonReview } from '../../../demo/season-review'
import { openOdt, paragraphStyle, session, textStyle } from '../../support/fixtures'

const body = Array.from({ length: 12 }, (_, at) =>
  at % 4 === 3
    ? `<text:list><text:list-item><text:p>item ${at} <text:span text:style-name="T">` +
      `marked</text:span></text:p></text:list-item></text:list>`
    : at % 5 === 4
      ? `<table:table><table:table-column/><table:table-row><table:table-cell><text:p>` +
        `cell ${at}</text:p></table:table-cell></table:table-row></table:table>`
      : `<text:p text:style-name="P">text ${at} <text:span text:style-name="T">marked</text:span> on</text:p>`,
).join('\n')
const fixture = openOdt({
  automatic: paragraphStyle('P', 'fo:font-size="11pt"') + textStyle('T', 'fo:font-weight="bold"'),
  body,
})

const textNodes = (document: OdfDocument): number[] => {
  const part = document.parts.get('content.xml')!
  return [...part.descendants()]
    .filter(element => element.name === 'text:p' || element.name === 'text:span')
    .flatMap(element => element.children.filter(id => part.node(id).kind === 'text'))
}
const styleNode = (document: OdfDocument) => {
  const part = document.parts.get('content.xml')!
  return [...part.descendants()].find(
    element => element.name === 'style:style' && element.attributes['style:name'] === 'T',
  )!.id
}
const edit = fc.tuple(fc.nat(500), fc.constantFrom('', 'new words', 'a & b < c', 'ü'), fc.boolean())

function operation(document: OdfDocument, [which, text, style]: [number, string, boolean]): Operation {
  if (style)
    return {
      type: 'set-properties',
      part: 'content.xml',
      node: styleNode(document),
      properties: 'text',
      set: { 'fo:color': `#0000${((which % 90) + 10).toString()}` },
    }
  const nodes = textNodes(document)
  return {
    type: 'restore-text',
    part: 'content.xml',
    node: nodes[which % nodes.length]!,
    text,
    markup: text.replace(/&/g, '&amp;').replace(/</g, '&lt;'),
  }
}

describe('reading again after changes', () => {
  it('gives the stories that reading from nothing gives: a property', () => {
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), edits => {
        let document = fixture
        let reading = readDocument(document)
        for (const each of edits) {
          document = applyAll(document, [operation(document, each)]).document
          reading = readDocument(document, reading)
          const plain = (stories: typeof reading.stories) =>
            JSON.stringify(stories.map(({ origins: _origins, ...story }) => story))
          expect(plain(reading.stories)).toBe(plain(readDocument(document).stories))
        }
      }),
      { numRuns: 60 },
    )
  })

  it('takes over the objects that did not change, and no other', () => {
    const { document } = session(seasonReview())
    const reading = readDocument(document)
    const charts = reading.objects.filter(each => each.sub.kind === 'chart')
    expect(charts.length).toBeGreaterThan(1)
    const part = document.parts.get(charts[0]!.sub.content!)!
    const words = [...part.descendants()].find(element => element.name === 'text:p')!.children[0]!
    const changed = applyAll(document, [
      { type: 'restore-text', part: part.path, node: words, text: 'Other', markup: 'Other' },
    ]).document
    const again = readDocument(changed, reading)
    expect(again.objects.filter(each => !reading.objects.includes(each)).map(each => each.prefix)).toEqual([
      charts[0]!.prefix,
    ])
  })

  it('gives the styles that a cascade from nothing gives, and keeps them only where no style was touched: a property', () => {
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 5 }), edits => {
        let document = fixture
        let reading = readDocument(document)
        for (const each of edits) {
          const before = reading
          document = applyAll(document, [operation(document, each)]).document
          reading = readDocument(document, before)
          if (each[2]) expect(reading.cascade.sharesStyles(before.cascade)).toBe(false)
          const fresh = readDocument(document)
          const effective = (of: typeof reading) =>
            of.stories
              .flatMap(story => paragraphsOf(story.blocks))
              .flatMap(paragraph =>
                paragraph.inlines.flatMap(inline =>
                  inline.kind === 'text' ? [of.cascade.text(paragraph, inline.span).effective.shared['fo:color']] : [],
                ),
              )
          expect(effective(reading)).toEqual(effective(fresh))
        }
      }),
      { numRuns: 60 },
    )
  })

  it('touches the paths to what changed and nothing else: a property', () => {
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 4 }), edits => {
        let document = fixture
        for (const each of edits) document = applyAll(document, [operation(document, each)]).document
        const [now, before] = [document, fixture].map(each => each.parts.get('content.xml')!) as [
          ReturnType<OdfDocument['parts']['get']> & object,
          ReturnType<OdfDocument['parts']['get']> & object,
        ]
        const differing = now.differences(before)
        for (const element of now.descendants()) {
          if (differing.has(element.id)) continue
          expect(before.find(element.id)).toBe(element)
          expect(now.textOf(element.id)).toBe(before.textOf(element.id))
        }
        expect(now.differences(now).size).toBe(0)
      }),
      { numRuns: 60 },
    )
  })

  it('of what was taken back finds the very bytes again, and reads as it did: a property', () => {
    const bytes = saveDocument(fixture)
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 5 }), edits => {
        let document = fixture
        const inverses: Operation[][] = []
        for (const each of edits) {
          const applied = applyAll(document, [operation(document, each)])
          document = applied.document
          inverses.unshift([...applied.inverse])
        }
        for (const inverse of inverses) document = applyAll(document, inverse).document
        expect(Buffer.compare(saveDocument(document), bytes)).toBe(0)
        const stories = (of: OdfDocument) =>
          JSON.stringify(readStories(of.parts.get('content.xml')!).map(story => story.blocks))
        expect(stories(document)).toBe(stories(fixture))
      }),
      { numRuns: 40 },
    )
  })
})
