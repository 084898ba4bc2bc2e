import { csvLines } from '../census/csv'
import type { Effects } from './effects'
import type { Plan } from './plan'

type Line = readonly (string | number)[]
/** What a record keeps of a plan. */
type Recorded = Omit<Plan, 'operations'>

/** The record of a change as CSV (RFC 4180, UTF-8): the change, its rows, what it did to the pages, and what stayed. */
export function recordCsv(
  plan: Recorded,
  of: { readonly fileName: string; readonly version: number; readonly made: Date },
): string {
  const { effects } = plan
  return csvLines([
    ['what', 'where', 'count', 'characters', 'before', 'after', 'remark'],
    [
      'change',
      `${of.fileName}, version ${of.version}`,
      plan.places,
      plan.characters,
      '',
      plan.title,
      of.made.toISOString(),
    ],
    ...plan.sentences.map(sentence => ['wish', '', '', '', '', sentence, '']),
    ...faceLines(plan),
    ...placeLines(plan),
    ...(effects ? effectLines(effects) : []),
    ...missingLines(plan),
    ...plan.left.map(left => ['stays', left.what, left.count, '', '', '', left.reason]),
    ...plan.stale.map(stale => ['dropped', stale, '', '', '', '', 'drawn anew by the next program that saves']),
  ])
}

const faceLines = ({ mappings }: Recorded): Line[] =>
  mappings.map(({ from, to, characters, note }) => [
    'face',
    '',
    '',
    characters,
    `${from.family} ${from.style}`,
    `${to.family} ${to.style}`,
    note,
  ])

const placeLines = ({ rows }: Recorded): Line[] =>
  rows.map(row => [
    'place',
    row.title,
    row.count,
    row.characters,
    row.before,
    row.included ? row.after : row.before,
    row.included ? '' : (row.reason ?? 'left out by hand'),
  ])

const pageOf = ({ page }: { readonly page: number }) => `page ${page + 1}`

/** What the change did to the pages: their number, paragraphs, frames that run over, tables. */
const effectLines = (effects: Effects): Line[] => [
  ['pages', '', '', '', effects.pagesBefore, effects.pagesAfter, ''],
  ...effects.paragraphs.map(each => [
    each.title ? 'title' : 'paragraph',
    pageOf(each),
    '',
    '',
    `${each.linesBefore} lines`,
    `${each.linesAfter} lines`,
    each.opening,
  ]),
  ...effects.overset.map(frame => [
    'frame runs over',
    pageOf(frame),
    '',
    frame.characters,
    `${frame.linesBefore} lines over`,
    `${frame.lines} lines over`,
    frame.name,
  ]),
  ...(effects.tables ?? []).map(table => [
    'table',
    pageOf(table),
    table.rows,
    '',
    `${table.heightBefore} pt`,
    `${table.heightAfter} pt`,
    table.opening,
  ]),
]

const missingLines = ({ missingGlyphs }: Recorded): Line[] =>
  missingGlyphs.map(({ face, count, character, codePoint }) => [
    'missing sign',
    face,
    count,
    '',
    '',
    '',
    `${character} U+${codePoint.toString(16).toUpperCase().padStart(4, '0')}`,
  ])
