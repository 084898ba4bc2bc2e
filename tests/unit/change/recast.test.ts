import { describe, expect, it } from 'vitest'
import { applyAll } from '../../../core/document/apply'
import { colorReferences, countColors } from '../../../core/document/color-references'
import { saveDocument } from '../../../core/document/open'
import { paragraphsOf } from '../../../core/document/stories'
import { matchText } from '../../../core/census/matching'
import type { RowKey } from '../../../core/change/plan'
import { criteriaLike, matchKey, newWords } from '../../../core/change/recast/plan-recast'
import { recastSchema, recastSentence, type RecastWish } from '../../../core/change/recast/wish'
import type { DocumentSession } from '../../../core/session'
import { paragraphRuns } from '../../../core/style/runs'
import { seasonReview } from '../../../demo/season-review'
import { sailingGuide } from '../../../demo/sailing-guide'
import { face, library, paragraphStyle, session, sessionOf, textStyle } from '../../support/fixtures'
import { planned, quickly } from '../../support/planning'
import { parts } from '../../support/independent'

const wish = (value: object): RecastWish => recastSchema.parse({ type: 'recast', ...value })
const recast = (of: DocumentSession, value: object, leftOut: readonly RowKey[] = []) =>
  planned(of, [{ type: 'recast', ...value }], leftOut)
const texts = (of: DocumentSession): string[] =>
  of.reading.stories.flatMap(story =>
    paragraphsOf(story.blocks).map(paragraph => paragraphRuns(paragraph, of.reading.cascade, story.role).text),
  )
const found = (of: DocumentSession, find: object): string[] =>
  matchText(of.reading, library, of.composition, wish({ find }).find).map(match => match.text)
const looks = (of: DocumentSession): Record<string, string> =>
  Object.fromEntries(
    of.reading.stories.flatMap(story =>
      paragraphsOf(story.blocks).flatMap(paragraph => {
        const { text, runs } = paragraphRuns(paragraph, of.reading.cascade, story.role)
        return runs.map((run): [string, string] => {
          const { slots, shared } = run.style.effective
          const own = slots[run.slot]
          return [
            text.slice(run.start, run.end),
            (
              `${own.font.family} ${own.size} ${own.weight}${own.posture === 'normal' ? '' : ' italic'} ` +
              `${shared['fo:color']} ${shared['fo:letter-spacing']}`
            ).trim(),
          ]
        })
      }),
    ),
  )

const p = (style: string, inside: string) => `<text:p text:style-name="${style}">${inside}</text:p>`
const span = (style: string, inside: string) => `<text:span text:style-name="${style}">${inside}</text:span>`
const make = (body: string) =>
  sessionOf({
    stylesFaces: face('Spectral') + face('Jost'),
    faces: face('Spectral') + face('Jost') + face('Brannock'),
    styles:
      `<style:default-style style:family="paragraph"><style:text-properties style:font-name="Spectral" ` +
      (`fo:font-size="10pt" fo:language="en" fo:country="GB"/></style:default-style>` +
        (`${paragraphStyle('Body')}${paragraphStyle('Head', 'fo:font-size="20pt" fo:color="#1f6f6b"')}` +
          `${textStyle('Strong', 'fo:font-weight="bold"')}`)),
    automatic:
      textStyle('T1', 'fo:font-size="9pt" fo:color="#b4361e"') +
      textStyle('T2', 'style:font-name="Brannock"') +
      textStyle('T3', 'fo:font-style="italic" fo:letter-spacing="0.5pt"') +
      textStyle('T4', 'fo:language="de" fo:country="DE"'),
    body,
  })
const plain = () =>
  make(
    p('Head', 'The ferry to Ossay') +
      p(
        'Body',
        `The ${span('T1', 'small ferry')} leaves at${span('T2', ' ')}seven; ${span('T3', 'ferries')} ` +
          `and ${span('Strong', 'more ferry')} come. ${span('T4', 'Die Fähre')}.`,
      ),
  )

describe('finding', () => {
  it('by words: plain, in one case, whole, or by an expression', () => {
    expect(found(plain(), { words: { text: 'ferry' } })).toEqual(['ferry', 'ferry', 'ferry'])
    expect(found(plain(), { words: { text: 'THE', matchCase: true } })).toEqual([])
    expect(found(plain(), { words: { text: 'ferr', wholeWords: true } })).toEqual([])
    expect(found(plain(), { words: { text: 'ferr(y|ies)', expression: true } })).toEqual([
      'ferry',
      'ferry',
      'ferries',
      'ferry',
    ])
    expect(found(plain(), { words: { text: 'a.c' } })).toEqual([])
  })
  it('by look: size, colour, face and its status, posture, tracking, weight, style, language, stray', () => {
    const by = (look: object) => found(plain(), { look })
    expect(by({ size: { most: 9 } })).toEqual(['small ferry'])
    expect(by({ size: { least: 15 } })).toEqual(['The ferry to Ossay'])
    expect(by({ color: '#B4361E' })).toEqual(['small ferry'])
    expect(by({ status: 'absent' })).toEqual([' '])
    expect(by({ family: 'brannock' })).toEqual([' '])
    expect(by({ italic: true })).toEqual(['ferries'])
    expect(by({ tracking: { least: 40, most: 60 } })).toEqual(['ferries'])
    expect(by({ weight: { least: 600 } })).toEqual(['more ferry'])
    expect(by({ characterStyle: 'Strong' })).toEqual(['more ferry'])
    expect(by({ paragraphStyle: 'Head' })).toEqual(['The ferry to Ossay'])
    expect(by({ role: 'heading' })).toEqual(['The ferry to Ossay'])
    expect(by({ language: 'de' })).toEqual(['Die Fähre'])
    expect(by({ stray: true })).toEqual(['small ferry', ' ', 'ferries', 'Die Fähre'])
    expect(by({ place: 'header' })).toEqual([])
  })
  it('by both: every letter must look so', () => {
    expect(found(plain(), { words: { text: 'ferry' }, look: { size: { most: 9 } } })).toEqual(['ferry'])
    expect(found(plain(), { words: { text: 'small ferry leaves' }, look: { size: { most: 9 } } })).toEqual([])
  })
  it('in a scope that is said: ranges, a text, pages', () => {
    const of = plain()
    const [head] = paragraphsOf(of.reading.stories[0]!.blocks)
    expect(
      found(of, {
        words: { text: 'ferry' },
        scope: { kind: 'ranges', ranges: [{ part: head!.part, node: head!.node, from: 0, to: 9 }] },
      }),
    ).toEqual(['ferry'])
    expect(
      found(of, {
        words: { text: 'ferry' },
        scope: { kind: 'ranges', ranges: [{ part: head!.part, node: head!.node, from: 0, to: 7 }] },
      }),
    ).toEqual([])
    expect(
      found(of, { words: { text: 'ferry' }, scope: { kind: 'story', part: head!.part, node: head!.node } }),
    ).toHaveLength(3)
    expect(found(of, { words: { text: 'ferry' }, scope: { kind: 'pages', from: 3, to: 5 } })).toEqual([])
  })
  it('takes a look from text, to begin with', () => {
    const of = plain()
    const [match] = matchText(of.reading, library, null, wish({ find: { words: { text: 'small' } } }).find)
    expect(criteriaLike(match!)).toEqual({
      family: 'Spectral',
      face: 'Regular',
      size: { least: 9, most: 9 },
      paragraphStyle: 'Body',
    })
  })
})

describe('changing', () => {
  it('lists the first four thousand places, and tells how many more change with them', () => {
    const { plan } = quickly(make(p('Body', 'ox yak '.repeat(10)).repeat(400) + p('Body', 'ox ox ox')), {
      type: 'recast',
      find: { words: { text: 'ox', wholeWords: true } },
      change: { words: 'elk' },
    })
    expect(plan.rows.filter(row => row.key.what === 'match')).toHaveLength(4_000)
    expect(plan.left.find(each => each.what === '3 more places')).toMatchObject({ count: 3 })
  })

  it('words, with what groups of an expression took, and never finds what it wrote', () => {
    const { plan, after } = recast(plain(), {
      find: { words: { text: '(f)erry', expression: true } },
      change: { words: 'super $1erry' },
    })
    expect(texts(after)[0]).toBe('The super ferry to Ossay')
    expect(texts(after)[1]).toContain('super ferry leaves')
    expect(plan).toMatchObject({ places: 3 })
    expect(plan.rows).toHaveLength(3)
    expect(plan.rows[0]).toMatchObject({ before: '“ferry” Spectral Regular 20', after: '“super ferry”' })
    expect(newWords('$$1 $2', { text: 'x', groups: ['x', 'a', null] })).toBe('$1 ')
  })
  it('words that touch, of two wishes: each writes its own; where they overlap, the first has them', () => {
    const of = make(p('Body', 'harbourmaster'))
    const write = (text: string, words: string) => ({ type: 'recast', find: { words: { text } }, change: { words } })
    const touching = planned(of, [write('harbour', 'Pier'), write('master', '-keeper')])
    expect(texts(touching.after)).toEqual(['Pier-keeper'])
    const overlapping = planned(of, [write('harbour', 'Pier'), write('rmaster', '-keeper')])
    expect(texts(overlapping.after)).toEqual(['Piermaster'])
    expect(overlapping.plan.rows.map(row => row.reason)).toContain('another wish writes these words')
  })

  it('look: what is left out is left alone', () => {
    const of = plain()
    const { after, plan } = recast(of, {
      find: { words: { text: 'ferr(y|ies)', expression: true } },
      change: { family: 'Jost', face: 'Bold', size: { percent: 150 }, color: '#564FA0', tracking: 20 },
    })
    const is = looks(after)
    expect(is['ferries']).toBe('Jost 15 700 #564fa0 0.3pt')
    expect(Object.entries(is).filter(([, look]) => look.startsWith('Jost')).length).toBe(2)
    expect(is['small ']).toBe('Spectral 9 400 #b4361e normal')
    expect(texts(after)).toEqual(texts(of))
    const applied = applyAll(of.document, plan.operations)
    expect(saveDocument(applyAll(applied.document, applied.inverse).document)).toEqual(saveDocument(of.document))
    expect(looks(session(saveDocument(after.document)))).toEqual(is)
  })
  it('style: paragraphs and words', () => {
    const { after } = recast(plain(), {
      find: { look: { paragraphStyle: 'Body', stray: true } },
      change: { settle: true },
    })
    expect(found(after, { look: { stray: true } })).toEqual([])
    const strong = recast(plain(), { find: { words: { text: 'seven' } }, change: { characterStyle: 'Strong' } }).after
    expect(looks(strong).seven).toContain('700')
    const head = recast(plain(), { find: { words: { text: 'seven' } }, change: { paragraphStyle: 'Head' } }).after
    expect(found(head, { look: { paragraphStyle: 'Head' } }).join('')).toContain('seven')
  })
  it('one lone space in an absent face goes, and the face with it', () => {
    const { after } = recast(plain(), {
      find: { look: { status: 'absent' } },
      change: { words: undefined, settle: true },
    })
    expect(after.detail.census.faces.some(each => each.status === 'absent')).toBe(false)
  })
  it('matches that are left out stay, and rows have the keys that leave them out', () => {
    const of = plain()
    const [first] = matchText(of.reading, library, null, wish({ find: { words: { text: 'ferry' } } }).find)
    const { after, plan } = recast(of, { find: { words: { text: 'ferry' } }, change: { words: 'boat' } }, [
      matchKey(0, first!),
    ])
    expect(texts(after)[0]).toBe('The ferry to Ossay')
    expect(texts(after)[1]).toContain('small boat')
    expect(plan.rows.map(row => row.included)).toEqual([false, true, true])
    expect(plan.places).toBe(2)
  })
  it('deletes text, keeps links and fields whole, and refuses what cannot be', () => {
    const of = make(p('Body', 'go <text:a xlink:href="https://example.org/">to the pier</text:a> now'))
    const { after } = recast(of, { find: { words: { text: 'the ' } }, change: { words: '' } })
    expect(texts(after)[0]).toBe('go to pier now')
    expect(saveDocument(after.document)).not.toEqual(saveDocument(of.document))
    expect(() => recast(of, { change: { words: 'x' } })).toThrow('New words need words')
    expect(() => recast(of, {})).toThrow('Say what shall be found')
    expect(() => recast(of, { find: { words: { text: '(', expression: true } }, change: { words: 'x' } })).toThrow(
      'cannot be read',
    )
    expect(() => recast(of, { find: { words: { text: 'go' } }, change: { family: 'Nowhere' } })).toThrow(
      'is not in the library',
    )
    expect(() => recast(of, { find: { words: { text: 'go' } }, change: { family: 'Jost', face: 'Wobbly' } })).toThrow(
      'has no face',
    )
  })
  it('an empty change finds alone', () => {
    const { plan } = recast(plain(), { find: { words: { text: 'ferry' } } })
    expect(plan.rows.filter(row => row.stage === 'match')).toHaveLength(3)
    expect(plan.operations).toEqual([])
  })
})

describe('colours', () => {
  it('one for another everywhere, two at once, and only where they are asked to', () => {
    const of = plain()
    const swapped = recast(of, {
      colors: [
        { from: '#1f6f6b', to: '#b4361e' },
        { from: '#b4361e', to: '#1F6F6B' },
      ],
    })
    const is = looks(swapped.after)
    expect(is['The ferry to Ossay']).toContain('#b4361e')
    expect(is['small ferry']).toContain('#1f6f6b')
    expect(swapped.plan.title).toContain('#1f6f6b becomes #b4361e')
    const only = recast(of, { colors: [{ from: '#1f6f6b', to: '#000000', kinds: ['fill'] }] })
    expect(only.plan.operations).toEqual([])
  })
  it('of a presentation: text, fills, page backgrounds, lines, charts', () => {
    const review = session(seasonReview())
    const before = countColors(colorReferences(review.document))
    const verdigris = before.find(each => each.color === '#1f6f6b')!
    expect(Object.keys(verdigris.kinds).length).toBeGreaterThanOrEqual(3)
    expect(before.find(each => each.color === '#1b2430')!.kinds.page).toBeGreaterThan(0)
    const { plan, after } = recast(review, {
      colors: [
        { from: '#1f6f6b', to: '#123456' },
        { from: '#1b2430', to: '#654321' },
      ],
    })
    const files = parts(saveDocument(after.document))
    for (const path of Object.keys(files).filter(each => each.endsWith('.xml') && /content|styles/.test(each)))
      expect(new TextDecoder().decode(files[path]!), path).not.toMatch(/#1f6f6b|#1b2430/i)
    expect(plan.rows.some(row => row.title.startsWith('Page backgrounds'))).toBe(true)
    expect(countColors(colorReferences(after.document)).find(each => each.color === '#123456')!.count).toBe(
      verdigris.count,
    )
  })
})

describe('the sentence', () => {
  it.each<[object, string]>([
    [
      { find: { words: { text: 'ferry' } }, change: { words: 'boat' } },
      'Find “ferry” in the whole document, and write “boat”.',
    ],
    [
      {
        find: { look: { family: 'Jost', size: { least: 9, most: 10 }, stray: true } },
        change: { size: { points: 10 }, italic: false },
      },
      'Find text set in Jost, at 9 to 10 pt, set by hand in the whole document, and set it at 10 pt, upright.',
    ],
    [
      {
        find: { words: { text: 'a+', expression: true }, scope: { kind: 'pages', from: 1, to: 2 } },
        change: { words: '' },
      },
      'Find what matches a+ on pages 2 to 3, and delete it.',
    ],
    [
      { find: { look: { status: 'absent' } } },
      'Find text set in an absent face in the whole document, and leave it as it is.',
    ],
    [
      { colors: [{ from: '#112233', to: '#445566', kinds: ['text', 'line'] }] },
      '#112233 becomes #445566 in text, lines.',
    ],
  ])('%j', (value, sentence) => {
    expect(recastSentence(wish(value))).toBe(sentence)
  })
})

describe('the demo', () => {
  it('a recast of a long text says what the pages then show', () => {
    const guide = session(sailingGuide())
    const { plan, after } = recast(guide, { find: { look: { role: 'body' } }, change: { size: { percent: 112 } } })
    expect(plan.effects!.pagesAfter).toBe(session(saveDocument(after.document)).composition.pages.length)
    expect(plan.effects!.linesAfter).toBeGreaterThan(plan.effects!.linesBefore)
    expect(
      recast(guide, { find: { words: { text: 'Ossay' } } }).plan.rows.filter(row => row.page! >= 0).length,
    ).toBeGreaterThan(3)
  })
})

describe('the door of a recast', () => {
  it('takes values to their limits and no further', () => {
    const takes = (change: object) =>
      recastSchema.safeParse({ type: 'recast', find: { words: { text: 'a' } }, change }).success
    for (const [change, good] of [
      [{ tracking: -500 }, true],
      [{ tracking: -501 }, false],
      [{ tracking: 2000 }, true],
      [{ tracking: 2001 }, false],
      [{ weight: 1 }, true],
      [{ weight: 0 }, false],
      [{ weight: 1000 }, true],
      [{ weight: 1001 }, false],
    ] as const)
      expect(takes(change), JSON.stringify(change)).toBe(good)
  })
})
