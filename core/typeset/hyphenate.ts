/// <reference path="./packages.d.ts" />
import createHyphenator from 'hyphen'
import enGb from 'hyphen/patterns/en-gb.js'
import enUs from 'hyphen/patterns/en-us.js'

/** Patterns that are fetched when a document asks for their language: some are larger than all the rest of core. */
const loaders: Readonly<Record<string, () => Promise<{ default: unknown }>>> = {
  af: () => import('hyphen/patterns/af.js'),
  be: () => import('hyphen/patterns/be.js'),
  bg: () => import('hyphen/patterns/bg.js'),
  ca: () => import('hyphen/patterns/ca.js'),
  cs: () => import('hyphen/patterns/cs.js'),
  cy: () => import('hyphen/patterns/cy.js'),
  da: () => import('hyphen/patterns/da.js'),
  de: () => import('hyphen/patterns/de-1996.js'),
  'de-CH': () => import('hyphen/patterns/de-ch-1901.js'),
  el: () => import('hyphen/patterns/el-monoton.js'),
  es: () => import('hyphen/patterns/es.js'),
  et: () => import('hyphen/patterns/et.js'),
  eu: () => import('hyphen/patterns/eu.js'),
  fi: () => import('hyphen/patterns/fi.js'),
  fr: () => import('hyphen/patterns/fr.js'),
  ga: () => import('hyphen/patterns/ga.js'),
  gl: () => import('hyphen/patterns/gl.js'),
  hi: () => import('hyphen/patterns/hi.js'),
  hr: () => import('hyphen/patterns/hr.js'),
  hu: () => import('hyphen/patterns/hu.js'),
  hy: () => import('hyphen/patterns/hy.js'),
  id: () => import('hyphen/patterns/id.js'),
  is: () => import('hyphen/patterns/is.js'),
  it: () => import('hyphen/patterns/it.js'),
  ka: () => import('hyphen/patterns/ka.js'),
  la: () => import('hyphen/patterns/la.js'),
  lt: () => import('hyphen/patterns/lt.js'),
  lv: () => import('hyphen/patterns/lv.js'),
  mk: () => import('hyphen/patterns/mk.js'),
  nb: () => import('hyphen/patterns/nb.js'),
  nl: () => import('hyphen/patterns/nl.js'),
  nn: () => import('hyphen/patterns/nn.js'),
  no: () => import('hyphen/patterns/nb.js'),
  oc: () => import('hyphen/patterns/oc.js'),
  pl: () => import('hyphen/patterns/pl.js'),
  pt: () => import('hyphen/patterns/pt.js'),
  ro: () => import('hyphen/patterns/ro.js'),
  ru: () => import('hyphen/patterns/ru.js'),
  sk: () => import('hyphen/patterns/sk.js'),
  sl: () => import('hyphen/patterns/sl.js'),
  sr: () => import('hyphen/patterns/sr-cyrl.js'),
  sv: () => import('hyphen/patterns/sv.js'),
  tr: () => import('hyphen/patterns/tr.js'),
  uk: () => import('hyphen/patterns/uk.js'),
}

const patterns = new Map<string, unknown>([
  ['en', enUs],
  ['en-GB', enGb],
])
const hyphenators = new Map<string, ((word: string) => string) | null>()
const found = new Map<string, readonly number[]>()
/** Divided words are kept; when there are more than this, all are let go. */
const keptWords = 100_000

/** Languages whose words can be divided, as BCP 47 tags. */
export const hyphenatedLanguages: readonly string[] = [...patterns.keys(), ...Object.keys(loaders)].sort()

/**
 * Fetches what some languages need, so that their words can be divided afterwards. Languages without patterns are
 * passed over.
 */
export async function prepareHyphenation(languages: Iterable<string>): Promise<void> {
  for (const language of languages) {
    const key = [language, language.split('-')[0]!].find(each => patterns.has(each) || each in loaders)
    if (key === undefined || patterns.has(key)) continue
    patterns.set(key, (await loaders[key]!()).default)
    hyphenators.clear()
  }
}

/**
 * Where a word may be divided, as UTF-16 offsets, after the patterns of Liang (1983) for its language; none for a
 * language without patterns, or where the word has soft hyphens of its own.
 */
export function hyphenPoints(word: string, language: string): readonly number[] {
  let hyphenate = hyphenators.get(language)
  if (hyphenate === undefined) {
    const own = patterns.get(language) ?? patterns.get(language.split('-')[0]!)
    hyphenate = own ? createHyphenator(own, { async: false, hyphenChar: '\u00AD', minWordLength: 5 }) : null
    hyphenators.set(language, hyphenate)
  }
  if (!hyphenate || word.includes('\u00AD')) return []
  const key = `${language}\n${word}`
  const known = found.get(key)
  if (known) return known
  const points: number[] = []
  let at = 0
  for (const character of hyphenate(word)) {
    if (character === '\u00AD') points.push(at)
    else at += character.length
  }
  if (found.size >= keptWords) found.clear()
  found.set(key, points)
  return points
}
