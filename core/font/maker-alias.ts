/** What makers and formats put before or behind a name: it tells where the file came from, not which design it is. */
export const makers: ReadonlySet<string> = new Set(['adobe', 'linotype', 'monotype', 'bitstream', 'agfa', 'berthold', 'google', 'itc', 'urw', 'mt', 'lt', 'bt', 'ff', 'bq', 'be', 'ef', 'ht', 'fb', 'sb', 'dtl'])
export const formats: ReadonlySet<string> = new Set(['std', 'pro', 'com', 'ot', 'otf', 'ttf', 'tt', 'ps', 'opentype', 'truetype', 'web', 'webfont', 'vf', 'variable', 'wgl', 'wgl4', 'ce', 'cyr', 'greek', 'w1g', 'w2g', 'paneuropean', 'l', 'ui', 'nr', 'tf', 'osf', 'lf'])
