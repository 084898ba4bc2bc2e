import { declarationAttributes, fontAttributes, type Slot } from './font-attributes'
import { parseFontFamilies, sameFamily, writeFontFamily } from './font-family'
import type { Draft } from './draft'
import type { Properties } from './styles'

/** A font as a form gives it: a family, with what helps a reader that lacks it. */
export interface FontWish {
  readonly family: string
  readonly generic?: string | undefined
  readonly pitch?: string | undefined
}

interface Declared {
  readonly name: string
  readonly family: string
  /** OpenType features behind a colon in the family's name: with others it is another font. */
  readonly features: string
  readonly attributes: Properties
}

function declarationsOf(draft: Draft): Declared[] {
  const { part } = draft
  const holder = part.first(part.rootElement, 'office:font-face-decls')
  return holder
    ? [...part.elements(holder, 'style:font-face')].map(element => ({
        name: element.attributes['style:name'] ?? '',
        ...namedBy(element.attributes),
        attributes: element.attributes,
      }))
    : []
}

function namedBy(attributes: Properties): { family: string; features: string } {
  const [first] = parseFontFamilies(attributes['svg:font-family'] ?? '')
  return { family: first?.name ?? attributes['style:name'] ?? '', features: first?.features ?? '' }
}

/** The name under which a part declares a font; it is declared now where it was not. */
export function declareFont(draft: Draft, wish: FontWish, attributes: Properties = {}): string {
  const known = declarationsOf(draft)
  const { features } = namedBy(attributes)
  const existing = known.find(
    each =>
      sameFamily(each.family, wish.family) &&
      each.features === features &&
      (attributes['style:font-charset'] ?? '') === (each.attributes['style:font-charset'] ?? ''),
  )
  if (existing) return existing.name
  let name = wish.family
  for (let number = 1; known.some(each => each.name === name); number++) name = `${wish.family}${number}`
  const more = Object.fromEntries(
    Object.entries(attributes).filter(([key]) => (declarationAttributes as readonly string[]).includes(key)),
  )
  const holder = draft.part.first(draft.part.rootElement, 'office:font-face-decls') ? undefined : draft.newIds(1)[0]!
  draft.do({
    type: 'declare-face',
    part: draft.path,
    id: draft.newIds(1)[0]!,
    ...(holder === undefined ? {} : { holder }),
    attributes: {
      ...more,
      'style:name': name,
      'svg:font-family': attributes['svg:font-family'] ?? writeFontFamily(wish.family),
      ...(wish.generic ? { 'style:font-family-generic': wish.generic } : {}),
      ...(wish.pitch ? { 'style:font-pitch': wish.pitch } : {}),
    },
  })
  return name
}

/**
 * Attributes that set the font of a slot to a family, and take everything away that said otherwise; with null all
 * of it goes.
 */
export function fontValues(draft: Draft, slot: Slot, wish: FontWish | null): Record<string, string | null> {
  const own = fontAttributes[slot]
  return {
    [own.family]: null,
    [own.styleName]: null,
    [own.generic]: null,
    [own.pitch]: null,
    [own.charset]: null,
    [own.name]: wish === null ? null : declareFont(draft, wish),
  }
}
