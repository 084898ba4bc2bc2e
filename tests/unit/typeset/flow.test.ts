import { describe, expect, it } from 'vitest'
import { displayPage } from '../../../core/typeset/display'
import { Numbering, readLevel, type ListLevel } from '../../../core/typeset/numbering'
import type { ListItem } from '../../../core/document/story-model'
import { readDocument } from '../../../core/style/reading'
import { openOdt, paragraphStyle, sessionOf, standardMaster, type Fixture } from '../../support/fixtures'

const pages = (fixture: Fixture): string[][] =>
  sessionOf(fixture).composition.pages.map(each => {
    const page = displayPage(each)
    return page.lines.map(line => line.runs.map(run => page.runs[run]!.text).join(''))
  })
const filled = (count: number, style = '') =>
  Array.from({ length: count }, (_, at) => `<text:p${style}>line ${at}</text:p>`).join('')

describe('breaks between pages', () => {
  const long = `<text:p text:style-name="L">${'some words that fill lines '.repeat(14)}</text:p>`
  const split = (paragraph: string) => {
    const all = pages({ automatic: paragraphStyle('L', '', paragraph), body: filled(14) + long })
    return all.map(page => page.filter(line => line.includes('words') || line.includes('fill')).length)
  }

  it('leave no line alone where widows and orphans are asked for', () => {
    const plain = split('')
    expect(plain.reduce((sum, each) => sum + each, 0)).toBeGreaterThan(5)
    const controlled = split('fo:widows="4" fo:orphans="2"')
    const after = controlled.filter(count => count > 0)
    expect(after.at(-1)!).toBeGreaterThanOrEqual(4)
    expect(controlled.reduce((sum, each) => sum + each, 0)).toBe(plain.reduce((sum, each) => sum + each, 0))
  })

  it('keep a paragraph whole where it asks, if a page can hold it', () => {
    expect(split('fo:keep-together="always"').filter(count => count > 0)).toHaveLength(1)
    expect(split('').filter(count => count > 0)).toHaveLength(2)
  })

  it('come after a paragraph that asks for one, but make no empty page at the end', () => {
    const after = paragraphStyle('A', '', 'fo:break-after="page"')
    expect(pages({ automatic: after, body: '<text:p text:style-name="A">a</text:p><text:p>b</text:p>' })).toEqual([
      ['a'],
      ['b'],
    ])
    expect(pages({ automatic: after, body: '<text:p>b</text:p><text:p text:style-name="A">a</text:p>' })).toHaveLength(
      1,
    )
  })

  it('drop the space above a paragraph only where the page turned by itself', () => {
    const first = (body: string) =>
      sessionOf({
        automatic:
          paragraphStyle('S', '', 'fo:margin-top="2cm"') +
          paragraphStyle('B', '', 'fo:margin-top="2cm" fo:break-before="page"'),
        body,
      }).composition.pages.at(-1)!.fragments[0]!.y
    const byItself = first(filled(30, ' text:style-name="S"'))
    const asked = first('<text:p>x</text:p><text:p text:style-name="B">y</text:p>')
    expect(asked - byItself).toBeCloseTo((2 / 2.54) * 72, 1)
  })
})

describe('headers', () => {
  const page = (role: string) => `<style:${role}><text:p>${role}</text:p></style:${role}>`
  it('differ on first and left pages where the master says so', () => {
    const break_ = paragraphStyle('N', '', 'fo:break-before="page"')
    const body = '<text:p>1</text:p><text:p text:style-name="N">2</text:p><text:p text:style-name="N">3</text:p>'
    const found = pages({
      automatic: break_,
      body,
      masters: standardMaster(page('header') + page('header-left') + page('header-first')),
    }).map(lines => lines.find(line => line.startsWith('header')))
    expect(found).toEqual(['header-first', 'header-left', 'header'])
  })

  it('with fields are set anew for each page, others once', () => {
    const composition = sessionOf({
      automatic: paragraphStyle('N', '', 'fo:break-before="page"'),
      body: '<text:p>1</text:p><text:p text:style-name="N">2</text:p>',
      masters: standardMaster('<style:header><text:p>same</text:p></style:header>'),
    }).composition
    const layouts = composition.pages.map(each =>
      each.fragments.find(fragment => fragment.kind === 'lines' && fragment.layout.role === 'header'),
    )
    expect(layouts.every(each => each?.kind === 'lines')).toBe(true)
    expect((layouts[0] as { layout: unknown }).layout).toBe((layouts[1] as { layout: unknown }).layout)
  })
})

describe('numbering', () => {
  const level = (more: string, at = 1) =>
    `<text:list-level-style-number text:level="${at}" ${more}><style:list-level-properties/></text:list-level-style-number>`
  const levels = (styles: string): ((at: number) => ListLevel | null) => {
    const reading = readDocument(openOdt({ styles: `<text:list-style style:name="L">${styles}</text:list-style>` }))
    const { part, element } = reading.cascade.scope('content.xml').lists.get('L')!
    return at => readLevel(part, element, at)
  }
  const item = (id: number, more: Partial<ListItem> = {}): ListItem => ({
    list: 1,
    styleName: 'L',
    level: 1,
    item: id,
    labelled: true,
    startValue: null,
    continues: false,
    continuesList: null,
    continuesLevel: false,
    ...more,
  })

  it('counts items, starts where it is told, and goes on in a list that continues', () => {
    const read = levels(level('style:num-format="1" style:num-suffix="." text:start-value="3"'))
    const numbering = new Numbering()
    const label = (each: ListItem) => numbering.label(each, read(1)!, read)
    expect([label(item(10)), label(item(11)), label(item(12, { startValue: 9 })), label(item(13))]).toEqual([
      '3.',
      '4.',
      '9.',
      '10.',
    ])
    expect(label(item(20, { list: 2 }))).toBe('3.')
    expect(label(item(30, { list: 3, continues: true }))).toBe('4.')
  })

  it('goes on with the list that a list names, and at inner levels with what stood there before', () => {
    const read = levels(level('style:num-format="1"') + level('style:num-format="1"', 2))
    const numbering = new Numbering()
    const label = (each: ListItem) => numbering.label(each, read(each.level)!, read)
    expect([label(item(10)), label(item(11)), label(item(20, { list: 2 })), label(item(21, { list: 2 }))]).toEqual([
      '1',
      '2',
      '1',
      '2',
    ])
    expect(label(item(30, { list: 3, continuesList: 1 }))).toBe('3')
    expect(label(item(31, { list: 3, continuesList: 1 }))).toBe('4')
    // A list of another style in between breaks nothing.
    expect(label(item(40, { list: 4, styleName: 'other', continues: true }))).toBe('1')
    expect(label(item(50, { list: 5, continues: true }))).toBe('5')
    const inner = (id: number, continuesLevel: boolean) => item(id, { list: 6, level: 2, continuesLevel })
    expect([label(item(60, { list: 6 })), label(inner(61, false)), label(inner(62, false))]).toEqual(['1', '1', '2'])
    expect([label(item(63, { list: 6 })), label(inner(64, true)), label(item(65, { list: 6 }))]).toEqual([
      '2',
      '3',
      '3',
    ])
    expect(label(inner(66, false))).toBe('1')
  })

  it('reads off the outermost list what it goes on with', () => {
    const list = (more: string, words: string, inside = '') =>
      `<text:list text:style-name="L" ${more}><text:list-item><text:p>${words}</text:p>${inside}</text:list-item></text:list>`
    const styles = `<text:list-style style:name="L">${level('style:num-format="1"')}${level('style:num-format="a"', 2)}</text:list-style>`
    const inner = (words: string) => list('', words)
    const texts = sessionOf({
      styles,
      body:
        list('xml:id="one"', 'first', inner('inner')) +
        list('', 'apart') +
        list('text:continue-list="one"', 'named', inner('deeper')) +
        list('text:continue-numbering="true"', 'next'),
    }).composition.pages.flatMap(page => {
      const shown = displayPage(page)
      return shown.lines.map(line => line.runs.map(run => shown.runs[run]!.text).join(' '))
    })
    expect(texts).toEqual(['1 first', 'a inner', '1 apart', '2 named', 'a deeper', '3 next'])
  })

  it('counts an item once, however many paragraphs it has', () => {
    const read = levels(level('style:num-format="1"'))
    const numbering = new Numbering()
    expect([1, 1, 2].map(id => numbering.label(item(id), read(1)!, read))).toEqual(['1', '1', '2'])
  })

  it('begins inner levels anew, and shows as many levels as asked', () => {
    const read = levels(level('style:num-format="1"') + level('style:num-format="a" text:display-levels="2"', 2))
    const numbering = new Numbering()
    const label = (id: number, at: number) => numbering.label(item(id, { level: at }), read(at)!, read)
    expect([label(1, 1), label(2, 2), label(3, 2), label(4, 1), label(5, 2)]).toEqual(['1', '1.a', '1.b', '2', '2.a'])
  })

  it('gives headings their numbers, and bullets their sign', () => {
    const read = levels(
      level('style:num-format="1"') +
        level('style:num-format="1" text:display-levels="2" style:num-suffix=")"', 2) +
        '<text:list-level-style-bullet text:level="3" text:bullet-char="–"/>',
    )
    const numbering = new Numbering()
    expect([
      numbering.heading(1, read(1)!, read),
      numbering.heading(2, read(2)!, read),
      numbering.heading(2, read(2)!, read),
      numbering.heading(1, read(1)!, read),
      numbering.heading(2, read(2)!, read),
    ]).toEqual(['1', '1.1)', '1.2)', '2', '2.1)'])
    expect(numbering.label(item(1, { level: 3 }), read(3)!, read)).toBe('–')
    expect(read(7)).toBeNull()
  })

  it('reads positions of both kinds', () => {
    const legacy = levels(
      '<text:list-level-style-number text:level="1" style:num-format="1">' +
        '<style:list-level-properties text:space-before="1cm" text:min-label-width="0.5cm"/>' +
        '</text:list-level-style-number>',
    )(1)!
    expect([legacy.labelAlignment, Math.round(legacy.indent), Math.round(legacy.labelIndent)]).toEqual([false, 43, 28])
    const aligned = levels(
      '<text:list-level-style-number text:level="1" style:num-format="1">' +
        '<style:list-level-properties text:list-level-position-and-space-mode="label-alignment">' +
        '<style:list-level-label-alignment text:label-followed-by="space" fo:text-indent="-1cm" ' +
        'fo:margin-left="2cm"/></style:list-level-properties></text:list-level-style-number>',
    )(1)!
    expect([
      aligned.labelAlignment,
      Math.round(aligned.indent),
      Math.round(aligned.labelIndent),
      aligned.followedBy,
    ]).toEqual([true, 57, 28, 'space'])
  })
})

describe('columns and sections', () => {
  const style = (more = '') =>
    `<style:style style:name="S" style:family="section"><style:section-properties${more}>` +
    `<style:columns fo:column-count="2" fo:column-gap="1cm"/></style:section-properties>` +
    `</style:style>`
  const section = (count: number) =>
    `<text:section text:style-name="S">${Array.from({ length: count }, (_, at) => `<text:p>line ${at}</text:p>`).join('')}</text:section>` +
    `<text:p>after</text:p>`

  it('balance where a section ends, and go on below it', () => {
    const { composition } = sessionOf({ automatic: style(), body: section(6) })
    const { lines } = displayPage(composition.pages[0]!)
    const [left, right] = [lines[0]!.x, lines[3]!.x]
    expect(right - left).toBeCloseTo((4.5 / 2.54) * 72, 0)
    expect(lines.slice(0, 6).map(line => line.x < right - 1)).toEqual([true, true, true, false, false, false])
    expect(lines[6]!.y).toBeCloseTo(lines[2]!.y + lines[2]!.height, 0)
    expect(lines[6]!.x).toBe(left)
    expect(composition.unlaid).toEqual([])
  })

  it('fill the first column first where the section says so, and go on on the next page', () => {
    const unbalanced = displayPage(
      sessionOf({ automatic: style(' text:dont-balance-text-columns="true"'), body: section(6) }).composition.pages[0]!,
    )
    expect(new Set(unbalanced.lines.slice(0, 6).map(line => line.x)).size).toBe(1)
    const { composition } = sessionOf({ automatic: style(), body: section(60) })
    expect(composition.pages.length).toBe(2)
    const texts = composition.pages.flatMap(page => displayPage(page).runs.map(run => run.text))
    expect(texts).toEqual([...Array.from({ length: 60 }, (_, at) => `line ${at}`), 'after'])
  })

  it('make the columns of a page', () => {
    const { composition } = sessionOf({
      stylesAutomatic:
        '<style:page-layout style:name="pm"><style:page-layout-properties fo:page-width="10cm" ' +
        'fo:page-height="10cm" fo:margin="1cm"><style:columns fo:column-count="2" fo:column-gap="1cm"/>' +
        '</style:page-layout-properties></style:page-layout>',
      body: Array.from({ length: 40 }, (_, at) => `<text:p>line ${at}</text:p>`).join(''),
    })
    expect(composition.pages.length).toBe(2)
    expect(new Set(displayPage(composition.pages[0]!).lines.map(line => Math.round(line.x))).size).toBe(2)
  })
})

describe('right-to-left paragraphs', () => {
  it('stand at the right, and read from there', () => {
    const { composition } = sessionOf({
      automatic: paragraphStyle('R', '', 'style:writing-mode="rl-tb" fo:text-align="start"'),
      body: '<text:p text:style-name="R">שלום עולם</text:p>',
    })
    const page = displayPage(composition.pages[0]!)
    const right = page.lines[0]!.x + page.lines[0]!.width
    expect(right).toBeCloseTo((9 / 2.54) * 72, 0)
    const [first, second] = ['שלום', 'עולם'].map(word => page.runs.find(run => run.text.includes(word))!)
    expect(first!.x).toBeGreaterThan(second!.x)
  })
})
