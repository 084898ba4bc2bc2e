/**
 * The attributes that name a font, OpenDocument 1.4 part 3, section 20. They are the only attributes a swap may change
 * (with those of MathML and formula settings, see font-references.ts): the published list of docs/changing.md.
 */

/** The three font slots of section 20.182 ff.: which one a character takes is decided in slots.ts. */
export type Slot = 'western' | 'asian' | 'complex'
export const slots: readonly Slot[] = ['western', 'asian', 'complex']

/**
 * The parts of the compound that names a font, per slot. They change together: a name without its charset is
 * another font.
 */
export interface FontAttributes {
  readonly name: string
  readonly family: string
  readonly styleName: string
  readonly generic: string
  readonly pitch: string
  readonly charset: string
}

export const fontAttributes: Readonly<Record<Slot, FontAttributes>> = {
  western: {
    name: 'style:font-name',
    family: 'fo:font-family',
    styleName: 'style:font-style-name',
    generic: 'style:font-family-generic',
    pitch: 'style:font-pitch',
    charset: 'style:font-charset',
  },
  asian: {
    name: 'style:font-name-asian',
    family: 'style:font-family-asian',
    styleName: 'style:font-style-name-asian',
    generic: 'style:font-family-generic-asian',
    pitch: 'style:font-pitch-asian',
    charset: 'style:font-charset-asian',
  },
  complex: {
    name: 'style:font-name-complex',
    family: 'style:font-family-complex',
    styleName: 'style:font-style-name-complex',
    generic: 'style:font-family-generic-complex',
    pitch: 'style:font-pitch-complex',
    charset: 'style:font-charset-complex',
  },
}

/** Attributes of style:font-face (16.23) that say which font it is; they change together with its family. */
export const declarationAttributes = [
  'style:name',
  'svg:font-family',
  'style:font-adornments',
  'style:font-family-generic',
  'style:font-pitch',
  'style:font-charset',
  'svg:panose-1',
  'svg:font-style',
  'svg:font-variant',
  'svg:font-weight',
  'svg:font-stretch',
  'svg:font-size',
  'svg:unicode-range',
  'svg:units-per-em',
  'svg:stemv',
  'svg:stemh',
  'svg:slope',
  'svg:cap-height',
  'svg:x-height',
  'svg:accent-height',
  'svg:ascent',
  'svg:descent',
  'svg:widths',
  'svg:bbox',
  'svg:ideographic',
  'svg:alphabetic',
  'svg:mathematical',
  'svg:hanging',
  'svg:v-ideographic',
  'svg:v-alphabetic',
  'svg:v-mathematical',
  'svg:v-hanging',
  'svg:underline-position',
  'svg:underline-thickness',
  'svg:strikethrough-position',
  'svg:strikethrough-thickness',
  'svg:overline-position',
  'svg:overline-thickness',
] as const

/** Every attribute an operation may change to name another font, on any element but style:font-face. */
export const namingAttributes: ReadonlySet<string> = new Set([
  ...slots.flatMap(slot => Object.values(fontAttributes[slot])),
  'fontfamily',
  'math:fontfamily',
])
