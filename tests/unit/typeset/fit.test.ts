import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Paragraph } from '../../../core/document/story-model'
import { analyse } from '../../../core/typeset/analysis'
import { readDocument } from '../../../core/style/reading'
import { composeTotalFit } from '../../../core/typeset/fit'
import { composeGreedily } from '../../../core/typeset/greedy'
import { LineMaker, type Line, type Measure } from '../../../core/typeset/lines'
import { SetText } from '../../../core/typeset/setting'
import { openOdt, paragraphStyle, typesetter } from '../../support/fixtures'

const reading = readDocument(
  openOdt({
    automatic:
      paragraphStyle('P', 'fo:font-size="10pt" fo:language="en" fo:country="GB"') +
      paragraphStyle('H', 'fo:font-size="10pt" fo:language="en" fo:country="GB" fo:hyphenate="true"'),
    body: '<text:p text:style-name="P">x</text:p><text:p text:style-name="H">x</text:p>',
  }),
)
const [plain, divided] = reading.stories[0]!.blocks.map(block =>
  typesetter.look(reading.cascade.paragraph(block as Paragraph).text, 'western'),
)

const paragraph = (text: string): Paragraph => ({
  kind: 'paragraph',
  part: 'content.xml',
  node: 1,
  place: 'body',
  styleName: null,
  classNames: [],
  heading: null,
  list: null,
  holder: null,
  inlines: [{ kind: 'text', node: 2, text, span: null, field: null }],
  mark: null,
})

function maker(text: string, width: number, change: Partial<Measure> = {}, look = plain!): LineMaker {
  const analysis = analyse(paragraph(text), typesetter.words, { rightToLeft: false, strict: true })
  const set = new SetText(
    analysis,
    analysis.runs.map(() => look),
    typesetter,
    () => ({ width: 0, height: 0, below: () => 0 }),
    { autospace: true, hanging: false },
  )
  set.release()
  return new LineMaker(
    set,
    {
      width,
      firstIndent: 0,
      alignment: 'justify',
      lastAlignment: 'left',
      justifySingle: false,
      justifyBroken: false,
      tabOrigin: 0,
      rightToLeft: false,
      tabs: [],
      tabDistance: 36,
      leading: { factor: 1, fixed: null, atLeast: 0, extra: 0 },
      division: { remain: 2, push: 2, ladder: 0 },
      shape: null,
      ...change,
    },
    look,
  )
}

/** The demerits of some lines, told from the lines alone: what total fit makes least. */
function demerits(lines: readonly Line[], text: SetText, width: number): number {
  return lines.reduce((sum, line, at) => {
    const spaces = text.analysis.text.slice(line.start, line.contentEnd).split(' ').length - 1
    const natural = text.widthOf(line.start, line.contentEnd)
    const space = text.spaceAt(line.start)
    const ratio =
      at === lines.length - 1 ? 0 : spaces > 0 ? Math.min((width - natural) / (spaces * space * 0.5), 30) : 30
    return sum + (1 + 100 * ratio ** 3) ** 2
  }, 0)
}

/** Every way to break a text of single-spaced words into lines that fit. */
function* everyWay(text: SetText, width: number, start = 0): Generator<Line[]> {
  const { text: all } = text.analysis
  if (start >= all.length) {
    yield []
    return
  }
  for (let end = all.indexOf(' ', start + 1); ; end = all.indexOf(' ', end + 1)) {
    const contentEnd = end < 0 ? all.length : end
    if (text.widthOf(start, contentEnd) > width + 0.01) return
    const line = { start, contentEnd, end: end < 0 ? all.length : end + 1 } as Line
    for (const rest of everyWay(text, width, line.end)) yield [line, ...rest]
    if (end < 0) return
  }
}

const word = fc.constantFrom('a', 'sea', 'harbour', 'light', 'morning', 'of', 'crossings', 'ferry')

describe('total fit', () => {
  it('finds the way with the least demerits of all there are: a property', () => {
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 2, maxLength: 14 }),
        fc.integer({ min: 60, max: 160 }),
        (words, width) => {
          const lines = maker(words.join(' '), width)
          const best = Math.min(...[...everyWay(lines.text, width)].map(way => demerits(way, lines.text, width)))
          const found = composeTotalFit(lines)
          if (!Number.isFinite(best)) return
          expect(demerits(found, lines.text, width) / best).toBeCloseTo(1, 6)
        },
      ),
      { numRuns: 150 },
    )
  })

  it('never takes more room than there is, and breaks where the rules allow: a property', () => {
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 1, maxLength: 60 }),
        fc.integer({ min: 100, max: 300 }),
        fc.integer({ min: 0, max: 40 }),
        (words, width, firstIndent) => {
          const text = words.join(' ')
          const lines = composeTotalFit(maker(text, width, { firstIndent }))
          lines.forEach((line, at) => {
            expect(line.width).toBeLessThanOrEqual(width - (at === 0 ? firstIndent : 0) + 0.02)
            expect(line.end === text.length || text[line.end - 1] === ' ').toBe(true)
            expect(line.stretch).toBeGreaterThanOrEqual(-0.02)
          })
          expect(lines.map(line => text.slice(line.start, line.end)).join('')).toBe(text)
        },
      ),
      { numRuns: 100 },
    )
  })

  it('takes no fewer lines than first fit, and mostly as many', () => {
    const text =
      'The morning boat is a slow and steady ship with a glass deck house and she calls at every pier on her way to the outer islands. '
        .repeat(6)
        .trim()
    for (const width of [120, 180, 240, 320]) {
      const [fit, greedy] = [composeTotalFit(maker(text, width)), composeGreedily(maker(text, width))]
      expect(fit.length).toBeGreaterThanOrEqual(greedy.length)
      expect(fit.length).toBeLessThanOrEqual(greedy.length + 1)
    }
  })

  it('divides words only where lines would be too loose without', () => {
    const loose = 'international considerations notwithstanding administrations communications responsibilities'
    const [with_, without] = [composeTotalFit(maker(loose, 110, {}, divided)), composeTotalFit(maker(loose, 110))]
    expect(with_.some(line => line.hyphen)).toBe(true)
    expect(without.some(line => line.hyphen)).toBe(false)
    const easy = 'a sea of a light of a sea of a light of a sea of a light of a sea'
    expect(composeTotalFit(maker(easy, 150, {}, divided)).some(line => line.hyphen)).toBe(false)
  })

  it('keeps to the ladder', () => {
    const text = 'international considerations notwithstanding administrations communications responsibilities '
      .repeat(3)
      .trim()
    const lines = composeTotalFit(maker(text, 105, { division: { remain: 2, push: 2, ladder: 1 } }, divided))
    lines.forEach((line, at) => {
      if (at > 0) expect(line.hyphen && lines[at - 1]!.hyphen).toBe(false)
    })
  })

  it('ends lines at forced breaks, and leaves tabs and words wider than the measure to first fit', () => {
    expect(composeTotalFit(maker('one two\nthree four', 200)).map(line => [line.start, line.end])).toEqual([
      [0, 8],
      [8, 18],
    ])
    const long = `${'m'.repeat(60)} end`
    expect(composeTotalFit(maker(long, 80)).length).toBe(composeGreedily(maker(long, 80)).length)
    expect(composeTotalFit(maker('a\tb c', 200)).flatMap(line => line.tabs)).toHaveLength(1)
    expect(composeTotalFit(maker('', 200))).toHaveLength(1)
  })
})

describe('first fit', () => {
  it('puts a word on the next line only where it does not fit: a property', () => {
    fc.assert(
      fc.property(
        fc.array(word, { minLength: 2, maxLength: 40 }),
        fc.integer({ min: 60, max: 250 }),
        (words, width) => {
          const lines = maker(words.join(' '), width)
          const made = composeGreedily(lines)
          made.slice(0, -1).forEach((line, at) => {
            const next = made[at + 1]!
            const first = lines.text.analysis.text.slice(next.start).split(' ')[0]!.length
            expect(lines.text.widthOf(line.start, next.start + first)).toBeGreaterThan(width)
          })
        },
      ),
      { numRuns: 80 },
    )
  })

  it('narrows lines where something stands, and moves them down where nothing has room', () => {
    const shape: Measure['shape'] = (_line, y) =>
      y < 10 ? { skipTo: 10 } : y < 40 ? { x: 50, width: 60 } : { x: 0, width: 200 }
    const lines = composeGreedily(
      maker('sea harbour light morning a sea harbour light morning', 200, { shape, alignment: 'left' }),
    )
    expect(lines[0]).toMatchObject({ above: 10, x: 50 })
    expect(lines.at(-1)!.x).toBe(0)
    expect(lines[0]!.width).toBeLessThanOrEqual(60.01)
  })

  it('cuts a word that no line holds between its letters, never inside a letter with its marks', () => {
    const text = 'é'.repeat(40).normalize('NFD')
    const lines = composeGreedily(maker(text, 50, { alignment: 'left' }))
    expect(lines.length).toBeGreaterThan(3)
    for (const line of lines) expect(/^\p{M}/u.test(text.slice(line.start))).toBe(false)
  })
})
