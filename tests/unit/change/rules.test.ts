import { DOMParser } from '@xmldom/xmldom'
import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { openDocument, saveDocument } from '../../../core/document/open'
import { rulesPath, type LeadInRule, type PatternRule } from '../../../core/document/rules'
import { paragraphsOf } from '../../../core/document/stories'
import { makeEdit } from '../../../core/change/make-edits'
import { DocumentSession } from '../../../core/session'
import type { Wish } from '../../../core/change/registry'
import {
  leadInOf,
  matchesOf,
  matchGroups,
  patternParts,
  ruleMatches,
  wordListPattern,
} from '../../../core/style/rule-matching'
import { paragraphRuns, paragraphText } from '../../../core/style/runs'
import { writeElement } from '../../../core/xml/write'
import { paragraphStyle, session, sessionOf, textStyle, typesetter, type Fixture } from '../../support/fixtures'
import { quickly } from '../../support/planning'
import { parts } from '../../support/independent'
import { processorTime } from '../../support/processor-time'

const pattern = (more: Partial<PatternRule> = {}): PatternRule => ({
  id: 'a1',
  style: 'Body',
  title: 'Japanese',
  pattern: patternParts.find(part => part.title.startsWith('Japanese'))!.pattern,
  ignoreCase: false,
  character: 'Japanese',
  on: true,
  ...more,
})
const leadIn = (what: LeadInRule['what'], more: Partial<LeadInRule> = {}): LeadInRule => ({
  id: 'b1',
  style: 'Body',
  title: 'Opening',
  character: 'Opening',
  on: true,
  what,
  ...more,
})
const styles =
  paragraphStyle('Body', 'fo:font-family="Spectral" fo:font-size="10pt"') +
  paragraphStyle('Item', '', '', ' style:parent-style-name="Body"') +
  paragraphStyle('Other', 'fo:font-size="9pt"') +
  textStyle(
    'Japanese',
    'style:font-family-asian="Zen Kaku Gothic New" style:font-weight-asian="bold" style:font-size-asian="9pt" ' +
      'fo:color="#123456" style:language-asian="ja" style:country-asian="JP"',
  ) +
  textStyle('Opening', 'fo:font-weight="bold"') +
  textStyle('Hand', 'fo:color="#ff0000"')
const rules = (patterns: PatternRule[], leadIns: LeadInRule[] = [], style = 'Body'): Wish => ({
  type: 'rules',
  style,
  patterns,
  leadIns,
})
const withRules = (fixture: Fixture, ...wishes: Wish[]) => {
  const before = sessionOf({ styles, ...fixture })
  return { before, ...quickly(before, ...wishes) }
}
function body(of: DocumentSession): string[] {
  const part = of.document.parts.get('content.xml')!
  return of.reading.stories
    .filter(story => story.role === 'body')
    .flatMap(story => paragraphsOf(story.blocks))
    .map(each =>
      writeElement(part, each.node)
        .replaceAll('text:style-name="Rule_20_', 'r="')
        .replaceAll('text:style-name', 's')
        .replaceAll('text:span', 'span')
        .replace(/<(\/?)text:(p|h)/g, '<$1$2'),
    )
}
/** Every character with its look. */
const looks = (of: DocumentSession) =>
  of.reading.stories
    .flatMap(story => paragraphsOf(story.blocks))
    .map(paragraph => {
      const { text, runs } = paragraphRuns(paragraph, of.reading.cascade, 'body')
      return runs.flatMap(run =>
        [...text.slice(run.start, run.end)].map(character => {
          const { slots, shared } = run.style.effective
          const values = slots[run.slot]
          return `${character} ${values.font.family} ${values.size} ${values.weight} ${values.language} ${shared['fo:color']}`
        }),
      )
    })

describe('what rules take', () => {
  it('knows the parts to pick by their examples, and nothing else beside them', () => {
    for (const part of patternParts) expect(matchesOf(part.pattern, part.example).length, part.title).toBeGreaterThan(0)
    const take = (title: string, text: string) =>
      matchesOf(patternParts.find(part => part.title === title)!.pattern, text).map(({ from, to }) =>
        text.slice(from, to),
      )
    expect(
      take('Japanese text with its signs and figures', 'Welcome. 「ようこそ」大人1,200円、子供600円。 Fares below.'),
    ).toEqual(['「ようこそ」大人1,200円、子供600円。'])
    expect(take('Amounts of money', 'from £12.50 to 1,200円 or EUR 3')).toEqual(['£12.50', '1,200円'])
    expect(take('Times of day', '8.45, 13:30 and 25.10')).toEqual(['8.45', '13:30'])
    expect(take('Web addresses', 'see www.saltmere.example, and (https://tern.example/a).')).toEqual([
      'www.saltmere.example',
      'https://tern.example/a',
    ])
    expect(take('Figures', '1,250.50 and 3')).toEqual(['1,250.50', '3'])
    expect(
      matchesOf(wordListPattern(['Ossay', 'Great Ossay', 'a.b']), 'Great Ossay, Ossay, axb a.b').map(
        each => each.to - each.from,
      ),
    ).toEqual([11, 5, 3])
    expect(matchesOf('\\p{Script=Han}', '港x').length).toBe(1)
  })

  it('takes openings: letters, words, up to a sign, by pattern, of a line', () => {
    const take = (what: LeadInRule['what'], text: string, line: number | null = null) => {
      const found = leadInOf(leadIn(what), text, line)
      return found && text.slice(found.from, found.to)
    }
    expect(take({ kind: 'first-letter' }, '“Élan” it is')).toBe('“É')
    expect(take({ kind: 'words', count: 2 }, 'One  two three')).toBe('One  two')
    expect(take({ kind: 'words', count: 9 }, 'One two')).toBe('One two')
    expect(take({ kind: 'through', sign: ':' }, 'Fares: all')).toBe('Fares:')
    expect(take({ kind: 'through', sign: ':' }, 'none')).toBeNull()
    expect(take({ kind: 'pattern', pattern: '\\p{Lu}+' }, 'CREW only')).toBe('CREW')
    expect(take({ kind: 'pattern', pattern: '\\p{Lu}+' }, 'no CREW')).toBeNull()
    expect(take({ kind: 'first-line' }, 'One two three', 8)).toBe('One two')
    expect(take({ kind: 'first-line' }, 'One two three')).toBeNull()
  })

  it('gives text to the first rule that takes it, and is not hung by any pattern', () => {
    const list = [
      pattern({ id: 'x', pattern: 'b+' }),
      pattern({ id: 'y', pattern: '[a-z]+' }),
      pattern({ id: 'off', pattern: '.', on: false }),
      pattern({ id: 'bad', pattern: '(' }),
    ]
    expect(ruleMatches('abbc', list, [])).toEqual([
      { rule: 'y', from: 0, to: 1 },
      { rule: 'x', from: 1, to: 3 },
      { rule: 'y', from: 3, to: 4 },
    ])
    const taken = processorTime()
    expect(matchesOf('(a*)*(a|aa)+(a?){20}b', 'a'.repeat(5000))).toEqual([])
    expect(taken()).toBeLessThan(5000)
  })

  it('is no pattern that asks too much for each letter, which is said at once and each time', () => {
    const huge = '(.?){1000}(.?){1000}zzz'
    const taken = processorTime()
    for (let round = 0; round < 1000; round++)
      expect(() => matchesOf(huge, 'a'.repeat(60_000))).toThrow(/asks up to 8,005 questions, and 2,000 are the most/)
    expect(taken()).toBeLessThan(5000)
    // In a file’s own rules it takes nothing, and the others go on.
    const list = [pattern({ id: 'x', pattern: huge }), pattern({ id: 'y', pattern: '[a-z]+' })]
    expect(ruleMatches('abc', list, [])).toEqual([{ rule: 'y', from: 0, to: 3 }])
  })
})

describe('words that are looked for', () => {
  const found = (words: string, text: string, more: object = {}) =>
    matchGroups({ text: words, expression: false, matchCase: true, wholeWords: true, ...more }, text).map(
      ({ from, to }) => [from, to],
    )

  it('are whole where no letter stands before or behind them', () => {
    expect(found('a', 'a ba a, ab a')).toEqual([
      [0, 1],
      [5, 6],
      [11, 12],
    ])
    expect(found('at', 'cat at')).toEqual([[4, 6]])
    expect(found('at', 'at_ at1 atä at')).toEqual([[12, 14]])
    expect(found('at', 'cat at', { wholeWords: false })).toHaveLength(2)
  })

  it('are taken as they are written, signs of patterns too', () => {
    expect(found('a.b', 'a.b axb', { wholeWords: false })).toEqual([[0, 3]])
    expect(found('A.B', 'a.b axb', { wholeWords: false, matchCase: false })).toEqual([[0, 3]])
  })
})

describe('rules as spans', () => {
  const text = 'Welcome, 大人1,200円。 Fares'
  it('gives one language its face, weight, colour and tag, amounts and punctuation included', () => {
    const { after } = withRules(
      { body: `<text:p text:style-name="Item">${text}</text:p><text:p text:style-name="Other">港</text:p>` },
      rules([pattern()]),
    )
    expect(body(after)).toEqual([
      '<p s="Item">Welcome, <span r="a1">大人1,200円。</span> Fares</p>',
      '<p s="Other">港</p>',
    ])
    const [first] = looks(after)
    expect(first!.slice(9, 18).every(look => / Zen Kaku Gothic New 9 700 ja-JP #123456$/.test(look))).toBe(true)
    expect(first![8]).toBe('  Spectral 10 400  ')
    expect(after.reading.cascade.scope('styles.xml').common.get('text\nRule_20_a1')).toMatchObject({
      parentName: 'Japanese',
      displayName: 'Rule: Japanese',
    })
    const again = session(saveDocument(after.document))
    expect(looks(again)).toEqual(looks(after))
    expect(again.document.container.byPath.has(rulesPath)).toBe(true)
    expect(
      [...again.document.parts.get('META-INF/manifest.xml')!.descendants()].some(
        each => each.attributes['manifest:full-path'] === rulesPath,
      ),
    ).toBe(true)
  })

  it('is seen by a reader of another make as spans of a style that says it all', () => {
    const { after } = withRules({ body: `<text:p text:style-name="Body">${text}</text:p>` }, rules([pattern()]))
    const files = parts(saveDocument(after.document))
    const read = (path: string) => new DOMParser().parseFromString(new TextDecoder().decode(files[path]), 'text/xml')
    const span = read('content.xml').getElementsByTagName('text:span')[0]!
    expect([span.getAttribute('text:style-name'), span.textContent]).toEqual(['Rule_20_a1', '大人1,200円。'])
    const style = [...read('styles.xml').getElementsByTagName('style:style')].find(
      each => each.getAttribute('style:name') === 'Rule_20_a1',
    )!
    expect(style.getAttribute('style:parent-style-name')).toBe('Japanese')
    const properties = style.getElementsByTagName('style:text-properties')[0]!
    for (const name of ['fo:font-weight', 'style:font-weight-asian', 'style:font-weight-complex'])
      expect(properties.getAttribute(name)).toBe('bold')
    expect(properties.getAttribute('style:language-asian')).toBe('ja')
  })

  it('lets the hand win: around it where it lies inside, cut where it reaches beyond', () => {
    const { after } = withRules(
      {
        body:
          '<text:p text:style-name="Body">a港<text:span text:style-name="Hand">町</text:span>海b港<text:span ' +
          'text:style-name="Hand">町c</text:span></text:p>',
      },
      rules([pattern()]),
    )
    expect(body(after)).toEqual([
      '<p s="Body">a<span r="a1">港<span s="Hand">町</span>海</span>b<span r="a1">港</span><span s="Hand">町c</span></p>',
    ])
    expect(looks(after)[0]!.map(look => look.split(' ').at(-1))).toEqual([
      '',
      '#123456',
      '#ff0000',
      '#123456',
      '',
      '#123456',
      '#ff0000',
      '#ff0000',
    ])
    const apart = withRules(
      {
        body: '<text:p text:style-name="Body">港<text:span text:style-name="T1">町c</text:span></text:p>',
        automatic: textStyle('T1', 'fo:text-shadow="1pt 1pt"'),
      },
      rules([pattern()]),
    ).after
    expect(body(apart)).toEqual(['<p s="Body"><span r="a1">港</span><span s="T1"><span r="a1">町</span>c</span></p>'])
  })

  it('never crosses links, fields or notes', () => {
    const note =
      '<text:note text:note-class="footnote"><text:note-citation>1</text:note-citation>' +
      '<text:note-body><text:p>n</text:p></text:note-body></text:note>'
    const { after } = withRules(
      {
        body: `<text:p text:style-name="Body">ab<text:a xlink:href="u">cd</text:a>e${note}f<text:title>gh</text:title>i</text:p>`,
      },
      rules([pattern({ pattern: '[a-g]+|.' })]),
    )
    expect(body(after)[0]).toBe(
      `<p s="Body"><span r="a1">ab</span><text:a xlink:href="u"><span r="a1">cd</span>` +
        `</text:a><span r="a1">e</span>${note.replace('<text:p>', '<p>').replace('</text:p>', '</p>')}<span ` +
        `r="a1">f</span><text:title>gh</text:title><span r="a1">i</span></p>`,
    )
  })

  it('says in how many paragraphs it acts, and how much text these hold', () => {
    const paragraph = (inside: string, style = 'Body') => `<text:p text:style-name="${style}">${inside}</text:p>`
    const { plan, after } = withRules(
      {
        body:
          paragraph('大人 one') + paragraph('no word of it') + paragraph('子供', 'Item') + paragraph('大人', 'Other'),
      },
      rules([pattern()]),
    )
    const row = (of: typeof plan) => of.rows.find(each => each.key.what === 'spans of rules')
    expect(row(plan)).toMatchObject({ count: 2, characters: '大人 one'.length + '子供'.length })
    expect(row(plan)!.places).toHaveLength(2)
    // Where nothing would change, no row says so.
    expect(row(quickly(after, rules([pattern(), pattern({ id: 'z9', pattern: 'nowhere' })])).plan)).toBeUndefined()
  })

  it('gives text and values back when the rule goes', () => {
    const { before, after } = withRules(
      { body: `<text:p text:style-name="Body">${text}<text:span text:style-name="Hand">港</text:span></text:p>` },
      rules([pattern()]),
    )
    const { after: without, plan } = quickly(after, rules([]))
    expect(plan.title).toBe('Take the rules of Body away')
    expect(looks(without)).toEqual(looks(before))
    expect(body(without)).toEqual(body(before))
    expect(without.reading.cascade.scope('styles.xml').common.has('text\nRule_20_a1')).toBe(false)
    const all = applyAll(before.document, quickly(before, rules([pattern()])).plan.operations)
    expect(saveDocument(applyAll(all.document, all.inverse).document)).toEqual(saveDocument(before.document))
  })

  it('acts anew when the text is edited, in browser and server alike', () => {
    const { after } = withRules(
      { body: '<text:p text:style-name="Body">fare 12 or 港町 now</text:p>' },
      rules([pattern(), pattern({ id: 'c3', title: 'Figures', pattern: '\\p{Nd}+', character: 'Opening' })]),
    )
    const bytes = saveDocument(after.document)
    let local = openDocument(bytes)
    const [paragraph] = paragraphsOf(session(bytes).reading.stories[0]!.blocks)
    const steps = [
      { from: 6, to: 6, text: 'x3' },
      { from: 0, to: 0, text: '港' },
      { from: 1, to: 6, text: '' },
      { from: 3, to: 9, text: '' },
    ]
    const scopes = new DocumentSession(local, typesetter).reading.cascade.scopes
    const edits = steps.map(step => {
      const edit = { type: 'text' as const, part: 'content.xml', node: paragraph!.node, ...step }
      const firstId = local.parts.get('content.xml')!.nextId
      local = makeEdit(local, edit, firstId, scopes).document
      return { edit, firstId }
    })
    expect(body(new DocumentSession(local, typesetter))).toEqual([
      '<p s="Body"><span r="a1">港1</span>x<span r="a1">港町</span> now</p>',
    ])
    let remote = openDocument(bytes)
    for (const { edit, firstId } of edits) remote = makeEdit(remote, edit, firstId).document
    expect(saveDocument(remote)).toEqual(saveDocument(local))
    expect(remote.parts.get('content.xml')!.nextId).toBe(local.parts.get('content.xml')!.nextId)
  })

  it('follows its character style, refuses what cannot be run, and moves with a folded style', () => {
    const { after } = withRules({ body: `<text:p text:style-name="Body">${text}</text:p>` }, rules([pattern()]))
    const blue = quickly(after, {
      type: 'edit',
      family: 'text',
      name: 'Japanese',
      changes: { text: { 'style:font-size-asian': '8pt' } },
    }).after
    expect(looks(blue)[0]![9]).toMatch(/ 8 700 ja-JP/)
    expect(() => quickly(after, rules([pattern({ pattern: '(?<=a)b' })]))).toThrow(
      /“Japanese”: This pattern looks at what stands before/,
    )
    expect(() => quickly(after, rules([pattern({ pattern: '[a' })]))).toThrow(/cannot be read: missing closing \]/)
    expect(() => quickly(after, rules([pattern({ character: 'Gone' })]))).toThrow(/no character style “Gone”/)
    const folded = quickly(after, { type: 'fold', family: 'text', from: 'Japanese', to: 'Hand' }).after
    expect(folded.reading.cascade.rules.patterns).toMatchObject([{ character: 'Hand' }])
    expect(looks(folded)[0]![9]).toMatch(/#ff0000$/)
  })

  it('sets a first line, and looks again where that moves its end', () => {
    const words = 'harbour light morning ferry island '.repeat(8).trim()
    const { after } = withRules(
      { body: `<text:p text:style-name="Body">${words}</text:p>` },
      rules([], [leadIn({ kind: 'first-line' })]),
    )
    const span = /<span r="b1">([^<]*)<\/span>/.exec(body(after)[0]!)![1]!
    const [paragraph] = paragraphsOf(after.reading.stories[0]!.blocks)
    const line = after.composition.pages[0]!.fragments.flatMap(fragment =>
      fragment.kind === 'lines' && fragment.layout.paragraph.node === paragraph!.node
        ? [fragment.layout.lines[0]!]
        : [],
    )[0]!
    expect(span).toBe(paragraphText(paragraph!).slice(0, line.end).trimEnd())
  })
})
