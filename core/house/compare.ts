import { startKinds } from '../document/rules'
import { plainNumber } from '../style/describe'
import { kindTitles } from '../style/start-titles'
import { checksWords } from './checks'
import type { House, Setting } from './house'
import { limitWords, mediumPhrases, settingWords } from './setting-words'

/** In what two houses differ. */
export interface HouseDifference {
  readonly kind: 'role' | 'colour' | 'rest'
  /** “Body in texts”, “Night”, “Limits”. */
  readonly what: string
  /** As each house has it, in words; null where it has no such thing. */
  readonly one: string | null
  readonly other: string | null
}

const saysOf = (house: House, setting: Setting): string => settingWords(house, setting) || 'open'

/** Things of two lists by what they are: those of the first in its order, then what only the second has. */
function paired<T extends { readonly id: string }>(one: readonly T[], other: readonly T[]): [T | null, T | null][] {
  const find = (list: readonly T[], id: string) => list.find(each => each.id === id) ?? null
  return [
    ...one.map((each): [T, T | null] => [each, find(other, each.id)]),
    ...other.filter(each => !find(one, each.id)).map((each): [null, T] => [null, each]),
  ]
}

function roleDifferences(one: House, other: House): HouseDifference[] {
  return paired(one.roles, other.roles).flatMap(([role, match]): HouseDifference[] => {
    if (!role) return [{ kind: 'role', what: match!.title, one: null, other: saysOf(other, match!.text) }]
    if (!match) return [{ kind: 'role', what: role.title, one: saysOf(one, role.text), other: null }]
    const media = mediumPhrases
      .map(([medium, phrase]) => ({
        kind: 'role' as const,
        what: `${match.title} ${phrase}`,
        one: saysOf(one, role[medium]),
        other: saysOf(other, match[medium]),
        differs: JSON.stringify(role[medium]) !== JSON.stringify(match[medium]),
      }))
      .filter(each => each.differs)
      .map(({ differs: _, ...each }) => each)
    const levels = ({ levels: list }: typeof role, house: House) =>
      list.map((level, at) => `${at + 2}: ${saysOf(house, level)}`).join('; ') || 'open'
    return JSON.stringify(role.levels) === JSON.stringify(match.levels)
      ? media
      : [
          ...media,
          {
            kind: 'role',
            what: `${match.title} on deeper levels`,
            one: levels(role, one),
            other: levels(match, other),
          },
        ]
  })
}

function colorDifferences(one: House, other: House): HouseDifference[] {
  return paired(one.palette, other.palette)
    .filter(([color, match]) => color?.color !== match?.color)
    .map(([color, match]) => ({
      kind: 'colour',
      what: (match ?? color)!.title,
      one: color?.color ?? null,
      other: match?.color ?? null,
    }))
}

/** The other things that a house says, each in words. */
const rest: readonly (readonly [keyof House, string, (house: House) => string])[] = [
  ['faces', 'Faces that are allowed', ({ faces }) => faces.map(each => each.family).join(', ')],
  ['limits', 'Limits', ({ limits }) => limitWords(limits).join(', ')],
  [
    'defaults',
    'What new text begins with',
    ({ defaults, roles }) =>
      startKinds
        .flatMap(kind => {
          const role = defaults[kind]
          const title = roles.find(each => each.id === role)?.title ?? role
          return title === undefined ? [] : [`${kindTitles[kind].toLowerCase()} as ${title}`]
        })
        .join(', '),
  ],
  [
    'standIns',
    'Stand-ins',
    ({ standIns }) => standIns.map(each => `${each.to} for ${each.family || 'all that is absent'}`).join(', '),
  ],
  [
    'kerning',
    'Pairs of letters',
    ({ kerning }) => (kerning ?? []).map(each => `${each.left}${each.right} in ${each.family}`).join(', '),
  ],
  ['frames', 'Kept frames', ({ frames }) => frames.map(each => each.name).join(', ')],
  [
    'room',
    'The room',
    ({ room }) =>
      room ? `a screen ${plainNumber(room.screenHeight)} m high, ${plainNumber(room.lastRow)} m from the last row` : '',
  ],
  ['checks', 'Checks of a proof', ({ checks }) => (checks ? checksWords(checks) || 'all as usual' : '')],
]

/** In what two houses differ: roles, colours, then all else; nothing where they say the same. Names and notes do not count. */
export function compareHouses(one: House, other: House): HouseDifference[] {
  return [
    ...roleDifferences(one, other),
    ...colorDifferences(one, other),
    ...rest
      .filter(([member]) => JSON.stringify(one[member]) !== JSON.stringify(other[member]))
      .map(([, what, words]): HouseDifference => ({
        kind: 'rest',
        what,
        one: words(one) || 'open',
        other: words(other) || 'open',
      })),
  ]
}

/** What changed from one version of a house to another, in sentences. */
export function houseChanges(before: House | null, after: House): string[] {
  if (before === null) return ['The first version.']
  const sentences = compareHouses(before, after).map(({ kind, what, one, other }) => {
    const named = kind === 'colour' ? `The colour ${what}` : what
    if (one === null) return `${named} is new.`
    if (other === null) return `${named} is gone.`
    if (kind === 'colour') return `${what} was ${one} and is ${other}.`
    return kind === 'role' ? `${what}: ${one} becomes ${other}.` : `${what} changed.`
  })
  return sentences.length === 0 ? ['Nothing that shows.'] : sentences
}
