import { plainNumber } from '../style/describe'
import { colorOf, type House, type Setting } from './house'

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

/** What changed from one version of a house to another, in sentences: roles, colours, faces and limits. */
export function houseChanges(before: House | null, after: House): string[] {
  if (before === null) return ['The first version.']
  const sentences: string[] = []
  const words = (house: House, setting: Setting) => settingWords(house, setting) || 'open'
  for (const role of after.roles) {
    const old = before.roles.find(each => each.id === role.id)
    if (!old) sentences.push(`${role.title} is new.`)
    else
      for (const [medium, title] of [
        ['text', 'in texts'],
        ['deck', 'in decks'],
        ['sheet', 'on sheets'],
      ] as const)
        if (JSON.stringify(old[medium]) !== JSON.stringify(role[medium]))
          sentences.push(`${role.title} ${title}: ${words(before, old[medium])} becomes ${words(after, role[medium])}.`)
  }
  for (const role of before.roles)
    if (!after.roles.some(each => each.id === role.id)) sentences.push(`${role.title} is gone.`)
  for (const color of after.palette) {
    const old = before.palette.find(each => each.id === color.id)
    if (!old) sentences.push(`The colour ${color.title} is new.`)
    else if (old.color !== color.color) sentences.push(`${color.title} was ${old.color} and is ${color.color}.`)
  }
  for (const color of before.palette)
    if (colorOf(after, color.id) === null) sentences.push(`The colour ${color.title} is gone.`)
  for (const [what, title] of [
    ['faces', 'Faces that are allowed'],
    ['limits', 'Limits'],
    ['defaults', 'What new text begins with'],
    ['standIns', 'Stand-ins'],
    ['kerning', 'Pairs of letters'],
    ['room', 'The room'],
  ] as const)
    if (JSON.stringify(before[what]) !== JSON.stringify(after[what])) sentences.push(`${title} changed.`)
  return sentences.length === 0 ? ['Nothing that shows.'] : sentences
}
