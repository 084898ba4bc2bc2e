import { describe, expect, it } from 'vitest'
import { paragraphExtents } from '../../../core/typeset/compose'
import { face, paragraphStyle, shapeAt, standardMaster, textFrame } from '../../support/fixtures'
import { filler, foundBy, p, putRight, textOf } from './proofing'

/* Checks of what stands on the pages: a page of 10 by 10 cm, columns of 8 cm. */

const lines = (count: number) => Array.from({ length: count }, (_, at) => p(`Line ${at + 1}`)).join('')
const named = (name: string, text = '', paragraph = '') =>
  paragraphStyle(name, text, paragraph, ' style:parent-style-name="Standard"')
/** How many lines of 15 points a page has room for. */
const perPage = 15

describe('widows and orphans', () => {
  const two = 'one two three four five six seven eight nine ten eleven twelve thirteen'
  const paragraph = `${two} ${two}`

  it('are found where one line of a paragraph stands alone, and kept together by the style', () => {
    const of = textOf(`${lines(perPage - 1)}${p(paragraph, 'Body')}`, { styles: named('Body') })
    const extent = [...paragraphExtents(of.composition).values()].at(-1)!
    expect(extent.pages.length).toBe(2)
    const found = foundBy('widow', of)
    expect(found.map(each => each.says)).toEqual(['A first line alone at the foot of page 1'])
    expect(foundBy('widow', putRight(of, found))).toEqual([])
  })

  it('are told without a repair where the style keeps two lines together already', () => {
    const of = textOf(p(filler.repeat(12), 'Two'), { styles: named('Two', '', 'fo:widows="2" fo:orphans="2"') })
    // A paragraph of a page and one line, in a frame of its height, has nowhere to go.
    for (const each of foundBy('widow', of)) expect(each.repair).toBeNull()
    const kept = textOf(`${lines(perPage - 1)}${p(paragraph, 'Body')}`, { styles: named('Body', '', 'fo:widows="2"') })
    expect(foundBy('widow', kept).map(each => each.repair !== null)).toEqual([true])
  })

  it('are none where the paragraph stands whole, or two lines do', () => {
    expect(foundBy('widow', textOf(`${lines(perPage - 5)}${p(paragraph)}`))).toEqual([])
    expect(
      foundBy(
        'widow',
        textOf(p(filler.repeat(12), 'Two'), { styles: named('Two', '', 'fo:widows="2" fo:orphans="2"') }),
      ),
    ).toEqual([])
  })
})

describe('runts', () => {
  /** A paragraph of two lines, the last of them one word of a few letters: found by writing on until it is. */
  function ending(last: string, joined = ' '): string {
    for (let count = 6; count < 40; count++) {
      const words = `${Array.from({ length: count }, (_, at) => (at % 3 === 0 ? 'boats' : 'go')).join(' ')}${joined}${last}`
      const layout = [...paragraphExtents(textOf(p(words)).composition).values()][0]!.layout
      const end = layout.lines.at(-1)!
      if (layout.lines.length === 2 && words.slice(end.start) === last) return words
    }
    throw new Error('no words end so')
  }

  it('are found and bound to the word before them', () => {
    const of = textOf(p(ending('to.')))
    const found = foundBy('runt', of)
    expect(found.map(each => each.text)).toEqual(['to.'])
    expect(foundBy('runt', putRight(of, found))).toEqual([])
  })
  it('are told without a repair where no space before them could be bound', () => {
    const found = foundBy('runt', textOf(p(ending('x.', '-'))))
    expect(found.map(each => [each.text, each.repair])).toEqual([['x.', null]])
  })
  it('are none where the last word is long', () => {
    expect(foundBy('runt', textOf(p(ending('northwards.'))))).toEqual([])
  })
})

describe('headings at the foot of a page', () => {
  const heading = '<text:h text:style-name="Head" text:outline-level="1">Boats</text:h>'
  it('are found, and go with their text then', () => {
    const of = textOf(`${lines(perPage - 1)}${heading}${p('And the text.')}`, { styles: named('Head') })
    const found = foundBy('stranded-heading', of)
    expect(found.map(each => [each.severity, each.says])).toEqual([['error', 'A heading at the foot of page 1']])
    expect(foundBy('stranded-heading', putRight(of, found))).toEqual([])
  })
  it('are none where text follows on the page, or the text begins a page by itself', () => {
    const styles = named('Head') + named('New', '', 'fo:break-before="page"')
    expect(foundBy('stranded-heading', textOf(`${lines(5)}${heading}${p('And the text.')}`, { styles }))).toEqual([])
    expect(
      foundBy('stranded-heading', textOf(`${lines(5)}${heading}${p('And the text.', 'New')}`, { styles })),
    ).toEqual([])
  })
})

describe('justified text', () => {
  const narrow = `${named('Just', '', 'fo:text-align="justify"')}`
  const loose =
    'Extraordinarily unconstitutional misunderstandings notwithstanding interdepartmental communications, boats go.'

  it('has loose lines told, and ragged text none', () => {
    expect(foundBy('loose-line', textOf(p(loose, 'Just'), { styles: narrow })).length).toBe(1)
    expect(foundBy('loose-line', textOf(p(loose)))).toEqual([])
    expect(foundBy('loose-line', textOf(p(filler, 'Just'), { styles: narrow }))).toEqual([])
  })
  it('has rivers told where wide spaces lie under one another', () => {
    // Lines of the same words: every gap lies under a gap.
    const same = 'incontrovertibly misunderstood notwithstanding '.repeat(12)
    const of = textOf(p(same, 'Just'), { styles: narrow })
    const found = foundBy('river', of)
    expect(found.length).toBeGreaterThan(0)
    expect(found[0]!.says).toMatch(/^A river through \d+ lines$/)
    expect(foundBy('river', textOf(p(same)))).toEqual([])
  })
  it('has hyphens in a row told, and fewer when the style says so', () => {
    const styles = named(
      'Div',
      'fo:hyphenate="true" fo:hyphenation-remain-char-count="2" fo:hyphenation-push-char-count="2"',
    )
    const of = textOf(p('unconstitutionality '.repeat(30), 'Div'), { styles: styles })
    const found = foundBy('stacked-hyphens', of)
    expect(found.length).toBeGreaterThan(0)
    expect(foundBy('stacked-hyphens', putRight(of, found))).toEqual([])
    expect(foundBy('stacked-hyphens', textOf(p('unconstitutionality '.repeat(30))))).toEqual([])
  })
})

describe('leading, measure and room', () => {
  it('leading under what the letters take is told once for each style, and opened', () => {
    const of = textOf(p(filler.repeat(3), 'Tight') + p(filler.repeat(3), 'Tight'), {
      styles: named('Tight', '', 'fo:line-height="9pt"'),
    })
    const found = foundBy('tight-leading', of)
    expect(found.length).toBe(1)
    expect(found[0]!.says).toMatch(/^11 \/ 9 pt; 1[0-9.]+ pt would do, in 2 paragraphs$/)
    expect(foundBy('tight-leading', putRight(of, found))).toEqual([])
    expect(foundBy('tight-leading', textOf(p(filler.repeat(3))))).toEqual([])
  })
  it('lines with too many or too few letters are told once for each style', () => {
    const styles = named('Tiny', 'fo:font-size="4pt"', 'fo:line-height="6pt"')
    expect(foundBy('measure', textOf(p(filler.repeat(9), 'Tiny'), { styles })).length).toBe(1)
    expect(foundBy('measure', textOf(p(filler.repeat(4))))).toEqual([])
  })
  it('a page that is empty for the most part is told, the last one not', () => {
    const styles = named('New', '', 'fo:break-before="page"')
    expect(foundBy('empty-space', textOf(p('one') + p('two', 'New'), { styles })).map(each => each.page)).toEqual([0])
    expect(foundBy('empty-space', textOf(p('one')))).toEqual([])
  })
  it('a frame that runs over is told and brought to fit', () => {
    const frame = (words: string) =>
      textOf(
        `<text:p>${textFrame(`text:anchor-type="paragraph" ${shapeAt(0, 0, 6, 2)}`, p(words), 'draw:name="Box"')}</text:p>`,
      )
    const of = frame(filler + filler.slice(0, 60))
    const found = foundBy('overset', of)
    expect(found.map(each => each.severity)).toEqual(['error'])
    expect(foundBy('overset', putRight(of, found))).toEqual([])
    expect(foundBy('overset', frame('It fits'))).toEqual([])
  })
})

describe('figures in columns', () => {
  const table = (cells: readonly string[]) =>
    `<table:table table:name="t"><table:table-column/>${cells
      .map(cell => `<table:table-row><table:table-cell>${p(cell, 'Figures')}</table:table-cell></table:table-row>`)
      .join('')}</table:table>${p('')}`
  const of = (cells: readonly string[], family: string) =>
    textOf(table(cells), {
      faces: face('F', family),
      stylesFaces: face('F', family),
      styles: named('Figures', 'style:font-name="F"'),
      masters: standardMaster(),
    })
  it('that are of different widths are told once', () => {
    expect(foundBy('figures', of(['12', '114', '1,071'], 'Jost')).length).toBe(1)
    expect(foundBy('figures', of(['12', '114'], 'Jost'))).toEqual([])
    expect(foundBy('figures', of(['12', '114', '1,071'], 'Courier Prime'))).toEqual([])
    expect(foundBy('figures', of(['Quay', 'Pier', 'Slip'], 'Jost'))).toEqual([])
  })
})
