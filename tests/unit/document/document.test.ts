import { strToU8, zipSync } from 'fflate'
import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { parseFontFamilies, replaceFamily, sameFamily, writeFontFamily } from '../../../core/document/font-family'
import { fontReferences, isSymbolFamily, referencesTo } from '../../../core/document/font-references'
import { openDocument, saveDocument } from '../../../core/document/open'
import { operationsSchema, type Operation } from '../../../core/document/operations'
import { paragraphsOf, readStories } from '../../../core/document/stories'
import { PackageError } from '../../../core/package/errors'
import { sailingGuide } from '../../../demo/sailing-guide'
import { writePackage } from '../../../core/package/new-package'
import { face, makeOdt, odt, openOdt, paragraphStyle, textStyle } from '../../support/fixtures'
import { parts } from '../../support/independent'

describe('the grammar of font names', () => {
  it.each<[string, string[]]>([
    ['Arial', ['Arial']],
    ["'Liberation Serif'", ['Liberation Serif']],
    ['"A, B"', ['A, B']],
    ["Tahoma, Lucidasans, 'Lucida Sans'", ['Tahoma', 'Lucidasans', 'Lucida Sans']],
    ['Andale Sans UI;Arial Unicode MS', ['Andale Sans UI', 'Arial Unicode MS']],
    ['  Times   New\nRoman ', ['Times New Roman']],
    ['', []],
    ['SimSun, 宋体', ['SimSun', '宋体']],
  ])('%s', (value, names) => {
    expect(parseFontFamilies(value).map(family => family.name)).toEqual(names)
  })

  it('keeps features after a colon apart from the name', () => {
    expect(parseFontFamilies("'Alegreya:smcp&onum'")).toEqual([{ name: 'Alegreya', features: 'smcp&onum' }])
  })

  it('quotes what CSS asks to be quoted, and reads back what it wrote', () => {
    for (const name of ['Arial', 'Work Sans', "O'Hara", '3270', 'Ünï'])
      expect(parseFontFamilies(writeFontFamily(name))[0]!.name).toBe(name)
    expect(writeFontFamily('Work Sans')).toBe("'Work Sans'")
  })

  it('replaces one family of a list and leaves the others', () => {
    expect(replaceFamily("Tahoma, 'Lucida Sans', Arial", 'lucida sans', 'Work Sans')).toBe("Tahoma, 'Work Sans', Arial")
    expect(replaceFamily('Tahoma', 'Arial', 'Jost')).toBeNull()
    expect(sameFamily('ARial', 'Arial')).toBe(true)
    expect(sameFamily('Areal', 'Arial')).toBe(false)
  })

  it.each([
    ['OpenSymbol', '', true],
    ['Wingdings 2', '', true],
    ['Times', 'x-symbol', true],
    ['Symbolica Text', '', false],
    ['Jost', '', false],
  ])('%s with charset “%s” is of signs: %s', (family, charset, expected) => {
    expect(isSymbolFamily(family, charset)).toBe(expected)
  })
})

describe('opening', () => {
  const fault = (bytes: Uint8Array): string => {
    try {
      openDocument(bytes)
    } catch (error) {
      if (error instanceof PackageError) return error.fault
      throw error
    }
    return 'none'
  }

  it('refuses a zip that is no OpenDocument, a spreadsheet, and an encrypted package', () => {
    expect(fault(writePackage('application/epub+zip', [{ path: 'x.xml', type: 'text/xml', content: '<x/>' }]))).toBe(
      'not-opendocument',
    )
    expect(fault(makeOdt({ mimetype: 'application/vnd.oasis.opendocument.spreadsheet' }))).toBe('not-opendocument')
    const manifest =
      '<manifest:manifest xmlns:manifest="urn:oasis:names:tc:opendocument:xmlns:manifest:1.0">' +
      '<manifest:file-entry manifest:full-path="content.xml" manifest:media-type="text/xml">' +
      '<manifest:encryption-data/></manifest:file-entry></manifest:manifest>'
    expect(
      fault(
        zipSync({
          mimetype: strToU8(odt),
          'content.xml': strToU8('garbled'),
          'META-INF/manifest.xml': strToU8(manifest),
        }),
      ),
    ).toBe('encrypted')
  })

  it('opens packages with empty parts, and says when they are signed', () => {
    const bytes = makeOdt({
      parts: [
        { path: 'settings.xml', type: 'text/xml', content: '' },
        { path: 'META-INF/documentsignatures.xml', type: '', content: '<x/>' },
      ],
    })
    const document = openDocument(bytes)
    expect(document.signed).toBe(true)
    expect(saveDocument(document)).toEqual(bytes)
  })

  it('gives the demo back byte for byte', () => {
    const bytes = sailingGuide()
    expect(saveDocument(openDocument(bytes))).toEqual(bytes)
  })
})

describe('stories', () => {
  it('knows which lists and which levels of them go on where others ended', () => {
    const list = (more: string, inside: string) =>
      `<text:list${more}><text:list-item>${inside}</text:list-item></text:list>`
    const on = ' text:continue-numbering="true"'
    const document = openOdt({
      body:
        list('', `<text:p>a</text:p>${list('', '<text:p>b</text:p>')}${list(on, '<text:p>c</text:p>')}`) +
        list(on, `<text:p>d</text:p>${list(' text:continue-numbering="false"', '<text:p>e</text:p>')}`),
    })
    const found = readStories(document.parts.get('content.xml')!).flatMap(story =>
      [...paragraphsOf(story.blocks)].map(({ list: own }) => [own!.level, own!.continues, own!.continuesLevel]),
    )
    expect(found).toEqual([
      [1, false, false],
      [2, false, false],
      [2, false, true],
      [1, true, false],
      [2, true, false],
    ])
  })

  it('finds text wherever it stands, and says where', () => {
    const document = openOdt({
      body:
        '<text:tracked-changes><text:changed-region><text:deletion><text:p>gone</text:p>' +
        '</text:deletion></text:changed-region></text:tracked-changes>' +
        ('<text:h text:outline-level="2">head</text:h><text:p>body<text:note text:note-class="footnote">' +
          '<text:note-citation>1</text:note-citation><text:note-body><text:p>foot</text:p>' +
          '</text:note-body></text:note><office:annotation><text:p>remark</text:p>' +
          '</office:annotation></text:p>') +
        ('<text:list><text:list-item><text:p>item</text:p><text:list><text:list-item>' +
          '<text:p>deep</text:p></text:list-item></text:list></text:list-item></text:list>') +
        ('<table:table><table:table-column/><table:table-row><table:table-cell>' +
          '<text:p>cell</text:p></table:table-cell></table:table-row></table:table>') +
        ('<text:section><text:p>part</text:p></text:section><text:p><draw:frame>' +
          '<draw:text-box><text:p>box</text:p></draw:text-box></draw:frame>' +
          '<draw:custom-shape><text:p>shape</text:p></draw:custom-shape></text:p>'),
      masters:
        '<style:master-page style:name="Standard" style:page-layout-name="pm">' +
        '<style:header><text:p>top</text:p></style:header><style:footer-left>' +
        '<text:p>low</text:p></style:footer-left></style:master-page>',
    })
    const found = [...document.parts.values()]
      .flatMap(part => readStories(part))
      .flatMap(story =>
        [...paragraphsOf(story.blocks)].map(
          paragraph =>
            `${paragraph.place}: ${paragraph.inlines.map(inline => ('text' in inline ? inline.text : '')).join('')}`,
        ),
      )
    expect(found.sort()).toEqual([
      'annotation: remark',
      'body: ',
      'body: body',
      'body: deep',
      'body: head',
      'body: item',
      'body: part',
      'deletion: gone',
      'frame: box',
      'frame: shape',
      'header: low',
      'header: top',
      'note: foot',
      'table: cell',
    ])
  })

  it('processes white space as the standard says', () => {
    const document = openOdt({
      body: '<text:p>  one \n <text:span>  two</text:span><text:s text:c="3"/>three<text:tab/> four  <text:line-break/>  </text:p>',
    })
    const [paragraph] = [...paragraphsOf(readStories(document.parts.get('content.xml')!)[0]!.blocks)]
    expect(paragraph!.inlines.map(inline => ('text' in inline ? inline.text : '')).join('')).toBe(
      'one two   three\t four \n',
    )
  })
})

describe('operations', () => {
  const fixture = () =>
    openOdt({
      faces: face('Old') + face('Other'),
      automatic:
        paragraphStyle('P1', 'style:font-name="Old" fo:color="#&#x31;11111"') +
        textStyle('T1', "fo:font-weight='bold'"),
      body: '<text:p text:style-name="P1">x</text:p>',
    })
  const node = (document: ReturnType<typeof fixture>, name: string, at = 0) =>
    [...document.parts.get('content.xml')!.descendants()].filter(element => element.name === name)[at]!

  it.each<[string, (document: ReturnType<typeof fixture>) => Operation]>([
    [
      'set-properties on properties that are there',
      document => ({
        type: 'set-properties',
        part: 'content.xml',
        node: node(document, 'style:style').id,
        properties: 'text',
        set: { 'fo:font-weight': 'bold', 'fo:color': null },
      }),
    ],
    [
      'set-properties on a style without them',
      document => ({
        type: 'set-properties',
        part: 'content.xml',
        node: node(document, 'style:style').id,
        properties: 'paragraph',
        set: { 'fo:margin-top': '1pt' },
        id: 9000,
      }),
    ],
    [
      'name-font',
      document => ({
        type: 'name-font',
        part: 'content.xml',
        node: node(document, 'style:text-properties').id,
        set: { 'style:font-name': 'Other' },
      }),
    ],
    [
      'declare-face',
      () => ({
        type: 'declare-face',
        part: 'content.xml',
        id: 9001,
        attributes: { 'style:name': 'New', 'svg:font-family': "'New Face'" },
      }),
    ],
    [
      'drop-face',
      document => ({ type: 'drop-face', part: 'content.xml', node: node(document, 'style:font-face', 1).id }),
    ],
  ])('%s does what it says, and its inverse gives the bytes back', (_name, make) => {
    const before = fixture()
    const operation = make(before)
    expect(operationsSchema.safeParse([operation]).success).toBe(true)
    const { document, inverse } = applyAll(before, [operation])
    const written = saveDocument(document)
    expect(written).not.toEqual(saveDocument(before))
    expect(operationsSchema.safeParse(inverse).success).toBe(true)
    const undone = applyAll(document, inverse)
    expect(saveDocument(undone.document)).toEqual(saveDocument(before))
    // And the inverse of the inverse does it again.
    expect(parts(saveDocument(applyAll(undone.document, undone.inverse).document))).toEqual(parts(written))
  })

  it('drops a part with its manifest entry, and undoes it', () => {
    const before = openOdt({ parts: [{ path: 'Thumbnails/thumbnail.png', type: 'image/png', content: 'png' }] })
    const { document, inverse } = applyAll(before, [{ type: 'drop-part', path: 'Thumbnails/thumbnail.png' }])
    const files = parts(saveDocument(document))
    expect(Object.keys(files)).not.toContain('Thumbnails/thumbnail.png')
    expect(new TextDecoder().decode(files['META-INF/manifest.xml'])).not.toContain('thumbnail')
    const undone = applyAll(document, inverse)
    expect(saveDocument(undone.document)).toEqual(saveDocument(before))
    expect(parts(saveDocument(applyAll(undone.document, undone.inverse).document))).toEqual(files)
  })

  it('refuses what names no font, does not fit, or is no operation', () => {
    const document = fixture()
    expect(() =>
      applyAll(document, [
        {
          type: 'name-font',
          part: 'content.xml',
          node: node(document, 'style:text-properties').id,
          set: { 'fo:color': 'red' },
        },
      ]),
    ).toThrow(/does not name a font/)
    expect(() =>
      applyAll(document, [{ type: 'set-properties', part: 'content.xml', node: 0, properties: 'text', set: {} }]),
    ).toThrow()
    expect(() => applyAll(document, [{ type: 'drop-part', path: 'content.xml' }])).toThrow(/cannot be taken out/)
    expect(() => applyAll(document, [{ type: 'restore-part', path: 'mimetype' }])).toThrow(/not taken out/)
    expect(operationsSchema.safeParse([{ type: 'set-everything' }]).success).toBe(false)
    expect(operationsSchema.safeParse([{ type: 'drop-face', part: 'content.xml', node: -1 }]).success).toBe(false)
  })
})

describe('font references', () => {
  it('finds them in declarations, defaults, styles, lists, masters, charts and formulas', () => {
    const guide = openDocument(sailingGuide())
    const kinds = new Set(referencesTo(fontReferences(guide), 'skerrow').map(reference => reference.kind))
    expect([...kinds].sort()).toEqual(['chart', 'declaration', 'default', 'stray', 'style'])
    const symbols = referencesTo(fontReferences(guide), 'OpenSymbol')
    expect(symbols.filter(reference => reference.kind !== 'declaration').every(reference => reference.symbols)).toBe(
      true,
    )
  })

  it('says what bears them: a level of a list, or of the numbers of headings, and the list', () => {
    const level = (element: string, at: number) =>
      `<${element} text:level="${at}"><style:text-properties fo:font-family="Kestrel"/></${element}>`
    const owners = fontReferences(
      openOdt({
        styles:
          `<text:list-style style:name="L" style:display-name="Sailings">${level('text:list-level-style-bullet', 2)}</text:list-style>` +
          `<text:outline-style style:name="O">${level('text:outline-level-style', 3)}</text:outline-style>`,
      }),
    ).map(({ owner, kind }) => [owner, kind])
    expect(owners).toEqual([
      ['level 2 of list Sailings', 'list'],
      ['level 3 of heading numbers', 'list'],
    ])
  })

  it('finds the fonts of a formula in its MathML and its settings', () => {
    const document = openOdt({
      parts: [
        {
          path: 'Object 1/content.xml',
          type: 'text/xml',
          content:
            '<math xmlns="http://www.w3.org/1998/Math/MathML"><mstyle fontfamily="Old Serif"><mi>x</mi></mstyle></math>',
        },
        {
          path: 'Object 1/settings.xml',
          type: 'text/xml',
          content:
            '<office:document-settings xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" ' +
            'xmlns:config="urn:oasis:names:tc:opendocument:xmlns:config:1.0">' +
            '<config:config-item config:name="FontNameVariables">Old Serif</config:config-item>' +
            '</office:document-settings>',
        },
      ],
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.formula' }],
    })
    expect(
      referencesTo(fontReferences(document), 'Old Serif').map(reference => [reference.kind, reference.attribute]),
    ).toEqual([
      ['formula', 'fontfamily'],
      ['setting', null],
    ])
  })
})
