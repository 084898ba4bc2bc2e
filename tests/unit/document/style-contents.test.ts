import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { colorReferences, setColor } from '../../../core/document/color-references'
import { Change } from '../../../core/document/draft'
import { openDocument, saveDocument } from '../../../core/document/open'
import { readDropCap, readLabelStyle, readTabStops, textStylesIn } from '../../../core/document/style-contents'
import { takenNames, uniqueName } from '../../../core/document/style-names'
import {
  cellStyleAt,
  contentReferences,
  renameReference,
  setReference,
  referencesToStyle,
} from '../../../core/document/style-references'
import { moveFromDefault, placeholderUses, setNoteStyle } from '../../../core/document/style-users'
import { addDefaultStyle, addStyle, copyStyle, dropStyle, setStyleHead } from '../../../core/document/style-verbs'
import {
  listStyleOf,
  nextStyle,
  outlineLevel,
  ownListStyle,
  ownOutlineLevel,
  readScopes,
} from '../../../core/document/styles'
import { writeElement } from '../../../core/xml/write'
import { makeDrawing, makeOdt, paragraphStyle, textStyle, type Fixture } from '../../support/fixtures'

function open(bytes: Uint8Array) {
  const document = openDocument(bytes)
  const change = new Change(document)
  const scopes = readScopes(document, document.subdocuments[0]!)
  const styles = change.on('styles.xml')
  const content = change.on('content.xml')
  return {
    document,
    change,
    styles,
    content,
    scope: scopes.styles!,
    contentScope: scopes.content!,
    style: (name: string, family = 'paragraph') => scopes.styles!.common.get(`${family}\n${name}`)!,
    /** All common styles as they are written now. */
    written: () => {
      const holder = styles.part.first(styles.part.rootElement, 'office:styles')!
      return holder.children.map(id => writeElement(styles.part, id))
    },
    isUndone: () => Buffer.compare(saveDocument(applyAll(change.document, [...change.inverse]).document), bytes) === 0,
  }
}
const withStyles = (styles: string, more: Fixture = {}) => open(makeOdt({ ...more, styles }))

describe('what a style says in elements', () => {
  it('tab stops: place, kind, sign and leader, as the file has them', () => {
    const own = withStyles(
      '<style:style style:name="A" style:family="paragraph"><style:paragraph-properties><style:tab-stops>' +
        '<style:tab-stop style:position="2cm"/>' +
        '<style:tab-stop style:position="4cm" style:type="char" style:char="," style:leader-text="."/>' +
        '<style:tab-stop style:position="5cm" style:type="odd" style:leader-text=" "/>' +
        '</style:tab-stops></style:paragraph-properties></style:style>' +
        paragraphStyle('B', 'fo:color="#000000"'),
    )
    expect(readTabStops(own.scope, own.style('A'))).toEqual([
      { position: '2cm', type: 'left' },
      { position: '4cm', type: 'char', char: ',', leader: '.' },
      { position: '5cm', type: 'left' },
    ])
    expect(readTabStops(own.scope, own.style('B'))).toBeNull()
  })

  it('no tab stops at all are not the same as the parent’s', () => {
    const own = withStyles(
      '<style:style style:name="A" style:family="paragraph"><style:paragraph-properties><style:tab-stops/>' +
        '</style:paragraph-properties></style:style>' +
        paragraphStyle('B', '', 'fo:margin="1cm"'),
    )
    expect(readTabStops(own.scope, own.style('A'))).toEqual([])
    expect(readTabStops(own.scope, own.style('B'))).toBeNull()
  })

  it('a drop cap: lines, letters or a word, distance and style', () => {
    const cap = (attributes: string) =>
      withStyles(
        '<style:style style:name="A" style:family="paragraph"><style:paragraph-properties>' +
          `<style:drop-cap ${attributes}/></style:paragraph-properties></style:style>`,
      )
    const full = cap('style:lines="3" style:length="word" style:distance="2mm" style:style-name="Cap"')
    expect(readDropCap(full.scope, full.style('A'))).toEqual({
      lines: 3,
      length: 'word',
      distance: '2mm',
      style: 'Cap',
    })
    const bare = cap('')
    expect(readDropCap(bare.scope, bare.style('A'))).toEqual({ lines: 1, length: 1, distance: '', style: null })
    const none = withStyles(paragraphStyle('A', 'fo:color="#000000"'))
    expect(readDropCap(none.scope, none.style('A'))).toBeNull()
  })

  it('labels of a list are in the style of its first level', () => {
    const own = withStyles(
      '<text:list-style style:name="L"><text:list-level-style-number text:level="1" text:style-name="Num"/>' +
        '<text:list-level-style-number text:level="2" text:style-name="Other"/></text:list-style>' +
        '<text:list-style style:name="M"><text:list-level-style-bullet text:level="1"/></text:list-style>',
    )
    expect(['L', 'M', 'N'].map(name => readLabelStyle(own.scope, name))).toEqual(['Num', null, null])
  })
})

describe('what stands in a style’s own element', () => {
  const own = withStyles(
    paragraphStyle('A', '', 'fo:margin="0cm"', ' style:default-outline-level="2" style:list-style-name="L"') +
      paragraphStyle('B', '', 'fo:margin="0cm"', ' style:parent-style-name="A" style:next-style-name="A"') +
      paragraphStyle(
        'C',
        '',
        'fo:margin="0cm"',
        ' style:parent-style-name="B" style:default-outline-level="" style:list-style-name=""',
      ),
  )

  it('its own level, list and follower', () => {
    expect(['A', 'B', 'C'].map(name => ownOutlineLevel(own.style(name)))).toEqual([2, null, null])
    expect(['A', 'B', 'C'].map(name => ownListStyle(own.style(name)))).toEqual(['L', null, ''])
    expect(['A', 'B', 'C'].map(name => nextStyle(own.style(name)))).toEqual([null, 'A', null])
  })

  it('what it has from its parents, until one of them says otherwise', () => {
    expect(['A', 'B', 'C'].map(name => outlineLevel(own.scope, own.style(name)))).toEqual([2, 2, null])
    expect(['A', 'B'].map(name => listStyleOf(own.scope, own.style(name)))).toEqual(['L', 'L'])
  })
})

describe('common styles', () => {
  it('are made behind the last, before lists, and undone', () => {
    const own = withStyles(`${paragraphStyle('A', 'fo:color="#000000"')}<text:list-style style:name="L"/>`)
    const name = uniqueName(own.styles.part, 'paragraph', 'a b')
    addStyle(own.styles, 'paragraph', name, {
      parent: 'A',
      text: { 'fo:color': '#112233' },
      paragraph: { 'fo:margin': '1cm' },
    })
    expect(own.written()).toEqual([
      paragraphStyle('A', 'fo:color="#000000"'),
      '<style:style style:name="a_20_b" style:display-name="a b" style:family="paragraph" style:parent-style-name="A">' +
        '<style:paragraph-properties fo:margin="1cm"/><style:text-properties fo:color="#112233"/></style:style>',
      '<text:list-style style:name="L"/>',
    ])
    expect(own.isUndone()).toBe(true)
  })

  it('have names that nobody else has, however they are written', () => {
    const own = withStyles(
      paragraphStyle('Note', 'fo:color="#000000"') +
        paragraphStyle('n_20_2', 'fo:color="#000000"', '', ' style:display-name="Note 2"'),
    )
    expect(uniqueName(own.styles.part, 'paragraph', 'note')).toEqual({ name: 'note_20_3', displayName: 'note 3' })
    expect(uniqueName(own.styles.part, 'text', 'Note').displayName).toBe('Note')
    expect([...takenNames(own.styles.part, 'paragraph')]).toEqual([
      ['Note', 'Note'],
      ['n_20_2', 'Note 2'],
    ])
  })

  it('are copied under another name, with another parent', () => {
    const own = withStyles(
      paragraphStyle('A', 'fo:color="#000000"', '', ' style:display-name="a" style:parent-style-name="P"'),
    )
    copyStyle(own.styles, own.style('A').node, 'B', 'Q')
    expect(own.written()[1]).toBe(
      '<style:style style:name="B" style:family="paragraph" style:parent-style-name="Q">' +
        '<style:text-properties fo:color="#000000"/></style:style>',
    )
    expect(own.isUndone()).toBe(true)
  })

  it('say how they are called, what they go back to and what follows; nothing of what is not asked', () => {
    const own = withStyles(
      paragraphStyle('A', 'fo:color="#000000"', '', ' style:display-name="a" style:next-style-name="B"'),
    )
    setStyleHead(own.styles, own.style('A').node, { displayName: 'A', parent: 'P', outlineLevel: 3 })
    expect(own.written()[0]).toMatch(
      / style:next-style-name="B" style:parent-style-name="P" style:default-outline-level="3">/,
    )
    setStyleHead(own.styles, own.style('A').node, { next: null, parent: null, outlineLevel: null, listStyle: '' })
    expect(own.written()[0]).toMatch(/^<style:style style:name="A" style:family="paragraph" style:list-style-name="">/)
    expect(own.isUndone()).toBe(true)
  })

  it('are dropped, and a default is made first of all', () => {
    const own = withStyles(`${paragraphStyle('A', 'fo:color="#000000"')}${textStyle('T', 'fo:color="#000000"')}`)
    dropStyle(own.styles, own.style('A').node)
    expect(addDefaultStyle(own.styles, 'paragraph')).toBe(true)
    expect(own.written()).toEqual([
      '<style:default-style style:family="paragraph"/>',
      textStyle('T', 'fo:color="#000000"'),
    ])
    expect(own.isUndone()).toBe(true)
  })

  it('of words are listed with what they say, where that is values alone', () => {
    const own = withStyles(
      textStyle('S', 'fo:font-weight="bold"') +
        textStyle('T', 'fo:color="#112233"', ' style:display-name="Tee" style:parent-style-name="S"') +
        '<style:style style:name="U" style:family="text"/>' +
        paragraphStyle('P', 'fo:color="#000000"'),
    )
    expect([...textStylesIn(own.styles)]).toEqual([
      { name: 'S', displayName: 'S', parent: null, text: { 'fo:font-weight': 'bold' } },
      { name: 'T', displayName: 'Tee', parent: 'S', text: { 'fo:color': '#112233' } },
      { name: 'U', displayName: 'U', parent: null, text: null },
    ])
  })
})

describe('places that name styles', () => {
  const body =
    '<text:tracked-changes><text:changed-region><text:deletion><text:p text:style-name="P1">gone</text:p></text:deletion>' +
    '</text:changed-region></text:tracked-changes><text:p text:style-name="P1" text:class-names="A B A">x</text:p>' +
    '<table:table><table:table-row><table:table-cell table:style-name="ce1"><text:p/></table:table-cell>' +
    '<table:table-cell><text:p/></table:table-cell></table:table-row></table:table>'

  it('of the text are those that are not deleted, one name each', () => {
    const own = open(makeOdt({ body }))
    expect(contentReferences(own.content.part).map(each => [each.attribute, ...each.names])).toEqual([
      ['text:style-name', 'P1'],
      ['table:style-name', 'ce1'],
    ])
    const cells = [...own.content.part.descendants()].filter(each => each.name === 'table:table-cell')
    expect(cells.map(({ id }) => cellStyleAt(own.content.part, id))).toEqual([['ce1'], []])
  })

  it('get another name, in a list of names too; with none the place says nothing', () => {
    const own = withStyles(paragraphStyle('A', 'fo:color="#000000"'), { body })
    const [list] = referencesToStyle(own.document, 'paragraph', 'A')
    renameReference(own.content, list!, 'A', 'C')
    const now = () => own.content.part.element(list!.node).attributes['text:class-names']
    expect(now()).toBe('C B C')
    renameReference(own.content, list!, 'C', null)
    expect(now()).toBe('B')
    renameReference(own.content, list!, 'B', null)
    expect(now()).toBeUndefined()
    setReference(own.content, { node: list!.node, attribute: 'text:style-name' }, 'P9')
    expect(own.content.part.element(list!.node).attributes['text:style-name']).toBe('P9')
    expect(own.isUndone()).toBe(true)
  })
})

describe('what goes by a default', () => {
  it('paragraphs and headings without a style, or by the common one above; those by hand of that name do not', () => {
    const own = withStyles(paragraphStyle('Standard', 'fo:color="#000000"'), {
      automatic: paragraphStyle('P1', 'fo:color="#111111"'),
      body: '<text:p>a</text:p><text:h text:outline-level="1" text:style-name="Standard">b</text:h><text:p text:style-name="P1">c</text:p>',
    })
    const asked: (string | null)[] = []
    const moved = moveFromDefault(own.content, own.contentScope, 'paragraph', own.style('Standard'), base => {
      asked.push(base?.name ?? null)
      return 'Before'
    })
    expect(moved).toBe(2)
    expect(asked).toEqual([null, 'Standard'])
    const names = [...own.content.part.descendants()]
      .filter(each => /^text:[ph]$/.test(each.name))
      .map(each => each.attributes['text:style-name'])
    expect(names).toEqual(['Before', 'Before', 'P1'])
    expect(own.isUndone()).toBe(true)
    const hidden = withStyles(paragraphStyle('Standard', 'fo:color="#000000"'), {
      automatic: paragraphStyle('Standard', 'fo:color="#111111"'),
      body: '<text:p text:style-name="Standard">a</text:p>',
    })
    expect(moveFromDefault(hidden.content, hidden.contentScope, 'paragraph', hidden.style('Standard'), () => 'x')).toBe(
      0,
    )
  })

  it('shapes without a style, but for placeholders and what is no shape', () => {
    const own = open(
      makeDrawing({
        pages:
          '<draw:page draw:name="1" draw:master-page-name="M"><draw:rect/><draw:rect draw:style-name="gr1"/>' +
          '<draw:frame presentation:style-name="pr1"><draw:text-box/></draw:frame><draw:g/></draw:page>',
      }),
    )
    expect(moveFromDefault(own.content, own.contentScope, 'graphic', null, () => 'Before')).toBe(1)
    const styled = [...own.content.part.descendants()].filter(each => each.attributes['draw:style-name'] === 'Before')
    expect(styled.map(each => each.name)).toEqual(['draw:rect'])
  })

  it('placeholders by a master’s styles, by hand or directly', () => {
    const own = open(
      makeDrawing({
        automatic:
          '<style:style style:name="pr1" style:family="presentation" style:parent-style-name="M-title"/>' +
          '<style:style style:name="gr1" style:family="graphic" style:parent-style-name="M-title"/>',
        pages:
          '<draw:page draw:name="1" draw:master-page-name="M"><draw:frame presentation:style-name="pr1"/>' +
          '<draw:frame presentation:style-name="M-title"/></draw:page>',
      }),
    )
    expect(
      placeholderUses(own.content.part, own.contentScope, new Set(['M-title'])).map(each => each.attribute),
    ).toEqual(['style:parent-style-name', 'presentation:style-name'])
  })

  it('notes begin in the style that their settings name', () => {
    const own = withStyles(
      '<text:notes-configuration text:note-class="footnote"/><text:notes-configuration text:note-class="endnote"/>',
    )
    setNoteStyle(own.styles, 'Note')
    expect(own.written().every(each => each.includes('text:default-style-name="Note"'))).toBe(true)
    expect(own.isUndone()).toBe(true)
  })
})

describe('a colour', () => {
  it('is exchanged in its attribute; width and line of a border stay', () => {
    const own = withStyles(paragraphStyle('A', '', 'fo:border="0.5pt solid #1F6F6B"'))
    const [reference] = colorReferences(own.document)
    setColor(own.styles, reference!, '#000000')
    expect(own.written()[0]).toContain('fo:border="0.5pt solid #000000"')
    expect(own.isUndone()).toBe(true)
  })
})
