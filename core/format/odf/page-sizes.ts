/** A size of page by its name: width and height in millimetres, upright. */
export interface PageSize {
  readonly name: string
  readonly width: number
  readonly height: number
  readonly source: string
}

/** Sizes of the standards and of the trade. */
export const pageSizes: readonly PageSize[] = [
  { name: 'A3', width: 297, height: 420, source: 'ISO 216' },
  { name: 'A4', width: 210, height: 297, source: 'ISO 216' },
  { name: 'A5', width: 148, height: 210, source: 'ISO 216' },
  { name: 'A6', width: 105, height: 148, source: 'ISO 216' },
  { name: 'B4', width: 250, height: 353, source: 'ISO 216' },
  { name: 'B5', width: 176, height: 250, source: 'ISO 216' },
  { name: 'C5', width: 162, height: 229, source: 'ISO 269' },
  { name: 'DL', width: 110, height: 220, source: 'ISO 269' },
  { name: 'Folder third', width: 99, height: 210, source: 'trade' },
  { name: 'Letter', width: 215.9, height: 279.4, source: 'ANSI/ASME Y14.1' },
  { name: 'Legal', width: 215.9, height: 355.6, source: 'trade' },
  { name: 'Tabloid', width: 279.4, height: 431.8, source: 'ANSI/ASME Y14.1' },
  { name: 'Card', width: 85.6, height: 53.98, source: 'ISO/IEC 7810' },
  { name: 'Royal', width: 156, height: 234, source: 'trade' },
  { name: 'Demy', width: 138, height: 216, source: 'trade' },
  { name: 'Screen 4 to 3', width: 280, height: 210, source: 'trade' },
  { name: 'Screen 16 to 9', width: 320, height: 180, source: 'trade' },
  { name: 'Square', width: 210, height: 210, source: 'trade' },
]

/** The least and the most a page may measure, in millimetres. */
export const pageLimits = { least: 20, most: 2000 } as const
