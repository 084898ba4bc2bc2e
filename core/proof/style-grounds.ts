import { contrast } from '../colour/contrast'
import type { Layer } from '../style/layers'
import type { DocumentSession } from '../session'
import { groundsByRun, type OnGround } from './grounds'
import { Subject } from './subject'

/** What text stands on that takes its colour from a style, or would if the style had one. */
export interface StyleGround {
  readonly on: OnGround['on']
  /** Of one colour that; of pictures and gradients the darkest and the lightest. */
  readonly grounds: readonly string[]
  /** The smallest text on it: its size in points, and its weight. */
  readonly size: number
  readonly weight: number
  readonly characters: number
  /** The first page, from 0. */
  readonly page: number
}

/** Whether text takes its colour from a named style: nothing behind the style says one. */
function colorFrom(layers: readonly Layer[], family: string, name: string): boolean {
  const at = layers.findLastIndex(({ style }) => style.family === family && style.name === name)
  return at >= 0 && layers.slice(at + 1).every(({ text }) => text['fo:color'] === undefined)
}

/** What text of a named style stands on, where it takes its colour from it: the commonest first. */
export function styleGrounds(session: DocumentSession, family: string, name: string): StyleGround[] {
  const found = new Map<string, StyleGround>()
  for (const each of groundsByRun(new Subject(session))) {
    if (!each.extremes || !colorFrom(each.layers, family, name)) continue
    const grounds = [...new Set(each.extremes)]
    const key = JSON.stringify([each.on, grounds])
    const known = found.get(key)
    const characters = each.to - each.from
    const smaller = known === undefined || each.size < known.size
    found.set(key, {
      on: each.on,
      grounds,
      size: smaller ? each.size : known.size,
      weight: smaller ? each.weight : known.weight,
      characters: (known?.characters ?? 0) + characters,
      page: Math.min(known?.page ?? each.text.page, each.text.page),
    })
  }
  return [...found.values()].sort((one, other) => other.characters - one.characters)
}

/** The ground on which a colour has least contrast, and how much; null where there is none. Colours are “#rrggbb”. */
export function worstGround(
  color: string,
  grounds: readonly StyleGround[],
): { readonly ratio: number; readonly on: string; readonly ground: StyleGround } | null {
  const all = grounds.flatMap(ground => ground.grounds.map(on => ({ ratio: contrast(color, on), on, ground })))
  return all.length === 0 ? null : all.reduce((worst, each) => (each.ratio < worst.ratio ? each : worst))
}
