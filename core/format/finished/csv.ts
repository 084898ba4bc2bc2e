import { csvLines } from '../../census/csv'
import type { FinishedCensus } from './census'

/** The fonts of a finished PDF as CSV (RFC 4180, UTF-8), a line a font; pages count from 1. */
export const finishedCsv = ({ fonts }: FinishedCensus): string =>
  csvLines([
    ['font', 'type', 'in the file', 'letters told', 'characters', 'sizes in pt', 'colours', 'pages'],
    ...fonts.map(font => [
      font.name,
      font.kind,
      font.embedded ? (font.subset ? 'in part' : 'whole') : 'no',
      font.readable ? 'yes' : 'no',
      font.characters,
      font.sizes.map(each => each.size).join(' '),
      font.colors.map(each => each.color).join(' '),
      font.pages.join(' '),
    ]),
  ])
