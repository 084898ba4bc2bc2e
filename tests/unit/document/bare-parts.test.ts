import { describe, expect, it } from 'vitest'
import { partOf, type OdfDocument } from '../../../core/document/open'
import { whyNotEdit } from '../../../core/document/refusals'
import { namespaces, writePackage } from '../../../core/package/new-package'
import { writeXml } from '../../../core/xml/write'
import { odt, openOdt, session } from '../../support/fixtures'
import { quickly } from '../../support/planning'

/** A package whose parts hold these elements and no others. */
const bare = (content: string, styles: string) =>
  writePackage(odt, [
    {
      path: 'content.xml',
      type: 'text/xml',
      content: `<office:document-content${namespaces} office:version="1.3">${content}</office:document-content>`,
    },
    {
      path: 'styles.xml',
      type: 'text/xml',
      content: `<office:document-styles${namespaces} office:version="1.3">${styles}</office:document-styles>`,
    },
  ])
const body = '<office:body><office:text><text:p>kelp</text:p></office:text></office:body>'
const masters = '<office:master-styles><style:master-page style:name="Standard"/></office:master-styles>'
const elements = (document: OdfDocument, path: string) => {
  const part = partOf(document, path)
  return [...part.elements(part.rootElement)].map(each => each.name.replace('office:', ''))
}

describe('a part that lacks what a change needs', () => {
  it('gets automatic styles before its masters and its body, behind all else', () => {
    const recast = { type: 'recast', find: { words: { text: 'kelp' }, look: {} }, change: { weight: 700 } }
    const after = (content: string) => quickly(session(bare(content, masters)), recast).after.document
    expect(elements(after(body), 'content.xml')).toEqual(['automatic-styles', 'body'])
    expect(elements(after(`<office:scripts/><office:font-face-decls/>${body}`), 'content.xml')).toEqual([
      'scripts',
      'font-face-decls',
      'automatic-styles',
      'body',
    ])
    expect(writeXml(partOf(after(body), 'content.xml'))).toMatch(
      /<office:automatic-styles><style:style style:name="\w+" [^>]*><style:text-properties fo:font-weight="bold"/,
    )
  })

  it('gets common styles behind its fonts, and new ones behind those of their kind', () => {
    const make = (displayName: string) => ({
      type: 'make',
      family: 'paragraph',
      displayName,
      changes: { text: { 'fo:font-size': '9pt' } },
    })
    const after = (styles: string, ...names: string[]) =>
      quickly(session(bare(body, styles)), ...names.map(make)).after.document
    expect(elements(after(masters, 'New'), 'styles.xml')).toEqual(['styles', 'master-styles'])
    expect(elements(after(`<office:font-face-decls/>${masters}`, 'New'), 'styles.xml')).toEqual([
      'font-face-decls',
      'styles',
      'master-styles',
    ])
    const list = '<text:list-style style:name="L"/>'
    const two = writeXml(
      partOf(
        after(
          `<office:styles><style:style style:name="A" style:family="text"/>${list}</office:styles>${masters}`,
          'New',
          'Very new',
        ),
        'styles.xml',
      ),
    )
    expect(two).toMatch(
      /style:name="A"[^>]*\/><style:style style:name="New".*<style:style style:name="Very_20_new".*<text:list-style/s,
    )
  })

  it('gets declarations of fonts before its styles', () => {
    const wish = {
      type: 'make',
      family: 'paragraph',
      displayName: 'New',
      changes: { fonts: { western: { family: 'Jost' } } },
    }
    const { document } = quickly(session(bare(body, `<office:styles/>${masters}`)), wish).after
    expect(elements(document, 'styles.xml')).toEqual(['font-face-decls', 'styles', 'master-styles'])
    expect(writeXml(partOf(document, 'styles.xml'))).toContain(
      '<style:font-face style:name="Jost" svg:font-family="Jost"/>',
    )
  })
})

describe('why text is not edited', () => {
  const reason = (markup: string, name = 'text:p') => {
    const document = openOdt({ body: markup })
    const part = partOf(document, 'content.xml')
    const node = [...part.descendants()].filter(each => each.name === name).at(-1)!.id
    return whyNotEdit(document, part, node)
  }
  const cell = (table: string, own: string) =>
    `<table:table${table}><table:table-row><table:table-cell${own}><text:p>a</text:p></table:table-cell></table:table-row></table:table>`

  it.each<[string, RegExp | null]>([
    ['<text:p>a</text:p>', null],
    [
      '<text:section text:protected="true" text:name="S"><text:p>a</text:p></text:section>',
      /^The section “S” is protected/,
    ],
    ['<text:section text:protected="false" text:name="S"><text:p>a</text:p></text:section>', null],
    [cell(' table:protected="true"', ''), /^This table cell is protected/],
    [cell('', ' table:protected="true"'), /^This table cell is protected/],
    [cell('', ' table:protect="true"'), /^This table cell is protected/],
    [cell(' table:protected="false"', ' table:protect="false"'), null],
    [
      '<text:table-of-content><text:index-body><text:p>a</text:p></text:index-body></text:table-of-content>',
      /^This is a generated index/,
    ],
    [
      '<text:bibliography><text:index-body><text:p>a</text:p></text:index-body></text:bibliography>',
      /^This is a generated index/,
    ],
    [
      '<text:alphabetical-index><text:index-body><text:p>a</text:p></text:index-body></text:alphabetical-index>',
      /^This is a generated index/,
    ],
    ['<text:tracked-changes/><text:p>a</text:p>', /^This document records changes/],
    ['<text:tracked-changes text:track-changes="true"/><text:p>a</text:p>', /^This document records changes/],
    ['<text:tracked-changes text:track-changes="false"/><text:p>a</text:p>', null],
    [
      '<text:tracked-changes text:track-changes="false"><text:changed-region><text:deletion><text:p>a</text:p></text:deletion>' +
        '</text:changed-region></text:tracked-changes>',
      /^This is a tracked deletion/,
    ],
  ])('%s', (markup, expected) => {
    const found = reason(markup)
    if (expected === null) expect(found).toBeNull()
    else expect(found).toMatch(expected)
  })

  it('of a note’s sign and of a reading aid', () => {
    const note =
      '<text:p><text:note><text:note-citation>1</text:note-citation>' +
      '<text:note-body><text:p>n</text:p></text:note-body></text:note></text:p>'
    expect(reason(note, 'text:note-citation')).toMatch(/^This text belongs to a note’s sign/)
    expect(reason(note)).toBeNull()
    expect(
      reason(
        '<text:p><text:ruby><text:ruby-base>a</text:ruby-base><text:ruby-text>b</text:ruby-text></text:ruby></text:p>',
        'text:ruby-text',
      ),
    ).toMatch(/reading aid/)
  })

  it('of an embedded object', () => {
    const document = openOdt({
      parts: [
        {
          path: 'Object 1/content.xml',
          type: 'text/xml',
          content: `<office:document-content${namespaces}>${body}</office:document-content>`,
        },
      ],
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
    })
    const part = document.parts.get('Object 1/content.xml')!
    expect(whyNotEdit(document, part, part.rootElement.id)).toMatch(/^This text belongs to an embedded object/)
  })
})
