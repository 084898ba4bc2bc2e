import type { Properties, StyleScope } from '../document/styles'
import { parseFontFamilies } from '../document/font-family'
import { fontAttributes } from '../document/font-attributes'
import { points } from '../document/lengths'
import { percent, slotAttributes, weightNumber } from './properties'

/** A number as people write it: at most two decimals. */
export const plainNumber = (value: number): string => String(Math.round(value * 100) / 100)

/** A length or percentage as people write it: “10.2 pt”, “120 %”. */
export function plainLength(value: string): string {
  const length = points(value)
  if (length !== null) return `${plainNumber(length)} pt`
  const share = percent(value)
  return share !== null ? `${plainNumber(share * 100)} %` : value
}

const weightNames: Readonly<Record<number, string>> = {
  100: 'thin',
  200: 'extra light',
  300: 'light',
  400: 'regular weight',
  500: 'medium',
  600: 'semibold',
  700: 'bold',
  800: 'extra bold',
  900: 'black',
}
const alignments: Readonly<Record<string, string>> = {
  start: 'set left',
  left: 'set left',
  end: 'set right',
  right: 'set right',
  center: 'centred',
  justify: 'justified',
}
const familyOf = (value: string, scope: StyleScope | null, named: boolean): string =>
  (named ? scope?.faces.get(value)?.families[0] : parseFontFamilies(value)[0]?.name) ?? value

/**
 * Values of a style in words, in the order in which a designer reads them; `scope` knows the declared faces. What has
 * no words of its own is left out.
 */
export function describeValues(text: Properties, paragraph: Properties, scope: StyleScope | null): string[] {
  const words: string[] = []
  const put = (value: string | undefined, say: (value: string) => string) => {
    if (value !== undefined) words.push(say(value))
  }
  const { western, asian, complex } = fontAttributes
  if (text[western.name] !== undefined || text[western.family] !== undefined)
    words.push(
      [
        text[western.name] === undefined
          ? familyOf(text[western.family]!, scope, false)
          : familyOf(text[western.name]!, scope, true),
        text[western.styleName],
      ]
        .filter(Boolean)
        .join(' '),
    )
  for (const [slot, name] of [
    [asian, 'asian text'],
    [complex, 'complex text'],
  ] as const) {
    const value = text[slot.name] ?? text[slot.family]
    if (value !== undefined) words.push(`${name} in ${familyOf(value, scope, text[slot.name] !== undefined)}`)
  }
  put(text['fo:font-size'], plainLength)
  put(text['style:font-size-rel'], value => `${plainLength(value)} more`)
  for (const slot of ['asian', 'complex'] as const) {
    const size = text[slotAttributes[slot].size]
    if (size !== undefined && size !== text['fo:font-size']) words.push(`${slot} text at ${plainLength(size)}`)
  }
  put(paragraph['fo:line-height'], value =>
    value === 'normal' ? 'leading of the face' : value === '100%' ? 'set solid' : `leading ${plainLength(value)}`,
  )
  put(paragraph['style:line-height-at-least'], value => `leading at least ${plainLength(value)}`)
  put(paragraph['style:line-spacing'], value => `${plainLength(value)} between lines`)
  put(text['fo:font-weight'], value => weightNames[weightNumber(value)] ?? `weight ${value}`)
  put(text['fo:font-style'], value => (value === 'normal' ? 'upright' : value))
  put(text['fo:font-variant'], value => (value === 'small-caps' ? 'small capitals' : 'no small capitals'))
  put(
    text['fo:text-transform'],
    value =>
      ({ uppercase: 'capitals', lowercase: 'lower case', capitalize: 'initial capitals' })[value] ?? 'case as written',
  )
  put(text['fo:letter-spacing'], value => (value === 'normal' ? 'not tracked' : `tracked ${plainLength(value)}`))
  put(text['style:letter-kerning'], value => (value === 'true' ? 'kerned' : 'not kerned'))
  put(text['style:text-scale'], value => `${plainLength(value)} wide`)
  put(text['fo:color'], value => value)
  put(text['fo:background-color'], value => (value === 'transparent' ? 'no background' : `on ${value}`))
  put(text['style:text-position'], value =>
    /^(super|[1-9])/.test(value) ? 'raised' : /^(sub|-)/.test(value) ? 'lowered' : 'on the baseline',
  )
  put(text['style:text-underline-style'], value => (value === 'none' ? 'not underlined' : 'underlined'))
  put(text['style:text-line-through-style'], value => (value === 'none' ? 'not struck through' : 'struck through'))
  put(text['style:text-outline'], value => (value === 'true' ? 'outlined' : 'not outlined'))
  put(text['fo:text-shadow'], value => (value === 'none' ? 'no shadow' : 'with a shadow'))
  put(text['fo:language'], value =>
    value === 'none'
      ? 'no language'
      : `language ${value}${text['fo:country'] && text['fo:country'] !== 'none' ? `-${text['fo:country']}` : ''}`,
  )
  for (const slot of ['asian', 'complex'] as const)
    put(text[slotAttributes[slot].language], value => `${slot} language ${value}`)
  put(text['fo:hyphenate'], value => (value === 'true' ? 'hyphenated' : 'not hyphenated'))
  put(text['text:display'], value => (value === 'true' ? 'shown' : 'hidden'))
  put(paragraph['fo:text-align'], value => alignments[value] ?? value)
  put(paragraph['fo:text-indent'], value =>
    points(value) === 0 ? 'no first-line indent' : `first line ${plainLength(value)}`,
  )
  put(paragraph['fo:margin-left'], value => `${plainLength(value)} from the left`)
  put(paragraph['fo:margin-right'], value => `${plainLength(value)} from the right`)
  put(paragraph['fo:margin-top'], value => (points(value) === 0 ? 'no space before' : `${plainLength(value)} before`))
  put(paragraph['fo:margin-bottom'], value => (points(value) === 0 ? 'no space after' : `${plainLength(value)} after`))
  put(paragraph['fo:keep-with-next'], value => (value === 'always' ? 'kept with the next' : 'not kept with the next'))
  put(paragraph['fo:keep-together'], value => (value === 'always' ? 'kept whole' : 'may be divided'))
  put(paragraph['fo:widows'], value => `widows ${value}`)
  put(paragraph['fo:orphans'], value => `orphans ${value}`)
  put(paragraph['fo:break-before'], value =>
    value === 'page' ? 'on a new page' : value === 'column' ? 'in a new column' : 'no break before',
  )
  return words
}

const heights: Readonly<Record<string, string>> = {
  top: 'at the top',
  middle: 'in the middle',
  bottom: 'at the bottom',
}

/** What a style says of the frame, shape or cell that holds text, in words: ground, line, padding, where text stands. */
export function describeHolder(holder: Properties): string[] {
  const words: string[] = []
  const fill = holder['draw:fill']
  const ground = holder['draw:fill-color'] ?? holder['fo:background-color']
  if (fill === 'none' || ground === 'transparent') words.push('no ground')
  else if (fill !== undefined && fill !== 'solid') words.push(`ground of a ${fill}`)
  else if (ground !== undefined) words.push(`ground ${ground}`)
  if (holder['draw:stroke'] === 'none') words.push('no line')
  else {
    const line = [holder['svg:stroke-width'], holder['svg:stroke-color']].filter(each => each !== undefined)
    if (line.length > 0) words.push(`line ${line.map(plainLength).join(' ')}`)
    else if (holder['fo:border'] !== undefined)
      words.push(holder['fo:border'] === 'none' ? 'no line' : `line ${holder['fo:border']}`)
  }
  if (holder['fo:padding'] !== undefined) words.push(`text ${plainLength(holder['fo:padding'])} off the edge`)
  const stands = heights[holder['draw:textarea-vertical-align'] ?? holder['style:vertical-align'] ?? '']
  if (stands !== undefined) words.push(`text ${stands}`)
  return words
}
