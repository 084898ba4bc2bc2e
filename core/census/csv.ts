import type { Census } from './census'
import { sizeAndLeading } from './voices'

/**
 * A cell of RFC 4180. Text that a spreadsheet would take for a formula (=, +, -, @, tab, return first) gets an
 * apostrophe in front.
 */
function cell(value: string | number): string {
  let text = String(value)
  if (typeof value === 'string' && /^[=+\-@\t\r]/.test(text)) text = `'${text}`
  return /[",\r\n]/.test(text) ? `"${text.replace(/"/g, '""')}"` : text
}

/** The census as CSV (RFC 4180, UTF-8): faces, then voices, one header line for both. */
export function censusCsv(census: Census): string {
  const rows: (string | number)[][] = [
    [
      'what',
      'family',
      'style',
      'slot',
      'size and leading',
      'status',
      'shown by',
      'characters',
      'share in percent',
      'pages',
      'styles',
      'settled',
    ],
  ]
  const pages = (list: readonly number[]) => list.map(page => page + 1).join(' ')
  for (const face of census.faces)
    rows.push([
      'face',
      face.family,
      face.style,
      face.slot,
      '',
      face.status,
      face.standIn ?? '',
      face.characters,
      (face.share * 100).toFixed(2),
      pages(face.pages),
      face.styles.join('; '),
      '',
    ])
  for (const voice of census.voices)
    rows.push([
      'voice',
      voice.family,
      voice.style,
      voice.slot,
      sizeAndLeading(voice),
      voice.status,
      '',
      voice.characters,
      (voice.share * 100).toFixed(2),
      pages(voice.pages),
      voice.styles.join('; '),
      voice.unowned ? 'no' : 'yes',
    ])
  for (const family of census.unused)
    rows.push([
      'named, not used',
      family.family,
      '',
      '',
      '',
      family.status,
      '',
      0,
      '0.00',
      '',
      family.where.join('; '),
      '',
    ])
  return csvLines(rows)
}

/** Rows as CSV (RFC 4180). */
export function csvLines(rows: readonly (readonly (string | number)[])[]): string {
  return `${rows.map(row => row.map(cell).join(',')).join('\r\n')}\r\n`
}
