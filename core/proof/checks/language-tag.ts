import { scriptOfLanguage } from '../../font/suits'
import { emphasisName } from '../../change/styles/emphasis'
import { check, type Found, type Repair } from '../check'
import { knownLanguages, languageOf, speaks } from '../common-words'
import { inCharacterStyle, inStyle, styleSaying } from '../style-wish'
import { stretchOf, visibleCount, wholeOf, type ProofText, type Subject } from '../subject'

const scripts = ['Latin', 'Greek', 'Cyrillic', 'Hebrew', 'Arabic', 'Devanagari', 'Thai', 'Hangul'] as const

/** The script that most letters of a text are of; null where it is none of those known. */
function scriptOf(text: string): string | null {
  const counts = scripts
    .map(script => ({ script, count: [...text.matchAll(new RegExp(`\\p{Script=${script}}`, 'gu'))].length }))
    .sort((a, b) => b.count - a.count)
  const [first] = counts
  return first && first.count >= 8 && first.count > visibleCount(text) * 0.7 ? first.script : null
}

/** Letters that are not Latin: Greek and all that comes behind it, but for Latin’s own additions and signs. */
const beyondLatin = /[\u0370-\u1DFF\u2E80-\uD7FF\uF900-\uFDFF]/

const titles = new Intl.DisplayNames(['en-GB'], { type: 'language' })
/** What a language is called; files may hold tags that are none. */
function titleOf(tag: string): string {
  try {
    return titles.of(tag) ?? tag
  } catch {
    return tag
  }
}

const asSaid = (tag: string): { 'fo:language': string; 'fo:country': string } => {
  const [language, country = 'none'] = tag.split('-')
  return { 'fo:language': language!, 'fo:country': country }
}

/** Text in another language than its style says. */
const inLanguage = (subject: Subject, text: ProofText, tag: string): Repair =>
  inCharacterStyle(subject, stretchOf(text, 0, text.text.length), emphasisName(asSaid(tag)), asSaid(tag), {
    language: tag,
  })

/** Where no language is said, the style that the text goes by says it, unless words or a hand say that there is none. */
function sayLanguage(subject: Subject, text: ProofText, tag: string): Repair {
  const style = styleSaying(text, text.own.effective.layers, { attribute: 'fo:language', on: 'text' })
  return style?.family === 'paragraph' ? inStyle(style, { text: asSaid(tag) }) : inLanguage(subject, text, tag)
}

function judged(subject: Subject, text: ProofText): Omit<Found, 'at'> | null {
  const language = text.language.split('-')[0]!
  const guess = speaks(text.text, language) ? null : languageOf(text.text, language)
  if (language === '') {
    if (!guess?.clear)
      return (text.text.match(/\p{L}{2,}/gu) ?? []).length < 6
        ? null
        : { says: 'No language is said', severity: 'note' }
    // Where words say themselves that they are in no language, they mean it: their style says one.
    const own = text.own.effective.slots.western.language
    const repair = /^(none|zxx|)$/.test(own) ? { repair: sayLanguage(subject, text, guess.language) } : {}
    return { says: `No language is said; its words are ${titleOf(guess.language)}`, ...repair }
  }
  const own = scriptOfLanguage(text.language)
  // Nearly all text is in the script of its language: only what may not be is counted.
  const script = own === 'Latin' && !beyondLatin.test(text.text) ? 'Latin' : scriptOf(text.text.slice(0, 1_000))
  if (script !== null && own !== null && script !== own && !(script === 'Hangul'))
    return { says: `Tagged ${titleOf(language)}, written in ${script} letters` }
  if (
    guess?.clear &&
    guess.language !== language &&
    knownLanguages.includes(language) &&
    !areNear(guess.language, language)
  )
    return {
      says: `Tagged ${titleOf(language)}; its words are ${titleOf(guess.language)}`,
      repair: inLanguage(subject, text, guess.language),
    }
  return null
}

/** Languages whose commonest words are too alike to tell short texts apart. */
const areNear = (one: string, other: string) =>
  ['da', 'nb', 'nn', 'no'].includes(one) && ['da', 'nb', 'nn', 'no'].includes(other)

export const languageTag = check({
  id: 'language-tag',
  group: 'words',
  title: 'Language not said, or wrong',
  severity: 'warning',
  looksFor: 'Text without a language, or tagged with one that its letters or its commonest words are not of.',
  source: 'WCAG 2.2, 3.1.1 and 3.1.2; hyphenation and quotation marks go by it.',
  unseen:
    'Texts of fewer than eight words; languages that it has no words of; Danish and Norwegian are not told apart.',
  *find(subject: Subject): Generator<Found> {
    for (const text of subject.texts) {
      if (text.isCode) continue
      const found = judged(subject, text)
      if (found) yield { ...found, at: wholeOf(text) }
    }
  },
})
