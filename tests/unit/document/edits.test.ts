import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { applyEdit, editsSchema, type Edit } from '../../../core/document/edits'
import { makeEdits } from '../../../core/change/make-edits'
import { openDocument, saveDocument, type OdfDocument } from '../../../core/document/open'
import { openParagraph } from '../../../core/document/paragraph-spots'
import { idRuns } from '../../../core/xml/write'
import { sailingGuide } from '../../../demo/sailing-guide'
import { openOdt, paragraphStyle, textStyle } from '../../support/fixtures'

const part = 'content.xml'
const paragraphs = (document: OdfDocument) =>
  [...document.parts.get(part)!.descendants()]
    .filter(each => each.name === 'text:p' || each.name === 'text:h')
    .map(each => each.id)
const shown = (document: OdfDocument, node: number) => openParagraph(document.parts.get(part)!, node).text
const xml = (document: OdfDocument) => {
  const source = new TextDecoder().decode(saveBytes(document))
  return source.slice(source.indexOf('<office:text>') + 13, source.indexOf('</office:text>'))
}
function saveBytes(document: OdfDocument): Uint8Array {
  const reopened = openDocument(saveDocument(document))
  return new TextEncoder().encode(reopened.parts.get(part)!.source)
}
const edit = (document: OdfDocument, wish: Edit) => applyEdit(document, wish, document.parts.get(part)!.nextId)
const write = (body: string, from: number, to: number, text: string) => {
  const document = openOdt({ body, automatic: textStyle('T', 'fo:font-weight="bold"') })
  const node = paragraphs(document)[0]!
  return xml(edit(document, { type: 'text', part, node, from, to, text }).document)
}

describe('writing in a paragraph', () => {
  it('touches the characters alone, and keeps references as they are written', () => {
    expect(write('<text:p>a &#38; b&#x1F600;c</text:p>', 5, 5, '<x>')).toBe(
      '<text:p>a &#38; b&lt;x&gt;&#x1F600;c</text:p>',
    )
    // A reference to what is beyond the first 65,536 characters is two units of text; one to what is not, one.
    expect(write('<text:p>&#x10000;b</text:p>', 2, 2, 'x')).toBe('<text:p>&#x10000;xb</text:p>')
    expect(write('<text:p>&#xFFFD;b</text:p>', 1, 1, 'x')).toBe('<text:p>&#xFFFD;xb</text:p>')
    expect(write('<text:p>one <text:span text:style-name="T">two</text:span> three</text:p>', 5, 6, 'oo')).toBe(
      '<text:p>one <text:span text:style-name="T">tooo</text:span> three</text:p>',
    )
    expect(write('<text:p><![CDATA[a<b]]></text:p>', 1, 1, 'x')).toBe('<text:p>ax&lt;b</text:p>')
  })

  it('takes the span of the character before, or of the first one replaced', () => {
    expect(write('<text:p>one<text:span text:style-name="T">two</text:span></text:p>', 3, 3, 'x')).toBe(
      '<text:p>onex<text:span text:style-name="T">two</text:span></text:p>',
    )
    expect(write('<text:p>one<text:span text:style-name="T">two</text:span></text:p>', 3, 4, 'x')).toBe(
      '<text:p>one<text:span text:style-name="T">xwo</text:span></text:p>',
    )
    expect(write('<text:p/>', 0, 0, 'new')).toBe('<text:p>new</text:p>')
  })

  it('writes white space so that it is kept, and makes it plain again', () => {
    expect(write('<text:p>ab</text:p>', 2, 2, ' ')).toBe('<text:p>ab<text:s/></text:p>')
    expect(write('<text:p>ab<text:s/></text:p>', 3, 3, 'c')).toBe('<text:p>ab c</text:p>')
    expect(write('<text:p>a b</text:p>', 1, 1, '   ')).toBe(
      '<text:p>a<text:s text:c="3"/> b</text:p>'.replace('a<text:s text:c="3"/> b', 'a <text:s text:c="2"/> b'),
    )
    expect(write('<text:p>ab</text:p>', 1, 1, '\tx\ny')).toBe('<text:p>a<text:tab/>x<text:line-break/>yb</text:p>')
    expect(write('<text:p>a b c</text:p>', 2, 3, '')).toMatch(/^<text:p>a( <text:s\/>|<text:s\/> )c<\/text:p>$/)
  })

  it('hardens the space that a deletion would make collapse, in its own span', () => {
    expect(write('<text:p><text:span text:style-name="T">a </text:span>b c</text:p>', 2, 3, '')).toBe(
      '<text:p><text:span text:style-name="T">a </text:span><text:s/>c</text:p>',
    )
    expect(write('<text:p>one two</text:p>', 0, 3, '')).toBe('<text:p><text:s/>two</text:p>')
    expect(write('<text:p>one two</text:p>', 4, 7, '')).toBe('<text:p>one<text:s/></text:p>')
  })

  it('drops spans that it empties, and keeps bookmarks and unknown elements', () => {
    expect(write('<text:p>a<text:span text:style-name="T">b</text:span>c</text:p>', 1, 2, '')).toBe(
      '<text:p>ac</text:p>',
    )
    expect(
      write('<text:p>a<text:span text:style-name="T"><text:bookmark text:name="k"/>b</text:span>c</text:p>', 1, 2, ''),
    ).toBe('<text:p>a<text:span text:style-name="T"><text:bookmark text:name="k"/></text:span>c</text:p>')
  })

  it('refuses half a field, and takes a whole one away', () => {
    const field = '<text:p>on <text:date>1 May</text:date>.</text:p>'
    expect(() => write(field, 4, 5, '')).toThrow(/a field/)
    expect(write(field, 3, 8, 'June')).toBe('<text:p>on June.</text:p>')
  })
})

describe('paragraphs', () => {
  const splitAt = (body: string, at: number, styles = '') => {
    const document = openOdt({ body, styles, automatic: textStyle('T', 'fo:font-weight="bold"') })
    return xml(edit(document, { type: 'split', part, node: paragraphs(document)[0]!, at }).document)
  }

  it('are split, spans in two, with what stands behind moved as it is', () => {
    expect(
      splitAt(
        '<text:p text:style-name="A">one <text:span text:style-name="T" xml:id="i">two</text:span> &#8212; end</text:p>',
        6,
      ),
    ).toBe(
      '<text:p text:style-name="A">one <text:span text:style-name="T" xml:id="i">tw</text:span>' +
        '</text:p><text:p text:style-name="A"><text:span text:style-name="T">o</text:span> &#8212; end</text:p>',
    )
    expect(splitAt('<text:p>a<text:span text:style-name="T">b</text:span></text:p>', 1)).toBe(
      '<text:p>a</text:p><text:p><text:span text:style-name="T">b</text:span></text:p>',
    )
    expect(splitAt('<text:p>one two</text:p>', 4)).toBe('<text:p>one<text:s/></text:p><text:p>two</text:p>')
    expect(splitAt('<text:p>a<text:s text:c="3"/>b</text:p>', 2)).toBe(
      '<text:p>a<text:s/></text:p><text:p><text:s text:c="2"/>b</text:p>',
    )
  })

  it('are followed by the next style where their end is split off', () => {
    const styles = `${paragraphStyle('Head', '', '', ' style:next-style-name="Body"')}${paragraphStyle('Body')}`
    expect(splitAt('<text:h text:style-name="Head" text:outline-level="1">Title</text:h>', 5, styles)).toBe(
      '<text:h text:style-name="Head" text:outline-level="1">Title</text:h><text:p text:style-name="Body"></text:p>',
    )
    expect(splitAt('<text:h text:style-name="Head" text:outline-level="1">Title</text:h>', 2, styles)).toContain(
      '>Ti</text:h><text:h text:style-name="Head" text:outline-level="1">tle</text:h>',
    )
  })

  it('make a new item in a list, and take what hangs on the item along', () => {
    expect(
      splitAt(
        '<text:list><text:list-item><text:p>onetwo</text:p><text:list>' +
          '<text:list-item><text:p>deep</text:p></text:list-item></text:list>' +
          '</text:list-item></text:list>',
        3,
      ),
    ).toBe(
      '<text:list><text:list-item><text:p>one</text:p></text:list-item>' +
        '<text:list-item><text:p>two</text:p><text:list><text:list-item>' +
        '<text:p>deep</text:p></text:list-item></text:list></text:list-item></text:list>',
    )
  })

  it('are joined, over the edges of lists too, and not over a table', () => {
    const joined = (body: string) => {
      const document = openOdt({ body })
      return xml(edit(document, { type: 'join', part, node: paragraphs(document)[0]! }).document)
    }
    expect(joined('<text:p>one</text:p><text:p>two<text:bookmark text:name="k"/></text:p>')).toBe(
      '<text:p>onetwo<text:bookmark text:name="k"/></text:p>',
    )
    expect(
      joined('<text:p>one</text:p><text:list><text:list-item><text:p>two</text:p></text:list-item></text:list>'),
    ).toBe('<text:p>one</text:p>'.replace('one', 'onetwo'))
    expect(joined('<text:p>one  \n</text:p><text:p>  two</text:p>')).toMatch(/^<text:p>one\s*two<\/text:p>$/)
    expect(() =>
      joined(
        '<text:p>one</text:p><table:table><table:table-column/><table:table-row>' +
          '<table:table-cell><text:p>cell</text:p></table:table-cell></table:table-row>' +
          '</table:table>',
      ),
    ).toThrow(/a table/)
  })

  it('are removed, but a text keeps its last one', () => {
    const document = openOdt({
      body: '<text:p>one</text:p><text:list><text:list-item><text:p>two</text:p></text:list-item></text:list>',
    })
    const [one, two] = paragraphs(document) as [number, number]
    const without = edit(document, { type: 'remove', part, node: two }).document
    expect(xml(without)).toBe('<text:p>one</text:p>')
    expect(xml(edit(without, { type: 'remove', part, node: one }).document)).toMatch(/^<text:p(\/>|><\/text:p>)$/)
  })

  it('are put in with their styles', () => {
    const document = openOdt({ body: '<text:p>one</text:p>' })
    const paragraph = {
      style: 'Body',
      heading: null,
      runs: [
        { text: 'plain ', style: null },
        { text: 'bold', style: 'B' },
        { text: ' end', style: null },
      ],
    }
    expect(
      xml(
        edit(document, {
          type: 'insert',
          part,
          node: paragraphs(document)[0]!,
          paragraphs: [{ ...paragraph, style: 'H', heading: 2 }, paragraph],
        }).document,
      ),
    ).toBe(
      '<text:p>one</text:p><text:h text:style-name="H" text:outline-level="2">plain <text:span ' +
        'text:style-name="B">bold</text:span> end</text:h><text:p text:style-name="Body">plain ' +
        '<text:span text:style-name="B">bold</text:span> end</text:p>',
    )
  })
})

describe('what is not edited', () => {
  const refusal = (body: string, index = 0) => {
    const document = openOdt({ body })
    return () => edit(document, { type: 'text', part, node: paragraphs(document)[index]!, from: 0, to: 0, text: 'x' })
  }
  it('is said with a reason', () => {
    expect(refusal('<text:section text:name="S" text:protected="true"><text:p>a</text:p></text:section>')).toThrow(
      '“S” is protected',
    )
    expect(
      refusal(
        '<text:table-of-content text:name="T"><text:index-body><text:p>a</text:p></text:index-body></text:table-of-content>',
      ),
    ).toThrow('generated index')
    expect(
      refusal(
        '<text:tracked-changes text:track-changes="false"><text:changed-region text:id="c">' +
          '<text:deletion><text:p>gone</text:p></text:deletion></text:changed-region>' +
          '</text:tracked-changes><text:p>a</text:p>',
      ),
    ).toThrow('tracked deletion')
    expect(
      refusal(
        '<text:tracked-changes><text:changed-region text:id="c"><text:deletion>' +
          '<text:p>gone</text:p></text:deletion></text:changed-region></text:tracked-changes>' +
          '<text:p>a</text:p>',
        1,
      ),
    ).toThrow('records changes')
    expect(
      refusal(
        '<table:table><table:table-column/><table:table-row><table:table-cell table:protected="true">' +
          '<text:p>a</text:p></table:table-cell></table:table-row></table:table>',
      ),
    ).toThrow('protected')
    const document = openOdt({ body: '<text:p>a</text:p>' })
    expect(() => edit(document, { type: 'text', part, node: 1, from: 0, to: 0, text: 'x' })).toThrow(
      'no longer in the document',
    )
    expect(() =>
      edit(document, { type: 'text', part, node: paragraphs(document)[0]!, from: 5, to: 9, text: 'x' }),
    ).toThrow('no longer in the text')
  })

  it('nor is what XML cannot hold', () => {
    expect(
      editsSchema.safeParse({
        edits: [{ firstId: 1, edit: { type: 'text', part, node: 1, from: 0, to: 0, text: 'a\u0000' } }],
      }).success,
    ).toBe(false)
    expect(
      editsSchema.safeParse({
        edits: [{ firstId: 1, edit: { type: 'text', part, node: 1, from: 0, to: 0, text: 'a\tb\n' } }],
      }).success,
    ).toBe(true)
  })
})

const body =
  '<text:p>A first &amp; plain one.</text:p><text:h text:outline-level="1">Head <text:span ' +
  'text:style-name="T">bold  \n and</text:span> <text:s text:c="2"/>more</text:h>' +
  '<text:p><text:bookmark-start text:name="b"/>With<text:note text:note-class="footnote">' +
  '<text:note-citation>1</text:note-citation><text:note-body><text:p>Note.</text:p>' +
  '</text:note-body></text:note> a note<text:bookmark-end text:name="b"/> <text:span text:style-name="T"> ' +
  'and</text:span> <text:span> spaces </text:span></text:p><text:list>' +
  '<text:list-item><text:p>item <text:a xlink:href="https://example.org/">link</text:a>' +
  '</text:p></text:list-item><text:list-item><text:p/><text:p>second<text:tab/>para</text:p>' +
  '</text:list-item></text:list><text:p>  last<text:line-break/>one  </text:p>'

/** Steps of random edits: where, how much, and what. */
const steps = fc.array(
  fc.record({
    what: fc.constantFrom('text', 'text', 'text', 'split', 'join', 'remove', 'insert'),
    where: fc.nat(),
    from: fc.nat(),
    length: fc.nat({ max: 6 }),
    text: fc.stringMatching(/^[a-z &<é\t\n]{0,6}$/),
  }),
  { minLength: 1, maxLength: 12 },
)

function makeEdit(
  document: OdfDocument,
  step: { what: string; where: number; from: number; length: number; text: string },
): Edit {
  const all = paragraphs(document)
  const node = all[step.where % all.length]!
  const { length } = shown(document, node)
  const from = step.from % (length + 1)
  switch (step.what) {
    case 'split':
      return { type: 'split', part, node, at: from }
    case 'join':
      return { type: 'join', part, node }
    case 'remove':
      return { type: 'remove', part, node }
    case 'insert':
      return {
        type: 'insert',
        part,
        node,
        paragraphs: [
          {
            style: 'P',
            heading: null,
            runs: [
              { text: step.text, style: null },
              { text: 'b', style: 'T' },
            ],
          },
        ],
      }
    default:
      return { type: 'text', part, node, from, to: Math.min(length, from + step.length), text: step.text }
  }
}

describe('random edits', () => {
  for (const [name, open] of [
    ['of a small document', () => openOdt({ body, automatic: textStyle('T', 'fo:font-weight="bold"') })],
    ['of the sailing guide', () => openDocument(sailingGuide())],
  ] as const) {
    it(`${name} say what they did, keep their ids when saved, and go back to the very bytes`, () => {
      const first = open()
      const bytes = saveDocument(first)
      fc.assert(
        fc.property(steps, list => {
          let document = first
          const edits: { edit: Edit; firstId: number }[] = []
          const undo: (readonly ReturnType<typeof edit>['inverse'][number][])[] = []
          for (const step of list) {
            const wish = makeEdit(document, step)
            const firstId = document.parts.get(part)!.nextId
            let edited
            try {
              edited = applyEdit(document, wish, firstId)
            } catch (error) {
              expect((error as Error).name).toBe('Error')
              expect((error as Error).message).toMatch(/Nothing was changed\.$/)
              continue
            }
            if (wish.type === 'text') {
              const before = shown(document, wish.node)
              expect(shown(edited.document, wish.node)).toBe(
                before.slice(0, wish.from) + wish.text + before.slice(wish.to),
              )
            }
            if (wish.type === 'split')
              expect(shown(edited.document, wish.node) + shown(edited.document, edited.made!)).toBe(
                shown(document, wish.node),
              )
            document = edited.document
            edits.push({ edit: wish, firstId })
            undo.unshift(edited.inverse)
          }
          // Saving and reading again gives the same tree under the map of ids.
          const now = document.parts.get(part)!
          const again = openDocument(saveDocument(document), { ids: { [part]: idRuns(now) } }).parts.get(part)!
          const tree = (of: typeof now) =>
            [...of.descendants()].map(each => `${each.id} ${each.name} ${each.children.join()}`).join('\n')
          expect(tree(again)).toBe(tree(now))
          // The same edits on the first state, as the server makes them, give the same bytes.
          if (edits.length > 0)
            expect(Buffer.compare(saveDocument(makeEdits(first, edits).document), saveDocument(document))).toBe(0)
          for (const inverse of undo) document = applyAll(document, inverse).document
          expect(Buffer.compare(saveDocument(document), bytes)).toBe(0)
        }),
        { numRuns: name.includes('small') ? 300 : 40 },
      )
    })
  }
})
