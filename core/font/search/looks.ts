import type { CatalogueEntry } from '../catalogue'
import { fitnessUses, type FitnessUse } from '../fitness'
import { licenceUses } from '../licence'
import { coveredScripts } from '../measure/covered-scripts'
import { typeClasses, typeKinds } from '../classify'

/** Something that can be asked of how a family looks or what it has. */
export interface Look {
  /** What it is called in answers. */
  readonly said: string
  /** Words that people use for it; the first is its key. */
  readonly words: readonly [string, ...string[]]
  /** How much a family is so: from a half on it counts as so, 1 is plainly so, up to 2 is for the order. */
  degree(entry: CatalogueEntry): number
}

/** A half at one value and 1 at another, and straight on; up to 2. They may fall, too. */
const about = (value: number | null, half: number, full: number): number =>
  value === null ? 0 : Math.max(0, Math.min(2, 0.5 + (value - half) / (full - half) / 2))
const so = (is: boolean): number => (is ? 1 : 0)

const m = (entry: CatalogueEntry) => entry.plain.measures
/** Width of o over the x-height: how a face runs, whatever its size. */
const run = (entry: CatalogueEntry) => {
  const { widthO, xHeight, averageWidth } = m(entry)
  return xHeight <= 0 ? null : widthO === null ? averageWidth / xHeight : widthO / xHeight
}
/** Stem over x-height: how dark a face is, whatever its size. */
const dark = (entry: CatalogueEntry) => (m(entry).xHeight > 0 ? m(entry).stem / m(entry).xHeight : null)
const circle = (entry: CatalogueEntry) => {
  const { roundness } = m(entry)
  return roundness === null ? null : Math.abs(roundness - 0.79)
}
const has = (entry: CatalogueEntry, ...features: readonly string[]) =>
  // What has to be switched on stands behind what text gets without asking.
  features.some(each => entry.plain.features.includes(each)) ? 0.8 : 0
const fitFor = (use: FitnessUse) => (entry: CatalogueEntry) => so(entry.fitness.find(each => each.use === use)!.fit)

const drawn: readonly Look[] = [
  {
    said: 'narrow',
    words: ['narrow', 'condensed', 'compressed', 'space-saving', 'space saving'],
    degree: e => about(run(e), 0.82, 0.68),
  },
  { said: 'wide', words: ['wide', 'extended', 'expanded', 'broad'], degree: e => about(run(e), 1, 1.12) },
  { said: 'light', words: ['light', 'thin', 'delicate', 'fine'], degree: e => about(dark(e), 0.145, 0.11) },
  {
    said: 'dark',
    words: ['dark', 'heavy', 'bold', 'fat', 'fat face', 'black', 'strong'],
    degree: e => about(dark(e), 0.195, 0.26),
  },
  {
    said: 'of high contrast',
    words: ['high contrast', 'contrasty', 'thick and thin', 'much contrast'],
    degree: e => about(m(e).contrast, 2.4, 3.6),
  },
  {
    said: 'of even strokes',
    words: ['low contrast', 'even', 'monoline', 'even strokes', 'little contrast'],
    degree: e => about(m(e).contrast, 1.45, 1.2),
  },
  {
    said: 'of large x-height',
    words: ['large x-height', 'high x-height', 'big x-height', 'tall x-height'],
    degree: e => about(m(e).xHeight, 505, 540),
  },
  { said: 'of small x-height', words: ['small x-height', 'low x-height'], degree: e => about(m(e).xHeight, 455, 420) },
  { said: 'open', words: ['open', 'open apertures', 'open aperture'], degree: e => about(m(e).aperture, 0.31, 0.37) },
  {
    said: 'closed',
    words: ['closed', 'closed apertures', 'closed aperture'],
    degree: e => about(m(e).aperture, 0.24, 0.18),
  },
  {
    said: 'round',
    words: ['round', 'circular', 'roundish'],
    degree: e => Math.min(about(circle(e), 0.018, 0.006), about(run(e), 0.93, 1)),
  },
  {
    said: 'squarish',
    words: ['square', 'squarish', 'boxy', 'squared'],
    degree: e => about(m(e).roundness, 0.845, 0.88),
  },
  {
    said: 'leaning',
    words: ['leaning', 'slanted', 'sloped', 'inclined'],
    degree: e => about(Math.abs(m(e).slant), 4, 10),
  },
  { said: 'upright', words: ['upright'], degree: e => about(Math.abs(m(e).slant), 4, 1) },
  {
    said: 'rough',
    words: ['rough', 'worn', 'torn', 'distressed', 'grungy', 'textured', 'ragged', 'sketchy', 'sketched'],
    degree: e => about(m(e).roughness, 1.8, 5),
  },
  { said: 'smooth', words: ['smooth', 'clean'], degree: e => about(m(e).roughness, 1, 0.3) },
  { said: 'joined', words: ['joined', 'connected', 'cursive', 'joined up'], degree: e => about(m(e).joined, 0.6, 0.9) },
  {
    said: 'uneven',
    words: ['uneven', 'dancing', 'bouncy', 'irregular', 'lively', 'wobbly'],
    degree: e => Math.max(about(m(e).jitter, 4, 12), about(m(e).waver, 0.06, 0.15)),
  },
  {
    said: 'stroke axis leans',
    words: ['leaning axis', 'oblique stress', 'diagonal stress', 'leaning stress'],
    degree: e => about(m(e).stress, 5, 12),
  },
  {
    said: 'stroke axis upright',
    words: ['vertical stress', 'upright stress', 'upright axis'],
    degree: e => (m(e).stress === null ? 0 : about(Math.abs(m(e).stress!), 4, 1)),
  },
  {
    said: 'of heavy serifs',
    words: ['heavy serifs', 'strong serifs', 'thick serifs'],
    degree: e => about(m(e).serif === null ? 0 : m(e).serif! / m(e).stem, 0.5, 0.7),
  },
  {
    said: 'of thin serifs',
    words: ['thin serifs', 'hairline serifs', 'fine serifs'],
    degree: e => (m(e).serif === null ? 0 : about(m(e).serif! / m(e).stem, 0.32, 0.2)),
  },
  {
    said: 'of bracketed serifs',
    words: ['bracketed serifs', 'bracketed'],
    degree: e => about(m(e).bracket, 0.15, 0.3),
  },
  {
    said: 'capitals alone',
    words: ['capitals', 'capitals only', 'caps', 'all caps', 'caps only', 'no lower case', 'no lowercase'],
    degree: e => about(m(e).smallCapitals, 0.6, 0.9),
  },
  {
    said: 'outlined, inlined or cut',
    words: ['inline', 'outline', 'outlined', 'stencil', 'shaded', 'decorated'],
    degree: e => about(m(e).extraContours, 0.5, 1),
  },
  {
    said: 'a of two storeys',
    words: ['two-storey a', 'double-storey a', 'two storey a', 'double storey a'],
    degree: e => so(m(e).storeysA === 2),
  },
  {
    said: 'a of one storey',
    words: ['single-storey a', 'one-storey a', 'single storey a', 'one storey a'],
    degree: e => so(m(e).storeysA === 1),
  },
  {
    said: 'g of two storeys',
    words: ['two-storey g', 'double-storey g', 'two storey g', 'double storey g', 'g with a loop'],
    degree: e => so(m(e).storeysG === 2),
  },
  {
    said: 'g of one storey',
    words: ['single-storey g', 'one-storey g', 'single storey g', 'one storey g'],
    degree: e => so(m(e).storeysG === 1),
  },
  {
    said: 'as by a brush',
    words: ['brush', 'brushed', 'marker', 'brush script'],
    degree: e =>
      e.classed.class === 'script' ? Math.min(about(m(e).contrast, 1.3, 1.7), about(m(e).stem, 60, 75)) : 0,
  },
  {
    said: 'handwritten',
    words: ['handwritten', 'handwriting', 'hand written', 'hand-lettered', 'by hand'],
    degree: e => so(e.classed.class === 'script'),
  },
]

const equipped: readonly Look[] = [
  {
    said: 'old-style figures',
    words: ['old-style figures', 'oldstyle figures', 'old style figures', 'text figures'],
    degree: e => Math.max(so(m(e).figures?.style === 'old-style'), has(e, 'onum')),
  },
  {
    said: 'lining figures',
    words: ['lining figures'],
    degree: e => Math.max(so(m(e).figures?.style === 'lining'), has(e, 'lnum')),
  },
  {
    said: 'figures of one width',
    words: ['tabular figures', 'tabular', 'figures of one width'],
    degree: e => Math.max(so(m(e).figures?.tabular === true), has(e, 'tnum')),
  },
  { said: 'small capitals', words: ['small capitals', 'small caps', 'smallcaps'], degree: e => has(e, 'smcp') },
  { said: 'ligatures', words: ['ligatures'], degree: e => has(e, 'liga', 'dlig') },
  { said: 'fractions', words: ['fractions'], degree: e => has(e, 'frac') },
  { said: 'swashes', words: ['swashes', 'swash'], degree: e => has(e, 'swsh', 'cswh') },
  {
    said: 'stylistic sets',
    words: ['stylistic sets', 'alternates'],
    degree: e => so(e.plain.features.some(tag => /^ss\d\d$|^salt$/.test(tag))),
  },
  { said: 'with italics', words: ['italic', 'italics', 'with italics', 'with italic'], degree: e => so(e.hasItalic) },
  {
    said: 'many weights',
    words: ['many weights', 'several weights', 'a range of weights'],
    degree: e => so(e.weights.length >= 4),
  },
  { said: 'variable', words: ['variable', 'axes'], degree: e => so(e.plain.axes.length > 0) },
  { said: 'free licence', words: ['free', 'open licence', 'open source', 'ofl'], degree: e => so(e.licence.open) },
]

const aliasesOfClass: Readonly<Record<string, readonly string[]>> = {
  serif: ['serifs', 'with serifs', 'roman', 'antiqua'],
  slab: ['slab serif', 'slabs', 'egyptian', 'slab-serif'],
  sans: ['sans serif', 'sans-serif', 'without serifs', 'no serifs'],
  script: ['scripts', 'hand'],
  monospaced: ['mono', 'monospace', 'fixed width', 'one width', 'typewriter', 'code'],
  display: ['decorative', 'headline face', 'poster'],
}
const hasSerifs = (asked: string, { classed }: CatalogueEntry) =>
  (asked === 'serif' && (classed.class === 'slab' || classed.kind === 'with serifs')) ||
  (asked === 'sans' && classed.kind === 'without serifs')
const classes: readonly Look[] = typeClasses.map(each => ({
  said: each,
  words: [each, ...(aliasesOfClass[each] ?? [])],
  // Slabs, and letters of one width that have serifs, are serifs, too, for whoever asks for serifs.
  degree: e => (e.classed.class === each ? 1 : hasSerifs(each, e) ? 0.6 : 0),
}))
const aliasesOfKind: Readonly<Record<string, readonly string[]>> = {
  'old-style': ['old style', 'oldstyle', 'garalde', 'humanist serif', 'venetian'],
  modern: ['didone', 'modern serif'],
  grotesque: ['grotesk', 'grotesques', 'neo-grotesque'],
}
const kinds: readonly Look[] = typeClasses.flatMap(each =>
  typeKinds[each]
    .filter(
      kind =>
        ![
          'fat',
          'joined',
          'brush',
          'rough',
          'condensed',
          'capitals',
          'bracketed',
          'unbracketed',
          'with serifs',
          'without serifs',
          'hand',
          'cut or lined',
          'fancy',
        ].includes(kind),
    )
    .map((kind): Look => ({
      said: kind,
      words: [kind, ...(aliasesOfKind[kind] ?? [])],
      degree: e => so(e.classed.kind === kind),
    })),
)
const scripts: readonly Look[] = coveredScripts.map(each => ({
  said: each,
  words: [each.toLowerCase()],
  degree: e => so(e.scripts.includes(each)),
}))
const aliasesOfUse: Readonly<Record<FitnessUse, readonly [string, ...string[]]>> = {
  'long reading': ['long reading', 'for reading', 'books', 'body text', 'body', 'text', 'running text', 'book'],
  'small print': ['small print', 'small sizes', 'captions', 'footnotes', 'caption'],
  'signs and slides': ['signs and slides', 'signs', 'slides', 'signage', 'presentations', 'screens'],
  display: ['fit for display', 'headlines', 'headings', 'titles', 'posters'],
  formal: ['formal', 'elegant', 'dignified', 'serious'],
  informal: ['informal', 'casual', 'friendly', 'playful', 'relaxed'],
}
const uses: readonly Look[] = fitnessUses.map(each => ({
  said: `fit for ${each}`.replace(/fit for (in)?formal/, '$1formal'),
  words: aliasesOfUse[each],
  degree: fitFor(each),
}))
const licences: readonly Look[] = licenceUses.map(each => ({
  said: `allowed for ${each}`,
  words: [`allowed for ${each.toLowerCase()}`, `licensed for ${each.toLowerCase()}`],
  degree: e => so(e.licence.uses.find(right => right.use === each)!.right === 'allowed'),
}))

/** All looks that a search understands; each word stands for one of them. */
export const looks: readonly Look[] = [...classes, ...kinds, ...drawn, ...equipped, ...scripts, ...uses, ...licences]
