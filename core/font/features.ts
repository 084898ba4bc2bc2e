/** An OpenType feature that people switch: what it is called, and words that show it (OpenType 1.9, registered features). */
export interface ShownFeature {
  readonly tag: string
  readonly title: string
  /** Words in which it can be seen; '' where it may be seen in any. */
  readonly words: string
  /** It is on unless somebody switches it off. */
  readonly usual: boolean
}

const known: readonly (readonly [tag: string, title: string, words: string])[] = [
  ['liga', 'ligatures', 'office fluff, waffle, fjord'],
  ['calt', 'contextual forms', 'letters follow letters'],
  ['onum', 'old-style figures', '0123456789'],
  ['lnum', 'lining figures', '0123456789'],
  ['tnum', 'tabular figures', '11.10 and 47.85'],
  ['pnum', 'proportional figures', '11.10 and 47.85'],
  ['smcp', 'small capitals', 'Saltmere Line'],
  ['c2sc', 'small capitals from capitals', 'SALTMERE Line'],
  ['frac', 'fractions', '1/2 of 3/4, 7/8'],
  ['sups', 'superiors', 'note 12'],
  ['subs', 'inferiors', 'H2O and CO2'],
  ['dlig', 'rare ligatures', 'act, first, ship, Th'],
  ['hlig', 'historical ligatures', 'act, first, ship'],
  ['case', 'signs for capitals', '(QUAY) – ¿WHERE?'],
  ['zero', 'slashed zero', 'room 1000'],
  ['ordn', 'ordinals', '1a, 2o, 3o'],
  ['swsh', 'swashes', 'Quay, Kittiwake & Raven'],
  ['salt', 'alternates', 'Rag quay, Grey'],
  ['titl', 'titling capitals', 'SALTMERE'],
  ['unic', 'unicase', 'Saltmere Line'],
]
const usuallyOn = new Set(['liga', 'calt'])
const byTag = new Map(known.map(([tag, title, words]) => [tag, { tag, title, words, usual: usuallyOn.has(tag) }]))

/** A feature by its tag; null where it is none that people switch: kerning, marks and shaping of scripts work by themselves. */
export function shownFeature(tag: string): ShownFeature | null {
  const found = byTag.get(tag)
  if (found) return found
  const set = /^(ss|cv)(\d\d)$/.exec(tag)
  return set
    ? {
        tag,
        title: `${set[1] === 'ss' ? 'stylistic set' : 'character variant'} ${Number(set[2])}`,
        words: '',
        usual: false,
      }
    : null
}

/** Those of some tags that people switch, known ones first, then sets by number. */
export const shownFeatures = (tags: readonly string[]): ShownFeature[] => {
  const order = [...byTag.keys()]
  const place = ({ tag }: ShownFeature) => (byTag.has(tag) ? order.indexOf(tag) : 1000)
  return tags
    .map(shownFeature)
    .filter(each => each !== null)
    .sort((one, other) => place(one) - place(other) || (one.tag < other.tag ? -1 : 1))
}
