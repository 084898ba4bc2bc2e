/**
 * Names under which real files ask for fonts, and what here has the same widths or is the same design. Only what files
 * need: a face in a metric-compatible group breaks lines as the one it stands for does;
 * how high they are may differ, which is said wherever it shows text.
 */
export interface AliasGroup {
  readonly kind: 'metric-compatible' | 'same design'
  readonly names: readonly string[]
  /** The library's family. */
  readonly family: string
}

/** Spaces and hyphens are where spellings of one name differ most. */
export const spellingKey = (name: string): string =>
  name
    .normalize('NFC')
    .toLowerCase()
    .replace(/[\s_-]+/g, '')

export const aliasGroups: readonly AliasGroup[] = [
  {
    kind: 'metric-compatible',
    family: 'Liberation Sans',
    names: [
      'Arial',
      'Helvetica',
      'Nimbus Sans',
      'Nimbus Sans L',
      'Arimo',
      'FreeSans',
      'TeX Gyre Heros',
      'ArialMT',
      'Albany',
      'Albany AMT',
    ],
  },
  {
    kind: 'metric-compatible',
    family: 'Liberation Serif',
    names: [
      'Times New Roman',
      'Times',
      'Nimbus Roman',
      'Nimbus Roman No9 L',
      'Tinos',
      'FreeSerif',
      'TeX Gyre Termes',
      'Thorndale',
      'Thorndale AMT',
      'TimesNewRomanPSMT',
    ],
  },
  {
    kind: 'metric-compatible',
    family: 'Liberation Mono',
    names: [
      'Courier New',
      'Courier',
      'Nimbus Mono',
      'Nimbus Mono L',
      'Nimbus Mono PS',
      'Cousine',
      'FreeMono',
      'TeX Gyre Cursor',
      'Cumberland',
      'Cumberland AMT',
    ],
  },
  {
    kind: 'metric-compatible',
    family: 'Liberation Sans Narrow',
    names: ['Arial Narrow', 'Helvetica Narrow', 'Nimbus Sans Narrow'],
  },
  { kind: 'metric-compatible', family: 'Carlito', names: ['Calibri'] },
  { kind: 'metric-compatible', family: 'Caladea', names: ['Cambria'] },
  { kind: 'same design', family: 'DejaVu Sans', names: ['Bitstream Vera Sans'] },
  { kind: 'same design', family: 'DejaVu Serif', names: ['Bitstream Vera Serif'] },
  { kind: 'same design', family: 'DejaVu Sans Mono', names: ['Bitstream Vera Sans Mono'] },
]
