import { describe, expect, it } from 'vitest'
import { paragraphsOf } from '../../../core/document/stories'
import { paragraphText } from '../../../core/style/runs'
import { paragraphStyle, textStyle } from '../../support/fixtures'
import { filler, foundBy, p, putRight, textOf } from './proofing'

/** A fault of words, what becomes of it, and words that nearly have it. */
interface Case {
  readonly check: string
  readonly language?: string
  readonly fault: string
  /** What it becomes; left out where nothing puts it right. */
  readonly right?: string
  readonly count?: number
  readonly near: readonly string[]
}

const nb = '\u00A0'
const thin = '\u202F'

const cases: readonly Case[] = [
  {
    check: 'straight-quote',
    fault: 'She said "wait".',
    right: 'She said “wait”.',
    count: 2,
    near: ['She said “wait”.', 'a plank of 6"', '5\' 11" tall'],
  },
  { check: 'straight-quote', fault: "the boat's bell", right: 'the boat’s bell', near: ['the boat’s bell'] },
  {
    check: 'straight-quote',
    language: 'de-DE',
    fault: 'Er rief "halt".',
    right: 'Er rief „halt“.',
    count: 2,
    near: ['Er rief „halt“.'],
  },
  {
    check: 'straight-quote',
    language: 'fr-FR',
    fault: 'Il dit "non".',
    right: `Il dit «${thin}non${thin}».`,
    count: 2,
    near: [`Il dit «${thin}non${thin}».`],
  },
  {
    check: 'foreign-quote',
    fault: 'She said „wait“ twice.',
    right: 'She said “wait” twice.',
    near: ['She said “wait” twice.', 'a « alone'],
  },
  {
    check: 'foreign-quote',
    language: 'de-DE',
    fault: 'Er rief “halt” laut.',
    right: 'Er rief „halt“ laut.',
    near: ['Er rief „halt“ laut.', 'Er rief »halt« laut.'],
  },
  {
    check: 'foreign-quote',
    language: 'sv-SE',
    fault: 'Hon sa “nej” igen.',
    right: 'Hon sa ”nej” igen.',
    near: ['Hon sa ”nej” igen.'],
  },
  {
    check: 'hyphen-for-dash',
    fault: 'the quay - the old one - is shut',
    right: 'the quay – the old one – is shut',
    count: 2,
    near: ['a well-kept quay', 'the quay – the old one'],
  },
  {
    check: 'hyphen-for-dash',
    fault: 'open 8-12 only',
    right: 'open 8–12 only',
    near: ['on 2026-11-29', 'call 555-0100-22', 'berth 12-3', 'part 04-12', 'B-12'],
  },
  { check: 'hyphen-for-dash', fault: 'the quay--the old one', right: 'the quay—the old one', near: ['--fresh'] },
  { check: 'spare-space', fault: 'one<text:s/> two', right: 'one two', near: ['one two'] },
  { check: 'spare-space', fault: 'one two<text:s/>', right: 'one two', near: ['one two'] },
  { check: 'spare-space', fault: '<text:s/>one two', right: 'one two', near: ['one two'] },
  { check: 'spare-space', fault: 'one , two', right: 'one, two', near: ['one, two', 'about .5 more'] },
  { check: 'layout-space', fault: 'one<text:s text:c="6"/>two', right: 'one two', near: ['one<text:s/> two'] },
  { check: 'layout-space', fault: '<text:tab/>one', right: 'one', near: ['one<text:tab/>two'] },
  {
    check: 'layout-space',
    fault: '<text:tab/><text:span text:style-name="U"> <text:s/>one</text:span>',
    right: 'one',
    near: ['one'],
  },
  { check: 'layout-space', fault: 'one<text:tab/><text:tab/>two', near: ['one<text:tab/>two'] },
  {
    check: 'no-break-space',
    fault: 'a sea mile is 1.852 km long',
    right: `a sea mile is 1.852${nb}km long`,
    near: [`1.852${nb}km`, 'in 12 kmh', 'berth 4 keeps'],
  },
  { check: 'no-break-space', fault: 'see p. 12', right: `see p.${nb}12`, near: [`see p.${nb}12`, 'up. Then'] },
  { check: 'no-break-space', language: 'fr-FR', fault: 'Quand ?', right: `Quand${thin}?`, near: [`Quand${thin}?`] },
  {
    check: 'no-break-space',
    language: 'cs-CZ',
    fault: 'lodi v přístavu',
    right: `lodi v${nb}přístavu`,
    near: [`lodi v${nb}přístavu`],
  },
  {
    check: 'no-break-space',
    language: 'de-DE',
    fault: 'Boote, z. B. Fähren',
    right: `Boote, z.${thin}B. Fähren`,
    near: ['Boote z.B. Fähren'],
  },
  {
    check: 'typed-capitals',
    fault: 'ALWAYS KEEP CLEAR of the ramp',
    right: 'Always keep clear of the ramp',
    near: ['NATO and the EU', 'Always keep clear', 'MSV-10'],
  },
  {
    check: 'language-tag',
    language: 'en-GB',
    fault: 'Das Boot legt um acht ab und ist nach einer Stunde wieder da, wenn der Wind nicht zu stark ist.',
    near: [filler, 'Ahoi, das Boot'],
  },
  {
    check: 'language-tag',
    language: 'none',
    fault: 'The boat leaves at eight and is back in an hour if the wind is not too strong for it.',
    near: ['Saltmere'],
  },
  {
    check: 'underlined',
    fault: '<text:span text:style-name="U">now</text:span> and then',
    near: ['<text:a xlink:href="https://saltmere.example"><text:span text:style-name="U">here</text:span></text:a>'],
  },
]

const document = (inside: string, language?: string) =>
  textOf(p(inside), {
    automatic: textStyle('U', 'style:text-underline-style="solid"'),
    ...(language === undefined ? {} : { language }),
  })
const words = (of: ReturnType<typeof textOf>) =>
  of.reading.stories.flatMap(story => paragraphsOf(story.blocks)).map(paragraphText)

describe('checks of words', () => {
  it.each(cases)('$check finds “$fault” ($language)', ({ check, language, fault, count = 1 }) => {
    expect(foundBy(check, document(fault, language)).length).toBe(count)
  })

  it.each(cases.flatMap(each => each.near.map(near => ({ ...each, near }))))(
    '$check leaves “$near” alone ($language)',
    ({ check, language, near }) => {
      expect(foundBy(check, document(near, language))).toEqual([])
    },
  )

  it.each(cases.filter(each => each.right !== undefined))(
    '$check puts “$fault” right ($language)',
    ({ check, language, fault, right }) => {
      const before = document(fault, language)
      const after = putRight(before, foundBy(check, before))
      expect(words(after)).toEqual([right])
      expect(foundBy(check, after)).toEqual([])
    },
  )

  it('capitals that were typed look as before when they are put right', () => {
    const before = document('ALWAYS KEEP CLEAR of the ramp')
    const after = putRight(before, foundBy('typed-capitals', before))
    const [first] = after.reading.stories.flatMap(story => paragraphsOf(story.blocks))
    const text = after.reading.cascade.text(first!, (first!.inlines[0] as { span: null }).span)
    expect(text.effective.shared['fo:text-transform']).toBe('uppercase')
  })

  it('a wrong language is put right on the text, and underlining becomes italics', () => {
    const german = document(cases.find(each => each.check === 'language-tag')!.fault)
    expect(foundBy('language-tag', putRight(german, foundBy('language-tag', german)))).toEqual([])
    const lined = document(cases.at(-1)!.fault)
    const after = putRight(lined, foundBy('underlined', lined))
    expect(foundBy('underlined', after)).toEqual([])
    expect(words(after)).toEqual(['now and then'])
  })

  it('words in fields are told and left: the document works them out', () => {
    const of = textOf(
      p('<text:placeholder text:placeholder-type="text">the boat\'s name</text:placeholder> isn\'t here'),
    )
    expect(foundBy('straight-quote', of).map(each => each.repair !== null)).toEqual([false, true])
  })

  it('a wrong language is put right in a character style: no hand is left behind that settling would undo', () => {
    const german = document(cases.find(each => each.check === 'language-tag')!.fault)
    const after = putRight(german, foundBy('language-tag', german))
    expect(foundBy('stray', after)).toEqual([])
    const made = [...after.reading.cascade.scope('content.xml').common.values()].filter(each => each.family === 'text')
    expect(made.map(each => [each.displayName, each.text])).toEqual([
      ['Language de', { 'fo:language': 'de', 'fo:country': 'none' }],
    ])
    // Another text takes the same; where a style of that name says something else, it is set by hand.
    const again = putRight(german, foundBy('language-tag', german))
    expect(foundBy('language-tag', again)).toEqual([])
    const taken = textOf(p(cases.find(each => each.check === 'language-tag')!.fault), {
      styles: textStyle('Language_20_de', 'fo:font-weight="bold"', ' style:display-name="Language de"'),
    })
    expect(foundBy('language-tag', taken)[0]!.repair).toMatchObject({ looks: [{ change: { language: 'de' } }] })
  })

  it('the language of a text is that of most of it, and said by its style where none is', () => {
    const first =
      '<text:span text:style-name="Z">WIDEn-N</text:span> is what the boat keeps to if the wind is not too strong'
    const zone = textStyle('Z', 'fo:language="zxx" fo:country="none"')
    expect(foundBy('language-tag', textOf(p(first), { automatic: zone }))).toEqual([])
    const unsaid = document(cases.findLast(each => each.check === 'language-tag')!.fault, 'none')
    const [found] = foundBy('language-tag', unsaid)
    expect(found!.repair!.wishes).toMatchObject([{ type: 'edit', family: 'paragraph', name: 'Standard' }])
    expect(foundBy('language-tag', putRight(unsaid, [found!]))).toEqual([])
  })

  it('a line under words goes from the style that says it: italics for words, nothing else for paragraphs', () => {
    const line = 'style:text-underline-style="solid"'
    const styles = textStyle('Term', line) + paragraphStyle('Lined', line, '', ' style:parent-style-name="Standard"')
    const before = textOf(p('<text:span text:style-name="Term">now</text:span> and then') + p('Fares', 'Lined'), {
      styles,
    })
    const after = putRight(before, foundBy('underlined', before))
    expect(foundBy('underlined', after)).toEqual([])
    expect(foundBy('stray', after)).toEqual([])
    const style = (family: string, name: string) =>
      after.reading.cascade.scope('content.xml').common.get(`${family}\n${name}`)!.text
    expect(style('text', 'Term')).toMatchObject({ 'fo:font-style': 'italic', 'style:text-underline-style': 'none' })
    expect(style('paragraph', 'Lined')['fo:font-style']).toBeUndefined()
  })

  it('leaves text in a face of one width alone: it may be code', () => {
    const code = textOf(p('print("hello  world")', 'Code'), {
      faces: '<style:font-face style:name="Mono" svg:font-family="Courier Prime" style:font-pitch="fixed"/>',
      automatic:
        '<style:style style:name="Code" style:family="paragraph" style:parent-style-name="Standard">' +
        '<style:text-properties style:font-name="Mono"/></style:style>',
    })
    for (const check of ['straight-quote', 'spare-space', 'hyphen-for-dash', 'layout-space'])
      expect(foundBy(check, code)).toEqual([])
  })

  it('double returns go, but for those that a page begins with', () => {
    const before = textOf(`${p('one')}${p('')}${p('')}${p('two')}`)
    const found = foundBy('empty-paragraph', before)
    expect(found.length).toBe(2)
    expect(words(putRight(before, found))).toEqual(['one', 'two'])
    const breaks = textOf(`${p('one')}${p('', 'Break')}${p('two')}`, {
      automatic:
        '<style:style style:name="Break" style:family="paragraph" style:parent-style-name="Standard">' +
        '<style:paragraph-properties fo:break-before="page"/></style:style>',
    })
    expect(foundBy('empty-paragraph', breaks)).toEqual([])
  })
})
