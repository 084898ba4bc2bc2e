import { plainNumber } from '../style/describe'
import type { House, Medium, Setting } from './house'

/** Size and leading in a printer’s way: “10.2 / 14.4”, “12 / 130 %”; '' where both are open. */
export function sizeWords({ size, leading }: Setting): string {
  const unit = leading ? { points: '', percent: ' %', own: ' % of its own' }[leading.unit] : ''
  const set = leading && `${plainNumber(leading.value)}${unit}`
  if (size === undefined) return set === undefined ? '' : `leading ${set}`
  return set === undefined ? plainNumber(size) : `${plainNumber(size)} / ${set}`
}

const weights: Readonly<Record<number, string>> = {
  100: 'thin',
  200: 'extra light',
  300: 'light',
  500: 'medium',
  600: 'semibold',
  700: 'bold',
  800: 'extra bold',
  900: 'black',
}

/** A setting in words, in the order in which a designer reads them. */
export function settingWords(house: House, setting: Setting): string {
  const { family, weight, italic, tracking, case: letters, color, before, after, align, hyphenate } = setting
  const named = house.palette.find(each => each.id === color)
  return [
    family,
    weight === undefined || weight === 400 ? undefined : (weights[weight] ?? `weight ${weight}`),
    italic ? 'italic' : undefined,
    sizeWords(setting) || undefined,
    tracking ? `tracked ${plainNumber(tracking)}` : undefined,
    letters === undefined || letters === 'none'
      ? undefined
      : letters === 'uppercase'
        ? 'capitals'
        : letters.replace('-caps', ' capitals'),
    named ? named.title : undefined,
    before ? `${plainNumber(before)} pt before` : undefined,
    after ? `${plainNumber(after)} pt after` : undefined,
    align === undefined || align === 'start'
      ? undefined
      : align === 'center'
        ? 'centred'
        : align === 'justify'
          ? 'justified'
          : 'set right',
    hyphenate ? 'hyphenated' : undefined,
  ]
    .filter(each => each !== undefined)
    .join(', ')
}

/** Where a setting applies, by medium. */
export const mediumPhrases = [
  ['text', 'in texts'],
  ['deck', 'in decks'],
  ['sheet', 'on sheets'],
] as const

/** Limits in words, those of one medium or of all. */
export function limitWords(limits: House['limits'], only?: Medium): string[] {
  const { smallest, families, contrast, deepestLevel, wordsPerSlide, measure } = limits
  const decks = only === undefined || only === 'deck'
  const sizes = mediumPhrases.filter(([medium]) => only === undefined || medium === only)
  return [
    ...sizes.map(([medium, phrase]) =>
      smallest[medium] === undefined
        ? ''
        : `smallest ${plainNumber(smallest[medium])} pt${only === undefined ? ` ${phrase}` : ''}`,
    ),
    families === undefined ? '' : families === 1 ? 'one family' : `${families} families at most`,
    contrast === undefined ? '' : `contrast ${plainNumber(contrast)} : 1`,
    deepestLevel === undefined || !decks ? '' : `${deepestLevel} levels`,
    wordsPerSlide === undefined || !decks ? '' : `${wordsPerSlide} words a slide`,
    measure === undefined ? '' : `${measure.least} to ${measure.most} letters a line`,
  ].filter(each => each !== '')
}
