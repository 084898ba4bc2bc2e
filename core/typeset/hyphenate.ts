/// <reference path="./packages.d.ts" />
import createHyphenator from 'hyphen'
import de from 'hyphen/patterns/de-1996.js'
import enGb from 'hyphen/patterns/en-gb.js'
import enUs from 'hyphen/patterns/en-us.js'
import es from 'hyphen/patterns/es.js'
import fr from 'hyphen/patterns/fr.js'
import it from 'hyphen/patterns/it.js'
import nl from 'hyphen/patterns/nl.js'
import pl from 'hyphen/patterns/pl.js'
import pt from 'hyphen/patterns/pt.js'

const patterns: Readonly<Record<string, unknown>> = { 'de': de, 'en-GB': enGb, 'en': enUs, es, fr, it, nl, pl, pt }
const hyphenators = new Map<string, ((word: string) => string) | null>()

/** Languages whose words can be divided, as BCP 47 tags. */
export const hyphenatedLanguages: readonly string[] = Object.keys(patterns)

/**
 * Where a word may be divided, as UTF-16 offsets, after the patterns of Liang (1983) for its language; none for a
 * language without patterns.
 */
export function hyphenPoints(word: string, language: string): number[] {
  let hyphenate = hyphenators.get(language)
  if (hyphenate === undefined) {
    const found = patterns[language] ?? patterns[language.split('-')[0]!]
    hyphenate = found ? createHyphenator(found, { async: false, hyphenChar: '\u00AD', minWordLength: 5 }) : null
    hyphenators.set(language, hyphenate)
  }
  if (!hyphenate || word.includes('\u00AD')) return []
  const points: number[] = []
  let at = 0
  for (const character of hyphenate(word)) {
    if (character === '\u00AD') points.push(at)
    else at += character.length
  }
  return points
}
