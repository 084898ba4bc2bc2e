import type { XmlElement } from '../xml/tree'
import type { Properties, StyleScope } from '../document/styles'

/** How values become places along an axis, and where its ticks are. */
export interface Scale {
  readonly low: number
  readonly high: number
  readonly ticks: readonly number[]
  /** 0 at the axis's beginning, 1 at its end. */
  readonly at: (value: number) => number
}

const tickLimit = 60

/** A step of 1, 2 or 5 times a power of ten (Heckbert 1990, “Nice numbers for graph labels”, Graphics Gems). */
function niceStep(span: number, count: number): number {
  const rough = span / Math.max(count, 1)
  const power = 10 ** Math.floor(Math.log10(rough))
  const share = rough / power
  return (share <= 1 ? 1 : share <= 2 ? 2 : share <= 5 ? 5 : 10) * power
}

const number = (value: string | undefined): number | null => {
  const read = Number.parseFloat(value ?? '')
  return Number.isFinite(read) ? read : null
}

/**
 * The scale of an axis for some values. What its style says (chart:minimum, maximum, interval-major, logarithmic,
 * reverse-direction, ODF 1.4 part 3, 20.33 ff.) comes first; the rest is chosen so that ticks are round numbers.
 * @param count about how many ticks there is room for
 */
export function scaleFor(values: readonly number[], properties: Properties, count: number, fromZero: boolean): Scale {
  const finite = values.filter(Number.isFinite)
  const most = finite.reduce((found, value) => Math.max(found, value), -Infinity)
  const least = finite.reduce((found, value) => Math.min(found, value), Infinity)
  if (properties['chart:logarithmic'] === 'true' && least > 0)
    return turnedIf(
      properties,
      logarithmic(number(properties['chart:minimum']) ?? least, number(properties['chart:maximum']) ?? most),
    )
  const bottom =
    finite.length === 0 ? 0 : fromZero || (least > 0 && least < (most * 5) / 6) ? Math.min(least, 0) : least
  const top = finite.length === 0 ? 1 : fromZero ? Math.max(most, 0) : most
  const span =
    (number(properties['chart:maximum']) ?? top) - (number(properties['chart:minimum']) ?? bottom) || Math.abs(top) || 1
  const step = number(properties['chart:interval-major']) || niceStep(span, count)
  const low = number(properties['chart:minimum']) ?? Math.floor(bottom / step + 1e-9) * step
  let high = number(properties['chart:maximum']) ?? Math.ceil(top / step - 1e-9) * step
  if (high <= low) high = low + step
  const ticks: number[] = []
  for (let at = 0; at < tickLimit; at++) {
    const tick = low + at * step
    if (tick > high + step * 1e-6) break
    ticks.push(Math.abs(tick) < step * 1e-6 ? 0 : Number(tick.toPrecision(12)))
  }
  return turnedIf(properties, { low, high, ticks, at: value => (value - low) / (high - low) })
}

function logarithmic(least: number, most: number): Scale {
  const low = 10 ** Math.floor(Math.log10(least) + 1e-9)
  const high = Math.max(10 ** Math.ceil(Math.log10(most) - 1e-9), low * 10)
  const ticks: number[] = []
  for (let tick = low; tick <= high * 1.0001 && ticks.length < tickLimit; tick *= 10) ticks.push(tick)
  return { low, high, ticks, at: value => Math.log(Math.max(value, low) / low) / Math.log(high / low) }
}

function turnedIf(properties: Properties, scale: Scale): Scale {
  return properties['chart:reverse-direction'] === 'true' ? { ...scale, at: value => 1 - scale.at(value) } : scale
}

/**
 * A number as a chart's data style writes it (number:number-style and its kin, ODF 1.4 part 3, 16.29): decimal places,
 * grouping, percent, and text before and after. Without one it is written as short as it can be.
 */
export function writeNumber(value: number, scope: StyleScope, dataStyle: string | undefined): string {
  const style = dataStyle === undefined ? undefined : findDataStyle(scope, dataStyle)
  if (!style) return plain(value, null, false)
  const percentage = style.name === 'number:percentage-style'
  let text = ''
  for (const child of scope.part.elements(style)) {
    if (child.name === 'number:text' || child.name === 'number:currency-symbol') text += scope.part.textOf(child.id)
    else if (child.name === 'number:number') {
      const places = Number.parseInt(child.attributes['number:decimal-places'] ?? '', 10)
      text += plain(
        percentage ? value * 100 : value,
        Number.isFinite(places) ? Math.min(places, 12) : null,
        child.attributes['number:grouping'] === 'true',
      )
    } else if (child.name === 'number:scientific-number')
      text += value
        .toExponential(Math.min(Number.parseInt(child.attributes['number:decimal-places'] ?? '2', 10) || 0, 12))
        .toUpperCase()
  }
  return text === '' ? plain(value, null, false) : text
}

function findDataStyle(scope: StyleScope, name: string): XmlElement | undefined {
  for (const holder of ['office:automatic-styles', 'office:styles']) {
    const styles = scope.part.first(scope.part.rootElement, holder)
    for (const element of styles ? scope.part.elements(styles) : [])
      if (element.attributes['style:name'] === name && element.name.startsWith('number:')) return element
  }
  return undefined
}

function plain(value: number, places: number | null, grouped: boolean): string {
  return new Intl.NumberFormat('en-GB', {
    useGrouping: grouped,
    minimumFractionDigits: places ?? 0,
    maximumFractionDigits: places ?? 6,
  })
    .format(value)
    .replace('-', '\u2212')
}
