import type { Style } from '../document/styles'
import type { Layer } from './layers'

/**
 * Families of named styles that say how text looks (ODF 1.4 part 3, 16.2): of paragraphs and of words, of placeholders
 * on slides, of frames and shapes, and of the cells of tables.
 */
export const styleFamilies = ['paragraph', 'text', 'presentation', 'graphic', 'table-cell'] as const
export type StyleFamily = (typeof styleFamilies)[number]

/** Families that text is given by itself, and that can be made, applied and folded. */
export const textFamilies = ['paragraph', 'text'] as const
export type TextFamily = (typeof textFamilies)[number]

export const isTextFamily = (family: StyleFamily): family is TextFamily => family === 'paragraph' || family === 'text'

/** Whether a style, however it is told, is one of a family that text is given by itself. */
export const isOfText = <T extends { readonly family: StyleFamily }>(each: T): each is T & { family: TextFamily } =>
  isTextFamily(each.family)

const names: Readonly<Record<StyleFamily, string>> = {
  paragraph: 'paragraph style',
  text: 'character style',
  presentation: 'placeholder style',
  graphic: 'frame style',
  'table-cell': 'cell style',
}
/** What a style of a family is called in sentences: “placeholder style”. */
export const familyName = (family: StyleFamily): string => names[family]
/** The same at the beginning of a title: “Placeholder style”. */
export const familyTitle = (family: StyleFamily): string => names[family].replace(/^./, first => first.toUpperCase())

/**
 * The named styles that speak for a whole paragraph, one of each sort of holder: its own, that of the frame it stands
 * in, that of its cell. `layers` are those of the paragraph's text.
 */
export function holdingStyles(layers: readonly Layer[]): Style[] {
  const innermost = (from: Layer['from'], holds: (style: Style) => boolean) =>
    layers.findLast(layer => !layer.local && layer.from === from && holds(layer.style))?.style
  const found = [
    innermost('paragraph', () => true),
    innermost('frame', style => style.family !== 'paragraph'),
    innermost('cell', () => true),
  ]
  return found.filter(each => each !== undefined)
}

/** The named style of a family that speaks for a whole paragraph; undefined for none. */
export const holdingStyle = (layers: readonly Layer[], family: Exclude<StyleFamily, 'text'>): Style | undefined =>
  holdingStyles(layers).find(each => each.family === family)
