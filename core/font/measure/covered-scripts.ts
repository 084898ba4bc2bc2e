/** Scripts whose coverage is counted, by their names in Unicode's Scripts.txt. */
export const coveredScripts = [
  'Latin',
  'Greek',
  'Cyrillic',
  'Hebrew',
  'Arabic',
  'Devanagari',
  'Thai',
  'Han',
  'Hiragana',
  'Katakana',
  'Hangul',
] as const
export type CoveredScript = (typeof coveredScripts)[number]
