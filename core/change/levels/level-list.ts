import { points } from '../../document/lengths'
import type { Style } from '../../document/styles'
import { percent } from '../../style/properties'
import type { Reading } from '../../style/reading'
import type { Placeholder } from './wish'

/** A placeholder style of a deck: which master it belongs to, what it is for, and on which level. */
export interface LevelStyle {
  readonly style: Style
  /** What the names of the master's styles begin with. */
  readonly master: string
  readonly placeholder: Placeholder
  readonly level: number
}

/** How a placeholder is set now. Points; leading in points or in percent of the face's own, null where that holds. */
export interface ListedLevel {
  readonly master: string
  readonly placeholder: Placeholder
  readonly level: number
  readonly family: string
  readonly weight: number
  readonly italic: boolean
  readonly size: number
  readonly leading: { readonly value: number; readonly unit: 'points' | 'own' } | null
  readonly before: number
  readonly after: number
}

/** The placeholder styles of all masters, by their names (ODF 1.4 part 3, 16.40.2): title first, then level by level. */
export function levelStyles({ cascade }: Pick<Reading, 'cascade'>): LevelStyle[] {
  const scope = [...cascade.scopes.values()].at(-1)
  const found: LevelStyle[] = []
  for (const style of scope?.common.values() ?? []) {
    const match =
      style.family === 'presentation' ? /^(.+)-(title|subtitle|notes|outline([1-9]))$/.exec(style.name) : null
    if (!match) continue
    const [, master, what, level] = match as unknown as [string, string, string, string | undefined]
    found.push({
      style,
      master,
      placeholder: level === undefined ? (what as Placeholder) : 'outline',
      level: level === undefined ? 1 : Number(level),
    })
  }
  const order: readonly Placeholder[] = ['title', 'subtitle', 'outline', 'notes']
  return found.sort(
    (a, b) =>
      a.master.localeCompare(b.master) ||
      order.indexOf(a.placeholder) - order.indexOf(b.placeholder) ||
      a.level - b.level,
  )
}

/** All placeholders of a deck with how they are set. */
export function listLevels(reading: Reading): ListedLevel[] {
  return levelStyles(reading).map(({ style, master, placeholder, level }) => {
    const { effective } = reading.cascade.named(style.part, style.family, style.name)
    const { font, size, weight, posture } = effective.slots.western
    const properties = Object.assign({}, ...effective.layers.map(layer => layer.paragraph)) as Readonly<
      Record<string, string>
    >
    const stated = effective.leading['fo:line-height']
    const factor = percent(stated)
    const absolute = points(stated)
    const side = (name: string) => points(properties[`fo:margin-${name}`] ?? properties['fo:margin']) ?? 0
    return {
      master,
      placeholder,
      level,
      family: font.family,
      weight,
      italic: posture !== 'normal',
      size,
      leading:
        factor !== null
          ? { value: factor * 100, unit: 'own' }
          : absolute !== null
            ? { value: absolute, unit: 'points' }
            : null,
      before: side('top'),
      after: side('bottom'),
    }
  })
}
