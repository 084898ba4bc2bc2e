import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { displayPage, type DisplayPage } from '../../../core/typeset/display'
import type { Composition } from '../../../core/typeset/compose'
import {
  face,
  paragraphStyle,
  sessionOf,
  smallPage,
  standardMaster,
  textStyle,
  type Fixture,
} from '../../support/fixtures'

const centimetre = 72 / 2.54
const base =
  '<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ' +
  'fo:font-size="12pt" fo:language="en" fo:country="GB" style:letter-kerning="true"/>' +
  '</style:default-style>'
const compose = (fixture: Fixture): Composition =>
  sessionOf({ faces: face('Spectral'), stylesFaces: face('Spectral'), styles: base, ...fixture }).composition
const pagesOf = (fixture: Fixture): DisplayPage[] => compose(fixture).pages.map(displayPage)
const words = (count: number) =>
  Array.from({ length: count }, (_, at) => ['sea', 'harbour', 'light', 'morning', 'a'][at % 5]).join(' ')
const texts = (page: DisplayPage) => page.lines.map(line => line.runs.map(run => page.runs[run]!.text).join(''))
const note = (text: string, citation = '1', kind = 'footnote') =>
  `<text:note text:note-class="${kind}"><text:note-citation>${citation}</text:note-citation>` +
  `<text:note-body><text:p>${text}</text:p></text:note-body></text:note>`

describe('drop caps', () => {
  const style = (length: string, lines = 3) =>
    `<style:style style:name="D" style:family="paragraph"><style:paragraph-properties ` +
    `fo:line-height="14pt"><style:drop-cap style:lines="${lines}" style:length="${length}" ` +
    `style:distance="2pt"/></style:paragraph-properties></style:style>`

  it('stand on the baseline of their last line, as high as the first one’s capitals', () => {
    const [page] = pagesOf({ automatic: style('1'), body: `<text:p text:style-name="D">Harbour ${words(30)}</text:p>` })
    const drop = page!.runs.find(run => run.text === 'H')!
    const [first, second, third, fourth] = page!.lines
    expect(drop.size).toBeGreaterThan(35)
    const baseline = (line: typeof first) => page!.runs[line!.runs.find(run => page!.runs[run]!.size === 12)!]!.y
    expect(drop.y).toBeCloseTo(baseline(third), 1)
    // Spectral’s capitals, at the size they are set.
    expect(drop.y - drop.size * 0.668).toBeCloseTo(baseline(first) - 12 * 0.668, 0)
    expect(Math.min(first!.x, second!.x, third!.x)).toBeGreaterThan(fourth!.x + drop.width)
    expect(texts(page!).join(' ').replace(/\s+/g, ' ')).toContain('arbour sea')
  })

  it('take a word where asked, and are left alone where they would be everything', () => {
    const [page] = pagesOf({
      automatic: style('word'),
      body: `<text:p text:style-name="D">The rest ${words(20)}</text:p><text:p text:style-name="D">A</text:p>`,
    })
    expect(page!.runs.some(run => run.text === 'The' && run.size > 30)).toBe(true)
    expect(page!.runs.find(run => run.text === 'A')!.size).toBe(12)
  })
})

describe('notes', () => {
  it('stand at the foot of the page of their sign, under a line, and take their room from the text', () => {
    const pages = pagesOf({
      body: `<text:p>${words(20)}${note('at the foot')}</text:p>${`<text:p>${words(20)}</text:p>`.repeat(8)}`,
    })
    const foot = pages[0]!.lines.findIndex((_, at) => texts(pages[0]!)[at]!.includes('at the foot'))
    const last = pages[0]!.lines[foot]!
    expect(last.y + last.height).toBeCloseTo(9 * centimetre, 0)
    expect(texts(pages[0]!)[foot]).toBe('1at the foot')
    expect(pages[0]!.shapes.some(shape => shape.kind === 'box' && shape.height < 1 && shape.y < last.y)).toBe(true)
    expect(pages[1]!.lines.length).toBeGreaterThan(0)
    const body = pages[0]!.lines.filter((_, at) => at !== foot)
    expect(Math.max(...body.map(line => line.y + line.height))).toBeLessThan(last.y)
  })

  it('pull the line that bears their sign to the page where both fit', () => {
    const pages = pagesOf({ body: `${'<text:p>line</text:p>'.repeat(13)}<text:p>sign${note(words(60))}</text:p>` })
    const where = pages.findIndex(page => texts(page).some(text => text.startsWith('sign')))
    expect(where).toBe(1)
    expect(texts(pages[1]!).join(' ')).toContain('1sea harbour')
  })

  it('gather endnotes behind the text, on their own master page', () => {
    const pages = pagesOf({
      styles: `${base}<text:notes-configuration text:note-class="endnote" style:num-suffix=")" text:master-page-name="End"/>`,
      masters: `${standardMaster()}<style:master-page style:name="End" style:page-layout-name="pm"/>`,
      body: `<text:p>one${note('told at the end', 'i', 'endnote')}</text:p><text:p>two</text:p>`,
    })
    expect(pages.map(page => page.master)).toEqual(['Standard', 'End'])
    expect(texts(pages[1]!)).toEqual(['i)told at the end'])
  })
})

describe('frames and the text beside them', () => {
  const frame = (graphic: string, attributes = '', inside = '<text:p>box</text:p>') => ({
    automatic:
      `<style:style style:name="fr" style:family="graphic"><style:graphic-properties ` +
      `style:vertical-pos="from-top" style:vertical-rel="paragraph" style:horizontal-rel="paragraph" ${graphic}/>` +
      `</style:style>`,
    body:
      `<text:p><draw:frame draw:name="F" draw:style-name="fr" text:anchor-type="paragraph" ` +
      `svg:x="0cm" svg:y="0cm" svg:width="3cm" svg:height="2cm" ${attributes}><draw:text-box>${inside}</draw:text-box>` +
      `</draw:frame>${words(60)}</text:p>`,
  })
  const body = (page: DisplayPage) => page.lines.filter((_, at) => !texts(page)[at]!.includes('box'))

  it('keep clear of a frame at the left, and take the whole measure below it', () => {
    const [page] = pagesOf(frame('style:wrap="right" style:horizontal-pos="left" fo:margin-right="0.5cm"'))
    const lines = body(page!)
    const beside = lines.filter(line => line.y < centimetre * 3 - 4)
    expect(beside.length).toBeGreaterThan(2)
    expect(beside.every(line => line.x >= centimetre * 4.5 - 0.1)).toBe(true)
    expect(lines.at(-1)!.x).toBeCloseTo(centimetre, 1)
  })

  it('begin below a frame that lets nothing beside it, and run through one that says so', () => {
    const none = body(pagesOf(frame('style:wrap="none" style:horizontal-pos="left"'))[0]!)
    expect(none[0]!.y).toBeGreaterThan(centimetre * 3 - 1)
    const through = body(pagesOf(frame('style:wrap="run-through" style:horizontal-pos="left"'))[0]!)
    expect([through[0]!.x, through[0]!.y].map(value => Math.round(value / centimetre))).toEqual([1, 1])
  })

  it('use the wider side of a frame in the middle', () => {
    const lines = body(
      pagesOf(
        frame('style:wrap="parallel" style:horizontal-pos="from-left"', 'svg:x="1cm"').automatic
          ? { ...frame('style:wrap="parallel" style:horizontal-pos="right"') }
          : {},
      )[0]!,
    )
    expect(lines[0]!.x).toBeCloseTo(centimetre, 1)
    expect(lines[0]!.x + lines[0]!.width).toBeLessThan(centimetre * 6 + 0.5)
  })

  it('say exactly what runs over, or what room is left', () => {
    const lines = Array.from({ length: 12 }, (_, at) => `<text:p>${at}</text:p>`).join('')
    const over = compose(frame('style:wrap="none"', '', lines))
    const { height } = displayPage(over.pages[0]!).lines.find(
      (_, at) => texts(displayPage(over.pages[0]!))[at] === '0',
    )!
    const fits = Math.floor((2 * centimetre) / height)
    expect(over.overset).toMatchObject([{ name: 'F', lines: 12 - fits, characters: 12 - fits + 2 }])
    const room = compose(frame('style:wrap="none"', '', '<text:p>one</text:p>')).fills.find(fill => fill.name === 'F')!
    expect(room.over).toBeNull()
    expect(room.room).toBeCloseTo(2 * centimetre - height, 0)
  })

  it('run on from one frame to the next, and over only at the last', () => {
    const box = (name: string, next: string, inside: string) =>
      `<text:p><draw:frame draw:name="${name}" text:anchor-type="paragraph" svg:width="${name === 'A' ? 3 : 4}cm" ` +
      `svg:height="1.2cm"><draw:text-box${next ? ` draw:chain-next-name="${next}"` : ''}>${inside}</draw:text-box>` +
      `</draw:frame>after</text:p>`
    const composition = compose({
      body:
        box('A', 'B', Array.from({ length: 8 }, (_, at) => `<text:p>line ${at}</text:p>`).join('')) +
        box('B', 'C', '') +
        box('C', '', ''),
    })
    const all = texts(displayPage(composition.pages[0]!)).filter(text => text.startsWith('line'))
    expect(all).toEqual(['line 0', 'line 1', 'line 2', 'line 3', 'line 4', 'line 5'].slice(0, all.length))
    expect(composition.overset).toMatchObject([{ name: 'C', lines: 8 - all.length }])
  })
})

describe('tables', () => {
  const table = (rows: string, more = '') =>
    `<table:table${more}><table:table-column table:number-columns-repeated="2"/>${rows}</table:table>`
  const cell = (inside: string, more = '') => `<table:table-cell${more}>${inside}</table:table-cell>`

  it('break rows between lines, and go on on the next page', () => {
    const pages = pagesOf({
      body: `<text:p>before</text:p>${table(
        `<table:table-row>${cell(`<text:p>${words(120)}</text:p>`)}${cell('<text:p>side</text:p>')}</table:table-row>`,
      )}`,
    })
    expect(pages.length).toBeGreaterThan(1)
    expect(texts(pages[0]!)[0]).toBe('before')
    expect(texts(pages[0]!).length).toBeGreaterThan(5)
    expect(
      pages
        .flatMap(texts)
        .filter(text => text !== 'before' && text !== 'side')
        .join(' ')
        .replace(/\s+/g, ' ')
        .trim(),
    ).toBe(words(120))
  })

  it('keep rows whole that say so, where a page can hold them', () => {
    const pages = pagesOf({
      automatic:
        '<style:style style:name="R" style:family="table-row"><style:table-row-properties fo:keep-together="always"/></style:style>',
      body: `${'<text:p>filler</text:p>'.repeat(10)}${table(
        `<table:table-row table:style-name="R">${cell(`<text:p>${words(24)}</text:p>`)}` +
          `${cell('<text:p>side</text:p>')}</table:table-row>`,
      )}`,
    })
    expect(texts(pages[0]!).every(text => text === 'filler')).toBe(true)
  })

  it('give a cell over two rows the height of both', () => {
    const [page] = pagesOf({
      automatic:
        '<style:style style:name="C" style:family="table-cell"><style:table-cell-properties fo:border="1pt solid #ff0000"/></style:style>',
      body: table(
        `<table:table-row>${cell('<text:p>tall</text:p>', ' table:number-rows-spanned="2" table:style-name="C"')}` +
          `${cell('<text:p>a</text:p>')}</table:table-row>` +
          `<table:table-row><table:covered-table-cell/>${cell('<text:p>b</text:p>')}</table:table-row>`,
      ),
    })
    const sides = page!.shapes.filter(shape => shape.kind === 'box' && shape.fill === '#ff0000' && shape.width < 2)
    const [a, b] = ['a', 'b'].map(text => page!.lines.find((_, at) => texts(page!)[at] === text)!)
    expect(sides[0]!.kind === 'box' && sides[0]!.height).toBeCloseTo(b!.y + b!.height - a!.y, 0)
  })
})

describe('lines', () => {
  it('put the character of a tab on its stop', () => {
    const tabs =
      '<style:style style:name="T" style:family="paragraph"><style:paragraph-properties>' +
      '<style:tab-stops><style:tab-stop style:position="4cm" style:type="char" style:char="."/>' +
      '</style:tab-stops></style:paragraph-properties></style:style>'
    const [page] = pagesOf({
      automatic: tabs,
      body: ['7.35', '10.5', '123.456']
        .map(text => `<text:p text:style-name="T">x<text:tab/>${text}</text:p>`)
        .join(''),
    })
    const points = page!.runs.filter(run => /\d/.test(run.text)).map(run => run.x + run.xs[run.text.indexOf('.')]!)
    expect(points).toHaveLength(3)
    for (const point of points) expect(point).toBeCloseTo(5 * centimetre, 1)
  })

  it('justify by spaces first, by letters within a limit, and take what is left from the spaces', () => {
    const [page] = pagesOf({
      automatic: paragraphStyle('J', '', 'fo:text-align="justify"'),
      body: '<text:p text:style-name="J">of a considerably extraordinarily-long circumnavigation</text:p>',
    })
    const [first] = page!.lines
    expect(first!.width).toBeCloseTo(8 * centimetre, 1)
    const run = page!.runs[first!.runs[0]!]!
    const plain = pagesOf({ body: '<text:p>of</text:p>' })[0]!.runs[0]!
    // Letters stand at most 4 % of the size apart from where they would.
    const gap = run.xs[1]! - run.xs[0]! - (plain.xs[1]! - plain.xs[0]!)
    expect(gap).toBeGreaterThan(0.01)
    expect(gap).toBeLessThanOrEqual(0.48 + 1e-6)
  })

  it('divide no more lines in a row than the ladder allows, and leave the letters that are asked for', () => {
    const long =
      'considerations internationally extraordinarily communications responsibilities administrations '.repeat(4)
    const hyphens = (ladder: string) =>
      compose({
        automatic: paragraphStyle(
          'H',
          'fo:hyphenate="true" fo:hyphenation-remain-char-count="4" fo:hyphenation-push-char-count="4"',
          `fo:hyphenation-ladder-count="${ladder}" fo:margin-right="3.5cm"`,
        ),
        body: `<text:p text:style-name="H">${long}</text:p>`,
      }).pages.flatMap(page =>
        page.fragments.flatMap(fragment =>
          fragment.kind === 'lines'
            ? fragment.layout.lines.map(line => ({
                hyphen: line.hyphen,
                at: line.contentEnd,
                text: fragment.layout.text,
              }))
            : [],
        ),
      )
    const longest = (lines: ReturnType<typeof hyphens>) =>
      lines.reduce(
        ({ most, now }, line) => {
          const next = line.hyphen ? now + 1 : 0
          return { most: Math.max(most, next), now: next }
        },
        { most: 0, now: 0 },
      ).most
    expect(longest(hyphens('no-limit'))).toBeGreaterThan(1)
    expect(longest(hyphens('1'))).toBe(1)
    for (const { hyphen, at, text } of hyphens('no-limit'))
      if (hyphen) expect([/[a-z]{4}$/.test(text.slice(0, at)), /^[a-z]{4}/.test(text.slice(at))]).toEqual([true, true])
  })

  it('show a soft hyphen where a line ends at it, and nowhere else', () => {
    const page = (width: string) =>
      pagesOf({
        automatic: paragraphStyle('S', '', `fo:margin-right="${width}"`),
        body: '<text:p text:style-name="S">circum\u00ADnavigation</text:p>',
      })[0]!
    expect(
      page('5.2cm')
        .runs.filter(run => !run.own)
        .map(run => run.text),
    ).toEqual(['-'])
    expect(page('0cm').runs.every(run => run.own)).toBe(true)
  })

  it('take small capitals from the face, or make them where it has none', () => {
    const sizes = (family: string) => {
      const [page] = pagesOf({
        faces: face(family),
        automatic: textStyle('C', `style:font-name="${family}" fo:font-variant="small-caps"`),
        body: '<text:p><text:span text:style-name="C">Ab</text:span></text:p>',
      })
      return page!.runs.map(run => run.size)
    }
    expect(sizes('Spectral')).toEqual([12])
    const made = sizes('Jost')
    expect(made[0]).toBe(12)
    expect(made[1]).toBeCloseTo(9.6)
  })

  it('draw lines under and through text where the font puts them', () => {
    const [page] = pagesOf({
      automatic: textStyle(
        'U',
        'style:text-underline-style="solid" style:text-underline-type="double" style:text-line-through-style="solid" ' +
          'style:text-underline-color="#ff0000"',
      ),
      body: '<text:p><text:span text:style-name="U">under</text:span></text:p>',
    })
    const [run] = page!.runs
    expect(run!.underline).toMatchObject({ pattern: 'double', color: '#ff0000' })
    expect(run!.underline!.middle).toBeLessThan(0)
    expect(run!.strike!.middle).toBeGreaterThan(2)
  })

  it('follow the kinsoku of the style: small kana begin no line unless it says normal', () => {
    const starts = (rule: string) =>
      pagesOf({
        automatic: paragraphStyle(
          'K',
          'style:font-name-asian="Zen Kaku Gothic New" style:font-size-asian="12pt"',
          `style:line-break="${rule}" fo:margin-right="${8 * centimetre - 12 * 4 - 2}pt"`,
        ),
        faces: face('Zen Kaku Gothic New'),
        body: '<text:p text:style-name="K">あいうえっあいう。あい（あいう</text:p>',
      })[0]!.lines.map((_, at, all) => all.length && at)
    const lines = (rule: string) =>
      texts(
        pagesOf({
          automatic: paragraphStyle(
            'K',
            'style:font-name-asian="Zen Kaku Gothic New" style:font-size-asian="12pt"',
            `style:line-break="${rule}" fo:margin-right="${8 * centimetre - 12 * 4 - 2}pt"`,
          ),
          faces: face('Zen Kaku Gothic New'),
          body: '<text:p text:style-name="K">あいうえっあいう。あい（あいう</text:p>',
        })[0]!,
      )
    expect(starts('strict').length).toBeGreaterThan(2)
    expect(lines('strict').some(line => line.startsWith('っ'))).toBe(false)
    expect(lines('normal').some(line => line.startsWith('っ'))).toBe(true)
    for (const line of lines('strict')) expect([line.startsWith('。'), line.endsWith('（')]).toEqual([false, false])
  })

  it('set a quarter of an em between East Asian and other letters, unless told not to', () => {
    const width = (value: string) =>
      pagesOf({
        automatic: paragraphStyle('A', 'style:font-size-asian="12pt"', `style:text-autospace="${value}"`),
        body: '<text:p text:style-name="A">日本abc日本</text:p>',
      })[0]!.lines[0]!.width
    expect(width('ideograph-alpha') - width('none')).toBeCloseTo(6, 1)
  })
})

describe('what the text has been through', () => {
  it('tracked changes show as they read when all are taken: insertions stand, deletions do not', () => {
    const { composition, detail } = sessionOf({
      body:
        `<text:tracked-changes><text:changed-region xml:id="c1" text:id="c1"><text:deletion>` +
        `<office:change-info><dc:creator>A</dc:creator><dc:date>2026-01-01T00:00:00</dc:date>` +
        `</office:change-info><text:p>gone</text:p></text:deletion></text:changed-region>` +
        `<text:changed-region xml:id="c2" text:id="c2"><text:insertion><office:change-info>` +
        `<dc:creator>A</dc:creator><dc:date>2026-01-01T00:00:00</dc:date></office:change-info>` +
        `</text:insertion></text:changed-region></text:tracked-changes><text:p>be<text:change ` +
        `text:change-id="c1"/>fore <text:change-start text:change-id="c2"/>new<text:change-end ` +
        `text:change-id="c2"/> after</text:p>`,
    })
    expect(texts(displayPage(composition.pages[0]!))).toEqual(['before new after'])
    expect(detail.census.faces.reduce((sum, each) => sum + each.places.deletion, 0)).toBe(1)
  })

  it('charts in the text keep their room, and are said to be boxes', () => {
    const composition = compose({
      body:
        '<text:p>a <draw:frame text:anchor-type="as-char" svg:width="4cm" svg:height="3cm">' +
        '<draw:object xlink:href="./Object 1"/></draw:frame> b</text:p>',
      objects: [{ path: 'Object 1/', type: 'application/vnd.oasis.opendocument.chart' }],
    })
    const [page] = composition.pages.map(displayPage)
    const chart = page!.shapes.find(shape => shape.kind === 'object')!
    expect(
      [chart.width, chart.kind === 'object' && chart.height].map(value => Math.round(Number(value) / centimetre)),
    ).toEqual([4, 3])
    expect(page!.lines[0]!.height).toBeGreaterThanOrEqual(3 * centimetre)
    expect(composition.unlaid).toEqual([{ feature: 'charts (shown as an empty box)', count: 1 }])
  })
})

describe('whatever text, style and width', () => {
  const sign = fc.constantFrom(
    'a',
    'é',
    'W',
    ' ',
    '  ',
    '-',
    '日',
    '本',
    'א',
    'ش',
    'क्ष',
    '\u00A0',
    '\u00AD',
    '😀',
    '.',
    '(',
    'fi',
    'considerations ',
    'mmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmmm',
  )
  const inline = fc.record({
    text: fc.array(sign, { maxLength: 25 }).map(signs => signs.join('')),
    style: fc.constantFrom('', 'S1', 'S2', 'S3', 'S4'),
  })
  const styles =
    textStyle('S1', 'fo:font-size="20pt" fo:letter-spacing="1pt"') +
    textStyle('S2', 'fo:font-variant="small-caps" style:font-name="Jost"') +
    textStyle('S3', 'style:text-position="super 58%" fo:text-transform="uppercase"') +
    textStyle('S4', 'style:text-scale="60%" style:font-name="Caveat"')

  it('no character is lost or set twice, on the lines or in the glyphs, and nothing hangs: a property', () => {
    fc.assert(
      fc.property(
        fc.array(inline, { maxLength: 6 }),
        fc.constantFrom('start', 'justify', 'center', 'end'),
        fc.constantFrom('lr-tb', 'rl-tb'),
        fc.integer({ min: 0, max: 78 }),
        fc.boolean(),
        (inlines, align, mode, margin, drop) => {
          const body = inlines
            .map(({ text, style }) => (style ? `<text:span text:style-name="${style}">${text}</text:span>` : text))
            .join('')
          const { pages } = compose({
            automatic:
              styles +
              (`<style:style style:name="P" style:family="paragraph"><style:paragraph-properties ` +
                (`fo:text-align="${align}" style:writing-mode="${mode}" fo:margin-right="` +
                  `${margin}mm">${drop ? '<style:drop-cap style:lines="2" style:length="1"/>' : ''}</style:paragraph-properties>`) +
                `<style:text-properties fo:hyphenate="true"/></style:style>`),
            faces: face('Spectral') + face('Jost') + face('Caveat'),
            body: `<text:p text:style-name="P">${body}</text:p>`,
          })
          const layouts = pages.flatMap(page =>
            page.fragments.flatMap(fragment => (fragment.kind === 'lines' ? [fragment] : [])),
          )
          const { text, drop: cap } = layouts[0]!.layout
          const lines = layouts.flatMap(({ layout, from, to }) => layout.lines.slice(from, to))
          expect(lines[0]!.start).toBe(cap?.to ?? 0)
          lines.forEach((line, at) => {
            expect(line.start).toBe(at === 0 ? (cap?.to ?? 0) : lines[at - 1]!.end)
          })
          expect(lines.at(-1)!.end).toBe(text.length)
          const runs = pages.map(displayPage).flatMap(page => page.runs.filter(run => run.own))
          const covered = runs
            .flatMap(run => Array.from({ length: run.end - run.start }, (_, index) => run.start + index))
            .sort((a, b) => a - b)
          expect(covered).toEqual(Array.from({ length: text.length }, (_, index) => index))
          for (const run of runs)
            for (const value of [...run.xs, ...run.ys, run.x, run.y, run.width])
              expect(Number.isFinite(value)).toBe(true)
        },
      ),
      { numRuns: 80 },
    )
  })
})

describe('rules that the document carries', () => {
  const rules = (content: unknown): Fixture => ({
    parts: [{ path: 'Morphene/rules.json', type: 'application/json', content: JSON.stringify(content) }],
  })

  it('correct the distance of pairs in one face', () => {
    const width = (fixture: Fixture) => pagesOf({ body: '<text:p>Tea</text:p>', ...fixture })[0]!.lines[0]!.width
    expect(
      width(rules({ kerning: [{ family: 'Spectral', left: 'T', right: 'e', amount: 100 }] })) - width({}),
    ).toBeCloseTo(1.2, 2)
    expect(width(rules({ kerning: [{ family: 'Jost', left: 'T', right: 'e', amount: 100 }] }))).toBeCloseTo(
      width({}),
      5,
    )
  })

  it('switch features on by style, as a font’s name may, too', () => {
    const glyphs = (fixture: Fixture, family = 'Spectral') =>
      pagesOf({
        faces: face('S', `'${family}'`),
        automatic: paragraphStyle('P', 'style:font-name="S"'),
        body: '<text:p text:style-name="P">ab</text:p>',
        ...fixture,
      })[0]!.runs[0]!.glyphs
    const small = glyphs(rules({ features: [{ style: { family: 'paragraph', name: 'P' }, features: { smcp: 1 } }] }))
    expect(small).not.toEqual(glyphs({}))
    expect(glyphs({}, 'Spectral:smcp')).toEqual(small)
  })

  it('that cannot be read are refused with the part’s name', () => {
    expect(() =>
      compose({ parts: [{ path: 'Morphene/rules.json', type: 'application/json', content: '{"kerning":[{}]}' }] }),
    ).toThrow(/Morphene\/rules.json/)
  })
})

describe('pages for one side', () => {
  it('leave a blank page where the next one must be a right one', () => {
    const pages = pagesOf({
      stylesAutomatic:
        `${smallPage}<style:page-layout style:name="right" style:page-usage="right"><style:page-layout-properties ` +
        `fo:page-width="10cm" fo:page-height="10cm" fo:margin="1cm"/></style:page-layout>`,
      masters: `${standardMaster()}<style:master-page style:name="Right" style:page-layout-name="right"/>`,
      automatic: paragraphStyle('R', '', '', ' style:master-page-name="Right"'),
      body: '<text:p>one</text:p><text:p text:style-name="R">three</text:p>',
    })
    expect(pages.map(page => texts(page).join(''))).toEqual(['one', '', 'three'])
    expect(pages.map(page => page.number)).toEqual(['1', '2', '3'])
  })

  it('name the chapter in the running head', () => {
    const heading = (text: string, style = '') => `<text:h text:outline-level="1"${style}>${text}</text:h>`
    const pages = pagesOf({
      automatic: paragraphStyle('N', '', 'fo:break-before="page"'),
      masters: standardMaster(
        '<style:header><text:p><text:chapter text:outline-level="1">?</text:chapter></text:p></style:header>',
      ),
      body: `${heading('Tides')}<text:p text:style-name="N">more</text:p>${heading('Piers', ' text:style-name="N"')}`,
    })
    expect(pages.map(page => texts(page)[0])).toEqual(['Tides', 'Tides', 'Piers'])
  })
})
