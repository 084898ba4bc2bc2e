import { spawnSync } from 'node:child_process'
import { describe, expect, it } from 'vitest'
import type { Paragraph } from '../../../core/document/story-model'
import { readDocument } from '../../../core/style/reading'
import { analyse } from '../../../core/typeset/analysis'
import { SetText } from '../../../core/typeset/setting'
import { shippedFaces } from '../../../server/library/shipped'
import { openOdt, paragraphStyle, typesetter } from '../../support/fixtures'
import { numbersFrom } from '../../support/seeded'

/** Sentences by script: kerning, ligatures, figures and signs beside spaces; joining, marks, conjuncts. */
const samples: Readonly<
  Record<string, { readonly text: string; readonly language: string; readonly rightToLeft: boolean }>
> = {
  Latin: {
    text: 'AVA To Type’s “office” fly affine, 7.30 (Væ) Yes. T. W, r - f’ L’eau Ärzte',
    language: 'en',
    rightToLeft: false,
  },
  Greek: { text: 'Τα πλοία φεύγουν στις επτά.', language: 'el', rightToLeft: false },
  Cyrillic: { text: 'Пароход отходит в семь часов, у причала.', language: 'ru', rightToLeft: false },
  Hebrew: { text: 'הספינה יוצאת בשבע בבוקר', language: 'he', rightToLeft: true },
  Arabic: { text: 'السفينة تغادر في الساعة السابعة', language: 'ar', rightToLeft: true },
  Devanagari: { text: 'नाव सुबह सात बजे क्षितिज की ओर चलती है', language: 'hi', rightToLeft: false },
  Hiragana: { text: '朝の船は毎日八時に出ます。', language: 'ja', rightToLeft: false },
}

const style = readDocument(
  openOdt({
    automatic: paragraphStyle('P', 'style:letter-kerning="true" fo:font-size="10pt"'),
    body: '<text:p text:style-name="P">x</text:p>',
  }),
)
const base = style.cascade.paragraph(style.stories[0]!.blocks[0] as Paragraph).text

/** A sample set in a face, its text in one piece or in several, each in a span of its own. */
function setIn(hash: string, sample: (typeof samples)[string], pieces: readonly string[]): SetText {
  const face = typesetter.library.byHash(hash)!
  const plain = typesetter.look(base, 'western')
  const paragraph: Paragraph = {
    kind: 'paragraph',
    part: 'content.xml',
    node: 1,
    place: 'body',
    styleName: null,
    classNames: [],
    heading: null,
    list: null,
    holder: null,
    inlines: pieces.map((text, at) => ({
      kind: 'text',
      node: 2 + at,
      text,
      span: pieces.length === 1 ? null : { node: 1_000 + at, styleName: null, classNames: [], parent: null },
      field: null,
    })),
    mark: null,
  }
  const analysis = analyse(paragraph, typesetter.words, { rightToLeft: sample.rightToLeft, strict: true })
  const look = typesetter.inLanguage(typesetter.substitute(plain, face), sample.language)
  const set = new SetText(
    analysis,
    analysis.runs.map(() => look),
    typesetter,
    () => ({ width: 0, height: 0, below: () => 0 }),
    { autospace: false, hanging: false },
  )
  set.release()
  return set
}

function glyphsOf(set: SetText, sample: (typeof samples)[string]): string {
  const { analysis } = set
  const segments = Array.from({ length: analysis.segments }, (_, at) => at)
  if (sample.rightToLeft) segments.reverse()
  return segments
    .flatMap(at =>
      set.glyphsOf(at, analysis.starts[at]!, analysis.starts[at + 1]!, 0).flatMap(({ glyphs }) =>
        Array.from({ length: glyphs.count }, (_, index) => {
          const glyph = glyphs.start + index
          return `${glyphs.ids[glyph]}@${glyphs.xOffsets[glyph]},${glyphs.yOffsets[glyph]}+${glyphs.advances[glyph]}`
        }),
      ),
    )
    .join(' ')
}

/** The text that glyphs stand for, segment by segment; spaces and words alike. */
const textOf = (set: SetText): string => {
  const { analysis } = set
  return Array.from({ length: analysis.segments }, (_, at) =>
    set
      .glyphsOf(at, analysis.starts[at]!, analysis.starts[at + 1]!, 0)
      .map(({ from, to }) => analysis.text.slice(from, to)),
  )
    .flat()
    .join('')
}

const ours = (hash: string, sample: (typeof samples)[string]): string =>
  glyphsOf(setIn(hash, sample, [sample.text]), sample)

interface Line {
  readonly name: string
  readonly path: string
  readonly sample: (typeof samples)[string]
  readonly glyphs: string
}

/** One process for all lines, in its batch mode: a process for each took longer than all else in this test. */
function theirs(lines: readonly Line[]): readonly string[] {
  const input = lines
    .map(({ path, sample }) =>
      [
        '--font-file',
        path,
        '--no-glyph-names',
        '--output-format=json',
        `--language=${sample.language}`,
        sample.rightToLeft ? '--direction=rtl' : '--direction=ltr',
        '--text',
        sample.text,
      ].join(';'),
    )
    .join('\n')
  const { stdout, status } = spawnSync('hb-shape', ['--batch'], { encoding: 'utf8', input, maxBuffer: 1 << 28 })
  expect(status).toBe(0)
  return stdout
    .trimEnd()
    .split('\n')
    .map(line =>
      (JSON.parse(line) as { g: number; dx: number; dy: number; ax: number }[])
        .map(each => `${each.g}@${each.dx},${each.dy}+${each.ax}`)
        .join(' '),
    )
}

describe('shaping', () => {
  it('gives the glyphs and places that Debian’s hb-shape gives, for every shipped face and script it has', () => {
    const lines: Line[] = []
    for (const { face, path } of shippedFaces()) {
      for (const [script, sample] of Object.entries(samples)) {
        if ((face.coverage[script as 'Latin'] ?? 0) < 40) continue
        // Faces with holes in a script show some signs in another face: another test’s matter.
        if (
          [...sample.text].some(
            character => !/\s/.test(character) && !typesetter.library.forGlyph(character.codePointAt(0)!, face),
          )
        )
          continue
        lines.push({ name: `${face.fullName}, ${script}`, path, sample, glyphs: ours(face.hash, sample) })
      }
    }
    const others = theirs(lines)
    expect(others).toHaveLength(lines.length)
    const compared = lines
      .map((line, at) => ({ ...line, other: others[at]! }))
      .filter(({ other }) => !/(^| )0@/.test(other))
    expect(compared.length).toBeGreaterThan(500)
    const wrong = compared.filter(({ glyphs, other }) => glyphs !== other)
    expect(
      wrong
        .slice(0, 5)
        .map(({ name, glyphs, other }) => `${name}:\n  ${glyphs}\n  ${other}`)
        .join('\n'),
    ).toBe('')
  }, 120_000)

  it('is the same where spans that look alike begin and end within words', () => {
    const random = numbersFrom(77)
    let compared = 0
    for (const { face } of shippedFaces()) {
      for (const [script, sample] of Object.entries(samples)) {
        if ((face.coverage[script as 'Latin'] ?? 0) < 40) continue
        const letters = [...sample.text]
        const pieces =
          random() < 0.5
            ? letters
            : letters.flatMap((_, at) => (at % 3 === 0 ? [letters.slice(at, at + 3).join('')] : []))
        const [whole, cut] = [setIn(face.hash, sample, [sample.text]), setIn(face.hash, sample, pieces)]
        expect([face.fullName, script, glyphsOf(cut, sample)]).toEqual([face.fullName, script, glyphsOf(whole, sample)])
        expect(cut.widthOf(0, sample.text.length)).toBeCloseTo(whole.widthOf(0, sample.text.length), 6)
        expect([face.fullName, textOf(cut)]).toEqual([face.fullName, sample.text])
        compared++
      }
    }
    expect(compared).toBeGreaterThan(500)
  }, 120_000)

  it('draws letters that are joined where the first of them stands, and each by itself where a line parts them', () => {
    const { face } = shippedFaces().find(each => each.face.fullName === 'Spectral Regular')!
    const sample = { text: 'office', language: 'en', rightToLeft: false }
    const set = setIn(face.hash, sample, ['of', 'f', 'i', 'ce'])
    const drawn = (segment: number, shown?: { start: number; end: number }) => {
      const { starts } = set.analysis
      return set
        .glyphsOf(segment, starts[segment]!, starts[segment + 1]!, 0, shown)
        .map(({ from, to, glyphs }) => [from, to, glyphs.count])
    }
    // f, f and i are one.
    expect([0, 1, 2, 3].map(segment => drawn(segment))).toEqual([[[0, 4, 2]], [], [], [[4, 6, 2]]])
    expect([drawn(0, { start: 0, end: 3 }), drawn(1, { start: 0, end: 3 })]).toEqual([[[0, 2, 2]], [[2, 3, 1]]])
    expect([drawn(2, { start: 3, end: 6 }), drawn(3, { start: 3, end: 6 })]).toEqual([[[3, 4, 1]], [[4, 6, 2]]])
  })

  it('is the same of words that need a second face for some of their letters and marks', () => {
    const bare = shippedFaces().find(({ face }) => face.family === 'Kalam')!.face
    for (const [text, rightToLeft] of [
      ['Łódź Vα\u0301lue xΩy', false],
      ['ו"עָנב" בקמץ', true],
    ] as const) {
      const sample = { text, language: rightToLeft ? 'he' : 'en', rightToLeft }
      const [whole, cut] = [setIn(bare.hash, sample, [text]), setIn(bare.hash, sample, [...text])]
      expect(glyphsOf(cut, sample)).toBe(glyphsOf(whole, sample))
      expect(cut.widthOf(0, text.length)).toBeCloseTo(whole.widthOf(0, text.length), 6)
    }
  })
})
