/**
 * Type properties: what the census calls a voice is made of these, and a stray is a local one of them.
 * Names and meanings: OpenDocument 1.4 part 3, section 20 (formatting attributes) and 16.29.29 (style:text-properties).
 */

import type { Slot } from '../document/font-attributes'

export interface SlotAttributes {
  readonly size: string
  readonly sizeRelative: string
  readonly weight: string
  readonly style: string
  readonly language: string
  readonly country: string
}

export const slotAttributes: Readonly<Record<Slot, SlotAttributes>> = {
  western: {
    size: 'fo:font-size',
    sizeRelative: 'style:font-size-rel',
    weight: 'fo:font-weight',
    style: 'fo:font-style',
    language: 'fo:language',
    country: 'fo:country',
  },
  asian: {
    size: 'style:font-size-asian',
    sizeRelative: 'style:font-size-rel-asian',
    weight: 'style:font-weight-asian',
    style: 'style:font-style-asian',
    language: 'style:language-asian',
    country: 'style:country-asian',
  },
  complex: {
    size: 'style:font-size-complex',
    sizeRelative: 'style:font-size-rel-complex',
    weight: 'style:font-weight-complex',
    style: 'style:font-style-complex',
    language: 'style:language-complex',
    country: 'style:country-complex',
  },
}

/** Type properties that all slots share, with what holds where nothing is said. */
export const sharedProperties = {
  'fo:color': '',
  'style:use-window-font-color': 'false',
  'fo:letter-spacing': 'normal',
  'fo:text-transform': 'none',
  'fo:font-variant': 'normal',
  'style:text-position': '',
  'style:text-scale': '100%',
  'style:letter-kerning': 'false',
  'fo:background-color': 'transparent',
  'style:text-underline-style': 'none',
  'style:text-underline-type': '',
  'style:text-underline-color': '',
  'style:text-underline-width': '',
  'style:text-line-through-style': 'none',
  'style:text-line-through-type': '',
  'style:text-outline': 'false',
  'fo:text-shadow': 'none',
  'fo:hyphenate': 'false',
  'text:display': 'true',
} as const
export type SharedProperty = keyof typeof sharedProperties
export const sharedNames = Object.keys(sharedProperties) as SharedProperty[]

/** Leading is a paragraph's, yet part of how its text looks. */
export const leadingProperties = [
  'fo:line-height',
  'style:line-height-at-least',
  'style:line-spacing',
  'style:font-independent-line-spacing',
] as const
export type LeadingProperty = (typeof leadingProperties)[number]

/** What holds where no leading is said (ODF 1.4 part 3, 20.197, 20.326, 20.327 and 20.283). */
export const initialLeading: Readonly<Record<LeadingProperty, string>> = {
  'fo:line-height': 'normal',
  'style:line-height-at-least': '0pt',
  'style:line-spacing': '0pt',
  'style:font-independent-line-spacing': 'false',
}

/** A percentage as a factor; null where it is none. */
export function percent(value: string | undefined): number | null {
  const match = /^\s*([+-]?(?:\d+\.?\d*|\.\d+))%\s*$/.exec(value ?? '')
  return match ? Number(match[1]) / 100 : null
}

/** A weight as fo:font-weight takes it. */
export const weightValue = (weight: number): string =>
  weight === 400 ? 'normal' : weight === 700 ? 'bold' : String(weight)

/** fo:font-weight as a number of CSS Fonts 4 section 2.2: normal is 400, bold 700. */
export function weightNumber(value: string | undefined): number {
  if (value === 'bold') return 700
  const number = Number.parseInt(value ?? '', 10)
  return number >= 1 && number <= 1000 ? number : 400
}
