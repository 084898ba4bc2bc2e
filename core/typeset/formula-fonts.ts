import { parseFontFamilies } from '../document/font-family'
import { requestOf } from '../font/library'
import type { XmlPart } from '../xml/tree'
import type { Look, Typesetter } from './look'

/** What a sign of a formula is: it decides which of the formula's faces shows it. */
export type TokenKind = 'variable' | 'function' | 'number' | 'text' | 'operator'

/** The faces of a formula. */
export interface FormulaFonts {
  /** In points. */
  readonly size: number
  readonly look: (
    typesetter: Typesetter,
    kind: TokenKind,
    how: { readonly size: number; readonly color: string; readonly variant: string; readonly family: string },
  ) => Look
}

/** In points, where the settings say none. */
const usualSize = 12
const settingOf: Readonly<Record<TokenKind, string>> = {
  variable: 'Variables',
  function: 'Functions',
  number: 'Numbers',
  text: 'Text',
  operator: 'Variables',
}

/**
 * Which faces a formula is set in: those of its settings, by kinds of signs; where they say nothing, that of the text.
 * What markup says of itself (family, variant) goes first. Variables of one letter slant, as MathML has it for mi.
 */
export function readFormulaFonts(settings: XmlPart | null, base: Look): FormulaFonts {
  const values = new Map<string, string>()
  for (const element of settings?.descendants() ?? []) {
    const name = element.attributes['config:name']
    if (element.name === 'config:config-item' && name) values.set(name, settings!.textOf(element.id).trim())
  }
  const stated = Number(values.get('BaseFontHeight') ?? '')
  return {
    size: stated > 0 && stated < 1000 ? stated : usualSize,
    look(typesetter, kind, { size, color, variant, family }) {
      const own = family || (values.get(`FontName${settingOf[kind]}`) ?? '')
      const italic = variant === '' ? kind === 'variable' : /italic/.test(variant)
      const weight = /bold/.test(variant) ? 700 : 400
      return typesetter.inFace(
        base,
        requestOf(parseFontFamilies(own)[0]?.name ?? base.face.family, weight, italic),
        size,
        color,
      )
    },
  }
}
