import { csvLines } from '../census/csv'
import type { Plan } from './plan'

/** The record of a change as CSV (RFC 4180, UTF-8): the change, its rows, what it did to the pages, and what stayed. */
export function recordCsv(
  plan: Omit<Plan, 'operations'>,
  of: { readonly fileName: string; readonly version: number; readonly made: Date },
): string {
  const { effects } = plan
  const lines: (string | number)[][] = [['what', 'where', 'count', 'characters', 'before', 'after', 'remark']]
  lines.push([
    'change',
    `${of.fileName}, version ${of.version}`,
    plan.places,
    plan.characters,
    '',
    plan.title,
    of.made.toISOString(),
  ])
  for (const sentence of plan.sentences) lines.push(['wish', '', '', '', '', sentence, ''])
  for (const mapping of plan.mappings)
    lines.push([
      'face',
      '',
      '',
      mapping.characters,
      `${mapping.from.family} ${mapping.from.style}`,
      `${mapping.to.family} ${mapping.to.style}`,
      mapping.note,
    ])
  for (const row of plan.rows)
    lines.push([
      'place',
      row.title,
      row.count,
      row.characters,
      row.before,
      row.included ? row.after : row.before,
      row.included ? '' : (row.reason ?? 'left out by hand'),
    ])
  if (effects) {
    lines.push(['pages', '', '', '', effects.pagesBefore, effects.pagesAfter, ''])
    for (const each of effects.paragraphs)
      lines.push([
        each.title ? 'title' : 'paragraph',
        `page ${each.page + 1}`,
        '',
        '',
        `${each.linesBefore} lines`,
        `${each.linesAfter} lines`,
        each.opening,
      ])
    for (const frame of effects.overset)
      lines.push([
        'frame runs over',
        `page ${frame.page + 1}`,
        '',
        frame.characters,
        `${frame.linesBefore} lines over`,
        `${frame.lines} lines over`,
        frame.name,
      ])
    for (const table of effects.tables ?? [])
      lines.push([
        'table',
        `page ${table.page + 1}`,
        table.rows,
        '',
        `${table.heightBefore} pt`,
        `${table.heightAfter} pt`,
        table.opening,
      ])
  }
  for (const glyph of plan.missingGlyphs)
    lines.push([
      'missing sign',
      glyph.face,
      glyph.count,
      '',
      '',
      '',
      `${glyph.character} U+${glyph.codePoint.toString(16).toUpperCase().padStart(4, '0')}`,
    ])
  for (const left of plan.left) lines.push(['stays', left.what, left.count, '', '', '', left.reason])
  for (const stale of plan.stale)
    lines.push(['dropped', stale, '', '', '', '', 'drawn anew by the next program that saves'])
  return csvLines(lines)
}
