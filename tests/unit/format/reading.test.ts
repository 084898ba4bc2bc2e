import { describe, expect, it } from 'vitest'
import type { ReadBlock } from '../../../core/format/blocks'
import { fillerText, filler } from '../../../core/format/filler'
import { readHtml } from '../../../core/format/html/read'
import { writeHtml } from '../../../core/format/html/write'
import { readMarkdown } from '../../../core/format/markdown/read'
import { newDocumentSchema, writeNewDocument, writeReadText } from '../../../core/format/odf/new-document'
import { fromTemplate } from '../../../core/format/odf/from-template'
import { pageSizes } from '../../../core/format/odf/page-sizes'
import { pasteBlocks, pastePlain } from '../../../core/format/paste'
import { isConvertible, readForeign } from '../../../core/format/read'
import { readText } from '../../../core/format/text/read'
import { paragraphsOf } from '../../../core/document/stories'
import { openDocument } from '../../../core/document/open'
import { paragraphText } from '../../../core/style/runs'
import { makeOdt, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'

const short = (blocks: readonly ReadBlock[]) =>
  blocks.map(block => {
    const words =
      'runs' in block
        ? block.runs
            .map(
              run =>
                `${run.strong ? '*' : ''}${run.emphasis ? '_' : ''}${run.code ? '`' : ''}${run.text}${run.href ? `<${run.href}>` : ''}`,
            )
            .join('|')
        : block.kind === 'code'
          ? block.text
          : block.kind === 'table'
            ? block.rows.map(row => row.map(cell => cell.map(run => run.text).join('')).join(',')).join(';')
            : ''
    return `${block.kind}${
      block.kind === 'heading'
        ? block.level
        : block.kind === 'item'
          ? `${block.depth}${block.ordered ? 'o' : 'u'}${block.first ? '' : '+'}`
          : ''
    }:${words}`
  })
const bytes = (text: string) => new TextEncoder().encode(text)

describe('HTML', () => {
  it('is read by what it means, with white space collapsed and its looks left', () => {
    const read = readHtml(
      '<html lang="fr"><head><title> A  title </title><style>p{}</style>' +
        '</head><body><h2 style="font-family:X">One\n two</h2><p>a <b>bold <i>both</i>' +
        '</b>, <span style="font-style:italic">slanted</span><br>next</p>bare<ul>' +
        '<li>x<ol><li>y</ol><li><p>p1</p><p>p2</p></ul><blockquote>said</blockquote>' +
        '<pre>  code\n    in</pre><hr><script>alert(1)</script></body></html>',
    )
    expect([read.title, read.language]).toEqual(['A title', 'fr'])
    expect(short(read.blocks)).toEqual([
      'heading2:One two',
      'paragraph:a |*bold |*_both|, |_slanted|\nnext',
      'paragraph:bare',
      'item1u:x',
      'item2o:y',
      'item1u:p1',
      'item1u+:p2',
      'quote:said',
      'code:  code\n    in',
      'rule:',
    ])
  })

  it('keeps tables and safe links, and tells what it leaves', () => {
    const read = readHtml(
      '<table><tr><th>A<th>B</tr><tr><td>1<td><b>2</b></tr></table>' +
        '<p><a href="https://example.org/x">go</a> <a href="javascript:alert(1)">no</a>' +
        '<img src="a.png"></p><iframe></iframe>',
    )
    expect(short(read.blocks)).toEqual(['table:A,B;1,2', 'paragraph:go<https://example.org/x>| no'])
    expect(read.left).toEqual([
      { what: 'pictures', count: 1 },
      { what: 'embedded content', count: 1 },
    ])
  })

  it('may be broken, deep or empty', () => {
    expect(short(readHtml('<p>a<p>b</div></p>&amp;&nbsp;c').blocks)).toEqual([
      'paragraph:a',
      'paragraph:b',
      'paragraph:&\u00A0c',
    ])
    expect(readHtml('').blocks).toEqual([])
    expect(readHtml(`${'<div>'.repeat(5000)}deep${'</div>'.repeat(5000)}after`).blocks.length).toBeGreaterThan(0)
  })
})

describe('Markdown and plain text', () => {
  it('become headings, lists, code and tables', () => {
    const read = readMarkdown(
      '---\nkey: value\n---\n# Title *of* it\n\nText with `code` and **strong**\\\nand a break.\n\n1. ' +
        'one\n   - deep\n2. two\n\n> said\n\n```\na  b\n```\n\n|H|I|\n|-|-|\n|1|2|\n\n<script>x</script>',
    )
    expect(read.title).toBe('Title of it')
    expect(short(read.blocks)).toEqual([
      'heading1:Title |_of| it',
      'paragraph:Text with |`code| and |*strong|\nand a break.',
      'item1o:one',
      'item2u:deep',
      'item1o:two',
      'quote:said',
      'code:a  b',
      'table:H,I;1,2',
      'paragraph:<script>x</script>',
    ])
  })

  it('parts paragraphs at empty lines, or at every line where there are none', () => {
    expect(short(readText('one\ntwo\r\n\r\nthree\u0007').blocks)).toEqual(['paragraph:one two', 'paragraph:three'])
    expect(short(readText('\uFEFFone\ntwo\n').blocks)).toEqual(['paragraph:one', 'paragraph:two'])
  })

  it('are told by their names and decoded as they are written', () => {
    expect(['a.TXT', 'a.md', 'a.htm', 'a.odt', 'txt'].map(isConvertible)).toEqual([true, true, true, false, false])
    expect(short(readForeign('a.txt', new Uint8Array([0xff, 0xfe, 0x41, 0, 0xe9, 0])).blocks)).toEqual(['paragraph:Aé'])
    const guessed = readForeign('a.txt', new Uint8Array([0x41, 0xe9, 0x93]))
    expect(short(guessed.blocks)).toEqual(['paragraph:Aé“'])
    expect(guessed.left[0]!.what).toContain('Windows-1252')
    expect(() => readForeign('a.txt', new Uint8Array())).toThrow('empty')
    expect(() => readForeign('a.txt', bytes('a\u0000b'))).toThrow('no text')
    expect(() => readForeign('a.doc', bytes('a'))).toThrow('not read here')
    expect(() => readForeign('a.txt', new Uint8Array(21 * 1024 * 1024).fill(65))).toThrow('larger than 20 MB')
  })
})

describe('new documents', () => {
  const source =
    '# Head\n\nBody with **strong**, *slant* and `code x`.\n\n- a\n- b\n  1. c\n\n> q\n\n    code\n\n|H|\n|-|\n|1|'
  it('of what was read have real styles, every white space kept, and open', () => {
    const open = session(writeReadText(readMarkdown(source), 'fallback'))
    const texts = open.reading.stories
      .flatMap(story => paragraphsOf(story.blocks))
      .map(paragraph => `${paragraph.styleName}: ${paragraphText(paragraph)}`)
    expect(texts).toEqual([
      'Heading_20_1: Head',
      'Text_20_body: Body with strong, slant and code x.',
      'List: a',
      'List: b',
      'List: c',
      'Quotations: q',
      'Preformatted_20_Text: code',
      'Table_20_Heading: H',
      'Table_20_Contents: 1',
      'Text_20_body: ',
    ])
    const { census } = open.detail
    expect(census.document.title).toBe('Head')
    expect(census.settled).toBe(1)
    expect(census.faces.map(face => face.status)).not.toContain('absent')
    expect(open.composition.unlaid).toEqual([])
    const levels = open.reading.stories
      .flatMap(story => paragraphsOf(story.blocks))
      .map(paragraph => paragraph.list?.level ?? 0)
    expect(levels).toEqual([0, 0, 1, 1, 2, 0, 0, 0, 0, 0])
  })

  it.each(['text', 'presentation', 'drawing'] as const)(
    'of the kind %s have the page and margins that were asked for',
    kind => {
      for (const size of pageSizes) {
        const wish = newDocumentSchema.parse({
          kind,
          title: 'T & <x>',
          page: { width: size.width, height: size.height },
          margins: { top: 5, bottom: 6, left: 7, right: 8 },
          pages: 2,
        })
        const { composition, document } = session(writeNewDocument(wish))
        expect(document.title).toBe('T & <x>')
        expect(composition.pages).toHaveLength(kind === 'text' ? 1 : 2)
        const { width, height, margin } = composition.pages[0]!.geometry
        expect(
          [width, height, margin.top, margin.right].map(value => Math.round(((value * 25.4) / 72) * 10) / 10),
        ).toEqual([size.width, size.height, 5, 8].map(value => Math.round(value * 10) / 10))
      }
    },
  )

  it('leave room between their margins', () => {
    expect(
      newDocumentSchema.safeParse({
        kind: 'text',
        title: '',
        page: { width: 100, height: 100 },
        margins: { top: 10, bottom: 10, left: 50, right: 45 },
      }).error?.issues[0]?.message,
    ).toContain('leave no room')
  })

  it('made from a template are documents, all else the same', () => {
    const template = makeOdt({
      body: '<text:p>kept</text:p>',
      mimetype: 'application/vnd.oasis.opendocument.text-template',
    })
    const made = openDocument(fromTemplate(template).bytes)
    expect([openDocument(template).template, made.template, made.kind]).toEqual([true, false, 'text'])
    expect(made.parts.get('content.xml')!.source).toBe(openDocument(template).parts.get('content.xml')!.source)
    const plain = makeOdt({})
    expect(Buffer.compare(fromTemplate(plain).bytes, plain)).toBe(0)
  })
})

describe('pasting', () => {
  const at = { part: 'content.xml', node: 7, offset: 3 }
  it('plain puts words in, a paragraph a line', () => {
    expect(pastePlain(at, 'ab').edits).toEqual([
      { type: 'text', part: 'content.xml', node: 7, from: 3, to: 3, text: 'ab' },
    ])
    const { edits, last } = pastePlain(at, 'a\r\nbc\n\n')
    expect(edits).toMatchObject([
      { type: 'paste', how: 'plain', paragraphs: [{ style: null, runs: [{ text: 'a' }] }, { runs: [{ text: 'bc' }] }] },
    ])
    expect(last).toBe(2)
  })

  it('with structure maps it to styles that the document has, and to no other', () => {
    const { blocks } = readHtml('<h1>Big</h1><p data-style="Lead">x <b>y</b> <i>z</i></p><p data-style="Gone">w</p>')
    const known = pasteBlocks(at, blocks, ['Heading_20_1', 'Lead', 'Strong_20_Emphasis'])
    expect(known.edits).toMatchObject([
      {
        type: 'paste',
        how: 'structure',
        paragraphs: [
          { style: 'Heading_20_1', heading: 1 },
          {
            style: 'Lead',
            heading: null,
            runs: [
              { text: 'x ', style: null },
              { text: 'y', style: 'Strong_20_Emphasis' },
              { text: ' ', style: null },
              { text: 'z', style: null },
            ],
          },
          { style: null, runs: [{ text: 'w' }] },
        ],
      },
    ])
    expect(pasteBlocks(at, blocks, []).edits).toMatchObject([
      { paragraphs: [{ style: null, heading: 1 }, { style: null }, { style: null }] },
    ])
  })

  it('takes back what copying gave', () => {
    const open = sessionOf({
      styles: paragraphStyle('Lead', 'fo:font-size="14pt"'),
      automatic: textStyle('B', 'fo:font-weight="bold"'),
      body:
        '<text:h text:outline-level="2">Head</text:h><text:p text:style-name="Lead">a  <text:span ' +
        'text:style-name="B">b &lt;</text:span></text:p><text:list><text:list-item>' +
        '<text:p>item</text:p></text:list-item></text:list>',
    })
    const story = open.reading.stories[0]!
    const html = writeHtml(
      paragraphsOf(story.blocks).map(paragraph => ({
        paragraph,
        role: story.role,
        from: 0,
        to: paragraphText(paragraph).length,
      })),
      part => open.cascadeOf(part),
    )
    const { blocks } = readHtml(html)
    expect(short(blocks)).toEqual(['heading2:Head', 'paragraph:a |*b <', 'item1u:item'])
    expect(blocks[1]).toMatchObject({ style: 'Lead' })
  })

  it('has filler in several scripts', () => {
    expect(filler.map(each => each.script)).toEqual([
      'Latin',
      'Greek',
      'Cyrillic',
      'Arabic',
      'Hebrew',
      'Devanagari',
      'Japanese',
    ])
    expect(fillerText('Greek', 5).split('\n')).toHaveLength(5)
    expect(fillerText('nonsense', 0)).toBe(filler[0]!.paragraphs[0])
  })
})
